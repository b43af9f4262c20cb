"""`oak-measure sum`: one quick sum, at once. Neither the window nor a job's models are loaded for it."""

from __future__ import annotations

import json
import sys
from collections.abc import Sequence

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show, Unit, UnitSystem, in_words
from oakmeasure.core.sums.quick import Sum, SumOption, answer, read
from oakmeasure.core.sums.registry import SUMS, sum_named

USAGE = "oak-measure sum NAME --option value … [--inch] [--json], oak-measure sum --list"


def run(words: Sequence[str]) -> int:
    """Answer what the words ask; the status to leave with. What is refused goes to stderr in one line."""
    show = Show(UnitSystem.INCH if "--inch" in words else UnitSystem.MM)
    if not words or words[0] in ("--list", "--help", "-h"):
        print(USAGE if not words or words[0] != "--list" else _listed())
        return 0 if words else 2
    which: Sum | None = None
    try:
        which = sum_named(words[0])
        if "--help" in words or "-h" in words:
            print(_help(which))
            return 0
        print(_answered(which, words[1:], show))
    except InputError as error:
        name = "no sum" if error.field == "sum" else f"--{error.field}"
        print(f"oak-measure sum: {name} {_given(which, error, show)}: {in_words(error, show)}", file=sys.stderr)
        return 2
    return 0


def _given(which: Sum | None, error: InputError, show: Show) -> str:
    """Return what was given, a length in the unit in which it was."""
    given = str(error.value)
    option = next((each for each in which.options if each.name == error.field), None) if which is not None else None
    if option is None or option.unit is not Unit.MM:
        return given
    try:
        return show.length(float(given), unit=True)
    except ValueError:
        return given


def _answered(which: Sum, words: Sequence[str], show: Show) -> str:
    plain = [each for each in words if each not in ("--json", "--inch")]
    found = answer(which, read(which, _texts(which, plain), show.system))
    if "--json" in words:
        return json.dumps(found.record(show), ensure_ascii=False, indent=1)
    results = [f"{each.label}: {show.value(each.value, each.unit)}" for each in found.gives]
    return "\n".join([*results, "", *(f"  {line}" for line in found.working(show))])


def _texts(which: Sum, words: Sequence[str]) -> dict[str, list[str]]:
    """Return what was written for each option: `--name value` or `--name=value`; a value may start with a minus."""
    texts: dict[str, list[str]] = {}
    at = 0
    while at < len(words):
        name, equals, value = words[at].partition("=")
        if not name.startswith("--"):
            raise InputError(which.options[0].name, words[at], "its name first: --name value")
        option = which.option(name[2:])
        if not equals:
            at += 1
            if at >= len(words) or words[at].startswith("--"):
                raise InputError(option.name, "nothing", f"a value: {option.label}")
            value = words[at]
        if not value.strip():
            raise InputError(option.name, "nothing", f"a value: {option.label}")
        texts.setdefault(option.name, []).append(value)
        at += 1
    return texts


def _listed() -> str:
    lines = []
    for each in SUMS.values():
        options = " ".join(_said(option) for option in each.options)
        lines += [f"{each.name}: {each.title}", f"    {options}", f"    → {' '.join(each.gives)}"]
    return "\n".join(lines)


def _said(option: SumOption) -> str:
    default = "" if option.default is None else f"({option.default:g})" if option.unit else f"({option.default})"
    return f"--{option.name}{default}{' …' if option.repeated else ''}"


def _help(which: Sum) -> str:
    lines = [f"{which.title}. {which.says}"]
    for option in which.options:
        kind = ", ".join(option.choices) if option.unit is None else option.unit.value
        lines.append(f"  {_said(option):28} {option.label} [{kind}]")
    return "\n".join(lines)
