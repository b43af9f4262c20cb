"""What the Fit sheet asks: the way of hanging, and what is chosen for it."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.app.sheet_parts import Choice, Field, Group, enum_options, field_choice
from oakmeasure.core.drawings.views import FitPage
from oakmeasure.core.hang_choices import Aim, Hanging, LeafShape
from oakmeasure.core.job import Leaf
from oakmeasure.core.units import Unit


def _gap(edge: str, label: str, note: str = "") -> Field:
    ref = {"head": "figure:gap_head_hinges", "floor": "figure:gap_floor_hinges"}.get(edge, f"figure:gap_{edge}")
    return Field(f"fit.gap_{edge}", label, figure=f"gap_{edge}", optional=True, ref=ref, note=note)


def _slide(name: str, label: str, note: str = "", *, optional: bool = False, signed: bool = False) -> Field:
    return Field(f"slide.{name}", label, note=note, optional=optional, signed=signed, figure=name, ref=f"figure:{name}")


def _where(test: Callable[[Hanging], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: test(leaf.hanging)


_FLOOR = _gap("floor", "over the floor", "from the finished floor; over carpet from the top of its pile")


def fit_groups(rules: Choice) -> tuple[Group, ...]:
    """Return the groups of the Fit sheet. rules: the choice of shop rules."""
    page = FitPage.LEAF
    hung = _where(lambda way: not way.covers and not way.lies_on)
    return (
        Group("Way of hanging", (field_choice("hanging", "It hangs", enum_options(Hanging)), rules), page=page),
        Group("Of a crooked opening", (
            field_choice("fit.shape", "Made", enum_options(LeafShape)),
            field_choice("fit.aim", "Square: aim", enum_options(Aim)),
        ), page=page, when=_where(lambda way: way in (Hanging.LINING, Hanging.INSET_BUTTS))),
        Group("Gaps", (
            _gap("hinge", "at the hinges"), _gap("latch", "at the latch"), _gap("head", "at the head"), _FLOOR,
        ), hint="empty: by the rules", page=page, when=hung),
        Group("Where the two meet", (
            Field("pair.meeting", "gap", figure="gap_meeting", optional=True, ref="figure:gap_meeting"),
            Field("pair.rebate", "rebated, overlap", note="0: they meet square", ref="figure:rebate"),
        ), page=page, when=_where(lambda way: way is Hanging.PAIR)),
        Group("Lies on its opening by", (
            Field("cabinet.overlay", "overlay", note="on each side; on a shared division by the gap there",
                  ref="figure:overlay"),
        ), page=page, when=_where(lambda way: way.lies_on)),
        Group("Division that two share", (
            Field("cabinet.division", "division", ref="figure:division"),
            Field("cabinet.gap", "gap of the two", ref="figure:gap_between"),
        ), page=page, when=_where(lambda way: way is Hanging.HALF_OVERLAY)),
        Group("Run on one frame", (
            Field("cabinet.run", "leaves", Unit.COUNT, "openings of one size, side by side"),
            Field("cabinet.frame", "frame between", ref="figure:run_between"),
        ), page=page, when=_where(lambda way: way is Hanging.OVERLAY)),
        Group("Beyond the opening", (
            _slide("overlap_hinge", "left, or hinge side", "may be negative", signed=True),
            _slide("overlap_latch", "right, or latch side", "may be negative", signed=True),
            _slide("overlap_head", "at the head", "may be negative", signed=True),
            _FLOOR,
        ), page=page, when=_where(lambda way: way.covers)),
        Group("Where they pass", (
            _slide("centre", "overlap in the middle", "empty: the least", optional=True),
            _slide("roller", "roller, wide"), _slide("roller_in", "its centre from the edge"),
        ), page=page, when=_where(lambda way: way.bypasses)),
        Group("A slab at hand", (
            Field("slide.size_width", "width", optional=True, has_state=True),
            Field("slide.size_height", "height", optional=True, has_state=True),
        ), page=page, when=_where(lambda way: way.covers and not way.bypasses), hint="empty: made to size"),
        Group("Left on to trim", (
            Field("fit.trim_side", "each side", figure="trim_side", optional=True,
                  note="planed off when the leaf is fitted; apart from the finished size"),
            Field("fit.trim_height", "top and bottom each", figure="trim_height", optional=True),
        ), page=page),
        Group("Latch edge", (
            Field("fit.bevel_deg", "bevel", Unit.DEG, "towards the closing face; the opening face keeps the width",
                  "bevel", optional=True, ref="figure:bevel"),
        ), page=page, when=_where(lambda way: way.has_butts)),
        Group("Track and wall", (
            _slide("track", "track at hand", "empty: cut to need", optional=True),
            _slide("free_wall", "free wall beside", "empty: not read", optional=True),
            _slide("stop", "kept free for the stop"),
            _slide("pull", "pull that stops at the jamb", "comes off the clear way"),
            _slide("gear_height", "set needs above the leaf", "of opening, beyond the leaf's height", optional=True),
        ), page=FitPage.WAY, when=_where(lambda way: way.slides)),
        Group("Out of the wall", (
            _slide("air", "air it passes with"),
            _slide("stand_off", "track stands off by", "wall to the leaf's back; empty: not known", optional=True),
            _slide("projection", "wished: no more than", "a wish, with its price", optional=True),
        ), page=FitPage.WAY, when=_where(lambda way: way.covers)),
        Group("The butt's pin", (
            Field("hardware.butt.knuckle", "out from the face", has_state=True,
                  note="half of what an architrave stands out lets the leaf open to 180°"),
            Field("hardware.butt.setback", "back from the edge", has_state=True),
        ), page=FitPage.WAY, when=_where(lambda way: way.has_butts)),
    )  # fmt: skip
