"""Where rails and muntins of a frame stand: rows of fields between top and bottom rail, columns in each row.

A rail on the lock is fixed by it; the rows on either side of a fixed rail share what height is left, by their shares.
All names are given here, and kept from the drawing to the cut list.
"""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.construction.framed.model import FieldRow, Framed, Infill
from oakmeasure.core.document.roles import Place
from oakmeasure.core.figures.figure import FIXED, Figure, Term, minus, plus
from oakmeasure.core.figures.names import FigureName, figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Dim, Rect

ROW_NAMES = {1: ("",), 2: ("lower ", "upper "), 3: ("bottom ", "middle ", "top ")}
COLUMN_NAMES = {1: ("",), 2: ("hinge-side ", "latch-side "), 3: ("hinge-side ", "middle ", "latch-side ")}
LOCK_RAIL = "middle rail"  # what the rail on the lock is called, and the only one between
BETWEEN_NAMES = {1: (LOCK_RAIL,), 2: ("lower rail", "upper rail")}


@dataclass(frozen=True, slots=True)
class Rail:
    """One rail."""

    name: str
    """Its name, as it is shown."""
    rect: Rect
    """The rectangle that it takes up, mm in the leaf."""
    width: Figure
    """Width of the rail, mm."""
    place: Place | None
    """Top or bottom; of those between, that on the lock."""

    @property
    def is_end(self) -> bool:
        """Whether it is the top or the bottom one."""
        return self.place in (Place.TOP, Place.BOTTOM)


@dataclass(frozen=True, slots=True)
class FieldColumn:
    """One field of a row."""

    name: str
    """Name of the panel."""
    x0: float
    """Left edge, mm."""
    x1: float
    """Right edge, mm."""
    sight: Figure
    """Its width as a figure."""


@dataclass(frozen=True, slots=True)
class Fields:
    """One row of fields."""

    name: str
    """With a space behind, or ""."""
    y0: float
    """Upper edge of the rail below, mm."""
    y1: float
    """Lower edge of the rail above, mm."""
    sight: Figure
    """Its height as a figure."""
    columns: tuple[FieldColumn, ...]
    """Its panels, from the hinge edge."""
    infill: Infill
    """What fills it."""
    below: str
    """The rail below."""
    above: str
    """The rail above."""

    @property
    def slug(self) -> str:
        """The name as figures' names have it, with underscores."""
        return self.name.strip().replace(" ", "_")


@dataclass(frozen=True, slots=True)
class PanelAcross:
    """How a panel stands in its grooves across the grain, mm."""

    width: Figure
    """Its width."""
    room: Figure
    """How far it can swell in each groove."""
    hold: Figure
    """How much of it is held at the driest."""
    swell: Figure
    """How far it swells, at the wettest."""
    shrink: Figure
    """How far it shrinks, at the driest."""
    widest: Figure
    """To the bottoms of its grooves."""


@dataclass(frozen=True, slots=True)
class FrameLayout:
    """Where the rails and the fields of a framed leaf stand."""

    rails: tuple[Rail, ...]
    """From the foot up."""
    rows: tuple[Fields, ...]
    """From the foot up; those that overlapping rails leave no height are left out."""

    def rail(self, name: str) -> Rail:
        """Return the rail called `name`; KeyError when there is none.

        Args:
            name: Its name.
        """
        for each in self.rails:
            if each.name == name:
                return each
        raise KeyError(name)


def rows_of(choice: Framed) -> tuple[FieldRow, ...]:
    """Return the rows of a frame: its own, or those that its middle rail and its muntin make.

    Args:
        choice: What is chosen for the frame.
    """
    if choice.rows:
        return choice.rows
    row = FieldRow(columns=1 if choice.muntin is None else 2)
    return (row,) if choice.middle_rail is None else (row, row)


def row_names(count: int) -> tuple[str, ...]:
    """Return the names of so many rows, from the foot up.

    Args:
        count: How many there are.
    """
    return ROW_NAMES.get(count) or tuple(f"row {at} " for at in range(1, count + 1))


def between_names(choice: Framed, count: int) -> tuple[str, ...]:
    """Return the names of the rails between; the one on the lock is always the middle rail.

    Args:
        choice: What is chosen for the frame.
        count: How many there are.
    """
    names = list(BETWEEN_NAMES.get(count) or tuple(f"rail {at}" for at in range(2, count + 2)))
    lock = lock_rail_of(choice, count)
    if lock is not None:
        names[lock] = LOCK_RAIL
    return tuple(names)


def lock_rail_of(choice: Framed, count: int) -> int | None:
    """Return which of the rails between is centred on the lock; None for none.

    Args:
        choice: What is chosen for the frame.
        count: How many there are.
    """
    if choice.middle_rail is None or choice.lock_rail is None or not count:
        return None
    return min(choice.lock_rail, count - 1)


def lay_out(ctx: Context, fit: Fit, choice: Framed, shoulder: Figure, *, inset: float = 0.0) -> FrameLayout:
    """Add the places of all rails and the sight sizes of all fields; return them.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        choice: What is chosen for the frame.
        shoulder: Between the shoulders of a rail, mm.
        inset: How far the stiles stand in from the edges, mm.
    """
    rows = rows_of(choice)
    names, between = row_names(len(rows)), between_names(choice, len(rows) - 1)
    x0, x1 = inset + choice.stile, fit.width.value - choice.stile - inset
    widths = _rail_widths(ctx, choice, between)
    heights, bounds = _heights(ctx, fit, choice, rows, widths, between)
    rails = [Rail("bottom rail", Rect(x0, 0.0, x1, choice.bottom_rail), widths["bottom rail"], Place.BOTTOM)]
    rails += [
        Rail(name, Rect(x0, low, x1, low + widths[name].value), widths[name], Place.LOCK if name == LOCK_RAIL else None)
        for name, low in zip(between, (each[1] for each in bounds[:-1]), strict=True)
    ]
    top = fit.height.value - choice.top_rail
    rails.append(Rail("top rail", Rect(x0, top, x1, fit.height.value), widths["top rail"], Place.TOP))
    alike = len({(each.columns, each.widths) for each in rows}) == 1
    fields, known = [], {}
    for at, (row, name) in enumerate(zip(rows, names, strict=True)):
        low, high = bounds[at]
        key = "" if alike else name
        if key not in known:
            known[key] = _columns(ctx, choice, row, key, (x0, x1), shoulder)
        if high > low:
            fields.append(
                Fields(name, low, high, heights[at], known[key], row.infill, rails[at].name, rails[at + 1].name)
            )
    return FrameLayout(tuple(rails), tuple(fields))


def _rail_widths(ctx: Context, choice: Framed, between: tuple[str, ...]) -> dict[str, Figure]:
    widths = {}
    for name in ("top rail", *between, "bottom rail"):
        slug = name.replace(" ", "_")
        field = slug if name in ("top rail", "bottom rail", "middle rail") else "other_rail"
        value = getattr(choice, field)
        widths[name] = ctx.chosen(
            figure_name(slug),
            name,
            choice.other_rail if value is None else value,
            f"build.{field if value is not None else 'other_rail'}",
        )
    return widths


def _heights(
    ctx: Context,
    fit: Fit,
    choice: Framed,
    rows: tuple[FieldRow, ...],
    widths: dict[str, Figure],
    between: tuple[str, ...],
) -> tuple[list[Figure], list[tuple[float, float]]]:
    """Add the sight height of every row; return them, and from where to where each stands, from the foot up."""
    names, lock = row_names(len(rows)), lock_rail_of(choice, len(between))
    sights: list[Figure] = []
    bounds: list[tuple[float, float]] = []
    low = choice.bottom_rail
    if lock is None:
        parts = [(0, len(rows), [plus(fit.height), minus(widths["bottom rail"]), minus(widths["top rail"])])]
    else:
        height = ctx.chosen("lock_height", "lock above the floor", choice.lock_height, "build.lock_height")
        centre = ctx.figures.total(
            "middle_rail_centre", "middle rail's centre, up the leaf", plus(height), minus(ctx.figures["gap_floor"])
        )
        half = widths["middle rail"]
        parts = [
            (0, lock + 1, [plus(centre), minus(half, 0.5), minus(widths["bottom rail"])]),
            (lock + 1, len(rows), [plus(fit.height), minus(centre), minus(half, 0.5), minus(widths["top rail"])]),
        ]
    for first, last, terms in parts:
        inside = [plus(widths[name], -1.0) for name in between[first : last - 1]]
        found = _shared(ctx, rows[first:last], names[first:last], [*terms, *inside])
        for at, figure in enumerate(found, start=first):
            bounds.append((low, low + figure.value))
            low += figure.value + (widths[between[at]].value if at < len(between) else 0.0)
        sights += found
    return sights, bounds


def _shared(ctx: Context, rows: tuple[FieldRow, ...], names: tuple[str, ...], terms: list[Term]) -> list[Figure]:
    """Add the sight heights of rows that share one stretch, less those that are set by hand."""
    f = ctx.figures

    def label(name: str) -> tuple[FigureName, str]:
        slug = f"sight_height_{name.strip().replace(' ', '_')}" if name else "sight_height"
        return figure_name(slug), f"{name}panels, sight height"

    if len(rows) == 1:
        return [f.total(*label(names[0]), *terms)]
    where = names[0].strip().replace(" ", "_")
    stretch = f.total(
        figure_name(f"stretch_{where}"), f"height for {len(rows)} rows, from the {names[0].strip()} one up", *terms
    )
    by_hand = {at: row.height for at, row in enumerate(rows) if row.height is not None}
    if len(by_hand) == len(rows):  # the last one takes what is left, or the rails would not meet
        by_hand.pop(len(rows) - 1)
    free = stretch.value - sum(by_hand.values())
    shares = sum(row.share for at, row in enumerate(rows) if at not in by_hand)
    found = []
    for at, (row, name) in enumerate(zip(rows, names, strict=True)):
        slug, words = label(name)
        if at in by_hand:
            found.append(f.given(figure_name(slug), words, by_hand[at], FIXED))
        else:
            how = "what is left ÷ the rows" if len({each.share for each in rows}) == 1 else "its share of what is left"
            found.append(f.derived(figure_name(slug), words, free * row.share / shares, stretch, formula=how))
    return found


def _columns(
    ctx: Context, choice: Framed, row: FieldRow, key: str, span: tuple[float, float], shoulder: Figure
) -> tuple[FieldColumn, ...]:
    """Add the sight widths of a row's columns; return them, none where the muntins leave no width."""
    (x0, x1), f, tail = span, ctx.figures, f"_{key.strip().replace(' ', '_')}" if key else ""
    count = row.columns
    names = COLUMN_NAMES.get(count) or tuple(f"{at}. " for at in range(1, count + 1))
    if count == 1:
        sight = f.total(figure_name(f"sight_width{tail}"), f"{key}panels, sight width", plus(shoulder))
        return (FieldColumn("", x0, x1, sight),) if x1 > x0 else ()
    muntin = ctx.figures.get("muntin") or ctx.chosen("muntin", "muntin", choice.muntin or MUNTIN, "build.muntin")
    if not row.widths or len(set(row.widths)) == 1:
        share = 1.0 / count
        sight = f.total(
            figure_name(f"sight_width{tail}"),
            f"{key}panels, sight width",
            plus(shoulder, share),
            minus(muntin, share * (count - 1)),
        )
        sights = [sight] * count
    else:
        free = shoulder.value - (count - 1) * muntin.value
        sights = [
            f.derived(
                figure_name(f"sight_width{tail}_{at}"),
                f"{key}{name}panel, sight width",
                free * part / sum(row.widths),
                shoulder,
                muntin,
                formula="its share of what the muntins leave",
            )
            for at, (name, part) in enumerate(zip(names, row.widths, strict=True), start=1)
        ]
    if min(each.value for each in sights) <= 0:
        return ()
    found, x = [], x0
    for name, sight in zip(names, sights, strict=True):
        found.append(FieldColumn(name, x, x + sight.value, sight))
        x += sight.value + muntin.value
    return tuple(found)


def frame_dims(layout: FrameLayout, width: float, stile: float, inset: float = 0.0) -> tuple[Dim, ...]:
    """Return the sizes to write on a leaf set out as a frame: stiles and the lowest row along, rails and rows up.

    Args:
        layout: Where rails and fields stand.
        width: Width, mm.
        stile: Width of a stile, mm.
        inset: How far the stiles stand in from the edges, mm.
    """
    found = [
        Dim(inset, inset + stile, "stile", "part:hinge stile", False),
        Dim(width - inset - stile, width - inset, "stile", "part:latch stile", False),
    ]
    for row in layout.rows[:1]:
        found += [Dim(each.x0, each.x1, each.sight.name, "", False) for each in row.columns]
    found += [Dim(each.rect.y0, each.rect.y1, each.width.name, f"part:{each.name}", True) for each in layout.rails]
    return (*found, *(Dim(row.y0, row.y1, row.sight.name, "", True) for row in layout.rows))


MUNTIN = 95.0  # where a row has columns and no muntin's width is set
