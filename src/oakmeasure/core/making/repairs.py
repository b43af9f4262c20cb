"""What went wrong at the bench: is the leaf still sound, which repair fits, what else moves, what time it adds.

Rules: a scarf of 1:8; a key a third of the thickness deep; a plug two wider than what it fills; a patch three times as
long as wide; two thirds of a tenon left. All common practice of the trade, no source. Sizes in mm, times in hours.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import IN_MM, Show
from oakmeasure.core.document.production import MishapKind
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.boring import BoringKind
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.making.hole_repairs import hole_deep, hole_off
from oakmeasure.core.making.repair_case import (
    GLUE_SETS,
    PATCH_DEEPER,
    PATCH_LONG,
    Case,
    Found,
    Judgement,
    Repair,
    remake,
)
from oakmeasure.core.making.spoilt_holes import hole_of

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

SCARF = 8.0
KEY_SHARE = 1 / 3
TENON_LEFT = 2 / 3
PACK_MOST = 2.0
CLAMPED_MOST = 150.0
KEY_WIDTH_LEAST = 60.0


def judge_mishap(
    leaf: LeafDesign, kind: MishapKind, part: str, by: float, show: Show = IN_MM, *, hole: str = ""
) -> Judgement:
    """Return what a mishap means and how it is mended.

    Of a screw it is not asked.

    Args:
        leaf: The leaf, set out with its hardware.
        kind: What went wrong.
        part: Name of the part; "" or an unknown one is the leaf as a whole.
        by: How far too deep, off or too short, or the length of a split; the depth of a tear-out; mm.
        show: How lengths and other quantities are written.
        hole: Name of the hole, where one went wrong; "" for the deepest of the part.
    """
    build = leaf.build
    found = next((p for p in leaf.cut_parts if p.name == part), None) if build is not None else None
    cuts = tuple(c for c in leaf.borings if c.member == part)
    case = Case(leaf, found, by, cuts, show, hole_of(leaf, part, hole))
    sound, words, repairs = JUDGES[kind](case)
    again = remake(case)
    ordered = sorted(repairs, key=lambda each: (not each.fits, each.adds))
    return Judgement(sound, words, (*ordered, *again))


def _split(case: Case) -> Found:
    part = case.part
    wide = part.finished.width if part else case.leaf.fit.width.value
    long = part.finished.length if part else case.leaf.fit.height.value
    tenons = case.leaf.build.tenons if case.leaf.build is not None else ()
    jointed = any(case.name in (t.member, t.into) for t in tenons)
    short = case.by <= CLAMPED_MOST
    glue = Repair(
        "glue",
        "Run glue in and clamp it",
        "opened with a wedge, glue in along its length, clamped across",
        short,
        f"up to {case.fmt(CLAMPED_MOST)} long" if short else "too long to close for good",
        0.3,
        4.0,
    )
    key_long = max(40.0, 0.5 * wide)
    can_key = wide >= KEY_WIDTH_LEAST and case.thick >= 16
    key = Repair(
        "key",
        "A key let in across it",
        "dovetail both ways, grain across the split, from the closing face",
        can_key,
        f"needs {case.fmt(KEY_WIDTH_LEAST)} of width and {case.fmt(16)} of thickness",
        0.8,
        GLUE_SETS,
        (("key, long", key_long), ("wide at its ends", key_long / 3), ("deep", case.thick * KEY_SHARE)),
    )
    scarf = SCARF * case.thick
    fits = case.by + scarf <= 0.6 * long and (part is None or part.role is not Role.PANEL)
    splice = Repair(
        "splice",
        "A splice, 1 in 8",
        "sawn away past the end of the split, a new piece on a long slope",
        fits,
        f"{case.fmt(case.by + scarf)} of {case.fmt(long)}" if fits else "no room for so long a slope",
        1.6,
        4.0,
        (("slope", scarf), ("new piece", case.by + scarf)),
        ("joints in it are cut again",) if jointed else (),
    )
    if case.by > 0.5 * long:
        return Level.STOP, f"{case.fmt(case.by)} of {case.fmt(long)}: it runs through the part", [key, splice]
    if short and not jointed:
        return Level.OK, "short and clear of a joint: glued it holds", [glue, key, splice]
    return Level.WARNING, "mended it holds; in a joint it would open again", [glue, key, splice]


def _short(case: Case) -> Found:
    return _short_leaf(case) if case.part is None else _short_part(case, case.part)


def _short_leaf(case: Case) -> Found:
    strip = Repair(
        "strip",
        "A strip along the foot",
        "glued on, the grain along the foot, planed to the height",
        True,
        "its line is seen from below only",
        0.8,
        GLUE_SETS,
        (("strip", max(case.by + 2.0, 6.0)),),
        ("weight a little more", "the strip does not move with a slab: screws in slots there"),
    )
    leave = Repair(
        "leave",
        "Leave it",
        f"the gap over the floor grows by {case.fmt(case.by)}",
        case.by <= 6.0,
        f"up to {case.fmt(6)} at a foot",
        0.0,
        0.0,
        (),
        (f"gap over the floor + {case.fmt(case.by)}",),
    )
    return ((Level.OK if case.by <= 6 else Level.WARNING), "the leaf is shorter than its opening wants", [leave, strip])


def _short_part(case: Case, part: Part) -> Found:
    tenon, loose, whole, reach = _other_tenons(case, part)
    scarf = SCARF * part.finished.thickness
    long = part.finished.length
    fits = part.role is not Role.PANEL and scarf + case.by < 0.6 * long
    splice = Repair(
        "splice",
        "Splice a piece on, 1 in 8",
        "out of sight at the foot, slope to the closing face",
        fits,
        f"slope of {case.fmt(scarf)}" if fits else "no room for the slope",
        1.6,
        4.0,
        (("slope", scarf), ("new piece", case.by + scarf)),
    )
    for_other = _shorter(case)
    other = Repair(
        "other",
        "Use it for a shorter part",
        f"it makes the {for_other}" if for_other else "none is shorter",
        bool(for_other),
        "of the same width and thickness",
        0.1,
        0.0,
        (),
        (f"the {part.name} is made out of the wood for the {for_other}",),
    )
    narrow = Repair(
        "narrow",
        "All like it as short",
        f"the leaf comes out {case.fmt(case.by)} smaller",
        part.role is Role.RAIL and case.by <= 4.0,
        f"up to {case.fmt(4)}, made good at the gaps",
        0.6,
        0.0,
        (("all of them by", case.by),),
        (
            f"leaf narrower by {case.fmt(case.by)}",
            f"gap at the latch + {case.fmt(case.by)}, or packing at the hinges",
            "panels narrower too",
        ),
    )
    level = Level.OK if whole else Level.WARNING if fits or reach > 0 else Level.STOP
    return level, f"{case.fmt(case.by)} short of {case.fmt(long)}", [tenon, loose, splice, other, narrow]


def _other_tenons(case: Case, part: Part) -> tuple[Repair, Repair, bool, float]:
    """Return its tenons shortened, loose ones in their place, whether enough is left of its own, and their reach."""
    build = case.leaf.build
    reach = (
        min((t.reach for t in build.tenons if t.member == part.name and not t.is_haunch), default=0.0) if build else 0.0
    )
    left = reach - case.by / 2
    whole = reach > 0 and left >= TENON_LEFT * reach
    tenon = Repair(
        "tenon",
        "Keep the shoulders, shorter tenons",
        "half of what is missing off each",
        whole,
        f"{case.fmt(left)} of {case.fmt(reach)} left" if reach else "it has no tenons",
        0.2,
        0.0,
        (("tenon left", max(left, 0.0)),),
        ("mortises are deeper than they need be: no harm",),
    )
    loose = Repair(
        "loose",
        "Loose tenons in place of its own",
        "sawn off at the shoulders, mortised for loose ones",
        reach > 0,
        "its length between shoulders is as it was" if reach else "it has no tenons",
        1.0,
        0.0,
        (("loose tenon", 2 * reach),),
    )
    return tenon, loose, whole, reach


def _shorter(case: Case) -> str:
    part = case.part
    if part is None or case.leaf.build is None:
        return ""
    fit = [
        p
        for p in case.leaf.build.parts
        if p is not part
        and not p.at_hand
        and abs(p.planed.width - part.planed.width) < 1.0
        and abs(p.planed.thickness - part.planed.thickness) < 0.6
        and p.planed.length <= part.planed.length - case.by
        and p.species == part.species
    ]
    return max(fit, key=lambda p: p.planed.length).name if fit else ""


def _screw(case: Case) -> Found:
    screws = case.leaf.leaf.hardware.screws
    wide = screws.diameter
    core = Repair(
        "core",
        "Core it out, plug, bore again",
        "a hollow cutter over the stump, a plug of long grain glued in",
        True,
        "the plug bites as the wood did",
        0.5,
        GLUE_SETS,
        (("cutter", wide + 3.0), ("plug", wide + 3.0), ("deep", screws.length + 3.0)),
    )
    beside = Repair(
        "beside",
        "Leave the stump, a screw beside it",
        "where the hinge has a hole more, or gets one",
        screws.count > 2,
        f"{case.fmt(3 * wide)} away along the grain",
        0.2,
        0.0,
        (("away", 3 * wide),),
        (f"{screws.count - 1} screws carry for the others",) if screws.count > 2 else (),
    )
    return Level.WARNING, "a stump in the wood: nothing holds there", [core, beside]


def _mortise_deep(case: Case) -> Found:
    hinge = next((c for c in case.cuts if c.kind is BoringKind.BUTT or c.kind.is_forend), None)
    if hinge is not None:
        can = case.by <= PACK_MOST
        pack = Repair(
            "pack",
            "Packing under it",
            "card or veneer the size of its leaf, hard, not crushed",
            can,
            f"up to {case.fmt(PACK_MOST)}",
            0.15,
            0.0,
            (("packing", case.by),),
        )
        fill = Repair(
            "fill",
            "A slip glued in, cut again",
            "the recess's full size, grain along the edge",
            True,
            "whatever the depth",
            0.7,
            GLUE_SETS,
            (("slip", case.by + 1.0), ("long", hinge.along)),
        )
        moves = f"left as it is, the gap at the hinges is {case.fmt(case.by)} less and the leaf binds there"
        return Level.WARNING, moves, [pack, fill]
    width = case.part.finished.width if case.part else 0.0
    reach = (
        max((t.reach for t in case.leaf.build.tenons if t.into == case.name), default=0.0) if case.leaf.build else 0.0
    )
    behind = width - reach - case.by
    leave = Repair(
        "leave",
        "Leave it",
        "a pocket behind the tenon: less glue at its end",
        behind >= 10.0,
        f"{case.fmt(behind)} of wood behind it",
        0.0,
    )
    block = Repair(
        "block",
        "A block glued in its bottom",
        "end grain out of sight, chopped to depth",
        True,
        "wherever it is through or nearly",
        0.4,
        GLUE_SETS,
        (("block", case.by),),
    )
    level = Level.OK if behind >= 10.0 else Level.WARNING
    return level, f"{case.fmt(behind)} of wood stays behind the tenon", [leave, block]


def _tear_out(case: Case) -> Found:
    spare = max((case.part.planed.thickness - case.part.finished.thickness) / 2, 0.3) if case.part else 0.3
    plane = Repair(
        "plane",
        "Scrape it out over the whole face",
        "a card scraper askew, then with the grain",
        case.by <= spare,
        f"up to {case.fmt(spare)}",
        0.3,
        0.0,
        (("off", case.by),),
        (f"thickness less by {case.fmt(case.by)}: read it and write it into the log",),
    )
    wide = max(3 * case.by, 8.0)
    patch = Repair(
        "patch",
        "A patch let in",
        "boat-shaped, grain and colour matched, from an off-cut of the same board",
        True,
        "shows least along the grain",
        0.7,
        GLUE_SETS,
        (("at least, long", PATCH_LONG * wide), ("wide", wide), ("deep", case.by + PATCH_DEEPER)),
    )
    turn = Repair(
        "turn",
        "Turn that face to the back",
        "while the part is loose",
        case.part is not None and not case.part.is_old and not case.cuts,
        "before its joints are cut",
        0.1,
        0.0,
        (),
        ("face and edge marks change sides",),
    )
    return (
        (Level.OK if case.by <= spare else Level.WARNING),
        f"{case.fmt(case.by)} deep: sound, it only shows",
        [plane, patch, turn],
    )


JUDGES: dict[MishapKind, Callable[[Case], Found]] = {
    MishapKind.HOLE_DEEP: hole_deep,
    MishapKind.HOLE_OFF: hole_off,
    MishapKind.SPLIT: _split,
    MishapKind.SHORT: _short,
    MishapKind.SCREW: _screw,
    MishapKind.MORTISE_DEEP: _mortise_deep,
    MishapKind.TEAR_OUT: _tear_out,
}
