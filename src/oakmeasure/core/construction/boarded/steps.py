"""Boards on ledges, with braces or in a frame: laid out and measured, the last board ripped to what is left."""

from __future__ import annotations

from oakmeasure.core.construction.boarded.model import Boarded, BoardedStyle, FixedBy
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.making.changes import Axis, FeatureKind
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import NOTHING, StepBuilder, many
from oakmeasure.core.making.wood_steps import tongue_boards


def steps(m: StepBuilder, choice: Boarded, glue: GluePlan | None) -> None:
    """Add the operations of a boarded leaf, from its marked parts to one that is fixed together.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the boarded leaf.
        glue: How the leaf is glued up; None where nothing is.
    """
    boards, ledges, braces = m.names(Role.BOARD), m.names(Role.LEDGE), m.names(Role.BRACE)
    ready, ends = m.loose(boards), tuple(m.later)
    ready = tongue_boards(m, boards, ready)
    m.add(
        "lay:boards",
        "Lay the boards out and measure their covers",
        Trade.MEASURE,
        parts=boards,
        needs=ready,
        bucket=Bucket.PARTS,
        share=0.5,
        settings=m.set_to(cover="board_cover", gap="board_gap"),
        about=About.TIMBER,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("sum of the covers as read, into the log"),
        how="best faces out, heart side in turn; straight grain at hinges and latch",
    )
    m.add(
        "rip:last",
        "Rip the end boards to what is left",
        Trade.SAW,
        parts=ends,
        needs=("lay:boards",),
        bucket=Bucket.PARTS,
        share=0.5,
        cautions=("saw",),
        settings=tuple(Setting("cover at the ends", each) for each in _covers(m, ends)),
        check=StepCheck("width over all boards", 1.0),
        how="not before the covers are read" + _still_on(m, ends),
        changes=m.brought_now(ends),
    )
    _seal(m, boards, ledges)
    if choice.double:
        m.add(
            "fix:back",
            "Lay and nail the second layer",
            Trade.FIT,
            parts=tuple(each.name for each in m.parts(Role.BOARD) if each.is_back),
            needs=("rip:last", "seal:boards"),
            bucket=Bucket.JOINTS,
            hold=WorkpieceSetup(SideUp.CLOSING),
            settings=m.set_to(nails="layer_nail"),
            check=StepCheck("no point through the face"),
            how="joints of one layer over the middle of the other's boards",
            changes=m.joined(boards),
        )
    if choice.style is BoardedStyle.FRAMED:
        _frame(m, glue)
    if ledges:
        _ledges(m, choice, boards, ledges)
    if braces:
        _braces(m, choice, braces)
    ends = ("fix:brace", "fix:ledges", "fix:frame", "fix:back", "rip:last")
    m.whole = next(each for each in ends if m.steps.has(each))
    for each in ends[1:]:
        m.steps.need(m.whole, each)


def cut_later(m: StepBuilder, choice: Boarded) -> dict[str, tuple[Axis, ...]]:
    """Return which boards wait with their widths: the end ones of each layer, until the covers are read.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the boarded leaf.
    """
    layers = ([each for each in m.parts(Role.BOARD) if each.is_back is back] for back in (False, True))
    return {part.name: (Axis.WIDTH,) for layer in layers if layer for part in (layer[0], layer[-1])}


def _still_on(m: StepBuilder, names: tuple[str, ...]) -> str:
    """Return what stays on at the leaf's edges for its sizing, in words; nothing does of boards in a frame."""
    on = max((p.planed.width - p.finished.width - _tongues(p) for p in m.build.parts if p.name in names), default=0.0)
    return f"; {m.show.length(on)} stay on at each edge until the leaf is sized" if on > NOTHING else ""


def _tongues(part: Part) -> float:
    return sum(each.box[2] - each.box[0] for each in part.tongues)


def _covers(m: StepBuilder, names: tuple[str, ...]) -> list[float]:
    """Return what the end boards cover as they are ripped, each once: without their tongues, mm."""
    tongues = {part.name: _tongues(part) for part in m.build.parts if part.name in names}
    return sorted({round(each.to - tongues[each.piece], 1) for each in m.brought_now(names)}, reverse=True)


def _seal(m: StepBuilder, boards: tuple[str, ...], ledges: tuple[str, ...]) -> None:
    m.add(
        "seal:boards",
        "First coat on tongues, edges and under the ledges",
        Trade.FINISH,
        parts=(*boards, *ledges),
        needs=("rip:last", "trial:finish"),
        early=True,
        bucket=Bucket.FINISH,
        share=0.6,
        wait_hours=6.0,
        wait_for="it to dry",
        check=StepCheck("every edge that will be hidden"),
        why="it is the last time that they are seen",
        later="bare stripes when the boards shrink, and wet in the joints",
    )


def _ledges(m: StepBuilder, choice: Boarded, boards: tuple[str, ...], ledges: tuple[str, ...]) -> None:
    nails = choice.fixed_by is FixedBy.NAILS
    m.add(
        "edge:ledges",
        "Bevel the ledges' upper edges, clean their ends",
        Trade.PLANE,
        parts=ledges,
        needs=m.loose(ledges),
        bucket=Bucket.PARTS,
        share=0.4,
        cautions=("plane",),
        hold=WorkpieceSetup.of(SideUp.CLOSING, ledges),
        settings=m.set_to(long="ledge_length", wide="ledge_width"),
    )
    m.add(
        "bore:ledges",
        "Bore clearance holes in the loose ledges",
        Trade.BORE,
        parts=ledges,
        needs=("edge:ledges",),
        early=True,
        bucket=Bucket.JOINTS,
        settings=(many(len(m.build.fixings), "holes"),),
        hold=WorkpieceSetup.of(SideUp.CLOSING, ledges),
        cautions=("drill",),
        check=StepCheck("two to a board, clear of its edges"),
        why="on the drill's table, square",
        later="by eye, through the leaf",
    )
    word = "Nail and clench" if nails else "Screw"
    m.add(
        "fix:ledges",
        f"{word} the ledges on, square to the boards",
        Trade.FIT,
        parts=(*ledges, *boards),
        needs=("bore:ledges", "rip:last", "seal:boards", "fix:back"),
        bucket=Bucket.JOINTS,
        hold=WorkpieceSetup(SideUp.CLOSING),
        settings=(*m.set_to(long="fixing_length", stack="fixing_stack"), many(len(m.build.fixings), "fixings")),
        check=StepCheck("diagonals, difference", 2.0),
        practice="" if nails else "one screw in off-cuts: point stays in",
        how="cramped together with the gap between; no glue across the boards",
        changes=m.joined((*ledges, *boards)),
    )


def _braces(m: StepBuilder, choice: Boarded, braces: tuple[str, ...]) -> None:
    m.add(
        "cut:brace",
        "Cut the brace to its field, foot at the hinges",
        Trade.JOINT,
        parts=braces,
        needs=("fix:ledges", "fix:frame", *m.loose(braces)),
        bucket=Bucket.PARTS,
        share=0.6,
        cautions=("saw",),
        settings=m.set_to(angle="brace_angle", long_edge="brace_edge", blank="brace_blank"),
        hold=WorkpieceSetup.of(SideUp.CLOSING, braces),
        check=StepCheck("no light at its shoulders", 0.3),
        how="marked in its place rather than measured" + ("; halve the crossing" if choice.half_lapped else ""),
        changes=(*m.to_length(braces), *m.rest(FeatureKind.LAP, FeatureKind.HOUSING)),
    )
    m.add(
        "fix:brace",
        "Screw the brace on",
        Trade.FIT,
        parts=braces,
        needs=("cut:brace",),
        bucket=Bucket.JOINTS,
        share=0.5,
        hold=WorkpieceSetup(SideUp.CLOSING),
        settings=m.set_to(long="fixing_length"),
        check=StepCheck("its foot stands at the hinge side"),
        changes=m.joined(braces),
    )


def _frame(m: StepBuilder, glue: GluePlan | None) -> None:
    members = m.names(Role.STILE, Role.RAIL)
    stiles = m.names(Role.STILE)
    m.add(
        "mark:joints",
        "Set out the frame's joints",
        Trade.MARK,
        parts=members,
        needs=m.loose(members),
        bucket=Bucket.JOINTS,
        share=0.4,
        hold=WorkpieceSetup(SideUp.INNER_EDGE, stiles[0]) if stiles else None,
    )
    m.add(
        "mortise:stiles",
        "Cut the mortises in the loose stiles",
        Trade.JOINT,
        parts=stiles,
        needs=("mark:joints",),
        early=True,
        bucket=Bucket.JOINTS,
        settings=m.set_to(chisel="tenon_thickness", deep="tenon"),
        cautions=("chisel", "drill"),
        hold=WorkpieceSetup(SideUp.INNER_EDGE, stiles[0]) if stiles else None,
        practice="one joint in off-cuts",
        why="a loose stile lies flat under the machine",
        later="by hand in a shut frame",
        changes=m.cuts(stiles, FeatureKind.MORTISE, FeatureKind.SOCKET),
    )
    m.add(
        "tenon:rails",
        "Cut the tenons",
        Trade.JOINT,
        parts=m.names(Role.RAIL),
        needs=("mark:joints", "mortise:stiles"),
        bucket=Bucket.JOINTS,
        cautions=("saw",),
        settings=m.set_to(tenon="tenon_thickness", long="tenon"),
        check=StepCheck("pushed home by hand, shoulders shut", 0.1),
        changes=m.cuts(m.names(Role.RAIL, Role.LEDGE), FeatureKind.TENON),
    )
    m.add(
        "dry:frame",
        "Put the frame together dry",
        Trade.FIT,
        parts=members,
        needs=("tenon:rails",),
        bucket=Bucket.GLUE,
        share=0.4,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("diagonals, difference", 1.0),
    )
    glue_up(m, glue, "frame", "dry:frame")
    _screwed(m, members)


def _screwed(m: StepBuilder, members: tuple[str, ...]) -> None:
    """Screw the boards into the frame."""
    boards = m.names(Role.BOARD)
    m.add(
        "fix:frame",
        "Screw the boards into the frame",
        Trade.FIT,
        parts=(*members, *boards),
        needs=("glue:frame", "dry:frame", "rip:last", "seal:boards", "fix:back"),
        bucket=Bucket.JOINTS,
        hold=WorkpieceSetup(SideUp.CLOSING),
        settings=(many(len(m.build.fixings), "fixings"),),
        changes=m.joined((*members, *boards)),
    )
