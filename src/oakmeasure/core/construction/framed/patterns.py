"""Ready patterns of a frame: how many fields stand over how many, and what fills them."""

from __future__ import annotations

from typing import Any

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.construction.framed.model import FieldRow, Framed, Infill
from oakmeasure.core.document.construction_model import ConstructionModel

TWO = FieldRow(columns=2)
ONE = FieldRow()

# key -> (the trade's words, the fields of a frame that it sets)
PATTERNS: dict[str, tuple[str, dict[str, Any]]] = {
    "four": ("four panels", {"rows": (), "muntin": 95.0, "middle_rail": 180.0}),
    "two": ("two, one over one", {"rows": (), "muntin": None, "middle_rail": 180.0}),
    "one": ("one panel", {"rows": (), "muntin": None, "middle_rail": None}),
    "six": (
        "six panels",
        {
            "rows": (TWO, TWO, FieldRow(columns=2, share=0.45)),
            "lock_rail": 0,
            "middle_rail": 180.0,
            "muntin": 95.0,
            "other_rail": 95.0,
        },
    ),
    "one_over_three": (
        "one over three",
        {"rows": (FieldRow(columns=3), ONE), "lock_rail": 0, "middle_rail": 180.0, "muntin": 80.0},
    ),
    "glazed_top": (
        "glazed top",
        {"rows": (TWO, FieldRow(infill=Infill.GLASS)), "lock_rail": 0, "middle_rail": 180.0, "muntin": 95.0},
    ),
    "boarded_lower": (
        "boarded lower half",
        {"rows": (FieldRow(infill=Infill.BOARDS), TWO), "lock_rail": 0, "middle_rail": 180.0, "muntin": 95.0},
    ),
}


def with_pattern(choice: ConstructionModel, key: str) -> Framed:
    """Return a frame with the fields of a ready pattern; its members keep their widths where they have one.

    Args:
        choice: A frame.
        key: Of the pattern, one of `PATTERNS`.

    Returns:
        The frame on that pattern.

    Raises:
        InputError: It is no frame, or there is no such pattern.
    """
    if not isinstance(choice, Framed) or key not in PATTERNS:
        raise InputError("build.rows", key, "a framed leaf and one of " + ", ".join(PATTERNS))
    fields = dict(PATTERNS[key][1])
    for name in ("muntin", "middle_rail"):
        kept = getattr(choice, name)
        if fields.get(name) is not None and kept is not None:
            fields[name] = kept
    return choice.model_copy(update=fields)


def pattern_of(choice: ConstructionModel) -> str:
    """Return the key of the pattern that a frame's fields make; "" where they are its own, or it is no frame.

    Args:
        choice: What is chosen for the construction.
    """
    if not isinstance(choice, Framed):
        return ""
    for key, (_, fields) in PATTERNS.items():
        same_rows = fields["rows"] == choice.rows
        members = all((fields[name] is None) is (getattr(choice, name) is None) for name in ("muntin", "middle_rail"))
        if same_rows and members:
            return key
    return ""
