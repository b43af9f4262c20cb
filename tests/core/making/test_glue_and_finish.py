"""Glue-ups in time and coats in their hours; how long they take, and what would help."""

from __future__ import annotations

import itertools
import random
from datetime import datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.production import MakeChoices
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Level
from oakmeasure.core.making.finish import finish_days, slower
from oakmeasure.core.making.glue import clock_face, glue_on_the_day, next_words, plan_task, stage_minutes
from oakmeasure.core.making.glue_tasks import Closing, Task, tasks_of
from oakmeasure.core.making.joints import joints_of
from oakmeasure.core.making.workdays import Workdays
from oakmeasure.data import table
from samples import codes, framed, solved


def random_task(source: random.Random) -> Task:
    closings = tuple(
        Closing(
            f"joint {n}", (f"part {n}",), source.uniform(0.2, 4.0), source.randint(1, 8), alone=source.random() < 0.1
        )
        for n in range(source.randint(1, 14))
    )
    return Task("frame", "the frame", closings, share=source.random() < 0.4)


def test_no_stage_of_a_thousand_random_glue_plans_runs_over_the_open_time():
    source = random.Random(10)
    planned = 0
    for _ in range(1000):
        task = random_task(source)
        key, degrees = source.choice(list(table("glues"))), source.uniform(5, 32)
        people, clamps = source.randint(1, 4), source.randint(2, 16)
        glue = glue_on_the_day(key, degrees)
        plan = plan_task(task, open_minutes=glue.open_minutes, people=people, clamps=clamps)
        for stage in plan.stages:
            spread = sum(each.minutes for each in stage.closings) / people  # worked out anew
            assert spread < stage.minutes <= glue.open_minutes + 1e-9
            assert stage.clamps <= 2 * clamps
            assert stage.cauls is (stage.clamps > clamps)
        if plan.stages:
            planned += 1
            assert [c for stage in plan.stages for c in stage.closings] == list(task.closings)
        else:  # then one closing by itself is too much, and it says which
            first = plan.trouble.partition(":")[0]
            worst = next(c for c in task.closings if c.words == first)
            too_long = stage_minutes([worst], people=people, share=task.share) > glue.open_minutes
            assert worst.clamps > 2 * clamps or too_long or worst.clamps > clamps
    assert planned > 300


def test_a_frame_closes_muntins_first_and_the_latch_stile_last():
    leaf = framed()
    (task,) = tasks_of(leaf.leaf, leaf.build)
    words = [each.words for each in task.closings]
    assert words[0].endswith("into the bottom rail")
    assert words[-1] == "latch stile onto all the rails"
    glued = {name for each in task.closings for name in each.parts}
    assert {p.name for p in leaf.build.parts if p.role in (Role.STILE, Role.RAIL, Role.MUNTIN)} == glued
    each_once = sum(len(joints_of(leaf.build)) for _ in (0,))
    assert each_once == sum(c.words.count("into the") for c in task.closings) + _over(leaf, task)


def _over(leaf, task) -> int:
    """Joints that close without being named one by one: the tops of muntins, the latch stile, rails that go
    together.
    """
    singles = sum(c.words.count("into the") for c in task.closings)
    return len(joints_of(leaf.build)) - singles


def test_warmth_halves_the_open_time_and_a_slower_glue_or_a_second_person_mends_it():
    assert glue_on_the_day("white", 30).open_minutes == pytest.approx(glue_on_the_day("white", 20).open_minutes / 2)
    hot = solved(build=Framed(), making=MakeChoices(glue="hide", shop_temperature_c=26.0))
    assert "glue-long" in codes(hot, Level.STOP)
    assert not hot.making.glue.fits
    mended = solved(build=Framed(), making=MakeChoices(glue="slow-white", shop_temperature_c=20.0))
    assert mended.making.glue.fits
    assert "glue" in codes(mended, Level.OK)
    cold = solved(build=Framed(), making=MakeChoices(glue="slow-white", shop_temperature_c=4.0))
    assert "glue-cold" in codes(cold, Level.STOP)


def test_a_countdown_says_what_to_do_next_until_the_last_clamp():
    leaf = framed()
    stage = leaf.making.glue.tasks[0].stages[0]
    said = [next_words(stage, minutes / 10) for minutes in range(int(10 * stage.minutes) + 20)]
    assert said[0] == stage.closings[0].words
    assert said[-1].startswith("leave it")
    wanted = [each.words for each in stage.closings]
    assert list(dict.fromkeys(said))[: len(wanted)] == wanted
    faces = [clock_face(stage, 9.0, seconds) for seconds in range(0, 700, 5)]
    assert [each.left for each in faces[:2]] == ["9:00", "8:55"]
    assert faces[-1].left == "over by 2:35"
    assert [each.gone for each in faces] == sorted(each.gone for each in faces)
    assert list(dict.fromkeys(each.level for each in faces)) == [Level.OK, Level.WARNING, Level.STOP]
    assert faces[0].then == next(each for each in said if each != said[0])


def test_finish_counts_both_faces_all_edges_and_end_grain_twice():
    leaf = framed()
    plan, w, h, t = leaf.making.finish, leaf.build.width, leaf.build.height, leaf.build.thickness
    grams = table("finishes")[plan.finish]["grams"]
    area = (2 * w * h + 2 * h * t + 2 * 2 * w * t) / 1e6
    assert plan.coats[0].grams == pytest.approx(grams * area)
    assert plan.grams == pytest.approx(grams * area * len(plan.coats))
    assert slower(degrees=10, humidity=55) == 2.0
    assert slower(degrees=20, humidity=75) > 1.2


@given(begin=st.datetimes(datetime(2026, 1, 1), datetime(2027, 1, 1)), hours=st.floats(1, 12), coat=st.floats(0.1, 3))
def test_a_coat_is_never_laid_on_a_wet_one_nor_out_of_hours(begin, hours, coat):
    days, plan = Workdays(hours), framed_finish()
    calendar = finish_days(plan, begin, days, hours_a_coat=coat)
    work = [each for each in calendar if each.is_work]
    for one, two in itertools.pairwise(work):
        assert two.start >= one.end
    for at, each in enumerate(calendar):
        if each.words == "dries":
            assert calendar[at + 1].start >= each.end
    assert all(days.is_work(each.start) for each in work)
    assert len(work) == len(plan.coats) + 1


def framed_finish(cache=[]):  # noqa: B006 - one leaf for all draws
    if not cache:
        cache.append(framed().making.finish)
    return cache[0]


@given(at=st.datetimes(datetime(2026, 1, 1), datetime(2027, 1, 1)), hours=st.floats(0, 60), a_day=st.floats(0.5, 14))
def test_working_hours_forwards_and_back_agree(at, hours, a_day):
    days = Workdays(a_day)
    begin = days.next_work(at)
    end = days.after(begin, hours)
    again = days.before(end, hours)
    assert abs(days.next_work(again) - begin) < timedelta(seconds=2) or hours < 1e-3
    assert end - begin >= timedelta(hours=hours) - timedelta(seconds=2)
