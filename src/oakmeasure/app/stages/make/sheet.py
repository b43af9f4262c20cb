"""What the Make sheet asks, page by page."""

from __future__ import annotations

from typing import Any

from oakmeasure.app.stages.make.log_panel import LogPanel
from oakmeasure.app.stages.make.panels import BatchPanel, DaysPanel, GluePanel, LabelPanel, MishapPanel, StepPanel
from oakmeasure.core.base.units import Unit, counted
from oakmeasure.core.drawings.views import MakePage
from oakmeasure.core.forms.fields import Ask, Command, Field, Group, Panel, field_choice
from oakmeasure.data import table


def _glues() -> list[tuple[Any, str]]:
    rows = [(key, f"{row['name']}, {row['class']}") for key, row in table("glues").items()]
    return [(None, "the first that does"), *rows]


MAKE: tuple[Group, ...] = (
    Group(
        "",
        (
            Panel("step", StepPanel),
            Command(Ask.WORKSHOP, "Workshop mode: large, with two keys"),
            Command(Ask.OPERATIONS_LIST, "Operations, CSV…", "of all leaves, in working order"),
        ),
        page=MakePage.STEPS,
    ),
    Group("", (Panel("batch", BatchPanel),), page=MakePage.BATCH),
    Group(
        "The day",
        (
            field_choice(
                "making.glue", "Glue", _glues, "the first whose class bears where the leaf lives and that stays open"
            ),
            Field("making.shop_temperature_c", "shop", Unit.CELSIUS, "warm shops shorten the open time"),
            field_choice(
                "making.people", "At it", lambda: [(n, f"{n} person" if n == 1 else f"{n} people") for n in range(1, 5)]
            ),
            Field(
                "making.joint_minutes",
                "minutes a joint",
                Unit.RATIO,
                "your own; empty: by the kind of joint",
                optional=True,
            ),
            Command(Ask.SHOP_RULES, "Clamps owned: shop rules…", "what the shop can hold"),
        ),
        page=MakePage.GLUE,
    ),
    Group("The stage", (Panel("glue", GluePanel),), page=MakePage.GLUE),
    Group(
        "Finish",
        (
            field_choice(
                "timber.finish", "Finish", lambda: [(None, "as the place asks"), *((k, k) for k in table("finishes"))]
            ),
            field_choice(
                "making.coats", "Coats", lambda: [(None, "as usual"), *((n, counted(n, "coat")) for n in range(1, 9))]
            ),
            Field("making.shop_temperature_c", "shop", Unit.CELSIUS, "10 °C less: twice as long to dry"),
            Field("making.humidity", "air", Unit.PERCENT, "damp air dries slower"),
        ),
        page=MakePage.FINISH,
    ),
    Group(
        "Days",
        (
            Panel("days", DaysPanel),
            Field("making.hours_a_day", "hours a day", Unit.HOURS, "at the bench, Monday to Friday"),
        ),
        page=MakePage.TIME,
    ),
    Group("What went wrong", (Panel("mishap", MishapPanel),), page=MakePage.MISHAPS),
    Group("", (Panel("log", LogPanel),), page=MakePage.LOG),
    Group(
        "",
        (
            Command(Ask.EXPORT_LOG, "Write the log, lines of JSON…", "of all leaves"),
            Command(Ask.IMPORT_LOG, "Read a log…", "what is new is added; a line that is cut off is told and left out"),
        ),
        page=MakePage.LOG,
    ),
    Group(
        "",
        (
            Command(Ask.LABEL_SHEET, "Sheet of labels, PDF…", "of this leaf; three across, eight down"),
            Panel("labels", LabelPanel),
        ),
        page=MakePage.LABELS,
    ),
)
