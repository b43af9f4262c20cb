"""What is cut in lining and cabinet is the leaf's own cut, carried over to where the leaf hangs."""

from __future__ import annotations

import math
import random

import pytest
import shapely

from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.cup_hinges import CupChoices, CupUnknown
from oakmeasure.core.document.hanging import CabinetChoices, Hanging, PairChoices
from oakmeasure.core.document.hinges import HardwareChoices, Latch, LatchKind, MortiseLock, butt_from_table
from oakmeasure.core.document.job import FitChoices, Hand, HeadShape, LateTrim, LeafShape
from oakmeasure.core.document.readings import HeadKind, InTheWay, Obstruction, OpeningReadings, Reading, Side
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.boring import BoringKind, CutIn, Datum
from samples import readings, solved

LOCKED = HardwareChoices(lock=MortiseLock(case_height=56.0), latch=Latch(kind=LatchKind.TUBULAR, up=700.0))


def opening(width: float, hinge: float, latch: float) -> dict:
    return {"readings": readings(width_top=width, width_bottom=width, height_hinge=hinge, height_latch=latch)}


def cut(leaf, kind: BoringKind, cut_in: CutIn):
    return next(each for each in leaf.borings if each.kind is kind and each.cut_in is cut_in)


def test_a_head_that_falls_to_the_latch_lowers_the_butts_on_the_jamb():
    """[G] 2000 at the hinges, 1990 at the latch: the leaf's top is 12 under the head at the hinges, 2 at the latch."""
    leaf = solved(hardware=LOCKED, **opening(800.0, 2000.0, 1990.0))
    on_leaf, on_jamb = cut(leaf, BoringKind.BUTT, CutIn.LEAF), cut(leaf, BoringKind.BUTT, CutIn.HINGE_SIDE)
    assert (on_leaf.from_top, on_jamb.from_top) == (150.0, pytest.approx(162.0, abs=0.01))
    assert on_jamb.datum is Datum.JAMB_HEAD
    assert leaf.figures["head_gap_hinge"].value == pytest.approx(12.0, abs=0.01)
    keep = cut(leaf, BoringKind.LOCK_KEEP, CutIn.LATCH_SIDE)
    forend = cut(leaf, BoringKind.LOCK_FOREND, CutIn.LEAF)
    assert keep.from_top - forend.from_top == pytest.approx(2.0, abs=0.01)


def test_a_head_that_rises_to_the_latch_lowers_the_keep_on_its_jamb():
    """[G] The other way round it is the keep that is 12 lower than on the leaf, and the butts 2."""
    leaf = solved(hardware=LOCKED, **opening(800.0, 1990.0, 2000.0))
    for kind in (BoringKind.LOCK_FOREND, BoringKind.LATCH_FOREND):
        keep = BoringKind.LOCK_KEEP if kind is BoringKind.LOCK_FOREND else BoringKind.LATCH_KEEP
        on_leaf, on_jamb = cut(leaf, kind, CutIn.LEAF), cut(leaf, keep, CutIn.LATCH_SIDE)
        assert on_jamb.from_top - on_leaf.from_top == pytest.approx(12.0, abs=0.01)
    butt = cut(leaf, BoringKind.BUTT, CutIn.HINGE_SIDE)
    assert butt.from_top == pytest.approx(152.0, abs=0.01)


def test_what_comes_off_a_made_leaf_moves_nothing_on_the_jamb_away_from_it():
    """[G] 10 off its head: from the leaf's new top to the head there are 12, on the jamb as on the leaf."""
    leaf = solved(late=LateTrim(head=10.0), **opening(800.0, 2000.0, 2000.0))
    on_leaf, on_jamb = cut(leaf, BoringKind.BUTT, CutIn.LEAF), cut(leaf, BoringKind.BUTT, CutIn.HINGE_SIDE)
    assert on_jamb.from_top - on_leaf.from_top == pytest.approx(2.0 + 10.0, abs=0.01)


def test_under_a_rake_each_edge_is_measured_from_its_own_top():
    """A table with two tops calls them by their names; a lock stands as high above the floor as it was told."""
    leaf = solved(
        head=HeadShape(kind=HeadKind.RAKED),
        fit=FitChoices(shape=LeafShape.SCRIBED),
        build=Framed(middle_rail=None),
        hardware=HardwareChoices(lock=MortiseLock(case_height=56.0)),
        **opening(900.0, 1800.0, 2000.0),
    )
    assert leaf.frame is not None
    low, high = leaf.frame.tops
    assert high - low == pytest.approx(200.0 * (900.0 - 5.0) / 900.0, abs=1.0)
    butt, spindle = cut(leaf, BoringKind.BUTT, CutIn.LEAF), cut(leaf, BoringKind.SPINDLE_HOLE, CutIn.LEAF)
    assert (butt.datum, spindle.datum) == (Datum.HINGE_EDGE_TOP, Datum.LATCH_EDGE_TOP)
    for each in leaf.borings:
        if each.cut_in is CutIn.LEAF and each.solid is not None:
            top = low if each.datum is Datum.HINGE_EDGE_TOP else high
            assert each.solid.box[3] == pytest.approx(top - each.from_top, abs=0.01), each.name
    up = leaf.fit.y_foot - leaf.opening.floor_high.value + spindle.solid.points[0][1]
    assert up == pytest.approx(leaf.figures["lock_height"].value, abs=0.01)


def test_plates_follow_the_leaf_where_the_cabinet_is_out_of_level():
    """[G] The leaf lies level over the lowest corner of the head; plates are measured from the corner at the hinges."""
    leaf = solved(hanging=Hanging.OVERLAY, build=Framed(thickness=20.0, stile=60.0), **opening(450.0, 724.0, 720.0))
    cup, plate = cut(leaf, BoringKind.CUP, CutIn.LEAF), cut(leaf, BoringKind.PLATE, CutIn.HINGE_SIDE)
    middle = (plate.from_top + plate.to) / 2
    assert middle - cup.marked_at == pytest.approx(4.0 - leaf.figures["overlay"].value, abs=0.01)


def test_cuts_of_frame_and_leaf_meet_in_five_hundred_openings():
    """[G] The leaf set where its gaps say: each place on it, and the same cut on the jamb, are at one height."""
    source = random.Random(31)
    for _ in range(500):
        width, height = source.uniform(500, 1000), source.uniform(1400, 2300)
        tilt, lean = source.uniform(-12, 12), source.uniform(-8, 8)
        kind = source.choice((Hanging.LINING, Hanging.INSET_BUTTS))
        up = math.hypot(height, lean)
        leaf = solved(
            hanging=kind,
            hardware=LOCKED,
            late=LateTrim(head=source.choice((0.0, 6.0)), foot=source.choice((0.0, 5.0))),
            readings=readings(
                width_top=width + lean,
                width_bottom=width,
                height_hinge=height,
                height_latch=up + tilt,
                diagonal_rising=math.hypot(width + lean, height + tilt),
                diagonal_falling=math.hypot(width, height),
            ),
        )
        frame, foot = leaf.frame, leaf.fit.y_foot
        assert frame is not None
        pairs = {BoringKind.BUTT: BoringKind.BUTT, BoringKind.LOCK_FOREND: BoringKind.LOCK_KEEP}
        pairs[BoringKind.LATCH_FOREND] = BoringKind.LATCH_KEEP
        for each in leaf.borings:
            if each.kind not in pairs or each.cut_in is not CutIn.LEAF:
                continue
            edge = "hinge" if each.kind is BoringKind.BUTT else "latch"
            met = [o for o in leaf.borings if o.kind is pairs[each.kind] and not o.cut_in.is_leaf]
            other = next(o for o in met if o.number == each.number)
            on_jamb = frame.jamb(edge).place(other.from_top)
            assert on_jamb[1] == pytest.approx(foot + each.solid.box[3], abs=0.01), (each.name, width, height)


def test_a_leaf_that_would_lie_over_its_neighbour_is_a_stop():
    """[G] Overlay 16 and a wall 15 beside the opening: 1 inside it, shut."""
    wall = InTheWay(what=Obstruction.WALL, where=Side.HINGE, away=15.0, stands_out=Reading(value=300.0))
    lies = CabinetChoices(overlay=16.0)
    leaf = solved(hanging=Hanging.OVERLAY, cabinet=lies, in_the_way=(wall,), build=Framed(thickness=20.0, stile=60.0))
    check = next(each for each in leaf.checks if each.code == "lies-over")
    assert (check.level, check.remedies[0].value) == (Level.STOP, 15.0)
    beside = wall.model_copy(update={"away": 20.0})
    clear = solved(
        hanging=Hanging.OVERLAY, cabinet=lies, in_the_way=(beside,), build=Framed(thickness=20.0, stile=60.0)
    )
    assert "lies-over" not in {each.code for each in clear.checks}


def test_a_pairs_gap_at_the_latch_is_the_gap_where_its_leaves_meet_until_that_is_set():
    """Clear 1474, 2 at each hinge side: (1474 − 4 − 4) / 2 with 4 at the latch, (1474 − 4 − 3) / 2 with 3 between."""
    with_latch = solved(width=1474.0, hanging=Hanging.PAIR, fit=FitChoices(gap_latch=4.0))
    assert (with_latch.figures["gap_meeting"].value, with_latch.figures["leaf_width"].value) == (4.0, 733.0)
    own = solved(width=1474.0, hanging=Hanging.PAIR, fit=FitChoices(gap_latch=4.0), pair=PairChoices(meeting=3.0))
    assert (own.figures["gap_meeting"].value, own.figures["leaf_width"].value) == (3.0, 733.5)


def test_cups_that_give_another_gap_than_the_leaf_has_are_a_stop():
    """11 − 18 + 4 − 4 = −7: the leaf was worked out with 2."""
    cup = CupChoices(unknown=CupUnknown.OVERLAY, crank=18.0, boring=4.0, plate=4.0)
    reach = cup.hinge.model_copy(update={"reach": Reading(value=11.0)})
    hardware = HardwareChoices(cup=cup.model_copy(update={"hinge": reach}))
    frame = Framed(thickness=20.0, stile=60.0)
    leaf = solved(500.0, 700.0, hanging=Hanging.INSET, hardware=hardware, build=frame)
    check = next(each for each in leaf.checks if each.code == "cup-gives")
    assert (check.level, leaf.figures["cup_gives"].value, check.remedies[0].value) == (Level.STOP, -7.0, 7.0)
    mended = solved(500.0, 700.0, hanging=Hanging.INSET, hardware=hardware, build=frame, fit=FitChoices(gap_hinge=7.0))
    assert "cup-gives" not in {each.code for each in mended.checks}


def test_nothing_is_said_of_what_nobody_chose_or_what_a_leaf_has_not():
    """No hanger that carries it, no latch edge that passes, until there is one."""
    slid = solved(hanging=Hanging.SLIDING)
    assert "hangers-carry" not in {each.code for each in slid.checks}
    assert "gear-not-chosen" in {each.code for each in slid.checks}
    cabinet = solved(500.0, 700.0, hanging=Hanging.INSET, build=Framed(thickness=20.0, stile=60.0))
    assert not {"bevel", "bevel-short"} & {each.code for each in cabinet.checks}
    swung = solved()
    assert not {"butts-carry", "butts-weak"} & {each.code for each in swung.checks}
    assert "hinges-not-chosen" in {each.code for each in swung.checks}


AT_EDGE = (BoringKind.BUTT, BoringKind.LOCK_MORTISE, BoringKind.LOCK_FOREND, BoringKind.SPINDLE_HOLE)


@pytest.mark.parametrize("hand", list(Hand))
def test_what_is_cut_at_an_edge_that_leans_begins_at_that_edge(hand):
    """The leaf is scribed to jambs that lean in by 10 and 12: all is told from its edge."""
    leaning = {
        "width_bottom": Reading(value=800.0),
        "width_top": Reading(value=778.0),
        "height_hinge": Reading(value=2000.0),
        "height_latch": Reading(value=2000.0),
        "lean_hinge": Reading(value=10.0),
        "lean_latch": Reading(value=12.0),
    }
    leaf = solved(
        readings=OpeningReadings(**leaning),
        hand=hand,
        fit=FitChoices(shape=LeafShape.SCRIBED),
        hardware=HardwareChoices(butt=butt_from_table("brock-100"), lock=MortiseLock()),
    )
    outline = shapely.Polygon(leaf.fit.outline)
    seen = set()
    for each in leaf.borings:
        if each.solid is None or each.kind not in AT_EDGE:
            continue
        seen.add(each.kind)
        x0, y0, x1, y1 = each.solid.box
        wood = outline.intersection(shapely.LineString([(-50, (y0 + y1) / 2), (900, (y0 + y1) / 2)])).bounds
        if each.kind is BoringKind.SPINDLE_HOLE:
            assert wood[2] - (x0 + x1) / 2 == pytest.approx(each.across, abs=0.02)
        elif each.kind is BoringKind.BUTT:
            assert (x0, x1 - wood[0]) == (pytest.approx(wood[0], abs=0.02), pytest.approx(each.depth, abs=0.02))
        else:
            assert (x1, wood[2] - x0) == (pytest.approx(wood[2], abs=0.02), pytest.approx(each.depth, abs=0.02))
    assert seen == set(AT_EDGE)
