"""What the Hardware sheet asks: hinges, what a leaf slides on, locks, fixings, and what would clash."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.app.sheet_parts import Choice, Column, Command, Field, Group, Rows, enum_options, field_choice
from oakmeasure.core import edits
from oakmeasure.core.cup_choices import CupUnknown, RevealRow, cup_from_table, cup_keys
from oakmeasure.core.drawings.views import HardwarePage
from oakmeasure.core.gear_choices import FloorKind, GuideKind, HangerKind, ScrewKind, Stud, WallKind
from oakmeasure.core.hang_choices import Hanging
from oakmeasure.core.hardware_choices import FlushBolts, LatchKind, MortiseLock, PacketButt, PullKind, RouterTemplate
from oakmeasure.core.job import Job, Leaf
from oakmeasure.core.rules import ButtSchool
from oakmeasure.core.units import Unit
from oakmeasure.data import table


def _butt_key(job: Job, leaf_id: str) -> str:
    name = job.leaf(leaf_id).hardware.butt.name
    return next((key for key, row in table("butts").items() if row["name"] == name), "")


def _cup_key(job: Job, leaf_id: str) -> str:
    name = job.leaf(leaf_id).hardware.cup.hinge.name
    return next((key for key in cup_keys() if cup_from_table(key).name == name), "")


_BUTT = Choice(
    "butt", "Butt", lambda: [(key, row["name"]) for key, row in table("butts").items()], _butt_key, edits.with_butt,
    "made-up makers; measure the ones on your bench",
)  # fmt: skip
_CUP = Choice(
    "cup", "Hinge", lambda: [(key, cup_from_table(key).name) for key in cup_keys()], _cup_key, edits.with_cup,
    "made-up makers; put in the figures of yours", other=lambda _job: "one of your own",
)  # fmt: skip


def _on_cups(leaf: Leaf) -> bool:
    return leaf.hanging.is_cabinet and not leaf.hanging.has_butts


def _not_sought(unknown: CupUnknown) -> Callable[[Leaf], bool]:
    """Return whether a figure is asked for: the one that is sought is worked out, and stands on the board."""
    return lambda leaf: _on_cups(leaf) and leaf.hardware.cup.unknown is not unknown


def _on_butts(leaf: Leaf) -> bool:
    return leaf.hanging.has_butts


_SCHOOL = field_choice(
    "hardware.school", "Places", lambda: [(None, "by the shop rules"), *((each, str(each)) for each in ButtSchool)]
)

_PACKET = Rows(
    "packet", "hardware.packet", (Column("length", "long"), Column("width", "wide"), Column("closed", "shut")),
    lambda values: PacketButt(**values), "hinge", where="butt",
    suggest=lambda leaf: {"length": leaf.hardware.butt.length.value, "width": leaf.hardware.butt.leaf.value},
)  # fmt: skip
_REVEALS = Rows(
    "reveals", "hardware.cup.hinge.reveal",
    (Column("thickness", "thick"), Column("boring", "boring"), Column("reveal", "reveal")),
    lambda values: RevealRow(**values), "row",
)  # fmt: skip
_TEMPLATE = Choice(
    "has-template", "With", lambda: [(False, "none: chisel and router by hand"), (True, "guide bush and cutter")],
    lambda job, leaf_id: job.leaf(leaf_id).hardware.template is not None,
    lambda job, leaf_id, has: edits.with_field(job, leaf_id, "hardware.template", RouterTemplate() if has else None),
)  # fmt: skip
_LOCK = Choice(
    "has-a-lock", "It has", lambda: [(False, "none"), (True, "a mortise lock")],
    lambda job, leaf_id: job.leaf(leaf_id).hardware.lock is not None,
    lambda job, leaf_id, has: edits.with_field(job, leaf_id, "hardware.lock", MortiseLock() if has else None),
)  # fmt: skip


def _pulled(*kinds: PullKind) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.hardware.pull.kind in kinds


def _latched(*kinds: LatchKind) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.hardware.latch.kind in kinds


_BOLTS = Choice(
    "has-bolts", "It has", lambda: [(False, "none"), (True, "flush bolts, top and bottom")],
    lambda job, leaf_id: job.leaf(leaf_id).hardware.bolts is not None,
    lambda job, leaf_id, has: edits.with_field(job, leaf_id, "hardware.bolts", FlushBolts() if has else None),
)  # fmt: skip


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


_STUDS = Rows(
    "studs", "hardware.wall.studs", (Column("at", "found at"),), lambda values: Stud(**values), "stud",
)  # fmt: skip


HARDWARE: tuple[Group, ...] = (
    Group(
        "Cup hinges",
        (
            _CUP,
            field_choice("hardware.cup.unknown", "Sought", enum_options(CupUnknown), "worked out from the other four"),
            Field("cabinet.side", "cabinet's side"),
        ),
        page=HardwarePage.HINGES,
        when=_on_cups,
    ),
    Group(
        "",
        (Field("hardware.cup.boring", "leaf's edge to cup"),),
        page=HardwarePage.HINGES,
        when=_not_sought(CupUnknown.BORING),
    ),
    Group(
        "",
        (
            Field(
                "hardware.cup.crank",
                "crank of the arm",
                optional=True,
                figure="cup_crank",
                note="empty: the usual for this way of hanging",
            ),
        ),
        page=HardwarePage.HINGES,
        when=_not_sought(CupUnknown.CRANK),
    ),
    Group(
        "",
        (Field("hardware.cup.plate", "plate, height", signed=True),),
        page=HardwarePage.HINGES,
        when=_not_sought(CupUnknown.PLATE),
    ),
    Group(
        "Where they go",
        (
            Field("hardware.cup.first", "top one, from the top", ref="cup:1"),
            Field("hardware.cup.last", "bottom one, from the foot", optional=True, figure="cup_first"),
            Field(
                "hardware.cup.count", "how many", Unit.COUNT, "empty: by height and weight", "cup_count", optional=True
            ),
            Field("hardware.cup.plate_front", "plate's holes from the front"),
        ),
        page=HardwarePage.HINGES,
        when=_on_cups,
    ),
    Group(
        "The hinge on the bench",
        (
            Field("hardware.cup.hinge.reach", "reach", has_state=True, ref="figure:cup_reach"),
            Field("hardware.cup.hinge.cup_depth", "cup, depth", has_state=True, ref="figure:cup_left"),
            Field("hardware.cup.point", "cutter's point"),
            field_choice("hardware.cup.dowels", "Held by", lambda: [(False, "screws"), (True, "dowels, pressed in")]),
            field_choice("hardware.cup.push_latch", "Latch", lambda: [(False, "none"), (True, "push latch")]),
        ),
        page=HardwarePage.HINGES,
        when=_on_cups,
        hint="by its sheet or a mock-up",
    ),
    Group(
        "Butts",
        (
            _BUTT,
            _SCHOOL,
            Field("hardware.count", "how many", Unit.COUNT, "empty: by height and weight", "butt_count", optional=True),
        ),
        page=HardwarePage.HINGES,
        when=_on_butts,
    ),
    Group(
        "The butt on the bench",
        (
            Field("hardware.butt.length", "length", has_state=True, ref="butt:1"),
            Field("hardware.butt.leaf", "one leaf, wide", has_state=True, ref="figure:butt_across"),
            Field(
                "hardware.butt.closed",
                "thickness when shut",
                has_state=True,
                ref="figure:butt_depth",
                note="both leaves pressed together, over the knuckle's side",
            ),
            Field("hardware.butt.knuckle", "pin out from the face", has_state=True),
            Field("hardware.butt.setback", "pin back from the edge", has_state=True),
            Field("hardware.butt.rating_kg", "rated for a leaf of", Unit.KG, has_state=True),
        ),
        page=HardwarePage.HINGES,
        when=_on_butts,
        hint="measured, when it is",
    ),
    Group(
        "Its screws",
        (
            Field("hardware.screws.diameter", "diameter"),
            Field("hardware.screws.length", "length"),
            Field("hardware.screws.count", "in one leaf of it", Unit.COUNT),
        ),
        page=HardwarePage.HINGES,
        when=_on_butts,
    ),
    Group("The packet, measured", (_PACKET,), page=HardwarePage.HINGES, when=_on_butts, hint="from the top one down"),
    Group("Template for the router", (_TEMPLATE,), page=HardwarePage.HINGES, when=_on_butts),
    Group(
        "",
        (Field("hardware.template.bush", "guide bush"), Field("hardware.template.cutter", "cutter")),
        page=HardwarePage.HINGES,
        when=lambda leaf: _on_butts(leaf) and leaf.hardware.template is not None,
    ),
    Group(
        "Your own hinge",
        (Command("keep_hinge", "Keep this leaf's hinge", "with today's date and its readings, in this job"),),
        page=HardwarePage.CATALOGUE,
        when=lambda leaf: not leaf.hanging.slides,
        hint="beside the tables",
    ),
    Group(
        "The hinge by its own sheet",
        (
            Field("hardware.cup.hinge.boring_least", "boring, from"),
            Field("hardware.cup.hinge.boring_most", "boring, to"),
            Field("hardware.cup.hinge.pattern_apart", "fixings apart"),
            Field("hardware.cup.hinge.pattern_off", "fixings beyond the cup"),
            Field("hardware.cup.hinge.opens", "opens to", Unit.DEG),
            Field("hardware.cup.hinge.stand_off", "stands off, shut"),
        ),
        page=HardwarePage.CATALOGUE,
        when=_on_cups,
    ),
    Group(
        "Its least reveals", (_REVEALS,), page=HardwarePage.CATALOGUE, when=_on_cups, hint="thickness, boring, reveal"
    ),
    Group(
        "Zones to be kept free",
        (
            Command("zone_sheet", "Their sheet, PDF…", "where no nail, pin or screw may go, before any is driven"),
            Command("keep_outs", "All of the job, CSV…"),
        ),
        page=HardwarePage.CLASHES,
        hint="listed below",
    ),
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
    Group("Mortise lock", (_LOCK,), page=HardwarePage.LOCKS),
    Group(
        "",
        (
            Field("hardware.lock.backset", "backset"),
            Field("hardware.lock.case_depth", "case, forend to back"),
            Field("hardware.lock.case_height", "case, height"),
            Field("hardware.lock.case_thickness", "case, thickness"),
            Field("hardware.lock.forend_length", "forend, length"),
            Field("hardware.lock.forend_width", "forend, width"),
            Field("hardware.lock.spindle_bore", "spindle hole"),
            Field("hardware.lock.key_below", "keyhole below it"),
            Field("hardware.lock.key_bore", "keyhole"),
        ),
        page=HardwarePage.LOCKS,
        when=lambda leaf: leaf.hardware.lock is not None,
    ),
    Group("Latch", (field_choice("hardware.latch.kind", "Latch", enum_options(LatchKind)),), page=HardwarePage.LOCKS),
    Group(
        "",
        (Field("hardware.latch.up", "middle above the floor", ref="figure:latch_down"),),
        page=HardwarePage.LOCKS,
        when=lambda leaf: leaf.hardware.latch.kind is not LatchKind.NONE,
    ),
    Group(
        "",
        (
            Field("hardware.latch.bore", "bore in the edge", ref="figure:latch_beside"),
            Field("hardware.latch.deep", "how deep"),
            Field("hardware.latch.plate_length", "forend, length"),
            Field("hardware.latch.plate_width", "forend, width"),
            Field("hardware.latch.plate_thickness", "forend, thickness"),
        ),
        page=HardwarePage.LOCKS,
        when=_latched(LatchKind.TUBULAR, LatchKind.CATCH),
    ),
    Group(
        "",
        (Field("hardware.latch.backset", "backset"), Field("hardware.latch.spindle", "spindle hole")),
        page=HardwarePage.LOCKS,
        when=_latched(LatchKind.TUBULAR, LatchKind.RIM),
    ),
    Group(
        "",
        (
            Field("hardware.latch.backset", "slot, in from the edge"),
            Field("hardware.latch.slot_high", "slot, high"),
            Field("hardware.latch.slot_wide", "slot, wide"),
        ),
        page=HardwarePage.LOCKS,
        when=_latched(LatchKind.THUMB),
    ),
    Group(
        "Flush bolts",
        (_BOLTS,),
        page=HardwarePage.LOCKS,
        when=lambda leaf: leaf.hanging is Hanging.PAIR,
        hint="in the slow leaf",
    ),
    Group(
        "",
        (
            Field("hardware.bolts.length", "length"),
            Field("hardware.bolts.width", "width"),
            Field("hardware.bolts.deep", "let in"),
            Field("hardware.bolts.bolt", "bolt, diameter"),
            Field("hardware.bolts.into", "into head and floor"),
        ),
        page=HardwarePage.LOCKS,
        when=lambda leaf: leaf.hanging is Hanging.PAIR and leaf.hardware.bolts is not None,
    ),
    Group("Pull", (field_choice("hardware.pull.kind", "By", enum_options(PullKind)),), page=HardwarePage.LOCKS),
    Group(
        "",
        (Field("hardware.pull.up", "middle above the floor"), Field("hardware.pull.in_from", "in from the latch edge")),
        page=HardwarePage.LOCKS,
        when=_pulled(PullKind.BAR, PullKind.FLUSH),
    ),
    Group("", (Field("hardware.pull.centres", "screw to screw"),), page=HardwarePage.LOCKS, when=_pulled(PullKind.BAR)),
    Group(
        "",
        (
            Field("hardware.pull.recess_high", "recess, high"),
            Field("hardware.pull.recess_wide", "recess, wide"),
            Field("hardware.pull.recess_deep", "recess, deep"),
        ),
        page=HardwarePage.LOCKS,
        when=_pulled(PullKind.FLUSH),
    ),
)
