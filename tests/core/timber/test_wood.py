"""Air, moisture, weight and movement of wood."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.job import Climate, TimberChoices
from oakmeasure.core.document.species import Sawing, coefficient_from_shrinkage, species, species_keys
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from oakmeasure.core.timber.wood import change_of_width, density, equilibrium_moisture
from samples import codes, job, solved


@given(st.floats(-20, 60), st.floats(0, 97), st.floats(0.1, 1))
def test_wetter_air_makes_wetter_wood(temperature, humidity, more):
    dry = equilibrium_moisture(temperature=temperature, humidity=humidity)
    assert 0 <= dry < equilibrium_moisture(temperature=temperature, humidity=humidity + more) < 32


@given(st.floats(0.1, 0.8), st.floats(0, 29), st.floats(0.1, 1))
def test_wetter_wood_is_heavier_and_dry_wood_denser_than_its_basic_gravity(gravity, moisture, more):
    # A very dense wood swells faster than it takes on water; up to 0.8, door timbers, wetter is heavier.
    assert density(basic_gravity=gravity, moisture=moisture) < density(basic_gravity=gravity, moisture=moisture + more)
    assert density(basic_gravity=gravity, moisture=0) >= 1000 * gravity
    assert density(basic_gravity=gravity, moisture=30) == pytest.approx(1300 * gravity)


@given(st.floats(10, 1200), st.floats(0.0005, 0.004), st.floats(6, 14), st.floats(6, 14))
def test_movement_there_and_back_nearly_cancels_and_follows_the_sign(width, coefficient, one, other):
    there = change_of_width(width=width, coefficient=coefficient, from_moisture=one, to_moisture=other)
    assert (there > 0) is (other > one) or there == 0
    back = change_of_width(width=width + there, coefficient=coefficient, from_moisture=other, to_moisture=one)
    assert there + back == pytest.approx(0, abs=width * (coefficient * 8) ** 2 + 1e-9)


@pytest.mark.parametrize(
    ("call", "field"),
    [
        (lambda: density(basic_gravity=0.05, moisture=12), "basic_gravity"),
        (lambda: density(basic_gravity=0.5, moisture=31), "moisture"),
        (lambda: density(basic_gravity=0.5, moisture=float("nan")), "moisture"),
        (lambda: equilibrium_moisture(temperature=61, humidity=50), "temperature"),
        (lambda: equilibrium_moisture(temperature=20, humidity=-1), "humidity"),
        (lambda: coefficient_from_shrinkage(total_shrinkage=0), "total_shrinkage"),
        (lambda: species("heartwood"), "species"),
    ],
)
def test_impossible_wood_names_its_field(call, field):
    with pytest.raises(InputError) as refused:
        call()
    assert refused.value.field == field


@pytest.mark.parametrize("key", species_keys())
def test_every_species_has_a_source_a_tint_and_moves_more_flat_sawn_than_quartered(key):
    row = species(key)
    assert row.source
    assert row.tint.startswith("#")
    assert len(row.tint) == 7
    assert 0 < row.movement(Sawing.QUARTER) < row.movement(Sawing.FLAT) < 0.006


def test_quarter_sawn_panels_need_less_room():
    flat, quarter = (solved(timber=TimberChoices(cut=cut)) for cut in (Sawing.FLAT, Sawing.QUARTER))
    assert quarter.figures["panel_room"].value < flat.figures["panel_room"].value
    assert quarter.figures["panel_width"].value > flat.figures["panel_width"].value


def test_panel_just_touches_nothing_at_the_wettest():
    """Swollen, a panel and the clearance at both edges fill sight and grooves to the last hundredth."""
    leaf = solved()
    f = leaf.figures
    swollen = f["panel_width"].value + f["panel_swell"].value + 2 * f["rule_panel_clearance"].value
    assert swollen == pytest.approx(f["sight_width"].value + 2 * f["groove_depth"].value)


def test_timber_that_is_too_wet_for_its_place_is_said():
    wet = solved(timber=TimberChoices(moisture=19, dry=Climate(temperature=20, humidity=30)))
    assert "moisture-off" in codes(wet, Level.WARNING)
    turned = TimberChoices(dry=Climate(temperature=15, humidity=80), wet=Climate(temperature=20, humidity=35))
    assert "climate-turned" in codes(solved(timber=turned), Level.WARNING)


def test_leaf_that_swells_past_its_gaps_is_told_to_use_quarter_stock_and_that_helps():
    made = job(
        build=Framed(stile=140.0),
        timber=TimberChoices(species="beech", moisture=8, wet=Climate(temperature=8, humidity=85)),
    )
    said = next(each for each in solve(made).leaves[0].checks if each.code == "leaf-swells")
    mended = solve(job_edits.with_remedy(made, "leaf-1", said.remedies[0])).leaves[0]
    assert mended.figures["leaf_change_wet"].value < 0.6 * solve(made).leaves[0].figures["leaf_change_wet"].value


def test_weight_follows_the_species_of_frame_and_panel():
    oak = solved()
    light = solved(timber=TimberChoices(panel_species="redcedar"))
    frame = [part.name for part in oak.build.parts if part.role != "panel"]
    assert all(light.weights.parts[name].value == pytest.approx(oak.weights.parts[name].value) for name in frame)
    panel = "upper hinge-side panel"
    assert light.weights.parts[panel].value < 0.7 * oak.weights.parts[panel].value
    assert oak.figures["mass"].value == pytest.approx(sum(each.value for each in oak.weights.parts.values()))
