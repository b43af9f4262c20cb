"""A leaf whose outline is no rectangle: raked or arched heads and scribed edges, for any construction.

Where the head is raked or arched the top rail follows it, and what stands under it ends against the rail; every other
member is cut to the outline. What only tapers by a scribe is planed, and all parts stay as they were set out.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from oakmeasure.core.base.geometry import Point, area, clipped, half_plane_part
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.frame import edge_top
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Part, Rect, Size, Tenon
from oakmeasure.core.leaf.part_factory import around

SCRIBED = 20.0  # a head that falls by more over the leaf is raked, and its rail follows it: common practice, no source


@dataclass(frozen=True, slots=True)
class HeadCurve:
    """The upper edge of an outline, from the hinge side to the latch side."""

    points: tuple[Point, ...]
    """The points, mm."""

    def at(self, x: float) -> float:
        """Return its height at a place, mm up the leaf; beyond its ends that of the nearer one.

        Args:
            x: Across, away from the hinge edge, mm.
        """
        if x <= self.points[0][0]:
            return self.points[0][1]
        for (ax, ay), (bx, by) in zip(self.points, self.points[1:], strict=False):
            if ax <= x <= bx:
                return ay + (by - ay) * (x - ax) / (bx - ax) if bx > ax else max(ay, by)
        return self.points[-1][1]

    def between(self, x0: float, x1: float, down: float = 0.0) -> list[Point]:
        """Return it between two places, left to right, lowered by so much.

        Args:
            x0: Where it begins, across, mm.
            x1: Where it ends, across, mm.
            down: How far below the head, mm.
        """
        inner = [each for each in self.points if x0 < each[0] < x1]
        return [(x, y - down) for x, y in [(x0, self.at(x0)), *inner, (x1, self.at(x1))]]

    @property
    def falls(self) -> float:
        """By how much it is lower at its lowest than at its highest, mm."""
        heights = [y for _, y in self.points]
        return max(heights) - min(heights)

    @property
    def slope_deg(self) -> float:
        """Its slope from end to end, degrees; 0 for an arch that springs level."""
        (ax, ay), (bx, by) = self.points[0], self.points[-1]
        return math.degrees(math.atan2(by - ay, bx - ax))


def head_of(outline: Sequence[Point]) -> HeadCurve:
    """Return the upper edge of an outline that goes round anticlockwise from its foot at the hinges.

    Args:
        outline: Corners of the leaf's outline, anticlockwise, mm.
    """
    height = max(y for _, y in outline)
    middle = height / 2
    upper = sorted((each for each in outline if each[1] > middle), key=lambda each: each[0])
    return HeadCurve(tuple(upper))


def shape_to(ctx: Context, fit: Fit, build: Build) -> Build:
    """Return the build cut to the leaf's outline; the same one where that is a rectangle.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    if len(fit.outline) < 3:
        return build
    head = head_of(fit.outline)
    parts, tenons = list(build.parts), list(build.tenons)
    rail = build.at(Role.RAIL, Place.TOP)
    if rail is not None and rail.depth is not None and rail.depth[0] > 0:
        rail = None  # the solid end inside an old leaf, between its faces
    if head.falls > SCRIBED and rail is not None:
        parts, tenons = _follow(ctx, build, rail, head)
    _ledges(ctx, parts, fit, head)
    cut = [_cut(ctx, part, fit.outline) for part in parts]
    kept = tuple(each for each in cut if area(each.corners) > 1.0)
    if head.falls > SCRIBED:
        _say(ctx, head, kept)
    inside = tuple(each for each in tenons if _lies_inside(each, fit.outline))
    return replace(build, parts=kept, tenons=inside)


def _lies_inside(tenon: Tenon, outline: Sequence[Point]) -> bool:
    """Return whether a tenon lies in the outline with its whole width; one that was cut off holds nothing."""
    r = tenon.rect
    shape = ((r.x0, r.y0), (r.x1, r.y0), (r.x1, r.y1), (r.x0, r.y1))
    least = 0.9 if tenon.loose is None else 1 - 1e-6
    return area(clipped(shape, outline) or ((0.0, 0.0),) * 3) > least * area(shape)


# --- a top rail that follows its head ----------------------------------------------------------------------


def _follow(ctx: Context, build: Build, rail: Part, head: HeadCurve) -> tuple[list[Part], list[Tenon]]:
    """Return parts and tenons with the top rail along the head and what stands under it ended against it."""
    down = rail.finished.width / max(math.cos(math.radians(head.slope_deg)), 0.2)
    old = rail.face.y0
    tenons = [_moved(each, build, rail, head, down) for each in build.tenons]
    parts = []
    for part in build.parts:
        f = part.face
        if part.role is Role.RAIL and part.place is Place.TOP:
            shape = (*head.between(f.x0, f.x1, down), *reversed(head.between(f.x0, f.x1)))
            parts.append(_slanting(ctx, _without_lost_tenons(ctx, part, build.tenons, tenons), shape, head))
        elif part.role is Role.BRACE:
            parts.append(_brace_under(ctx, part, build, head, down))
        elif part.role in (Role.PANEL, Role.MUNTIN, Role.BOARD, Role.CORE) and abs(f.y1 - old) < 1.0:
            top = head.between(f.x0, f.x1, down)
            under = ((f.x0, f.y0), (f.x1, f.y0), *reversed(top))
            high = max(y for _, y in top)
            out = max((solid.box[2] for solid in part.tongues), default=f.x1)
            below = ((f.x0, f.y0), (out, f.y0), *reversed(head.between(f.x0, out, down)))
            shaped = _to_shape(ctx, part, under, Rect(f.x0, f.y0, f.x1, high), _risen(part, build.tenons, tenons))
            parts.append(replace(shaped, tongues=_tongues(part, below)))
        else:
            parts.append(part)
    kept = [each for each in tenons if each is not None]
    whole = {each.into for each in kept if each.member == rail.name and not each.is_haunch}
    kept = [each for each in kept if each.member != rail.name or each.into in whole]  # no haunch without its tenon
    _meets_head(ctx, build, rail, head, down)
    return parts, kept


def _without_lost_tenons(ctx: Context, rail: Part, before: Sequence[Tenon], after: Sequence[Tenon | None]) -> Part:
    """Return a rail shorter by the tenons for which the head leaves no wood, and say that something must join it."""
    had = {
        each.into: each.reach for each in before if each.member == rail.name and not each.is_haunch and not each.loose
    }
    has = {each.into for each in after if each is not None and each.member == rail.name and not each.is_haunch}
    lost = {into: reach for into, reach in had.items() if into not in has}
    if not lost:
        return rail
    ctx.warn(
        "rail-tenon-gone",
        "The head leaves the top rail no tenon",
        f"Where it meets the {' and the '.join(lost)} it is too steep for one.",
        Remedy("Loose tenons square to the joint, or a wider top rail"),
        grounds=Grounds("leaf_height", f"part:{rail.name}"),
    )
    less = sum(lost.values())

    def shorter(size: Size) -> Size:
        return replace(size, length=size.length - less)

    return replace(rail, finished=shorter(rail.finished), planed=shorter(rail.planed), rough=shorter(rail.rough))


def _brace_under(ctx: Context, part: Part, build: Build, head: HeadCurve, down: float) -> Part:
    """Return a brace that ends under the top rail, wherever that is over it."""
    below = ((0.0, 0.0), (build.width, 0.0), *reversed(head.between(0.0, build.width, down)))
    shape = clipped(part.corners, below)
    if len(shape) < 3 or area(shape) > area(part.corners) - 0.5:
        return part
    (ax, ay), (bx, by) = max(pairwise((*part.corners, part.corners[0])), key=lambda side: math.dist(*side))
    turn = math.atan2(by - ay, bx - ax)
    along = [x * math.cos(turn) + y * math.sin(turn) for x, y in shape]
    long = max(along) - min(along)
    figure = ctx.figures.derived(
        ctx.figures.unused(f"cut_{part.slug}"),
        f"{part.name}, cut to the top rail",
        long,
        part.length,
        formula="the longest of it under the top rail",
    )
    more = long - part.finished.length
    sizes = (replace(each, length=each.length + more) for each in (part.finished, part.planed, part.rough))
    finished, planed, rough = sizes
    return replace(part, face=around(shape), shape=shape, finished=finished, planed=planed, rough=rough, length=figure)


def _meets_head(ctx: Context, build: Build, rail: Part, head: HeadCurve, down: float) -> None:
    """Stop a frame whose other rails reach into the top rail where the head is low."""
    for part in build.parts:
        f = part.face
        if part.role is not Role.RAIL or part.place in (Place.TOP, Place.BOTTOM) or part.is_back:
            continue
        over = f.y1 - min(y for _, y in head.between(f.x0, f.x1, down))
        if over > HAIR:
            ctx.stop(
                "rails-head",
                f"The {part.name} reaches into the {rail.name}",
                f"Where the head is lowest they overlap by {ctx.fmt(over)}.",
                Remedy("No middle rail, or a lower one"),
                grounds=Grounds("leaf_height", f"part:{part.name}"),
            )
            return


def _risen(part: Part, before: Sequence[Tenon], after: Sequence[Tenon | None]) -> float | None:
    """Return how much higher a part's upper tenon ends now, mm; None for a part without tenons."""
    old = max((each.rect.y1 for each in before if each.member == part.name), default=None)
    new = max((each.rect.y1 for each in after if each is not None and each.member == part.name), default=None)
    return new - old if old is not None and new is not None else None


def _slanting(ctx: Context, part: Part, shape: tuple[Point, ...], head: HeadCurve) -> Part:
    """Return a rail along its head: as long as slanting ends and tenons need, or out of a wider blank."""
    straight = len(head.points) == 2
    if straight:
        turn = math.radians(head.slope_deg)
        reach = part.finished.length - part.face.width
        length = part.face.width / math.cos(turn) + part.finished.width * abs(math.tan(turn)) + reach * math.cos(turn)
        figure = ctx.figures.derived(
            ctx.figures.unused("top_rail_slope"),
            "top rail along the rake, from tip to tip, over its tenons"
            if reach
            else "top rail along the rake, tip to tip",
            length,
            part.length,
            ctx.figures.get("shoulder") or part.length,
            part.width,
            formula="between shoulders ÷ cos of the rake + width × tan" + (" + both tenons × cos" if reach else ""),
        )
        note = f"raked {ctx.show.value(abs(head.slope_deg), Unit.DEG)}"
        more = length - part.finished.length
        finished = replace(part.finished, length=length)
        planed = replace(part.planed, length=part.planed.length + more)
        rough = replace(part.rough, length=part.rough.length + more)
    else:
        box = around(shape)
        wider = box.height - part.finished.width
        figure, note = part.length, "sawn to the arch out of a wider blank"
        finished = replace(part.finished, width=box.height)
        planed = replace(part.planed, width=part.planed.width + wider)
        rough = replace(part.rough, width=part.rough.width + wider)
    return replace(
        part,
        face=around(shape),
        shape=shape,
        finished=finished,
        planed=planed,
        rough=rough,
        length=figure,
        note="; ".join(each for each in (note, part.note) if each),
        is_raked=straight,
    )


def _moved(tenon: Tenon, build: Build, rail: Part, head: HeadCurve, down: float) -> Tenon | None:
    """Return a tenon of the top rail, or of a muntin under it, where the head is there; None where no wood is left.

    A rail's tenon stays level, and within the wood of its rail over all of its reach.
    """
    r = tenon.rect
    if tenon.member == rail.name:
        lower = build.height - head.at((r.x0 + r.x1) / 2)
        under, over = (head.between(r.x0, r.x1, by) for by in (down, 0.0))
        y0 = max(r.y0 - lower, *(y for _, y in under))
        y1 = min(r.y1 - lower, *(y for _, y in over))
        return replace(tenon, rect=Rect(r.x0, y0, r.x1, y1)) if y1 - y0 > 1.0 else None
    if tenon.into == rail.name and tenon.is_upright:
        edge = [y for _, y in head.between(r.x0, r.x1, down)]
        return replace(tenon, rect=Rect(r.x0, min(edge), r.x1, max(edge) + r.height))
    return tenon


# --- what is cut to the outline ----------------------------------------------------------------------------


def _cut(ctx: Context, part: Part, outline: Sequence[Point]) -> Part:
    """Return a part cut to the outline; the same one where it lies inside."""
    whole = area(part.corners)
    shape = clipped(part.corners, outline)
    part = replace(part, tongues=_tongues(part, outline))
    if len(shape) < 3:
        return replace(part, shape=((0.0, 0.0), (0.0, 0.0), (0.0, 0.0)))
    if area(shape) > whole - 0.5:
        return part
    return _to_shape(ctx, part, shape, around(shape))


def _tongues(part: Part, outline: Sequence[Point]) -> tuple[Solid, ...]:
    """Return what of a part's tongues lies inside an outline; a board's no higher than the board itself."""
    high = max((y for _, y in clipped(part.corners, outline)), default=0.0) if part.role is Role.BOARD else math.inf
    inside = ((each, clipped(each.points, outline)) for each in part.tongues)
    kept = ((each, half_plane_part(points, lambda point: point[1] - high)) for each, points in inside)
    return tuple(replace(each, points=tuple(points)) for each, points in kept if len(points) > 2)


def _to_shape(ctx: Context, part: Part, shape: tuple[Point, ...], face: Rect, longer: float | None = None) -> Part:
    """Return a part with another face, its sizes by the rectangle round it, or as much longer as is said."""
    shaped = replace(part, face=face, shape=shape)
    was, whole = around(part.whole), around(shaped.whole)
    change = (whole.height - was.height) if part.grain_upright else (whole.width - was.width)
    change = change if longer is None else longer
    length = part.finished.length + change
    figure = part.length
    if abs(change) > HAIR:
        figure = ctx.figures.derived(
            ctx.figures.unused(f"cut_{part.slug}"),
            f"{part.name}, length to its outline",
            length,
            part.length,
            formula="the longest of it, cut to the leaf's outline",
        )

    across = whole.width if part.grain_upright else whole.height
    wide = across - (was.width if part.grain_upright else was.height)

    def fitted(size: Size) -> Size:
        return replace(size, length=max(size.length + change, 0.0))

    note = part.note or "cut to the outline"
    return replace(
        shaped,
        finished=replace(fitted(part.finished), width=across if wide < -HAIR else part.finished.width),
        planed=fitted(part.planed),
        rough=fitted(part.rough),
        length=figure,
        note=note,
    )


def _ledges(ctx: Context, parts: list[Part], fit: Fit, head: HeadCurve) -> None:
    """Say where an upper ledge or batten would run out of a raked or arched head."""
    for part in parts:
        if part.role not in (Role.LEDGE, Role.STIFFENER):
            continue
        room = min(head.at(part.face.x0), head.at(part.face.x1)) - part.face.y1
        if room >= 0:
            continue
        field = "build.ledge_top" if "ledge_top" in ctx.figures else "build.stiffener_end"
        name = field.rpartition(".")[2]
        lower = ctx.figures[figure_name(name)].value - room + 20.0
        ctx.stop(
            "ledge-head",
            f"The {part.name} runs out of the head",
            f"At the low side the head is {ctx.fmt(-room)} below its upper edge.",
            Remedy(f"{ctx.fmt(lower)} from the top", field, lower)
            if lower <= 800
            else Remedy("A level one, lower down"),
            grounds=Grounds(name, f"part:{part.name}"),
        )
        return


def _say(ctx: Context, head: HeadCurve, parts: Sequence[Part]) -> None:
    cut = sum(bool(part.shape) and part.role is not Role.BRACE for part in parts)
    what = f"raked {ctx.show.value(abs(head.slope_deg), Unit.DEG)}" if len(head.points) == 2 else "arched"
    ctx.fine(
        "outline",
        f"The head is {what}",
        f"{cut} parts are cut to it; each has its own length in the list.",
        grounds=Grounds("leaf_height"),
    )


def at_edge(ctx: Context, fit: Fit, edge: str) -> Fit:
    """Return the fit with the height of one of its edges, which under a raked or arched head is not the leaf's.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        edge: "hinge" or "latch".
    """
    top = edge_top(fit, edge)
    if abs(top - fit.height.value) < HAIR:
        return fit
    height = ctx.figures.derived(
        "hinge_edge_height" if edge == "hinge" else "latch_edge_height",
        f"{edge} edge, height",
        top,
        fit.height,
        formula=f"the outline at the {'hinges' if edge == 'hinge' else 'latch'}",
    )
    return replace(fit, height=height)
