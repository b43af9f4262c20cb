"""Tables that ship with the application. Read once, as plain values; each row names its source."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib import resources
from typing import Any


@cache
def table(name: str) -> dict[str, Any]:
    """Return the table `name` ("species", "rules/site-metric")."""
    return tomllib.loads(resources.files(__package__).joinpath(f"{name}.toml").read_text(encoding="utf-8"))


@cache
def names(folder: str) -> tuple[str, ...]:
    """Return the names of the tables in `folder`, without their endings, sorted."""
    entries = resources.files(__package__).joinpath(folder).iterdir()
    return tuple(sorted(each.name.removesuffix(".toml") for each in entries if each.name.endswith(".toml")))


def text(name: str) -> str:
    """Return a shipped text file, such as the demo job."""
    return resources.files(__package__).joinpath(name).read_text(encoding="utf-8")


def path_of(name: str) -> str:
    """Return the path of a shipped file, for fonts."""
    return str(resources.files(__package__).joinpath(name))
