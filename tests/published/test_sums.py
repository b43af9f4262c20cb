"""Quick sums against the trade's own check values, as they are asked for on the command line."""

from __future__ import annotations

import math

import pytest

from oakmeasure.core.sums.quick import answer, read
from oakmeasure.core.sums.registry import SUMS

GEOMETRY = "geometry or arithmetic, proved beside it or by hand"
PRACTICE = "common practice, no source"
WOOD = "Wood Handbook, FPL-GTR-282, from memory"

# sum, options as they are typed, figures to a number of places, source
VALUES = [
    (
        "leaf-size",
        'opening-width=59 3/8" opening-height=80" leaves=2 gap-hinge=1/8" gap-meeting=1/8"',
        {"leaf_width": (749.3, 6)},
        GEOMETRY,
    ),
    (
        "leaf-size",
        "opening-width=708 opening-height=2000 gap-hinge=2.5 gap-latch=2.5",
        {"leaf_width": (703.0, 6)},
        GEOMETRY,
    ),
    (
        "edge-bevel",
        "leaf-width=762 thickness=35 knuckle=6 pin-setback=1 gap=3 margin=1",
        {"square_growth": (1.077, 3)},
        GEOMETRY,
    ),
    (
        "edge-bevel",
        "leaf-width=450 thickness=44 knuckle=8 pin-setback=1 gap=2 margin=1",
        {"least_bevel": (2.51, 2)},
        GEOMETRY,
    ),
    ("square", "width=762 height=1981 diagonal=2125", {"skew": ((2125**2 - 762**2 - 1981**2) / 1524, 6)}, GEOMETRY),
    ("arch", "span=800 rise=120", {"radius": (726.667, 3)}, GEOMETRY),
    ("board-layout", 'leaf-width=35" cover=7" edge-loss=1/4"', {"boards": (6, 0), "end_width": (88.9, 6)}, GEOMETRY),
    ("board-layout", 'leaf-width=51" cover=7 1/4"', {"boards": (8, 0), "end_width": (95.25, 6)}, GEOMETRY),
    ("board-layout", 'leaf-width=35" cover=3 1/2"', {"boards": (10, 0), "end_width": (88.9, 6)}, GEOMETRY),
    (
        "brace",
        "width=600 height=700 brace-width=100",
        {"angle": (55.626, 3), "long_edge": (848.1, 1), "blank_length": (916.5, 1)},
        GEOMETRY,
    ),
    ("cup-boring", "overlay=16 reach=11", {"boring_distance": (5, 6), "centre_from_edge": (22.5, 6)}, GEOMETRY),
    (
        "cup-boring",
        "overlay=16 reach=12 crank=0 plate=0",
        {"boring_distance": (4, 6), "centre_from_edge": (21.5, 6)},
        GEOMETRY,
    ),
    (
        "cup-boring",
        "overlay=14 reach=11.5 plate=2",
        {"boring_distance": (4.5, 6), "centre_from_edge": (22, 6)},
        GEOMETRY,
    ),
    ("cup-boring", "overlay=-2 reach=12 crank=18", {"boring_distance": (4, 6)}, GEOMETRY),
    ("cup-reach", "overlay=14 boring=2.5 crank=0 plate=0", {"reach": (11.5, 6)}, GEOMETRY),
    ("butt-mortise", "closed-thickness=5.5 gap=2", {"depth": (1.75, 6)}, GEOMETRY),
    ("movement", "species=red_oak width=190 cut=tangential from-mc=6 to-mc=14", {"change": (5.61, 2)}, WOOD),
    ("emc", "temperature=70F humidity=50", {"moisture": (9.2, 1)}, WOOD),
    ("emc", "temperature=70F humidity=80", {"moisture": (16.0, 1)}, WOOD),
    ("weight", "species=european_oak length=1000 width=1000 thickness=1000", {"mass": (702, 0)}, WOOD),
    ("weight", "species=red-oak length=1000 width=1000 thickness=10", {"mass": (6.885, 3)}, WOOD),
    ("weight", "density=2500 length=1000 width=600 thickness=4", {"mass": (6.0, 6)}, GEOMETRY),
    ("hinge-pull", "mass=40 leaf-width=762 hinge-spacing=1600", {"pull": (93.4, 1)}, GEOMETRY),
    ("screw-hold", "specific-gravity=.42 diameter=4.2 thread=20", {"withdrawal": (1604, 0)}, WOOD),
    (
        "sliding-leaf",
        'opening-width=33" opening-height=82" overlap-side=1" overlap-head=2 1/2" gap-floor=1/2"',
        {"leaf_width": (35 * 25.4, 6), "leaf_height": (84 * 25.4, 6), "least_track": (70 * 25.4, 6)},
        GEOMETRY,
    ),
    (
        "bypass",
        'opening-width=93" overlap-side=1 1/2" overlap-centre=6" roller-width=3" roller-in=1 1/2"',
        {"track": (96 * 25.4, 6), "leaf_width": (51 * 25.4, 6), "clear_way": (43.5 * 25.4, 6)},
        GEOMETRY,
    ),
    (
        "bypass",
        'opening-width=93" overlap-side=1 1/2" overlap-centre=6" roller-width=3" tracks=1',
        {"clear_way": (40.5 * 25.4, 6)},
        GEOMETRY,
    ),
    ("veneer-yield", "board-thickness=28 veneer=3.2 kerf=1.3", {"leaves": (6, 0)}, GEOMETRY),
    ("groove-spacing", "width=700 band=50 grooves=7", {"pitch": (100.0, 6)}, GEOMETRY),
    (
        "lining",
        'rough-width=59 5/8" packing=1/4" thickness=3/4"',
        {"outside": (59.375 * 25.4, 6), "between": (57.875 * 25.4, 6)},
        GEOMETRY,
    ),
    ("last-rip", 'leaf-width=35" laid=31 1/4"', {"last_rip": (3.75 * 25.4, 6)}, GEOMETRY),
    (
        "hinge-transfer",
        "leaf-height=1312 from-top=120 from-bottom=120 head-gap=2",
        {"top": (122, 6), "bottom": (1194, 6)},
        GEOMETRY,
    ),
    (
        "reduce-split",
        "from-width=687 to-width=612 stile-cut=25 panels=3",
        {"per_panel": (8, 0), "left_over": (1, 6)},
        PRACTICE,
    ),
    (
        "screw-stack",
        "spacer=10 backing=18 plaster=12.5 bite=40 depth-limit=95",
        {"least_length": (80.5, 6), "greatest_length": (95, 6)},
        GEOMETRY,
    ),
    (
        "tenon-panel",
        "leaf-width=762 stile=95 groove=12 room=2 sticking=10 tenon=85",
        {"shoulder": (592, 6), "rail_length": (762, 6), "panel_width": (592, 6)},
        GEOMETRY,
    ),
]


def _texts(options):
    texts, name = {}, ""
    for word in options.split(" "):
        key, equals, value = word.partition("=")
        if equals:
            name = key
            texts[name] = value
        else:
            texts[name] += f" {word}"
    return {key: [value] for key, value in texts.items()}


@pytest.mark.parametrize(("name", "options", "figures", "source"), VALUES, ids=[f"{v[0]} {v[1][:24]}" for v in VALUES])
def test_a_sum_gives_the_value_of_the_trade(name, options, figures, source):
    which = SUMS[name]
    found = answer(which, read(which, _texts(options))).values()
    for figure, (value, places) in figures.items():
        assert found[figure] == pytest.approx(value, abs=0.5 * 10**-places + 1e-9), source


def test_every_sum_of_the_registry_is_checked_against_the_outside():
    assert {name for name, *_ in VALUES} == set(SUMS)


def test_a_brace_closes_its_field():
    """Geometry: along the edge and across the brace, the field is the sum of the projections."""
    found = answer(SUMS["brace"], {"width": 640.0, "height": 710.0, "brace-width": 95.0}).values()
    turn = math.radians(found["angle"])
    assert found["long_edge"] * math.sin(turn) == pytest.approx(710)
    assert found["long_edge"] * math.cos(turn) + 95.0 / math.sin(turn) == pytest.approx(640)
