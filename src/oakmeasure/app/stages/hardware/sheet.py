"""What the Hardware sheet asks: hinges, what a leaf slides on, locks, fixings, and what would clash."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.app.stages.hardware.gear_sheet import GEAR
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.cup_hinges import CupUnknown, RevealRow, cup_from_table, cup_keys, is_cup_chosen
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import (
    FlushBolts,
    LatchKind,
    MortiseLock,
    PacketButt,
    PullKind,
    RouterTemplate,
    is_chosen,
)
from oakmeasure.core.document.job import Job, Leaf
from oakmeasure.core.document.rules import ButtSchool
from oakmeasure.core.drawings.views import HardwarePage
from oakmeasure.core.edits import hinge_edits, job_edits
from oakmeasure.core.forms.fields import Ask, Choice, Column, Command, Field, Group, Rows, enum_options, field_choice
from oakmeasure.data import table

OWN, NOT_CHOSEN = "one of your own", "not chosen yet"


def _butt_key(job: Job, leaf_id: str) -> str:
    butt = job.leaf(leaf_id).hardware.butt
    name = butt.name if is_chosen(butt) else ""
    return next((key for key, row in table("butts").items() if row["name"] == name), "")


def _cup_key(job: Job, leaf_id: str) -> str:
    hinge = job.leaf(leaf_id).hardware.cup.hinge
    name = hinge.name if is_cup_chosen(hinge) else ""
    return next((key for key in cup_keys() if cup_from_table(key).name == name), "")


_BUTT = Choice(
    "butt",
    "Butt",
    lambda: [(key, row["name"]) for key, row in table("butts").items()],
    _butt_key,
    hinge_edits.with_butt,
    "made-up makers; measure the ones on your bench",
    other=lambda job, leaf_id: OWN if is_chosen(job.leaf(leaf_id).hardware.butt) else NOT_CHOSEN,
)
_CUP = Choice(
    "cup",
    "Hinge",
    lambda: [(key, cup_from_table(key).name) for key in cup_keys()],
    _cup_key,
    hinge_edits.with_cup,
    "made-up makers; put in the figures of yours",
    other=lambda job, leaf_id: OWN if is_cup_chosen(job.leaf(leaf_id).hardware.cup.hinge) else NOT_CHOSEN,
)


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
    "packet",
    "hardware.packet",
    (Column("length", "long"), Column("width", "wide"), Column("closed_thickness", "shut")),
    lambda values: PacketButt(**values),
    "hinge",
    where="butt",
    suggest=lambda leaf: {"length": leaf.hardware.butt.length.value, "width": leaf.hardware.butt.leaf_width.value},
)
_REVEALS = Rows(
    "reveals",
    "hardware.cup.hinge.reveal",
    (Column("thickness", "thick"), Column("boring", "boring"), Column("reveal", "reveal")),
    lambda values: RevealRow(**values),
    "row",
)
_TEMPLATE = Choice(
    "has-template",
    "With",
    lambda: [(False, "none: chisel and router by hand"), (True, "guide bush and cutter")],
    lambda job, leaf_id: job.leaf(leaf_id).hardware.template is not None,
    lambda job, leaf_id, has: job_edits.with_field(
        job, leaf_id, "hardware.template", RouterTemplate() if has else None
    ),
)
_LOCK = Choice(
    "has-a-lock",
    "It has",
    lambda: [(False, "none"), (True, "a mortise lock")],
    lambda job, leaf_id: job.leaf(leaf_id).hardware.lock is not None,
    lambda job, leaf_id, has: job_edits.with_field(job, leaf_id, "hardware.lock", MortiseLock() if has else None),
)


def _pulled(*kinds: PullKind) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.hardware.pull.kind in kinds


def _latched(*kinds: LatchKind) -> Callable[[Leaf], bool]:
    return lambda leaf: leaf.hardware.latch.kind in kinds


_BOLTS = Choice(
    "has-bolts",
    "It has",
    lambda: [(False, "none"), (True, "flush bolts, top and bottom")],
    lambda job, leaf_id: job.leaf(leaf_id).hardware.bolts is not None,
    lambda job, leaf_id, has: job_edits.with_field(job, leaf_id, "hardware.bolts", FlushBolts() if has else None),
)
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
            Field("hardware.butt.leaf_width", "one leaf, wide", has_state=True, ref="figure:butt_across"),
            Field(
                "hardware.butt.closed_thickness",
                "thickness when shut",
                has_state=True,
                ref="figure:butt_depth",
                note="both leaves pressed together, over the knuckle's side",
            ),
            Field(
                "hardware.butt.metal_thickness",
                "metal of one leaf",
                has_state=True,
                ref="figure:gap_let_in_flush",
                optional=True,
                note="by it the gap is foretold that butts let in flush would leave",
            ),
            Field("hardware.butt.pin_projection", "pin out from the face", has_state=True),
            Field("hardware.butt.pin_inset", "pin back from the edge", has_state=True),
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
        (Command(Ask.KEEP_HINGE, "Keep this leaf's hinge", "with today's date and its readings, in this job"),),
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
            Command(Ask.ZONE_SHEET, "Their sheet, PDF…", "where no nail, pin or screw may go, before any is driven"),
            Command(Ask.KEEP_OUTS, "All of the job, CSV…"),
        ),
        page=HardwarePage.CLASHES,
        hint="listed below",
    ),
    *GEAR,
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
