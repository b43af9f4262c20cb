"""Labels: which face of a piece is out."""

from __future__ import annotations

import pytest

from oakmeasure.core.base.units import Show
from oakmeasure.core.construction.boarded.model import Boarded
from oakmeasure.core.construction.layered.model import Layered
from oakmeasure.core.construction.light.model import Light, LightFill
from oakmeasure.core.making.labels import labels_of
from samples import solved


@pytest.mark.parametrize("build", [Layered(trim=20.0), Light(fill=LightFill.SHEET), Boarded(double=True)])
def test_what_lies_on_the_closing_face_is_marked_there_and_what_lies_in_front_is_not(build):
    leaf = solved(build=build)
    said = {each.name: each.face for each in labels_of(leaf, Show(), job="")}
    thick = leaf.build.thickness
    behind = [p for p in leaf.build.parts if p.name in said and p.depth[0] > thick / 3 and p.depth[1] > thick - 0.01]
    before = [p for p in leaf.build.parts if p.name in said and p.depth[0] == 0]
    assert behind
    assert {said[each.name] for each in behind} == {"closing face out"}
    assert {said[each.name] for each in before} <= {"opening face"}
