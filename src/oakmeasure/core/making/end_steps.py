"""From one piece to a hung leaf: sized, lining made and fixed, hung dry, taken down, sanded, finished, hung."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.changes import Change, FeatureKind, LeafEdge, Outlined, Trimmed
from oakmeasure.core.making.finish import Schedule
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import NOTHING, StepBuilder, sizes

OUT_OF_TWIST = 1.5  # mm by winding sticks over the leaf: common practice, no source


def size(m: StepBuilder) -> None:
    """Cut the leaf to its size: long edges, foot and head, the bevel; then its edges are as they stay.

    Args:
        m: Where the operations are added.
    """
    leaf = m.leaf.leaf
    scribed = leaf.fit.shape is LeafShape.SCRIBED and bool(m.leaf.fit.outline)
    check = m.add(
        "check:leaf",
        "Check the leaf: diagonals, thickness, twist",
        Trade.MEASURE,
        needs=(m.whole,),
        early=True,
        bucket=Bucket.FINISH,
        share=0.3,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("twist by winding sticks", OUT_OF_TWIST),
        how="into the log: what hangs on them is worked out anew",
        changes=m.as_read(),
        why="before anything is cut to it",
        later="hinges and lock set out on a size that is not there",
    )
    left = {"off_each_side": "trim_side"} if m.trim_side else {}
    trims = m.set_to(**left, **({"off_each_end": "trim_height"} if m.trim_end else {}))
    m.sized = m.add(
        "size:leaf",
        "Plane the leaf to its outline" if scribed else "Plane the leaf to its size",
        Trade.PLANE,
        needs=(check, "setout:outline"),
        bucket=Bucket.FINISH,
        share=1.2,
        hold=WorkpieceSetup(SideUp.LATCH_EDGE),
        settings=(*m.set_to(width="leaf_width", height="leaf_height"), *trims),
        cautions=m.cautions("saw", "plane", "heavy"),
        about=About.CONSTRUCTION,
        check=StepCheck("against the rod, width top, middle and foot", 0.3),
        how="hinge edge true first, then from it; ends from both edges to the middle",
        changes=(
            *_trimmed(m),
            *((Outlined(_late_trims(m)),) if m.leaf.fit.outline else ()),
            *m.rest(FeatureKind.SHAPE),
        ),
    )
    if m.value("bevel") > 0 and leaf.hanging.has_butts:
        m.sized = m.add(
            "bevel:latch",
            "Bevel the latch edge",
            Trade.PLANE,
            needs=(m.sized,),
            bucket=Bucket.FINISH,
            share=0.3,
            settings=m.set_to(bevel="bevel", at_least="least_bevel"),
            hold=WorkpieceSetup(SideUp.LATCH_EDGE),
            cautions=("plane",),
            check=StepCheck("sliding bevel over the whole edge; falls to the closing face"),
        )
    if leaf.late.is_any:
        _late(m)


def _trimmed(m: StepBuilder) -> tuple[Change, ...]:
    """Return what sizing takes off the leaf's edges."""
    by = dict.fromkeys((LeafEdge.HINGE, LeafEdge.LATCH), m.trim_side)
    by |= dict.fromkeys((LeafEdge.FOOT, LeafEdge.HEAD), m.trim_end)
    return tuple(Trimmed(side, each) for side, each in by.items() if each > NOTHING)


def _late_trims(m: StepBuilder) -> tuple[tuple[LeafEdge, float], ...]:
    """Return what is left on the leaf's edges until it is on site, mm."""
    late = {
        LeafEdge.FOOT: m.value("late_foot"),
        LeafEdge.HEAD: m.value("late_head"),
        LeafEdge.HINGE: m.value("late_hinge"),
        LeafEdge.LATCH: m.value("late_latch"),
    }
    return tuple((side, by) for side, by in late.items() if by > NOTHING)


def _late(m: StepBuilder) -> None:
    """Add what is trimmed on site."""
    m.add(
        "trim:late",
        "What is trimmed later, on site",
        Trade.SITE,
        needs=("hang:dry",),
        bucket=Bucket.HANGING,
        share=0.3,
        settings=m.set_to(
            off_the_foot="late_foot",
            off_the_head="late_head",
            off_the_hinge_edge="late_hinge",
            off_the_latch_edge="late_latch",
        ),
        cautions=m.cautions("saw", "heavy"),
        check=StepCheck("what is left of grooves and joints is on the drawing"),
        changes=tuple(Trimmed(side, by) for side, by in _late_trims(m)),
    )


def lining(m: StepBuilder) -> None:
    """Make a lining and fix it, where one is to be made.

    Args:
        m: Where the operations are added.
    """
    if m.leaf.opening.lining is None:
        return
    parts = tuple(p.name for p in m.leaf.opening.lining.parts)
    legs = tuple(p.name for p in m.leaf.opening.lining.parts if p.role is Role.LINING)
    m.add(
        "trench:lining",
        "Trench the head, cut the legs to it",
        Trade.JOINT,
        parts=legs,
        needs=m.loose(legs),
        bucket=Bucket.JOINTS,
        share=0.6,
        settings=m.set_to(deep="trench", between="between", head="lining_head"),
        cautions=("saw", "router"),
        check=StepCheck("between the legs, head against foot, difference", 0.5),
    )
    packing = tuple(p for p in m.leaf.opening.lining.parts if p.role is Role.PACKING)
    if packing:
        m.add(
            "saw:packing",
            "Saw packing and strips out of off-cuts",
            Trade.SAW,
            parts=tuple(p.name for p in packing),
            needs=("trench:lining",),
            bucket=Bucket.HANGING,
            share=0.2,
            settings=sizes(packing, "thickness", "thickest"),
            cautions=("saw",),
            check=StepCheck("each tapered as the list has it, marked where it goes"),
            changes=m.taken(packing, "finished"),
        )
    m.add(
        "join:lining",
        "Screw the lining together, batten across its foot",
        Trade.FIT,
        parts=legs,
        needs=("trench:lining", "let-in:side"),
        bucket=Bucket.HANGING,
        share=0.4,
        check=StepCheck("diagonals, difference", 1.5),
    )
    m.add(
        "fix:lining",
        "Pack the lining plumb and fix it",
        Trade.SITE,
        parts=parts,
        needs=("join:lining", "measure:opening", "saw:packing"),
        bucket=Bucket.HANGING,
        share=0.8,
        settings=m.set_to(packing="packing", left_at_the_tightest="packing_left"),
        cautions=("wall",),
        check=StepCheck("hinge leg plumb both ways", 1.0),
        how="packing behind every hinge; strips under the architrave as listed",
    )


def hang_and_finish(m: StepBuilder, schedule: Schedule) -> None:
    """Hang it dry with the real hardware, take it down, sand, finish coat by coat, hang it for good.

    Args:
        m: Where the operations are added.
        schedule: The coats of the finish.
    """
    leaf = m.leaf.leaf
    cuts = tuple(
        op.id
        for op in m.steps.items.values()
        if op.about is About.HARDWARE and (op.cuts or op.goes_on) and "keep" not in op.id and op.id != "bore:bolt-holes"
    )
    slides = leaf.hanging.slides
    gap = (
        m.set_to(over_the_floor="gap_floor")
        if leaf.hanging.covers
        else ()
        if leaf.hanging.lies_on
        else m.set_to(
            at_the_hinges="gap_hinge", at_the_latch="gap_latch", at_the_head="gap_head", over_the_floor="gap_floor"
        )
    )
    heavy = m.set_to(weight="mass") if m.is_heavy else ()
    m.add(
        "hang:dry",
        "Hang it dry with its own hardware",
        Trade.SITE,
        needs=(m.sized, *cuts, "fix:lining", "fix:track", "proof:track", "let-in:side", "bore:plates"),
        bucket=Bucket.HANGING,
        share=1.2,
        about=About.HARDWARE,
        settings=(*heavy, *gap)[:5],
        cautions=m.cautions("heavy", "pinch" if m.leaf.cups else "", *_where(m)),
        check=StepCheck(
            "gaps all round with feelers, into the log; runs free over the whole floor"
            if slides
            else "gaps all round with feelers, into the log"
        ),
        how="two screws a hinge first" if not slides else "lifted on by two, stops set",
    )
    ease = m.add(
        "ease:leaf",
        "Ease what binds, mark, take it down",
        Trade.FIT,
        needs=("hang:dry", "let-in:lock-keep", "let-in:latch-keep", "bore:bolt-holes", "trim:late"),
        bucket=Bucket.HANGING,
        share=0.6,
        check=StepCheck("shuts by a finger's push, stays where it is left"),
        about=About.HARDWARE,
    )
    last = _finish(m, schedule, ease)
    m.add(
        "hang:last",
        "Hang it for good, all screws, handles on",
        Trade.SITE,
        needs=(last, "fix:lining", "fix:track"),
        bucket=Bucket.HANGING,
        share=0.8,
        about=About.HARDWARE,
        settings=(*heavy, *m.set_to(screws="screw_length", pilot="screw_pilot")),
        cautions=m.cautions("heavy", *_where(m)),
        check=StepCheck("gaps as they were dry; into the record"),
        how="steel screw first where brass goes in" if leaf.hanging.has_butts else "",
    )


def _finish(m: StepBuilder, schedule: Schedule, ease: str) -> str:
    """Sand and finish it coat by coat; return the last operation."""
    last = m.add(
        "sand:last",
        "Last sanding, arrises off",
        Trade.SAND,
        needs=(ease,),
        bucket=Bucket.FINISH,
        share=1.6,
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("dust",),
        check=StepCheck("raking light from both ends; arris by thumb"),
        settings=(Setting("grit", 180, Unit.COUNT),),
    )
    for coat in schedule.coats:
        ends = coat.number == len(schedule.coats)
        name = "finish:last" if ends else f"finish:{coat.number}"
        last = m.add(
            name,
            f"Coat {coat.number} of {len(schedule.coats)}: {schedule.finish}, both faces, all edges",
            Trade.FINISH,
            needs=(last, "trial:finish"),
            bucket=Bucket.FINISH,
            share=1.0,
            hold=WorkpieceSetup(SideUp.OPENING),
            settings=(
                Setting("grams, about", round(coat.grams), Unit.COUNT),
                Setting("hours to dry", round(coat.wait_hours, 1), Unit.COUNT),
            ),
            cautions=("rags",) if schedule.rags else (),
            wait_hours=coat.wait_hours,
            wait_for="the coat to dry",
            check=StepCheck("as much on one face as on the other, head and foot too"),
            how=coat.how,
        )
    return last


def _where(m: StepBuilder) -> tuple[str, ...]:
    found = []
    if m.leaf.leaf.hanging in (Hanging.BYPASS_TRACKS, Hanging.COVER):  # what is behind them must stay within reach
        found.append("electric")
    if any(part.species == "glass" for part in m.build.parts):
        found.append("glass")
    return tuple(found)
