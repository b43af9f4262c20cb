"""A leaf that is there already: read, taken down, made narrower, longer or shorter, grooved, recessed."""

from __future__ import annotations

from dataclasses import asdict

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.construction.existing.model import Existing, Inside, Splice
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import GlueUpKind, Part, Size
from oakmeasure.core.making.changes import Axis, Brought, Change, FeatureKind, LeafEdge, PieceTaken, Trimmed
from oakmeasure.core.making.features import sides_of
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import NOTHING, StepBuilder, many


def steps(m: StepBuilder, choice: Existing, glue: GluePlan | None) -> None:
    """Add the operations on an old or a bought leaf, from what is read of it to its new size.

    Args:
        m: Where the operations are added.
        choice: What is known of the old leaf, and chosen for it.
        glue: How the leaf is glued up; None where nothing is.
    """
    old = tuple(p.name for p in m.build.parts if p.is_old)
    apart = any(each.kind is GlueUpKind.AGAIN for each in m.build.glue_ups)
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
        changes=_is_there(m, choice, apart),
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
    if _off_edge(m, choice) > NOTHING or apart:
        _narrower(m, choice, old, apart, glue)
    if max(_off_ends(m, choice).values()) > NOTHING:
        _shorter(m, choice)
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


def _narrower(m: StepBuilder, choice: Existing, old: tuple[str, ...], apart: bool, glue: GluePlan | None) -> None:
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
        settings=m.set_to(off_each_stile="stile_off", left="stile_left")
        if choice.inside is Inside.PANELLED
        else m.set_to(off_each_edge="off_edge", solid_left="solid_left"),
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("saw", "nails", "dust"),
        check=StepCheck("both edges alike, difference", 0.5),
        how="the same off both",
        changes=_narrowed(m, choice, apart),
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
        glue_up(m, glue, "again", dry, joins=m.joined(old))


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
    rails = tuple(part.name for part in m.build.parts if part.is_old and part.role is Role.RAIL)
    offs = [figure for part in panels if (figure := m.leaf.figures.get(figure_name(f"{part.slug}_off")))]
    m.add(
        "narrow:panels",
        "Cut panels and rails narrower",
        Trade.SAW,
        parts=(*(part.name for part in panels), *rails),
        needs=(m.whole,),
        bucket=bucket,
        settings=(
            *m.set_to(off_each_rail="rail_off", between_shoulders="shoulder"),
            *tuple(Setting(off.label, off.value, figure=off.name) for off in offs if off.value > HAIR),
        ),
        cautions=("saw",),
        check=StepCheck("muntins and panels dry in their new places"),
        changes=(
            *(
                Brought(part.name, Axis.LENGTH, part.planed.length)
                for part in m.build.parts
                if part.name in rails and m.has("rail_off")
            ),
            *(Brought(part.name, Axis.WIDTH, part.planed.width) for part in panels if _panel_off(m, part) > NOTHING),
        ),
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
        settings=(
            *m.set_to(lap="splice_lap", stagger="splice_stagger"),
            *(() if block or not m.has("splice_lap") else (Setting("halved, deep", m.set_out_thick / 2),)),
            *m.set_to(added="added"),
        ),
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("saw", "nails"),
        practice="one splice in off-cuts",
        check=StepCheck("both stiles from one line across"),
        changes=m.rest(*(kind for kind in FeatureKind if kind is not FeatureKind.SHAPE)),
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
    glue_up(m, glue, "end", "fit:splice", held=new)
    m.whole = m.add(
        "flush:splice",
        "Plane the new end flush",
        Trade.PLANE,
        changes=() if m.steps.has("glue:end") else m.joined(new),
        parts=new,
        needs=(m.whole,),
        bucket=bucket,
        share=0.4,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("no step by straightedge", 0.1),
    )


# --- what is there, and what comes off it ------------------------------------------------------------------------


def _off_edge(m: StepBuilder, choice: Existing) -> float:
    """Return what comes off each long edge, mm; of a panelled leaf off each stile."""
    return m.value("stile_off" if choice.inside is Inside.PANELLED else "off_edge")


def _off_ends(m: StepBuilder, choice: Existing) -> dict[LeafEdge, float]:
    """Return what comes off the foot and the head, mm."""
    if choice.inside is Inside.PANELLED:
        return {LeafEdge.FOOT: m.value("foot_off"), LeafEdge.HEAD: m.value("head_off")}
    off = max(m.value("off_height"), 0.0)
    return {LeafEdge.FOOT: off if choice.at_foot else 0.0, LeafEdge.HEAD: 0.0 if choice.at_foot else off}


def _panel_off(m: StepBuilder, part: Part) -> float:
    return m.value(f"{part.slug}_off")


def _is_there(m: StepBuilder, choice: Existing, apart: bool) -> tuple[Change, ...]:
    """Return that the old leaf is there as it was: all its parts as large as they were, and together."""
    if m.leaf.body is None:
        return ()
    off = {side: max(_off_edge(m, choice), 0.0) for side in (LeafEdge.HINGE, LeafEdge.LATCH)} | _off_ends(m, choice)
    found: list[Change] = []
    names = []
    for piece in m.leaf.body.pieces:
        part = piece.part
        if part is None or not part.is_old:
            continue
        names.append(part.name)
        size = asdict(part.planed)
        for side, axis in sides_of(piece, m.leaf.body).items():
            size[axis] += off[side]
        if apart and part.role is Role.RAIL:
            size[Axis.LENGTH] += m.value("rail_off")
        if apart and part.role is Role.PANEL:
            size[Axis.WIDTH] += _panel_off(m, part)
        found.append(PieceTaken(part.name, Size(**size)))
    return tuple(found) if apart else (*found, *m.joined(names))


def _narrowed(m: StepBuilder, choice: Existing, apart: bool) -> tuple[Change, ...]:
    """Return that the long edges are taken to width: of the loose stiles where the leaf is taken to pieces."""
    by = _off_edge(m, choice)
    if apart:
        stiles = [part for part in m.build.parts if part.is_old and part.role is Role.STILE]
        return tuple(Brought(part.name, Axis.WIDTH, part.planed.width) for part in stiles if by > NOTHING)
    return tuple(Trimmed(side, by) for side in (LeafEdge.HINGE, LeafEdge.LATCH))


def _shorter(m: StepBuilder, choice: Existing) -> None:
    """Cut what it is too tall off its ends."""
    off = _off_ends(m, choice)
    m.whole = m.add(
        "shorten:ends",
        "Cut the leaf to its height",
        Trade.SAW,
        needs=(m.whole,),
        bucket=Bucket.REDUCE if m.has("work_reduce") else Bucket.OLD,
        share=0.5,
        settings=tuple(Setting(f"off the {side}", by) for side, by in off.items() if by > NOTHING),
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("saw", "nails", "dust"),
        check=StepCheck("height at both edges, difference", 0.5),
        how="knifed across both faces first, so that they do not splinter",
        changes=tuple(Trimmed(side, by) for side, by in off.items() if by > NOTHING),
    )
