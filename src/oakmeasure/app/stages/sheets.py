"""What each stage's sheet asks, in the order of asking. A new field is one line; Measure's are in measure_sheet."""

from __future__ import annotations

from typing import Any

from oakmeasure.app.stages.fit.sheet import fit_groups
from oakmeasure.app.stages.hang.sheet import HANG
from oakmeasure.app.stages.hardware.sheet import HARDWARE
from oakmeasure.app.stages.leaf.sheet import LEAF
from oakmeasure.app.stages.make.sheet import MAKE
from oakmeasure.app.stages.measure.sheet import MEASURE
from oakmeasure.app.stages.timber.sheet import TIMBER_JOB
from oakmeasure.app.stages.timber.stock_panel import RackPanel
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.job import Exposure, Job
from oakmeasure.core.document.rules import load_rules, rule_set_names
from oakmeasure.core.document.species import Sawing, species, species_keys
from oakmeasure.core.drawings.views import TimberPage
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.forms.fields import Ask, Choice, Command, Field, Group, Panel, enum_options, field_choice
from oakmeasure.data import table


def _rules_key(job: Job, _leaf_id: str) -> str:
    return next((key for key in rule_set_names() if load_rules(key) == job.rules), "")


def _species() -> list[tuple[Any, str]]:
    return sorted(((key, species(key).name) for key in species_keys()), key=lambda each: each[1])


def _of_places(what: str) -> list[tuple[Any, str]]:
    """Return every glue, finish or metal that some place asks for, each once."""
    found = dict.fromkeys(each for row in table("places").values() for each in row[what])
    return [(each, each) for each in found]


_RULES = Choice(
    "rules",
    "Shop rules",
    lambda: [(key, load_rules(key).name) for key in rule_set_names()],
    _rules_key,
    lambda job, _leaf_id, key: job_edits.with_rules(job, key),
    "what is not set by hand; Ctrl+R shows each with its reason",
    other=lambda job, _leaf_id: job.rules.name,
)
SHEETS: dict[Stage, tuple[Group, ...]] = {
    Stage.MEASURE: MEASURE,
    Stage.FIT: fit_groups(_RULES),
    Stage.LEAF: LEAF,
    Stage.TIMBER: (
        Group(
            "Timber",
            (
                field_choice("timber.species", "Frame", _species, none="not chosen yet"),
                field_choice("timber.panel_species", "Panels", lambda: [(None, "as the frame"), *_species()]),
                field_choice(
                    "timber.cut", "Cut", enum_options(Sawing), "how the rings lie; quarter-sawn moves half as much"
                ),
                Field("timber.moisture", "moisture when made", Unit.PERCENT, "of the dry mass, by a meter or an oven"),
                field_choice(
                    "timber.between_climates",
                    "It parts",
                    lambda: [(False, "rooms of one climate"), (True, "two climates")],
                ),
            ),
            page=TimberPage.BOARDS,
        ),
        Group(
            "Where it lives",
            (
                Choice(
                    "place",
                    "In",
                    lambda: [(each, str(each)) for each in Exposure],
                    lambda job, leaf_id: job.leaf(leaf_id).timber.place,
                    job_edits.with_place,
                    "sets its air below, and what core, glue, finish and fixings must bear",
                ),
                field_choice("timber.glue", "Glue", lambda: [(None, "as the place asks"), *_of_places("glue")]),
                field_choice("timber.finish", "Finish", lambda: [(None, "as the place asks"), *_of_places("finish")]),
                field_choice(
                    "timber.fixings", "Fixings", lambda: [(None, "as the place asks"), *_of_places("fixings")]
                ),
            ),
            page=TimberPage.YEAR,
        ),
        Group(
            "Air it will live in",
            (
                Field("timber.dry.temperature", "driest", Unit.CELSIUS),
                Field("timber.dry.humidity", "humidity", Unit.PERCENT),
                Field("timber.wet.temperature", "wettest", Unit.CELSIUS),
                Field("timber.wet.humidity", "humidity", Unit.PERCENT),
            ),
            2,
            "weeks, not hours",
            page=TimberPage.YEAR,
        ),
        Group(
            "Cut together",
            (Command(Ask.SETTINGS_LIST, "Cut list by setting, CSV…", "planer, fence and stop over all leaves"),),
            hint="listed below",
            page=TimberPage.SETTINGS,
        ),
        Group("Board in hand", (Panel("rack", RackPanel, keeps=False),), page=TimberPage.RACK),
        *TIMBER_JOB,
    ),
    Stage.HARDWARE: HARDWARE,
    Stage.MAKE: MAKE,
    Stage.HANG: HANG,
}
