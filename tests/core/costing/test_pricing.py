"""What a leaf costs, and three ways to buy its wood."""

from __future__ import annotations

import pytest

from oakmeasure.core.costing.pricing import buy_ways, hardware_price, price_of


def test_price_is_the_sum_of_its_lines_with_the_margin(demo, solved_demo):
    leaf = solved_demo.leaf("seed-room")
    price = price_of(demo, leaf)
    assert price.cost == pytest.approx(sum(each.value for each in price.lines))
    assert price.price == pytest.approx(price.cost * (1 + demo.rules.margin.value / 100))
    work = [each for each in price.lines if each.hours]
    assert sum(each.value for each in work) == pytest.approx(40 * sum(each.hours for each in work))
    assert hardware_price(leaf) == 3 * 6.5 + 12
    assert price.bought_price < price.price
    assert price_of(demo, leaf, timber=100.0).lines[0].value == 100.0


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
