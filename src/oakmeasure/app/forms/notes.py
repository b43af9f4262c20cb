"""Labels in the window's roles, and the line under a box that says what is wanted or why it refuses."""

from __future__ import annotations

from PySide6.QtWidgets import QLabel

from oakmeasure.language import tr


def label(text: str, role: str) -> QLabel:
    """Return a label in one of the roles of the style sheet."""
    made = QLabel(tr(text))
    made.setProperty("role", role)
    return made


def note_label() -> QLabel:
    """Return the hidden line under a box."""
    note = label("", "pencil")
    note.setWordWrap(True)
    note.hide()
    return note


def tell(note: QLabel, text: str, refused: bool) -> None:
    """Say a note, or why something was refused, under its box."""
    role = "refused" if refused else "pencil"
    if note.property("role") != role:
        note.setProperty("role", role)
        note.style().unpolish(note)
        note.style().polish(note)
    note.setText(tr(text))
    note.setVisible(bool(text))
