"""Repairs of a hole that went too deep, or stands where it should not: each as large as its hole."""

from __future__ import annotations

from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.boring import Device
from oakmeasure.core.making.repair_case import GLUE_SETS, PATCH_DEEPER, PATCH_LONG, Case, Found, Repair
from oakmeasure.core.making.spoilt_holes import Hole

PLUG_OVER = 2.0
SKIN_LEAST = 1.0
PEG_TO = 6.0  # mm: a smaller hole is pegged as it is, a larger one is bored out for a plug: common practice, no source
UNKNOWN = Hole("hole", 10.0, 10.0, 0.0, is_round=True, into_face=True)  # where nothing is cut in that part
SCREW_AGAIN = ("screws of it bite in the plug: longer ones",)


def filled(hole: Hole, deep: float) -> tuple[str, str, tuple[tuple[str, float], ...]]:
    """Return what fills a hole: its name in words, how it is fitted, and its sizes, mm.

    Args:
        hole: The hole, or the recess.
        deep: How deep it is, mm.
    """
    if not hole.is_round:
        sizes = (("slip, long", hole.long), ("wide", hole.wide), ("thick", deep + 1.0))
        return "slip", "grain along the part's own, glued, planed flush when it has set", sizes
    if hole.wide < PEG_TO:
        return "peg", "split along the grain, glued, cut flush when it has set", (("peg", hole.wide), ("deep", deep))
    return (
        "plug",
        "bored out clean, grain along the part's own, glued, flushed when it has set",
        (("plug", hole.wide + PLUG_OVER), ("deep", deep)),
    )


def hole_deep(case: Case) -> Found:
    """Return whether a hole that went too deep leaves the part sound, what it means, and its repairs.

    Args:
        case: What went wrong.
    """
    hole = case.hole or UNKNOWN
    room = case.thick if hole.into_face else (case.part.finished.width if case.part else case.thick)
    left = room - hole.depth - case.by
    through = left < SKIN_LEAST
    disc = _bottomed(case, hole, left)
    what, how, sizes = filled(hole, hole.depth + case.by)
    plug = Repair(
        "plug",
        "Fill it with a slip and cut again" if not hole.is_round else f"Fill it with a {what} and bore again",
        how,
        True,
        f"the {what} takes all of the old hole",
        0.5,
        GLUE_SETS,
        sizes,
        SCREW_AGAIN if hole.device is Device.CUP else (),
    )
    leave = Repair(
        "leave",
        "Leave it",
        "the screw bites above the bottom of its hole",
        hole.device is None and left > SKIN_LEAST,
        "a deeper hole holds a screw as well" if left > SKIN_LEAST else "its point shows on the far side",
        0.0,
    )
    patch = Repair(
        "patch",
        "A patch in the far face",
        "let in with the grain, cut from an off-cut of the same board",
        through,
        "only where it shows on the far face",
        0.9,
        GLUE_SETS,
        (
            ("patch at least, long", PATCH_LONG * hole.wide),
            ("wide", hole.wide + 6.0),
            ("deep", max(left, 0.0) + PATCH_DEEPER),
        ),
    )
    if through:
        return Level.WARNING, f"{case.fmt(left)} left of the far face: it shows, or will", [plug, patch, disc, leave]
    return Level.OK, f"{case.fmt(left)} left behind it: sound, only its bottom is too low", [leave, disc, plug, patch]


def _bottomed(case: Case, hole: Hole, left: float) -> Repair:
    """Return a disc or a slip glued in where a hole went too deep; left: wood behind it, mm."""
    name = "A disc in its bottom" if hole.is_round else "A slip in its bottom"
    bottom: tuple[tuple[str, float], ...] = (("long", hole.long), ("wide", hole.wide))
    if hole.is_round:
        bottom = (("disc", hole.wide),)
    return Repair(
        "disc",
        name,
        f"{case.fmt(case.by)} thick, glued, level with the depth it should have",
        left > 0 and hole.wide >= PEG_TO,
        "nothing has come through" if left > 0 else "it has come through",
        0.3,
        0.5,
        (*bottom, ("thick", case.by)),
    )


def hole_off(case: Case) -> Found:
    """Return whether a hole beside its place leaves the part sound, what it means, and its repairs.

    Args:
        case: What went wrong.
    """
    hole = case.hole or UNKNOWN
    wide = hole.wide
    apart = case.by - wide
    free = apart >= max(3.0, wide / 4)
    what, how, sizes = filled(hole, hole.depth or wide)
    cut = "bore" if hole.is_round else "cut"
    plug = Repair(
        "plug",
        f"Fill it with a {what}, then {cut} where it belongs",
        f"{how}; a new one at its edge would run into the old one",
        not free,
        "the two would touch" if not free else "they stand clear",
        0.5,
        GLUE_SETS,
        sizes,
    )
    leave = Repair(
        "leave",
        f"{cut.capitalize()} the right one, fill the wrong one for looks",
        "both stand in sound wood",
        free,
        f"{case.fmt(apart)} of wood between them" if free else "no wood left between them",
        0.4,
        0.5,
        sizes,
    )
    move = Repair(
        "move",
        "Leave the hinge where its hole is",
        "its other half moves by as much",
        hole.device in (Device.CUP, Device.BUTT) and wide >= PEG_TO,
        "a hinge has a fellow that can move with it",
        0.2,
        0.0,
        (("moves by", case.by),),
        ("plate or recess on the other side, the same way", "keep-out zones and clashes: look again"),
    )
    size = case.fmt(wide)
    return ((Level.OK if free else Level.WARNING), f"{case.fmt(case.by)} off, {hole.name} {size}", [plug, leave, move])
