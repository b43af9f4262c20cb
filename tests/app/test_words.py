"""Words of the trade: explained where they stand, all of them in a list, none that is never met."""

from __future__ import annotations

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLineEdit

import oakmeasure
from oakmeasure.app.tools.glossary import WordsBox
from oakmeasure.core.base.glossary import explained, trade_words, words
from oakmeasure.core.figures.check import Stage

FOUND = {
    "tenon, blind": ("tenon",),
    "Haunched rails": ("haunch", "rail"),
    "trailer, platen": (),
    "stand-off": ("stand-off",),
    "rail rail rails": ("rail",),
    "": (),
}


@pytest.mark.parametrize(("text", "found"), FOUND.items())
def test_words_are_found_whole_in_any_form_once(text, found):
    assert trade_words(text) == found
    assert [line.partition(":")[0] for line in explained(text).splitlines()] == list(found)


def test_every_word_is_met_somewhere_and_none_is_explained_by_itself():
    code = "\n".join(path.read_text("utf-8") for path in Path(oakmeasure.__file__).parent.rglob("*.py"))
    met = set(trade_words(code))
    assert set(words()) <= met
    assert all(word not in trade_words(meaning) for word, meaning in words().items())
    assert all(meaning[0].islower() and len(meaning) < 110 for meaning in words().values())


def test_boxes_checks_lists_and_sums_explain_the_words_in_them(window):
    for stage in (Stage.LEAF, Stage.HARDWARE):
        window.session.go_to(stage)
        for line in window.sheet().findChildren(QLineEdit):
            if line.isVisible() and trade_words(line.accessibleName()):
                assert explained(line.accessibleName()) in line.toolTip(), line.accessibleName()
    window.session.show_working("tenon")
    assert "tenon: the tongue at a rail's end" in window.working.sum.toolTip()
    model = window.list.records
    tips = {model.data(model.index(row, 1), Qt.ItemDataRole.ToolTipRole) for row in range(model.rowCount())}
    assert any(tip and "stile:" in tip for tip in tips)


def test_the_list_leaves_what_has_the_letters_in_it(window):
    box = WordsBox(window)
    assert all(word in box.shown.toPlainText() for word in words())
    box.finder.setText("haun")
    assert "haunch" in box.shown.toPlainText()
    assert "backset" not in box.shown.toPlainText()
    box.finder.setText("<b>")
    assert "No word of the trade has “<b>” in it." in box.shown.toPlainText()
    box.deleteLater()
