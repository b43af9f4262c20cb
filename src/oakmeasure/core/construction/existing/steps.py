"""A leaf that is there already: read, taken down, made narrower, longer or shorter, grooved, recessed."""

from __future__ import annotations

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.construction.existing.model import Existing, Inside, Splice
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import GlueUpKind
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many


def steps(m: StepBuilder, choice: Existing, glue: GluePlan | None) -> None:
    """Add the operations on an old or a bought leaf, from what is read of it to its new size.

    Args:
        m: Where the operations are added.
        choice: What is known of the old leaf, and chosen for it.
        glue: How the leaf is glued up; None where nothing is.
    """
    old = tuple(p.name for p in m.build.parts if p.is_old)
    panelled = choice.inside is Inside.PANELLED
    read = m.add(
        "read:leaf",
        "Read the leaf: size, edges, what is inside",
        Trade.MEASURE,
        parts=old,
        needs=("measure:opening",),
        early=True,
        bucket=Bucket.OLD,
        share=0.6,
        cautions=("lead",),
        settings=m.set_to(wide="old_width", high="old_height", solid_edge="solid"),
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("knocked over, weighed, a look into the edges; twist by winding sticks"),
        why="what may be taken off hangs on what is behind the edge",
        later="a saw that opens a hollow",
    )
    m.whole = m.add(
        "strip:leaf",
        "Take hinges and lock off, pull nails, clean it",
        Trade.FIT,
        needs=(read,),
        bucket=Bucket.OLD,
        cautions=m.cautions("lead", "nails", "heavy"),
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("old screws kept with their hinge"),
    )
    apart = any(each.kind is GlueUpKind.AGAIN for each in m.build.glue_ups)
    if m.has("work_reduce") or m.has("old_over"):
        _narrower(m, choice, old, panelled, apart, glue)
    if any(not p.is_old and not p.at_hand for p in m.build.parts):
        _longer(m, choice, glue)
    if choice.grooves:
        m.whole = m.add(
            "groove:face",
            "Rout the V lines, the middle one first",
            Trade.ROUT,
            needs=(m.whole,),
            bucket=Bucket.EXTEND if m.has("work_extend") else Bucket.OLD,
            hold=WorkpieceSetup(SideUp.OPENING),
            settings=(
                *m.set_to(pitch="pitch", band="band"),
                Setting("deep", choice.groove_depth),
                many(choice.grooves, "lines"),
            ),
            practice="one line in an off-cut of the same face",
            cautions=("router", "dust"),
            check=StepCheck("pitch over all lines, error", 0.5),
        )


def _narrower(
    m: StepBuilder, choice: Existing, old: tuple[str, ...], panelled: bool, apart: bool, glue: GluePlan | None
) -> None:
    bucket = Bucket.REDUCE if m.has("work_reduce") else Bucket.OLD
    if apart:
        _part(m, old, bucket)
    m.whole = m.add(
        "narrow:edges",
        "Take the long edges to width",
        Trade.SAW,
        needs=(m.whole,),
        bucket=bucket,
        share=0.8,
        settings=(
            *m.set_to(off_each_edge="off_edge", off_each_stile="stile_off", left="stile_left", solid_left="solid_left"),
        ),
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("saw", "nails", "dust"),
        check=StepCheck("both edges alike, difference", 0.5),
        how="the same off both",
    )
    if apart:
        dry = m.add(
            "dry:frame",
            "Put it together dry",
            Trade.FIT,
            parts=old,
            needs=(m.whole, "narrow:panels"),
            bucket=bucket,
            share=0.4,
            hold=WorkpieceSetup(SideUp.OPENING),
            check=StepCheck("diagonals, difference", 1.0),
        )
        m.whole = dry
        glue_up(m, glue, "again", dry)


def _part(m: StepBuilder, old: tuple[str, ...], bucket: Bucket) -> None:
    """Take the frame apart, its panels and rails made narrower."""
    m.whole = m.add(
        "part:frame",
        "Take the frame apart",
        Trade.FIT,
        parts=old,
        needs=(m.whole,),
        bucket=bucket,
        cautions=("lead",),
        hold=WorkpieceSetup(SideUp.OPENING),
        how="wedges out, warm water, a block under the hammer",
        check=StepCheck("every joint lettered before it moves"),
        about=About.TIMBER,
    )
    panels = [part for part in m.build.parts if part.is_old and part.role is Role.PANEL]
    offs = [figure for part in panels if (figure := m.leaf.figures.get(figure_name(f"{part.slug}_off")))]
    m.add(
        "narrow:panels",
        "Cut panels and rails narrower",
        Trade.SAW,
        parts=tuple(part.name for part in panels),
        needs=(m.whole,),
        bucket=bucket,
        settings=tuple(Setting(off.label, off.value, figure=off.name) for off in offs if off.value > HAIR)[:4],
        cautions=("saw",),
        check=StepCheck("muntins and panels dry in their new places"),
    )
    m.steps.need("narrow:edges", "narrow:panels")


def _longer(m: StepBuilder, choice: Existing, glue: GluePlan | None) -> None:
    new = tuple(p.name for p in m.build.parts if not p.is_old and not p.at_hand)
    block = choice.splice is Splice.BLOCK
    bucket = Bucket.EXTEND if m.has("work_extend") else Bucket.PARTS
    m.add(
        "cut:splice",
        "Cut the leaf's end " + ("square for the block" if block else "for the splices"),
        Trade.JOINT,
        needs=(m.whole, *m.loose(new)),
        bucket=bucket,
        settings=m.set_to(lap="splice_lap", stagger="splice_stagger", added="added"),
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("saw", "nails"),
        practice="one splice in off-cuts",
        check=StepCheck("both stiles from one line across"),
    )
    m.add(
        "fit:splice",
        "Fit the new end dry",
        Trade.FIT,
        parts=new,
        needs=("cut:splice",),
        bucket=bucket,
        share=0.8,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("faces flush, no light", 0.2),
        how="grain and colour matched; ends fall outwards where water stands",
    )
    m.whole = "fit:splice"
    glue_up(m, glue, "end", "fit:splice")
    m.whole = m.add(
        "flush:splice",
        "Plane the new end flush",
        Trade.PLANE,
        parts=new,
        needs=(m.whole,),
        bucket=bucket,
        share=0.4,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("no step by straightedge", 0.1),
    )
