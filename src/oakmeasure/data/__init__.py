"""Tables that ship with the application. Read once, as plain values; each row names its source."""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import Any

HERE = Path(__file__).parent


@cache
def table(name: str) -> dict[str, Any]:
    """Return the table `name` ("species", "rules/site-metric")."""
    import tomllib  # the first painting needs no table

    return tomllib.loads(text(f"{name}.toml"))


@cache
def names(folder: str) -> tuple[str, ...]:
    """Return the names of the tables in `folder`, without their endings, sorted."""
    return tuple(sorted(each.stem for each in (HERE / folder).glob("*.toml")))


def text(name: str) -> str:
    """Return a shipped text file, such as the demo job."""
    return (HERE / name).read_text(encoding="utf-8")


def path_of(name: str) -> str:
    """Return the path of a shipped file, for fonts."""
    return str(HERE / name)
