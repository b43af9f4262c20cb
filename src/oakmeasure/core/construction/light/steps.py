"""A light face frame and what fills it."""

from __future__ import annotations

from oakmeasure.core.construction.light.model import Light, LightBrace, LightGlue, LightJoint
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.changes import FeatureKind
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many
from oakmeasure.core.making.wood_steps import tongue_boards


def steps(m: StepBuilder, choice: Light, glue: GluePlan | None) -> None:
    """Add the operations of a light frame, from its marked members to one that is filled.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the light frame.
        glue: How the leaf is glued up; None where nothing is.
    """
    _joints(m, choice)
    dry = m.add(
        "dry:frame",
        "Put the frame together dry",
        Trade.FIT,
        parts=m.names(Role.STILE, Role.RAIL),
        needs=("bore:joints",),
        bucket=Bucket.GLUE,
        share=0.4,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("diagonals, difference", 1.0),
    )
    m.whole = dry
    glue_up(m, glue, "frame", dry, held=m.names(Role.STILE, Role.RAIL))
    if choice.fill.is_in_rebate:
        _rebate(m, choice)
    _filled(m, choice, glue)


def _joints(m: StepBuilder, choice: Light) -> None:
    """Add what is marked, bored and halved while the members lie loose."""
    members, rails = m.names(Role.STILE, Role.RAIL), m.names(Role.RAIL)
    stiles, braces = m.names(Role.STILE), m.names(Role.BRACE)
    m.add(
        "mark:joints",
        "Set out the joints, stiles as a pair",
        Trade.MARK,
        parts=members,
        needs=m.loose(members),
        bucket=Bucket.JOINTS,
        share=0.4,
        settings=m.set_to(shoulder_to_shoulder="shoulder"),
        hold=WorkpieceSetup(SideUp.INNER_EDGE, stiles[0]) if stiles else None,
    )
    pocket = choice.joint is LightJoint.POCKET
    m.add(
        "bore:joints",
        "Bore the pocket holes from the closing face" if pocket else "Bore the dowel holes",
        Trade.BORE,
        parts=rails if pocket else members,
        needs=("mark:joints",),
        early=True,
        bucket=Bucket.JOINTS,
        cautions=("drill",),
        settings=(*m.set_to(screw="pocket_screw"), many(2 * len(rails), "joints")),
        practice="one joint in off-cuts",
        hold=WorkpieceSetup(SideUp.CLOSING, rails[0]) if rails else None,
        check=StepCheck("step between the faces", 0.1),
        why="loose members lie in the jig",
        later="a frame that comes apart again",
        changes=m.cuts(members, FeatureKind.SOCKET),
    )
    if choice.brace is LightBrace.CROSSED:
        m.add(
            "lap:braces",
            "Halve the braces where they cross",
            Trade.JOINT,
            parts=braces,
            needs=m.loose(braces),
            early=True,
            bucket=Bucket.JOINTS,
            share=0.5,
            settings=(Setting("deep", choice.brace_thickness / 2),),
            hold=WorkpieceSetup(SideUp.OPENING, braces[0]) if braces else None,
            cautions=("saw",),
            practice="one lap in off-cuts",
            why="before they are cut to length",
            later="a lap that misses the crossing",
            changes=m.cuts(braces, FeatureKind.LAP),
        )


def _rebate(m: StepBuilder, choice: Light) -> None:
    m.whole = m.add(
        "rebate:frame",
        "Rebate the frame from the closing face",
        Trade.ROUT,
        parts=m.names(Role.STILE, Role.RAIL),
        needs=(m.whole,),
        bucket=Bucket.JOINTS,
        share=0.6,
        cautions=("router", "dust"),
        settings=(Setting("wide", choice.rebate, figure="fill_rebate"), Setting("deep", choice.fill_thickness)),
        hold=WorkpieceSetup(SideUp.CLOSING),
        practice="a corner of off-cuts",
        how="corners square with a chisel",
        changes=m.cuts(m.names(Role.STILE, Role.RAIL), FeatureKind.REBATE),
    )


def _filled(m: StepBuilder, choice: Light, glue: GluePlan | None) -> None:
    """Add the filling, and the brace before it."""
    braces = m.names(Role.BRACE)
    boards = tuple(p.name for p in m.build.parts if p.role not in (Role.STILE, Role.RAIL, Role.BRACE))
    if choice.fill.is_boards:
        ready = tongue_boards(m, boards, m.loose(boards))
        m.add(
            "seal:boards",
            "First coat on the boards' tongues and backs",
            Trade.FINISH,
            parts=boards,
            needs=(*ready, "trial:finish"),
            early=True,
            bucket=Bucket.FINISH,
            share=0.5,
            wait_hours=6.0,
            wait_for="it to dry",
            check=StepCheck("every edge that will be hidden"),
            why="they will move and show",
            later="bare stripes when they shrink",
        )
    if braces:
        m.whole = m.add(
            "fit:brace",
            "Cut the brace to its corners and fix it",
            Trade.JOINT,
            parts=braces,
            needs=(m.whole, "lap:braces", *m.loose(braces)),
            bucket=Bucket.PARTS,
            share=0.6,
            cautions=("saw",),
            settings=m.set_to(angle="brace_angle", long_edge="brace_edge"),
            hold=WorkpieceSetup(SideUp.OPENING),
            check=StepCheck("no light at its shoulders", 0.3),
            changes=(*m.to_length(braces), *m.joined(braces)),
        )
    if choice.glue is LightGlue.OVER:
        glued = () if choice.fill.is_boards else boards
        glue_up(
            m,
            glue,
            "over",
            m.whole,
            *m.loose(boards),
            up=SideUp.CLOSING,
            joins=m.joined((*m.names(Role.STILE, Role.RAIL), *glued)),
        )
    if choice.fill.is_boards or not m.steps.has("glue:over"):
        m.whole = m.add(
            "fill:frame",
            "Lay the filling in and fix it, free to move",
            Trade.FIT,
            parts=boards,
            needs=(m.whole, "seal:boards", *m.loose(boards)),
            bucket=Bucket.JOINTS,
            hold=WorkpieceSetup(SideUp.CLOSING),
            settings=(*m.set_to(over_all="boards_across"), many(len(boards), "pieces")),
            check=StepCheck("gap at both sides as drawn"),
            how="each board held in its middle only",
            changes=m.joined(boards),
        )
