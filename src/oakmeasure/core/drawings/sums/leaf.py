"""Drawings of the quick sums of openings, leaves and their parts."""

from __future__ import annotations

import math

from oakmeasure.core.construction.braces import corner_shape
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Grain, Layer, Lettering, Room
from oakmeasure.core.drawings.sums.members import Draft
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect

STEPS = 32


def leaf_size(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, h = d.v("opening_width"), d.v("opening_height")
    wide, high, leaves = d.v("leaf_width"), d.v("leaf_height"), round(d.v("leaves", 1))
    t = 0.04 * h
    for rect in (Rect(-t, 0, 0, h + t), Rect(w, 0, w + t, h + t), Rect(0, h, w, h + t)):
        d.sketch.rect(rect, Layer.LINING)
        d.sketch.box(rect, Layer.OUTLINE)
    d.sketch.line([(-2 * t, 0), (w + 2 * t, 0)], Layer.OUTLINE)
    foot, hinge = d.v("gap_floor"), d.v("gap_hinge")
    d.wood(Rect(hinge, foot, hinge + wide, foot + high))
    if leaves == 2:
        d.wood(Rect(w - hinge - wide, foot, w - hinge, foot + high))
    d.across(hinge, hinge + wide, foot + 0.5 * high, "leaf_width")
    d.up(foot, foot + high, w + 3 * t, "leaf_height")
    d.across(0, w, h + 2.6 * t, "opening_width")
    d.up(0, h, -2.6 * t, "opening_height")


def edge_bevel(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    t, bevel, grows = d.v("thickness"), d.v("least_bevel"), d.v("square_growth")
    gap, x0, off = d.v("gap"), -2.6 * t, t * math.tan(math.radians(bevel))
    d.shape([(x0, 0), (0, 0), (-off, t), (x0, t)], grain=Grain.LEVEL)
    d.sketch.line([(0, 0), (0, t)], Layer.HIDDEN)
    turned = [(grows * (1 - (1 - n / 8) ** 2), t - n * t / 8) for n in range(9)]
    d.sketch.line(turned, Layer.DOUBT)
    d.wall(Rect(gap, -0.2 * t, gap + 0.8 * t, 1.5 * t))
    d.up(0, t, x0 - 0.2 * t, "thickness")
    d.note(x0 / 2, 0.5 * t, f"bevel {d.text('least_bevel')}")
    d.note(x0 / 2, -0.3 * t, "opening face")
    d.note(0.2 * t, -0.55 * t, f"the square corner sweeps {d.text('square_growth')} beyond")


def square(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, h, skew = d.v("width"), d.v("height"), d.v("skew")
    top = math.sqrt(max(0.0, h * h - skew * skew))  # the height is measured along the side that leans
    corners = [(0.0, 0.0), (w, 0.0), (w + skew, top), (skew, top)]
    d.sketch.area(corners, Layer.SPACE)
    d.sketch.line([*corners, corners[0]], Layer.LEAF)
    d.sketch.line([(0, 0), (0, top)], Layer.HIDDEN)
    d.sketch.dimension(corners[0], corners[2], d.text("diagonal"), figure="diagonal", share=0.7)
    d.across(0, w, -0.05 * h, "width")
    d.sketch.dimension((-0.1 * w, 0), (skew - 0.1 * w, top), d.text("height"), figure="height")
    d.note(skew / 2, h + 0.06 * h, f"leans {d.text('skew')}")
    d.note(1.1 * w, 0.03 * h, f"corner {d.text('corner_angle')}", anchor=Anchor.LEFT)


def arch(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    span, rise, radius = d.v("span"), d.v("rise"), d.v("radius")
    half = math.asin(span / 2 / radius)
    turns = [math.pi / 2 + half - 2 * half * n / STEPS for n in range(STEPS + 1)]
    head = [(span / 2 + radius * math.cos(turn), rise - radius + radius * math.sin(turn)) for turn in turns]
    legs = 0.3 * span
    d.sketch.area([(0, -legs), (0, 0), *head, (span, 0), (span, -legs)], Layer.SPACE)
    d.sketch.line([(0, -legs), (0, 0), *head, (span, 0), (span, -legs)], Layer.LEAF)
    d.sketch.line([(0, 0), (span, 0)], Layer.HIDDEN)
    centre = (span / 2, rise - radius)
    d.sketch.dimension(centre, head[STEPS // 4], d.text("radius"), figure="radius")
    d.across(0, span, -0.8 * legs, "span")
    d.up(0, rise, span / 2, "rise")


def sliding_leaf(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, h, side = d.v("opening_width"), d.v("opening_height"), d.v("overlap_side")
    wide, high, foot, track = d.v("leaf_width"), d.v("leaf_height"), d.v("gap_floor"), d.v("least_track")
    d.wall(Rect(-side - 0.2 * w, 0, track - side + 0.1 * w, max(h, foot + high) + 0.12 * h))
    d.sketch.rect(Rect(0, 0, w, h), Layer.SPACE)
    d.wood(Rect(-side, foot, wide - side, foot + high))
    d.sketch.box(Rect(0, 0, w, h), Layer.HIDDEN)
    rail = Rect(-side, foot + high + 0.02 * h, track - side, foot + high + 0.045 * h)
    d.sketch.rect(rail, Layer.METAL)
    d.sketch.box(rail, Layer.OUTLINE)
    d.across(-side, wide - side, foot + 0.55 * high, "leaf_width")
    d.up(foot, foot + high, -side - 0.3 * w, "leaf_height")
    d.across(rail.x0, rail.x1, rail.y1 + 0.04 * h, "least_track")
    d.across(0, w, -0.04 * h, "opening_width")


def bypass(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, side, wide, track = d.v("opening_width"), d.v("overlap_side"), d.v("leaf_width"), d.v("track")
    t = 0.03 * w
    for rect in (Rect(-side - 0.1 * w, 3 * t, 0, 5 * t), Rect(w, 3 * t, w + side + 0.1 * w, 5 * t)):
        d.wall(rect)
    d.wood(Rect(-side, 0, wide - side, t), Grain.LEVEL)
    d.wood(Rect(track - side - wide, 1.5 * t, track - side, 2.5 * t), Grain.LEVEL)
    d.across(-side, wide - side, -1.4 * t, "leaf_width")
    d.across(0, w, 6.2 * t, "opening_width")
    d.across(-side, track - side, 8.4 * t, "track")
    d.across(w - d.v("clear_way"), w, -3.6 * t, "clear_way")
    d.note(w / 2, -5.6 * t, "from above")


def lining(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    rough, pack, t = d.v("rough_width"), d.v("packing"), d.v("thickness")
    deep = max(0.12 * rough, 3 * t)
    out = d.v("outside")
    for x0, x1 in ((-0.18 * rough, 0.0), (rough, 1.18 * rough)):
        d.wall(Rect(x0, 0, x1, deep))
    for x in (pack / 2, pack / 2 + out - t):
        d.wood(Rect(x, -0.05 * deep, x + t, 1.05 * deep), Grain.END)
    d.across(pack / 2 + t, pack / 2 + out - t, 0.5 * deep, "between")
    d.across(pack / 2, pack / 2 + out, 1.4 * deep, "outside")
    d.across(0, rough, 1.9 * deep, "rough_width")
    d.note(rough / 2, -0.4 * deep, "in plan")


def boards(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, count, end, cover = d.v("leaf_width"), round(d.v("boards")), d.v("end_width"), d.v("cover")
    h, x = 0.9 * w, 0.0
    for n in range(count):
        wide = w if count == 1 else end if n in (0, count - 1) else cover
        d.wood(Rect(x, 0, x + wide, h), asked=n in (0, count - 1))
        d.sketch.label((x + wide / 2, 0.5 * h), str(n + 1), BOLD)
        x += wide
    d.across(0, end, 1.06 * h, "end_width")
    d.across(w - end, w, 1.06 * h, "end_width")
    d.across(0, w, -0.07 * h, "leaf_width")


def last_rip(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, rip = d.v("leaf_width"), d.v("last_rip")
    h, x, n = 0.9 * w, 0.0, 1
    while figure_name(f"laid_{n}") in d.found.figures:
        wide = d.v(f"laid_{n}")
        d.wood(Rect(x, 0, x + wide, h), asked=False)
        d.sketch.label((x + wide / 2, 0.5 * h), d.show.length(wide, sign=False), room=Room(wide))
        x, n = x + wide, n + 1
    d.wood(Rect(x, 0, x + rip, h))
    d.across(x, w, 1.06 * h, "last_rip")
    d.across(0, w, -0.07 * h, "leaf_width")


def brace(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    b, h, w = d.v("width"), d.v("height"), d.v("brace_width")
    ledge = 1.1 * w
    for y in (-ledge, h):
        d.wood(Rect(-0.1 * b, y, 1.1 * b, y + ledge), Grain.LEVEL, asked=False)
    shape = corner_shape(0, 0, b, h, w)
    d.shape(shape)
    d.sketch.dimension(shape[0], shape[-1], d.text("long_edge"), figure="long_edge")
    d.across(0, b, -1.5 * ledge, "width")
    d.up(0, h, 1.2 * b, "height")
    d.note(0.62 * b, 0.06 * h, d.text("angle"))
    d.note(0.5 * b, h + 1.5 * ledge, f"blank {d.text('blank_length')}")


def grooves(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, band, count, pitch = d.v("width"), d.v("band"), round(d.v("grooves")), d.v("pitch")
    h = 0.7 * w
    d.wood(Rect(0, 0, w, h))
    for n in range(count):
        d.sketch.line([(band + n * pitch, 0), (band + n * pitch, h)], Layer.OUTLINE)
    d.across(band, band + pitch, 0.5 * h, "pitch")
    d.across(0, band, 1.07 * h, "band")
    d.across(0, w, -0.08 * h, "width")


def reduce_split(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, to, stile, panels = d.v("from_width"), d.v("to_width"), d.v("stile_cut"), round(d.v("panels"))
    h, thick = 0.8 * w, max(0.1 * w, stile * 1.6)
    d.wood(Rect(0, 0, w, h), asked=False)
    for x in (0.0, w - stile):
        d.sketch.rect(Rect(x, 0, x + stile, h), Layer.WASTE)
    each = (w - 2 * thick - (panels - 1) * 0.05 * w) / panels
    per, step = d.v("per_panel"), d.v("step")
    middle = _middle(panels, round(d.v("left_over") / step))
    for n in range(panels):
        x = thick + n * (each + 0.05 * w)
        d.sketch.rect(Rect(x, 0.1 * h, x + each, 0.9 * h), Layer.PANEL)
        d.sketch.box(Rect(x, 0.1 * h, x + each, 0.9 * h), Layer.OUTLINE)
        d.sketch.label((x + each / 2, 0.5 * h), d.show.length(-(per + step * (n in middle))), BOLD)
    d.across(0, w, -0.08 * h, "from_width")
    d.across((w - to) / 2, (w + to) / 2, 1.08 * h, "to_width")


def _middle(panels: int, left: int) -> set[int]:
    """Return which panels take a step more: those nearest the middle."""
    return set(sorted(range(panels), key=lambda n: abs(n - (panels - 1) / 2))[:left])


def tenon_panel(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, stile, groove, room = d.v("leaf_width"), d.v("stile"), d.v("groove"), d.v("room")
    shoulder, rail, tenon, panel = d.v("shoulder"), d.v("rail_length"), d.v("tenon"), d.v("panel_width")
    h, wide = 0.62 * w, 0.16 * w
    for x in (0.0, w - stile):
        d.wood(Rect(x, 0, x + stile, h), asked=False)
    x0 = (w - shoulder) / 2
    d.wood(Rect(x0, 0, x0 + shoulder, wide), Grain.LEVEL)
    for x in (x0 - tenon, x0 + shoulder):
        d.sketch.box(Rect(x, 0.2 * wide, x + tenon, 0.8 * wide), Layer.HIDDEN)
    d.sketch.rect(Rect(stile, wide, w - stile, h), Layer.PANEL)
    d.sketch.box(Rect(stile - groove + room, wide - groove + room, w - stile + groove - room, h), Layer.HIDDEN)
    d.across((w - panel) / 2, (w + panel) / 2, 0.6 * h, "panel_width")
    d.across(x0, x0 + shoulder, 0.5 * wide, "shoulder")
    d.across((w - rail) / 2, (w + rail) / 2, -0.5 * wide, "rail_length")
    d.across(0, w, 1.1 * h, "leaf_width")
    d.sketch.label((stile / 2, 0.5 * h), d.text("stile"), Lettering(on_paper=True), anchor=Anchor.CENTRE)


VIEWS = {
    "leaf-size": leaf_size,
    "edge-bevel": edge_bevel,
    "square": square,
    "arch": arch,
    "sliding-leaf": sliding_leaf,
    "bypass": bypass,
    "lining": lining,
    "board-layout": boards,
    "last-rip": last_rip,
    "brace": brace,
    "groove-spacing": grooves,
    "reduce-split": reduce_split,
    "tenon-panel": tenon_panel,
}
