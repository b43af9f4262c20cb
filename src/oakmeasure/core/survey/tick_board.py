"""The opening from a template by ticks: points to sides, sides to corners, and what became of every tick."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import lru_cache

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.matrices import Matrix
from oakmeasure.core.document.readings import TickTemplate
from oakmeasure.core.survey.grouping import grouped
from oakmeasure.core.survey.ticks import OUTLIER, Curve, Round, SideFit, Straight, fit_side, meeting, point_of, refitted

CURVED_SIDE = 3  # the head, where it is curved
GROSS = 6.0  # times a tick's uncertainty, by which a wrong one misses for the squarest line to be looked for


class TickStatus(StrEnum):
    """What became of a tick."""

    USED = "used"
    SET_ASIDE = "set aside"
    UNDECIDED = "undecided"
    EXCLUDED = "taken out"


@dataclass(frozen=True, slots=True)
class JudgedTick:
    """A tick with the side that it lies on."""

    point: Point
    """On the board, mm."""
    side: int
    """1 the floor, round to the hinge side."""
    miss: float
    """Off that side, mm."""
    status: TickStatus
    """What is made of it."""
    nearer: int = 0
    """Another side that it lies on, where it does not lie on the one it was named for; 0 for none."""


@dataclass(frozen=True, slots=True)
class TemplateFit:
    """The opening's sides, laid through the ticks of a template."""

    ticks: tuple[JudgedTick, ...]
    """Each tick, judged."""
    sides: tuple[SideFit, ...]
    """Each side through its ticks."""
    corners: tuple[Point, ...]
    """On the board, mm, from the hinge side's foot round anticlockwise."""
    covariance: Matrix
    """Of the corners after the first, relative to it."""
    check: Point | None
    """The point of the check reading."""
    check_miss: float | None
    """From it to the fitted corner, mm."""
    decided_by_check: tuple[int, ...]
    """Sides on which only the check reading told which tick is wrong; it is then no check any more."""


def side_names(sides: int) -> tuple[str, ...]:
    """Return what the sides are called, the floor first.

    Args:
        sides: How many sides there are.
    """
    if sides == 3:
        return ("floor", "latch side", "hinge side")
    heads = ("head",) if sides == 4 else tuple(f"head {at}" for at in range(1, sides - 2))
    return ("floor", "latch side", *heads, "hinge side")


@lru_cache(maxsize=32)
def fit_template(template: TickTemplate, tick_sigma: float) -> TemplateFit:
    """Return the sides and corners that the ticks make, each tick judged.

    Args:
        template: The board with its ticks.
        tick_sigma: Standard uncertainty of a tick across its side, mm.

    Raises:
        InputError: Where a side has too few points, or sides do not close to an outline.
    """
    points = [point_of(each, template.stick.value) for each in template.ticks]
    live = [at for at, each in enumerate(template.ticks) if not each.excluded]
    n = template.sides
    side_of = dict(zip(live, _sides(template, [points[at] for at in live], live, tick_sigma), strict=True))
    members = [[at for at in live if side_of[at] == side] for side in range(1, n + 1)]
    fits = [_fit_side(template, side, [points[at] for at in members[side - 1]], tick_sigma) for side in range(1, n + 1)]
    check = point_of(template.check, template.stick.value) if template.check is not None else None
    decided: tuple[int, ...] = ()
    if check is not None:
        decided = _let_check_decide(template, fits, members, points, check, tick_sigma)
    _take_squarest(template, fits, members, points, tick_sigma)
    curves = [each.curve for each in fits]
    corners = _corners(curves, _middle(points))
    miss = None if check is None else math.dist(check, corners[template.check_corner % n])
    judged = _judge(template, points, side_of, members, fits, tick_sigma)
    return TemplateFit(judged, tuple(fits), corners, _covariance(fits, members, points), check, miss, decided)


def _sides(template: TickTemplate, points: Sequence[Point], live: Sequence[int], sigma: float) -> Sequence[int]:
    named = [template.ticks[at].side for at in live]
    if all(each is not None for each in named):
        return [each for each in named if each is not None]
    return grouped(
        points, sides=template.sides, curved_head=_is_curved(template, CURVED_SIDE), tick_sigma=sigma, named=named
    )


def _is_curved(template: TickTemplate, side: int) -> bool:
    return template.head == "curved" and template.sides == 4 and side == CURVED_SIDE


def _fit_side(template: TickTemplate, side: int, points: Sequence[Point], sigma: float) -> SideFit:
    try:
        return fit_side(points, tick_sigma=sigma, curved=_is_curved(template, side))
    except InputError as error:
        name = side_names(template.sides)[side - 1]
        raise InputError("ticks", f"{len(points)} on the {name}", f"{error.need}, on the {name}") from None


def _let_check_decide(
    template: TickTemplate,
    fits: list[SideFit],
    members: Sequence[Sequence[int]],
    points: Sequence[Point],
    check: Point,
    sigma: float,
) -> tuple[int, ...]:
    """Where a side cannot tell which of its ticks is wrong, and the check corner lies on it, take what the corner says.

    Only if exactly one of the rivals brings the corner to the check reading.
    """
    n = template.sides
    touching = [template.check_corner, template.check_corner % n + 1]
    open_sides = [side for side in touching if fits[side - 1].rivals]
    if len(open_sides) != 1:
        return ()
    side = open_sides[0]
    fit, own = fits[side - 1], [points[at] for at in members[side - 1]]
    agreeing = []
    for kept in (fit.kept, *fit.rivals):
        one = refitted(own, kept, tick_sigma=sigma, curved=_is_curved(template, side))
        if abs(one.curve.miss(check)) <= OUTLIER * sigma * 1.5:
            agreeing.append(one)
    if len(agreeing) != 1:
        return ()
    fits[side - 1] = replace(agreeing[0], rivals=())
    return (side,)


def _take_squarest(
    template: TickTemplate, fits: list[SideFit], members: Sequence[Sequence[int]], points: Sequence[Point], sigma: float
) -> None:
    """Where a side cannot tell which of its ticks is wrong, go on with the line that stands squarest to its neighbours.

    Openings are out of square by a few millimetres, and a wrong tick throws a line by more: until another tick decides,
    that is the likeliest. It stays undecided, and is said to be. Common practice, no source.
    """
    for side in range(1, template.sides + 1):
        fit = fits[side - 1]
        beside = [fits[(side - 1 + step) % template.sides].curve for step in (-1, 1)]
        if (
            template.sides != 4
            or not fit.rivals
            or not all(isinstance(each, Straight) for each in (fit.curve, *beside))
        ):
            continue
        if max(map(abs, fit.misses)) < GROSS * sigma:
            continue  # they hardly differ
        own = [points[at] for at in members[side - 1]]

        def askew(kept: tuple[bool, ...], own: list[Point] = own, beside: list[Curve] = beside) -> float:
            line = refitted(own, kept, tick_sigma=sigma, curved=False).curve
            return sum(
                abs(line.a * each.a + line.b * each.b)
                for each in beside
                if isinstance(line, Straight) and isinstance(each, Straight)
            )

        every = (fit.kept, *fit.rivals)
        best = min(every, key=askew)
        others = tuple(each for each in every if each != best)
        fits[side - 1] = refitted(own, best, tick_sigma=sigma, curved=False, rivals=others)


def _middle(points: Sequence[Point]) -> Point:
    return sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points)


def _corners(curves: Sequence[Curve], middle: Point) -> tuple[Point, ...]:
    """Return where each side meets the one before it; a straight side that meets an arch does so at its own end."""
    corners = []
    for at, curve in enumerate(curves):
        before = curves[at - 1]
        near = middle
        if isinstance(curve, Round) or isinstance(before, Round):
            # An arch meets a side twice: the springing is the place on the side's own half, above the middle.
            line = curve if isinstance(curve, Straight) else before
            assert isinstance(line, Straight)
            near = _foot(line, (middle[0], middle[1] + abs(line.miss(middle))))
        corners.append(meeting(before, curve, near))
    return tuple(corners)


def _foot(line: Straight, point: Point) -> Point:
    off = line.miss(point)
    return point[0] - off * line.a, point[1] - off * line.b


def _judge(
    template: TickTemplate,
    points: Sequence[Point],
    side_of: dict[int, int],
    members: Sequence[Sequence[int]],
    fits: Sequence[SideFit],
    sigma: float,
) -> tuple[JudgedTick, ...]:
    judged = []
    for at, point in enumerate(points):
        if at not in side_of:
            side = min(range(len(fits)), key=lambda each: abs(fits[each].curve.miss(point))) + 1
            judged.append(JudgedTick(point, side, fits[side - 1].curve.miss(point), TickStatus.EXCLUDED))
            continue
        side = side_of[at]
        fit = fits[side - 1]
        here = members[side - 1].index(at)
        miss = fit.curve.miss(point)
        status = TickStatus.USED if fit.kept[here] else TickStatus.SET_ASIDE
        if fit.rivals and any(not kept[here] for kept in (fit.kept, *fit.rivals)):
            status = TickStatus.UNDECIDED
        nearer = 0
        if status is TickStatus.SET_ASIDE:
            others = [one for one in range(1, len(fits) + 1) if one != side]
            best = min(others, key=lambda one: abs(fits[one - 1].curve.miss(point)))
            if abs(fits[best - 1].curve.miss(point)) <= OUTLIER * sigma < abs(miss) / 4:
                nearer = best
        judged.append(JudgedTick(point, side, miss, status, nearer))
    return tuple(judged)


def _covariance(fits: Sequence[SideFit], members: Sequence[Sequence[int]], points: Sequence[Point]) -> Matrix:
    """Return the covariance of the corners after the first, relative to it.

    Each side may shift and turn by its standard errors; corners follow. An arch only shifts: its springing is fixed by
    the sides.
    """
    base = _flat(_corners([each.curve for each in fits], _middle(points)))
    size = len(base)
    result = [[0.0] * size for _ in range(size)]
    for at, fit in enumerate(fits):
        own = [points[each] for each, kept in zip(members[at], fit.kept, strict=True) if kept]
        for moved, sigma in _freedoms(fit, own):
            curves = [moved if other == at else each.curve for other, each in enumerate(fits)]
            change = [a - b for a, b in zip(_flat(_corners(curves, _middle(points))), base, strict=True)]
            for i in range(size):
                for j in range(size):
                    result[i][j] += change[i] * change[j] * sigma**2
    return result


def _freedoms(fit: SideFit, own: Sequence[Point]) -> list[tuple[Curve, float]]:
    """Return the side moved by 1 mm with the error of its place, turned by 1 mm per m with that of its direction."""
    curve = fit.curve
    if isinstance(curve, Round):
        return [(Round(curve.x, curve.y, curve.radius + 1.0), fit.sigma)]
    mx, my = _middle(own)
    along = [-curve.b * (x - mx) + curve.a * (y - my) for x, y in own]
    spread = math.sqrt(sum(each**2 for each in along)) or 1.0
    turn = 1e-3
    a, b = curve.a - turn * curve.b, curve.b + turn * curve.a
    turned = Straight(a, b, a * mx + b * my)
    per_turn = fit.sigma * math.sqrt(len(own)) / spread / turn
    return [(Straight(curve.a, curve.b, curve.c + 1.0), fit.sigma), (turned, per_turn)]


def _flat(corners: Sequence[Point]) -> list[float]:
    (ox, oy), *rest = corners
    return [each for x, y in rest for each in (x - ox, y - oy)]
