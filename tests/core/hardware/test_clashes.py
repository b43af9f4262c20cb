"""The clash map: distances against brute force, free places against a search, and what a leaf says of itself."""

from __future__ import annotations

import csv
import io
import itertools
import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.prisms import Solid, block, bore, nearest_free, rod
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.existing.model import Existing, Inside
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.light.model import Light
from oakmeasure.core.construction.slab.model import Slab
from oakmeasure.core.construction.veneered.model import Veneered
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import (
    FlushBolts,
    HardwareChoices,
    Latch,
    LatchKind,
    MortiseLock,
    Pull,
    PullKind,
    Screws,
)
from oakmeasure.core.document.job import Hand, LateTrim
from oakmeasure.core.document.sliding_gear import Guide, GuideKind
from oakmeasure.core.drawings.hardware.clash_view import clash_view
from oakmeasure.core.drawings.hardware.lock_view import lock_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.edits.drag import dragged_butt
from oakmeasure.core.figures.check import Level, Remedy
from oakmeasure.core.hardware.clash.bodies import ClashBody
from oakmeasure.core.hardware.clash.rules import SPACINGS, BodyKind, spacing
from oakmeasure.core.hardware.clash.search import HARDWARE, Mover, blocked, find_clashes, free_place
from oakmeasure.core.hardware.clash.zones import MARGIN, zones
from oakmeasure.core.solver import solve
from oakmeasure.files.tables import lists as tables
from samples import assert_sums, codes, job, solved

KINDS = list(BodyKind)


def said(leaf, code):
    return next(each for each in leaf.checks if each.code.startswith(code))


def _to_segment(p, a, b):
    dx, dy = b[0] - a[0], b[1] - a[1]
    long = dx * dx + dy * dy
    share = 0.0 if long == 0 else min(max(((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / long, 0.0), 1.0)
    return math.hypot(p[0] - a[0] - share * dx, p[1] - a[1] - share * dy)


def _sides(points):
    return list(zip(points, points[1:] + points[:1], strict=True)) if len(points) > 2 else [(points[0], points[-1])]


def _inside(p, points):
    if len(points) < 3:
        return False
    turns = [(b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) for a, b in _sides(points)]
    return all(each >= 0 for each in turns) or all(each <= 0 for each in turns)


def _crosses(a, b, c, d):
    def turn(p, q, r):
        return (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])

    return turn(a, b, c) * turn(a, b, d) < 0 and turn(c, d, a) * turn(c, d, b) < 0


def brute_distance(one: Solid, other: Solid) -> float:
    """Every corner against every side, by hand; less than 0 only as a sign that they overlap."""
    p, q = list(one.points), list(other.points)
    face = min(
        [
            *(_to_segment(x, a, b) for x in p for a, b in _sides(q)),
            *(_to_segment(x, a, b) for x in q for a, b in _sides(p)),
        ]
    )
    meets = any(_inside(x, q) for x in p) or any(_inside(x, p) for x in q)
    meets = meets or any(_crosses(a, b, c, d) for a, b in _sides(p) for c, d in _sides(q))
    face = (0.0 if meets else face) - one.radius - other.radius
    deep = max(one.depth[0], other.depth[0]) - min(one.depth[1], other.depth[1])
    if deep < 0 and (face < 0 or meets):
        return -1.0
    return math.hypot(max(face, 0.0), max(deep, 0.0))


def random_leaf(source: random.Random, count: int) -> list[ClashBody]:
    """Things of every kind and shape, thrown into a leaf of 200 × 400 × 44."""
    found = []
    for at in range(count):
        x, y, z = source.uniform(0, 200), source.uniform(0, 400), source.uniform(0, 40)
        depth = (z, z + source.uniform(1, 20))
        solid = source.choice(
            (
                lambda x=x, y=y, depth=depth: bore(x, y, source.uniform(2, 35), depth),
                lambda x=x, y=y, depth=depth: block(x, y, x + source.uniform(5, 80), y + source.uniform(5, 60), depth),
                lambda x=x, y=y, z=z: rod((x, y), (x + source.uniform(-60, 60), y + source.uniform(-5, 5)), 4.0, z),
                lambda x=x, y=y, depth=depth: Solid(
                    ((x, y), (x + 40, y + 12), (x + 31, y + 42), (x - 9, y + 30)), depth
                ),
            )
        )()
        found.append(ClashBody(f"thing {at}", source.choice(KINDS), solid, "", f"family {at // 2}"))
    return found


def test_every_clash_of_500_random_leaves_is_found_and_none_made_up():
    source, met, near = random.Random(7), 0, 0
    for _ in range(500):
        things = random_leaf(source, 14)
        wanted = {}
        for one, other in itertools.combinations(things, 2):
            rule = spacing(one.kind, other.kind)
            if rule is None or one.family == other.family:
                continue
            distance = brute_distance(one.solid, other.solid)
            if distance < rule.least - 1e-6 and (rule.least > 0 or distance < 0):
                wanted[frozenset((one.name, other.name))] = distance
        found = {frozenset((each.one.name, each.other.name)): each.distance for each in find_clashes(things)}
        assert set(found) == set(wanted)
        for pair, distance in wanted.items():
            assert (found[pair] < 0) is (distance < 0)
            if distance > 0:
                assert found[pair] == pytest.approx(distance, abs=1e-6)
            met, near = met + (distance < 0), near + (distance >= 0)
    assert met > 200
    assert near > 40


def test_rules_name_each_pair_once_and_a_cutter_never_meets_steel_unpunished():
    assert all(spacing(a, b) is spacing(b, a) for a, b in itertools.product(BodyKind, BodyKind))
    for cutter in (BodyKind.CUT, BodyKind.GROOVE, BodyKind.TRIM):
        assert spacing(cutter, BodyKind.FIXING).meets is Level.STOP
    assert all(each.least >= 0 for each in SPACINGS.values())


@given(st.lists(st.tuples(st.floats(-90, 90), st.floats(0.5, 40)), max_size=8), st.floats(-60, 60))
def test_nearest_free_place_is_free_and_none_is_nearer(spans, at):
    spans = [(low, low + long) for low, long in spans]
    found = nearest_free(spans, at=at, low=-60.0, high=60.0)

    def is_free(place):
        return not any(a + 1e-9 < place < b - 1e-9 for a, b in spans)

    grid = [place / 4 for place in range(-240, 241) if is_free(place / 4)]
    if found is None:
        assert not [place for place in grid if not any(a <= place <= b for a, b in spans)]
        return
    assert is_free(found)
    assert -60 <= found <= 60
    nearest = min((abs(place - at) for place in grid), default=math.inf)
    assert abs(found - at) <= nearest + 1e-6


def test_moved_to_its_free_place_nothing_of_it_clashes():
    source, moved = random.Random(11), 0
    for _ in range(120):
        things = random_leaf(source, 14)
        mover = Mover({"family 0": 1.0}, "y", -300.0, 300.0, lambda way: Remedy(str(way)))
        way = free_place(mover, things)
        if way is None:
            continue
        rest = [
            each
            if each.family != "family 0"
            else ClashBody(each.name, each.kind, each.solid.moved(0.0, way), "", each.family)
            for each in things
        ]
        assert not [each for each in find_clashes(rest) if "family 0" in (each.one.family, each.other.family)]
        moved += abs(way) > 0
    assert moved > 10


def latched(kind=LatchKind.TUBULAR, **more):
    return HardwareChoices(latch=Latch(kind=kind, **more))


def test_latch_bored_into_a_tenon_is_a_stop_and_its_free_place_mends_it():
    made = job(hardware=latched(up=950.0))  # where the lower half of the middle rail's tenon is
    leaf = solve(made).leaves[0]
    check = said(leaf, "clash-latch-middle-rail")
    assert check.level is Level.STOP
    assert "tenon in the latch stile" in check.title
    remedy = next(each for each in check.remedies if each.path == "hardware.latch.up")
    mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
    assert not [code for code in codes(mended) if code.startswith("clash-latch")]
    # A millimetre less of a way would not have done.
    less = remedy.value - math.copysign(1.5, remedy.value - 950.0)
    back = solve(job_edits.with_field(made, "leaf-1", "hardware.latch.up", less)).leaves[0]
    assert [code for code in codes(back) if code.startswith("clash-latch")]


def test_leaf_without_a_clash_says_so_and_against_how_much():
    leaf = solved(hardware=latched(up=700.0))
    assert "clash-none" in codes(leaf, Level.OK)
    assert not leaf.clashes.clashes


def test_screw_deep_in_a_tenon_is_told_and_the_butt_moves_to_a_free_place_by_click_or_drag():
    long = HardwareChoices(screws=Screws(length=60.0), tops=(150.0, 930.0, 1640.0))
    made = job(hardware=long, build=Framed(middle_rail=190.0))
    leaf = solve(made).leaves[0]
    check = said(leaf, "clash-butt-2-middle-rail")
    remedy = next(each for each in check.remedies if each.path == "hardware.tops")
    mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
    assert not [code for code in codes(mended) if code.startswith("clash-butt-2")]
    assert [mended.figures[f"butt_{n}_top"].value for n in (1, 3)] == [150.0, 1640.0]
    drop = dragged_butt(leaf, 2, leaf.butts.places[1].rect.y0 + 50 + 12)  # 12 up, still in the tenon
    moved = solve(job_edits.with_field(made, "leaf-1", drop.path, drop.value)).leaves[0]
    assert "free" in drop.words or not [code for code in codes(moved) if code.startswith("clash-butt-2")]


def test_bore_in_a_hollow_leaf_and_a_screw_beside_the_frame_find_no_wood():
    old = Existing(width=762.0, height=1975.0, inside=Inside.HOLLOW, solid=30.0)
    leaf = solved(build=old, hardware=latched(up=700.0, deep=70.0))
    assert said(leaf, "clash-latch-hollow").level is Level.STOP
    light = solved(
        width=600.0,
        height=900.0,
        build=Light(stile=40.0),
        hardware=HardwareChoices(latch=Latch(kind=LatchKind.CATCH, up=420.0, deep=60.0, bore=8.0, plate_length=0.0)),
    )
    assert "no wood" in said(light, "clash-latch-hollow").sentence


def test_trim_line_meets_fixings_and_the_saw_is_warned():
    leaf = solved(build=Light(), width=600.0, height=900.0, late=LateTrim(foot=30.0))
    fixings = [each for each in leaf.clashes.clashes if each.one.kind is BodyKind.TRIM]
    lowest = min(each.y for each in leaf.build.fixings)
    assert bool(fixings) is (lowest < 3.0 + 1.5 + 1.75)


def test_keep_out_zones_hold_all_that_is_cut_with_their_margin_and_stand_in_a_list():
    leaf = solved(hardware=HardwareChoices(lock=MortiseLock(case_height=56.0)))
    w, h = leaf.build.width, leaf.build.height
    found = zones(leaf.clashes, leaf.body)
    assert [each.name for each in found] == ["butt 1", "lock", "butt 2", "butt 3"] or len(found) == 4
    lock = next(each for each in found if each.name == "lock")
    down = leaf.figures["lock_down"].value
    assert (lock.from_top, lock.to) == (down - 100 - MARGIN, down + 100 + MARGIN)
    assert (lock.from_hinge, lock.in_to) == (w - 76 - MARGIN, w)
    assert lock.in_words() == "right through"
    for thing in leaf.clashes.things:
        if thing.family == "lock":
            assert lock.from_top <= h - thing.solid.box[3]
    rows = list(csv.DictReader(io.StringIO(tables.keep_outs_csv(solve(job(hardware=leaf.leaf.hardware))))))
    assert [row["keep free"] for row in rows] == [each.name for each in found]


def test_pair_has_its_lock_in_one_leaf_and_bolts_and_keep_in_the_other():
    hardware = HardwareChoices(lock=MortiseLock(case_height=56.0), bolts=FlushBolts(), latch=Latch())
    made = job(width=1474.0, hanging=Hanging.PAIR, hardware=hardware)
    leaf = solve(made).leaves[0]
    rows = list(csv.DictReader(io.StringIO(tables.boring_list_csv(solve(made)))))
    hands = {
        what: {row["hand"] for row in rows if row["what"] == what}
        for what in ("lock mortise", "lock keep", "flush bolt top", "butt 1", "bolt hole foot")
    }
    assert hands["lock mortise"] == {str(leaf.leaf.hand)}
    assert hands["lock keep"] == hands["flush bolt top"] == hands["bolt hole foot"] == {str(Hand.RIGHT)}
    assert len(hands["butt 1"]) == 2
    keep = next(each for each in leaf.borings if each.name == "lock keep")
    forend = next(each for each in leaf.borings if each.name == "lock forend")
    assert keep.from_top == forend.from_top  # both leaves hang at one height
    assert not [
        each
        for each in leaf.clashes.clashes
        if {each.one.is_slow, each.other.is_slow} == {True, False} and each.other.kind is BodyKind.CUT
    ]


def test_latch_is_bored_in_leaf_and_lining_at_one_height_over_the_floor():
    leaf = solved(hardware=latched(up=700.0))
    found = {each.name: each for each in leaf.other_borings}
    down = leaf.fit.height.value + leaf.figures["gap_floor"].value - 700.0
    assert found["latch bore"].from_top == down - 11.5
    assert found["latch spindle"].across == 45
    keep = found["latch keep"]
    assert keep.from_top == found["latch forend"].from_top + leaf.figures["gap_head"].value
    assert keep.member == "latch lining leg"
    assert leaf.figures["latch_beside"].value == (44 - 23) / 2
    assert_sums(leaf)


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"bore": 40.0}, "latch-thin"),
        ({"deep": 90.0}, "latch-deep"),
        ({"backset": 70.0}, "latch-backset"),
        ({"up": 2400.0}, "latch-off"),
    ],
)
def test_latch_that_does_not_go_is_told_and_mended_by_its_click(change, code):
    made = job(hardware=latched(**({"up": 700.0} | change)))
    check = said(solve(made).leaves[0], code)
    remedy = next(each for each in check.remedies if each.path)
    mended = solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0]
    assert code not in codes(mended, Level.STOP) | codes(mended, Level.WARNING)


@pytest.mark.parametrize("kind", [each for each in LatchKind if each is not LatchKind.NONE])
@pytest.mark.parametrize("hand", list(Hand))
def test_every_latch_is_drawn_for_its_hand_with_the_opening_face_on_its_side(kind, hand):
    leaf = solved(hardware=latched(kind, up=700.0), hand=hand)
    drawing = lock_view(leaf, Show(job().unit))
    assert {each.ref for each in leaf.other_borings if each.solid is not None} <= drawing.refs()
    assert {"latch edge", "opening face"} <= set(drawing.texts())
    assert {each.ref for each in leaf.other_borings if each.solid is not None} <= clash_view(
        leaf, Show(job().unit)
    ).refs()


def test_blocked_ways_of_a_pair_of_hangers_are_mirrored():
    things = [
        ClashBody("bolt", BodyKind.CUT, bore(75, 100, 8, (0, 40)), "", "hanger 1"),
        ClashBody("bolt", BodyKind.CUT, bore(725, 100, 8, (0, 40)), "", "hanger 2"),
        ClashBody("nail", BodyKind.FIXING, bore(690, 100, 4, (0, 40)), "", "nails"),
    ]
    mover = Mover({"hanger 1": 1.0, "hanger 2": -1.0}, "x", -60, 500, lambda way: Remedy(str(way)))
    (span,) = [each for each in blocked(mover, things) if 0 < each[0] < 100]
    assert span == (725 - 690 - 4 - 2 - 3, 725 - 690 + 4 + 2 + 3)


def boxes(leaf, families):
    return {
        (each.family, each.name, each.kind): each.solid.box for each in leaf.clashes.things if each.family in families
    }


HUNG = HardwareChoices(latch=Latch(kind=LatchKind.TUBULAR, up=700.0), pull=Pull(kind=PullKind.BAR, up=1300.0))


CUPBOARD = Framed(
    thickness=20.0,
    stile=60.0,
    top_rail=60.0,
    middle_rail=None,
    bottom_rail=65.0,
    muntin=None,
    panel_thickness=6.0,
    groove_depth=8.0,
)


@pytest.mark.parametrize(
    "made",
    [
        job(hardware=HUNG),
        job(width=400.0, height=800.0, hanging=Hanging.OVERLAY, build=CUPBOARD),
        job(hanging=Hanging.SLIDING, build=Slab(thickness=38.0)),
        job(build=Layered(), hardware=HardwareChoices(lock=MortiseLock())),
    ],
    ids=["butts, latch and pull", "cups", "hangers", "lock"],
)
@pytest.mark.parametrize("way", [-7.0, 11.0])
def test_every_mover_moves_what_it_says_by_as_much_as_it_says_and_nothing_else(made, way):
    leaf = solve(made).leaves[0]
    assert leaf.clashes.movers
    for mover in leaf.clashes.movers:
        if not mover.low <= way <= mover.high:
            continue
        after = solve(job_edits.with_remedy(made, "leaf-1", mover.edit(way))).leaves[0]
        before, now = boxes(leaf, mover.moves), boxes(after, mover.moves)
        assert before.keys() == now.keys()
        for key, box in before.items():
            dx, dy = now[key][0] - box[0], now[key][1] - box[1]
            share = mover.moves[key[0]] * way
            assert (dx, dy) == pytest.approx((share, 0.0) if mover.along == "x" else (0.0, share), abs=1e-6)
        others = {each.family for each in leaf.clashes.things if each.kind in (BodyKind.CUT, BodyKind.SCREW)} - set(
            mover.moves
        )
        between = {family for family in others if family.startswith("cup ")}  # they follow from the end ones
        assert boxes(after, others - between) == boxes(leaf, others - between)


@pytest.mark.parametrize("hanging", [each for each in Hanging if each is not Hanging.OPEN])
@pytest.mark.parametrize(
    "build",
    [Framed(), Boarded(), Slab(thickness=38.0), Layered(), Light(), Veneered(), Existing(width=900.0, height=2100.0)],
)
def test_every_cut_lies_in_its_leaf_and_where_the_list_says(hanging, build):
    hardware = HardwareChoices(
        latch=Latch(kind=LatchKind.CATCH, up=500.0, bore=9.0, deep=20.0),
        guide=Guide(kind=GuideKind.FIN, groove_width=5.0, fin=3.0),
    )
    leaf = solved(width=800.0, height=1990.0, hanging=hanging, build=build, hardware=hardware)
    assert_sums(leaf)
    for each in leaf.borings:
        if each.solid is None:
            continue
        x0, y0, x1, y1 = each.solid.box
        assert -1e-6 <= x0 < x1 <= leaf.build.width + 1e-6, each.name
        assert -1e-6 <= y0 < y1 <= leaf.build.height + 1e-6, each.name
        assert leaf.build.height - y1 == pytest.approx(each.from_top, abs=1e-6), each.name
        assert leaf.build.height - y0 == pytest.approx(each.to, abs=1e-6), each.name
        assert each.solid.depth[0] < each.solid.depth[1]


def test_a_zone_is_as_deep_as_what_goes_through_it_wherever_the_leaf_is_thickest(solved_demo):
    """A hanger's upper bolt goes through boards of 32, its lower one through a ledge of 20 as well."""
    leaf = solved_demo.leaf("engine-room")
    (hanger, *_) = (each for each in zones(leaf.clashes, leaf.body) if each.name.startswith("hanger"))
    assert (hanger.deep_from, hanger.deep_to, hanger.in_words()) == (0.0, 52.0, "right through")
    for other in solved_demo.leaves:
        for zone in zones(other.clashes, other.body) if other.body is not None else ():
            own = [
                each.solid.depth[1]
                for each in other.clashes.things
                if each.family == zone.name and each.kind in HARDWARE
            ]
            assert zone.deep_to >= min(max(own), zone.faces[1]) - 1e-6, (other.leaf.id, zone.name)
