"""Brings the phrases of a language up to date with the sources and the data that ship with them: what is new stands
empty in its file, to be written. Prints how many are missing, and what the window says of the demo job that stays
strange.

    PYTHONPATH=tests .venv/bin/python tools/make_phrases.py de
"""

from __future__ import annotations

import ast
import os
import re
import sys
import tomllib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import polib

ROOT = Path(__file__).parent.parent
SOURCES = ROOT / "src/oakmeasure"
# What is typed and answered in a terminal, and the outside devices, speak English.
NOT_SHOWN = (
    "cli/main.py",
    "cli/inspect.py",
    "cli/papers.py",
    "cli/common.py",
    "cli/quick_sum.py",
    "cli/desktop_install.py",
)
NOT_FOLDERS = ("gauges", "data", "language")
FOR_PROGRAMS = ("KeyError", "ValueError", "TypeError", "RuntimeError", "AssertionError", "NotImplementedError")
SAID = re.compile(r"[A-Za-z]{2,}")
# Style sheets, regular expressions, names of files and colours are no words.
CODE = re.compile(
    r"^[\w.:/*#{}=%<>|-]*$|^[#.]?[\w-]+ ?\{(?!\d)|;$|^\(\?|\\[ds]|^<|^%|^--|^#|QWidget|^[A-Z]\d"
    r"|^(part|handle):|^(line|area|fill:) |(width|align)=|\.pdf$|stroke:|Source Sans"
    # What pydantic says is known by these and told in other words.
    r"|^String should|^Value error|^Input should"
)


LABELS = "set_to"  # whose names of figures are what stands on a label


def template(node: ast.JoinedStr) -> str:
    """Return an f-string with its places numbered."""
    text, at = "", 0
    for each in node.values:
        if isinstance(each, ast.Constant):
            text += str(each.value)
        else:
            text += f"{{{at}}}"
            at += 1
    return text


def not_said(tree: ast.Module) -> set[int]:
    """Return the nodes that document something, or are told to programmers."""
    found = set()
    for node in ast.walk(tree):
        for each in getattr(node, "body", []) if not isinstance(node, ast.Lambda | ast.IfExp) else []:
            if isinstance(each, ast.Expr) and isinstance(each.value, ast.Constant):
                found.add(id(each.value))
        made = node.exc if isinstance(node, ast.Raise) else None
        if isinstance(made, ast.Call) and isinstance(made.func, ast.Name) and made.func.id in FOR_PROGRAMS:
            found |= {id(each) for each in ast.walk(made)}
        if isinstance(node, ast.JoinedStr):  # its words are told with it, those in its places for themselves
            found |= {id(each) for each in node.values}
    return found


def said_in(path: Path) -> Iterator[str]:
    """Yield the sentences and words with spaces of a module."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    without = not_said(tree)
    for node in ast.walk(tree):
        if id(node) in without:
            continue
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr == LABELS:
            yield from (each.arg.replace("_", " ") for each in node.keywords if each.arg is not None)
        text = template(node) if isinstance(node, ast.JoinedStr) else getattr(node, "value", None)
        if not isinstance(node, ast.JoinedStr | ast.Constant) or not isinstance(text, str):
            continue
        if " " in text.strip() and SAID.search(re.sub(r"\{\d+\}", "", text)) and not CODE.search(text):
            yield text


def in_data(value: Any) -> Iterator[str]:
    """Yield the words of a table of data."""
    if isinstance(value, str) and SAID.search(value) and not re.fullmatch(r"[a-z0-9_.#-]+|#\w{6}", value):
        yield value
    for each in value.values() if isinstance(value, dict) else value if isinstance(value, list) else ():
        yield from in_data(each)


def all_said() -> dict[str, None]:
    """Return every phrase of the sources and the data."""
    found: dict[str, None] = {}
    for path in sorted(SOURCES.rglob("*.py")):
        inner = path.relative_to(SOURCES)
        if inner.parts[0] in NOT_FOLDERS or (len(inner.parts) == 1 and inner.name in NOT_SHOWN):
            continue
        found |= dict.fromkeys(said_in(path))
    for path in sorted((SOURCES / "data").rglob("*.toml")):
        found |= dict.fromkeys(in_data(tomllib.loads(path.read_text(encoding="utf-8"))))
    return found


def main(language: str) -> None:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    path = SOURCES / f"data/phrases-{language}.po"
    book = polib.pofile(str(path), wrapwidth=100_000)
    there = {each.msgid for each in book}
    for text in all_said():
        if text not in there:
            book.append(polib.POEntry(msgid=text, msgstr=""))
    book.save(str(path))
    print(f"{len(book)} phrases, {sum(not each.msgstr for each in book)} to be written")

    from oakmeasure.app.shell.start import application
    from oakmeasure.files.job.job_file import demo_job
    from oakmeasure.language.phrases import Phrases, read_phrases
    from shown import heard_of, strange_in

    app = application()
    job = demo_job()
    phrases = Phrases(read_phrases(path.read_text(encoding="utf-8")))
    heard = list(heard_of(job))
    strange = strange_in(phrases, heard, job)
    print(f"{len(strange)} of {len(heard)} texts of the window stay strange in part:")
    print("\n".join(strange))
    del app


if __name__ == "__main__":
    main(sys.argv[1])
