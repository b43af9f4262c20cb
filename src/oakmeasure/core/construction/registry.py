"""What the constructions do: each kind is a folder, whose modules are imported when the first leaf of it is solved.

A folder holds `model` (its choices), `build` (its parts), `steps` (how it is made), `sheet` (what it asks) and, where
it has them, `alternatives`, `hollows` and `drag`; docs/adding.md says what each of them gives.
"""

from __future__ import annotations

from dataclasses import replace
from importlib import import_module
from importlib.util import find_spec
from typing import TYPE_CHECKING, Any

from oakmeasure.core.document.constructions import KINDS

if TYPE_CHECKING:
    from oakmeasure.core.fit.alternatives import Comparison
    from oakmeasure.core.fit.fit_result import Fit
    from oakmeasure.core.leaf.leaf_context import Context
    from oakmeasure.core.leaf.part import Build
    from oakmeasure.core.timber.choice import Timber

__all__ = ["KINDS", "build_leaf", "has", "leaf_ways", "module"]


def module(kind: str, name: str) -> Any:
    """Return a module of a kind's folder.

    Args:
        kind: One of `KINDS`.
        name: Of the module: "build", "steps", "sheet" and so on.

    Returns:
        The module.

    Raises:
        ModuleNotFoundError: The kind has none of that name.
    """
    return import_module(f"oakmeasure.core.construction.{kind}.{name}")


def has(kind: str, name: str) -> bool:
    """Return whether a kind's folder has such a module.

    Args:
        kind: One of `KINDS`.
        name: Of the module.

    Returns:
        True where it is there.
    """
    return find_spec(f"oakmeasure.core.construction.{kind}.{name}") is not None


def build_leaf(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the leaf as its construction makes it, cut to its outline.

    Args:
        ctx: The leaf with its choices; its figures and checks are added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Its species and moisture.

    Returns:
        Parts and joints, in the finished leaf's coordinates.
    """
    from oakmeasure.core.construction.clip_to_outline import shape_to
    from oakmeasure.core.construction.real_parts import real_parts

    builder = module(ctx.leaf.build.kind, "build")
    built: Build = shape_to(ctx, fit, _numbered(builder.build(ctx, fit, wood)))
    return real_parts(ctx, builder.after(ctx, fit, wood, built) if hasattr(builder, "after") else built)


def _numbered(build: Build) -> Build:
    """Return a leaf whose parts have a number each: those that its builder has not numbered in another order."""
    if all(each.mark for each in build.parts):
        return build
    return replace(build, parts=tuple(replace(each, mark=str(at)) for at, each in enumerate(build.parts, start=1)))


def leaf_ways(ctx: Context, fit: Fit, build: Build, wood: Timber) -> tuple[Comparison, ...]:
    """Return everything that can be compared about how the leaf is made.

    Args:
        ctx: The leaf with its choices and figures.
        fit: Its size, mm.
        build: Its parts.
        wood: Its species and moisture.

    Returns:
        Choices side by side; () where its construction has none.
    """
    kind = ctx.leaf.build.kind
    found: tuple[Comparison, ...] = (
        module(kind, "alternatives").ways(ctx, fit, build, wood) if has(kind, "alternatives") else ()
    )
    return found
