"""Butts: which one does, and where they sit on a cabinet's leaf."""

from __future__ import annotations

import pytest

from oakmeasure.core.construction.boarded.model import Boarded, BoardedStyle
from oakmeasure.core.construction.framed.model import Framed
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level
from oakmeasure.core.solver import solve
from samples import codes, job, solved


def test_butts_that_are_too_weak_or_too_wide_name_the_one_of_the_table_that_does_and_taking_it_mends():
    heavy = job(780.0, 2040.0, build=Boarded(style=BoardedStyle.X, double=True))
    weak = next(each for each in solve(heavy).leaves[0].checks if each.code == "butts-weak")
    assert weak.remedies[0].text == "Take the Tern 102 ball-bearing, up to 80 kg"
    mended = solve(job_edits.with_remedy(heavy, "leaf-1", weak.remedies[0])).leaves[0]
    assert "butts-weak" not in codes(mended)
    thin = solved(780.0, 2040.0, build=Boarded())
    wide = next(each for each in thin.checks if each.code == "butt-back")
    assert wide.title == "The butts are wider than the edge"  # 24 in 20
    assert all(each.path == "" for each in wide.remedies)  # none of the table is narrow enough for boards alone


def test_butts_of_a_cabinets_leaf_are_in_line_with_its_rails_or_their_own_length_from_its_ends():
    framed = solved(440.0, 560.0, hanging=Hanging.INSET_BUTTS, build=Framed(middle_rail=None, muntin=None)).figures
    assert framed["butt_1_top"].value == framed["top_rail"].value
    height, foot = framed["leaf_height"].value, framed["butt_2_top"].value + framed["butt_length"].value
    assert height - foot == pytest.approx(framed["bottom_rail"].value)
    start = job(440.0, 560.0, hanging=Hanging.INSET_BUTTS)
    slab = solve(job_edits.with_construction(start, "leaf-1", "slab")).leaves[0]
    assert slab.figures["butt_1_top"].value == slab.figures["butt_length"].value
    assert not {each for each in codes(slab, Level.STOP) if each.startswith(("stiffener", "butts"))}
