"""From the rack to marked parts: what is measured first, boards chosen, sawn, rested, planed, marked; sheets cut."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.production import About
from oakmeasure.core.document.readings import MeasuredBy
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.core.leaf.part import TONGUE_ROOM
from oakmeasure.core.making.changes import Axis, FeatureKind
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many, sizes, sizes_to
from oakmeasure.core.timber.place import finish_of, rests_at
from oakmeasure.data import table

SETTLE_HOURS = 48.0  # of rough parts between sawing and planing: common practice, no source
FLAT = 0.3  # of a face by straightedge over a part, mm: common practice, no source


def measure_first(m: StepBuilder) -> None:
    """Measure what all else hangs on: the set as it lies on the bench, and readings that are only assumed.

    Args:
        m: Where the operations are added.
    """
    leaf = m.leaf.leaf
    if m.leaf.borings:
        set_of = "hinges" if m.leaf.butts or m.leaf.cups else "gear" if m.leaf.gear else "lock and latch"
        m.add(
            "measure:set",
            f"Unpack the {set_of}, measure every piece",
            Trade.MEASURE,
            early=True,
            bucket=Bucket.HANGING,
            share=0.2,
            about=About.HARDWARE,
            check=StepCheck("every piece of the packet against its sheet"),
            why="every groove, recess and hole for it hangs on its true size",
            later="a set that differs from its sheet is found when the wood is already cut",
        )
    assumed = [f for f in m.leaf.figures if f.state is Provenance.ASSUMED and f.name.startswith("reading_")]
    if assumed:
        m.add(
            "measure:opening",
            "Measure what is only assumed of the opening",
            Trade.MEASURE,
            early=True,
            settings=(many(len(assumed), "readings"),),
            why="the leaf is cut to it",
            later="a leaf that was cut to a guess",
        )
    glued = m.set_to(glued_up_wide="glued_width", glued_up_high="glued_height")
    glued = () if leaf.build.keeps_its_sizes else glued
    if m.build.parts and not all(part.is_old or part.at_hand for part in m.build.parts):
        m.add(
            "setout:rod",
            "Set the leaf out full size on a rod",
            Trade.MARK,
            early=True,
            bucket=Bucket.PARTS,
            share=0.4,
            needs=("measure:set", "measure:opening"),
            settings=(
                *m.set_to(leaf_width="leaf_width", leaf_height="leaf_height"),
                *(
                    ()
                    if leaf.build.keeps_its_sizes
                    else m.set_to(glued_up_wide="glued_width", glued_up_high="glued_height")
                ),
            ),
            check=StepCheck("widths and heights on the rod add up"),
            why="all lengths are taken from it",
            later="sizes carried from part to part, each with its own error",
        )
    if leaf.measured_by is MeasuredBy.TICKS:
        m.add(
            "setout:outline",
            "Prick the outline through from the tick board",
            Trade.MARK,
            bucket=Bucket.PARTS,
            share=0.3,
            needs=("setout:rod",),
            check=StepCheck("the check corner against the outline", 1.0),
        )


def timber_steps(m: StepBuilder) -> None:
    """Choose, saw, rest and plane what is of solid wood, cut what is of sheet, and mark all of it.

    Args:
        m: Where the operations are added.
    """
    parts, sheet = m.solid, m.sheet
    last: tuple[str, ...] = ("measure:opening",)
    if parts:
        last = (_rough(m, last),)
        last = (_planed(m, last[0]),)
    if sheet:
        last = (*last, _sheets(m))
    names = tuple(part.name for part in (*parts, *sheet))
    if not names:
        return
    mark = m.add(
        "mark:parts",
        "Mark faces, edges and what each part is",
        Trade.MARK,
        parts=names,
        needs=(*last, "setout:rod"),
        bucket=Bucket.PARTS,
        share=0.4,
        settings=(many(len(names), "labels"),),
        check=StepCheck(
            "face mark on the opening face, edge mark on the edge to the panel; hand on every stile"
            if m.names(Role.STILE)
            else "face mark on the opening face; number and head on every one"
        ),
        how="labels on: name, letter of each joint, hand",
    )
    for name in names:
        m.ready[name] = mark


def _rough(m: StepBuilder, needs: tuple[str, ...]) -> str:
    parts, leaf = m.solid, m.leaf
    names = tuple(part.name for part in parts)
    boards = leaf.plan.in_words() if leaf.plan else ""
    wet = Setting("moisture, about", rests_at(leaf.leaf.timber), Unit.PERCENT)
    m.add(
        "choose:boards",
        "Choose and chalk the boards",
        Trade.WOOD,
        parts=names,
        needs=needs,
        bucket=Bucket.PARTS,
        share=0.6,
        settings=(wet,),
        about=About.TIMBER,
        how=f"best face out, straight grain {_straight(m)}; {boards}",
        check=StepCheck("each board within 2 % of where it will rest; metal looked for in old wood"),
        cautions=("nails",) if any(part.is_old for part in m.build.parts) else (),
    )
    long = max(part.rough.length for part in parts)
    m.add(
        "crosscut:rough",
        "Crosscut to rough lengths",
        Trade.SAW,
        parts=names,
        needs=("choose:boards",),
        bucket=Bucket.PARTS,
        share=0.6,
        settings=(Setting("longest", long),),
        cautions=("saw",),
        how="from the ends of splits inwards; each label goes on before the cut",
    )
    m.add(
        "rip:rough",
        "Rip to rough widths, the widest first",
        Trade.SAW,
        parts=names,
        needs=("crosscut:rough",),
        bucket=Bucket.PARTS,
        share=0.8,
        cautions=("saw", "dust"),
        settings=tuple(
            Setting("fence", each) for each in sorted({round(p.rough.width, 1) for p in parts}, reverse=True)
        ),
        changes=m.taken(parts, "rough"),
    )
    _trial(m)
    return m.add(
        "rest:rough",
        "Sticker the rough parts and let them settle",
        Trade.WOOD,
        parts=names,
        needs=("rip:rough",),
        bucket=Bucket.PARTS,
        share=0.2,
        wait_hours=SETTLE_HOURS,
        wait_for="the wood to settle",
        check=StepCheck("what has moved is planed true, or changed for another"),
        about=About.TIMBER,
    )


def _straight(m: StepBuilder) -> str:
    """Return where the straightest grain goes."""
    if m.names(Role.STILE):
        return "for stiles"
    if m.names(Role.BOARD):
        return "at both edges"
    return "at hinges and latch" if m.names(Role.STRIP) else "for edges"


def _trial(m: StepBuilder) -> None:
    """A trial of colour and finish on an off-cut, judged standing where the leaf will be."""
    finish = table("finishes")[finish_of(m.leaf.leaf.timber)]
    m.add(
        "trial:finish",
        "Try colour and finish on an off-cut",
        Trade.FINISH,
        needs=("crosscut:rough",),
        early=True,
        bucket=Bucket.FINISH,
        share=0.4,
        about=About.TIMBER,
        wait_hours=float(finish["recoat"]) * finish["coats"],
        wait_for="the trial to dry",
        cautions=("rags",) if finish["rags"] else (),
        how=finish["how"],
        check=StepCheck("standing upright in its place, by day and by lamp; who it is for has said yes"),
        why="the first off-cut is there, and it dries while the leaf is made",
        later="a colour that nobody wanted, on the leaf itself",
    )


def _planed(m: StepBuilder, rested: str) -> str:
    parts = m.solid
    names = tuple(part.name for part in parts)
    m.add(
        "true:parts",
        "Flatten a face, square an edge",
        Trade.PLANE,
        parts=names,
        needs=(rested,),
        bucket=Bucket.PARTS,
        hold=WorkpieceSetup(SideUp.CLOSING, parts[0].name),
        cautions=("plane", "dust"),
        check=StepCheck("face by straightedge, edge by square", FLAT),
    )
    m.add(
        "thickness:parts",
        "Plane to thickness",
        Trade.PLANE,
        parts=names,
        needs=("true:parts",),
        bucket=Bucket.PARTS,
        settings=sizes_to(m.brought(parts, Axis.THICKNESS), thickness="thick"),
        cautions=("plane", "dust"),
        check=StepCheck("first and last piece by calliper, difference", 0.2),
        how="all of one thickness through before the table is moved, over every leaf of the job",
        changes=m.brought(parts, Axis.THICKNESS),
    )
    m.add(
        "width:parts",
        "Rip and plane to width",
        Trade.SAW,
        parts=tuple(each.name for each in m.not_later(parts, Axis.WIDTH)),
        needs=("thickness:parts",),
        bucket=Bucket.PARTS,
        settings=sizes_to(m.brought(parts, Axis.WIDTH), width="wide"),
        cautions=("saw", "dust"),
        check=StepCheck("like parts side by side, no step"),
        changes=m.brought(parts, Axis.WIDTH),
    )
    return m.add(
        "length:parts",
        "Crosscut to length against a stop",
        Trade.SAW,
        parts=tuple(each.name for each in m.not_later(parts, Axis.LENGTH)),
        needs=("width:parts",),
        bucket=Bucket.PARTS,
        share=0.6,
        settings=sizes_to(m.brought(parts, Axis.LENGTH), length="stop"),
        cautions=("saw",),
        check=StepCheck(
            "like parts on end side by side"
            + ("; stiles keep their horns" if m.trim_end and m.names(Role.STILE) else "")
        ),
        changes=m.brought(parts, Axis.LENGTH),
    )


def _sheets(m: StepBuilder) -> str:
    parts = m.sheet
    big = max(parts, key=lambda part: part.planed.length * part.planed.width)
    two = big.planed.length > 1800 or big.planed.width > 900
    return m.add(
        "cut:sheet",
        "Cut the parts out of sheet",
        Trade.SAW,
        parts=tuple(part.name for part in parts),
        needs=("measure:opening", "setout:rod"),
        bucket=Bucket.PARTS,
        cautions=m.cautions("saw", "dust"),
        settings=(*sizes(parts, "width", "fence"), *sizes(parts, "length", "stop")),
        check=StepCheck("diagonals of the largest, difference", 1.0),
        hold=WorkpieceSetup(SideUp.OPENING, big.name),
        how="a second pair of hands, or on bearers on the floor" if two else "show face up",
        changes=m.taken(parts, "planed"),
    )


def panels_ahead(m: StepBuilder, closes: str, *, needs: tuple[str, ...]) -> tuple[str, ...]:
    """Sand panels and inner edges and give their tongues a first coat, before `closes` hides them; return the ids.

    Args:
        m: Where the operations are added.
        closes: Id of the operation that closes the grooves over them.
        needs: Ids of the operations that come before.
    """
    panels = m.names(Role.PANEL)
    frame = m.names(Role.STILE, Role.RAIL, Role.MUNTIN)
    if not panels:
        return ()
    sand = m.add(
        "sand:inside",
        "Sand the panels and the frame's inner edges",
        Trade.SAND,
        parts=(*panels, *frame),
        needs=needs,
        early=True,
        bucket=Bucket.FINISH,
        share=0.8,
        cautions=("dust",),
        hold=WorkpieceSetup(SideUp.OPENING, panels[0]),
        check=StepCheck("raking light along the grain, no mark across it"),
        why="no sander reaches into the corners once the frame is shut",
        later="corners scraped by hand, cross-grain marks that show under finish",
    )
    coat = m.add(
        "coat:tongues",
        "First coat on the panels, tongues and all",
        Trade.FINISH,
        parts=panels,
        needs=(sand, "trial:finish"),
        early=True,
        bucket=Bucket.FINISH,
        share=0.5,
        wait_hours=float(table("finishes")[finish_of(m.leaf.leaf.timber)]["recoat"]),
        wait_for="it to dry",
        check=StepCheck("no finish on what will be glued"),
        why="when the panels shrink, their tongues come into sight",
        later="bare lines along every panel in the first dry winter",
    )
    m.steps.need(closes, coat)
    return sand, coat


def tongue_boards(m: StepBuilder, boards: tuple[str, ...], ready: tuple[str, ...]) -> tuple[str, ...]:
    """Groove and tongue the boards that have a tongue; return the ids after which they are ready.

    Args:
        m: Where the operations are added.
        boards: Names of all boards.
        ready: Ids of the operations that come before.
    """
    mine = [part for part in m.build.parts if part.name in boards]
    tongues = [tongue for part in mine for tongue in part.tongues]
    grooves = m.cuts(boards, FeatureKind.GROOVE)
    if not tongues:
        return ready
    first = tongues[0]
    long, thick = first.box[2] - first.box[0], first.depth[1] - first.depth[0]
    beside = first.depth[0] - min(m.build.depth_of(part)[0] for part in mine)
    m.add(
        "groove:boards",
        "Groove one edge of every board",
        Trade.ROUT,
        parts=boards,
        needs=ready,
        early=True,
        bucket=Bucket.PARTS,
        settings=(Setting("deep", long + TONGUE_ROOM), Setting("wide", thick), Setting("fence", beside)),
        hold=WorkpieceSetup.of(SideUp.HINGE_EDGE, boards),
        cautions=("router", "dust"),
        check=StepCheck("a tongue slides in by hand"),
        practice="two off-cuts",
        how="face to the fence, all boards",
        why="all boards in one go before any is ripped",
        later="the cutter is set twice",
        changes=grooves,
    )
    m.add(
        "tongue:boards",
        "Tongue the other edge",
        Trade.ROUT,
        parts=boards,
        needs=("groove:boards",),
        bucket=Bucket.PARTS,
        settings=(Setting("long", long), Setting("thick", thick)),
        cautions=("router", "dust"),
        hold=WorkpieceSetup.of(SideUp.LATCH_EDGE, boards),
        check=StepCheck("faces flush with the grooved one", 0.1),
        practice="two off-cuts",
        changes=m.cuts(boards, FeatureKind.TONGUE),
    )
    return ("tongue:boards",)
