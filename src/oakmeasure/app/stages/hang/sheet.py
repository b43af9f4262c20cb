"""What the Hang sheet asks, page by page."""

from __future__ import annotations

from oakmeasure.app.stages.hang.panels import BookPanel, DrillPanel, SignPanel
from oakmeasure.core.document.adjustment import PutRight, RunLeaf, Touches
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.drawings.views import HangPage
from oakmeasure.core.forms.fields import Ask, Column, Command, Field, Group, Panel, Rows, enum_options, field_choice


def _is_hung(leaf: Leaf) -> bool:
    return leaf.hanging.has_butts or leaf.hanging.is_cabinet


def _on_cups(leaf: Leaf) -> bool:
    return leaf.hanging.is_cabinet and not leaf.hanging.has_butts


def _has_gaps(leaf: Leaf) -> bool:
    return leaf.hanging.has_butts or leaf.hanging is Hanging.INSET


def _side(side: str, stations: tuple[str, ...], of: str = "gaps") -> tuple[Field, ...]:
    return tuple(Field(f"hung.{of}.{side}_{name}", name, optional=True) for name in stations)


UP = ("top", "middle", "bottom")
ALONG = ("hinge", "middle", "latch")
HANG: tuple[Group, ...] = (
    Group("Gaps, hinge side", _side("hinge", UP), 3, "shut, by feelers", page=HangPage.GAPS, when=_has_gaps),
    Group("latch side, or the meeting line", _side("latch", UP), 3, page=HangPage.GAPS, when=_has_gaps),
    Group("head", _side("head", ALONG), 3, page=HangPage.GAPS, when=_has_gaps),
    Group("floor", _side("floor", ALONG), 3, page=HangPage.GAPS, when=_has_gaps),
    Group(
        "Slow leaf: hinge side",
        _side("hinge", UP, "second"),
        3,
        page=HangPage.GAPS,
        when=lambda leaf: leaf.hanging is Hanging.PAIR,
    ),
    Group(
        "its head",
        _side("head", ALONG, "second"),
        3,
        page=HangPage.GAPS,
        when=lambda leaf: leaf.hanging is Hanging.PAIR,
    ),
    Group(
        "How it stands",
        (
            Field("hung.gaps.low_hinge", "low at hinge", signed=True, optional=True),
            Field("hung.gaps.low_latch", "low at latch", signed=True, optional=True),
            Field("hung.gaps.proud_top", "proud, top", signed=True, optional=True),
            Field("hung.gaps.proud_bottom", "proud, foot", signed=True, optional=True),
        ),
        2,
        page=HangPage.GAPS,
        when=_on_cups,
    ),
    Group(
        "Out of its plane, at the latch",
        (
            Field("hung.gaps.proud_top", "proud, top", signed=True, optional=True),
            Field("hung.gaps.proud_bottom", "proud, foot", signed=True, optional=True),
        ),
        2,
        page=HangPage.GAPS,
        when=lambda leaf: leaf.hanging.has_butts,
    ),
    Group(
        "",
        (
            field_choice("hung.gaps.touches", "Touches first", enum_options(Touches)),
            field_choice("hung.aim", "Aim", enum_options(PutRight), "both are listed below"),
            Field("hung.tolerance", "a gap may be off"),
            Field("hung.pack_most", "packed at most"),
            Field("hung.let_in_most", "let in at most"),
        ),
        page=HangPage.GAPS,
        when=_is_hung,
    ),
    Group(
        "From the left",
        (
            Rows(
                "hung.run",
                "hung.run",
                (
                    Column("low_left", "low, left", signed=True, optional=True),
                    Column("low_right", "right", signed=True, optional=True),
                    Column("gap_top", "gap, top", optional=True),
                    Column("gap_bottom", "foot", optional=True),
                ),
                lambda values: RunLeaf(**{key: value for key, value in values.items() if value is not None}),
                "leaf",
            ),
        ),
        hint="gap: to the next",
        page=HangPage.RUN,
        when=_on_cups,
    ),
    Group(
        "Shut, at the latch jamb",
        (
            Field("hung.sliding.jamb_top", "gap, top", optional=True),
            Field("hung.sliding.jamb_bottom", "gap, foot", optional=True),
        ),
        2,
        page=HangPage.SLIDE,
        when=lambda leaf: leaf.hanging.slides,
    ),
    Group(
        "Rail, guide, wheels",
        (
            Field(
                "hung.sliding.rail_rises",
                "rail rises",
                note="from the hinge end to the other",
                signed=True,
                optional=True,
            ),
            Field("hung.sliding.rail_bowed", "out of straight", optional=True),
            Field("hung.sliding.guide_rubs", "guide off the middle", optional=True),
            field_choice(
                "hung.sliding.wheels_stiff", "Wheels", lambda: [(False, "turn, or not tried"), (True, "one is stiff")]
            ),
            field_choice(
                "hung.proof_held", "Proof load", lambda: [(False, "not hung yet"), (True, "hung, and it held")]
            ),
        ),
        page=HangPage.SLIDE,
        when=lambda leaf: leaf.hanging.slides,
    ),
    Group("A crooked door", (Panel("drill", DrillPanel),), hint="+ packed, − let in", page=HangPage.PRACTICE),
    Group(
        "As hung",
        (Panel("sign", SignPanel), Command(Ask.RECORD_SHEET, "Record, PDF…", "one side, or two")),
        page=HangPage.RECORD,
    ),
    Group(
        "",
        (
            Panel("book", BookPanel),
            Command(Ask.REOPEN, "Begin a new job with it"),
            Command(Ask.BOOK_FOLDER, "Where the book is kept"),
        ),
        page=HangPage.BOOK,
    ),
)
