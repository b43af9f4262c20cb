"""What holds the boards of a boarded leaf: to its ledges, and two layers to one another.

Source: common practice of the trade.
"""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.boarded import checks
from oakmeasure.core.construction.boarded.model import Boarded, FixedBy
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import fixed, plus
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Fixing, Part
from oakmeasure.core.leaf.part_factory import CLENCH, SCREW_SHORT_OF, nail_for, screw_for

NAIL_IN = 15.0  # of the nails that hold two layers, from head and foot: common practice, no source
WIDE_BOARD = 120.0  # one of whose two fixings is slotted: common practice, no source


def fix_boards(ctx: Context, choice: Boarded, parts: list[Part], ledges: list[Part]) -> list[Fixing]:
    """Two fixings to each board and ledge, 19 from its joints; of a wide board one is slotted.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the boarded leaf.
        parts: The parts so far.
        ledges: The ledges, the lowest first.
    """
    f, found = ctx.figures, []
    board = f.given("boards_thick", "boards, thickness", choice.panel_thickness, fixed("build.board_thickness"))
    ledge = f.given("ledge_thick", "ledge, thickness", choice.ledge_thickness, fixed("build.ledge_thickness"))
    stack = f.total("fixing_stack", "boards and ledge together", plus(board), plus(ledge))
    if choice.fixed_by is FixedBy.NAILS:
        length = nail_for(stack.value)
        how = f"the whole and {ctx.fmt(CLENCH)} to bend over"
    else:
        length = screw_for(stack.value) or 0.0
        how = f"the longest that stays {ctx.fmt(SCREW_SHORT_OF)} short of the far face"
    figure = f.derived("fixing_length", f"{choice.fixed_by}, length", length, stack, formula=how)
    # Nails from the front, clenched behind; screws through the ledge from behind.
    depth = (0.0, stack.value) if choice.fixed_by is FixedBy.NAILS else (stack.value - length, stack.value)
    boards = [each for each in parts if each.role is Role.BOARD and not each.is_back]
    for each in ledges:
        for at in boards:
            low, high = max(at.face.x0, each.face.x0), min(at.face.x1, each.face.x1)
            places = [low + checks.FROM_JOINT, high - checks.FROM_JOINT]
            if high - low < 2 * checks.FROM_JOINT:
                places = [(low + high) / 2]
            rise = each.face.height / 4
            middle = (each.face.y0 + each.face.y1) / 2
            for number, x in enumerate(places):
                slotted = number == 1 and at.face.width > WIDE_BOARD and choice.fixed_by is FixedBy.SCREWS
                y = middle - rise if number == 0 else middle + rise
                found.append(Fixing(x, y, figure.value, str(choice.fixed_by), slotted, f"part:{at.name}", depth))
    if choice.double:
        found += _layers_nailed(ctx, choice, boards)
    f.derived(
        "fixings_count",
        f"{choice.fixed_by}, how many",
        len(found),
        f["boards_count"],
        formula="two to each board and ledge",
        unit=Unit.COUNT,
    )
    return found


def _layers_nailed(ctx: Context, choice: Boarded, boards: list[Part]) -> list[Fixing]:
    """Two layers of boards are nailed to one another at head and foot, through both."""
    long, found = (
        ctx.figures.given(
            "layer_nail",
            "nails through both layers, length",
            2 * choice.board_thickness,
            fixed(source="both layers: common practice"),
        ),
        [],
    )
    for at in boards:
        for y in (NAIL_IN, at.face.y1 - NAIL_IN):
            x = (at.face.x0 + at.face.x1) / 2
            found.append(Fixing(x, y, long.value, "nails", False, f"part:{at.name}", (0.0, long.value)))
    return found
