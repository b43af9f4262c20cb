"""What the Leaf sheet asks: the construction, and what is chosen for it. A construction's groups are one tuple."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from oakmeasure.app.sheet_parts import Choice, Column, Field, Group, Rows, enum_options, field_choice
from oakmeasure.core import edits
from oakmeasure.core.build import CONSTRUCTIONS
from oakmeasure.core.build.patterns import PATTERNS, pattern_of
from oakmeasure.core.build_choices import (
    Boarded,
    BoardEdge,
    BoardedStyle,
    BraceEnds,
    FixedBy,
    Framed,
    Infill,
    Laid,
    Rip,
    Row,
    Slab,
    SlabGlue,
    SlabJoint,
    Stiffener,
    TenonKind,
)
from oakmeasure.core.drawings.views import LeafPage
from oakmeasure.core.job import Leaf, MortiseLock
from oakmeasure.core.units import Unit

_CONSTRUCTION = Choice(
    "construction", "Construction", lambda: [(key, name) for key, (name, _) in CONSTRUCTIONS.items()],
    lambda job, leaf_id: job.leaf(leaf_id).build.kind, edits.with_construction,
    "each starts on its own good defaults; Ctrl+Z takes it back",
)  # fmt: skip


def _is(kind: str) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.build.kind == kind


def _boarded(test: Callable[[Boarded], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Boarded) and test(leaf.build)


def _slab(test: Callable[[Slab], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Slab) and test(leaf.build)


def _f(name: str, label: str, note: str = "", *, optional: bool = False, unit: Unit = Unit.MM, figure: str = "",
       ref: str = "") -> Field:  # fmt: skip
    return Field(f"build.{name}", label, unit, note, figure or name, optional=optional, ref=ref)


def _lay_up(name: str, word: str, when: Callable[[Leaf], bool]) -> Group:
    """The boards at hand, measured one by one; the gauge writes into the box that has the cursor."""
    rows = Rows(name, "build.measured", (Column("width", "width that it shows"),), lambda values: Laid(**values), word)
    return Group(f"Lay up measured {word}s", (rows,), hint="empty: all alike", when=when)


_PATTERN = Choice(
    "pattern", "Pattern", lambda: [(key, words) for key, (words, _) in PATTERNS.items()],
    lambda job, leaf_id: _pattern(job.leaf(leaf_id)), edits.with_pattern, "members keep their widths",
    other=lambda _job: "its own",
)  # fmt: skip


def _pattern(leaf: Leaf) -> str:
    return pattern_of(leaf.build) if isinstance(leaf.build, Framed) else ""


def _framed(test: Callable[[Framed], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Framed) and test(leaf.build)


_ROWS = Rows(
    "rows", "build.rows",
    (Column("columns", "fields", Unit.COUNT, share=3), Column("share", "share", Unit.RATIO, share=3),
     Column("height", "high", optional=True), Column("infill", "filled", options=enum_options(Infill), share=7)),
    lambda values: Row(**values), "row", suggest=lambda _leaf: {"columns": 1, "share": 1.0},
)  # fmt: skip

FRAMED = (
    Group("", (_PATTERN,), when=_is("framed")),
    Group("Frame", (
        _f("thickness", "thickness"),
        _f("stile", "stile", "the uprights, full height", ref="part:hinge stile"),
        _f("top_rail", "top rail", ref="part:top rail"),
        _f("middle_rail", "middle rail", "empty: none. Centred on the lock", optional=True, ref="part:middle rail"),
        _f("lock_height", "lock above the floor", "the middle rail centres on it, less the floor gap",
           ref="part:middle rail"),
        _f("bottom_rail", "bottom rail", ref="part:bottom rail"),
        _f("muntin", "muntin", "the upright between two panels. Empty: none", optional=True, ref="part:upper muntin"),
    ), when=_is("framed")),
    Group("Joints", (
        field_choice("build.tenon", "Tenons", enum_options(TenonKind)),
        _f("sticking", "sticking, coped over", "0: none"),
        _f("arch", "top rail arched by", "rise of its lower edge; empty: level", optional=True, ref="part:top rail"),
    ), when=_is("framed")),
    Group("Panels", (
        _f("panel_thickness", "thickness", ref="part:panel"),
        _f("groove_depth", "groove", "empty: by the rules. Counted from the sight edge", optional=True,
           ref="part:panel"),
    ), when=_is("framed")),
    Group("Raised panels", (
        _f("field_thickness", "thick in the middle"), _f("fielding", "fielded, wide"),
    ), when=_framed(lambda build: any(row.infill is Infill.RAISED for row in build.rows))),
    Group("Glass", (_f("glass_thickness", "thickness", "what may stand here, local code decides"),),
          when=_framed(lambda build: any(row.infill is Infill.GLASS for row in build.rows))),
    Group("Rows of fields, from the foot", (_ROWS,), when=_framed(lambda build: bool(build.rows))),
    Group("", (
        Choice("lock-rail", "On the lock", lambda: [(None, "no rail"), *((at, f"{at + 1}. rail between")
                                                                         for at in range(5))],
               lambda job, leaf_id: edits.get(job.leaf(leaf_id), "build.lock_rail"),
               lambda job, leaf_id, key: edits.with_field(job, leaf_id, "build.lock_rail", key)),
        _f("other_rail", "other rails"),
    ), when=_framed(lambda build: len(build.rows) > 2)),
    Group("Mortise lock", (
        Choice("has-lock", "It has", lambda: [(False, "none yet"), (True, "a mortise lock")],
               lambda job, leaf_id: job.leaf(leaf_id).hardware.lock is not None,
               lambda job, leaf_id, has: edits.with_field(job, leaf_id, "hardware.lock",
                                                          MortiseLock() if has else None)),
    ), when=_is("framed")),
    Group("", (
        Field("hardware.lock.backset", "backset"), Field("hardware.lock.case_depth", "case, forend to back"),
        Field("hardware.lock.case_height", "case, height"), Field("hardware.lock.case_thickness", "case, thickness"),
    ), when=lambda leaf: leaf.build.kind == "framed" and leaf.hardware.lock is not None),
)  # fmt: skip

BOARDED = (
    Group("", (field_choice("build.style", "Held by", enum_options(BoardedStyle)),), when=_is("boarded")),
    Group("Boards", (
        _f("board", "thickness", ref="part:board 1"),
        _f("cover", "cover", "what one board shows; its tongue is outside it", ref="part:board 2"),
        field_choice("build.edge", "Edges", enum_options(BoardEdge)),
        field_choice("build.rip", "Ripped", enum_options(Rip)),
        _f("gap", "gap between", "empty: from the moisture", optional=True, figure="board_gap"),
    ), when=_is("boarded")),
    Group("", (_f("groove", "groove", "how deep the tongue goes in", ref="figure:board_groove"),),
          when=_boarded(lambda build: build.edge is BoardEdge.TONGUED)),
    _lay_up("boards-laid", "board", _is("boarded")),
    Group("Ledges", (
        _f("ledge_width", "width", ref="part:lower ledge"),
        _f("ledge_thickness", "thickness", ref="part:lower ledge"),
        _f("ledge_foot", "lower one, from the foot", ref="part:lower ledge"),
        _f("ledge_top", "upper one, from the top", ref="part:upper ledge"),
        _f("ledges", "how many", unit=Unit.COUNT),
    ), when=_is("boarded")),
    Group("", (_f("ledge_in", "ends in from the edges", "25 to 38 where they meet the stop"),),
          when=_boarded(lambda build: build.style is not BoardedStyle.FRAMED)),
    Group("Frame", (
        _f("frame", "thickness", ref="part:hinge stile"), _f("stile", "stile", ref="part:hinge stile"),
        _f("top_rail", "top rail", ref="part:top rail"),
    ), when=_boarded(lambda build: build.style is BoardedStyle.FRAMED)),
    Group("Brace", (
        _f("brace_width", "width", ref="part:brace"),
        field_choice("build.brace_ends", "Ends", enum_options(BraceEnds)),
    ), when=_boarded(lambda build: build.style is not BoardedStyle.LEDGED)),
    Group("", (
        field_choice("build.half_lapped", "Where they cross", lambda: [
            (False, "one whole, one in two"), (True, "half-lapped")]),
    ), when=_boarded(lambda build: build.style is BoardedStyle.X)),
    Group("Fixings", (
        field_choice("build.fixed_by", "With", enum_options(FixedBy)),
        field_choice("build.double", "Layers", lambda: [(False, "one of boards"), (True, "two of boards")]),
    ), when=_is("boarded")),
)  # fmt: skip

SLAB = (
    Group("Slab", (
        _f("thickness", "thickness"),
        _f("strip", "strips, at most", ref="part:strip 1"),
        _f("shoot", "shot off each joint"),
    ), when=_is("slab")),
    _lay_up("strips-laid", "strip", _is("slab")),
    Group("Joints", (
        field_choice("build.joint", "Joined by", enum_options(SlabJoint)),
        field_choice("build.glue", "Glue", enum_options(SlabGlue)),
        _f("stages", "glued up at a time", unit=Unit.COUNT, figure="glue_at_once"),
    ), when=_is("slab")),
    Group("Joints", (_f("every", "about every", figure="tenon_every"),),
          when=_slab(lambda build: build.joint is not SlabJoint.GLUED)),
    Group("Kept flat by", (field_choice("build.stiffener", "With", enum_options(Stiffener)),), when=_is("slab")),
    Group("", (
        _f("stiffeners", "how many", unit=Unit.COUNT),
        _f("stiffener_width", "width"), _f("stiffener_thickness", "thickness"),
        _f("stiffener_in", "ends in from the edges"), _f("stiffener_end", "centre from foot and top"),
    ), when=_slab(lambda build: build.stiffener is not Stiffener.NONE)),
    Group("", (_f("dado", "let in"),), when=_slab(lambda build: build.stiffener is Stiffener.DADOES)),
)  # fmt: skip

_JOINTS = ("Joints", "Fixings")  # groups that stand on the second page, beside the list of every one


def _on_page(group: Group) -> Group:
    return replace(group, page=LeafPage.JOINTS if group.title in _JOINTS else LeafPage.SET_OUT)


LEAF = tuple(_on_page(each) for each in (Group("", (_CONSTRUCTION,)), *FRAMED, *BOARDED, *SLAB))
