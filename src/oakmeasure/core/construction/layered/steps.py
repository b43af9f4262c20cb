"""Layers of sheet: faces on a core, lippings, mouldings."""

from __future__ import annotations

from oakmeasure.core.construction.layered.model import Layered, Lipping
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many


def steps(m: StepBuilder, choice: Layered, glue: GluePlan | None) -> None:
    """Add the operations of a layered leaf, from its cut sheet to one with its lippings and mouldings on.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the layered leaf.
        glue: How the leaf is glued up; None where nothing is.
    """
    faces = tuple(p.name for p in m.build.parts if p.role not in (Role.CORE, Role.LIPPING, Role.TRIM))
    lippings, trims = m.names(Role.LIPPING), m.names(Role.TRIM)
    m.add(
        "mark:core",
        "Mark on the core where each member lies",
        Trade.MARK,
        parts=m.names(Role.CORE),
        needs=m.loose((*faces, *m.names(Role.CORE))),
        bucket=Bucket.JOINTS,
        share=0.3,
        hold=WorkpieceSetup(SideUp.OPENING),
        settings=m.set_to(first_stile_in="first_stile", rail_centre="middle_rail_centre"),
        check=StepCheck("both faces from the same edge and the same end"),
    )
    m.add(
        "dry:layers",
        "Lay a face out dry, pins started",
        Trade.FIT,
        parts=faces,
        needs=("mark:core",),
        bucket=Bucket.GLUE,
        share=0.4,
        settings=(*m.set_to(every="pin_every", pins="pin_length"), many(len(m.build.fixings), "pins")),
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("no pin where lock or hinge will be cut: they are on the drawing"),
        how="joints tight, edges flush with the core",
    )
    glue_up(m, glue, "layers", "dry:layers")
    m.whole = m.add(
        "flush:layers",
        "Trim the layers flush, square the leaf",
        Trade.SAW,
        needs=(m.whole,),
        bucket=Bucket.PARTS,
        share=0.6,
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("saw", "router", "dust"),
        settings=m.set_to(wide="core_width"),
        check=StepCheck("diagonals, difference", 1.0),
    )
    if lippings:
        _lippings(m, choice, glue, lippings)
    if trims:
        _mouldings(m, choice, trims)


def _mouldings(m: StepBuilder, choice: Layered, trims: tuple[str, ...]) -> None:
    """Sand the fields, mitre the mouldings and fix them."""
    sand = m.add(
        "sand:fields",
        "Sand the fields",
        Trade.SAND,
        needs=(m.whole,),
        early=True,
        bucket=Bucket.FINISH,
        share=0.8,
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("dust",),
        check=StepCheck("raking light, no mark"),
        why="the mouldings will stand in the way",
        later="corners scraped by hand behind mouldings",
    )
    m.add(
        "mitre:trims",
        "Mitre the mouldings, field by field",
        Trade.SAW,
        parts=trims,
        needs=(sand, *m.loose(trims)),
        bucket=Bucket.JOINTS,
        settings=(Setting("wide", choice.trim or 0.0), many(len(trims), "pieces")),
        practice="one corner in off-cuts",
        cautions=("saw",),
        hold=WorkpieceSetup.of(SideUp.OPENING, trims),
        check=StepCheck("four corners shut dry", 0.2),
    )
    m.whole = m.add(
        "fix:trims",
        "Glue and pin the mouldings",
        Trade.FIT,
        parts=trims,
        needs=("mitre:trims",),
        bucket=Bucket.JOINTS,
        hold=WorkpieceSetup(SideUp.OPENING),
        wait_hours=1.0,
        wait_for="the glue",
        check=StepCheck("mitres shut, no glue on the field"),
    )


def _lippings(m: StepBuilder, choice: Layered, glue: GluePlan | None, lippings: tuple[str, ...]) -> None:
    needs = [m.whole, *m.loose(lippings)]
    if choice.lipping is Lipping.T:
        m.add(
            "tongue:lippings",
            "Rebate the loose lippings to their tongue",
            Trade.ROUT,
            parts=lippings,
            needs=m.loose(lippings),
            early=True,
            bucket=Bucket.JOINTS,
            settings=(Setting("thick", choice.core), *m.set_to(long="tongue")),
            hold=WorkpieceSetup.of(SideUp.INNER_EDGE, lippings),
            cautions=("router",),
            practice="an off-cut into the groove's trial piece",
            check=StepCheck("slides in by hand"),
            why="loose, over the table",
            later="not at all once it is on",
        )
        m.add(
            "groove:edges",
            "Groove the edges for the lippings' tongues",
            Trade.ROUT,
            needs=(m.whole,),
            bucket=Bucket.JOINTS,
            share=0.8,
            settings=(Setting("wide", choice.core), *m.set_to(deep="tongue")),
            hold=WorkpieceSetup(SideUp.LATCH_EDGE),
            cautions=("router", "dust"),
            practice="an off-cut of the three layers",
        )
        needs += ["tongue:lippings", "groove:edges"]
    glue_up(m, glue, "lippings", *needs)
    m.whole = m.add(
        "flush:lippings",
        "Plane the lippings flush with the faces",
        Trade.PLANE,
        parts=lippings,
        needs=(m.whole,),
        bucket=Bucket.PARTS,
        share=0.5,
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("plane",),
        check=StepCheck("no step, nothing through the face layer", 0.1),
    )
