"""What the Fit sheet asks: the way of hanging, and what is chosen for it."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.hanging import Aim, EvenGap, Hanging, LeafShape, Shim, track_sets
from oakmeasure.core.document.job import Job, Leaf
from oakmeasure.core.drawings.views import FitPage
from oakmeasure.core.edits import job_edits
from oakmeasure.core.fit import even_reveal
from oakmeasure.core.forms.fields import Ask, Choice, Column, Command, Field, Group, Rows, enum_options, field_choice


def _gap(edge: str, label: str, note: str = "") -> Field:
    ref = {"head": "figure:gap_head_hinges", "floor": "figure:gap_floor_hinges"}.get(edge, f"figure:gap_{edge}")
    return Field(f"fit.gap_{edge}", label, figure=f"gap_{edge}", optional=True, ref=ref, note=note)


def _slide(
    name: str, label: str, note: str = "", *, optional: bool = False, signed: bool = False, has_state: bool = False
) -> Field:
    ref = f"figure:{name}"
    return Field(f"slide.{name}", label, Unit.MM, note, name, signed, optional, has_state, ref)


def _where(test: Callable[[Hanging], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: test(leaf.hanging)


def _stands_alone(leaf: Leaf) -> bool:
    return leaf.hanging in (Hanging.LINING, Hanging.INSET_BUTTS)


def _is_even(leaf: Leaf) -> bool:
    return even_reveal.is_the_aim(leaf)


def _set_key(job: Job, leaf_id: str) -> str:
    chosen = job.leaf(leaf_id).slide.track_set
    return next((key for key, each in track_sets().items() if each == chosen), "") if chosen else "none"


_SET = Choice(
    "track-set",
    "Set",
    lambda: [("none", "none yet"), *((key, each.name) for key, each in track_sets().items())],
    _set_key,
    lambda job, leaf_id, key: job_edits.with_field(job, leaf_id, "slide.track_set", track_sets().get(key)),
    "made-up makers; its sheet gives stand-off, drop, rollers and what it needs",
)
_EVEN = Choice(
    "has-fit.even",
    "The gaps are",
    lambda: [(False, "those that are chosen"), (True, "what the hinges make")],
    lambda job, leaf_id: job.leaf(leaf_id).fit.even is not None,
    lambda job, leaf_id, is_aim: job_edits.with_field(job, leaf_id, "fit.even", EvenGap() if is_aim else None),
    "the leaf is left full and hung; the other sides are planed to the gap at the hinges",
)
_SHIMS = Rows(
    "shims",
    "fit.even.shims",
    (Column("thickness", "thick"), Column("count", "how many", Unit.COUNT)),
    lambda values: Shim(**values),
    "shim",
    suggest=lambda _leaf: {"count": 1},
)
_FLOOR = _gap("floor", "over the floor", "from the finished floor; over carpet from the top of its pile")


def fit_groups(rules: Choice) -> tuple[Group, ...]:
    """Return the groups of the Fit sheet. rules: the choice of shop rules."""
    over = (*_cabinet_groups(), *_slide_groups())
    return (*_opening_groups(rules), *over, *_sureness_groups(), *_way_groups(), *_compare_groups())


def _opening_groups(rules: Choice) -> tuple[Group, ...]:
    """How it hangs, of what a crooked opening is made, and its gaps."""
    hung = _where(lambda way: not way.covers and not way.lies_on)
    return (
        Group("Way of hanging", (field_choice("hanging", "It hangs", enum_options(Hanging)), rules), page=FitPage.LEAF),
        Group(
            "Of a crooked opening",
            (
                field_choice("fit.shape", "Made", enum_options(LeafShape)),
                field_choice("fit.aim", "Square: aim", enum_options(Aim)),
            ),
            page=FitPage.LEAF,
            when=_stands_alone,
        ),
        Group(
            "",
            (Field("fit.width_weight_percent", "the width counts", Unit.PERCENT, "the height counts the rest"),),
            page=FitPage.LEAF,
            when=lambda leaf: leaf.fit.aim is Aim.WEIGHED and _stands_alone(leaf),
        ),
        Group(
            "Gaps",
            (_gap("hinge", "at the hinges"), _gap("latch", "at the latch"), _gap("head", "at the head"), _FLOOR),
            hint="empty: by the rules",
            page=FitPage.LEAF,
            when=hung,
        ),
    )


def _cabinet_groups() -> tuple[Group, ...]:
    """A pair, a cabinet's leaf, a run."""
    return (
        Group(
            "Where the two meet",
            (
                Field("pair.meeting", "gap", figure="gap_meeting", optional=True, ref="figure:gap_meeting"),
                Field("pair.rebate", "rebated, overlap", note="0: they meet square", ref="figure:rebate"),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way is Hanging.PAIR),
        ),
        Group(
            "Lies on its opening by",
            (
                Field(
                    "cabinet.overlay",
                    "overlay",
                    note="on each side; on a shared division by the gap there",
                    ref="figure:overlay",
                ),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way.lies_on),
        ),
        Group(
            "Division that two share",
            (
                Field("cabinet.division", "division", ref="figure:division"),
                Field("cabinet.gap", "gap of the two", ref="figure:gap_between"),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way is Hanging.HALF_OVERLAY),
        ),
        Group(
            "Run on one frame",
            (
                Field("cabinet.run", "leaves", Unit.COUNT, "openings of one size, side by side"),
                Field("cabinet.frame", "frame between", ref="figure:run_between"),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way is Hanging.OVERLAY),
        ),
    )


def _slide_groups() -> tuple[Group, ...]:
    """What slides or covers: how far beyond the opening, and what is there."""
    return (
        Group(
            "Beyond the opening",
            (
                _slide("overlap_hinge", "left, or hinge side", "may be negative", signed=True),
                _slide("overlap_latch", "right, or latch side", "may be negative", signed=True),
                _slide("overlap_head", "at the head", "may be negative", signed=True),
                _FLOOR,
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way.covers),
        ),
        Group(
            "Where they pass",
            (
                _slide("centre", "overlap in the middle", "empty: the least", optional=True),
                _slide("roller", "roller, wide", "empty: by the set", optional=True),
                _slide("roller_in", "its centre from the edge", optional=True),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way.bypasses),
        ),
        Group(
            "A slab at hand",
            (
                Field("slide.size_width", "width", optional=True, has_state=True),
                Field("slide.size_height", "height", optional=True, has_state=True),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way.covers and not way.bypasses),
            hint="empty: made to size",
        ),
        Group(
            "A track that is up already",
            (
                _slide("track_up", "floor to its underside", "the leaf hangs under it", optional=True, has_state=True),
                _slide("drop", "its underside to the leaf", "empty: by the set", optional=True),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way.slides),
        ),
    )


def _sureness_groups() -> tuple[Group, ...]:
    """What is left on, an even gap, the latch edge."""
    return (
        Group(
            "Left on to trim",
            (
                Field(
                    "fit.trim_side",
                    "each side",
                    figure="trim_side",
                    optional=True,
                    note="planed off when the leaf is fitted; apart from the finished size",
                ),
                Field("fit.trim_height", "top and bottom each", figure="trim_height", optional=True),
            ),
            page=FitPage.SURE,
        ),
        Group("An even gap as the aim", (_EVEN,), page=FitPage.SURE, when=_stands_alone),
        Group(
            "Gap at the hinges",
            (_SHIMS, Field("fit.even.gap", "or by a feeler", optional=True, has_state=True, figure="gap_made")),
            page=FitPage.SURE,
            when=_is_even,
            hint="shims that just fill it",
        ),
        Group(
            "Leaf left full",
            (
                Field("fit.even.full_width", "width", optional=True, has_state=True, figure="full_width"),
                Field("fit.even.full_height", "height", optional=True, has_state=True, figure="full_height"),
            ),
            page=FitPage.SURE,
            when=_is_even,
            hint="empty: planed to go in by a card",
        ),
        Group(
            "Latch edge",
            (
                Field(
                    "fit.bevel_deg",
                    "bevel",
                    Unit.DEG,
                    "towards the closing face; the opening face keeps the width",
                    "bevel",
                    optional=True,
                    ref="figure:bevel",
                ),
                Field("fit.bevel_margin", "gap it keeps, passing", figure="bevel_margin", optional=True),
            ),
            page=FitPage.LEAF,
            when=_where(lambda way: way.has_butts),
        ),
    )


def _way_groups() -> tuple[Group, ...]:
    """The way it slides: track and wall."""
    return (
        Group(
            "Track and wall",
            (
                _SET,
                _slide("track", "track at hand", "empty: cut to need", optional=True),
                _slide("free_wall", "free wall beside", "empty: not read", optional=True),
                _slide("headroom", "free wall over the head", "to lift the leaf on; empty: not read", optional=True),
                _slide("stop", "kept free for the stop"),
                _slide("pull", "pull that stops at the jamb", "comes off the clear way"),
                _slide(
                    "gear_height",
                    "opening it needs, + leaf",
                    "beyond the leaf's height; empty: by the set",
                    optional=True,
                ),
            ),
            page=FitPage.WAY,
            when=_where(lambda way: way.slides),
        ),
        Group(
            "Out of the wall",
            (
                Field("slide.running_clearance", "air it passes with", figure="slide_air", ref="figure:slide_air"),
                _slide("stand_off", "track stands off by", "wall to the leaf's back; empty: by the set", optional=True),
                _slide("projection", "wished: no more than", "a wish, with its price", optional=True),
            ),
            page=FitPage.WAY,
            when=_where(lambda way: way.covers),
        ),
    )


def _compare_groups() -> tuple[Group, ...]:
    """The hinges' share in the way it opens, and what compares the ways."""
    return (
        Group(
            "The butt's pin",
            (
                Field(
                    "hardware.butt.pin_projection",
                    "out from the face",
                    has_state=True,
                    note="half of what an architrave stands out lets the leaf open to 180°",
                ),
                Field("hardware.butt.pin_inset", "back from the edge", has_state=True),
            ),
            page=FitPage.WAY,
            when=_where(lambda way: way.has_butts),
        ),
        Group(
            "Cup hinges",
            (
                Field(
                    "hardware.cup.hinge.opens", "they open to", Unit.DEG, "by the hinge's sheet", figure="hinge_angle"
                ),
                Field(
                    "cabinet.must_open",
                    "it must open to",
                    Unit.DEG,
                    "a wish; empty: none",
                    optional=True,
                    ref="figure:opens_to",
                ),
            ),
            page=FitPage.WAY,
            when=_where(lambda way: way.is_cabinet and not way.has_butts),
        ),
        Group("Track set", (_SET,), page=FitPage.CHOICES, when=_where(lambda way: way.slides)),
        Group("What it costs", (Command(Ask.SHOP_RULES, "An hour's price: shop rules…"),), page=FitPage.CHOICES),
    )
