"""The cutting plan of one leaf: its rough parts sorted by board thickness, each group planned on its boards."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.units import MM2_PER_M2, Unit, counted
from oakmeasure.core.cutting.board_plan import BoardPiece, BoardPlan, BoardStock, plan_boards
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SHEET_LENGTH, SHEET_WIDTH, SheetMaterial, stuff
from oakmeasure.core.document.stock import Board
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import FIXED
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Part


@dataclass(frozen=True, slots=True)
class ThicknessGroup:
    """Boards of one species and thickness with their plan."""

    species: str
    """Key of its species or sheet."""
    thickness: float
    """Thickness, mm."""
    plan: BoardPlan
    """The boards of that thickness with their cuts."""


@dataclass(frozen=True, slots=True)
class LeafPlan:
    """The boards and sheets of one leaf."""

    groups: tuple[ThicknessGroup, ...]
    """By species and thickness, thickest first."""
    used: dict[int, int]
    """Boards taken, by index into the job's boards."""
    boards: int
    """How many boards it takes."""
    least_boards: int
    """No plan can take fewer."""
    yield_percent: float
    """Share of the boards that becomes parts, %."""
    sheets: int = 0
    """Whole ones; their groups stand behind those of the boards."""

    def in_words(self) -> str:
        """Return what it takes, short: boards with their yield, or sheets beside them."""
        boards = counted(self.boards, "board")
        if self.sheets:
            sheets = counted(self.sheets, "sheet")
            return f"{sheets} · {boards}" if self.boards else sheets
        return f"{boards} · {self.yield_percent:.0f} %" if self.boards else "no new timber"


ALONG = 0.5  # of a board's length: a defect as long is ripped off with the edge
SAWN_ALIKE = 4.0  # boards are called one thickness within this, mm
SHORTEST = 200.0  # clear length that the quick plan looks at, mm


def plan_leaf(ctx: Context, parts: Sequence[Part], rack: tuple[Board, ...]) -> LeafPlan:
    """Plan the rough parts of a leaf, and of its lining, on the rack, say the yield and the bound, and judge it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        parts: The parts.
        rack: The boards that there are, and that can be bought.
    """
    rules = ctx.rules
    sheets = _plan_sheets(ctx, [part for part in parts if isinstance(stuff(part.species), SheetMaterial)])
    parts = [part for part in parts if not isinstance(stuff(part.species), SheetMaterial)]
    groups: dict[tuple[str, float], list[BoardPiece]] = {}
    homeless: list[Part] = []
    for part in parts:
        boards = boards_for(rack, part.species, part.rough.thickness)
        if not boards:
            homeless.append(part)
            continue
        key = (part.species, boards[0][1].thickness)
        widest = max(board.width - board.crook for _, board in boards)
        groups.setdefault(key, []).extend(pieces_of(part, widest, rules.joint_allowance.value, rules.allow_width.value))
    planned: list[ThicknessGroup] = []
    used: dict[int, int] = {}
    for (species, thickness), pieces in sorted(groups.items(), key=lambda each: (-each[0][1], each[0][0])):
        stock = [each for at, board in boards_for(rack, species, thickness) for each in _clear(at, board)]
        plan = plan_boards(pieces, stock, kerf=rules.kerf.value, end_trim=rules.end_trim.value)
        planned.append(ThicknessGroup(species, thickness, plan))
        for cut in plan.boards:
            used[board_at(cut.stock.name)] = used.get(board_at(cut.stock.name), 0) + 1
    return _report(ctx, tuple(planned), used, homeless, rack, sheets)


def _plan_sheets(ctx: Context, parts: list[Part]) -> tuple[ThicknessGroup, ...]:
    """Plan sheet parts on whole sheets of their thickness, grain along the sheet; metal and glass are no sheets."""
    wanted: dict[tuple[str, float], list[BoardPiece]] = {}
    for part in parts:
        if stuff(part.species).moist:  # type: ignore[union-attr]
            piece = BoardPiece(part.name, part.name, part.rough.length, part.rough.width)
            wanted.setdefault((part.species, round(part.finished.thickness, 3)), []).append(piece)
    found = []
    for (species, thickness), pieces in sorted(wanted.items(), key=lambda each: (-each[0][1], each[0][0])):
        stock = [BoardStock("sheet", SHEET_LENGTH, SHEET_WIDTH)]
        plan = plan_boards(pieces, stock, kerf=ctx.rules.kerf.value, end_trim=0.0)
        found.append(ThicknessGroup(species, thickness, plan))
    if found:
        count = sum(len(group.plan.boards) for group in found)
        kerf = ctx.rule("kerf", "saw kerf")
        ctx.figures.derived(
            "sheets",
            "sheets",
            count,
            kerf,
            formula=f"counted; {ctx.show.size(SHEET_LENGTH, SHEET_WIDTH)} each",
            unit=Unit.COUNT,
        )
        least = sum(group.plan.least_boards for group in found)
        ctx.figures.derived(
            "least_sheets",
            "sheets, at the least",
            least,
            kerf,
            formula="parts with their kerfs, against whole sheets",
            unit=Unit.COUNT,
        )
    return tuple(found)


def _of(rack: tuple[Board, ...], species: str) -> list[Board]:
    return [board for board in rack if board.species in (None, species) and not board.forbidden]


def boards_for(rack: Sequence[Board], species: str, rough: float) -> list[tuple[int, Board]]:
    """Return the boards, with their places on the rack, that a part so thick is cut out of.

    Those just thick enough, the thinnest first, and those a little over, for no two are sawn alike.

    Args:
        rack: The boards of the rack, in their order.
        species: Key of its species or sheet.
        rough: Sawn thickness of the part, mm.
    """
    thick = [
        (at, each)
        for at, each in enumerate(rack)
        if each.species in (None, species) and not each.forbidden and each.thickness >= rough - 1e-6
    ]
    least = min((each.thickness for _, each in thick), default=0.0)
    return sorted(
        (each for each in thick if each[1].thickness <= least + SAWN_ALIKE), key=lambda each: each[1].thickness
    )


def board_at(name: str) -> int:
    """Return which board of the rack a stock of the plan is, or is a clear length of.

    Args:
        name: Its name.
    """
    return int(name.partition("/")[0])


def _clear(at: int, board: Board) -> list[BoardStock]:
    """Return a board for the quick plan of one leaf.

    Whole, or in the lengths that its defects leave, those along its edges ripped off. The plan of the whole job
    goes round each defect.
    """
    width = board.width - board.crook
    marks = [mark for mark in board.marks if mark.rank < 2]
    edges = [mark for mark in marks if mark.length > ALONG * board.length]
    low = max((mark.y + mark.width for mark in edges if mark.y < width / 2 - mark.width), default=0.0)
    high = min((mark.y for mark in edges if mark.y >= width / 2), default=width)
    spans, x = [], 0.0
    for mark in sorted((each for each in marks if each not in edges), key=lambda each: each.x):
        if mark.x - x >= SHORTEST:
            spans.append(mark.x - x)
        x = max(x, mark.x + mark.length)
    if board.length - x >= SHORTEST:
        spans.append(board.length - x)
    if not marks:
        return [BoardStock(str(at), board.length, width, board.quantity, board.price)]
    whole = board.length
    return [
        BoardStock(
            f"{at}/{n}",
            span,
            max(high - low, 20.0),
            board.quantity,
            None if board.price is None else board.price * span / whole,
        )
        for n, span in enumerate(spans)
    ]


def pieces_of(part: Part, widest: float, joint: float, planing: float) -> list[BoardPiece]:
    """Return the part as one piece, or a panel wider than any board as strips to be glued up.

    Each strip takes its share of the planed width and the allowance for shooting its two edges.

    Args:
        part: The part.
        widest: The widest piece that there is, mm.
        joint: What shooting one glue joint takes, mm.
        planing: What planing takes off both faces, mm.
    """
    if part.role is not Role.PANEL or part.rough.width <= widest:
        return [BoardPiece(part.name, part.name, part.rough.length, part.rough.width)]
    net = part.rough.width - planing
    count = max(2, math.ceil(net / max(widest - joint, 1.0)))
    width = net / count + joint
    return [
        BoardPiece(f"{part.name}, strip {at + 1} of {count}", part.name, part.rough.length, width)
        for at in range(count)
    ]


def _report(
    ctx: Context,
    groups: tuple[ThicknessGroup, ...],
    used: dict[int, int],
    homeless: list[Part],
    rack: tuple[Board, ...],
    sheets: tuple[ThicknessGroup, ...],
) -> LeafPlan:
    boards = sum(len(group.plan.boards) for group in groups)
    least = sum(group.plan.least_boards for group in groups)
    taken = sum(group.plan.area_used for group in groups)
    cut = sum(group.plan.area_of_pieces for group in groups)
    f = ctx.figures
    parts_area, board_area = (
        f.given(figure_name(name), f"{words}, seen from the face", mm2 / MM2_PER_M2, FIXED, unit=Unit.M2)
        for name, words, mm2 in (("area_parts", "rough parts", cut), ("area_boards", "boards taken", taken))
    )
    percent = 100 * cut / taken if taken else 0.0
    f.derived(
        "yield",
        "yield",
        percent,
        parts_area,
        board_area,
        formula="rough parts ÷ boards, whole boards counted",
        unit=Unit.PERCENT,
    )
    kerf = ctx.rule("kerf", "saw kerf")
    trim = ctx.rule("end_trim", "trimmed off each end of a board")
    count = f.derived("boards", "boards", boards, kerf, trim, formula="counted on the plan", unit=Unit.COUNT)
    f.derived(
        "least_boards",
        "boards, at the least",
        least,
        parts_area,
        kerf,
        trim,
        formula="parts with their kerfs, against the largest boards on the rack",
        unit=Unit.COUNT,
    )
    _no_board(ctx, homeless, rack)
    _judge(ctx, (*groups, *sheets), boards, least, percent)
    _say_sheets(ctx, sheets)
    return LeafPlan(
        (*groups, *sheets), used, int(count.value), least, percent, sum(len(group.plan.boards) for group in sheets)
    )


def _say_sheets(ctx: Context, sheets: tuple[ThicknessGroup, ...]) -> None:
    """Say how many sheets it takes, where all fits."""
    if sheets and not any(group.plan.unplaced for group in sheets):
        number, bound = ctx.figures["sheets"].value, ctx.figures["least_sheets"].value
        words = "fewer is not possible" if number <= bound else f"{bound:.0f} is the least that could be"
        ctx.fine(
            "sheets",
            f"{counted(round(number), 'sheet')}; {words}",
            "Of each thickness whole sheets are counted.",
            grounds=Grounds("sheets"),
        )


def _no_board(ctx: Context, homeless: list[Part], rack: tuple[Board, ...]) -> None:
    """Say for which parts no board is thick enough."""
    for part in homeless:
        thickest = max((board.thickness for board in _of(rack, part.species)), default=0.0)
        ctx.stop(
            f"no-board-{part.slug}",
            f"No board is thick enough for the {part.name}",
            f"It needs {ctx.fmt(part.rough.thickness)} rough; the thickest on the rack is {ctx.fmt(thickest)}.",
            Remedy("Put thicker boards on the rack, or build thinner"),
            grounds=Grounds(where=f"part:{part.name}"),
        )


def _judge(ctx: Context, groups: tuple[ThicknessGroup, ...], boards: int, least: int, percent: float) -> None:
    unplaced = [piece for group in groups for piece in group.plan.unplaced]
    said: set[str] = set()
    for group in groups:
        for piece in group.plan.unplaced:
            if piece.name in said:  # the same part of another leaf of a pair or a run
                continue
            said.add(piece.name)
            ctx.stop(
                f"unplaced-{piece.name.replace(' ', '-').replace(',', '')}",
                f"No board is left for the {piece.name}",
                f"It needs {ctx.show.size(piece.length, piece.width)} rough of {ctx.fmt(group.thickness)} board.",
                Remedy("Longer, wider or more boards"),
                grounds=Grounds("boards", f"part:{piece.part}"),
            )
    if unplaced or not boards:
        return
    share = ctx.show.value(percent, Unit.PERCENT)
    if boards <= least:
        ctx.fine(
            "boards",
            f"{counted(boards, 'board')}; fewer is not possible",
            f"{share} of them goes into rough parts.",
            grounds=Grounds("yield", rule="bound by area and by size of the parts"),
        )
    else:
        ctx.fine(
            "boards",
            f"{boards} boards; {least} is the least that could be",
            f"{share} of them goes into rough parts. The plan is a quick one and is not proven best.",
            grounds=Grounds("yield", rule="bound by area and by size of the parts"),
        )
