"""Boxes that the sheets of several constructions have."""

from __future__ import annotations

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.document.species import CORES, stuff
from oakmeasure.core.forms.fields import Column, Field, Group, Rows


def size(
    name: str,
    label: str,
    note: str = "",
    *,
    optional: bool = False,
    unit: Unit = Unit.MM,
    figure: str = "",
    ref: str = "",
) -> Field:
    """Return the box of one of the construction's own fields; figure: of another name than the field's."""
    return Field(f"build.{name}", label, unit, note, figure or name, optional=optional, ref=ref)


def laid_up(name: str, word: str) -> Group:
    """The boards at hand, measured one by one; the gauge writes into the box that has the cursor."""
    rows = Rows(
        name, "build.measured", (Column("width", "width that it shows"),), lambda values: LaidBoard(**values), word
    )
    return Group(f"Lay up measured {word}s", (rows,), hint="empty: all alike")


def sheet_options() -> list[tuple[str, str]]:
    """Return the sheets that wood can be laid on."""
    return [(key, stuff(key).name) for key in CORES]
