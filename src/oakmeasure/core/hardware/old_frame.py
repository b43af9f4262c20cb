"""A new leaf in a frame that stays: its thickness against the rebate, its lock against the old keep, what is patched.

Common practice, no source: a patch is let in along the grain and planed flush; what is cut anew lies wholly beside it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.prisms import nearest_free
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.old_frame import OldRecess, RecessFor
from oakmeasure.core.figures.check import Grounds, Level, Remedy, Stage
from oakmeasure.core.figures.figure import fixed, minus, plus
from oakmeasure.core.fit.frame import Frame
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutIn
from oakmeasure.core.hardware.hinges.old_recesses import recesses_at, uses_old
from oakmeasure.core.leaf.leaf_context import Context

FLUSH = 0.5  # mm by which a leaf may stand out of a rebate, or back in it
SAME = 1.5  # mm by which a keep may stand off the lock's middle and still take its bolt
BESIDE = 6.0  # mm of wood between a new cut and a patch, so that no screw stands on its glue line
JAMBS = (("hinge", CutIn.HINGE_SIDE), ("latch", CutIn.LATCH_SIDE))


@dataclass(frozen=True, slots=True)
class Patch:
    """An old recess that nothing goes into any more."""

    edge: str
    """Of the leaf, at whose jamb it is: "hinge" or "latch"."""
    recess: OldRecess
    """The recess."""

    @property
    def span(self) -> tuple[float, float]:
        """From where to where it lies, down from the head on its jamb, mm."""
        return self.recess.down, self.recess.down + self.recess.length


def fit_old_frame(
    ctx: Context, frame: Frame, body: Body, cuts: Sequence[Boring]
) -> tuple[tuple[Boring, ...], tuple[Patch, ...]]:
    """Judge a leaf against the frame that it goes into.

    Returns what is cut without the keeps that are there already, and the old recesses that are patched.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        frame: What the leaf hangs in.
        body: The leaf's pieces in place.
        cuts: What is cut for hardware, in leaf and frame.
    """
    old = ctx.leaf.old_frame
    if old.deep is not None:
        _judge_depth(ctx.at(Stage.FIT), body, old.deep)
    if not old.recesses:
        return tuple(cuts), ()
    kept = tuple(each for each in cuts if not _is_there(ctx, each))
    _judge_keep(ctx, frame, cuts)
    patches = patches_of(ctx, cuts)
    if patches:
        words = "; ".join(
            f"{each.recess.what}, {ctx.fmt(each.recess.length)} × {ctx.fmt(each.recess.wide)} × "
            f"{ctx.fmt(each.recess.deep)}, {ctx.fmt(each.recess.down)} down the {each.edge} jamb"
            for each in patches
        )
        ctx.warn(
            "frame-patches",
            "Old recesses are patched first",
            f"{words}.",
            Remedy("Patches along the grain, glued and planed flush before anything new is cut"),
            grounds=Grounds(rule="common practice"),
        )
    for patch in patches:
        _judge_clear(ctx, patch, patches, kept)
    return kept, patches


def patches_of(ctx: Context, cuts: Sequence[Boring]) -> tuple[Patch, ...]:
    """Return the old recesses that the new leaf has no use for.

    Args:
        ctx: The leaf's context: its choices are read.
        cuts: What is cut for hardware, in leaf and frame.
    """
    in_use = {at for at, _ in uses_old(ctx)} if ctx.leaf.hanging.has_butts else set()
    found = []
    for edge, _ in JAMBS:
        for what in RecessFor:
            for at, each in recesses_at(ctx, edge, what):
                is_kept = what is RecessFor.KEEP and edge == "latch" and any(_takes(each, cut) for cut in cuts)
                if at not in in_use and not is_kept:
                    found.append(Patch(edge, each))
    return tuple(found)


def _takes(recess: OldRecess, cut: Boring) -> bool:
    """Return whether an old keep takes what a new one is cut for."""
    if cut.kind not in (BoringKind.LOCK_KEEP, BoringKind.LATCH_KEEP):
        return False
    return abs(recess.down + recess.length / 2 - cut.from_top - cut.along / 2) <= SAME


def _is_there(ctx: Context, cut: Boring) -> bool:
    return any(_takes(each, cut) for _, each in recesses_at(ctx, "latch", RecessFor.KEEP))


def _judge_depth(ctx: Context, body: Body, deep: float) -> None:
    """The leaf's thickness against the depth from the frame's face to its stop."""
    f = ctx.figures
    depth = f.given("frame_deep", "frame, from its face back to the stop", deep, fixed("old_frame.deep"))
    thick = f.derived(
        "frame_leaf",
        "leaf, thickness at its latch edge",
        body.thickness_along("latch"),
        f["thickness"],
        formula="from face to face there",
    )
    proud = f.total("frame_proud", "leaf stands out of the frame (less than 0: back in it)", plus(thick), minus(depth))
    if abs(proud.value) <= FLUSH:
        ctx.fine(
            "frame-flush",
            "The leaf lies flush in the frame",
            f"{ctx.fmt(thick)} in {ctx.fmt(depth)}.",
            grounds=Grounds("frame_proud"),
        )
        return
    is_solid = ctx.leaf.old_frame.rebate_side is not None
    mends = [Remedy("Deepen the rebate, or pack it" if is_solid else "Set the stops anew, off the leaf as it hangs")]
    if hasattr(ctx.leaf.build, "thickness"):
        mends.insert(0, Remedy(f"A leaf of {ctx.fmt(depth)}", "build.thickness", deep))
    ctx.warn(
        "frame-proud",
        "The leaf stands out of the frame" if proud.value > 0 else "The leaf lies back in the frame",
        f"{ctx.fmt(thick)} in {ctx.fmt(depth)}: by {ctx.fmt(abs(proud.value))}.",
        *mends,
        grounds=Grounds("frame_proud"),
    )


def _judge_keep(ctx: Context, frame: Frame, cuts: Sequence[Boring]) -> None:
    """An old keep, and the lock or latch that should shut into it."""
    olds = recesses_at(ctx, "latch", RecessFor.KEEP)
    new = [each for each in cuts if each.kind in (BoringKind.LOCK_KEEP, BoringKind.LATCH_KEEP)]
    if not olds or not new:
        return
    if any(_takes(old, each) for _, old in olds for each in new):
        ctx.fine("old-keep", "The old keep takes the bolt", "It stands where the lock comes.", grounds=Grounds())
        return
    at, old = olds[0]
    middle = ctx.figures.given(
        "old_keep",
        "old keep, its middle down from the head, on the latch jamb",
        old.down + old.length / 2,
        fixed(f"old_frame.recesses.{at}.down"),
    )
    up = frame.latch.place(middle.value)[1] - frame.leaf_at[1] + ctx.figures["gap_floor"].value
    path = (
        "hardware.latch.up"
        if new[0].kind is BoringKind.LATCH_KEEP
        else "build.lock_height"
        if hasattr(ctx.leaf.build, "lock_height")
        else ""
    )
    off = new[0].from_top + new[0].along / 2 - middle.value
    ctx.warn(
        "old-keep",
        "The lock does not meet the old keep",
        f"It comes {ctx.fmt(abs(off))} {'under' if off > 0 else 'over'} it.",
        *([Remedy(f"The lock {ctx.fmt(up)} above the floor", path, round(up, 2))] if path else []),
        Remedy("A new keep, and the old one patched"),
        grounds=Grounds("old_keep"),
    )


def _judge_clear(ctx: Context, patch: Patch, patches: Sequence[Patch], cuts: Sequence[Boring]) -> None:
    """What is cut anew keeps clear of a patch, or lies wholly outside it."""
    side = dict(JAMBS)[patch.edge]
    low, high = patch.span
    for cut in cuts:
        start, end = cut.from_top, cut.from_top + cut.along
        if cut.cut_in is not side or not (start < high + BESIDE and end > low - BESIDE):
            continue
        blocked = [
            (a - BESIDE - cut.along, b + BESIDE) for a, b in (each.span for each in patches if each.edge == patch.edge)
        ]
        free = nearest_free(blocked, at=start, low=0.0, high=4000.0)
        tops = _moved(ctx, cut, (free or start) - start)
        ctx.report(
            f"patch-met-{cut.name.replace(' ', '-')}",
            Level.WARNING,
            f"The {cut.name} is cut into a patch",
            f"It lies from {ctx.fmt(start)} to {ctx.fmt(end)} down the {patch.edge} jamb, the patch from "
            f"{ctx.fmt(low)} to {ctx.fmt(high)}.",
            *(
                [
                    Remedy(
                        f"{ctx.fmt(abs((free or start) - start))} {'down' if (free or start) > start else 'up'}",
                        "hardware.tops",
                        tops,
                    )
                ]
                if tops
                else []
            ),
            Remedy("Move it clear of the patch: screws do not hold on a glue line"),
            grounds=Grounds(rule=f"{ctx.fmt(BESIDE)} clear of a patch: common practice"),
        )


def _moved(ctx: Context, cut: Boring, by: float) -> tuple[float, ...]:
    """Return the places of all butts, down from the leaf's top, with one of them moved; () of another cut."""
    if cut.kind is not BoringKind.BUTT or not by:
        return ()
    count = int(ctx.figures["butt_count"].value)
    names = (f"butt_{number}_top" for number in range(1, count + 1))
    tops = [ctx.figures[name].value for name in names]  # type: ignore[index]
    tops[cut.number - 1] += by
    return tuple(round(each, 2) for each in tops) if min(tops) >= 0 else ()
