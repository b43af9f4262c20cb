"""What the Leaf sheet asks: the construction, and what is chosen for it. A construction's groups are one tuple."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from oakmeasure.app.forms.fields import Choice, Column, Field, Group, Rows, enum_options, field_choice
from oakmeasure.core.base.units import Unit
from oakmeasure.core.construction.framed.patterns import PATTERNS, pattern_of
from oakmeasure.core.construction.registry import CONSTRUCTIONS
from oakmeasure.core.document.constructions import (
    BackFace,
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
    Veneered,
    VeneerForm,
)
from oakmeasure.core.document.hinges import MortiseLock
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.layer_constructions import (
    EdgeShape,
    Existing,
    Inside,
    Layered,
    LayerStyle,
    Light,
    LightBrace,
    LightFill,
    LightGlue,
    LightJoint,
    Lipping,
    Pieced,
    PieceJoint,
    ReduceBy,
    Splice,
)
from oakmeasure.core.document.species import CORES, species, species_keys, stuff
from oakmeasure.core.drawings.views import LeafPage
from oakmeasure.core.edits import job_edits

_CONSTRUCTION = Choice(
    "construction",
    "Construction",
    lambda: [(key, name) for key, (name, _) in CONSTRUCTIONS.items()],
    lambda job, leaf_id: job.leaf(leaf_id).build.kind,
    job_edits.with_construction,
    "each starts on its own good defaults; Ctrl+Z takes it back",
)


def _is(kind: str) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.build.kind == kind


def _boarded(test: Callable[[Boarded], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Boarded) and test(leaf.build)


def _slab(test: Callable[[Slab], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Slab) and test(leaf.build)


def _f(
    name: str,
    label: str,
    note: str = "",
    *,
    optional: bool = False,
    unit: Unit = Unit.MM,
    figure: str = "",
    ref: str = "",
) -> Field:
    return Field(f"build.{name}", label, unit, note, figure or name, optional=optional, ref=ref)


def _lay_up(name: str, word: str, when: Callable[[Leaf], bool]) -> Group:
    """The boards at hand, measured one by one; the gauge writes into the box that has the cursor."""
    rows = Rows(name, "build.measured", (Column("width", "width that it shows"),), lambda values: Laid(**values), word)
    return Group(f"Lay up measured {word}s", (rows,), hint="empty: all alike", when=when)


def _layered(test: Callable[[Layered], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Layered) and test(leaf.build)


def _light(test: Callable[[Light], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Light) and test(leaf.build)


def _veneered(test: Callable[[Veneered], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Veneered) and test(leaf.build)


def _old(test: Callable[[Existing], bool]) -> Callable[[Leaf], bool]:
    return lambda leaf: isinstance(leaf.build, Existing) and test(leaf.build)


def sheet_options() -> list[tuple[str, str]]:
    """Return the sheets that wood can be laid on."""
    return [(key, stuff(key).name) for key in CORES]


_PATTERN = Choice(
    "pattern",
    "Pattern",
    lambda: [(key, words) for key, (words, _) in PATTERNS.items()],
    lambda job, leaf_id: _pattern(job.leaf(leaf_id)),
    job_edits.with_pattern,
    "members keep their widths",
    other=lambda _job: "its own",
)


def _pattern(leaf: Leaf) -> str:
    return pattern_of(leaf.build) if isinstance(leaf.build, Framed) else ""


def _framed(test: Callable[[Framed], bool]) -> Callable[[Leaf], bool]:
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
    lambda values: Row(**values),
    "row",
    suggest=lambda _leaf: {"columns": 1, "share": 1.0},
)

FRAMED = (
    Group("", (_PATTERN,), when=_is("framed")),
    Group(
        "Frame",
        (
            _f("thickness", "thickness"),
            _f("stile", "stile", "the uprights, full height", ref="part:hinge stile"),
            _f("top_rail", "top rail", ref="part:top rail"),
            _f("middle_rail", "middle rail", "empty: none. Centred on the lock", optional=True, ref="part:middle rail"),
            _f(
                "lock_height",
                "lock above the floor",
                "the middle rail centres on it, less the floor gap",
                ref="part:middle rail",
            ),
            _f("bottom_rail", "bottom rail", ref="part:bottom rail"),
            _f(
                "muntin",
                "muntin",
                "the upright between two panels. Empty: none",
                optional=True,
                ref="part:upper muntin",
            ),
        ),
        when=_is("framed"),
    ),
    Group(
        "Joints",
        (
            field_choice("build.tenon", "Tenons", enum_options(TenonKind)),
            _f("sticking", "sticking, coped over", "0: none"),
            _f(
                "arch", "top rail arched by", "rise of its lower edge; empty: level", optional=True, ref="part:top rail"
            ),
        ),
        when=_is("framed"),
    ),
    Group(
        "Panels",
        (
            _f("panel_thickness", "thickness", ref="part:panel"),
            _f(
                "groove_depth",
                "groove",
                "empty: by the rules. Counted from the sight edge",
                optional=True,
                ref="part:panel",
            ),
        ),
        when=_is("framed"),
    ),
    Group(
        "Raised panels",
        (_f("field_thickness", "thick in the middle"), _f("fielding", "fielded, wide")),
        when=_framed(lambda build: any(row.infill is Infill.RAISED for row in build.rows)),
    ),
    Group(
        "Glass",
        (_f("glass_thickness", "thickness", "what may stand here, local code decides"),),
        when=_framed(lambda build: any(row.infill is Infill.GLASS for row in build.rows)),
    ),
    Group("Rows of fields, from the foot", (_ROWS,), when=_framed(lambda build: bool(build.rows))),
    Group(
        "",
        (
            Choice(
                "lock-rail",
                "On the lock",
                lambda: [(None, "no rail"), *((at, f"{at + 1}. rail between") for at in range(5))],
                lambda job, leaf_id: job_edits.get(job.leaf(leaf_id), "build.lock_rail"),
                lambda job, leaf_id, key: job_edits.with_field(job, leaf_id, "build.lock_rail", key),
            ),
            _f("other_rail", "other rails"),
        ),
        when=_framed(lambda build: len(build.rows) > 2),
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
        when=_is("framed"),
    ),
    Group(
        "",
        (
            Field("hardware.lock.backset", "backset"),
            Field("hardware.lock.case_depth", "case, forend to back"),
            Field("hardware.lock.case_height", "case, height"),
            Field("hardware.lock.case_thickness", "case, thickness"),
        ),
        when=lambda leaf: leaf.build.kind == "framed" and leaf.hardware.lock is not None,
    ),
)

BOARDED = (
    Group("", (field_choice("build.style", "Held by", enum_options(BoardedStyle)),), when=_is("boarded")),
    Group(
        "Boards",
        (
            _f("board", "thickness", ref="part:board 1"),
            _f("cover", "cover", "what one board shows; its tongue is outside it", ref="part:board 2"),
            field_choice("build.edge", "Edges", enum_options(BoardEdge)),
            field_choice("build.rip", "Ripped", enum_options(Rip)),
            _f("gap", "gap between", "empty: from the moisture", optional=True, figure="board_gap"),
        ),
        when=_is("boarded"),
    ),
    Group(
        "",
        (_f("groove", "groove", "how deep the tongue goes in", ref="figure:board_groove"),),
        when=_boarded(lambda build: build.edge is BoardEdge.TONGUED),
    ),
    _lay_up("boards-laid", "board", _is("boarded")),
    Group(
        "Ledges",
        (
            _f("ledge_width", "width", ref="part:lower ledge"),
            _f("ledge_thickness", "thickness", ref="part:lower ledge"),
            _f("ledge_foot", "lower one, from the foot", ref="part:lower ledge"),
            _f("ledge_top", "upper one, from the top", ref="part:upper ledge"),
            _f("ledges", "how many", unit=Unit.COUNT),
        ),
        when=_is("boarded"),
    ),
    Group(
        "",
        (_f("ledge_in", "ends in from the edges", "clear of the stop, where that face meets it"),),
        when=_boarded(lambda build: build.style is not BoardedStyle.FRAMED),
    ),
    Group(
        "Frame",
        (
            _f("frame", "thickness", ref="part:hinge stile"),
            _f("stile", "stile", ref="part:hinge stile"),
            _f("top_rail", "top rail", ref="part:top rail"),
        ),
        when=_boarded(lambda build: build.style is BoardedStyle.FRAMED),
    ),
    Group(
        "Brace",
        (
            _f("brace_width", "width", ref="part:brace"),
            field_choice("build.brace_ends", "Ends", enum_options(BraceEnds)),
        ),
        when=_boarded(lambda build: build.style is not BoardedStyle.LEDGED),
    ),
    Group(
        "",
        (
            field_choice(
                "build.half_lapped",
                "Where they cross",
                lambda: [(False, "one whole, one in two"), (True, "half-lapped")],
            ),
        ),
        when=_boarded(lambda build: build.style is BoardedStyle.X),
    ),
    Group(
        "Fixings",
        (
            field_choice("build.fixed_by", "With", enum_options(FixedBy)),
            field_choice("build.double", "Layers", lambda: [(False, "one of boards"), (True, "two of boards")]),
        ),
        when=_is("boarded"),
    ),
)

SLAB = (
    Group(
        "Slab",
        (
            _f("thickness", "thickness"),
            _f("strip", "strips, at most", ref="part:strip 1"),
            _f("shoot", "shot off each joint"),
        ),
        when=_is("slab"),
    ),
    _lay_up("strips-laid", "strip", _is("slab")),
    Group(
        "Joints",
        (
            field_choice("build.joint", "Joined by", enum_options(SlabJoint)),
            field_choice("build.glue", "Glue", enum_options(SlabGlue)),
            _f("stages", "glued up at a time", unit=Unit.COUNT, figure="glue_stages"),
        ),
        when=_is("slab"),
    ),
    Group(
        "Joints",
        (_f("every", "about every", figure="tenon_every"),),
        when=_slab(lambda build: build.joint is not SlabJoint.GLUED),
    ),
    Group("Kept flat by", (field_choice("build.stiffener", "With", enum_options(Stiffener)),), when=_is("slab")),
    Group(
        "",
        (
            _f("stiffeners", "how many", unit=Unit.COUNT),
            _f("stiffener_width", "width"),
            _f("stiffener_thickness", "thickness"),
            _f("stiffener_in", "ends in from the edges"),
            _f("stiffener_end", "centre from foot and top"),
        ),
        when=_slab(lambda build: build.stiffener is not Stiffener.NONE),
    ),
    Group("", (_f("dado", "let in"),), when=_slab(lambda build: build.stiffener is Stiffener.DADOES)),
)

LAYERED = (
    Group(
        "Layers",
        (
            field_choice("build.style", "Style", enum_options(LayerStyle)),
            field_choice("build.sheet", "Sheet", sheet_options),
            _f("core", "core, thickness"),
            _f("face", "each face layer", figure="face"),
        ),
        when=_is("layered"),
    ),
    Group(
        "Stiles and rails, on both faces",
        (
            _f("stile", "stile", ref="part:hinge stile"),
            _f("top_rail", "top rail", ref="part:top rail"),
            _f("middle_rail", "middle rail", "empty: none. Centred on the lock", optional=True, ref="part:middle rail"),
            _f("lock_height", "lock above the floor"),
            _f("bottom_rail", "bottom rail", ref="part:bottom rail"),
            _f("muntin", "muntin", "empty: none", optional=True),
        ),
        when=_layered(lambda build: build.style is LayerStyle.FRAME),
    ),
    Group("Edges", (field_choice("build.lipping", "Lipping", enum_options(Lipping)),), when=_is("layered")),
    Group(
        "",
        (_f("lipping_depth", "in from the edge", "the first stile stands in by it", ref="part:hinge lipping"),),
        when=_layered(lambda build: build.lipping is not Lipping.NONE),
    ),
    Group("", (_f("tongue", "tongue of the T"),), when=_layered(lambda build: build.lipping is Lipping.T)),
    Group(
        "Trim and pieces",
        (
            _f("trim", "trim, width", "mitred round each field; empty: none", optional=True),
            _f("trim_thickness", "trim, thickness"),
            field_choice("build.pieced", "In two", enum_options(Pieced), "for painted work"),
            field_choice("build.piece_joint", "Joined by", enum_options(PieceJoint)),
        ),
        when=_layered(lambda build: build.style is LayerStyle.FRAME),
    ),
    Group("Fixings", (_f("pin_every", "pins about every"),), when=_is("layered")),
)

LIGHT = (
    Group(
        "Frame",
        (
            _f("frame", "thickness", figure="thickness"),
            _f("stile", "stile", ref="part:hinge stile"),
            _f("top_rail", "top rail", ref="part:top rail"),
            _f("middle_rail", "middle rail", "empty: none. Centred on the lock", optional=True, ref="part:middle rail"),
            _f("lock_height", "lock above the floor"),
            _f("bottom_rail", "bottom rail", ref="part:bottom rail"),
        ),
        when=_is("light"),
    ),
    Group(
        "Filling",
        (field_choice("build.fill", "Filled by", enum_options(LightFill)), _f("fill_thickness", "thickness")),
        when=_is("light"),
    ),
    Group("", (_f("board", "boards, at most", figure="board_most"),), when=_light(lambda build: build.fill.is_boards)),
    Group(
        "", (field_choice("build.sheet", "Sheet", sheet_options),), when=_light(lambda build: not build.fill.is_boards)
    ),
    Group("", (_f("rebate", "rebate"),), when=_light(lambda build: build.fill.is_in_rebate)),
    Group("Brace", (field_choice("build.brace", "Brace", enum_options(LightBrace)),), when=_is("light")),
    Group("", (_f("brace_width", "width"),), when=_light(lambda build: build.brace is not LightBrace.NONE)),
    Group(
        "Joints",
        (
            field_choice("build.joint", "Joined by", enum_options(LightJoint)),
            field_choice("build.glue", "Glue", enum_options(LightGlue)),
        ),
        when=_is("light"),
    ),
)

VENEERED = (
    Group(
        "Leaf",
        (
            field_choice("build.form", "Form", enum_options(VeneerForm)),
            _f("thickness", "thickness"),
            field_choice("build.core", "Core", sheet_options),
        ),
        when=_is("veneered"),
    ),
    Group(
        "Veneers",
        (
            _f("veneer", "finished"),
            _f("sanding", "sanded off"),
            _f("wander", "saw wanders"),
            _f("stock", "boards, thickness"),
            _f("stock_width", "boards, width"),
            field_choice("build.back", "On the back", enum_options(BackFace)),
        ),
        when=_is("veneered"),
    ),
    Group(
        "As they were sawn",
        (
            _f("thin", "thinnest", optional=True, figure="veneer_thin"),
            _f("thick", "thickest", optional=True, figure="veneer_thick"),
        ),
        hint="empty: not yet",
        when=_is("veneered"),
    ),
    Group(
        "Edging",
        (
            _f("moulding", "moulding, deep"),
            _f("sapwood", "sapwood on its board"),
            _f("edging", "edging", "empty: the moulding and a little behind it", optional=True),
            field_choice("build.edging_first", "Edged", lambda: [(True, "before the veneer"), (False, "after it")]),
        ),
        when=_is("veneered"),
    ),
    Group(
        "Frame",
        (
            _f("stile", "stile"),
            _f("top_rail", "top rail"),
            _f("middle_rail", "middle rail", optional=True),
            _f("lock_height", "lock above the floor"),
            _f("bottom_rail", "bottom rail"),
            _f("muntin", "muntin", optional=True),
            _f("arch", "top rail arched by", optional=True),
            field_choice("build.tenon", "Tenons", enum_options(TenonKind)),
        ),
        when=_veneered(lambda build: build.form is VeneerForm.FRAMED),
    ),
)

EXISTING = (
    Group(
        "Read first",
        (
            field_choice("build.inside", "Inside", enum_options(Inside), "knock, weigh it, look at its edges"),
            field_choice("build.edge_shape", "Long edges", enum_options(EdgeShape)),
            field_choice(
                "build.material",
                "Made of",
                lambda: [
                    *sorted(((key, species(key).name) for key in species_keys()), key=lambda each: each[1]),
                    *sheet_options(),
                ],
            ),
        ),
        when=_is("existing"),
    ),
    Group(
        "As it lies on the bench",
        (
            _f("width", "width", figure="old_width"),
            _f("height", "height", figure="old_height"),
            _f("thickness", "thickness"),
        ),
        when=_is("existing"),
    ),
    Group("", (_f("edge_by", "edge, in by"),), when=_old(lambda build: build.edge_shape is not EdgeShape.SQUARE)),
    Group(
        "Inside it",
        (_f("face", "face, thickness", figure="face"), _f("solid", "solid long edge"), _f("rail", "solid end")),
        when=_old(lambda build: build.inside not in (Inside.SOLID, Inside.PANELLED)),
    ),
    Group(
        "Its frame",
        (
            _f("stile", "stile"),
            _f("tenon", "tenon, into it"),
            field_choice("build.through", "Tenons", lambda: [(False, "blind"), (True, "through")]),
            _f("panels", "panels across", unit=Unit.COUNT),
            _f("panels_above", "in the upper row", unit=Unit.COUNT, optional=True),
            _f("muntin", "muntin"),
            _f("top_rail", "top rail", figure="top_rail_old"),
            _f("middle_rail", "middle rail", "empty: none", optional=True),
            _f("middle_up", "its centre, up the leaf", figure="middle_up"),
            _f("bottom_rail", "bottom rail", figure="bottom_rail_old"),
            field_choice("build.by", "Narrower by", enum_options(ReduceBy), "the ways stand side by side under Ways"),
        ),
        when=_old(lambda build: build.inside is Inside.PANELLED),
    ),
    Group(
        "Made longer",
        (
            field_choice("build.splice", "By", enum_options(Splice)),
            field_choice("build.at_foot", "At", lambda: [(True, "its foot"), (False, "its head")]),
            _f("splice_lap", "halved over"),
            _f("splice_stagger", "staggered by"),
        ),
        when=_is("existing"),
    ),
    Group(
        "Grooves and recess",
        (
            _f("grooves", "V lines", "0: none", unit=Unit.COUNT),
            _f("band", "band to the first"),
            _f("groove_depth", "V line, deep"),
            _f("recess_depth", "flush pull, deep", "empty: none", optional=True),
            _f("recess_step", "one pass"),
        ),
        when=_is("existing"),
    ),
)

TRIM = (
    Group(
        "Trimmed once it is made",
        (
            Field("late.foot", "off the foot"),
            Field("late.head", "off the head"),
            Field("late.hinge", "off the hinge edge"),
            Field("late.latch", "off the latch edge"),
        ),
        page=LeafPage.WAYS,
        hint="all follows",
    ),
    Group(
        "Left for the site to take",
        (Field("late.may_side", "each long edge"), Field("late.may_end", "foot and top, each")),
        page=LeafPage.WAYS,
        hint="at the worst",
    ),
    Group("The leaf in another construction", (_CONSTRUCTION,), page=LeafPage.OTHER),
)

_JOINTS = ("Joints", "Fixings")  # groups that stand on the second page, beside the list of every one


def _on_page(group: Group) -> Group:
    if group.page:
        return group
    return replace(group, page=LeafPage.JOINTS if group.title in _JOINTS else LeafPage.SET_OUT)


LEAF = tuple(
    _on_page(each)
    for each in (Group("", (_CONSTRUCTION,)), *FRAMED, *BOARDED, *SLAB, *LAYERED, *LIGHT, *VENEERED, *EXISTING, *TRIM)
)
