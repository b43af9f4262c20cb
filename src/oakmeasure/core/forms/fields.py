"""What a stage's sheet is made of: boxes, choices, lists, in groups on pages. Only data; `sheets` builds it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.job import Job, Leaf
from oakmeasure.core.edits import job_edits


@dataclass(frozen=True, slots=True)
class Field:
    """A box. path: of the leaf. figure: what stands there while the field is left to the rules.

    optional: an emptied box goes back to the rules, or means that there is none. ref: what it lights up.
    """

    path: str
    label: str
    unit: Unit = Unit.MM
    note: str = ""
    figure: str = ""
    signed: bool = False
    optional: bool = False
    has_state: bool = False
    ref: str = ""


@dataclass(frozen=True, slots=True)
class Choice:
    """One of several. get: the chosen key; put: the edit that chooses another."""

    name: str
    label: str
    options: Callable[[], list[tuple[Any, str]]]
    get: Callable[[Job, str], Any]
    put: Callable[[Job, str, Any], Job]
    note: str = ""
    other: Callable[[Job], str] | None = None  # what to show when it is none of the options


@dataclass(frozen=True, slots=True)
class Column:
    """One box, or one of several `options`, in each row of a list. share: of the row's width.

    optional: may be left empty. is_reading: it holds a reading, with its state.
    """

    name: str
    label: str
    unit: Unit = Unit.MM
    signed: bool = False
    optional: bool = False
    is_reading: bool = False
    options: Callable[[], list[tuple[Any, str]]] | None = None
    share: int = 4


@dataclass(frozen=True, slots=True)
class Rows:
    """A list of the leaf, or of the job, with a row for each item and an empty one to write the next into.

    path: of the list. make: the item from the values of a row. suggest: values for the empty row's boxes that are left
    empty. where: what a row shows on the drawing, before its number.
    """

    name: str
    path: str
    columns: tuple[Column, ...]
    make: Callable[[dict[str, Any]], Any]
    word: str
    of_job: bool = False
    suggest: Callable[[Leaf], dict[str, Any]] | None = None
    where: str = ""
    columns_for: Callable[[Leaf], tuple[str, ...]] | None = None  # names of the columns that are shown


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
    """A word to click that does more than set a field. ask: which of the window's commands."""

    ask: Ask
    label: str
    note: str = ""


@dataclass(frozen=True, slots=True)
class Panel:
    """A widget of its own in a group. make: it, for a session; it has `refresh()`."""

    name: str
    make: Callable[[Any], Any]


@dataclass(frozen=True, slots=True)
class Group:
    """Fields asked together. columns: how many boxes in a row; 1 puts the label to the left of its box.

    page: the page of the sheet that it is on. when: whether it is asked of this leaf.
    """

    title: str
    items: tuple[Field | Choice | Rows | Command | Panel, ...]
    columns: int = 1
    hint: str = ""
    page: str = ""
    when: Callable[[Leaf], bool] | None = None


def field_choice(path: str, label: str, options: Callable[[], list[tuple[Any, str]]], note: str = "") -> Choice:
    """Return the choice that sets one field of the leaf."""
    return Choice(
        path,
        label,
        options,
        lambda job, leaf_id: job_edits.get(job.leaf(leaf_id), path),
        lambda job, leaf_id, key: job_edits.with_field(job, leaf_id, path, key),
        note,
    )


def enum_options(kind: type) -> Callable[[], list[tuple[Any, str]]]:
    """Return the options of an enumeration, each by its own words."""
    return lambda: [(each, str(each)) for each in kind]  # type: ignore[attr-defined]
