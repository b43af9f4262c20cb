"""Making against the world outside: geometry, reaction rates, glue classes, eyesight, the calendar, joints of the
trade.
"""

from __future__ import annotations

import math
from datetime import date, datetime

import pytest

from oakmeasure.app.stages.make.workshop import CAP_PX
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.document.production import LogEntry, LogKind, MakeChoices, ReadingKind
from oakmeasure.core.making.finish import slower
from oakmeasure.core.making.glue import glue_on_the_day
from oakmeasure.core.making.glue_tasks import CLAMP_EVERY
from oakmeasure.core.making.repairs import SCARF
from oakmeasure.core.making.workdays import Workdays
from oakmeasure.core.making.working_plan import day_words
from oakmeasure.data import table
from samples import framed, solved


@pytest.mark.parametrize("lean", [-6.0, -0.4, 0.4, 3.0, 9.0])
def test_what_a_leaf_leans_follows_from_its_diagonals_by_the_law_of_cosines(lean):
    """Euclid II.12 and II.13: of a parallelogram the squares of the diagonals differ by four times base times lean."""
    width = framed().figures["glued_width"].value
    high = 2025.0
    rising, falling = math.hypot(width + lean, high), math.hypot(width - lean, high)
    log = tuple(
        LogEntry(at=datetime(2026, 11, 26), kind=LogKind.READING, reading=kind, value=value)
        for kind, value in ((ReadingKind.RISING, rising), (ReadingKind.FALLING, falling))
    )
    said = next(v for v in solved(making=MakeChoices(log=log)).checks if v.code == "made-square")
    assert (rising**2 - falling**2) / (4 * width) == pytest.approx(lean)
    assert f"leans {abs(lean):g} over" in said.sentence


def test_glue_and_finish_follow_the_rule_of_thumb_for_reaction_rates():
    """Van 't Hoff 1884: a reaction goes two to four times as fast for every 10 K; taken here as two, the slow side."""
    assert glue_on_the_day("urea", 10).clamp_hours / glue_on_the_day("urea", 20).clamp_hours == pytest.approx(2.0)
    assert slower(degrees=0, humidity=50) / slower(degrees=10, humidity=50) == pytest.approx(2.0)


def test_glues_bear_the_classes_of_the_standard_for_wood_adhesives():
    """EN 204, from memory: D1 interior dry, D2 interior with short wetting, D3 outdoors sheltered, D4 outdoors
    exposed.
    """
    classes = {row["class"] for row in table("glues").values()}
    assert classes == {"D1", "D2", "D3", "D4"}
    assert table("glues")["hide"]["class"] == "D1"  # opens again with warm water: common practice, no source
    assert table("glues")["polyurethane"]["class"] == "D4"


def test_letters_of_workshop_mode_are_more_than_twice_what_sound_eyes_need_at_two_metres():
    """Snellen 1862: the 6/6 line subtends 5 minutes of arc. 96 px an inch is the reference pixel of CSS 2.1, from
    memory.
    """
    height_mm = CAP_PX * 25.4 / 96
    minutes = math.degrees(math.atan(height_mm / 2000)) * 60
    assert minutes > 2 * 5


def test_a_scarf_of_one_in_eight_and_clamps_at_300_to_400():
    """Scarfs of 1:8 or flatter: Wood Handbook, FPL-GTR-282, ch. 10, from memory. Clamps: common practice, no source."""
    assert SCARF >= 8
    assert 300 <= CLAMP_EVERY <= 400
    slab = solved(600.0, 2100.0, build=Slab())
    clamps = slab.making.glue.tasks[0].stages[0].clamps
    assert 300 - 50 <= slab.build.height / clamps <= 400


def test_days_are_those_of_the_calendar():
    """ISO 8601: 26 November 2026 is a Thursday; Saturday and Sunday are no working days: common practice."""
    assert day_words(date(2026, 11, 26)) == "Thu 26 Nov"
    friday = datetime(2026, 11, 27, 13, 0)
    assert Workdays(6.0).after(friday, 2.0) == datetime(2026, 11, 30, 9, 0)
    assert Workdays(6.0).before(datetime(2026, 11, 30, 9, 0), 2.0) == friday
