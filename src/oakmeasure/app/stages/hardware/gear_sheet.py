"""What the Hardware sheet asks of leaves that slide, and of what fixes any leaf to its wall."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.sliding_gear import FloorKind, GuideKind, HangerKind, ScrewKind, Stud, WallKind
from oakmeasure.core.drawings.views import HardwarePage
from oakmeasure.core.forms.fields import Column, Field, Group, Rows, enum_options, field_choice


def _slides(leaf: Leaf) -> bool:
    return leaf.hanging.slides


def _on_straps(leaf: Leaf) -> bool:
    """Whether it may hang on straps: by its own choice, its set's, or until a set says otherwise."""
    kind, track = leaf.hardware.hangers.kind, leaf.slide.track_set
    kind = kind or (track.kind if track is not None else None)
    return leaf.hanging.slides and kind in (None, HangerKind.FACE) and leaf.hanging is not Hanging.FLOOR_GEAR


def _guided(kind: GuideKind) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.hanging.slides and leaf.hardware.guide.kind is kind


def _on_wall(leaf: Leaf) -> bool:
    return leaf.hanging.slides and leaf.hanging not in (Hanging.FLOOR_GEAR, Hanging.POCKET)


def _has_stack(leaf: Leaf) -> bool:
    ways = (Hanging.LINING, Hanging.PAIR)
    return (leaf.hanging.slides and leaf.hanging is not Hanging.POCKET) or leaf.hanging in ways


_STUDS = Rows("studs", "hardware.wall.studs", (Column("at", "found at"),), lambda values: Stud(**values), "stud")
GEAR: tuple[Group, ...] = (
    Group(
        "Hangers",
        (
            field_choice(
                "hardware.hangers.kind",
                "Held by",
                lambda: [(None, "by its set"), *((each, str(each)) for each in HangerKind)],
            ),
            Field(
                "hardware.hangers.bolt_in",
                "from the leaf's edges",
                figure="bolt_in",
                optional=True,
                ref="figure:bolt_in",
            ),
            Field("hardware.hangers.rating_kg", "rated: one hanger", Unit.KG, figure="rating_kg", optional=True),
            Field(
                "hardware.hangers.proof",
                "proof load, of the weight",
                Unit.RATIO,
                "hung from the track before the leaf goes up",
                figure="proof_ratio",
            ),
        ),
        page=HardwarePage.GEAR,
        when=_slides,
        hint="empty: by the set",
    ),
    Group(
        "Their bolts",
        (
            Field("hardware.hangers.off", "wheel to leaf's middle", figure="off", optional=True),
            Field("hardware.hangers.bolt", "bolts, diameter"),
            Field("hardware.hangers.bolt_down", "upper one, from the top", ref="figure:bolt_down"),
            Field("hardware.hangers.bolt_apart", "one over the other"),
            Field("hardware.hangers.strap", "strap and heads stand out"),
            Field("hardware.hangers.bolt_head", "heads that hold the track"),
            Field("hardware.hangers.head_room", "room for them"),
        ),
        page=HardwarePage.GEAR,
        when=_on_straps,
    ),
    Group(
        "Guide in the floor",
        (
            field_choice("hardware.guide.kind", "Guide", enum_options(GuideKind)),
            field_choice("hardware.guide.floor", "Floor", enum_options(FloorKind)),
        ),
        page=HardwarePage.GEAR,
        when=lambda leaf: _slides(leaf) and leaf.hanging is not Hanging.FLOOR_GEAR,
    ),
    Group(
        "",
        (
            Field("hardware.guide.groove_width", "groove, width", ref="figure:guide_width"),
            Field("hardware.guide.groove_depth", "groove, depth", ref="figure:guide_depth"),
            Field("hardware.guide.fin", "fin, thickness"),
            Field("hardware.guide.plate", "plate with screw heads"),
        ),
        page=HardwarePage.GEAR,
        when=_guided(GuideKind.FIN),
    ),
    Group(
        "",
        (Field("hardware.guide.cheek", "cheek, thickness"), Field("hardware.guide.felt", "felt on each")),
        page=HardwarePage.GEAR,
        when=_guided(GuideKind.CHEEKS),
    ),
    Group(
        "",
        (
            field_choice(
                "hardware.guide.let_in", "It stands", lambda: [(False, "on the floor"), (True, "on a piece let in")]
            ),
        ),
        page=HardwarePage.GEAR,
        when=lambda leaf: _slides(leaf) and leaf.hardware.guide.floor is FloorKind.LAMINATE,
    ),
    Group(
        "The wall over the opening",
        (
            field_choice("hardware.wall.kind", "Wall", enum_options(WallKind)),
            Field("hardware.wall.plaster", "plaster or board"),
            Field("hardware.wall.backing", "backing board", note="0: none", ref="figure:wall_backing"),
        ),
        page=HardwarePage.FIXINGS,
        when=_on_wall,
    ),
    Group(
        "Studs",
        (
            Field(
                "hardware.wall.stud_first",
                "first one, its middle",
                optional=True,
                note="along the track, from its hinge end",
            ),
            Field("hardware.wall.stud_pitch", "from one to the next"),
            Field("hardware.wall.stud_width", "a stud, wide"),
            Field("hardware.wall.shift", "track shifted", signed=True, note="away from the hinge side"),
            Field("hardware.wall.reach", "it may be shifted by"),
            field_choice(
                "hardware.wall.redrill",
                "Holes",
                lambda: [(False, "as they are in the track"), (True, "drilled anew before the studs")],
            ),
            _STUDS,
        ),
        page=HardwarePage.FIXINGS,
        when=lambda leaf: _on_wall(leaf) and leaf.hardware.wall.kind is WallKind.STUDS,
    ),
    Group(
        "Holes in the track",
        (
            Field("hardware.hangers.hole_first", "first one, from its end", figure="hole_first", optional=True),
            Field("hardware.hangers.hole_pitch", "from one to the next", figure="hole_pitch", optional=True),
            Field("hardware.hangers.hole_up", "over the leaf's top", figure="hole_up", optional=True),
            Field("hardware.hangers.stop_long", "a stop, length"),
        ),
        page=HardwarePage.FIXINGS,
        when=_slides,
        hint="empty: by the set",
    ),
    Group(
        "What the screws pass",
        (Field("hardware.stack.lining", "lining, thickness", figure="lining_thickness"),),
        page=HardwarePage.FIXINGS,
        when=lambda leaf: _has_stack(leaf) and not leaf.hanging.slides and leaf.lining is None,
        hint="one long one in each hinge",
    ),
    Group(
        "The screw",
        (
            field_choice("hardware.stack.kind", "Screw", enum_options(ScrewKind)),
            Field("hardware.stack.spacer", "spacer or packer", figure="stack_spacer"),
            Field("hardware.stack.bite", "it must bite", figure="stack_bite"),
            Field(
                "hardware.stack.depth",
                "must not reach",
                optional=True,
                note="a pipe, a cable, the far face: from the wall's own face",
            ),
            Field(
                "hardware.stack.screw",
                "screw, length",
                optional=True,
                figure="stack_screw",
                note="empty: the shortest sold that bites",
            ),
            Field("hardware.stack.diameter", "diameter"),
        ),
        page=HardwarePage.FIXINGS,
        when=_has_stack,
    ),
)
