"""Words of the trade, all of them with what they mean; F1, found by typing."""

from __future__ import annotations

from html import escape

from PySide6.QtWidgets import QDialog, QLineEdit, QTextBrowser, QVBoxLayout, QWidget

from oakmeasure.app.shell import theme
from oakmeasure.core.base.glossary import words
from oakmeasure.language import tr


class WordsBox(QDialog):
    """A list that leaves what has the typed letters in it."""

    def __init__(self, parent: QWidget | None, find: str = "") -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Words of the trade"))
        self.resize(620, 560)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 18, 20, 18)
        self.finder = QLineEdit()
        self.finder.setObjectName("find")
        self.finder.setPlaceholderText(tr("Find: haunch, bevel, backset …"))
        self.finder.setAccessibleName(tr("find a word of the trade"))
        self.finder.textChanged.connect(self._show)
        self.shown = QTextBrowser()
        self.shown.setAccessibleName(tr("words and what they mean"))
        column.addWidget(self.finder)
        column.addWidget(self.shown)
        self.finder.setText(find)
        self._show()

    def _show(self) -> None:
        wanted, ink = self.finder.text().strip().lower(), theme.palette().ink
        rows = [
            (word, meaning)
            for word, meaning in sorted(words().items())
            if wanted in word.lower() or wanted in meaning.lower()
        ]
        lines = [
            f'<p style="color:{ink}; margin:5px 0"><span style="font-weight:600">{escape(word)}</span>'
            f"&nbsp;&nbsp;{escape(meaning)}</p>"
            for word, meaning in rows
        ]
        none = f'<p style="color:{ink}">No word of the trade has “{escape(wanted)}” in it.</p>'
        self.shown.setHtml(tr("".join(lines) or none))
