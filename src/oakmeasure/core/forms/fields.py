"""What a stage's sheet is made of: boxes, choices, lists, in groups on pages. Only data; `sheets` builds it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document import field_path
from oakmeasure.core.document.job import Job, Leaf
from oakmeasure.core.edits import job_edits


@dataclass(frozen=True, slots=True)
class Field:
    """A box."""

    path: str
    """Path of the field in the leaf."""
    label: str
    """What it is called on the screen."""
    unit: Unit = Unit.MM
    """Its unit."""
    note: str = ""
    """What is said beside it; "" for nothing."""
    figure: str = ""
    """What stands there while the field is left to the rules."""
    signed: bool = False
    """Whether it may be less than 0."""
    optional: bool = False
    """An emptied box goes back to the rules, or means that there is none."""
    has_state: bool = False
    """Whether it says how well it is known."""
    ref: str = ""
    """What it lights up."""


@dataclass(frozen=True, slots=True)
class Choice:
    """One of several."""

    name: str
    """Path of the field."""
    label: str
    """What it is called on the screen."""
    options: Callable[[], list[tuple[Any, str]]]
    """What can be chosen: each value with its words."""
    get: Callable[[Job, str], Any]
    """The chosen key."""
    put: Callable[[Job, str, Any], Job]
    """The edit that chooses another."""
    note: str = ""
    """What is said beside it; "" for nothing."""
    other: Callable[[Job, str], str] | None = None
    """What to show when it is none of the options."""


@dataclass(frozen=True, slots=True)
class Column:
    """One box, or one of several `options`, in each row of a list."""

    name: str
    """Name of the field in its row."""
    label: str
    """What it is called on the screen."""
    unit: Unit = Unit.MM
    """Its unit."""
    signed: bool = False
    """Whether it may be less than 0."""
    optional: bool = False
    """May be left empty."""
    is_reading: bool = False
    """It holds a reading, with its state."""
    options: Callable[[], list[tuple[Any, str]]] | None = None
    """What can be chosen; None for a number or a text."""
    share: int = 4
    """Of the row's width."""


@dataclass(frozen=True, slots=True)
class Rows:
    """A list of the leaf, or of the job, with a row for each item and an empty one to write the next into."""

    name: str
    """Key of its texts."""
    path: str
    """Path of the list."""
    columns: tuple[Column, ...]
    """Its columns."""
    make: Callable[[dict[str, Any]], Any]
    """The item from the values of a row."""
    word: str
    """What one row is called."""
    of_job: bool = False
    """Whether the list is the job's, else the leaf's."""
    suggest: Callable[[Leaf], dict[str, Any]] | None = None
    """Values for the empty row's boxes that are left empty."""
    where: str = ""
    """What a row shows on the drawing, before its number."""
    columns_for: Callable[[Leaf], tuple[str, ...]] | None = None
    """Names of the columns that are shown."""


class Ask(StrEnum):
    """What a sheet may ask of the window's commands."""

    BOOK_FOLDER = "book_folder"
    EXPORT_BUY = "export_buy"
    EXPORT_LOG = "export_log"
    EXPORT_RACK = "export_rack"
    IMPORT_LOG = "import_log"
    IMPORT_RACK = "import_rack"
    IMPORT_TICKS = "import_ticks"
    KEEP_HINGE = "keep_hinge"
    KEEP_OUTS = "keep_outs"
    LABEL_SHEET = "label_sheet"
    OPERATIONS_LIST = "operations_list"
    RECORD_SHEET = "record_sheet"
    REOPEN = "reopen"
    SETTINGS_LIST = "settings_list"
    SHOP_RULES = "shop_rules"
    TAKE_CHECK = "take_check"
    UNCUT_ALL = "uncut_all"
    UNPIN_ALL = "unpin_all"
    WORKSHOP = "workshop"
    ZONE_SHEET = "zone_sheet"


@dataclass(frozen=True, slots=True)
class Command:
    """A word to click that does more than set a field."""

    ask: Ask
    """Which of the window's commands."""
    label: str
    """What it is called on the screen."""
    note: str = ""
    """What is said beside it; "" for nothing."""


@dataclass(frozen=True, slots=True)
class Panel:
    """A widget of its own in a group."""

    name: str
    """Its name, as it is shown."""
    make: Callable[[Any], Any]
    """It, for a session; it has `refresh()`."""
    keeps: bool = True
    """Whether it holds what the job does not: a text in the making, a clock that runs."""


@dataclass(frozen=True, slots=True)
class Group:
    """Fields asked together."""

    title: str
    """Its heading."""
    items: tuple[Field | Choice | Rows | Command | Panel, ...]
    """What stands in it."""
    columns: int = 1
    """How many boxes in a row; 1 puts the label to the left of its box."""
    hint: str = ""
    """What is said under its heading; "" for nothing."""
    page: str = ""
    """The page of the sheet that it is on."""
    when: Callable[[Leaf], bool] | None = None
    """Whether it is asked of this leaf."""


def field_choice(
    path: str, label: str, options: Callable[[], list[tuple[Any, str]]], note: str = "", *, none: str = ""
) -> Choice:
    """Return the choice that sets one field of the leaf.

    Args:
        path: Path of the field in the leaf, its names joined by points.
        label: What it is called, for the working and the drawing.
        options: What can be chosen: each value with its words.
        note: What is said beside it; "" for nothing.
        none: What to show while it is none of the options; "" where it always is one.
    """
    return Choice(
        path,
        label,
        options,
        lambda job, leaf_id: field_path.get(job.leaf(leaf_id), path),
        lambda job, leaf_id, key: job_edits.with_field(job, leaf_id, path, key),
        note,
        (lambda _job, _leaf_id: none) if none else None,
    )


def enum_options(kind: type) -> Callable[[], list[tuple[Any, str]]]:
    """Return the options of an enumeration, each by its own words.

    Args:
        kind: The enumeration.
    """
    return lambda: [(each, str(each)) for each in kind]  # type: ignore[attr-defined]
