"""A checker of cutting plans that knows nothing of how a plan was made."""

from __future__ import annotations

import itertools
import math
from collections import Counter

import pytest

from oakmeasure.core.cutting.model import CutKind

NEAR = 1e-6


def check(problem, plan):
    """Every part once, inside its stock, a kerf apart, off every defect, grain kept, cuts that go right through."""
    parts, stock = {each.name: each for each in problem.parts}, {each.name: each for each in problem.stock}
    done = Counter(each.part for each in plan.cuts) + Counter(dict(plan.left))
    assert done == Counter({each.name: each.quantity for each in problem.parts})
    pieces: dict[tuple[str, int], list] = {}
    for each in plan.cuts:
        part = parts[each.part]
        sizes = [(part.length, part.width)] + ([(part.width, part.length)] if part.turns else [])
        if problem.kind is CutKind.BARS:
            sizes = [(part.length, 0.0)]
        assert any(math.isclose(each.length, a) and math.isclose(each.width, b) for a, b in sizes), each
        pieces.setdefault((each.stock, each.index), []).append(each)
    used = Counter(name for name, _ in pieces)
    assert dict(plan.used) == dict(used)
    for name, many in used.items():
        assert stock[name].quantity is None or many <= stock[name].quantity
        assert {index for other, index in pieces if other == name} == set(range(many))
    assert plan.cost == pytest.approx(sum(stock[name].price * many for name, many in used.items()))
    assert plan.bound <= plan.cost + NEAR
    for (name, _), cuts in pieces.items():
        _check_piece(problem, stock[name], cuts)


def _check_piece(problem, stock, cuts):
    trim, side = problem.trim, problem.trim if problem.kind is CutKind.SHEETS else 0.0
    for each in cuts:
        assert trim - NEAR <= each.x
        assert each.x + each.length <= stock.length - trim + NEAR
        assert side - NEAR <= each.y
        assert each.y + each.width <= stock.width - side + NEAR
        clear = next(one.clear for one in problem.parts if one.name == each.part)
        for hole in (one for one in problem.defects if one.board == stock.name and one.rank <= clear):
            assert (
                each.x >= hole.x + hole.length - NEAR
                or each.x + each.length <= hole.x + NEAR
                or each.y >= hole.y + hole.width - NEAR
                or each.y + each.width <= hole.y + NEAR
            ), (each, hole)
    for a, b in itertools.combinations(cuts, 2):
        along = max(a.x, b.x) - min(a.x + a.length, b.x + b.length)
        across = max(a.y, b.y) - min(a.y + a.width, b.y + b.width)
        if problem.kind is CutKind.BARS:
            across = -1.0
        assert max(along, across) >= problem.kerf - NEAR, (a, b)
    boxes = [(each.x, each.y, each.x + each.length, each.y + max(each.width, 1.0)) for each in cuts]
    assert falls_apart(boxes, problem.kerf), cuts


def falls_apart(boxes, kerf):
    """Whether cuts from edge to edge part the pieces, one after the other."""
    if len(boxes) < 2:
        return True
    for low, high in ((0, 2), (1, 3)):
        ordered = sorted(boxes, key=lambda box: box[low])
        reach = ordered[0][high]
        for at in range(1, len(ordered)):
            if ordered[at][low] >= reach + kerf - NEAR:
                return falls_apart(ordered[:at], kerf) and falls_apart(ordered[at:], kerf)
            reach = max(reach, ordered[at][high])
    return False
