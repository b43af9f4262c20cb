"""Cup hinges: overlay, boring, plate, crank and reach, any one from the others; places on leaf and cabinet; depth.

overlay = reach − crank + boring − plate; middle of the cup = boring + 17.5; an inset leaf has its gap as an overlay
less than 0. Sources: the hinge's own sheet; common practice of the trade.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.prisms import bore
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.cup_hinges import CupChoices, CupHinge, CupUnknown
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import FIXED, Figure, Term, derived, fixed, minus, plus, total
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.frame import Frame, add_head_gap
from oakmeasure.core.fit.swing.cup_clearance import least_reveal
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutIn, CutSide, Datum
from oakmeasure.core.hardware.hinges import cup_checks as checks
from oakmeasure.core.hardware.hinges.mortise_depth import SIGNS
from oakmeasure.core.hardware.locks.mortise_locks import name_at, wood_there
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Rect

USUAL_CRANK = {Hanging.OVERLAY: 0.0, Hanging.HALF_OVERLAY: 9.0, Hanging.INSET: 18.0}  # common practice, no source
HOLES = 16.0  # of a plate, from its middle up and down
# Of the holes in leaf and side: common practice, no source
DOWEL_DEEP = 11.0
PILOT_DEEP = 10.0


@dataclass(frozen=True, slots=True)
class CupPlace:
    """One cup."""

    number: int
    """Its number, from 1."""
    top: Figure
    """Its middle down from the leaf's top."""
    plate: Figure
    """Its plate's middle down from the opening's edge."""
    rect: Rect
    """The rectangle that it takes up, mm in the leaf."""


@dataclass(frozen=True, slots=True)
class Cups:
    """The cup hinges of a leaf, from the top down."""

    places: tuple[CupPlace, ...]
    """Where they stand, from the top."""
    over: Figure
    """Overlay at the hinge side, less than 0 for inset."""
    boring: Figure
    """From the leaf's edge to the cup's edge, mm."""
    centre: Figure
    """From the leaf's edge to the cup's middle, mm."""
    plate_back: Figure
    """From the side's front edge to the plate's holes, mm."""
    reveal: Figure | None
    """The least reveal, mm; None where it is not known."""
    borings: tuple[Boring, ...]
    """What is cut for them, in the leaf and in what carries it."""


CUP_STEP = 0.5  # mm, of a depth stop
CUP_KEEPS = 2.0  # mm of wood that is kept under a cup
CUP_LESS_MOST = 1.0  # mm that a cup may stand shallower


def cup_count(*, height: float, mass: float) -> int | None:
    """Return how many cup hinges a leaf of at most 600 width needs; None where it is too high or too heavy for any.

    Args:
        height: Height, mm.
        mass: Of the leaf, kg.

    >>> cup_count(height=720, mass=5), cup_count(height=720, mass=7), cup_count(height=2500, mass=5)
    (2, 3, None)
    """
    return next((count for high, heavy, count in checks.COUNTS if height <= high and mass <= heavy), None)


# --- before the leaf is fitted -----------------------------------------------------------------------------


def add_cup_figures(ctx: Context) -> None:
    """Add the hinge's own figures, and the overlay where it is the one that is sought: the leaf's size rests on it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    leaf = ctx.leaf
    if not leaf.hanging.is_cabinet or leaf.hanging.has_butts:
        return
    choice = leaf.hardware.cup
    at = f"“{choice.hinge.name}”, {choice.hinge.source}"
    if choice.unknown is not CupUnknown.REACH:
        ctx.reading("cup_reach", "reach of the hinge", choice.hinge.reach, "hardware.cup.hinge.reach", at)
    ctx.reading("cup_depth", "cup, depth", choice.hinge.cup_depth, "hardware.cup.hinge.cup_depth", at)
    for name, label in (("boring", "leaf's edge to the cup"), ("plate", "plate, height")):
        if str(choice.unknown) != name:
            ctx.chosen(figure_name(f"cup_{name}"), label, getattr(choice, name), f"hardware.cup.{name}")
    if choice.unknown is not CupUnknown.CRANK:
        usual = USUAL_CRANK.get(leaf.hanging, 0.0)
        value, source = (usual, "usual for this way of hanging") if choice.crank is None else (choice.crank, "")
        ctx.figures.given("cup_crank", "crank of the arm", value, fixed("hardware.cup.crank", source=source))
    if choice.unknown is CupUnknown.OVERLAY and leaf.hanging is Hanging.OVERLAY:
        ctx.figures.total("overlay", "overlay that these hinges give", *_terms(ctx, "overlay"))


def _terms(ctx: Context, unknown: str) -> list[Term]:
    """Return the sum that the unknown figure is."""
    turn = -SIGNS[unknown]
    return [
        plus(ctx.figures[figure_name(f"cup_{name}")], turn * sign) for name, sign in SIGNS.items() if name != unknown
    ]


def settle(ctx: Context) -> None:
    """Add the overlay as the hinges see it, and the figure that is sought; the swing rests on the boring.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice, f = ctx.leaf.hardware.cup, ctx.figures
    _over(ctx)
    solved = "" if choice.unknown is CupUnknown.OVERLAY else str(choice.unknown).partition(",")[0]
    if solved:
        labels = {
            "boring": "leaf's edge to the cup",
            "crank": "crank of the arm that is wanted",
            "plate": "plate that is wanted, height",
            "reach": "reach of the hinge, from the mock-up",
        }
        f.total(
            figure_name(f"cup_{solved}"),
            labels[solved],
            *_terms(ctx, solved),
            source="overlay = reach − crank + boring − plate",
        )


# --- on the finished leaf ----------------------------------------------------------------------------------


def hang_on_cups(ctx: Context, fit: Fit, frame: Frame, body: Body, mass: Figure) -> Cups:
    """Place the cups on leaf and cabinet, and judge it all; `settle` has solved what is sought.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        frame: What the leaf hangs in.
        body: The leaf's pieces in place.
        mass: Of the leaf, kg.
    """
    choice, f = ctx.leaf.hardware.cup, ctx.figures
    over = f["cup_overlay"]
    radius = f.given("cup_radius", "half of the cup", checks.CUP / 2, FIXED)
    centre = f.total("cup_centre", "leaf's edge to the cup's middle", plus(f["cup_boring"]), plus(radius))
    off = f.given(
        "cup_pattern",
        "screw line beyond the cup's middle",
        choice.hinge.pattern_off,
        fixed(source=f"pattern {ctx.show.size(choice.hinge.pattern_apart, choice.hinge.pattern_off)}"),
    )
    f.total("cup_screws", "leaf's edge to the screw line", plus(centre), plus(off))
    point = ctx.chosen("cup_point", "cutter's point beyond the cup", choice.point, "hardware.cup.point")
    add_head_gap(ctx, frame, "hinge")
    places = _places(ctx, choice, (fit, frame), mass, centre)
    wood = _wood_at(ctx, body, places)
    bored = bored_depth(ctx, wood, point.value)
    f.total("cup_left", "wood left under cup and point", plus(wood), minus(bored), minus(point))
    back = _plate_back(ctx, choice)
    reveal = _reveal(ctx, choice.hinge)
    checks.judge(ctx, choice, over, body.build, cup_count(height=fit.height.value, mass=mass.value), mass)
    return Cups(places, over, f["cup_boring"], centre, back, reveal, _borings(ctx, places, body, centre, back))


def _over(ctx: Context) -> Figure:
    """Add the overlay at the hinge side as the hinges see it; the gap of an inset leaf counts less than nothing."""
    f, hanging = ctx.figures, ctx.leaf.hanging
    if hanging is Hanging.INSET:
        return f.total("cup_overlay", "overlay at the hinges (inset: less than 0)", plus(f["gap_hinge"], -1.0))
    name = "overlay_shared" if "overlay_shared" in f else "overlay"
    return f.total("cup_overlay", "overlay at the hinges", plus(f[figure_name(name)]))


def _places(
    ctx: Context, choice: CupChoices, where: tuple[Fit, Frame], mass: Figure, centre: Figure
) -> tuple[CupPlace, ...]:
    """Return the cups' places; where: the leaf as high as its hinge edge is, and what it hangs in."""
    (fit, frame), f = where, ctx.figures
    height = fit.height
    by_rule = cup_count(height=height.value, mass=mass.value) or checks.COUNTS[-1][2]
    count = f.derived(
        "cup_count",
        "cup hinges",
        choice.count or by_rule,
        height,
        mass,
        formula="set by hand" if choice.count else "; ".join(checks.up_to(ctx, row) for row in checks.COUNTS),
        source="common practice",
        unit=Unit.COUNT,
    )
    first = ctx.chosen("cup_first", "top cup, from the leaf's top", choice.first, "hardware.cup.first")
    last = (
        first
        if choice.last is None
        else ctx.chosen("cup_last", "bottom cup, from the foot", choice.last, "hardware.cup.last")
    )
    n, found = int(count.value), []
    for at in range(n):
        name, label = f"cup_{at + 1}", f"cup {at + 1}, its middle down from the leaf's top"
        if at == 0:
            top = total(figure_name(name), label, plus(first))
        elif at == n - 1:
            top = total(figure_name(name), label, plus(height), minus(last))
        else:
            value = first.value + at * (height.value - first.value - last.value) / (n - 1)
            top = derived(
                figure_name(name), label, value, height, first, last, formula="equal spaces between the others"
            )
        f.add(top)
        y, x = height.value - top.value, centre.value
        plate = f.derived(
            figure_name(f"{name}_plate"),
            f"plate {at + 1}, its middle down from the opening's upper edge, at the hinge side",
            frame.carried("hinge", y),
            top,
            f["head_gap_hinge"],
            formula="down the leaf + from the leaf up to that edge; less, where it lies over it",
        )
        half = checks.CUP / 2
        found.append(CupPlace(at + 1, top, plate, Rect(x - half, y - half, x + half, y + half)))
    return tuple(found)


def _plate_back(ctx: Context, choice: CupChoices) -> Figure:
    """Add how far the plate's holes stand back from the front edge; an inset leaf's thickness comes on top."""
    front = ctx.chosen(
        "plate_front", "plate's holes from the front edge", choice.plate_front, "hardware.cup.plate_front"
    )
    if ctx.leaf.hanging is not Hanging.INSET:
        return ctx.figures.total("plate_back", "plate's holes, back from the front edge", plus(front))
    thickness = ctx.figures["thickness"]
    ctx.figures.total("stop_back", "stop set back from the front edge", plus(thickness))
    return ctx.figures.total("plate_back", "plate's holes, back from the front edge", plus(front), plus(thickness))


def _reveal(ctx: Context, hinge: CupHinge) -> Figure | None:
    """Add the least reveal by the hinge's table, and what there is."""
    f = ctx.figures
    value = least_reveal(hinge.reveal, thickness=f["thickness"].value, boring=f["cup_boring"].value)
    if value is None:
        return None
    needed = f.derived(
        "cup_reveal",
        "least reveal, leaf to its neighbour",
        value,
        f["thickness"],
        f["cup_boring"],
        formula="between the rows of the hinge's own table",
        source=hinge.source,
    )
    side = ctx.leaf.cabinet.side
    if ctx.leaf.hanging is Hanging.OVERLAY:
        wall = f.given("side", "side of the cabinet, thickness", side, fixed("cabinet.side"))
        f.total("side_shown", "side that stays in sight", plus(wall), minus(f["overlay"]))
        f.total("cup_room_needed", "side that overlay and reveal take", plus(f["overlay"]), plus(needed))
    return needed


def _wood_at(ctx: Context, body: Body, places: tuple[CupPlace, ...]) -> Figure:
    """Return how thick the leaf is where it is thinnest under a cup: as at its edges, or what is there."""
    thickness = ctx.figures["thickness"]
    spans = [body.span_over(place.rect) for place in places]
    _judge_flat(ctx, body, places)
    least = min((span[1] - span[0] if span is not None else 0.0 for span in spans), default=thickness.value)
    return wood_there(ctx, "cup_wood", "leaf, thickness under the cups", least)


def _judge_flat(ctx: Context, body: Body, places: tuple[CupPlace, ...]) -> None:
    """Stop a cup whose hinge would lie half on a ledge or a batten: from cup to screws the face must be level."""
    f, half = ctx.figures, ctx.leaf.hardware.cup.hinge.pattern_apart / 2
    for place in places:
        y = (place.rect.y0 + place.rect.y1) / 2
        xs = (f["cup_boring"].value + 1.0, f["cup_screws"].value + checks.DOWEL / 2)
        met = [span for x in xs for at in (-half, 0.0, half) if (span := body.span_at(x, y + at)) is not None]
        if met and max(back for _, back in met) - min(back for _, back in met) > HAIR:
            ctx.stop(
                "cup-step",
                f"Cup {place.number} lies across a step",
                "Part of its hinge would stand on a ledge or a batten, part beside it.",
                Remedy("Move the cup, or the ledge"),
                grounds=Grounds(figure_name(f"cup_{place.number}"), f"cup:{place.number}"),
            )


def _borings(
    ctx: Context, places: tuple[CupPlace, ...], body: Body, centre: Figure, plate_back: Figure
) -> tuple[Boring, ...]:
    f, found = ctx.figures, []
    deep = f["cup_bored" if "cup_bored" in f else "cup_depth"].value
    members: dict[int, tuple[str, float]] = {}
    for place in places:
        y = (place.rect.y0 + place.rect.y1) / 2
        middle = body.out_at("hinge", y) + centre.value
        met = body.through(middle, y)
        name, thick = (met[-1].piece.name, met[-1].depth[1]) if met else ("the leaf", f["thickness"].value)
        members[place.number] = name, thick
        found.append(
            Boring(
                BoringKind.CUP,
                CutIn.LEAF,
                name,
                CutSide.CLOSING_AT_HINGE,
                Datum.LEAF_TOP,
                place.top.value - checks.CUP / 2,
                checks.CUP,
                centre.value,
                deep,
                bore(middle, y, checks.CUP, (thick - deep, thick)),
                number=place.number,
            )
        )
    hinge, dowels = ctx.leaf.hardware.cup.hinge, ctx.leaf.hardware.cup.dowels
    hole, deep = (checks.DOWEL, DOWEL_DEEP) if dowels else (checks.PILOT, PILOT_DEEP)
    back = f["cup_screws"].value
    for place in places:
        x = body.out_at("hinge", (place.rect.y0 + place.rect.y1) / 2) + back
        _, thick = members[place.number]
        for at, off in enumerate((-hinge.pattern_apart / 2, hinge.pattern_apart / 2), start=1):
            y = (place.rect.y0 + place.rect.y1) / 2 - off
            found.append(
                Boring(
                    BoringKind.CUP_DOWEL if dowels else BoringKind.CUP_SCREW,
                    CutIn.LEAF,
                    name_at(body, (x, y, thick - deep / 2)),
                    CutSide.CLOSING_AT_HINGE,
                    Datum.LEAF_TOP,
                    place.top.value + off - hole / 2,
                    hole,
                    back,
                    deep,
                    bore(x, y, hole, (thick - deep, thick)),
                    number=place.number,
                    at=at,
                )
            )
    return (*found, *(_plate(place, plate_back.value) for place in places))


def _plate(place: CupPlace, back: float) -> Boring:
    side, inside, datum = CutIn.HINGE_SIDE, CutSide.CABINET_INSIDE, Datum.OPENING_EDGE
    start, number = place.plate.value - HOLES, place.number
    return Boring(
        BoringKind.PLATE, side, "cabinet side", inside, datum, start, 2 * HOLES, back, DOWEL_DEEP, number=number
    )


def bored_depth(ctx: Context, wood: Figure, point: float) -> Figure:
    """Return how deep a cup is bored: as its hinge has it, or less in a leaf that came out thinner.

    Then it is as much less as keeps the wood under it, in steps of 0.5 and at most 1 less.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        wood: How thick the leaf is there, mm.
        point: How far the cup's point goes beyond its bottom, mm.
    """
    cup = ctx.figures["cup_depth"]
    planned = ctx.figures.get("thickness_set_out")
    if planned is None:
        return cup
    thickness = wood
    keep = min(planned.value - cup.value - point, CUP_KEEPS)
    most = math.floor((thickness.value - point - keep) / CUP_STEP + 1e-6) * CUP_STEP
    depth = min(cup.value, max(most, cup.value - CUP_LESS_MOST))
    return ctx.figures.derived(
        "cup_bored",
        "cup, bored deep",
        depth,
        cup,
        thickness,
        planned,
        formula=f"as much less as keeps the wood under it, in steps of {ctx.fmt(CUP_STEP)}",
        source="ours",
    )
