"""What a leaf costs, and three ways to buy its wood."""

from __future__ import annotations

import pytest

from oakmeasure.core.costing.pricing import buy_ways, hardware_price, price_of
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import HardwareChoices, Latch, butt_from_table
from samples import solved


def test_price_is_the_sum_of_its_lines_with_the_margin(demo, solved_demo):
    leaf = solved_demo.leaf("seed-room")
    price = price_of(demo, leaf)
    assert price.cost == pytest.approx(sum(each.value for each in price.lines))
    assert price.price == pytest.approx(price.cost * (1 + demo.rules.margin.value / 100))
    work = [each for each in price.lines if each.hours]
    assert sum(each.value for each in work) == pytest.approx(40 * sum(each.hours for each in work))
    assert hardware_price(leaf) == 3 * 6.5  # it has neither lock nor latch
    assert price.bought_price < price.price
    assert price_of(demo, leaf, timber=100.0).lines[0].value == 100.0


def test_hardware_that_nobody_chose_has_no_price(demo, solved_demo):
    """The coal hole has its latch and waits for butts."""
    waits = solved_demo.leaf("coal-hole")
    assert hardware_price(waits) == 12
    notes = [each.note for each in price_of(demo, waits).lines if each.words == "hardware"]
    assert notes == [f"{len(waits.butts.places)} butts not chosen yet, latch"]
    bare = solved(780.0, 2040.0, hanging=Hanging.SLIDING)
    assert (bare.gear is not None, hardware_price(bare)) == (True, 0)
    latch = solved(
        780.0,
        2040.0,
        hardware=HardwareChoices(
            butt=butt_from_table("brock-100"), latch=Latch(kind="a rim latch, on the closing face")
        ),
    )
    assert hardware_price(latch) == 6.5 * len(latch.butts.places) + 12


def test_three_ways_to_buy_are_priced_from_the_same_parts(demo, solved_demo):
    leaf = solved_demo.leaf("seed-room")
    rough, planed, machined = buy_ways(demo, leaf)
    solid = leaf.sawn
    assert rough.hours == pytest.approx(len(solid) * demo.rules.milling_minutes.value / 60)
    volume = sum(each.planed.length * each.planed.width * each.planed.thickness for each in solid) / 1e9
    assert planed.material == machined.material == pytest.approx(volume * demo.rules.planed_price.value)
    assert machined.service == pytest.approx(len(solid) * demo.rules.machining_price.value)
    assert machined.hours == 0
    for each in (rough, planed, machined):
        assert each.total == pytest.approx(each.material + each.service + each.hours * 40)
