"""A slab of strips: edges shot, tenons or dowels, glued in groups, then what keeps it flat and lets it move."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint, Stiffener
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.changes import Axis, Change, FeatureKind, PieceTaken
from oakmeasure.core.making.features import NO_WOOD
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many


def steps(m: StepBuilder, choice: Slab, glue: GluePlan | None) -> None:
    """Add the operations of a slab, from its marked strips to one that is held flat.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the slab.
        glue: How the leaf is glued up; None where nothing is.
    """
    strips = tuple(part.name for part in m.build.parts if part.role is Role.STRIP)  # old boards are at hand
    old = any(part.at_hand for part in m.build.parts if part.role is Role.STRIP)
    ready = m.loose(strips) or ("measure:opening",)
    if old:
        ready = (
            m.add(
                "clean:boards",
                "Look for metal, brush and flatten the old boards",
                Trade.PLANE,
                parts=strips,
                needs=ready,
                bucket=Bucket.PARTS,
                cautions=("nails", "plane"),
                about=About.TIMBER,
                hold=WorkpieceSetup.of(SideUp.CLOSING, strips),
                check=StepCheck("detector over both faces and both edges"),
                how="the rough face stays as it is, the other is planed",
                changes=_as_cleaned(m, strips),
            ),
        )
    _lay(m, strips, ready)
    before = _joints(m, choice, strips)
    dry = m.add(
        "dry:slab",
        "Close it dry, clamps and all",
        Trade.FIT,
        parts=strips,
        needs=(before,),
        bucket=Bucket.GLUE,
        share=0.4,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("flat across by straightedge", 0.5),
        how="every clamp set and laid by, cauls waxed",
        changes=() if choice.glue is not SlabGlue.NOWHERE else m.joined(strips),
    )
    m.whole = dry
    if choice.glue is not SlabGlue.NOWHERE:
        glue_up(m, glue, "slab", dry)
    m.whole = m.add(
        "flat:slab",
        "Level the planed face, the rough one stays" if old else "Level the joints, both faces",
        Trade.PLANE,
        needs=(m.whole,),
        bucket=Bucket.PARTS,
        share=1.0,
        hold=WorkpieceSetup(SideUp.OPENING),
        cautions=("dust",),
        check=StepCheck("thickest less thinnest", 0.5),
        how="glue off with a scraper; only what stands proud at a joint, across the grain first, then along",
    )
    _held(m, choice)


def cut_later(m: StepBuilder, choice: Slab) -> dict[str, tuple[Axis, ...]]:
    """Return which strips wait with their widths: the first and the last, until all are laid.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the slab.
    """
    strips = [part.name for part in m.build.parts if part.role is Role.STRIP]
    return dict.fromkeys((strips[0], strips[-1]), (Axis.WIDTH,)) if strips else {}


def _as_cleaned(m: StepBuilder, strips: tuple[str, ...]) -> tuple[Change, ...]:
    """Return that old boards are there, as wide as they are where they still are to be ripped."""
    old = [part for part in m.build.parts if part.name in strips and part.at_hand]
    return tuple(
        PieceTaken(part.name, replace(part.planed, width=(part.rough if part.name in m.later else part.planed).width))
        for part in old
    )


def _lay(m: StepBuilder, strips: tuple[str, ...], ready: tuple[str, ...]) -> None:
    """Lay the strips, rip the end ones, shoot the joints."""
    m.add(
        "lay:boards",
        "Lay the strips in order and measure their widths",
        Trade.MEASURE,
        parts=strips,
        needs=ready,
        bucket=Bucket.PARTS,
        share=0.5,
        settings=m.set_to(strip="strip_width", laid="boards_laid"),
        hold=WorkpieceSetup(SideUp.OPENING),
        about=About.TIMBER,
        check=StepCheck("widths as read, into the log"),
        how="heart side in turn, grain that runs one way, a triangle across all of them",
    )
    m.add(
        "rip:last",
        "Rip the end strips to what is left",
        Trade.SAW,
        parts=tuple(m.later),
        needs=("lay:boards",),
        bucket=Bucket.PARTS,
        share=0.4,
        cautions=("saw",),
        settings=tuple(
            Setting(label, each.to) for label, each in zip(("first", "last"), m.brought_now(m.later), strict=False)
        ),
        how=f"{m.show.length(m.trim_side)} stay on at each edge until the leaf is sized" if m.trim_side else "",
        check=StepCheck("width over all strips", 1.0),
        changes=m.brought_now(m.later),
    )
    m.add(
        "shoot:edges",
        "Shoot the edges in pairs, face to face",
        Trade.PLANE,
        parts=strips,
        needs=("rip:last",),
        bucket=Bucket.JOINTS,
        settings=m.set_to(off_a_joint="shoot"),
        cautions=("plane",),
        hold=WorkpieceSetup(SideUp.LATCH_EDGE, strips[0]) if strips else None,
        practice="",
        check=StepCheck("no light between two that stand on one another; hollow in the middle", 0.1),
    )


def _joints(m: StepBuilder, choice: Slab, strips: tuple[str, ...]) -> str:
    if choice.joint is SlabJoint.GLUED or not m.build.tenons:
        return "shoot:edges"
    dowels = choice.joint is SlabJoint.DOWELS
    word, tool = ("dowel holes", "drill") if dowels else ("mortises for the loose tenons", "router")
    return m.add(
        "mortise:strips",
        f"Cut the {word} in the loose strips",
        Trade.JOINT,
        parts=strips,
        needs=("shoot:edges",),
        early=True,
        bucket=Bucket.JOINTS,
        share=2.0,
        cautions=(tool,),
        settings=(
            *m.set_to(every="tenon_every"),
            many(len(m.build.tenons), "joints"),
            Setting("fence to it", m.set_out_thick / 2),
        ),
        hold=WorkpieceSetup(SideUp.LATCH_EDGE, strips[0]) if strips else None,
        practice="one joint in off-cuts: faces flush",
        check=StepCheck("step between the faces", 0.1),
        why="opening face to the fence, while they are loose",
        later="a glued edge takes no more tenon",
        changes=m.cuts(strips, FeatureKind.SOCKET),
    )


def _held(m: StepBuilder, choice: Slab) -> None:
    """Battens in dadoes, channels, ledges: slotted so that the slab moves."""
    battens = m.names(Role.STIFFENER, Role.LEDGE) or tuple(p.name for p in m.build.parts if p.role is Role.STIFFENER)
    if choice.stiffener is Stiffener.NONE or not battens:
        return
    if choice.stiffener is Stiffener.NAILED:
        _nailed(m, battens)
        return
    metal = choice.stiffener is Stiffener.CHANNELS
    m.add(
        "dado:slab",
        "Rout the " + ("grooves for the channels" if metal else "dadoes for the battens"),
        Trade.ROUT,
        needs=(m.whole, "measure:set"),
        bucket=Bucket.JOINTS,
        share=2.0,
        hold=WorkpieceSetup(SideUp.CLOSING),
        cautions=("router", "dust"),
        settings=(
            Setting("wide", choice.stiffener_width, figure="stiffener_width"),
            Setting("deep", choice.stiffener_thickness if metal else choice.dado),
            *m.set_to(ends_in="stiffener_in"),
        ),
        practice="a short one across an off-cut",
        check=StepCheck("batten slides in by hand along all of it"),
        how="against a straightedge, two passes",
        changes=m.rest(FeatureKind.HOUSING),
    )
    m.add(
        "slot:battens",
        "Slot the holes, all but the middle one",
        Trade.BORE,
        parts=battens,
        needs=m.loose(battens),
        early=True,
        bucket=Bucket.JOINTS,
        share=0.6,
        settings=m.set_to(slot="slot_length"),
        hold=WorkpieceSetup.of(SideUp.CLOSING, battens) if not metal else None,
        cautions=("drill",),
        why="a loose batten lies under the drill",
        later="by hand, in the leaf",
    )
    m.whole = m.add(
        "fix:battens",
        "Screw the " + ("channels" if metal else "battens") + " in, no glue",
        Trade.FIT,
        parts=battens,
        needs=("dado:slab", "slot:battens"),
        bucket=Bucket.JOINTS,
        hold=WorkpieceSetup(SideUp.CLOSING),
        settings=(*m.set_to(long="fixing_length"), many(len(m.build.fixings), "screws")),
        check=StepCheck("screws in the slots' middle, just not tight"),
        changes=(*_bought(m, battens), *m.joined(battens)),
    )


def _bought(m: StepBuilder, names: tuple[str, ...]) -> tuple[Change, ...]:
    """Return that channels come to be: they are bought to length."""
    return m.taken((part for part in m.build.parts if part.name in names and part.species in NO_WOOD), "finished")


def _nailed(m: StepBuilder, battens: tuple[str, ...]) -> None:
    m.whole = m.add(
        "nail:ledges",
        "Nail the ledges on, no glue across",
        Trade.FIT,
        parts=battens,
        needs=(m.whole, *m.loose(battens)),
        bucket=Bucket.JOINTS,
        hold=WorkpieceSetup(SideUp.CLOSING),
        cautions=("drill",),
        settings=(*m.set_to(long="fixing_length"), many(len(m.build.fixings), "nails")),
        practice="one nail through off-cuts, clenched",
        check=StepCheck("clenched across the grain"),
        how="holes bored first, near the ends always",
        changes=m.joined(battens),
    )
