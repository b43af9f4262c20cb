"""Boxes that the sheets of several constructions have."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.document.species import CORES, stuff
from oakmeasure.core.forms.fields import Column, Field, Group, Rows


def size(name: str, label: str, note: str = "", *, optional: bool = False, figure: str = "", ref: str = "") -> Field:
    """Return the box of one of the construction's own lengths.

    Args:
        name: Its name.
        label: What it is called, for the working and the drawing.
        note: What is said beside it; "" for nothing.
        optional: Whether it may be left empty.
        figure: Name of the figure, where it is another than the field's.
        ref: What it shows, for pointing at it: "part:top rail"; "" for nothing.
    """
    return Field(f"build.{name}", label, Unit.MM, note, figure or name, optional=optional, ref=ref)


def number(name: str, label: str, note: str = "", *, optional: bool = False, figure: str = "") -> Field:
    """Return the box of how many the construction has of something.

    Args:
        name: Its name.
        label: What it is called, for the working and the drawing.
        note: What is said beside it; "" for nothing.
        optional: Whether it may be left empty.
        figure: Name of the figure, where it is another than the field's.
    """
    return Field(f"build.{name}", label, Unit.COUNT, note, figure or name, optional=optional)


def laid_up(name: str, word: str) -> Group:
    """The boards at hand, measured one by one; the gauge writes into the box that has the cursor.

    Args:
        name: Its name.
        word: The word for one of them.
    """
    rows = Rows(
        name, "build.measured", (Column("width", "width that it shows"),), lambda values: LaidBoard(**values), word
    )
    return Group(f"Lay up measured {word}s", (rows,), hint="empty: all alike")


def sheet_options() -> list[tuple[str, str]]:
    """Return the sheets that wood can be laid on."""
    return [(key, stuff(key).name) for key in CORES]
