"""Quick sums of the opening and the leaf in it."""

from __future__ import annotations

from oakmeasure.core.base.arcs import segmental_radius
from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Unit
from oakmeasure.core.figures.figure import minus, plus, total
from oakmeasure.core.fit.bypass_sums import bypassing
from oakmeasure.core.fit.swing.bevel import least_bevel_deg, square_corner_growth
from oakmeasure.core.sums.quick import Given, Sum, SumOption, allowance, rule, size
from oakmeasure.core.survey.square import corner_angle_deg, skew_from_diagonal


def _leaf_size(g: Given) -> None:
    pair = g.number("leaves") == 2
    between = g.figure("opening-width")
    if pair:
        g.figure("leaves")
        both = total(
            "both_leaves",
            "both leaves together",
            plus(between),
            minus(g.figure("gap-hinge"), 2),
            minus(g.figure("gap-meeting")),
        )
        width = total("leaf_width", "leaf, width", plus(g.figures.add(both), 0.5))
    else:
        width = total(
            "leaf_width", "leaf, width", plus(between), minus(g.figure("gap-hinge")), minus(g.figure("gap-latch"))
        )
    _left(width.value, "opening-width", g.number("opening-width"))
    g.figures.add(width)
    height = total(
        "leaf_height",
        "leaf, height",
        plus(g.figure("opening-height")),
        minus(g.figure("gap-head")),
        minus(g.figure("gap-floor")),
        source="floor gap from the finished floor",
    )
    _left(height.value, "opening-height", g.number("opening-height"))
    g.figures.add(height)


def _left(value: float, option: str, given: float) -> None:
    if value <= 0:
        raise InputError(option, f"{given:g}", "more than the gaps together")


def _edge_bevel(g: Given) -> None:
    width, thickness = g.figure("leaf-width"), g.figure("thickness")
    knuckle, setback = g.figure("knuckle"), g.figure("pin-setback")
    plan = {"width": width.value, "thickness": thickness.value, "knuckle": knuckle.value, "setback": setback.value}
    gap, margin = g.figure("gap"), g.figure("margin")
    g.figures.derived(
        "square_growth",
        "a square back corner grows by",
        square_corner_growth(**plan),
        width,
        thickness,
        knuckle,
        setback,
        formula="√((w + s)² + t² + 2tp) − (w + s)",
        source="a corner turned about its pin",
    )
    g.figures.derived(
        "least_bevel",
        "least bevel",
        least_bevel_deg(**plan, gap=gap.value, margin=margin.value),
        width,
        thickness,
        knuckle,
        setback,
        gap,
        margin,
        formula="atan(((w + s) − √((w + s + g − m)² − t² − 2tp)) / t)",
        unit=Unit.DEG,
    )


def _square(g: Given) -> None:
    sides = [g.figure(name) for name in ("width", "height", "diagonal")]
    w, h, d = (each.value for each in sides)
    g.figures.derived(
        "skew",
        "skew over the height",
        skew_from_diagonal(width=w, height=h, diagonal=d),
        *sides,
        formula="(d² − w² − h²) / (2w); more than 0: this diagonal is the long one",
    )
    g.figures.derived(
        "corner_angle",
        "angle of the corner across from it",
        corner_angle_deg(width=w, height=h, diagonal=d),
        *sides,
        formula="acos((w² + h² − d²) / (2wh))",
        source="law of cosines",
        unit=Unit.DEG,
    )


def _arch(g: Given) -> None:
    span, rise = g.figure("span"), g.figure("rise")
    g.figures.derived(
        "radius",
        "radius",
        segmental_radius(span=span.value, rise=rise.value),
        span,
        rise,
        formula="s² / (8h) + h / 2",
        source="Euclid III.35",
    )


def _sliding_leaf(g: Given) -> None:
    width = g.figures.total(
        "leaf_width", "leaf, width", plus(g.figure("opening-width")), plus(g.figure("overlap-side"), 2)
    )
    height = total(
        "leaf_height",
        "leaf, height",
        plus(g.figure("opening-height")),
        plus(g.figure("overlap-head")),
        minus(g.figure("gap-floor")),
        source="from the highest floor that it passes",
    )
    _left(width.value, "overlap-side", g.number("overlap-side"))
    _left(height.value, "opening-height", g.number("opening-height"))
    g.figures.add(height)
    g.figures.total("least_track", "track, at least", plus(width, 2))


def _bypass(g: Given) -> None:
    one = g.number("tracks") == 1
    opening, side, centre = (g.figure(name) for name in ("opening-width", "overlap-side", "overlap-centre"))
    roller = g.figure("roller-width")
    bypassing(
        opening=opening.value,
        side=side.value,
        centre=centre.value,
        one_rail=one,
        roller=roller.value,
        roller_in=g.number("roller-in"),
    )  # refuses what cannot pass
    track = g.figures.total("track", "track", plus(opening), plus(side, 2))
    leaf = g.figures.total("leaf_width", "each leaf, width", plus(track, 0.5), plus(centre, 0.5))
    terms = [plus(opening), minus(leaf), plus(side), *([minus(roller)] if one else [])]
    why = "on one rail the wheels cannot pass each other" if one else "on two tracks"
    g.figures.total("clear_way", "clear way", *terms, source=why)


def _lining(g: Given) -> None:
    outside = total("outside", "lining, outside", plus(g.figure("rough-width")), minus(g.figure("packing")))
    _left(outside.value, "packing", g.number("packing"))
    g.figures.add(outside)
    between = total("between", "between the jambs", plus(outside), minus(g.figure("thickness"), 2))
    _left(between.value, "thickness", g.number("thickness"))
    g.figures.add(between)


SUMS = (
    Sum(
        "leaf-size",
        "Leaf from an opening",
        "Width and height of a leaf, or of each of a pair, less the gaps.",
        "door size opening clear gap pair double hung",
        (
            size("opening-width", "opening, clear width"),
            size("opening-height", "opening, clear height"),
            SumOption("leaves", "leaves", Unit.COUNT, 1.0, low=1, high=2),
            allowance("gap-hinge", "gap, hinge side", rule("gap_hinge")),
            allowance("gap-latch", "gap, latch side", rule("gap_latch")),
            allowance("gap-meeting", "gap where a pair meets", 3.0),
            allowance("gap-head", "gap, head", rule("gap_head")),
            allowance("gap-floor", "gap, floor", rule("gap_floor")),
        ),
        ("leaf_width", "leaf_height"),
        _leaf_size,
    ),
    Sum(
        "edge-bevel",
        "Bevel of the latch edge",
        "How far a square back corner grows as the leaf opens, and the least bevel that lets it pass.",
        "swing bind corner plane angle latch",
        (
            size("leaf-width", "leaf, width"),
            size("thickness", "leaf, thickness"),
            allowance("gap", "gap at the latch", rule("gap_latch")),
            allowance("margin", "gap that it keeps as it passes", rule("bevel_margin")),
            allowance("knuckle", "pin out from the face", None),
            allowance("pin-setback", "pin back from the edge", 0.0, low=-20.0),
        ),
        ("square_growth", "least_bevel"),
        _edge_bevel,
        {"width": "leaf-width", "setback": "pin-setback"},
        {"least_bevel": "fit.bevel_deg", "margin": "fit.bevel_margin"},
    ),
    Sum(
        "square",
        "Out of square",
        "Skew and corner from two sides and the diagonal across them.",
        "skew diagonal corner angle rack",
        (size("width", "width"), size("height", "height"), size("diagonal", "diagonal")),
        ("skew", "corner_angle"),
        _square,
        sends={
            "width": "readings.width_middle",
            "height": "readings.height_middle",
            "diagonal": "readings.diagonal_rising",
        },
    ),
    Sum(
        "arch",
        "Radius of an arch",
        "The radius of a segmental head from its span and rise.",
        "segmental curve head radius trammel",
        (size("span", "span"), size("rise", "rise")),
        ("radius",),
        _arch,
        sends={"rise": "head.rise"},
    ),
    Sum(
        "sliding-leaf",
        "Leaf that slides",
        "A leaf in front of the wall, and the track that it needs.",
        "slide track rail overlap barn",
        (
            size("opening-width", "opening, width"),
            size("opening-height", "opening, height"),
            allowance("overlap-side", "overlap, each side", None, low=-200.0),
            allowance("overlap-head", "overlap at the head; less than 0 where it stops short", None, low=-500.0),
            allowance("gap-floor", "gap, floor", 12.0),
        ),
        ("leaf_width", "leaf_height", "least_track"),
        _sliding_leaf,
    ),
    Sum(
        "bypass",
        "Two leaves that pass each other",
        "Track, leaves and the clear way with one leaf behind the other.",
        "slide by-pass wardrobe overlap roller rail",
        (
            size("opening-width", "opening, width"),
            allowance("overlap-side", "overlap, each side", None),
            allowance("overlap-centre", "overlap in the middle", None),
            SumOption("tracks", "tracks", Unit.COUNT, 2.0, low=1, high=2),
            allowance("roller-width", "roller, width"),
            allowance("roller-in", "roller's middle from the leaf's edge"),
        ),
        ("track", "leaf_width", "clear_way"),
        _bypass,
        {"opening": "opening-width", "side": "overlap-side", "centre": "overlap-centre"},
    ),
    Sum(
        "lining",
        "Lining in a rough opening",
        "Outside of the lining, and between its jambs.",
        "frame jamb casing rough structural packing",
        (
            size("rough-width", "rough opening, width"),
            allowance("packing", "packing, both sides together", 12.0),
            size("thickness", "lining, thickness"),
        ),
        ("outside", "between"),
        _lining,
        sends={"packing": "lining.packing", "thickness": "lining.thickness"},
    ),
)
