"""From one piece to a hung leaf: sized, lining made and fixed, hung dry, taken down, sanded, finished, hung."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.hanging import Hanging, LeafShape
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.fit.even_reveal import is_the_aim
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
    full = is_the_aim(leaf) and m.left_side + m.left_end > NOTHING
    name = "Plane the leaf to its outline" if scribed else "Plane the leaf to its size"
    trimmed = (*_trimmed(m, full=full), *((Outlined(_still_on(m, full=full)),) if m.leaf.fit.outline else ()))
    trimmed = (*trimmed, *m.rest(FeatureKind.SHAPE))
    if not trimmed:
        name = "Hold the leaf against its sizes"
    m.sized = m.add(
        "size:leaf",
        "Plane the leaf to go in, left full" if full else name,
        Trade.PLANE if trimmed else Trade.MEASURE,
        needs=(check, "setout:outline"),
        bucket=Bucket.FINISH,
        share=1.2,
        hold=WorkpieceSetup(SideUp.LATCH_EDGE),
        settings=_full_sizes(m) if full else _sizes(m),
        cautions=m.cautions("saw", "plane", "heavy") if trimmed else (),
        about=About.CONSTRUCTION,
        check=StepCheck(
            "tried in the opening: it goes in, a card at the latch edge"
            if full
            else "against the rod, width top, middle and foot",
            None if full else 0.3,
        ),
        how="hinge edge true first, then from it; ends from both edges to the middle"
        if trimmed
        else "no plane where it has them; what is too much comes off here",
        changes=trimmed,
    )
    _bevel(m)
    if full:
        _plane_even(m)
    if leaf.late.is_any:
        _late(m)


def _bevel(m: StepBuilder) -> None:
    """Bevel the latch edge, where it has a bevel."""
    if m.value("bevel") <= 0 or not m.leaf.leaf.hanging.has_butts:
        return
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


def _sizes(m: StepBuilder) -> tuple[Setting, ...]:
    """Return to what a leaf is sized, and what comes off for it."""
    left = {"off_each_side": "trim_side"} if m.trim_side else {}
    trims = m.set_to(**left, **({"off_each_end": "trim_height"} if m.trim_end else {}))
    return (*m.set_to(width="leaf_width", height="leaf_height"), *trims)


def _full_sizes(m: StepBuilder) -> tuple[Setting, ...]:
    """Return to what a leaf is planed that is hung before it has its size, and what comes off for it."""
    off = (
        ("off the hinge edge", m.trim_side),
        ("off the latch edge", m.trim_side - m.left_side),
        ("off each end", m.trim_end - m.left_end),
    )
    return (
        *m.set_to(width_left_full="full_width", height_left_full="full_height"),
        *(Setting(label, by) for label, by in off if by > NOTHING),
    )


def _plane_even(m: StepBuilder) -> None:
    """Add what is planed once the gap that the hinges made is read."""
    m.evened = m.add(
        "plane:even",
        "Plane the other edges to the gap that the hinges made",
        Trade.PLANE,
        needs=("hang:dry",),
        bucket=Bucket.FINISH,
        share=0.6,
        hold=WorkpieceSetup(SideUp.LATCH_EDGE),
        settings=m.set_to(
            gap_all_round="gap_made",
            off_the_latch_edge="plane_latch_edge",
            strokes_there="strokes_latch_edge",
            off_the_head="plane_top",
            off_the_foot="plane_foot",
        ),
        cautions=m.cautions("plane", "heavy"),
        about=About.CONSTRUCTION,
        check=StepCheck("hung again: the same shims all round"),
        how="read the gap at every hinge, write it down at Fit; a line from the jamb, then count the strokes"
        + ("; keep the bevel" if m.value("bevel") > 0 else ""),
        why="only the hung leaf shows what gap its hinges make",
        later="the lock and its keep would be set out on an edge that moves",
        changes=tuple(
            Trimmed(side, by)
            for side, by in ((LeafEdge.LATCH, m.left_side), (LeafEdge.HEAD, m.left_end), (LeafEdge.FOOT, m.left_end))
            if by > NOTHING
        ),
    )


def _trimmed(m: StepBuilder, *, full: bool) -> tuple[Change, ...]:
    """Return what sizing takes off the leaf's edges."""
    side, end = (m.left_side, m.left_end) if full else (0.0, 0.0)
    by = {LeafEdge.HINGE: m.trim_side, LeafEdge.LATCH: m.trim_side - side}
    by |= dict.fromkeys((LeafEdge.FOOT, LeafEdge.HEAD), m.trim_end - end)
    return tuple(Trimmed(side, each) for side, each in by.items() if each > NOTHING)


def _still_on(m: StepBuilder, *, full: bool) -> tuple[tuple[LeafEdge, float], ...]:
    """Return what stays on the edges of a leaf that is brought to its outline, mm."""
    late = dict(_late_trims(m))
    if full:
        for side, by in ((LeafEdge.LATCH, m.left_side), (LeafEdge.HEAD, m.left_end), (LeafEdge.FOOT, m.left_end)):
            late[side] = late.get(side, 0.0) + by
    return tuple(late.items())


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
        needs=("hang:dry", "plane:even"),
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
    heavy = m.set_to(weight="mass") if m.is_heavy else ()
    _hang_dry(m, cuts, heavy)
    ease = m.add(
        "ease:leaf",
        "Ease what binds, mark, take it down",
        Trade.FIT,
        needs=(
            "hang:dry",
            "plane:even",
            *cuts,
            "let-in:lock-keep",
            "let-in:latch-keep",
            "bore:bolt-holes",
            "trim:late",
        ),
        bucket=Bucket.HANGING,
        share=0.6,
        check=StepCheck("shuts by a finger's push, stays where it is left"),
        about=About.HARDWARE,
    )
    if leaf.hanging in (Hanging.INSET, Hanging.INSET_BUTTS):
        ease = _stop_block(m)
    last = _finish(m, schedule, ease)
    m.add(
        "hang:last",
        "Hang it for good, all screws in" + (", handles on" if _has_handles(m) else ""),
        Trade.SITE,
        needs=(last, "fix:lining", "fix:track"),
        bucket=Bucket.HANGING,
        share=0.8,
        about=About.HARDWARE,
        settings=(*heavy, *m.set_to(screws="screw_length", pilot="screw_pilot")),
        cautions=m.cautions("heavy", *_where(m)),
        check=StepCheck("gaps as they were dry; into the record"),
        how="where brass goes in a steel screw cuts the thread first, wax on both" if leaf.hanging.has_butts else "",
    )


def _has_handles(m: StepBuilder) -> bool:
    hardware = m.leaf.leaf.hardware
    return any(each is not None for each in (hardware.lock, hardware.latch, hardware.pull))


def _hung_how(m: StepBuilder) -> str:
    """Return how the leaf is brought up for the first time."""
    if m.leaf.leaf.hanging.slides:
        return ("lifted on by two" if m.is_heavy else "lifted on") + ", stops set"
    if m.leaf.cups:
        return "plates on, arms pushed home, every screw of theirs in the middle of its range"
    if m.leaf.leaf.hanging.has_butts:
        return "two steel screws a hinge first, each hinge in the recesses with its letter"
    return ""


def _hang_dry(m: StepBuilder, cuts: tuple[str, ...], heavy: tuple[Setting, ...]) -> None:
    """Add how it is hung for the first time."""
    leaf, slides = m.leaf.leaf, m.leaf.leaf.hanging.slides
    gap = (
        m.set_to(over_the_floor="gap_floor")
        if leaf.hanging.covers
        else ()
        if leaf.hanging.lies_on
        else m.set_to(
            at_the_hinges="gap_hinge", at_the_latch="gap_latch", at_the_head="gap_head", over_the_floor="gap_floor"
        )
    )
    if m.evened:
        gap = m.set_to(at_the_hinges="gap_wanted", width_left_full="full_width", height_left_full="full_height")
    m.add(
        "hang:dry",
        "Hang it full on its own hinges" if m.evened else "Hang it dry with its own hardware",
        Trade.SITE,
        needs=(
            m.sized,
            *(("let-in:leaf",) if m.evened else cuts),
            "fix:lining",
            "fix:track",
            "proof:track",
            "let-in:side",
            "bore:plates",
        ),
        bucket=Bucket.HANGING,
        share=1.2,
        about=About.HARDWARE,
        settings=(*heavy, *gap)[:5],
        cautions=m.cautions("heavy", "pinch" if m.leaf.cups else "", *_where(m)),
        check=StepCheck(
            "gaps all round with feelers, into the log; runs free over the whole floor"
            if slides
            else "the gap at every hinge with feelers, into the log"
            if m.evened
            else "gaps all round with feelers, into the log"
        ),
        how=_hung_how(m),
    )


def _stop_block(m: StepBuilder) -> str:
    """Add the block that a leaf between its sides shuts against; return its operation."""
    latch = m.leaf.body.thickness_along("latch") if m.leaf.body is not None else m.value("thickness")
    return m.add(
        "fix:stop",
        "Fix the block that it shuts against",
        Trade.SITE,
        needs=("ease:leaf",),
        bucket=Bucket.HANGING,
        share=0.2,
        about=About.HARDWARE,
        settings=(Setting("back from the front", latch, figure="thickness"),),
        check=StepCheck("shut, the leaf's face is flush with the sides, by straightedge", 0.3),
        how="an off-cut of hardwood, two screws, one in a slot; felt or leather is let in, not added",
        why="set to the leaf as it hangs",
        later="the leaf shuts too far and strains its hinges",
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
