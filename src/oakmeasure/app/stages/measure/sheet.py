"""What the Measure sheet asks: the opening as it was taken, what stands round it, the lining to be made."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import Hand, Job, Leaf
from oakmeasure.core.document.old_frame import JambSide, OldRecess, RecessFor
from oakmeasure.core.document.readings import (
    FloorAlong,
    FloorPoint,
    HeadKind,
    InTheWay,
    Lining,
    LiningFrom,
    LiningSchool,
    MeasuredBy,
    Obstruction,
    PolygonSide,
    Side,
    SideOffset,
    Tick,
    TickForm,
)
from oakmeasure.core.document.species import species, species_keys
from oakmeasure.core.drawings.measure.old_frame_view import may_stay
from oakmeasure.core.drawings.views import MeasurePage
from oakmeasure.core.edits import job_edits, tick_edits
from oakmeasure.core.edits.hinge_edits import next_recess
from oakmeasure.core.forms.fields import Ask, Choice, Column, Command, Field, Group, Rows, enum_options, field_choice
from oakmeasure.core.survey.kinds import KINDS, SurveyKind
from oakmeasure.core.survey.takings.polygon import next_span
from oakmeasure.core.survey.tick_board import side_names


def _reading(kind: SurveyKind, label: str, *, signed: bool = False) -> Field:
    return Field(
        f"readings.{kind}",
        label,
        note=KINDS[kind].wanted,
        signed=signed,
        optional=True,
        has_state=True,
        ref=f"reading:{kind}",
    )


def _across(side: str) -> Field:
    return Field(
        f"readings.across_{side}",
        f"{side} side",
        note="across the wall; plus: its head lies to the opening side",
        signed=True,
        optional=True,
        has_state=True,
        ref=f"reading:across_{side}",
    )


def _by(way: MeasuredBy) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.measured_by is way


def _to_be_made(leaf: Leaf) -> bool:
    return leaf.lining is not None


def _sides() -> list[tuple[Any, str]]:
    return [(each, str(each)) for each in Side if each is not Side.BEHIND]


def _tick_columns(leaf: Leaf) -> tuple[str, ...]:
    form = leaf.template.form if leaf.template else TickForm.ANGLE
    more = {TickForm.ANGLE: ("angle_deg",), TickForm.SECOND: ("x2", "y2"), TickForm.POINT: ()}[form]
    return ("x", "y", *more, "side")


_PAGES = MeasurePage
_HAND = field_choice("hand", "Hinges", enum_options(Hand), "seen from the opening side, where the knuckles show")
_TAKEN = Choice(
    "measured_by",
    "Taken by",
    enum_options(MeasuredBy),
    lambda job, leaf_id: job.leaf(leaf_id).measured_by,
    tick_edits.with_measured_by,
    "the others keep what they hold",
)
_FORM = Choice(
    "template.form",
    "Way of the stick",
    enum_options(TickForm),
    lambda job, leaf_id: field_path.get(job.leaf(leaf_id), "template.form"),
    tick_edits.with_tick_form,
    "how the direction of each tick is written; the points stay where they are",
)


def _corner_options() -> list[tuple[Any, str]]:
    names = side_names(4)
    return [(at + 1, f"{names[at]} and {names[(at + 1) % 4]}") for at in range(4)]


def _put_lining(job: Job, leaf_id: str, made: LiningFrom | None) -> Job:
    if made is None:
        return job_edits.with_field(job, leaf_id, "lining", None)
    lining = job.leaf(leaf_id).lining or Lining()
    return job_edits.with_field(job, leaf_id, "lining", lining.model_copy(update={"made_from": made}))


_LINING = Choice(
    "lining",
    "Lining",
    lambda: [(None, "is in, or none"), *((each, f"to {each}") for each in LiningFrom)],
    lambda job, leaf_id: field_path.get(job.leaf(leaf_id), "lining.made_from"),
    _put_lining,
    "to be made: the readings are then those of the rough opening",
)

_BOWS = Rows(
    "bows",
    "bows",
    (
        Column("side", "side", options=_sides, share=7),
        Column("at", "at"),
        Column("into", "in", signed=True, is_reading=True),
    ),
    lambda values: SideOffset(**values),
    "bow",
)
_SWING = Rows(
    "swing",
    "floor.swing",
    (Column("at", "opened", Unit.DEG), Column("height", "height", signed=True, is_reading=True)),
    lambda values: FloorPoint(**values),
    "height",
    where="floor",
)
_TRAVEL = Rows(
    "travel",
    "floor.travel",
    (Column("at", "along", signed=True), Column("height", "height", signed=True, is_reading=True)),
    lambda values: FloorPoint(**values),
    "height",
    where="floor",
)
_THINGS = Rows(
    "in_the_way",
    "in_the_way",
    (
        Column("what", "what", options=enum_options(Obstruction), share=6),
        Column("where", "where", options=enum_options(Side), share=6),
        Column("away", "away", optional=True, share=3),
        Column("up", "up", optional=True, share=3),
        Column("stands_out", "out", signed=True, is_reading=True, share=3),
    ),
    lambda values: InTheWay(**values),
    "thing",
    where="thing",
)
_RECESSES = Rows(
    "recesses",
    "old_frame.recesses",
    (
        Column("what", "for", options=enum_options(RecessFor), share=4),
        Column("jamb", "jamb", options=enum_options(JambSide), share=4),
        Column("down", "down"),
        Column("length", "long", share=3),
        Column("wide", "wide", share=3),
        Column("deep", "deep", share=3),
    ),
    lambda values: OldRecess(**values),
    "recess",
    where="recess",
    suggest=next_recess,
)
_SPANS = Rows(
    "spans",
    "polygon.spans",
    (
        Column("start", "from", Unit.COUNT, share=2),
        Column("end", "to", Unit.COUNT, share=2),
        Column("length", "length", is_reading=True, share=6),
    ),
    lambda values: PolygonSide(**values),
    "length",
    suggest=next_span,
)
_TICKS = Rows(
    "ticks",
    "template.ticks",
    (
        Column("x", "x", signed=True),
        Column("y", "y", signed=True),
        Column("angle_deg", "angle", Unit.DEG, signed=True),
        Column("x2", "x, 2nd", signed=True),
        Column("y2", "y, 2nd", signed=True),
        Column("side", "side", Unit.COUNT, optional=True, share=3),
    ),
    lambda values: Tick(**values),
    "tick",
    where="tick",
    columns_for=_tick_columns,
)

MEASURE: tuple[Group, ...] = (
    Group("", (_TAKEN,), page=_PAGES.OPENING),
    # by tape and level
    Group(
        "Widths",
        (
            _reading(SurveyKind.WIDTH_TOP, "top"),
            _reading(SurveyKind.WIDTH_MIDDLE, "middle"),
            _reading(SurveyKind.WIDTH_BOTTOM, "bottom"),
        ),
        3,
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TAPE),
    ),
    Group(
        "Heights",
        (
            _reading(SurveyKind.HEIGHT_HINGE, "hinge side"),
            _reading(SurveyKind.HEIGHT_MIDDLE, "middle"),
            _reading(SurveyKind.HEIGHT_LATCH, "latch side"),
        ),
        3,
        "from the finished floor",
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TAPE),
    ),
    Group(
        "Diagonals",
        (_reading(SurveyKind.DIAGONAL_RISING, "rising"), _reading(SurveyKind.DIAGONAL_FALLING, "falling")),
        3,
        "rising from the hinge side's foot",
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TAPE),
    ),
    Group(
        "Plumb and level",
        (
            _reading(SurveyKind.LEAN_HINGE, "hinge side", signed=True),
            _reading(SurveyKind.LEAN_LATCH, "latch side", signed=True),
            _reading(SurveyKind.SILL_RISE, "sill", signed=True),
            _reading(SurveyKind.HEAD_RISE, "head", signed=True),
        ),
        3,
        "over the whole side",
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TAPE),
    ),
    Group(
        "Head",
        (
            field_choice(
                "head.kind", "Shape", enum_options(HeadKind), "heights at the sides are read to where it springs"
            ),
            Field(
                "head.rise",
                "rise",
                optional=True,
                has_state=True,
                figure="head_arch_rise",
                ref="figure:head_arch_rise",
                note="crown above where it springs; empty: from the middle height",
            ),
        ),
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TAPE),
    ),
    # by sides and diagonals
    Group(
        "Corners",
        (
            Field("polygon.corners", "how many", Unit.COUNT, "3 to 8; 1 is the foot of the hinge side, then round"),
            _SPANS,
        ),
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.POLYGON),
        hint="sides first, then diagonals",
    ),
    Group(
        "Plumb and level",
        (
            Field(
                "polygon.floor_rise",
                "floor",
                signed=True,
                optional=True,
                has_state=True,
                note="corner 2 over corner 1; plus: higher",
            ),
            Field(
                "polygon.lean_hinge",
                "hinge side",
                signed=True,
                optional=True,
                has_state=True,
                note="over its height; plus: its top leans into the opening",
            ),
        ),
        3,
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.POLYGON),
    ),
    # by ticks
    Group(
        "Stick",
        (
            Field("template.stick", "point to mark", has_state=True),
            _FORM,
            Field(
                "template.sides", "sides", Unit.COUNT, "3 to 8; 1 the floor, 2 the latch side, then round to the hinges"
            ),
            Choice(
                "template.head",
                "Head",
                lambda: [("straight", "straight"), ("curved", "part of a circle")],
                lambda job, leaf_id: field_path.get(job.leaf(leaf_id), "template.head"),
                lambda job, leaf_id, key: job_edits.with_field(job, leaf_id, "template.head", key),
            ),
        ),
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TICKS),
    ),
    Group(
        "Ticks",
        (_TICKS, Command(Ask.IMPORT_TICKS, "Read ticks or points, CSV or DXF…")),
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TICKS),
        hint="side: empty finds itself",
    ),
    Group(
        "Check and nick",
        (
            Choice(
                "template.check_corner",
                "Check corner",
                _corner_options,
                lambda job, leaf_id: field_path.get(job.leaf(leaf_id), "template.check_corner"),
                lambda job, leaf_id, key: job_edits.with_field(job, leaf_id, "template.check_corner", key),
            ),
            Command(Ask.TAKE_CHECK, "Keep the last tick as the check"),
            Field("template.nick_x", "nick, x", signed=True),
            Field("template.nick_y", "nick, y", signed=True),
            Field(
                "template.nick_up",
                "nick over the floor",
                optional=True,
                note="as read on the wall; has the board slipped?",
            ),
        ),
        page=_PAGES.OPENING,
        when=_by(MeasuredBy.TICKS),
    ),
    Group("Bowed sides", (_BOWS,), page=_PAGES.OPENING, hint="off a stretched line, + is in"),
    Group("Which way it hangs", (_HAND,), page=_PAGES.OPENING),
    # round it
    Group(
        "Lean across the wall",
        (
            _across("hinge"),
            _across("latch"),
            Field("readings.depth", "depth", optional=True, has_state=True, note="lining or wall, face to face"),
        ),
        3,
        "over the whole side",
        page=_PAGES.ROUND,
    ),
    Group(
        "Floor on the leaf's way",
        (field_choice("floor.along", "Along", enum_options(FloorAlong)),),
        page=_PAGES.ROUND,
        hint="over the sill at the hinges",
    ),
    Group("", (_SWING,), page=_PAGES.ROUND, when=lambda leaf: leaf.floor.along is FloorAlong.SWING),
    Group("", (_TRAVEL,), page=_PAGES.ROUND, when=lambda leaf: leaf.floor.along is FloorAlong.TRAVEL),
    Group("In the way", (_THINGS,), page=_PAGES.ROUND, hint="out of the wall; − lies in it"),
    # lining
    Group("A lining to be made", (_LINING,), page=_PAGES.LINING),
    Group(
        "A frame that stays",
        (
            Field("old_frame.deep", "its face back to the stop", optional=True, ref="figure:frame_deep"),
            Field(
                "old_frame.rebate_side",
                "stops stand in, each side",
                optional=True,
                ref="figure:frame_rebate",
                note="where the widths were read between the stops; empty: where the leaf goes",
            ),
            Field("old_frame.rebate_head", "and down at the head", optional=True, figure="frame_rebate"),
        ),
        page=_PAGES.LINING,
        when=may_stay,
    ),
    Group("Old recesses, down from the head", (_RECESSES,), page=_PAGES.LINING, when=may_stay),
    Group(
        "The leaf that exists",
        (
            Field("lining.leaf_width", "width", optional=True, has_state=True),
            Field("lining.leaf_height", "height", optional=True, has_state=True),
        ),
        page=_PAGES.LINING,
        when=lambda leaf: leaf.lining is not None and leaf.lining.made_from is LiningFrom.LEAF,
    ),
    Group(
        "Sizes",
        (
            Field("lining.thickness", "thickness", ref="figure:lining_thickness"),
            Field("lining.depth", "depth", optional=True, figure="lining_depth", note="empty: the depth read"),
            Field(
                "lining.packing",
                "packing, both sides",
                ref="figure:packing_left",
                note="together; the worst lean eats it first",
            ),
            Field("lining.packing_head", "packing over the head"),
            Field("lining.trench", "legs housed by", note="how far they stand into the head"),
        ),
        page=_PAGES.LINING,
        when=_to_be_made,
    ),
    Group(
        "Crooked wall",
        (
            field_choice("lining.school", "School", enum_options(LiningSchool)),
            field_choice(
                "lining.species",
                "Timber",
                lambda: [
                    (None, "as the leaf"),
                    *sorted(((key, species(key).name) for key in species_keys()), key=lambda e: e[1]),
                ],
            ),
        ),
        page=_PAGES.LINING,
        when=_to_be_made,
    ),
)
