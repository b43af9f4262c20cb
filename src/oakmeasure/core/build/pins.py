"""Pins and screws that would meet the lock or the hinges: refused before they are driven.

Sources: common practice of the trade.
"""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.build.shape import Build, Fixing, Rect
from oakmeasure.core.context import Context
from oakmeasure.core.hardware.butts import Butts
from oakmeasure.core.units import Unit
from oakmeasure.core.verdicts import Level, Remedy, Stage
from oakmeasure.core.working import given

BESIDE = 8.0  # kept free round what will be cut: common practice, no source
HINGE_SCREW = 40.0  # how far a hinge's screws reach in from the edge: common practice, no source


def keep_outs(ctx: Context, build: Build, butts: Butts | None) -> list[tuple[str, Rect]]:
    """Return where something will be cut or bored: what, and its rectangle on the face with some room round it."""
    found: list[tuple[str, Rect]] = []
    lock = ctx.leaf.hardware.lock
    height = getattr(ctx.leaf.build, "lock_height", None)
    if lock is not None and height is not None:
        centre = height - ctx.figures["gap_floor"].value
        half = lock.case_height / 2 + BESIDE
        found.append(("the lock", Rect(build.width - lock.case_depth - BESIDE, centre - half, build.width,
                                       centre + half)))  # fmt: skip
    for place in butts.places if butts else ():
        r = place.rect
        found.append((f"butt {place.number}", Rect(0.0, r.y0 - BESIDE, HINGE_SCREW + BESIDE, r.y1 + BESIDE)))
    return found


def keep_clear(ctx: Context, build: Build, butts: Butts | None) -> Build:
    """Return a layered build without the pins that would meet the lock or a hinge, and say which those are."""
    if not build.layered or not build.fixings:
        return build
    outs = keep_outs(ctx, build, butts)
    kept: list[Fixing] = []
    refused: list[Fixing] = []
    names: list[str] = []
    for each in build.fixings:
        met = [name for name, r in outs if r.x0 <= each.x <= r.x1 and r.y0 <= each.y <= r.y1]
        (refused if met else kept).append(each)
        names += met
    what = build.fixings[0].what
    count = ctx.figures.add(given("pins_count", f"{what}, a face", len(kept), Unit.COUNT, choice=True,
                                  source="as set out, less those refused"))  # fmt: skip
    if refused:
        listed = ", ".join(dict.fromkeys(names))
        ctx.say("pins-refused", Level.FINE, Stage.LEAF, f"{len(refused)} {what} are left out",
                f"They would meet {listed}; {ctx.fmt(count)} are driven. Those left out are marked on the drawing.",
                Remedy("Clamp there until the glue has set"), rule="none where anything will be cut or bored",
                figure="pins_count")  # fmt: skip
    return replace(build, fixings=tuple(kept), refused=tuple(refused))
