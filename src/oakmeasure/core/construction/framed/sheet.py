"""What the Leaf sheet asks of a framed leaf."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.framed.model import FieldRow, Framed, Infill, TenonKind
from oakmeasure.core.construction.framed.patterns import PATTERNS, pattern_of
from oakmeasure.core.document import field_path
from oakmeasure.core.document.hinges import MortiseLock
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.edits import job_edits
from oakmeasure.core.forms.construction_fields import size
from oakmeasure.core.forms.fields import Choice, Column, Field, Group, Rows, enum_options, field_choice

_PATTERN = Choice(
    "pattern",
    "Pattern",
    lambda: [(key, words) for key, (words, _) in PATTERNS.items()],
    lambda job, leaf_id: pattern_of(job.leaf(leaf_id).build),
    job_edits.with_pattern,
    "members keep their widths",
    other=lambda _job, _leaf_id: "its own",
)


def _where(test: Callable[[Framed], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Framed) and test(leaf.build)


_ROWS = Rows(
    "rows",
    "build.rows",
    (
        Column("columns", "fields", Unit.COUNT, share=3),
        Column("share", "share", Unit.RATIO, share=3),
        Column("height", "high", optional=True),
        Column("infill", "filled", options=enum_options(Infill), share=7),
    ),
    lambda values: FieldRow(**values),
    "row",
    suggest=lambda _leaf: {"columns": 1, "share": 1.0},
)
GROUPS = (
    Group("", (_PATTERN,)),
    Group(
        "Frame",
        (
            size("thickness", "thickness"),
            size("stile", "stile", "the uprights, full height", ref="part:hinge stile"),
            size("top_rail", "top rail", ref="part:top rail"),
            size(
                "middle_rail", "middle rail", "empty: none. Centred on the lock", optional=True, ref="part:middle rail"
            ),
            size(
                "lock_height",
                "lock above the floor",
                "the middle rail centres on it, less the floor gap",
                ref="part:middle rail",
            ),
            size("bottom_rail", "bottom rail", ref="part:bottom rail"),
            size(
                "muntin",
                "muntin",
                "the upright between two panels. Empty: none",
                optional=True,
                ref="part:upper muntin",
            ),
        ),
    ),
    Group(
        "Joints",
        (
            field_choice("build.tenon", "Tenons", enum_options(TenonKind)),
            size("sticking", "sticking, coped over", "0: none"),
            size(
                "arch_rise",
                "top rail arched by",
                "rise of its lower edge; empty: level",
                optional=True,
                figure="arch",
                ref="part:top rail",
            ),
        ),
    ),
    Group(
        "Panels",
        (
            size("panel_thickness", "thickness", ref="part:panel"),
            size(
                "groove_depth",
                "groove",
                "empty: by the rules. Counted from the sight edge",
                optional=True,
                ref="part:panel",
            ),
        ),
    ),
    Group(
        "Raised panels",
        (size("field_thickness", "thick in the middle"), size("fielding", "fielded, wide")),
        when=_where(lambda build: any(row.infill is Infill.RAISED for row in build.rows)),
    ),
    Group(
        "Glass",
        (size("glass_thickness", "thickness", "what may stand here, local code decides"),),
        when=_where(lambda build: any(row.infill is Infill.GLASS for row in build.rows)),
    ),
    Group("Rows of fields, from the foot", (_ROWS,), when=_where(lambda build: bool(build.rows))),
    Group(
        "",
        (
            Choice(
                "lock-rail",
                "On the lock",
                lambda: [(None, "no rail"), *((at, f"{at + 1}. rail between") for at in range(5))],
                lambda job, leaf_id: field_path.get(job.leaf(leaf_id), "build.lock_rail"),
                lambda job, leaf_id, key: job_edits.with_field(job, leaf_id, "build.lock_rail", key),
            ),
            size("other_rail", "other rails"),
        ),
        when=_where(lambda build: len(build.rows) > 2),
    ),
    Group(
        "Mortise lock",
        (
            Choice(
                "has-lock",
                "It has",
                lambda: [(False, "none yet"), (True, "a mortise lock")],
                lambda job, leaf_id: job.leaf(leaf_id).hardware.lock is not None,
                lambda job, leaf_id, has: job_edits.with_field(
                    job, leaf_id, "hardware.lock", MortiseLock() if has else None
                ),
            ),
        ),
    ),
    Group(
        "",
        (
            Field("hardware.lock.backset", "backset"),
            Field("hardware.lock.case_depth", "case, forend to back"),
            Field("hardware.lock.case_height", "case, height"),
            Field("hardware.lock.case_thickness", "case, thickness"),
        ),
        when=lambda leaf: leaf.hardware.lock is not None,
    ),
)
