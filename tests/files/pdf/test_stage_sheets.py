"""Bench sheets of the stages and the customer's sheet: every demo leaf, one to two pages, read back."""

from __future__ import annotations

import io
import re

import pytest
from pypdf import PdfReader
from reportlab.pdfbase.pdfmetrics import stringWidth

from oakmeasure.core.base.parsing import parse_length
from oakmeasure.core.base.units import Show, UnitSystem
from oakmeasure.core.document.job import Hand
from oakmeasure.core.drawings.drawing import Area
from oakmeasure.core.edits import job_edits
from oakmeasure.core.figures.check import Level, Stage
from oakmeasure.core.paper.customer import customer_blocks, customer_drawing
from oakmeasure.core.paper.stage_sheet import stage_sheet, sum_of
from oakmeasure.core.solver import solve
from oakmeasure.files.pdf.drawing import REGULAR, register_fonts
from oakmeasure.files.pdf.stage_sheets import customer_pdf, folded, stage_sheets_pdf
from samples import job

SHOW = Show()


@pytest.fixture(scope="module")
def whole(solved_demo):
    return solved_demo


def pages(pdf):
    return [page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages]


@pytest.mark.parametrize("stage", list(Stage))
def test_each_stage_of_every_demo_leaf_is_one_or_two_pages_with_its_lists_and_warnings(whole, stage):
    for leaf in whole.leaves:
        texts = pages(stage_sheets_pdf(whole.job, leaf, [stage]))
        assert len(texts) <= 2, (leaf.leaf.id, stage)
        text = " ".join(" ".join(texts).split())
        assert f"{stage}, side 1" in text
        for block in stage_sheet(leaf, stage, Show(whole.job.unit)).blocks:
            assert block.title in text
            assert all(row[max(block.bold, 0)].split()[0] in text for row in block.rows if row[max(block.bold, 0)])
        said = [each for each in leaf.checks if each.stage is stage and each.level is not Level.OK]
        assert text.count("CHECK ") + text.count("DO NOT CUT") >= len(said)


def test_each_list_holds_all_that_the_stage_has(whole):
    for leaf in whole.leaves:
        of = {
            stage: {
                block.title.partition(",")[0]: block for block in stage_sheet(leaf, stage, Show(whole.job.unit)).blocks
            }
            for stage in Stage
        }
        assert len(of[Stage.LEAF]["Parts"].rows) == len(leaf.cut_parts)
        assert len(of[Stage.MAKE]["Operations in working order"].rows) == len(leaf.making.operations)
        if leaf.borings:
            assert len(of[Stage.HARDWARE]["Let in and bored"].rows) == len(leaf.borings)
        boards = [board for group in leaf.plan.groups for board in group.plan.boards]
        assert len(of[Stage.TIMBER]["From which board"].rows if boards else ()) == len(boards)
        assert of[Stage.HANG]["As it hangs"].rows


def test_a_sum_on_paper_gives_the_figure_beside_it(whole):
    """Every written sum of lengths is reckoned again from its words."""
    checked = 0
    for leaf in whole.leaves:
        for figure in leaf.figures:
            words = sum_of(figure, SHOW)
            terms = [row for row in figure.rows if row.value is not None and row.op != "="]
            if not words or any(row.op not in ("", "+", "−") or str(row.unit) != "mm" for row in terms):
                continue
            numbers = re.findall(r"(?:^|( [+−] ))(-?\d+(?:\.\d+)?) ", words)
            if len(numbers) != len(terms) or re.search(r"\d", "".join(row.label for row in terms)):
                continue
            found = sum(
                parse_length(n, UnitSystem.MM, allow_negative=True) * (-1 if "−" in op else 1) for op, n in numbers
            )
            assert found == pytest.approx(figure.value, abs=0.06 * len(terms)), words
            checked += 1
    assert checked > 100


def test_the_customers_sheet_has_no_sums_and_asks_what_can_still_be_changed(whole):
    for leaf in whole.leaves:
        texts = pages(customer_pdf(whole.job, leaf))
        assert len(texts) <= 2
        text = " ".join(" ".join(texts).split())
        told, asked, *_ = customer_blocks(leaf, Show(whole.job.unit))
        assert {"Opens", "Finish", "Gap over the floor", "Price"} <= {row[0] for row in asked.rows}
        assert SHOW.size(leaf.fit.width.value, leaf.fit.height.value, leaf.leaf.build.over_all) in told.rows[0][1]
        assert "local code and licensed practice decide" in text
        assert "its sum" not in text
        assert "signed" in text
    pair = {row[0]: row[1] for row in customer_blocks(whole.leaf("pair"), Show(whole.job.unit))[1].rows}
    assert "bolts hold the other" in pair["Which leaf opens first"]
    assert "Glass" in pair


def test_the_customer_sees_the_leaf_of_its_own_hand(whole):
    """Of hinges on the left the brace of a boarded leaf rises from the left, of hinges on the right from the right."""
    for hand, rises in ((Hand.LEFT, 1), (Hand.RIGHT, -1)):
        job = job_edits.with_field(whole.job, "coal-hole", "hand", hand)
        drawn = customer_drawing(solve(job).leaf("coal-hole"), SHOW)
        (brace,) = [shape for shape in drawn.shapes if isinstance(shape, Area) and shape.ref == "part:brace"]
        low, high = (sorted(brace.points, key=lambda p: p[1])[at][0] for at in (0, -1))
        assert (high - low) * rises > 0, hand


def test_a_leaf_that_cannot_be_still_has_its_sheets():
    tiny = job_edits.with_field(
        job_edits.with_field(job(215), "leaf-1", "fit.gap_hinge", 60.0), "leaf-1", "fit.gap_latch", 60.0
    )
    solution = solve(tiny)
    assert solution.leaves[0].build is None
    texts = pages(stage_sheets_pdf(tiny, solution.leaves[0]))
    assert "Readings" in texts[0]
    assert "DO NOT CUT" in " ".join(texts)
    assert "still to be measured or decided" in pages(customer_pdf(tiny, solution.leaves[0]))[0]


def test_text_is_folded_within_its_column_and_nothing_of_it_is_lost():
    register_fonts()
    text = "latch side, furthest in (at the foot) Donaudampfschifffahrtsgesellschaftskapitän 736.6"
    for room in (30.0, 60.0, 200.0, 900.0):
        lines = folded(text, REGULAR, 8.6, room)
        assert all(stringWidth(line, REGULAR, 8.6) <= room for line in lines)
        assert "".join(lines).replace(" ", "") == text.replace(" ", "")
    assert folded("", REGULAR, 8.6, 50.0) == [""]
