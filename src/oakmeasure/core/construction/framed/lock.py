"""The case of a mortise lock against the latch stile and the tenons in it."""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.base.prisms import nearest_free
from oakmeasure.core.base.units import HAIR
from oakmeasure.core.construction.framed.joints import LATCH_STILE
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, fixed
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.lock_place import lock_wish
from oakmeasure.core.leaf.part import Rect, Tenon

BEHIND_SPINDLE = 15.0  # of wood: common practice, no source
LOCK_CHEEK = 8.0  # of wood on each side of a lock case: common practice, no source
LOCK_CLEAR = 3.0  # between a lock's case and a tenon: common practice, no source
LOCK_RANGE = (800.0, 1150.0)  # above the floor, for a lock that keeps clear of tenons: common practice, no source
BLIND_WOOD = 10.0  # wood that stays beyond a blind mortise: common practice, no source


def judge_lock(ctx: Context, choice: Framed, fit: Fit, tenons: list[Tenon]) -> None:
    """Judge the case of a mortise lock against the latch stile and the tenons in it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the frame.
        fit: Size of the leaf and its gaps, mm.
        tenons: The leaf's tenons.
    """
    lock = ctx.leaf.hardware.lock
    if lock is None:
        return
    f = ctx.figures
    deep = f.given("lock_case", "lock case, forend to back", lock.case_depth, fixed("hardware.lock.case_depth"))
    tall = f.given("lock_case_tall", "lock case, height", lock.case_height, fixed("hardware.lock.case_height"))
    back = f.given("lock_backset", "backset", lock.backset, fixed("hardware.lock.backset"))
    thick = f.given("lock_thick", "lock case, thickness", lock.case_thickness, fixed("hardware.lock.case_thickness"))
    _cheeks(ctx, choice, thick)
    wood = choice.stile - deep.value
    wish = lock_wish(choice.lock_height - f["gap_floor"].value, tall.value, fit.height.value)
    reach = fit.width.value - deep.value
    rail = [each for each in tenons if each.into == LATCH_STILE and each.rect.x1 > reach and not each.is_haunch]
    centre = _clear_of([each.rect for each in rail], wish, tall.value, f["gap_floor"].value)
    if abs(centre + f["gap_floor"].value - choice.lock_height) > HAIR:
        moved = abs(centre - wish) > HAIR
        how = "the nearest place where its case cuts no tenon" if moved else "half way up a low leaf"
        f.derived("lock_up", "lock, up the leaf", centre, tall, f["gap_floor"], formula=how)
    low, high = centre - tall.value / 2, centre + tall.value / 2
    met = [each for each in rail if each.rect.y0 < high and low < each.rect.y1]
    if back.value > choice.stile - BEHIND_SPINDLE:
        ctx.stop(
            "lock-backset",
            "The stile does not hold the backset",
            f"Backset {ctx.fmt(back)} in a stile of {ctx.fmt(choice.stile)}.",
            Remedy(f"Stiles of {ctx.fmt(back.value + BEHIND_SPINDLE)}", "build.stile", back.value + BEHIND_SPINDLE),
            grounds=Grounds(
                "lock_backset",
                "part:latch stile",
                rule=f"{ctx.fmt(BEHIND_SPINDLE)} of wood behind the spindle: common practice",
            ),
        )
    elif wood < 8 and not met:
        ctx.warn(
            "lock-case",
            "The lock case comes through the stile",
            f"{ctx.fmt(deep)} deep in a stile of {ctx.fmt(choice.stile)}.",
            Remedy(f"Stiles of {ctx.fmt(deep.value + 8)}", "build.stile", deep.value + 8)
            if deep.value + 8 <= 400
            else Remedy("A shallower lock"),
            grounds=Grounds("lock_case", "part:latch stile"),
        )
    _say_tenons(ctx, choice, met, (low, high), wood, back)


def _clear_of(tenons: Sequence[Rect], wish: float, tall: float, over_floor: float) -> float:
    """Return the place nearest to a wish at which a case meets no tenon; the wish where there is none within reach."""
    spans = [(each.y0 - tall / 2 - LOCK_CLEAR, each.y1 + tall / 2 + LOCK_CLEAR) for each in tenons]
    low, high = (each - over_floor for each in LOCK_RANGE)
    is_met = any(each.y0 < wish + tall / 2 and wish - tall / 2 < each.y1 for each in tenons)
    if not is_met or not low <= wish <= high:
        return wish
    found = nearest_free(spans, at=wish, low=low, high=high)
    return wish if found is None else found


def _say_tenons(
    ctx: Context, choice: Framed, met: list[Tenon], span: tuple[float, float], wood: float, back: Figure
) -> None:
    """Say whether the case cuts a tenon."""
    low, high = span
    if met:
        first = met[0]
        ctx.stop(
            "lock-tenon",
            "The lock case cuts a tenon",
            f"The case stands from {ctx.fmt(low)} to {ctx.fmt(high)} up the leaf, the tenon of the {first.member} "
            f"from {ctx.fmt(first.rect.y0)} to {ctx.fmt(first.rect.y1)}.",
            Remedy("A shallower lock, or a wider rail whose two tenons leave it room"),
            *([Remedy("No middle rail", "build.middle_rail", None)] if not choice.rows else []),
            grounds=Grounds("lock_case", f"part:{first.member}", rule="a lock between divided tenons: common practice"),
        )
    elif wood >= 8 and back.value <= choice.stile - BEHIND_SPINDLE:
        ctx.fine(
            "lock",
            "The lock case misses the tenons",
            f"{ctx.fmt(wood)} of the stile stay behind it." + _where(ctx),
            grounds=Grounds("lock_case", "part:latch stile"),
        )


def _where(ctx: Context) -> str:
    """Return where a lock stands that is not where it was asked for."""
    up = ctx.figures.get("lock_up")
    return f" It stands {ctx.fmt(up.value + ctx.figures['gap_floor'].value)} above the floor." if up is not None else ""


def _cheeks(ctx: Context, choice: Framed, thick: Figure) -> None:
    """Judge how much of the leaf stays beside the case."""
    cheek = (choice.thickness - thick.value) / 2
    if cheek < LOCK_CHEEK:
        thicker = thick.value + 2 * LOCK_CHEEK
        ctx.report(
            "lock-thin",
            Level.STOP if cheek < 3 else Level.WARNING,
            "The leaf is thin for its lock",
            f"{ctx.fmt(choice.thickness)} less a case of {ctx.fmt(thick)}: {ctx.fmt(cheek)} stay on each side.",
            Remedy(f"A leaf of {ctx.fmt(thicker)}", "build.thickness", thicker),
            grounds=Grounds("lock_thick", "part:latch stile", rule=f"{ctx.fmt(LOCK_CHEEK)} a side: common practice"),
        )
