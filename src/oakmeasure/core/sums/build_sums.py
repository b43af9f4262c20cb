"""Quick sums of the leaf's own construction."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.braces import corner_brace
from oakmeasure.core.construction.spacing import board_count, equal_ends, even_split, pitch_between
from oakmeasure.core.figures.figure import FIXED, minus, plus, total
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.sums.quick import Given, Sum, SumOption, allowance, rule, size
from oakmeasure.core.timber.resaw import Resawing, resawn


def _board_layout(g: Given) -> None:
    width, cover, loss = (g.figure(name) for name in ("leaf-width", "cover", "edge-loss"))
    count = board_count(width=width.value, cover=cover.value, groove=loss.value)
    boards = g.figures.derived(
        "boards",
        "boards",
        float(count),
        width,
        cover,
        loss,
        formula="fewest n with n × cover − edge loss ≥ width",
        unit=Unit.COUNT,
    )
    g.figures.derived(
        "end_width",
        "both end boards, ripped alike",
        equal_ends(width=width.value, cover=cover.value, count=count),
        width,
        cover,
        boards,
        formula="(width − (n − 2) × cover) / 2",
    )


def _brace(g: Given) -> None:
    field = [g.figure(name) for name in ("width", "height", "brace-width")]
    found = corner_brace(base=field[0].value, height=field[1].value, width=field[2].value)
    for name, label, value, unit, formula in (
        ("angle", "from the level", found.angle_deg, Unit.DEG, "b·sin α − h·cos α = brace"),
        ("long_edge", "each long edge", found.edge, Unit.MM, "h / sin α"),
        ("blank_length", "blank", found.blank, Unit.MM, "h / sin α + brace / tan α"),
    ):
        g.figures.derived(figure_name(name), label, value, *field, formula=formula, unit=unit)


def _veneer_yield(g: Given) -> None:
    stock, veneer, kerf = (g.figure(name) for name in ("board-thickness", "veneer", "kerf"))
    found = resawn(Resawing(stock=stock.value, raw=veneer.value, kerf=kerf.value, sanding=0.0, wander=0.0))
    g.figures.derived(
        "leaves",
        "leaves out of the board",
        float(len(found.slices)),
        stock,
        veneer,
        kerf,
        formula="most n with n × veneer + (n − 1) × kerf ≤ thickness",
        unit=Unit.COUNT,
    )


def _groove_spacing(g: Given) -> None:
    width, band, grooves = (g.figure(name) for name in ("width", "band", "grooves"))
    if 2 * band.value >= width.value:
        raise InputError("band", f"{band.value:g}", f"less than half the width, {width.value / 2:g} mm")
    pitch = pitch_between(width=width.value, band=band.value, count=int(grooves.value))
    g.figures.derived(
        "pitch",
        "from line to line",
        pitch,
        width,
        band,
        grooves,
        formula="(width − 2 × band) / (n − 1), the band to the outer line's middle",
    )


def _last_rip(g: Given) -> None:
    laid = g.many("laid")
    terms = [plus(g.figure("leaf-width"))]
    for at, each in enumerate(laid, start=1):
        terms.append(minus(g.figures.given(figure_name(f"laid_{at}"), f"board {at}, as laid", each, FIXED)))
    last = total("last_rip", "rip the last board to", *terms)
    if last.value <= 0:
        raise InputError("laid", f"{sum(laid):g}", f"less than the leaf, {g.number('leaf-width'):g} mm, all together")
    g.figures.add(last)


def _reduce_split(g: Given) -> None:
    wide, narrow, stile = (g.figure(name) for name in ("from-width", "to-width", "stile-cut"))
    panels, step = g.figure("panels"), g.figure("step")
    off = g.figures.total("off_panels", "off the panels together", plus(wide), minus(narrow), minus(stile, 2))
    if off.value < -1e-9:
        raise InputError("stile-cut", f"{stile.value:g}", f"at most {(wide.value - narrow.value) / 2:g} mm")
    each, left = even_split(total=off.value, count=int(panels.value), step=step.value)
    per = g.figures.derived("per_panel", "off each panel", each, off, panels, step, formula="whole steps a panel")
    g.figures.derived(
        "left_over", "left over, for the middle panels", left, off, per, panels, formula="what is off − panels × that"
    )


def _tenon_panel(g: Given) -> None:
    leaf, stile, groove, room = (g.figure(name) for name in ("leaf-width", "stile", "groove", "room"))
    sticking, tenon = g.figure("sticking"), g.figure("tenon")
    sight = total("sight", "between the stiles", plus(leaf), minus(stile, 2))
    if sight.value <= 0:
        raise InputError("stile", f"{stile.value:g}", f"less than half the leaf, {leaf.value / 2:g} mm")
    if room.value > groove.value:
        raise InputError("room", f"{room.value:g}", f"at most the groove, {groove.value:g} mm")
    if sticking.value + tenon.value > stile.value:
        raise InputError("tenon", f"{tenon.value:g}", f"at most {stile.value - sticking.value:g} mm, through the stile")
    g.figures.add(sight)
    shoulder = g.figures.total("shoulder", "rail, shoulder to shoulder", plus(sight), plus(sticking, 2))
    g.figures.total("rail_length", "rail, whole", plus(shoulder), plus(tenon, 2))
    g.figures.total(
        "panel_width",
        "panel, width",
        plus(sight),
        plus(groove, 2),
        minus(room, 2),
        source="groove counted from the sight edge",
    )


SUMS = (
    Sum(
        "board-layout",
        "Boards across a leaf",
        "How many boards of a cover make the width, and the end boards when both are ripped alike.",
        "boarded ledged tongue cover match ends",
        (size("leaf-width", "leaf, width"), size("cover", "cover of a board"), allowance("edge-loss", "groove, depth")),
        ("boards", "end_width"),
        _board_layout,
        {"width": "leaf-width", "groove": "edge-loss"},
        {"cover": "build.cover"},
    ),
    Sum(
        "brace",
        "Brace in a field",
        "Angle, edges and blank of a brace whose ends lie on the ledges.",
        "ledge diagonal angle boarded Z foot",
        (size("width", "field, width"), size("height", "field, height"), size("brace-width", "brace, width")),
        ("angle", "long_edge", "blank_length"),
        _brace,
        {"base": "width", "width": "brace-width"},
        {"brace-width": "build.brace_width"},
    ),
    Sum(
        "veneer-yield",
        "Veneers out of a board",
        "How many leaves the saw gets out of a thickness.",
        "resaw leaves slices kerf band saw",
        (
            size("board-thickness", "board, thickness"),
            size("veneer", "veneer, as sawn"),
            allowance("kerf", "kerf", None),
        ),
        ("leaves",),
        _veneer_yield,
        {"stock": "board-thickness", "raw": "veneer"},
        {"board-thickness": "build.stock", "veneer": "build.veneer"},
    ),
    Sum(
        "groove-spacing",
        "Lines at equal distances",
        "From line to line, between two bands.",
        "v groove bead pitch spacing equal",
        (
            size("width", "width"),
            allowance("band", "edge to the outer line's middle", None),
            SumOption("grooves", "lines", Unit.COUNT, low=2, high=200),
        ),
        ("pitch",),
        _groove_spacing,
        sends={"band": "build.band", "grooves": "build.grooves"},
    ),
    Sum(
        "last-rip",
        "The last board",
        "What is left for the last board once the others lie there.",
        "board rip laid boarded measured",
        (size("leaf-width", "leaf, width"), size("laid", "a board, as laid", repeated=True)),
        ("last_rip",),
        _last_rip,
    ),
    Sum(
        "reduce-split",
        "A leaf made narrower",
        "What comes off each panel when the stiles have given theirs, in whole steps of the rule.",
        "reduce cut down narrow panels existing",
        (
            size("from-width", "leaf, as it is"),
            size("to-width", "leaf, wanted"),
            allowance("stile-cut", "off each stile"),
            SumOption("panels", "panels side by side", Unit.COUNT, low=1, high=20),
            size("step", "in whole steps of", default=rule("joint_step")),
        ),
        ("per_panel", "left_over"),
        _reduce_split,
    ),
    Sum(
        "tenon-panel",
        "Rail and panel of a framed leaf",
        "Shoulder, rail with its tenons, and panel with its room.",
        "framed mortise shoulder stile groove coped sticking",
        (
            size("leaf-width", "leaf, width"),
            size("stile", "stile, width"),
            allowance("groove", "groove, depth", rule("groove_depth")),
            allowance("room", "room for the panel, each side", 2.0),
            allowance("sticking", "sticking"),
            allowance("tenon", "tenon, from its shoulder", None),
        ),
        ("shoulder", "rail_length", "panel_width"),
        _tenon_panel,
        sends={"stile": "build.stile", "sticking": "build.sticking", "groove": "build.groove_depth"},
    ),
)
