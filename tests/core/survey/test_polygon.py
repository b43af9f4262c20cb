"""Openings by lengths alone: misreads named, lengths that are wanting."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.job import Reading
from oakmeasure.core.document.readings import MeasuredBy, Polygon, PolygonSide
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.survey.adjust import Observed, Status
from oakmeasure.core.survey.polygon import adjust_polygon
from oakmeasure.core.survey.takings.polygon import next_span
from samples import codes, job, solved

HEXAGON = ((0, 0), (900, 0), (1000, 600), (900, 1800), (450, 2100), (0, 1900))


def polygon(corners, *, wrong=None, pairs=None):
    pairs = pairs or list(itertools.combinations(range(len(corners)), 2))
    spans = []
    for a, b in pairs:
        length = round(math.dist(corners[a], corners[b]), 1) + (wrong[1] if wrong and wrong[0] == (a, b) else 0.0)
        spans.append(PolygonSide(start=a + 1, end=b + 1, length=Reading(value=length)))
    return Polygon(corners=len(corners), spans=tuple(spans))


def test_hexagon_by_all_its_lengths_comes_back_and_one_misread_diagonal_is_set_aside():
    leaf = solved(measured_by=MeasuredBy.POLYGON, polygon=polygon(HEXAGON, wrong=((1, 4), 14.0)))
    assert "misread-span_2-5" in codes(leaf, Level.WARNING)
    for (x, y), (cx, cy) in zip(leaf.opening.taken.corners, HEXAGON, strict=True):
        assert math.dist((x, y), (cx, cy)) < 2.0
    assert 0 < leaf.figures["clear_width_uncertainty"].value < 10
    box = (
        leaf.opening.hinge_in.value,
        leaf.opening.floor_high.value,
        leaf.opening.latch_in.value,
        leaf.opening.head_low.value,
    )
    assert box[2] - box[0] == pytest.approx(900, abs=2)


def test_300_simulated_surveys_of_every_shape_name_the_misread_or_say_that_it_cannot_be_told():
    source = np.random.default_rng(33)
    shapes = [((0, 0), (740, 0), (744, 2030), (3, 2030)), HEXAGON[:5], HEXAGON, ((0, 0), (1200, 0), (0, 1500))]
    blamed = unseen = 0
    for at in range(300):
        corners = shapes[at % len(shapes)]
        pairs = list(itertools.combinations(range(len(corners)), 2))
        read = {f"{a + 1}-{b + 1}": math.dist(corners[a], corners[b]) + source.normal(0, 0.5) for a, b in pairs}
        if len(corners) == 3:
            adjust_polygon(3, {key: Observed(value, 0.5) for key, value in read.items()})
            continue  # nothing checks a triangle; it must only not accuse anybody
        wrong = str(source.choice(list(read)))
        read[wrong] += source.choice([-1, 1]) * source.uniform(15, 30)
        result = adjust_polygon(len(corners), {key: Observed(value, 0.5) for key, value in read.items()})
        aside = [key for key, each in result.readings.items() if each.status is Status.SET_ASIDE]
        blamed += bool(aside) and wrong not in aside
        unseen += not aside and wrong not in result.undecided
    assert blamed <= 4
    assert unseen <= 4


def test_polygon_that_can_rack_asks_for_the_length_that_would_hold_it():
    sides = [(at, (at + 1) % 5) for at in range(5)]
    leaf = solved(measured_by=MeasuredBy.POLYGON, polygon=polygon(HEXAGON[:5], pairs=sides))
    said = next(each for each in leaf.checks if each.code == "polygon-open")
    assert said.level is Level.STOP
    assert "diagonal from corner" in said.sentence


def test_lengths_that_close_to_no_polygon_are_contradictory():
    with pytest.raises(InputError):
        adjust_polygon(3, {"1-2": Observed(300, 0.5), "2-3": Observed(300, 0.5), "1-3": Observed(5000, 0.5)})
    leaf = solved(measured_by=MeasuredBy.POLYGON, polygon=polygon(((0, 0), (400, 0), (400, 500), (-900, -700))))
    assert codes(leaf, Level.STOP) & {"survey-contradictory", "polygon-open"}


def test_next_length_to_read_goes_round_the_sides_and_then_across():
    sample = job(measured_by=MeasuredBy.POLYGON, polygon=Polygon(corners=4))
    order = []
    for _ in range(6):
        leaf = sample.leaves[0]
        span = PolygonSide(**next_span(leaf), length=Reading(value=500))
        order.append((span.start, span.end))
        sample = job_edits.with_field(sample, "leaf-1", "polygon.spans", (*leaf.polygon.spans, span))
    assert order == [(1, 2), (2, 3), (3, 4), (4, 1), (1, 3), (2, 4)]
    assert next_span(sample.leaves[0]) == {}
