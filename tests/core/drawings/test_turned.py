"""The leaf turned: what is painted on top against a depth image made apart, ray by ray, out of the body alone."""

from __future__ import annotations

import random
from collections.abc import Iterator

import numpy as np
import pytest

from body_laws import random_leaf
from oakmeasure.core.base.convex_cells import Point3
from oakmeasure.core.base.prism_sums import inside
from oakmeasure.core.base.units import Show
from oakmeasure.core.body.pieces import Body, Piece
from oakmeasure.core.body.taking_apart import taken_apart
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import Area, Drawing, Label, Layer
from oakmeasure.core.drawings.turned.scene import scene_of
from oakmeasure.core.drawings.turned.turn import CutWay, Turn
from oakmeasure.core.drawings.turned.turned_view import cut_dragged, for_hand, turned_view
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.solver import solve_leaf

AROUND = ((0.0, 0.0), (1.5, 0.4), (-1.3, 0.8), (0.5, -1.4), (-0.6, 1.2))  # mm about a ray that must meet the same
STEP = 0.2  # mm between the places on a ray at which wood is asked for


def first_met(body: Body, offsets: list[Point3], kept: tuple[int, float, bool] | None, turn: Turn, at) -> set[str]:
    """Return which piece a ray through a place of the picture meets first, asked every 0.2 mm along it; of a leaf
    whose rails reach into one another, both of them.
    """
    away, onto = np.array(turn.away), turn.onto
    start = onto @ np.array(at)  # the columns of `onto` are of length 1 and square to one another and to the ray
    found: list[tuple[float, str]] = []
    for piece, offset in zip(body.pieces, offsets, strict=True):
        met = first_in(piece, start - np.array(offset), away, kept)
        if met is not None:
            found.append((met, piece.name))
    return {name for met, name in found if met < min(found)[0] + STEP}


def first_in(piece: Piece, start, away, kept: tuple[int, float, bool] | None) -> float | None:
    box = piece.box
    low, high = np.array(box[:3]), np.array(box[3:])
    with np.errstate(divide="ignore", invalid="ignore"):
        ends = np.array([(low - start) / away, (high - start) / away])
    near, far = float(ends.min(axis=0).max()), float(ends.max(axis=0).min())
    if far <= near:
        return None
    for t in np.arange(near + STEP / 2, far, STEP):
        x, y, z = start + t * away
        if kept is not None and bool((x, y, z)[kept[0]] > kept[1]) is kept[2]:
            continue
        if any(a <= z <= b for a, b in piece.spans(x, y)):
            return float(t)
    return None


def painted_at(drawing: Drawing, at) -> str | None:
    x, y = at
    for shape in reversed(drawing.shapes):
        if isinstance(shape, Area) and shape.layer is Layer.FACET and inside(shape.points, x, y):
            return shape.ref.partition(":")[2]
    return None


def differences(leaf: LeafSolution, turn: Turn, source: random.Random, rays: int) -> Iterator[tuple[object, ...]]:
    """Yield where the picture shows another piece than the one that is met first there."""
    assert leaf.body is not None
    turn = for_hand(leaf, turn)
    scene = scene_of(leaf.body, turn)
    drawing = turned_view(leaf, Show(), turn, scene)
    offsets = taken_apart(leaf.body).offsets(turn.apart)
    kept = None
    if turn.cut is not CutWay.NONE:
        front, back = leaf.body.over_all
        low, high = ((0.0, leaf.body.width), (0.0, leaf.body.height), (front, back))[turn.cut.axis]
        kept = turn.cut.axis, low + (high - low) * turn.cut_at, turn.away[turn.cut.axis] < 0
    middle = (np.array(scene.low) + np.array(scene.high)) / 2 @ turn.onto  # the picture's own middle
    b = drawing.bounds
    for _ in range(rays):
        at = np.array([source.uniform(b.x0, b.x1), source.uniform(b.y0, b.y1)])
        met = [first_met(leaf.body, offsets, kept, turn, at + middle + np.array(off)) for off in AROUND]
        shown = painted_at(drawing, at)
        if all(each == met[0] for each in met) and (shown not in met[0] if met[0] else shown is not None):
            yield turn, tuple(at), met[0], shown


LEAVES = ("seed-room", "coal-hole", "engine-room", "office-store", "linen-press", "packet-press", "made-longer")


@pytest.mark.parametrize("leaf_id", LEAVES)
def test_the_nearest_piece_is_painted_on_top(solved_demo, leaf_id):
    leaf = solved_demo.leaf(leaf_id)
    source = random.Random(leaf_id)
    for _ in range(4):
        turn = Turn(
            source.uniform(-180, 180),
            source.uniform(-60, 60),
            source.choice((0.0, 0.2, 0.55, 1.0)),
            source.choice(tuple(CutWay)),
            source.uniform(0.1, 0.9),
        )
        assert list(differences(leaf, turn, source, 14)) == []


def test_any_leaf_is_painted_right(demo):
    source = random.Random(5)
    for _ in range(12):
        leaf = solve_leaf(demo, random_leaf(demo, source))
        if leaf.body is None:
            continue
        turn = Turn(source.uniform(-180, 180), source.uniform(-50, 50), source.choice((0.0, 0.4, 1.0)))
        assert list(differences(leaf, turn, source, 8)) == [], leaf.leaf.name


def test_pieces_are_drawn_out_of_their_joints_and_through_no_wood(solved_demo):
    """However far it is apart: at 400 random places of each piece no other piece has wood."""
    source = random.Random(3)
    for leaf_id in ("seed-room", "coal-hole", "sample-room", "linen-press", "engine-room", "scullery"):
        body = solved_demo.leaf(leaf_id).body
        apart = taken_apart(body)
        for share in (0.07, 0.3, 0.5, 0.8):
            offsets = apart.offsets(share)
            for piece, offset in zip(body.pieces, offsets, strict=True):
                for place in places_in(piece, source, 60):
                    x, y, z = (a + b for a, b in zip(place, offset, strict=True))
                    for other, (ox, oy, oz) in zip(body.pieces, offsets, strict=True):
                        if other is not piece:
                            met = [(a, b) for a, b in other.spans(x - ox, y - oy) if a + 0.05 < z - oz < b - 0.05]
                            assert not met, (leaf_id, share, piece.name, other.name)


def places_in(piece: Piece, source: random.Random, count: int) -> Iterator[Point3]:
    x0, y0, z0, x1, y1, z1 = piece.box
    for _ in range(count):
        x, y, z = source.uniform(x0, x1), source.uniform(y0, y1), source.uniform(z0, z1)
        if any(a + 0.05 < z < b - 0.05 for a, b in piece.spans(x, y)):
            yield x, y, z


def test_taken_apart_every_piece_stands_free(solved_demo):
    """No two pieces of a framed leaf share the room of their blocks: each is seen to have come out of its joints."""
    for leaf_id in ("seed-room", "sample-room", "coal-hole"):
        body = solved_demo.leaf(leaf_id).body
        offsets = taken_apart(body).offsets(1.0)
        blocks = [
            [e + o for e, o in zip(p.box, (*off, *off), strict=True)]
            for p, off in zip(body.pieces, offsets, strict=True)
        ]
        for at, a in enumerate(blocks):
            for b in blocks[at + 1 :]:
                assert any(a[n] >= b[n + 3] - 0.01 or b[n] >= a[n + 3] - 0.01 for n in range(3))


def test_hinges_on_the_right_are_shown_on_the_right(solved_demo):
    for leaf_id in ("seed-room", "packet-press"):
        leaf = solved_demo.leaf(leaf_id)
        drawing = turned_view(leaf, Show(), Turn(yaw=0.0, pitch=0.0))
        stile = [
            x
            for each in drawing.shapes
            if each.ref == "part:hinge stile" and isinstance(each, Area)
            for x, _ in each.points
        ]
        assert (sum(stile) / len(stile) < 0) is (leaf.leaf.hand is Hand.LEFT)


def test_every_piece_is_named_with_its_size_once_apart(solved_demo):
    for leaf in solved_demo.leaves:
        if leaf.body is None:
            continue
        texts = [each.text for each in turned_view(leaf, Show(), Turn(apart=1.0)).shapes if isinstance(each, Label)]
        names = {piece.name for piece in leaf.body.pieces if piece.part is not None}
        for name in names:
            stem = name.rstrip("0123456789 ")
            assert any(text in (name, stem) or text.endswith(f"× {stem}") for text in texts), name
        assert turned_view(leaf, Show(), Turn()).texts() == []


def test_the_cut_is_drawn_where_it_is_dragged_to(solved_demo):
    leaf = solved_demo.leaf("seed-room")
    turn = Turn(cut=CutWay.LEVEL, cut_at=0.5)
    up = leaf.body.height * float(for_hand(leaf, turn).onto[1][1])
    assert cut_dragged(leaf, turn, (0.0, 0.0), (0.0, 0.25 * up)) == pytest.approx(0.75)
    assert cut_dragged(leaf, turn, (0.0, 0.0), (0.0, 9 * up)) == 1.0
    assert (
        cut_dragged(leaf, Turn(0.0, 0.0, cut=CutWay.THROUGH), (0.0, 0.0), (50.0, 50.0)) == 0.5
    )  # along the line of sight


def test_wood_that_is_cut_open_is_hatched(solved_demo):
    leaf = solved_demo.leaf("seed-room")
    whole = turned_view(leaf, Show(), Turn())
    cut = turned_view(leaf, Show(), Turn(cut=CutWay.LEVEL, cut_at=0.3))

    def hatched(drawing: Drawing) -> int:
        return sum(
            layer is Layer.GRAIN for each in drawing.shapes if isinstance(each, Area) for layer, _ in each.strokes
        )

    assert hatched(cut) > hatched(whole)
    high = max(y for each in cut.shapes if isinstance(each, Area) and each.layer is Layer.FACET for _, y in each.points)
    assert high < max(y for each in whole.shapes if isinstance(each, Area) for _, y in each.points)
