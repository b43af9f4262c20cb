"""Constructions, each a module that turns the fitted leaf into a `Build`.

To add one: write `build/<kind>.py` with a function `build(ctx, fit, timber) -> Build`, give it a model with
that `kind` in job.py, add its line to CONSTRUCTIONS and a test that works one leaf by hand.
"""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.core.build.shape import Build

# kind -> (the trade's name, the module); a module is imported when the first leaf of its kind is solved.
CONSTRUCTIONS = {"framed": ("framed and panelled", "oakmeasure.core.build.framed")}


def builder(kind: str) -> Callable[..., Build]:
    """Return the function that builds leaves of `kind`; KeyError when there is none."""
    return import_module(CONSTRUCTIONS[kind][1]).build
