"""What dialogues share: how one is run, how a file may be called, and the kinds of files that are offered."""

from __future__ import annotations

from PySide6.QtWidgets import QDialog

from oakmeasure.language import tr


def answered(dialog: QDialog) -> bool:
    """Run a dialogue to its end; it goes with the next turn of the window, and hears of no edit after that.

    Returns whether it was accepted.
    """
    accepted = bool(dialog.exec())
    dialog.deleteLater()
    return accepted


def file_name(text: str) -> str:
    """Return a text as it may stand in a file's name."""
    return "".join(each if each.isalnum() or each in " -_" else "-" for each in text).strip() or "job"


def say_kinds(kinds: str) -> str:
    """Return the kinds of files that a dialogue offers, `Tables (*.csv)`, in the language that is chosen."""
    words, bracket, rest = kinds.partition(" (")
    return f"{tr(words)}{bracket}{rest}"
