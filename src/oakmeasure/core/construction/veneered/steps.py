"""Veneers pressed on cores: a flush leaf, or members that are then put together."""

from __future__ import annotations

from oakmeasure.core.construction.framed.steps import after_frame, frame_steps, last_steps
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder

__all__ = ["last_steps", "steps"]


def steps(m: StepBuilder, choice: Veneered, glue: GluePlan | None) -> None:
    """Add the operations of a veneered leaf: veneers sawn and pressed, then it is flush or goes on as a frame.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the veneered leaf.
        glue: How the leaf is glued up; None where nothing is.
    """
    veneers = tuple(p.name for p in m.build.parts if p.role is Role.VENEER)
    cores = tuple(p.name for p in m.build.parts if p.role not in (Role.VENEER, Role.LIPPING))
    edgings = m.names(Role.LIPPING)
    _resaw(m, veneers)
    first = ("rest:veneers", *m.loose(cores))
    if edgings:
        m.add(
            "edge:cores",
            "Glue the edgings on and plane them flush",
            Trade.FIT,
            parts=(*edgings, *cores),
            needs=m.loose((*edgings, *cores)),
            bucket=Bucket.PARTS,
            settings=m.set_to(edging="edging"),
            hold=WorkpieceSetup.of(SideUp.INNER_EDGE, cores),
            wait_hours=2.0,
            wait_for="the glue",
            check=StepCheck("flush with the core, no dip", 0.1),
            how="before the veneer, which hides the line",
        )
        first = (*first, "edge:cores")
    m.add(
        "match:veneers",
        "Joint and match the veneers, tape them",
        Trade.FIT,
        parts=veneers,
        needs=("rest:veneers",),
        bucket=Bucket.PARTS,
        share=0.8,
        hold=WorkpieceSetup(SideUp.OPENING, veneers[0] if veneers else ""),
        check=StepCheck("numbers in order, joints without light"),
    )
    glue_up(m, glue, "press", *first, "match:veneers")
    pressed = m.whole or "match:veneers"
    sand = m.add(
        "sand:veneers",
        "Trim the overhang, sand both faces to thickness",
        Trade.SAND,
        parts=cores,
        needs=(pressed,),
        bucket=Bucket.FINISH,
        share=1.0,
        settings=m.set_to(left="veneer", off="sanding"),
        cautions=("dust",),
        check=StepCheck("the same off both faces, difference", 0.2),
    )
    m.whole = sand
    for name in cores:
        m.ready[name] = sand
    if choice.form is VeneerForm.FRAMED:
        frame_steps(m, choice)
        glue_up(m, glue, "frame", m.whole)
        after_frame(m, choice)


def _resaw(m: StepBuilder, veneers: tuple[str, ...]) -> None:
    """Saw the veneers and let them settle."""
    m.add(
        "resaw",
        "Resaw the veneers in sequence, numbered as they fall",
        Trade.SAW,
        parts=veneers,
        needs=("measure:opening",),
        bucket=Bucket.PARTS,
        cautions=("resaw", "dust"),
        about=About.TIMBER,
        settings=m.set_to(fence="veneer_raw", kerf="resaw_kerf", from_a_board="veneers_each"),
        practice="one cut on a narrower board of the same wood",
        check=StepCheck("thickest less thinnest of each", 0.3),
        how="a face planed before every cut",
    )
    m.add(
        "rest:veneers",
        "Stack the veneers flat under weight",
        Trade.WOOD,
        parts=veneers,
        needs=("resaw",),
        bucket=Bucket.PARTS,
        share=0.1,
        wait_hours=48.0,
        wait_for="the veneers to settle",
    )
