"""How much a leaf moves through its year, and what that does to its gaps, its tongues and its flatness.

Source of the formulas: Wood Handbook, FPL-GTR-282, ch. 13, where no other is named.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.figures.check import Grounds, Remedy, Stage
from oakmeasure.core.figures.figure import FIXED, Figure, fixed, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.gap_choice import gap_that_opens
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.timber.choice import HANDBOOK, Timber
from oakmeasure.core.timber.wood import change_of_width

ALONG_GRAIN = 0.00005  # change of a length per point of moisture: handbook of the trade, from memory
TONGUE_HELD = 2.0  # of a tongue must stay in its groove: common practice, no source
GAP_FREE = 1.0  # of the two side gaps, at the wettest: common practice, no source
FINISH_COAT = 0.12  # thickness on each face: common practice, no source
BOW_SEEN = 3.0  # of a leaf; more keeps it off its stop: common practice, no source


@dataclass(frozen=True, slots=True)
class Moving:
    """A width that moves as one material."""

    width: Figure
    """How wide it is, mm."""
    coefficient: Figure
    """How much of it is gained for each point of moisture."""


def frame_movement(ctx: Context, wood: Timber, stile: Figure, coefficient: Figure | None = None) -> None:
    """Say how much a framed leaf moves: through its stiles, twice stile × C × ΔM.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        wood: Species, and moisture as made, at the driest and at the wettest.
        stile: Width of a stile, mm.
        coefficient: Movement of what it is made of; None: of the frame's timber.
    """
    moving = ctx.figures.total("moving_width", "both stiles", plus(stile, 2))
    _change(
        ctx, wood, (Moving(moving, coefficient or wood.coefficient),), "both stiles × movement × points of moisture"
    )
    _gaps(ctx.at(Stage.TIMBER), "Quarter-sawn stiles: about half")


def edges_movement(ctx: Context, wood: Timber, edges: Figure | None, sheet: Moving) -> None:
    """Say how much a leaf on sheet moves: through the solid wood at its edges, and as a sheet between them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        wood: Species, and moisture as made, at the driest and at the wettest.
        edges: All solid wood across it together, mm; None where there is none.
        sheet: What lies between.
    """
    label = "solid wood across the leaf"
    moving = (
        ctx.figures.given("moving_width", label, 0.0, FIXED)
        if edges is None
        else ctx.figures.total("moving_width", label, plus(edges))
    )
    both = (Moving(moving, wood.coefficient), sheet)
    _change(ctx, wood, both, "(solid wood × its movement + sheet × its own) × points of moisture")
    _gaps(ctx.at(Stage.TIMBER), "Quarter-sawn edges: about half")


def slab_movement(ctx: Context, wood: Timber, width: Figure, coefficient: Figure | None = None) -> None:
    """Say how much a slab moves: its whole width does.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        wood: Species, and moisture as made, at the driest and at the wettest.
        width: Width, mm.
        coefficient: Movement of what it is made of; None: of the frame's timber.
    """
    moving = ctx.figures.total("moving_width", "the whole width", plus(width))
    _change(ctx, wood, (Moving(moving, coefficient or wood.coefficient),), "width × movement × points of moisture")
    _gaps(ctx.at(Stage.TIMBER), "Quarter-sawn strips: about half")


def boards_movement(ctx: Context, wood: Timber, cover: Figure, groove: Figure | None) -> None:
    """Say how much each board moves in its joint: the gap closes when wet, the tongue draws out when dry.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        wood: Species, and moisture as made, at the driest and at the wettest.
        cover: What one board shows, mm.
        groove: Depth of the panel groove, mm; None for none.
    """
    f, gap = ctx.figures, ctx.figures["board_gap"]
    moves = {}
    for key, words, air in (("wet", "wider at the wettest", wood.wet), ("dry", "narrower at the driest", wood.dry)):
        change = change_of_width(
            width=cover.value, coefficient=wood.coefficient.value, from_moisture=wood.made.value, to_moisture=air.value
        )
        value = max(0.0, change if key == "wet" else -change)
        moves[key] = f.derived(
            figure_name(f"board_change_{key}"),
            f"a board is {words}, by",
            value,
            cover,
            wood.coefficient,
            wood.made,
            air,
            formula="cover × movement × points of moisture",
            source=f"{HANDBOOK}, ch. 13",
        )
    if moves["wet"].value > gap.value + 0.1:
        ctx.warn(
            "boards-buckle",
            "The boards will push one another when wet",
            f"Each grows {ctx.fmt(moves['wet'])}; they are fitted {ctx.fmt(gap)} apart.",
            Remedy("Fit them apart as the moisture has it", "build.gap", None),
            grounds=Grounds("board_change_wet", "part:board 1"),
        )
    else:
        ctx.fine(
            "boards-move",
            "The boards have room to swell",
            f"Each grows {ctx.fmt(moves['wet'])} and is fitted {ctx.fmt(gap)} apart.",
            grounds=Grounds("board_change_wet", "part:board 1"),
        )
    if groove is None:
        return
    _tongues(ctx, gap, moves["dry"], groove)


def _tongues(ctx: Context, gap: Figure, drier: Figure, groove: Figure) -> None:
    """Judge how much of the tongues stays in their grooves, at the driest."""
    f = ctx.figures
    opened = f.total("joint_opens", "a joint opens, at the driest", plus(gap), plus(drier))
    held = f.derived(
        "tongue_held",
        "tongue still in its groove, at the driest",
        groove.value - opened.value,
        groove,
        opened,
        formula="tongue − what the joint opens",
    )
    if held.value < TONGUE_HELD:
        ctx.warn(
            "tongue-out",
            "The tongues draw out when dry",
            f"{ctx.fmt(held)} of {ctx.fmt(groove)} stay in their grooves.",
            Remedy("Drier boards, narrower ones, or deeper grooves"),
            grounds=Grounds("tongue_held", "part:board 1", rule=f"{ctx.fmt(TONGUE_HELD)} at the least"),
        )


def _change(ctx: Context, wood: Timber, moving: Sequence[Moving], formula: str) -> None:
    """Add how much the leaf's width changes at the wettest and at the driest."""
    for key, air in (("wet", wood.wet), ("dry", wood.dry)):
        value = sum(
            change_of_width(
                width=each.width.value,
                coefficient=each.coefficient.value,
                from_moisture=wood.made.value,
                to_moisture=air.value,
            )
            for each in moving
        )
        word = "widens, at the wettest, by" if key == "wet" else "changes, at the driest, by"
        ctx.figures.derived(
            figure_name(f"leaf_change_{key}"),
            f"the leaf {word}",
            value,
            *(figure for each in moving for figure in (each.width, each.coefficient)),
            wood.made,
            air,
            formula=formula,
            source=f"{HANDBOOK}, ch. 13",
        )


def _gaps(ctx: Context, mends: str) -> None:
    """Judge whether the two side gaps take the swelling; a leaf before its opening has none to lose."""
    swell = ctx.figures["leaf_change_wet"]
    if ctx.leaf.hanging.covers or ctx.leaf.hanging.lies_on:
        ctx.fine(
            "leaf-moves",
            "The leaf has room to move",
            f"It grows {ctx.fmt(swell)} at the wettest, before its opening.",
            grounds=Grounds("leaf_change_wet"),
        )
        return
    room = gap_that_opens(ctx.figures).value + ctx.figures["gap_hinge"].value
    numbers = f"It grows {ctx.fmt(swell)} at the wettest; the two side gaps are {ctx.fmt(room)} together."
    if swell.value > room - GAP_FREE:
        ctx.warn(
            "leaf-swells",
            "The leaf may bind in wet weather",
            numbers,
            Remedy(mends, "timber.cut", "quarter-sawn"),
            grounds=Grounds("leaf_change_wet", rule=f"{ctx.fmt(GAP_FREE)} of the side gaps stays free"),
        )
    else:
        ctx.fine("leaf-moves", "The gaps take the movement", numbers, grounds=Grounds("leaf_change_wet"))


# --- what else wood does -----------------------------------------------------------------------------------


def bow_between_climates(*, height: float, thickness: float, points: float) -> float:
    """Return the bow, mm, of a leaf whose faces rest at moistures `points` apart: H²·c_L·ΔM/(8t).

    Not rounded. Source: circular arc of two strips that differ in length.

    Args:
        height: Height, mm.
        thickness: Thickness of the leaf, mm.
        points: Difference of moisture between the faces, points of %.

    >>> bow_between_climates(height=2000, thickness=40, points=4)
    2.5
    """
    return height**2 * ALONG_GRAIN * points / (8 * thickness)


def effects(ctx: Context, thickness: Figure, height: Figure) -> None:
    """Add what a finish takes off the gaps and how far two climates would bow the leaf, and judge both.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        thickness: Thickness of the leaf, mm.
        height: Height, mm.
    """
    f = ctx.figures
    coat = f.given("finish_coat", "finish, on each face", FINISH_COAT, fixed(source="common practice"))
    takes = f.total("finish_takes", "gap that the finish takes", plus(coat, 4))
    if not ctx.leaf.hanging.covers and not ctx.leaf.hanging.lies_on:
        gap = gap_that_opens(f)
        left = (
            f["gap_hinge"].value + gap.value - takes.value - max(f["leaf_change_wet"].value, 0.0)
            if ("leaf_change_wet" in f)
            else f["gap_hinge"].value + gap.value - takes.value
        )
        if left < 0.5:
            ctx.warn(
                "finish-gap",
                "The finish takes the last of the gap",
                f"{ctx.fmt(takes)} on four faces; {ctx.fmt(left)} would be left at the wettest.",
                Remedy("Plane it off before the finish, or a thinner one"),
                grounds=Grounds("finish_takes"),
            )
    points = f.total(
        "two_climates", "points between the two climates", plus(f["moisture_wet"]), plus(f["moisture_dry"], -1)
    )
    bow = bow_between_climates(height=height.value, thickness=thickness.value, points=max(points.value, 0.0))
    figure = f.derived(
        "climate_bow",
        "bow, were one face in each climate",
        bow,
        height,
        thickness,
        points,
        formula="H² × 0.00005 × points ÷ (8 × thickness)",
    )
    if ctx.leaf.timber.between_climates and figure.value > BOW_SEEN:
        ctx.warn(
            "climate-bow",
            "Between its two climates it bows",
            f"One face in the driest and one in the wettest air: {ctx.fmt(figure)} over its height.",
            Remedy("A thicker leaf, the same finish on both faces, or a lobby"),
            grounds=Grounds("climate_bow", rule=f"over {ctx.fmt(BOW_SEEN)} it leaves its stop"),
        )
