"""What is cut into the face of an old leaf: V lines, the recess of a flush pull."""

from __future__ import annotations

import math

from oakmeasure.core.base.geometry import circle
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.existing.old_leaf import OldLeaf
from oakmeasure.core.construction.spacing import pitch_between
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import Origin
from oakmeasure.core.leaf.part import DrawnMark, Rect


def passes(*, depth: float, step: float) -> int:
    """Return how many passes a recess takes: depth ÷ step, whole passes.

    Args:
        depth: Depth of the recess, mm.
        step: What one pass takes, mm.

    >>> passes(depth=10, step=3)
    4
    """
    return math.ceil(depth / step - 1e-9)


def mark_grooves(leaf: OldLeaf) -> None:
    """Mark V lines that are cut into the face.

    Args:
        leaf: The old leaf while it is worked out.
    """
    choice, w, h = leaf.choice, leaf.fit.width.value, leaf.fit.height.value
    if not choice.grooves:
        return
    band = leaf.ctx.chosen("band", "band to the first line's middle", choice.band, "build.band")
    xs = [w / 2]
    if choice.grooves > 1:
        number = leaf.ctx.figures.given(
            "grooves", "V lines", choice.grooves, Origin(edit="build.grooves"), unit=Unit.COUNT
        )
        pitch = leaf.ctx.figures.derived(
            "pitch",
            "from line to line",
            pitch_between(width=w, band=band.value, count=choice.grooves),
            leaf.fit.width,
            band,
            number,
            formula="(width − 2 × band) ÷ (lines − 1)",
        )
        xs = [band.value + at * pitch.value for at in range(choice.grooves)]
    for x in xs:
        leaf.marks.append(DrawnMark(((x, 0.0), (x, h)), "figure:pitch" if len(xs) > 1 else "figure:band"))


def mark_recess(leaf: OldLeaf) -> None:
    """Mark the recess of a flush pull.

    Args:
        leaf: The old leaf while it is worked out.
    """
    choice = leaf.choice
    if choice.recess_depth is None:
        return
    deep = leaf.ctx.chosen("recess_depth", "recess of the flush pull, depth", choice.recess_depth, "build.recess_depth")
    step = leaf.ctx.chosen("recess_step", "one pass takes", choice.recess_step, "build.recess_step")
    leaf.ctx.figures.derived(
        "recess_passes",
        "passes",
        passes(depth=deep.value, step=step.value),
        deep,
        step,
        formula="depth ÷ step, whole passes",
        unit=Unit.COUNT,
    )
    w, up = leaf.fit.width.value, min(1000.0, leaf.fit.height.value / 2)
    ring = tuple(circle(w - 60.0, up, 22.0))
    leaf.marks.append(DrawnMark(ring, "figure:recess_depth"))


def panel_sights(leaf: OldLeaf) -> tuple[Rect, ...]:
    """Return what shows of each panel, mm.

    Args:
        leaf: The old leaf while it is worked out.
    """
    return tuple(each.face for each in leaf.parts if each.role is Role.PANEL)
