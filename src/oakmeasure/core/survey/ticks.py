"""A template by ticks: points from marks, lines and circles through them that one wrong tick does not pull.

A stick with a pointed end and one mark is laid with its point on the opening's edge; its edge is traced and its mark
ticked on a board. Each side is then fitted to its points by consensus: of all lines through two points (all circles
through three) the one that most points agree with, then least squares through those.
"""

from __future__ import annotations

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.matrices import combined, normal_matrix, solved
from oakmeasure.core.document.readings import Tick, TickForm

OUTLIER = 3.0  # times a tick's uncertainty from the line
MOST_TRIALS = 600  # pairs or triples that are tried; up to 35 points on a straight side that is all of them
# A rival consensus that explains the points nearly as well leaves it open which ticks are wrong (odds of 20 to 1).
RIVAL_WITHIN = 6.0


def tick_point(
    x: float, y: float, *, stick: float, angle_deg: float | None = None, second: Point | None = None
) -> Point:
    """Return the point that a tick stands for, mm on the board.

    With neither, x y is the point. Sensitivity: 1° is 1.7 % of the stick; a second point far from the mark is
    surer. Source: plane geometry.

    Args:
        x: Of the mark, mm along the board.
        y: Of the mark, mm across the board.
        stick: Point to mark, mm.
        angle_deg: From the mark to the point, degrees anticlockwise from the board's x.
        second: Instead, another point on the traced edge, on the point's side of the mark.

    Raises:
        InputError: For a second point that is the mark.

    >>> tick_point(10, 20, stick=250, second=(10, 120))
    (10.0, 270.0)
    """
    if second is not None:
        apart = math.dist((x, y), second)
        if apart < 1e-9:
            raise InputError("x2", second[0], "another point than the mark")
        return x + stick * (second[0] - x) / apart, y + stick * (second[1] - y) / apart
    if angle_deg is None:
        return x, y
    turn = math.radians(angle_deg)
    return x + stick * math.cos(turn), y + stick * math.sin(turn)


def point_of(tick: Tick, stick: float) -> Point:
    """Return the point that a tick stands for, mm on the board.

    Args:
        tick: The tick.
        stick: Length of the tick stick, mm.
    """
    second = (tick.x2, tick.y2) if tick.x2 is not None and tick.y2 is not None else None
    return tick_point(tick.x, tick.y, stick=stick, angle_deg=tick.angle_deg, second=second)


def rewritten(tick: Tick, stick: float, form: TickForm) -> Tick:
    """Return the tick written another way; a point alone gets a mark beside it, as if the stick had lain level.

    Args:
        tick: The tick.
        stick: Length of the tick stick, mm.
        form: How ticks are written: along and in, or as a distance from a stick.
    """
    x, y = point_of(tick, stick)
    has_mark = tick.angle_deg is not None or tick.x2 is not None
    mark = (tick.x, tick.y) if has_mark else (x - stick, y)
    written: dict[str, float | None] = {"x": mark[0], "y": mark[1], "angle_deg": None, "x2": None, "y2": None}
    if form is TickForm.POINT:
        written |= {"x": x, "y": y}
    elif form is TickForm.SECOND:
        written |= {"x2": x, "y2": y}
    else:
        written["angle_deg"] = math.degrees(math.atan2(y - mark[1], x - mark[0]))
    return tick.model_copy(update=written)


@dataclass(frozen=True, slots=True)
class Straight:
    """A line a·x + b·y = c with (a, b) a unit normal."""

    a: float
    """Of a·x + b·y = c, the unit normal's x."""
    b: float
    """Of a·x + b·y = c, the unit normal's y."""
    c: float
    """Of a·x + b·y = c, mm."""

    def miss(self, point: Point) -> float:
        """Return how far a point lies off, mm, with its sign.

        Args:
            point: The point, mm.
        """
        return self.a * point[0] + self.b * point[1] - self.c


@dataclass(frozen=True, slots=True)
class Round:
    """A circle."""

    x: float
    """Of the centre, mm along the board."""
    y: float
    """Of the centre, mm across the board."""
    radius: float
    """Radius, mm."""

    def miss(self, point: Point) -> float:
        """Return how far a point lies outside, mm.

        Args:
            point: The point, mm.
        """
        return math.dist(point, (self.x, self.y)) - self.radius


Curve = Straight | Round


@dataclass(frozen=True, slots=True)
class SideFit:
    """One side as fitted."""

    curve: Curve
    """The line or the arc."""
    misses: tuple[float, ...]
    """Of every point, mm."""
    kept: tuple[bool, ...]
    """Which were used."""
    spread: float | None
    """Root mean square of the misses of the kept points that check the line, mm; None when none does."""
    sigma: float
    """Standard error of where the line lies, at the middle of its points, mm."""
    rivals: tuple[tuple[bool, ...], ...] = ()
    """Other sets of points that explain the side about as well; then it is not decided which are wrong."""


def fit_side(points: Sequence[Point], *, tick_sigma: float, curved: bool = False, seed: int = 1) -> SideFit:
    """Return the line (or circle) that most points of a side agree with, and which points do not.

    Source: consensus after Fischler and Bolles (1981), cost truncated at 3σ (MSAC), from memory; then least
    squares.

    Args:
        points: Points, mm.
        tick_sigma: Standard uncertainty of one tick across the side, mm.
        curved: Whether a circle is fitted, else a line.
        seed: Of the choice of trials where there are too many to try all; the same one gives the same choice.

    Raises:
        InputError: For a side with too few points.
    """
    need = 3 if curved else 2
    if len(points) < need:
        what = "three points for a curved head" if curved else "two points"
        raise InputError("ticks", f"{len(points)} on a side", f"at least {what}")
    limit = OUTLIER * tick_sigma
    trials = _trials(len(points), need, seed)
    seen: dict[tuple[bool, ...], float] = {}
    for trial in trials:
        curve = _through([points[at] for at in trial], curved)
        if curve is None:
            continue
        kept = tuple(abs(curve.miss(each)) <= limit for each in points)
        if sum(kept) < need:
            continue
        if kept not in seen:
            fitted = _least_squares([p for p, used in zip(points, kept, strict=True) if used], curved) or curve
            kept = tuple(abs(fitted.miss(each)) <= limit for each in points)
            if sum(kept) >= need:
                seen.setdefault(kept, _cost(fitted, points, limit, tick_sigma))
    if not seen:
        raise InputError("ticks", f"{len(points)} on a side", "points that do not fall on one another")
    best = min(seen, key=lambda each: (seen[each], -sum(each)))
    rivals = tuple(each for each in seen if each != best and _is_rival(each, best, seen, limit, tick_sigma))
    return refitted(points, best, tick_sigma=tick_sigma, curved=curved, rivals=rivals)


def _is_rival(
    one: tuple[bool, ...], best: tuple[bool, ...], cost: dict[tuple[bool, ...], float], limit: float, sigma: float
) -> bool:
    """Whether another consensus is as good: about the same cost, and it leaves out other points."""
    leaves_out_other = any(mine and not theirs for mine, theirs in zip(best, one, strict=True))
    return leaves_out_other and cost[one] - cost[best] < min(RIVAL_WITHIN, (limit / sigma) ** 2 * 0.9)


def refitted(
    points: Sequence[Point],
    kept: tuple[bool, ...],
    *,
    tick_sigma: float,
    curved: bool,
    rivals: tuple[tuple[bool, ...], ...] = (),
) -> SideFit:
    """Return the least-squares fit through the kept points.

    Args:
        points: Points, mm.
        kept: Which of the points are kept.
        tick_sigma: Standard deviation of a tick, mm.
        curved: Whether the side is an arc.
        rivals: Other choices of wrong ticks that explain a side as well.

    Raises:
        InputError: When they fix no line.
    """
    used = [point for point, use in zip(points, kept, strict=True) if use]
    curve = _least_squares(used, curved)
    if curve is None:
        raise InputError("ticks", f"{len(used)} on a side", "points that do not fall on one another")
    misses = tuple(curve.miss(each) for each in points)
    spare = len(used) - (3 if curved else 2)
    spread = math.sqrt(sum(curve.miss(each) ** 2 for each in used) / spare) if spare > 0 else None
    scale = max(tick_sigma, spread or 0.0)
    return SideFit(curve, misses, tuple(kept), spread, scale / math.sqrt(len(used)), rivals)


def _trials(count: int, need: int, seed: int) -> list[tuple[int, ...]]:
    if math.comb(count, need) <= MOST_TRIALS:
        return list(combinations(range(count), need))
    source = random.Random(seed)
    return [tuple(source.sample(range(count), need)) for _ in range(MOST_TRIALS)]


def _cost(curve: Curve, points: Sequence[Point], limit: float, sigma: float) -> float:
    return sum(min(curve.miss(each) ** 2, limit**2) for each in points) / sigma**2


def _through(points: Sequence[Point], curved: bool) -> Curve | None:
    if not curved:
        (ax, ay), (bx, by) = points
        length = math.dist(*points)
        if length < 1e-6:
            return None
        a, b = (by - ay) / length, -(bx - ax) / length
        return Straight(a, b, a * ax + b * ay)
    return _circle(points)


def _least_squares(points: Sequence[Point], curved: bool) -> Curve | None:
    return _circle_refined(points) if curved else line_through(points)


def line_through(points: Sequence[Point]) -> Straight | None:
    """Return the line with the least squares of distances to it (not of heights over it), None for a single place.

    Args:
        points: Points, mm.
    """
    n = len(points)
    mx, my = sum(x for x, _ in points) / n, sum(y for _, y in points) / n
    xx = sum((x - mx) ** 2 for x, _ in points)
    yy = sum((y - my) ** 2 for _, y in points)
    xy = sum((x - mx) * (y - my) for x, y in points)
    if xx + yy < 1e-9:
        return None
    turn = 0.5 * math.atan2(2 * xy, xx - yy)  # of the line
    a, b = math.sin(turn), -math.cos(turn)
    return Straight(a, b, a * mx + b * my)


def _circle(points: Sequence[Point]) -> Round | None:
    """Return the circle by algebraic least squares (exact through three points), None for points on a line.

    Source: I. Kåsa, A circle fitting procedure and its error analysis (1976), from memory.
    """
    n = len(points)
    mx, my = sum(x for x, _ in points) / n, sum(y for _, y in points) / n
    size = max(max(abs(x - mx), abs(y - my)) for x, y in points) or 1.0
    rows = [[(x - mx) / size, (y - my) / size, 1.0] for x, y in points]
    right = [row[0] ** 2 + row[1] ** 2 for row in rows]
    normal = normal_matrix([1.0] * n, rows)
    moment = [sum(row[at] * value for row, value in zip(rows, right, strict=True)) for at in range(3)]
    try:
        p, q, r = solved(normal, moment)
    except ZeroDivisionError:
        return None
    square = r + (p * p + q * q) / 4
    if square <= 0 or abs(p) + abs(q) > 400:
        return None
    return Round(mx + p / 2 * size, my + q / 2 * size, math.sqrt(square) * size)


def _circle_refined(points: Sequence[Point]) -> Round | None:
    """Return the circle with the least squares of distances to it: Gauss–Newton from the algebraic one."""
    circle = _circle(points)
    for _ in range(12 if circle is not None and len(points) > 3 else 0):
        assert circle is not None
        rows, misses = [], []
        for x, y in points:
            away = math.dist((x, y), (circle.x, circle.y))
            if away < 1e-9:
                return circle
            rows.append([(circle.x - x) / away, (circle.y - y) / away, -1.0])
            misses.append(away - circle.radius)
        try:
            step = solved(normal_matrix([1.0] * len(rows), rows), combined([-each for each in misses], rows))
        except ZeroDivisionError:
            return circle
        circle = Round(circle.x + step[0], circle.y + step[1], circle.radius + step[2])
        if max(map(abs, step)) < 1e-7:
            break
    return circle


def meeting(one: Curve, other: Curve, near: Point) -> Point:
    """Return where two sides meet, the place nearest to `near`.

    Args:
        one: One line or arc.
        other: The other line or arc.
        near: A place near the corner that is meant, mm.

    Raises:
        InputError: Where they do not.
    """
    if isinstance(one, Straight) and isinstance(other, Straight):
        cross = one.a * other.b - other.a * one.b
        if abs(cross) < 0.02:
            raise InputError("ticks", "parallel", "sides that meet: two of them run side by side")
        return (one.c * other.b - other.c * one.b) / cross, (one.a * other.c - other.a * one.c) / cross
    if isinstance(one, Round):
        one, other = other, one
    assert isinstance(other, Round)
    if isinstance(one, Round):
        raise InputError("ticks", "two curves", "one curved side at the most")
    along = one.c - one.a * other.x - one.b * other.y
    square = other.radius**2 - along**2
    # An arch that just misses its side by a hair still springs there.
    half = math.sqrt(max(square, 0.0))
    if square < -((0.1 * other.radius) ** 2):
        raise InputError("ticks", "apart", "a curved head that reaches both sides")
    foot = other.x + one.a * along, other.y + one.b * along
    places = [(foot[0] - sign * one.b * half, foot[1] + sign * one.a * half) for sign in (1, -1)]
    return min(places, key=lambda each: math.dist(each, near))
