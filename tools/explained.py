"""Refuse, with the linters, what is not explained: a parameter of a public function, a field of a public class.

Ruff asks for a docstring, and that a section `Args:` leaves out no parameter; it does not ask for the section, nor
for a line under each field.
"""

from __future__ import annotations

import ast
import re
import sys
from collections.abc import Iterator
from pathlib import Path

SOURCE = Path(__file__).parent.parent / "src/oakmeasure"
ROOMS = ("core", "files", "gauges")
Function = ast.FunctionDef | ast.AsyncFunctionDef


def parameters(function: Function) -> list[str]:
    """Return the names of a function's parameters, `self` and `cls` left out.

    Args:
        function: The function.
    """
    given = function.args
    found = [*given.posonlyargs, *given.args, given.vararg, *given.kwonlyargs, given.kwarg]
    return [each.arg for each in found if each is not None and each.arg not in ("self", "cls")]


def explained(docstring: str) -> set[str]:
    """Return the names that the section `Args:` of a docstring explains.

    Args:
        docstring: The docstring, its indentation taken off.
    """
    section = re.search(r"^Args:\n((?: {4}.*(?:\n|$))+)", docstring, re.MULTILINE)
    return set(re.findall(r"^ {4}(\w+): \S", section[1], re.MULTILINE)) if section else set()


def public(body: list[ast.stmt]) -> Iterator[Function | ast.ClassDef]:
    """Yield the public functions and classes of a module, those within classes with them.

    Args:
        body: The statements of a module or a class.
    """
    for node in body:
        if isinstance(node, Function | ast.ClassDef) and not node.name.startswith("_"):
            yield node
            if isinstance(node, ast.ClassDef):
                yield from public(node.body)


def unexplained(node: Function | ast.ClassDef) -> list[str]:
    """Return the parameters, or the fields, that nothing is said about.

    Args:
        node: A function or a class.
    """
    if isinstance(node, ast.ClassDef):
        fields = [(at, each) for at, each in enumerate(node.body) if isinstance(each, ast.AnnAssign)]
        return [
            each.target.id
            for at, each in fields
            if isinstance(each.target, ast.Name)
            and not each.target.id.startswith("_")
            and not (at + 1 < len(node.body) and _is_text(node.body[at + 1]))
        ]
    kinds = {ast.unparse(each) for each in node.decorator_list}
    if any(each.endswith(("overload", ".setter")) for each in kinds):
        return []
    told = explained(ast.get_docstring(node) or "")
    return [each for each in parameters(node) if each not in told]


def _is_text(node: ast.stmt) -> bool:
    return isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, str)


def main() -> None:
    """Print what is not explained, and end with 1 where something is not."""
    refused = 0
    for room in ROOMS:
        for path in sorted((SOURCE / room).rglob("*.py")):
            for node in public(ast.parse(path.read_text(encoding="utf-8")).body):
                for name in unexplained(node):
                    print(f"{path.relative_to(SOURCE.parent)}:{node.lineno}: {node.name}: {name} is not explained")
                    refused += 1
    sys.exit(bool(refused))


if __name__ == "__main__":
    main()
