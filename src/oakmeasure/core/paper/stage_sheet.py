"""What a bench sheet of one stage says: its drawing, its figures with their sums, its lists, its checks.

Only words and numbers as they are shown; how they come on paper is the files' affair. A cell that is BOX is a square to
tick, one that is "" in a tall block is room for a pencil.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.make.strip_view import strip_view
from oakmeasure.core.drawings.views import VIEWS
from oakmeasure.core.figures.check import ON_PAPER, Level, Stage
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import gap_as_hung
from oakmeasure.core.hardware.boring_rows import COLUMNS, boring_row
from oakmeasure.core.making.log import Progress, progress
from oakmeasure.core.reports.hanging_record import reading_rows
from oakmeasure.core.reports.open_readings import all_to_measure
from oakmeasure.core.solution import LeafSolution

BOX = "□"
Row = tuple[str, ...]
LONGEST_SUM = 150  # characters: two lines of its column
MEASURE_FIGURES = (
    "clear_width",
    "clear_height",
    "clear_width_uncertainty",
    "skew",
    "hinge_side_in",
    "latch_side_in",
    "head_low",
    "floor_high",
    "wind",
    "floor_rise",
    "floor_fall",
    "head_radius",
    "head_arch_rise",
    "lining_outside",
    "packing_left",
)
FIT_FIGURES = (
    "leaf_width",
    "leaf_height",
    "gap_hinge",
    "gap_latch",
    "gap_meeting",
    "gap_head",
    "gap_floor",
    "overlap_hinge",
    "overlap_latch",
    "overlap_head",
    "track_needed",
    "free_wall",
    "bevel",
    "least_bevel",
    "square_growth",
    "opens_to",
    "clear_way",
    "goes_in",
    "glued_width",
    "glued_height",
    "trim_side",
    "trim_height",
)
LEAF_FIGURES = (
    "shoulder",
    "tenon",
    "tenon_thickness",
    "rail_length",
    "groove_depth",
    "sight_width",
    "panel_width",
    "panel_room",
    "panel_hold",
    "middle_rail_centre",
    "boards_count",
    "boards_laid",
    "board_end",
    "strip_width",
    "brace_angle",
    "brace_edge",
    "brace_blank",
    "fixing_length",
    "arch_radius",
    "pitch",
    "leaf_change_wet",
    "leaf_change_dry",
)
TIMBER_FIGURES = ("boards", "least_boards", "yield", "sheets", "moisture_made", "moisture_dry", "moisture_wet", "mass")
HARDWARE_FIGURES = (
    "mass",
    "butt_depth",
    "butt_across",
    "top_hinge_pull",
    "screw_pilot",
    "cup_overlay",
    "cup_boring",
    "cup_centre",
    "cup_depth",
    "plate_back",
    "lock_down",
    "lock_keep",
    "latch_down",
    "latch_keep",
    "hanger_1",
    "bolt_in",
    "bolt_down",
    "track_needed",
    "track_line",
    "stack_least",
    "stack_screw",
    "stack_bites",
    "stack_pilot",
    "proof_load",
)
HANG_FIGURES = (
    "gap_hinge",
    "gap_latch",
    "gap_meeting",
    "gap_head",
    "gap_floor",
    "overlap_hinge",
    "overlap_latch",
    "packing_lifts",
    "mass",
    "proof_load",
    "hung_worst",
)


@dataclass(frozen=True, slots=True)
class Block:
    """A table of a sheet."""

    title: str
    """Its heading."""
    columns: Row
    """Heads of its columns."""
    shares: tuple[float, ...]
    """Of the page's width."""
    rows: tuple[Row, ...]
    """Its rows."""
    bold: int = 0
    """How many of its columns stand in bold type."""
    tall: bool = False
    """Rows have room for a pencil."""


@dataclass(frozen=True, slots=True)
class StageSheet:
    """One stage of one leaf."""

    stage: Stage
    """The stage."""
    key: str
    """The figure under its name on the rod."""
    drawing: Drawing | None
    """None where a list says it better."""
    blocks: tuple[Block, ...]
    """What stands on the sheet."""


def stage_sheet(leaf: LeafSolution, stage: Stage, show: Show) -> StageSheet:
    """Return the sheet of a stage; where there is no leaf yet, what there is: its opening, and why not.

    Args:
        leaf: The leaf, worked out to the end.
        stage: The stage that it belongs to.
        show: How lengths and other quantities are written.
    """
    blocks: list[Block] = []
    if stage is Stage.MEASURE or leaf.build is not None:
        blocks = [each for each in _LISTS[stage](leaf, show) if each.rows]
    said = [
        (ON_PAPER[each.level], f"{each.title}. {each.sentence}", ". ".join(r.text for r in each.remedies))
        for each in leaf.checks
        if each.stage is stage and each.level is not Level.OK
    ]
    blocks.append(Block("Checks", ("", "", "what would mend it"), (0.13, 0.55, 0.32), tuple(said)))
    draws = leaf.build is not None or stage is Stage.MEASURE
    view = strip_view if stage is Stage.MAKE else VIEWS[stage]
    drawing = view(leaf, show) if draws else None
    return StageSheet(stage, leaf.key_figure(stage, show), drawing, tuple(each for each in blocks if each.rows))


def sum_of(figure: Figure, show: Show) -> str:
    """Return a figure's sum in one line, "736.1 clear width − 2 gap at the latch", or its formula in words.

    "" where it is neither, or too long to be read so.

    Args:
        figure: The figure.
        show: How lengths and other quantities are written.
    """
    terms = [row for row in figure.rows if row.value is not None and row.op not in ("=", "note")]
    if len(terms) > 1 and all(row.op for row in terms[1:]):
        found = ""
        for row in terms:
            op, value = row.as_written()
            number = show.value(value, row.unit, with_unit=row.unit is not Unit.MM)
            label = f"({row.label})" if row.label[:1].isdigit() else row.label  # "4 (2 × trimming allowance)"
            found += f" {op} {number} {label}" if found else f"{number} {label}"
    else:
        found = "; ".join(row.label for row in figure.rows if row.op == "note")
    return found if len(found) <= LONGEST_SUM else ""


def _figures(title: str, names: Iterable[str], leaf: LeafSolution, show: Show) -> Block:
    rows = [
        (f.label, show.value(f.value, f.unit), sum_of(f, show))
        for f in (leaf.figures[figure_name(name)] for name in names if figure_name(name) in leaf.figures)
    ]
    return Block(title, ("", "", "its sum"), (0.27, 0.11, 0.62), tuple(rows), bold=1)


# --- the lists of each stage ---------------------------------------------------------------------------------


def _measure(leaf: LeafSolution, show: Show) -> list[Block]:
    readings = tuple((name, value, "", "") for name, value in reading_rows(leaf.leaf, show))
    still = tuple((each.label, "; ".join(each.hangs), "") for each in all_to_measure([leaf]))
    return [
        Block(
            "Readings", ("", "first", "second time", "by whom, when"), (0.34, 0.18, 0.24, 0.24), readings, 1, tall=True
        ),
        _figures("From them", MEASURE_FIGURES, leaf, show),
        Block("Still to be measured", ("", "what hangs on it", "measured"), (0.34, 0.42, 0.24), still, tall=True),
    ]


def _fit(leaf: LeafSolution, show: Show) -> list[Block]:
    return [_figures("Sizes and gaps", FIT_FIGURES, leaf, show)]


def _leaf(leaf: LeafSolution, show: Show) -> list[Block]:
    rows = []
    for part in leaf.cut_parts:
        sizes = (show.size(s.length, s.width, s.thickness) for s in (part.finished, part.planed))
        count = leaf.pieces_of(part)
        name = f"{part.name} × {count}" if count > 1 else part.name
        rows.append((part.mark, name, *sizes, part.note, BOX))
    return [
        Block(
            "Parts, length × width × thickness",
            ("no.", "part", "finished", "planed for the glue-up", "note", ""),
            (0.06, 0.22, 0.2, 0.2, 0.27, 0.05),
            tuple(rows),
            bold=2,
        ),
        _figures("Joints", LEAF_FIGURES, leaf, show),
    ]


def _timber(leaf: LeafSolution, show: Show) -> list[Block]:
    rows = []
    for group in leaf.plan.groups if leaf.plan is not None else ():
        for board in group.plan.boards:
            pieces = "; ".join(f"{p.piece.name} {show.size(p.piece.length, p.piece.width)}" for p in board.pieces)
            size = show.size(board.stock.length, board.stock.width, group.thickness)
            rows.append((f"{stuff(group.species).name}, {board.stock.name}", size, pieces, BOX))
    return [
        Block(
            "From which board", ("board", "size", "what is cut from it, rough", ""), (0.2, 0.2, 0.55, 0.05), tuple(rows)
        ),
        _figures("Wood", TIMBER_FIGURES, leaf, show),
    ]


def _hardware(leaf: LeafSolution, show: Show) -> list[Block]:
    rows = tuple((*boring_row(cut, show), BOX) for cut in leaf.borings)
    columns = (*COLUMNS, "")
    return [
        Block("Let in and bored", columns, (0.16, 0.2, 0.22, 0.1, 0.1, 0.09, 0.08, 0.05), rows),
        _figures("Places and screws", HARDWARE_FIGURES, leaf, show),
    ]


def _make(leaf: LeafSolution, show: Show) -> list[Block]:
    if leaf.making is None:
        return []
    states = progress(leaf.making.operations, leaf.leaf.making.log)
    rows = []
    for n, op in enumerate(leaf.making.operations, start=1):
        set_to = "; ".join(each.in_words(show) for each in op.settings)
        done = "done" if states[op.id] is Progress.DONE else BOX
        rows.append((str(n), op.name, set_to, op.check.in_words(show) if op.check is not None else "", done))
    hours = f"{leaf.making.hours:.1f} h of work"
    return [
        Block(
            f"Operations in working order, {hours}",
            ("", "", "set to", "before it goes on", ""),
            (0.05, 0.33, 0.27, 0.29, 0.06),
            tuple(rows),
            bold=1,
        )
    ]


def _hang(leaf: LeafSolution, show: Show) -> list[Block]:
    blocks = [_figures("What is aimed at", HANG_FIGURES, leaf, show)]
    read = tuple((name, show.length(wanted or 0.0), "", "", "") for name, wanted in _to_read(leaf))
    blocks.append(
        Block(
            "As it hangs",
            ("", "wanted", "first", "put right", "signed off"),
            (0.28, 0.18, 0.18, 0.18, 0.18),
            read,
            bold=1,
            tall=True,
        )
    )
    looks = tuple((each.what, each.found, each.remedy, BOX) for each in leaf.hung.looks)
    blocks.append(Block("Looked at in this order", ("", "found", "if not", ""), (0.25, 0.3, 0.4, 0.05), looks))
    steps = tuple((part.name, step.words, BOX) for part in leaf.hung.leaves for step in part.least_wood)
    blocks.append(Block("To put it right", ("leaf", "", ""), (0.15, 0.8, 0.05), steps, bold=-1))
    return blocks


def _to_read(leaf: LeafSolution) -> list[tuple[str, float | None]]:
    """Return what is read of a leaf as it hangs, each with what is wanted; None: in one plane or level."""
    f = leaf.figures
    if leaf.leaf.hanging.slides:
        return [("rail, out of level over its length", None), ("leaf, out of plumb at its latch edge", None)]
    if leaf.cups is not None and leaf.leaf.hanging.lies_on:
        return [(f"{name}, {at}", None) for name in ("low", "proud") for at in ("hinge side", "latch side")]
    found: list[tuple[str, float | None]] = []
    latch = "gap_meeting" if leaf.leaf.hanging is Hanging.PAIR and "gap_meeting" in f else "gap_latch"
    up, along = ("top", "middle", "bottom"), ("hinge", "latch")
    for side, name, ends in (
        ("hinge", "gap_hinge", up),
        ("latch", latch, up),
        ("head", "gap_head", along),
        ("floor", "gap_floor", along),
    ):
        found += [(f"{side}, {end}", gap_as_hung(f, figure_name(name)).value) for end in ends if figure_name(name) in f]
    return [*found, ("latch edge out of its plane, top", None), ("latch edge out of its plane, bottom", None)]


_LISTS: dict[Stage, Callable[[LeafSolution, Show], list[Block]]] = {
    Stage.MEASURE: _measure,
    Stage.FIT: _fit,
    Stage.LEAF: _leaf,
    Stage.TIMBER: _timber,
    Stage.HARDWARE: _hardware,
    Stage.MAKE: _make,
    Stage.HANG: _hang,
}
