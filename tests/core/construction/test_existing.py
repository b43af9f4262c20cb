"""A leaf that is there: longer, narrower, what may be taken off it, against an exhaustive search."""

from __future__ import annotations

import itertools
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.existing.model import EdgeShape, Existing, Inside, ReduceBy, Splice
from oakmeasure.core.construction.existing.narrowing import PANEL_LEAST, reduce, ways_of
from oakmeasure.core.drawings.leaf.ways_view import ways_view
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import codes, job, said, solved


def part(leaf, name):
    return leaf.build.part(name)


def test_existing_leaf_made_longer_and_narrower_by_hand():
    """1915 → 1973 is 58 too short for a lap of 75: a stop that names 70 as the least; at 80 more it can be halved."""
    made = job(
        762.0,
        2000.0,
        build=Existing(
            width=766.0, height=1915.0, inside=Inside.PANELLED, stile=95.0, tenon=60.0, reduce_by=ReduceBy.STILES
        ),
    )
    leaf = solve(made).leaves[0]
    f = leaf.figures
    assert f["added"].value == pytest.approx(1992 - 1915)
    assert (f["piece_hinge"].value, f["piece_latch"].value) == (pytest.approx(77 + 75), pytest.approx(77 + 75 + 25))
    assert f["stile_off"].value == pytest.approx(4.5)
    assert f["stile_left"].value == pytest.approx(90.5)
    assert part(leaf, "middle rail").face.y0 == pytest.approx(990 + 77 - 90)
    short = solved(762.0, 1981.0, build=made.leaves[0].build)
    stop = said(short, "splice-short")
    assert stop.level is Level.STOP
    assert "12" in stop.remedies[0].text  # cut 12 off the old end first: 58 + 12 = 70
    block = Existing(width=766.0, height=1915.0, splice=Splice.BLOCK)
    assert "block-loaded" in codes(solved(build=block), Level.WARNING)
    assert "splice-hinge" in codes(solved(762.0, 2100.0, build=made.leaves[0].build), Level.WARNING)


def test_hollow_leaf_limits_what_may_be_done_and_names_the_smallest_change():
    hollow = Existing(
        width=830.0,
        height=1981.0,
        inside=Inside.HOLLOW,
        solid=28.0,
        face=4.0,
        grooves=5,
        groove_depth=4.5,
        recess_depth=8.0,
        thickness=30.0,
        edge_shape=EdgeShape.ROUNDED,
    )
    leaf = solved(build=hollow)
    stop = said(leaf, "edge-gone")
    assert (stop.level, leaf.figures["off_edge"].value) == (Level.STOP, pytest.approx(36.5))
    assert "18" in stop.remedies[0].text  # 28 less the 10 that stay
    for code in ("groove-deep", "recess-deep", "edge-unmeasured"):
        check = said(leaf, code)
        mended = solve(job_edits.with_remedy(job(build=hollow), "leaf-1", check.remedies[0])).leaves[0]
        assert code not in codes(mended)
    little = solved(build=hollow.model_copy(update={"width": 799.0}))
    assert "edge-gone" in codes(little, Level.WARNING)
    solid = solved(build=Existing(inside=Inside.SOLID, width=830.0))
    assert "edge-gone" not in codes(solid)
    assert solid.weights.mass.value > 1.4 * solved(build=Existing(inside=Inside.HOLLOW, width=830.0)).weights.mass.value


def searched(total, counts, sights, may, by):
    """Return the best (off each stile, panels) by trying every symmetrical choice of whole millimetres."""
    best = None
    most = {ReduceBy.SHARED: may, ReduceBy.STILES: may, ReduceBy.PANELS: min(0.5, may)}[by]
    top = 0 if by is ReduceBy.STILES else int(total)
    for sum_off in range(top + 1):
        off = (total - sum_off) / 2
        if not -1e-9 <= off <= most + 1e-9:
            continue
        rows = []
        for count, sight in zip(counts, sights, strict=True):
            base = sum_off // count
            found = None
            for extra in itertools.product((0, 1), repeat=count):
                row = [base + each for each in extra]
                if (
                    sum(row) == sum_off
                    and row == row[::-1]
                    and (not row or max(row) <= max(0, int(sight - PANEL_LEAST)))
                ):
                    found = tuple(row)
                    break
            if found is None:
                break
            rows.append(found)
        if len(rows) < len(counts):
            continue
        if best is None or (off > best[0] + 1e-9) is (by is ReduceBy.SHARED):
            best = (off, tuple(rows))
    return best


def test_reduce_solver_finds_what_exhaustive_search_finds_on_200_random_leaves():
    source = random.Random(20)
    solvable = 0
    for _ in range(200):
        counts = tuple(source.randint(1, 4) for _ in range(source.randint(1, 2)))
        sights = tuple(source.uniform(60, 260) for _ in counts)
        may, total = source.choice([0.0, 4.0, 12.5, 20.0, 33.0]), source.randint(1, 160) / source.choice([1, 2])
        for by in ReduceBy:
            mine = reduce(total=total, rows=counts, sights=sights, may=may, by=by)
            theirs = searched(total, counts, sights, may, by)
            assert (mine is None) is (theirs is None), (total, counts, sights, may, by)
            if mine is None or theirs is None:
                continue
            solvable += 1
            assert mine[0] == pytest.approx(theirs[0], abs=1e-6), (total, counts, may, by)
            for row in mine[1]:
                assert 2 * mine[0] + sum(row) == pytest.approx(total)
                assert row == row[::-1]
                assert max(row) - min(row) <= 1
    assert solvable > 200


@given(st.floats(10, 120), st.lists(st.integers(1, 4), min_size=1, max_size=2), st.sampled_from([1.0, 25.4 / 16, 0.5]))
def test_panels_lose_whole_steps_of_the_rule_alike_from_both_sides(total, counts, step):
    found = reduce(
        total=round(total, 1),
        rows=tuple(counts),
        sights=(200.0,) * len(counts),
        may=20.0,
        by=ReduceBy.SHARED,
        step=step,
    )
    for row in found[1] if found is not None else ():
        assert 2 * found[0] + sum(row) == pytest.approx(round(total, 1), abs=1e-6)
        assert list(row) == list(row)[::-1]
        assert max(row) - min(row) <= step + 1e-9
        assert all(each / step == pytest.approx(round(each / step), abs=1e-9) for each in row)


def test_reduction_keeps_tenons_whole_and_says_what_it_costs_where_it_cannot():
    found = ways_of(Existing(width=840.0, inside=Inside.PANELLED, stile=95.0, tenon=62.0), 75.0, 1.0)
    assert found[ReduceBy.SHARED].tenon_cover == 8.5  # 75 − 2 × 13 of two panels, off both stiles: 95 − 24.5 − 62
    assert ReduceBy.STILES not in found
    with pytest.raises(InputError):
        reduce(total=-1.0, rows=(1,), sights=(100.0,), may=1.0, by=ReduceBy.SHARED)
    build = Existing(width=840.0, inside=Inside.PANELLED, stile=95.0, tenon=62.0, reduce_by=ReduceBy.STILES)
    made = job(build=build)
    leaf = solve(made).leaves[0]
    stop = said(leaf, "reduce-too-far")
    assert stop.level is Level.STOP
    table = leaf.leaf_choices[0]
    assert {each.level for each in table.options} >= {Level.STOP}
    for remedy in stop.remedies:
        assert "reduce-too-far" not in codes(solve(job_edits.with_remedy(made, "leaf-1", remedy)).leaves[0])
    option = next(each for each in table.options if each.remedy)
    assert said(solve(job_edits.with_remedy(made, "leaf-1", option.remedy)).leaves[0], "reduced")
    assert ways_view(leaf, Show()).shapes
    far = solved(400.0, 1981.0, build=build)
    assert "more" in said(far, "reduce-too-far").sentence or said(far, "reduce-too-far").remedies
