"""Layers of sheet: faces on a core, lippings, mouldings."""

from __future__ import annotations

from oakmeasure.core.construction.layered.model import Layered, Lipping, PieceJoint
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.changes import Axis, Brought, FeatureKind
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many, sizes_to


def steps(m: StepBuilder, choice: Layered, glue: GluePlan | None) -> None:
    """Add the operations of a layered leaf, from its cut sheet to one with its lippings and mouldings on.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the layered leaf.
        glue: How the leaf is glued up; None where nothing is.
    """
    layers = tuple(p for p in m.build.parts if p.role not in (Role.LIPPING, Role.TRIM))
    inner = [p.name for p in layers if m.build.depth_of(p)[0] > 0.01 and p.role is Role.CORE and not p.is_back]
    faces = tuple(p.name for p in layers if p.name not in inner)
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
        settings=_marked(m),
        check=StepCheck("both faces from the same edge and the same end"),
    )
    _pieced(m, choice)
    m.add(
        "dry:layers",
        "Lay a face out dry, pins started",
        Trade.FIT,
        parts=faces,
        needs=("mark:core", "piece:members"),
        bucket=Bucket.GLUE,
        share=0.4,
        settings=(*m.set_to(every="pin_every", pins_long="pin_length"), many(len(m.build.fixings), "pins")),
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("no pin where lock or hinge will be cut: they are on the drawing"),
        how="joints tight, edges flush with the core",
    )
    glue_up(m, glue, "layers", "dry:layers", held=tuple(p.name for p in layers))
    m.whole = m.add(
        "flush:layers",
        "Trim the layers flush, square the leaf",
        Trade.SAW,
        needs=(m.whole,),
        bucket=Bucket.PARTS,
        share=0.6,
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("saw", "router", "dust"),
        settings=_over_layers(m),
        check=StepCheck("diagonals, difference", 1.0),
    )
    if lippings:
        _lippings(m, choice, glue, lippings)
    if trims:
        _mouldings(m, choice, trims)


def _pieced(m: StepBuilder, choice: Layered) -> None:
    """Cut the ends at which the two pieces of a member meet: scarfed over half a face's thickness each, or square."""
    over = choice.face / 2 if choice.piece_joint is PieceJoint.SCARF else 0.0
    pieces = [part for part in m.build.parts if part.is_half]
    if not pieces:
        return
    cut = tuple(Brought(part.name, Axis.LENGTH, part.planed.length - over) for part in pieces if over)
    m.add(
        "piece:members",
        "Cut the meeting ends of the pieced members" + (", bevelled 45°" if over else ", square"),
        Trade.SAW,
        parts=tuple(part.name for part in pieces),
        needs=m.loose(part.name for part in pieces),
        bucket=Bucket.JOINTS,
        share=0.4,
        hold=WorkpieceSetup(SideUp.OPENING, pieces[0].name),
        cautions=("saw",),
        settings=sizes_to(cut, length="piece long"),
        check=StepCheck("the pair end to end against the rod, length over both", 0.3),
        how="both ends of a pair in one cut, one of them turned over" if over else "",
        changes=cut,
    )


def _marked(m: StepBuilder) -> tuple[Setting, ...]:
    """Return what is marked on the core from its own edges and ends: it is narrower than the leaf and still longer."""
    marked = {"rail's middle from its foot": "rail_marked"}
    return m.set_to(faces_over_its_edges="tongue", **marked)


def _over_layers(m: StepBuilder) -> tuple[Setting, ...]:
    """Return how wide and high the layers are once they are flush: the lippings, or what is trimmed, come after."""
    return m.set_to(wide="layer_width" if m.names(Role.LIPPING) else "glued_width", high="glued_height")


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
        changes=m.joined(trims),
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
            changes=m.cuts(lippings, FeatureKind.TONGUE),
        )
        needs.append("tongue:lippings")
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
