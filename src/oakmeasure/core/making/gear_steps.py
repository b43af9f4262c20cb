"""How the gear of a sliding leaf is fixed: hangers, track, guide."""

from __future__ import annotations

from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.hardware.boring import Boring, BoringKind, Device
from oakmeasure.core.making.cut_steps import cut_for
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder

WHOLE_LEAF = "the whole leaf on its head, over the router"  # where a groove in the foot waits


def gear_steps(m: StepBuilder, by: dict[Device, list[Boring]]) -> None:
    """Add the cuts for hangers and wheels, and how the track is fixed.

    Args:
        m: Where the operations are added.
        by: The cuts by the device that they are for.
    """
    hangers, wheels = by.get(Device.HANGER, []), by.get(Device.WHEEL, [])
    if any(c.kind is BoringKind.HANGER_BOLT for c in hangers):
        cut_for(
            m,
            "bore:hangers",
            "Bore through for the hangers' bolts",
            Trade.BORE,
            hangers,
            SideUp.OPENING,
            cautions=("drill",),
            settings=m.set_to(
                in_from_the_edge="bolt_in", down_from_the_top="bolt_down", drill="bolt", apart="bolt_apart"
            ),
            check=StepCheck("both hangers from the same end, level", 0.5),
            practice="one hole through an off-cut: no burst",
            how="a board behind it",
        )
    recess = [c for c in (*hangers, *wheels) if c.kind.is_recess]
    if recess:
        foot = bool(wheels)
        cut_for(
            m,
            "let-in:gear",
            "Let the gear into the leaf's " + ("foot" if foot else "head"),
            Trade.ROUT,
            recess,
            SideUp.FOOT if foot else SideUp.HEAD,
            cautions=m.cautions("router", "heavy"),
            practice="one recess in an off-cut",
            settings=_recess(m, recess[0], foot=foot),
            check=StepCheck("flush, and both alike", 0.2),
        )
    if Device.HEAD_GUIDE in by:
        groove = by[Device.HEAD_GUIDE][0]
        cut_for(
            m,
            "groove:head",
            "Groove the head for its guide",
            Trade.ROUT,
            by[Device.HEAD_GUIDE],
            SideUp.HEAD,
            settings=(Setting("wide", groove.across), Setting("deep", groove.depth)),
            cautions=m.cautions("router", "heavy"),
            check=StepCheck("the guide runs through by hand"),
        )
    if m.has("track_needed") or m.has("stud_hits") or m.has("hole_pitch"):
        _track(m)


def _recess(m: StepBuilder, cut: Boring, *, foot: bool) -> tuple[Setting, ...]:
    """Return how long, wide and deep a recess in foot or head is, and how far in from the nearer edge."""
    assert cut.solid is not None
    x0, y0, x1, y1 = cut.solid.box
    near = min(x0, m.build.width - x1)
    return (
        Setting("long", x1 - x0),
        Setting("wide", cut.solid.depth[1] - cut.solid.depth[0]),
        Setting("deep", y1 - y0, figure="plate_deep"),
        Setting("in from the edge", near),
    )


def _track(m: StepBuilder) -> None:
    """Fix the track and prove it."""
    m.add(
        "fix:track",
        "Fix the track level, into what holds",
        Trade.SITE,
        needs=("measure:set", "measure:opening"),
        bucket=Bucket.HANGING,
        about=About.HARDWARE,
        cautions=("wall",),
        settings=m.set_to(
            line_above_the_floor="track_line",
            holes_every="hole_pitch",
            first="hole_first",
            backing_board="backing_board" if m.has("backing_board") else "wall_backing",
        ),
        check=StepCheck("level over its whole length", 0.5),
        how="from the highest point of the floor",
    )
    m.add(
        "proof:track",
        "Hang the proof load on the track",
        Trade.SITE,
        needs=("fix:track",),
        bucket=Bucket.HANGING,
        share=0.3,
        about=About.HARDWARE,
        settings=m.set_to(load="proof_load"),
        cautions=("wall",),
        check=StepCheck("nothing has moved after ten minutes"),
    )


def guide_steps(m: StepBuilder, by: dict[Device, list[Boring]]) -> None:
    """Add the groove for the guide on the floor.

    Args:
        m: Where the operations are added.
        by: The cuts by the device that they are for.
    """
    if Device.FLOOR_GUIDE not in by:
        return
    groove = m.set_to(wide="guide_width", deep="guide_depth")
    rails = [p for p in m.parts(Role.RAIL) if p.place is Place.BOTTOM and p.name in m.ready]
    is_loose = m.leaf.leaf.build.is_worked_loose or m.leaf.leaf.build.keeps_its_sizes  # a new foot is loose at first
    if rails and is_loose:
        _loose_guide(m, rails[0].name)
        return
    if "guide_left" in m.leaf.figures or m.leaf.leaf.late.is_any:
        how = "the foot is trimmed later: what is left of the groove then is on the drawing"
    else:
        how = "leaf on its long edge, router along the foot"
    m.add(
        "groove:guide",
        "Groove the foot for the floor guide",
        Trade.ROUT,
        needs=("measure:set", m.sized),
        settings=groove,
        early=True,
        bucket=Bucket.HANGING,
        share=0.6,
        hold=WorkpieceSetup(SideUp.FOOT),
        cuts=(BoringKind.GUIDE_GROOVE.value,),
        about=About.HARDWARE,
        how=how,
        why="as soon as the foot is square",
        later=WHOLE_LEAF,
        cautions=m.cautions("router", "heavy"),
        practice="an off-cut, the guide run through it",
        check=StepCheck("in the middle of the thickness", 0.2),
    )


def _loose_guide(m: StepBuilder, rail: str) -> None:
    """Groove the loose bottom rail, deeper by what its foot loses when the leaf is sized, then the stiles' feet."""
    groove = m.set_to(wide="guide_width")
    deep = m.set_to(deep="guide_loose" if m.trim_end else "guide_depth")
    m.add(
        "groove:guide",
        "Groove the loose bottom rail for the floor guide",
        Trade.ROUT,
        parts=(rail,),
        needs=("measure:set", "mark:joints", *m.loose((rail,))),
        early=True,
        settings=(*groove, *deep),
        bucket=Bucket.HANGING,
        about=About.HARDWARE,
        share=0.5,
        hold=WorkpieceSetup(SideUp.FOOT, rail),
        cautions=("router",),
        cuts=(BoringKind.GUIDE_GROOVE.value,),
        why="a loose rail runs over the table",
        later=WHOLE_LEAF,
        practice="an off-cut, the guide run through it",
        check=StepCheck("in the middle of the thickness", 0.2),
    )
    m.add(
        "groove:guide-ends",
        "Carry the guide's groove through the stiles' feet",
        Trade.ROUT,
        needs=("groove:guide", m.sized),
        early=True,
        settings=(*groove, *m.set_to(deep="guide_depth")),
        bucket=Bucket.HANGING,
        about=About.HARDWARE,
        share=0.3,
        hold=WorkpieceSetup(SideUp.FOOT),
        cautions=m.cautions("router", "heavy"),
        goes_on=(BoringKind.GUIDE_GROOVE.value,),
        check=StepCheck("one line with the rail's"),
        why="as soon as the feet are sawn off",
        later="a leaf that waits",
    )
