"""What the Timber pages of the whole job ask: stock of the yard, how to cut, veneers, readings, prices."""

from __future__ import annotations

from typing import Any

from oakmeasure.app.stages.timber.drying_panel import DryingPanel
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document import field_path
from oakmeasure.core.document.first_cut import FirstCut
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import CORES, SHEET_LENGTH, SHEET_WIDTH, stuff
from oakmeasure.core.document.stock import Board, Cleanness, Section, SheetStock
from oakmeasure.core.document.veneer_match import Match
from oakmeasure.core.drawings.views import TimberPage
from oakmeasure.core.forms.fields import (
    Ask,
    Choice,
    Column,
    Command,
    Field,
    Group,
    Panel,
    Rows,
    enum_options,
    field_choice,
)


def _of_job(path: str, label: str, options: Any, note: str = "") -> Choice:
    """Return the choice that sets one field of the job."""
    return Choice(
        path,
        label,
        options,
        lambda job, _leaf: field_path.get(job, path),
        lambda job, _leaf, key: field_path.with_value(job, path, key),
        note,
    )


def _sheets() -> list[tuple[Any, str]]:
    return [(key, stuff(key).name) for key in CORES]


_SIZE = (Column("length", "long", share=5), Column("width", "wide"), Column("thickness", "thick"))
_MANY = (
    Column("quantity", "pcs", Unit.COUNT, optional=True, share=3),
    Column("price", "price", Unit.MONEY, optional=True),
)
BOARDS = Rows("boards", "boards", (*_SIZE, *_MANY), lambda values: Board(**values), "board", of_job=True)
SECTIONS = Rows("sections", "sections", (*_SIZE, *_MANY), lambda values: Section(**values), "section", of_job=True)
SHEETS = Rows(
    "sheets",
    "sheets",
    (Column("material", "of", options=_sheets, share=4), *_SIZE, *_MANY),
    lambda values: SheetStock(**values),
    "sheet",
    of_job=True,
)
GRAIN = Rows(
    "grain",
    "sheets",
    (
        Column("material", "of", options=_sheets, share=5),
        Column("grained", "grain", options=lambda: [(True, "kept"), (False, "any way")], share=5),
        Column("trim", "trim", share=4),
    ),
    lambda values: SheetStock(length=SHEET_LENGTH, width=SHEET_WIDTH, thickness=12.0, **values),
    "sheet",
    of_job=True,
)
HOLDS = (
    ((), "none"),
    ((Role.CORE, Role.PACKING), "cores and packing"),
    ((Role.CORE, Role.PACKING, Role.LEDGE, Role.BRACE, Role.STIFFENER), "cores, ledges, braces"),
    ((Role.CORE, Role.PACKING, Role.PANEL, Role.MUNTIN), "cores, panels, muntins"),
)

TIMBER_JOB: tuple[Group, ...] = (
    Group(
        "",
        (
            Command(Ask.EXPORT_RACK, "Write the rack, CSV…", "boards, sections, sheets, defects, readings"),
            Command(Ask.IMPORT_RACK, "Read a rack, CSV…", "takes the place of this one; Ctrl+Z takes it back"),
        ),
        page=TimberPage.RACK,
    ),
    Group(
        "How to cut",
        (
            _of_job("cutting.shown", "Wood that shows", enum_options(Cleanness), "what parts must be clear of"),
            _of_job("cutting.may_hold", "May hold knots", lambda: list(HOLDS), "knots and sapwood, not what weakens"),
            _of_job(
                "cutting.first",
                "Cut first",
                lambda: [(None, "boards ripped"), *((each, str(each)) for each in FirstCut)],
                "boards ripped, sheets either way; or all of it one way",
            ),
            _of_job("cutting.one_leaf", "Leaves", lambda: [(False, "all of the job"), (True, "this one")]),
            _of_job(
                "cutting.seconds",
                "Look for",
                lambda: [(float(n), f"{n} s") for n in (3, 10, 30, 120)],
                "then the best plan so far stays",
            ),
        ),
        page=TimberPage.PLAN,
    ),
    Group(
        "",
        (
            Command(Ask.EXPORT_BUY, "What to buy, CSV…", "of the plan as it is"),
            Command(Ask.UNPIN_ALL, "Take all pins out"),
            Command(Ask.UNCUT_ALL, "Nothing is cut yet", "parts that were said to be cut are planned again"),
        ),
        page=TimberPage.PLAN,
    ),
    Group("Boards, rack and yard", (BOARDS,), hint="empty pieces: to be bought", page=TimberPage.PLAN),
    Group("Planed sections", (SECTIONS,), hint="by length", page=TimberPage.PLAN),
    Group("Sheets", (SHEETS,), page=TimberPage.PLAN),
    Group("Their grain and trim", (GRAIN,), hint="off each edge", page=TimberPage.PLAN),
    Group(
        "Out of boards",
        (
            Field("build.stock", "boards, thickness"),
            Field("build.veneer", "finished"),
            Field("build.sanding", "sanded off"),
            Field("build.thickness_spread", "saw wanders"),
            Field("build.stock_boards", "boards at hand", Unit.COUNT, "empty: as many as needed", optional=True),
            field_choice("build.match", "Match", enum_options(Match)),
        ),
        page=TimberPage.VENEERS,
        when=lambda leaf: leaf.build.kind == "veneered",
    ),
    Group("Readings", (Panel("drying", DryingPanel),), page=TimberPage.DRYING),
    Group(
        "Prices",
        (
            Command(
                Ask.SHOP_RULES, "Shop rules: prices and margin…", "hour, timber, milling, machining, finish, margin"
            ),
        ),
        hint="all made up",
        page=TimberPage.COST,
    ),
)
