"""A leaf as DXF and a drawing as SVG, read back by independent libraries and measured."""

from __future__ import annotations

import io
import math
import statistics
import xml.etree.ElementTree as Tree

import ezdxf
import ezdxf.path
import pytest
from ezdxf import units
from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, Polygon

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.light.model import Light, LightFill
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import HardwareChoices, MortiseLock
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import Area, Dimension, Label
from oakmeasure.core.drawings.leaf.leaf_view import leaf_view
from oakmeasure.core.hardware.boring import BoringKind
from oakmeasure.core.paper.router_layout import FaceUp, FlatLayer, bulges, flat, outline_of
from oakmeasure.files.cad.dxf import leaf_dxf
from oakmeasure.files.cad.svg import NAMESPACE, drawing_svg
from samples import solved


@pytest.fixture(scope="module")
def whole(solved_demo):
    return solved_demo


def read(leaf, face=FaceUp.OPENING, hand=None):
    document = ezdxf.read(io.StringIO(leaf_dxf(leaf, face, hand).decode("utf-8")))
    assert not document.audit().errors
    return document


def outline(document):
    (line,) = document.modelspace().query('LWPOLYLINE[layer=="OUTLINE"]')
    return Polygon([(x, y) for x, y in line.get_points("xy")])


@pytest.mark.parametrize("face", list(FaceUp))
def test_every_demo_leaf_is_read_back_by_ezdxf_with_its_own_size(whole, face):
    for leaf in whole.leaves:
        document = read(leaf, face)
        assert document.units == units.MM
        shape = outline(document)
        assert shape.is_valid
        x0, y0, x1, y1 = shape.bounds
        if leaf.fit.outline:
            assert shape.area == pytest.approx(Polygon(leaf.fit.outline).area, abs=0.01)
        else:
            assert (x1 - x0, y1 - y0) == pytest.approx((leaf.build.width, leaf.build.height), abs=0.01)
        assert x0 == pytest.approx(0.0, abs=0.01)
        grown = shape.buffer(0.02)
        for line in document.modelspace().query("LWPOLYLINE CIRCLE LINE"):
            if line.dxf.layer != "MARK":
                points = [line.dxf.center] if line.dxftype() == "CIRCLE" else line.get_points("xy")
                assert all(grown.contains(Point(p[0], p[1])) for p in points), (leaf.leaf.id, line.dxf.layer)


@pytest.mark.parametrize("hand", list(Hand))
@pytest.mark.parametrize("face", list(FaceUp))
def test_what_is_let_into_an_edge_is_not_cut_from_a_face_however_thin_the_leaf(face, hand):
    """A forend 20 wide in a leaf 20 thick reaches from face to face: a router that cut it would notch the stile."""
    thin = Light(frame_thickness=20.0, fill=LightFill.REBATED, middle_rail=None)
    leaf = solved(hand=hand, build=thin, hardware=HardwareChoices(lock=MortiseLock(case_height=56.0)))
    edge = {each.name for each in leaf.borings if not each.side.surface.is_face}
    assert any(each.kind is BoringKind.LOCK_FOREND for each in leaf.borings)
    cut = {each.what for each in flat(leaf, face)}
    assert not cut & edge


def test_cups_are_bored_into_the_closing_face_to_their_depth_and_as_far_in_as_the_figures_say(whole):
    leaf = whole.leaf("packet-press")
    assert not read(leaf, FaceUp.OPENING).modelspace().query("CIRCLE")
    circles = read(leaf, FaceUp.CLOSING).modelspace().query("CIRCLE")
    cups = [each for each in circles if each.dxf.radius == pytest.approx(17.5)]
    depth = leaf.leaf.hardware.cup.hinge.cup_depth.value
    assert len(cups) == len(leaf.cups.places)
    assert {each.dxf.layer for each in cups} == {f"BORE_{depth:g}"}
    for each in cups:
        in_from_edge = each.dxf.center.x if leaf.leaf.hand is Hand.RIGHT else leaf.build.width - each.dxf.center.x
        assert in_from_edge == pytest.approx(leaf.cups.centre.value, abs=0.01)


def test_the_other_hand_and_the_other_face_are_mirrors(whole):
    for name in ("packet-press", "engine-room", "linen-press"):
        leaf = whole.leaf(name)
        for face in FaceUp:
            left, right = flat(leaf, face, Hand.LEFT), flat(leaf, face, Hand.RIGHT)
            assert [each.name for each in left] == [each.name for each in right]
            for one, other in zip(left, right, strict=True):
                assert one.radius == other.radius
                assert [leaf.build.width - x for x, _ in other.points] == pytest.approx([x for x, _ in one.points])
                assert [y for _, y in other.points] == [y for _, y in one.points]
        through = [
            {
                (round(each.points[0][0], 3), round(each.points[0][1], 3))
                for each in flat(leaf, face, hand)
                if each.layer is FlatLayer.THROUGH and each.radius
            }
            for face, hand in ((FaceUp.OPENING, Hand.LEFT), (FaceUp.CLOSING, Hand.RIGHT))
        ]
        assert through[0] == through[1]  # right over left, seen from the other side, is the same table


def test_depths_are_in_the_names_and_never_more_than_the_leaf(whole):
    for leaf in whole.leaves:
        for face in FaceUp:
            for each in flat(leaf, face):
                if each.layer in (FlatLayer.POCKET, FlatLayer.BORE):
                    assert 0 < each.depth <= leaf.build.thickness + 1e-6
                    assert each.name == f"{each.layer}_{each.depth:g}"
                else:
                    assert each.depth == 0.0


def test_an_arched_leaf_has_its_arch_as_outline(whole):
    leaf = whole.leaf("linen-press")
    shape = Polygon(outline_of(leaf))
    assert shape.is_valid
    assert shape.area < leaf.build.width * leaf.build.height - 1000
    parts = sum(Polygon(part.corners).area for part in leaf.build.parts)
    assert shape.area == pytest.approx(parts, rel=0.02)


def test_an_arch_is_written_as_true_arcs_and_no_corner_becomes_one(whole):
    leaf = whole.leaf("linen-press")
    (line,) = read(leaf).modelspace().query('LWPOLYLINE[layer=="OUTLINE"]')
    arcs = [piece for piece in line.virtual_entities() if piece.dxftype() == "ARC"]
    assert len(arcs) > 15
    radius = leaf.figures["head_radius"].value - leaf.figures["gap_head"].value
    assert statistics.median(arc.dxf.radius for arc in arcs) == pytest.approx(radius, abs=0.01)
    assert all(arc.dxf.radius == pytest.approx(radius, rel=0.04) for arc in arcs)  # a corner of it is off by 0.01
    straight = [piece for piece in line.virtual_entities() if piece.dxftype() == "LINE"]
    assert len(straight) <= 6
    chords = Polygon(outline_of(leaf))
    curve = Polygon([(v.x, v.y) for v in ezdxf.path.make_path(line).flattening(0.001)])
    assert 0 < curve.area - chords.area < 0.1 * leaf.build.width  # what the chords cut off
    for name in ("seed-room", "stair-cupboard", "coal-hole"):
        for each in read(whole.leaf(name)).modelspace().query("LWPOLYLINE"):
            assert not each.has_arc, name


@given(st.floats(200, 3000), st.floats(15, 120), st.integers(8, 40))
def test_chords_of_any_arch_become_its_circle(radius, degrees, count):
    half = math.radians(degrees) / 2
    arc = [
        (radius * math.sin(half - 2 * half * n / count), radius * math.cos(half - 2 * half * n / count))
        for n in range(count + 1)
    ]
    low = min(y for _, y in arc) - 500
    outline = [(arc[-1][0], low), (arc[0][0], low), *arc]
    if 2 * half / count > math.radians(0.06):
        found = bulges(outline)
        assert found[0] == found[1] == found[-1] == 0.0
        wanted = math.tan(2 * half / count / 4)
        assert all(each == pytest.approx(wanted, rel=1e-3) for each in found[2:-1])


def test_of_a_pair_each_leaf_has_its_own_cuts(whole):
    leaf = whole.leaf("pair")
    other = Hand.LEFT if leaf.leaf.hand is Hand.RIGHT else Hand.RIGHT
    mine = {each.what for face in FaceUp for each in flat(leaf, face) if each.layer is not FlatLayer.MARK}
    theirs = {each.what for face in FaceUp for each in flat(leaf, face, other) if each.layer is not FlatLayer.MARK}
    assert any(each.startswith(("lock", "latch", "spindle", "keyhole")) for each in mine)
    assert not any(each.startswith(("spindle", "keyhole")) for each in theirs)


def test_the_drawing_as_svg_holds_every_shape_in_millimetres(whole):
    for name in ("seed-room", "coal-hole", "linen-press"):
        leaf = whole.leaf(name)
        drawing = leaf_view(leaf, Show())
        root = Tree.fromstring(drawing_svg(drawing, leaf.leaf.name))
        tag = f"{{{NAMESPACE}}}"
        assert root.get("width") == f"{drawing.bounds.width:.3f}mm"
        box = [float(each) for each in root.get("viewBox").split()]
        assert box[2:] == pytest.approx([drawing.bounds.width, drawing.bounds.height], abs=0.001)
        areas = [each for each in drawing.shapes if isinstance(each, Area)]
        polygons = root.findall(f"{tag}polygon")
        assert len(polygons) == len(areas)
        for polygon, area in zip(polygons, areas, strict=True):
            points = [tuple(float(n) for n in pair.split(",")) for pair in polygon.get("points").split()]
            assert [(x, -y) for x, y in points] == [pytest.approx(each, abs=0.001) for each in area.points]
        words = [each.text for each in root.findall(f"{tag}text")]
        assert words == [each.text for each in drawing.shapes if isinstance(each, Label | Dimension)]
        assert root.find(f"{tag}title").text == leaf.leaf.name


def test_where_there_is_no_leaf_nothing_is_written():
    leaf = solved(hanging=Hanging.OPEN)
    assert leaf.build is None
    with pytest.raises(ValueError, match="no leaf"):
        leaf_dxf(leaf)
    assert outline_of(leaf) == flat(leaf, FaceUp.OPENING) == ()
