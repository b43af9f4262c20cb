"""Veneers pressed on cores: a flush leaf, or members that are then put together."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.construction.framed.steps import after_frame, frame_steps, glue_frame, last_steps
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.changes import Axis, Brought, Change, FeatureKind, Joined, PieceTaken
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import NOTHING, StepBuilder, sizes_to

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
    if edgings and choice.edging_first:
        _edged(m, choice, (edgings, cores), m.loose((*edgings, *cores)))
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
    glue_up(m, glue, "press", *first, "match:veneers", joins=_built_up(m, choice, Role.VENEER))
    pressed = m.whole or "match:veneers"
    thin = m.brought(m.parts(Role.VENEER, made=False), Axis.THICKNESS)
    sand = m.add(
        "sand:veneers",
        "Trim the overhang, sand both faces to thickness",
        Trade.SAND,
        parts=cores,
        needs=(pressed,),
        bucket=Bucket.FINISH,
        share=1.0,
        settings=(*sizes_to(thin, thickness="left"), *m.set_to(off="sanding")),
        cautions=("dust",),
        check=StepCheck("the same off both faces, difference", 0.2),
        changes=thin,
    )
    m.whole = sand
    if edgings and not choice.edging_first:
        m.whole = sand = _edged(m, choice, (edgings, cores), (sand, *m.loose(edgings)))
    for name in cores:
        m.ready[name] = sand
    if choice.form is VeneerForm.FRAMED:
        frame_steps(m, choice)
        glue_frame(m, glue)
        after_frame(m, choice)


def _built_up(m: StepBuilder, choice: Veneered, role: Role) -> tuple[Change, ...]:
    """Return that layers go onto their cores: of a flush leaf onto the leaf, else onto the member that they are of."""
    if choice.form is not VeneerForm.FRAMED:
        cores = (part.name for part in m.build.parts if part.role is Role.CORE)
        return m.joined((*cores, *(part.name for part in m.build.parts if part.role is role)))
    layers: dict[str, list[str]] = {}
    for part in m.build.parts:
        if part.role is role:
            layers.setdefault(part.layer_of, []).append(part.name)
    return tuple(Joined((core, *names), f"built-up {core}") for core, names in layers.items())


def _edged(
    m: StepBuilder, choice: Veneered, names: tuple[tuple[str, ...], tuple[str, ...]], needs: tuple[str, ...]
) -> str:
    """Add that edgings are glued onto their cores; names: of the edgings and of the cores."""
    edgings, cores = names
    sapwood = m.value("sapwood")
    bare = tuple(
        Brought(part.name, Axis.WIDTH, part.planed.width - sapwood)
        for part in m.build.parts
        if part.role is Role.LIPPING and sapwood > NOTHING
    )
    return m.add(
        "edge:cores",
        "Glue the edgings on and plane them flush",
        Trade.FIT,
        parts=(*edgings, *cores),
        needs=needs,
        bucket=Bucket.PARTS,
        settings=(*m.set_to(edging="edging", sapwood_off_first="sapwood"), *sizes_to(bare, width="then wide")),
        hold=WorkpieceSetup.of(SideUp.INNER_EDGE, cores),
        wait_hours=2.0,
        wait_for="the glue",
        check=StepCheck("flush with the core, no dip", 0.1),
        how="before the veneer, which hides the line"
        if choice.edging_first
        else "after the veneer, whose edges it covers",
        changes=(
            *bare,
            *m.cuts((part.name for part in m.build.parts if part.name in edgings and part.layer_of), FeatureKind.SHAPE),
            *_built_up(m, choice, Role.LIPPING),
        ),
    )


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
        changes=tuple(
            PieceTaken(part.name, replace(part.planed, thickness=max(m.value("veneer_raw"), part.planed.thickness)))
            for part in m.build.parts
            if part.role is Role.VENEER
        ),
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
