"""Cells and faces of prisms against their volumes, and the order of any blocks against what a ray meets first."""

from __future__ import annotations

import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.convex_cells import Cell, cells_of, face_area
from oakmeasure.core.base.geometry import area
from oakmeasure.core.base.painters_order import Item, far_to_near, tree_of
from oakmeasure.core.base.prism_sums import net
from oakmeasure.core.base.prisms import Solid, block, bore

ORIGIN = (0.0, 0.0, 0.0)
places = st.integers(0, 12).map(float)


@st.composite
def blocks(draw):
    (x0, x1), (y0, y1), (z0, z1) = (sorted((draw(places), draw(places.map(lambda each: each + 0.5)))) for _ in range(3))
    return block(x0, y0, x1, y1, (z0, z1))


@st.composite
def slants(draw):
    """Triangles: whatever their corners, convex and straight."""
    corners = [(draw(places), draw(places)) for _ in range(3)]
    (ax, ay), (bx, by), (cx, cy) = corners
    turn = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
    low = draw(places)
    made = Solid(tuple(corners if turn > 0 else corners[::-1]), (low, low + draw(places) + 1))
    return made if abs(turn) > 1 else block(0, 0, 3, 3, made.depth)


def volume(cells: tuple[Cell, ...]) -> float:
    return sum(area(each.outline) * (each.depth[1] - each.depth[0]) for each in cells)


def flux(cells: tuple[Cell, ...]) -> tuple[float, list[float]]:
    """Return the volume inside the faces, by Gauss's law, and their areas as vectors together: 0 where they close."""
    inside, vector = 0.0, [0.0, 0.0, 0.0]
    for facet in (each for cell in cells for each in cell.faces):
        size = face_area(facet.corners, facet.normal)
        inside += size * sum(a * b for a, b in zip(facet.corners[0], facet.normal, strict=True)) / 3
        vector = [a + size * b for a, b in zip(vector, facet.normal, strict=True)]
    return inside, vector


@given(there=st.lists(blocks() | slants(), min_size=1, max_size=3), out=st.lists(blocks() | slants(), max_size=3))
def test_cells_are_what_is_left_and_their_faces_close_round_it(there, out):
    cells = cells_of(tuple(there), tuple(out))
    left = net(there, out).volume
    assert volume(cells) == pytest.approx(left, abs=0.05)
    inside, vector = flux(cells)
    assert inside == pytest.approx(left, abs=0.05)
    assert vector == pytest.approx([0, 0, 0], abs=0.05)


def test_a_bore_goes_through_and_only_real_edges_are_drawn():
    plate = block(0, 0, 100, 200, (0, 20))
    (cell,) = cells_of((plate,))
    assert len(cell.faces) == 6
    assert sum(len(each.edges) for each in cell.faces) == 24
    bored = cells_of((plate,), (bore(50, 100, 30, (-1, 21)),))
    assert volume(bored) == pytest.approx(20 * (100 * 200 - math.pi * 15 * 15), rel=1e-6)
    lines = {each for cell in bored for facet in cell.faces for each in facet.edges}
    deep = [each for each in lines if each[0][2] != each[1][2]]
    assert {(a[0], a[1]) for a, _ in deep} == {(0, 0), (100, 0), (0, 200), (100, 200)}  # none along the round wall
    front = [(a, b) for a, b in lines if a[2] == b[2] == 0]
    assert sum(math.dist(a, b) for a, b in front) / 2 == pytest.approx(600 + math.pi * 30, abs=1)
    assert all(min(math.dist(a[:2], (50, 100)), math.dist(b[:2], (50, 100))) < 16 or on_edge(a, b) for a, b in front)


def on_edge(a, b) -> bool:
    """Return whether a line lies on the outline of the plate: the strips between leave none on its face."""
    return any(a[axis] == b[axis] and a[axis] in (0.0, (100.0, 200.0)[axis]) for axis in (0, 1))


@given(seed=st.integers(0, 10_000), crossing=st.booleans())
def test_what_is_painted_last_is_what_a_ray_meets_first(seed, crossing):
    """Any blocks and slants, touching, apart or through one another, seen from anywhere."""
    source = random.Random(seed)
    items, solids = [], []
    for at in range(7):
        made = some_solid(source)
        if not crossing:
            made = tuple(
                each
                for each in (made,)
                if all(net((each,), (one,)).volume == net((each,), ()).volume for one in solids)
            )
            if not made:
                continue
            (made,) = made
        solids.append(made)
        items.append(Item(at, cells_of((made,)), ORIGIN))
    away = unit([source.uniform(-1, 1) for _ in range(3)])
    order = list(far_to_near(tree_of(items), away))
    shown = {item.of: solid for item, solid in zip(items, solids, strict=True)}
    for _ in range(25):
        start = [source.uniform(0, 12) - 40 * each for each in away]
        hits = {at: hit for at, solid in shown.items() if (hit := entry(solid, start, away)) is not None}
        painted = [item for item in order if entry_of_cell(item.cells[0], start, away) is not None]
        if not hits:
            assert painted == []
            continue
        first = min(hits.values())
        assert entry_of_cell(painted[-1].cells[0], start, away) == pytest.approx(first, abs=1e-3)


def some_solid(source: random.Random) -> Solid:
    x, y, z = (source.randint(0, 8) for _ in range(3))
    depth = (z, z + source.randint(1, 4))
    if source.random() < 0.6:
        return block(x, y, x + source.randint(1, 6), y + source.randint(1, 6), depth)
    return Solid(((x, y), (x + source.randint(2, 6), y + 1), (x + 1, y + source.randint(2, 6))), depth)


def unit(way):
    long = math.sqrt(sum(each * each for each in way))
    return tuple(each / long for each in way)


def entry(solid: Solid, start, away) -> float | None:
    return _entry(solid.points, solid.depth, start, away)


def entry_of_cell(cell: Cell, start, away) -> float | None:
    return _entry(cell.outline, cell.depth, start, away)


def _entry(corners, depth, start, away) -> float | None:
    """Return how far along a ray a convex prism is met, by clipping the ray with each of its sides."""
    low, high = 0.0, 1e9
    sides = [(0.0, 0.0, 1.0, depth[1]), (0.0, 0.0, -1.0, -depth[0])]
    for (ax, ay), (bx, by) in zip(corners, (*corners[1:], corners[0]), strict=True):
        nx, ny = by - ay, ax - bx
        sides.append((nx, ny, 0.0, nx * ax + ny * ay))
    for nx, ny, nz, at in sides:
        off = nx * start[0] + ny * start[1] + nz * start[2] - at
        speed = nx * away[0] + ny * away[1] + nz * away[2]
        if abs(speed) < 1e-12:
            if off > 0:
                return None
        elif speed > 0:
            high = min(high, -off / speed)
        else:
            low = max(low, -off / speed)
    return low if high - low > 1e-6 else None
