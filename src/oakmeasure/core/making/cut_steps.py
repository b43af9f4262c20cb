"""The operation that makes the cuts for a device."""

from __future__ import annotations

from oakmeasure.core.document.production import About
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.making.operation import Bucket, SideUp, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import NOTHING, StepBuilder


def cut_for(
    m: StepBuilder, op_id: str, name: str, trade: Trade, cuts: list[Boring], hold: SideUp, **what: object
) -> None:
    """Add a cut in the leaf at its earliest moment.

    Args:
        m: Where the operations are added.
        op_id: Id of the operation.
        name: What is done.
        trade: What kind of work it is.
        cuts: The cuts that it makes.
        hold: Which side lies up.
        what: Further fields of the operation; `from_edge`, `after` and `settings` among them.
    """
    edge = m.sized if hold is SideUp.HINGE_EDGE else m.evened or m.sized
    needs, loose = _moment(m, cuts, edge, from_edge=bool(what.pop("from_edge", True)))
    more = what.pop("after", ())
    part = cuts[0].member if loose else ""
    settings = what.pop("settings", ())
    m.add(
        op_id,
        name + (" in the loose " + cuts[0].member if loose else ""),
        trade,
        needs=(*needs, *more),  # type: ignore[misc]
        early=True,
        parts=tuple(dict.fromkeys(c.part for c in cuts)),
        cuts=tuple(c.name for c in cuts),
        settings=settings,
        hold=WorkpieceSetup(hold, part),
        bucket=Bucket.HANGING,
        about=About.HARDWARE,
        why="a loose member lies flat under the tool" if loose else "as soon as its edge is as it stays",
        later="a leaf of full weight on edge" if loose else "nothing can be hung dry before it",
        **what,
    )


def is_cut_loose(m: StepBuilder, cuts: list[Boring], *, from_edge: bool) -> bool:
    """Return whether a cut is made in members that are loose yet.

    Args:
        m: Where the operations are added.
        cuts: The cuts that it makes.
        from_edge: Whether it is measured from an edge that is planed once the leaf is one.
    """
    return _moment(m, cuts, "", from_edge=from_edge)[1]


def _moment(m: StepBuilder, cuts: list[Boring], edge: str, *, from_edge: bool = True) -> tuple[tuple[str, ...], bool]:
    """Return what a cut in the leaf needs, and whether it is made in loose members.

    Loose, where they are worked before they are joined, no joint lies in the cut and the edge that it is measured from
    stays as it is; else on the leaf as it is sized.
    """
    loose = m.leaf.leaf.build.is_worked_loose and not (from_edge and max(m.trim_side, m.trim_end) > NOTHING)
    for cut in cuts:
        loose = loose and cut.member in m.ready and not _meets_joint(m, cut)
    if loose:
        return ("measure:set", "mark:joints", *m.loose(cut.member for cut in cuts)), True
    return ("measure:set", edge), False


def _meets_joint(m: StepBuilder, cut: Boring) -> bool:
    y1 = m.build.height - cut.from_top
    return any(
        cut.member in (t.member, t.into) and t.rect.y0 < y1 and t.rect.y1 > y1 - cut.along for t in m.build.tenons
    )
