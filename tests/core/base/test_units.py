"""Lengths in millimetres and inches, written and read."""

from __future__ import annotations

import contextlib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import LengthError
from oakmeasure.core.base.parsing import NEAR_SIZE, is_near_size, parse_length, parse_quantity
from oakmeasure.core.base.units import MM_PER_INCH, Show, Unit, UnitSystem, inch_text


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("708", 708),
        ("708.5", 708.5),
        ("708,5", 708.5),
        ("708 mm", 708),
        ("70.8cm", 708),
        ("2.04m", 2040),
        ('27-7/8"', 708.025),
        ("6ft 7.5in", 2019.3),
        ('5/8"', 15.875),
        ('0.130"', 3.302),
        ("130 thou", 3.302),
        ("708 - 5", 703),
        ('36" - 1/2"', 901.7),
        ("½″", 12.7),
        ("27½”", 698.5),
        ("6'-7 1/2\"", 2019.3),
        ("2*(30 + 4)", 68),
        ("(742 + 736)/2", 739),
        ("0,125", 0.125),
        (".5", 0.5),
        ('900 + 1"', 925.4),
    ],
)
def test_parse_length_reads_every_form(text, mm):
    assert parse_length(text) == pytest.approx(mm, abs=1e-12)


def test_parse_length_bare_number_is_in_the_jobs_unit():
    assert parse_length("27 7/8", UnitSystem.INCH) == 708.025
    assert parse_length("(59 5/8 - 3*1/8)/2", UnitSystem.INCH) == 752.475
    assert parse_length("708 mm", UnitSystem.INCH) == 708


@pytest.mark.parametrize(
    ("text", "reason"),
    [
        ("", "nothing"),
        ("   ", "nothing"),
        ("7/0", "divides by nothing"),
        ("5 / 0", "divides by nothing"),
        ("1e9", "exponent"),
        ("1,200", "1200 or 1.200"),
        ("1,200.5", "thousands"),
        ("seven", "not a unit"),
        ("5 kg", "not a unit"),
        ('3" * 2"', "is not a length"),
        ("6' 3mm", "make no sense"),
        ("-3", "less than nothing"),
        ("3 - 5", "less than nothing"),
        ("(3", "bracket"),
        ("3 +", "too early"),
        ("2 3", "operation"),
        ("1.2.3", "two points"),
        ("200000", "100 m"),
        ("9" * 300, "too long"),
        ('5/8" / 2"', "divided by a length"),
        ("¤", "not part of a number"),
        ("nan", "not a unit"),
    ],
)
def test_parse_length_refuses_with_a_plain_reason(text, reason):
    with pytest.raises(LengthError, match=reason):
        parse_length(text)


def test_parse_length_sign_is_read_where_a_lean_is_wanted():
    assert parse_length("−3", allow_negative=True) == -3


@given(st.floats(min_value=0.4, max_value=3000), st.sampled_from([16, 32, 64]))
def test_inch_text_is_read_back_and_shown_the_same(mm, denominator):
    shown = inch_text(mm, denominator)
    back = parse_length(shown, UnitSystem.INCH)
    assert abs(back - mm) <= MM_PER_INCH / denominator / 2 + 1e-6
    assert inch_text(back, denominator, sign=False) == inch_text(mm, denominator, sign=False)


@given(st.floats(min_value=-500, max_value=5000), st.sampled_from(UnitSystem))
def test_show_is_read_back_within_its_rounding(mm, system):
    shown = Show(system).length(mm, unit=True)
    assert parse_length(shown, system, allow_negative=True) == pytest.approx(
        mm, abs=0.8 if system is UnitSystem.INCH else 0.051
    )


@given(st.text(alphabet="0123456789.,/ -+*()'\"mcinft½″e", max_size=25))
def test_parse_length_never_fails_but_with_a_reason(text):
    with contextlib.suppress(LengthError):
        assert parse_length(text) >= 0


def test_inch_text_carries_and_ties_go_up():
    assert inch_text(15.999 * 25.4) == '16" −'
    assert inch_text((3 + 1 / 32) * 25.4, sign=False) == '3 1/16"'
    assert inch_text(0) == '0"'


@pytest.mark.parametrize(
    ("text", "unit", "value"),
    [
        ("68 °F", Unit.CELSIUS, 20),
        ("20", Unit.CELSIUS, 20),
        ("-4 C", Unit.CELSIUS, -4),
        ("12 lb", Unit.KG, 5.44310844),
        ("65 %", Unit.PERCENT, 65),
        ("3.6°", Unit.DEG, 3.6),
        ("10 lbf", Unit.N, 44.482216152605),
    ],
)
def test_parse_quantity_reads_the_units_that_belong(text, unit, value):
    assert parse_quantity(text, unit) == pytest.approx(value)


def test_show_turns_mass_and_force_with_the_system():
    assert Show(UnitSystem.INCH).value(5.44310844, Unit.KG) == "12 lb"
    assert Show(UnitSystem.MM).value(93.4, Unit.N) == "93 N"
    assert Show().length(-0.5) == "−0.5"


def test_show_writes_every_unit_and_money_to_the_hundredth():
    assert Show().value(713.27392, Unit.MONEY) == "713.27"
    assert Show().value(-4.5, Unit.MONEY) == "−4.50"
    assert Show().value(5.126, Unit.HOURS) == "5.13 h"
    for unit in Unit:  # each has its line in the table of how it is written
        assert Show().value(12.0, unit).startswith(("12", "12.00"))


@given(st.floats(100, 3000), st.floats(-12, 12), st.sampled_from(UnitSystem))
def test_size_that_is_sought_is_read_in_the_jobs_unit(size, off, system):
    word = Show(system).length(size + off, unit=False, sign=False).replace(" ", "-").strip('"')
    read = parse_length(word, system)
    assert is_near_size(word, [size], system) is (abs(read - size) <= NEAR_SIZE)
