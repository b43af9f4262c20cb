"""`oak-measure sum`: one quick sum, at once. Neither the window nor a job's models are loaded for it."""

from __future__ import annotations

import json
import sys
from collections.abc import Sequence

from oakmeasure.core.errors import InputError
from oakmeasure.core.sums.quick import Option, Sum, answer, read
from oakmeasure.core.sums.registry import SUMS, sum_named
from oakmeasure.core.units import Show, System

USAGE = "oak-measure sum NAME --option value … [--inch] [--json], oak-measure sum --list"


def run(words: Sequence[str]) -> int:
    """Answer what the words ask; the status to leave with. What is refused goes to stderr in one line."""
    if not words or words[0] in ("--list", "--help", "-h"):
        print(USAGE if not words or words[0] != "--list" else _listed())
        return 0 if words else 2
    try:
        which = sum_named(words[0])
        if "--help" in words or "-h" in words:
            print(_help(which))
            return 0
        print(_answered(which, words[1:]))
    except InputError as error:
        name = "no sum" if error.field == "sum" else f"--{error.field}"
        print(f"oak-measure sum: {name} {error.value}: needs {error.need}", file=sys.stderr)
        return 2
    return 0


def _answered(which: Sum, words: Sequence[str]) -> str:
    plain = [each for each in words if each not in ("--json", "--inch")]
    system = System.INCH if "--inch" in words else System.MM
    found = answer(which, read(which, _texts(which, plain), system))
    show = Show(system)
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


def _said(option: Option) -> str:
    default = "" if option.default is None else f"({option.default:g})" if option.unit else f"({option.default})"
    return f"--{option.name}{default}{' …' if option.repeated else ''}"


def _help(which: Sum) -> str:
    lines = [f"{which.title}. {which.says}"]
    for option in which.options:
        kind = ", ".join(option.choices) if option.unit is None else option.unit.value
        lines.append(f"  {_said(option):28} {option.label} [{kind}]")
    return "\n".join(lines)
