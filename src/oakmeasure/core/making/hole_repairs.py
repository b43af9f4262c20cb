"""Repairs of a hole that went too deep, or stands where it should not."""

from __future__ import annotations

from typing import TYPE_CHECKING

from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.boring import Boring, CutSide, Device
from oakmeasure.core.making.repair_case import GLUE_SETS, PATCH_DEEPER, PATCH_LONG, Case, Found, Repair

if TYPE_CHECKING:
    pass


PLUG_OVER = 2.0
SKIN_LEAST = 1.0


def deepest(case: Case) -> Boring | None:
    """Return the deepest cut in the part; None where there is none.

    Args:
        case: What went wrong.
    """
    return max(case.cuts, key=lambda cut: cut.depth, default=None)


def hole_deep(case: Case) -> Found:
    """Return whether a hole that went too deep leaves the part sound, what it means, and its repairs.

    Args:
        case: What went wrong.
    """
    cut = deepest(case)
    room = (
        case.thick
        if cut is None or cut.side.surface.is_face or cut.side is CutSide.FACE_TO_LEAF
        else (case.part.finished.width if case.part else case.thick)
    )
    left = room - (cut.depth if cut else 0.0) - case.by
    wide = min(cut.along if cut else 10.0, 40.0)
    through = left < SKIN_LEAST
    turned = f"turned {case.fmt(case.by)} thick, glued, level with the stop's depth"
    disc = Repair(
        "disc",
        "A disc in its bottom",
        turned,
        left > 0,
        "nothing has come through" if left > 0 else "it has come through",
        0.3,
        0.5,
        (("disc", wide), ("thick", case.by)),
    )
    plug = Repair(
        "plug",
        "Plug it and bore again",
        "grain along the part's own, glued, flushed when it has set",
        True,
        "the plug takes all of the old hole",
        0.5,
        GLUE_SETS,
        (("plug", wide + PLUG_OVER),),
        ("screws of it bite in the plug: longer ones",) if cut and cut.kind.device is Device.CUP else (),
    )
    patch = Repair(
        "patch",
        "A patch in the far face",
        "let in with the grain, cut from an off-cut of the same board",
        through,
        "only where it shows on the far face",
        0.9,
        GLUE_SETS,
        (("patch at least, long", PATCH_LONG * wide), ("wide", wide + 6.0), ("deep", max(left, 0.0) + PATCH_DEEPER)),
    )
    if through:
        return Level.WARNING, f"{case.fmt(left)} left of the far face: it shows, or will", [plug, patch, disc]
    return Level.OK, f"{case.fmt(left)} left behind it: sound, only its bottom is too low", [disc, plug, patch]


def hole_off(case: Case) -> Found:
    """Return whether a hole beside its place leaves the part sound, what it means, and its repairs.

    Args:
        case: What went wrong.
    """
    cut = next((c for c in case.cuts if c.solid is not None), None)
    wide = min(cut.along if cut else 10.0, 40.0)
    apart = case.by - wide
    free = apart >= max(3.0, wide / 4)
    plug = Repair(
        "plug",
        "Plug it, then bore where it belongs",
        "the plug glued in along the grain; a new hole at its edge would run into the old one",
        not free,
        "the two holes touch" if not free else "they stand clear",
        0.5,
        GLUE_SETS,
        (("plug", wide + PLUG_OVER),),
    )
    leave = Repair(
        "leave",
        "Bore the right one, plug the wrong one for looks",
        "both stand in sound wood",
        free,
        f"{case.fmt(apart)} of wood between them" if free else "no wood left between them",
        0.4,
        0.5,
        (("plug", wide),),
    )
    move = Repair(
        "move",
        "Leave the hinge where its hole is",
        "its other half moves by as much",
        bool(cut and cut.kind.device in (Device.CUP, Device.BUTT)),
        "a hinge has a fellow that can move with it",
        0.2,
        0.0,
        (("moves by", case.by),),
        ("plate or recess on the other side, the same way", "keep-out zones and clashes: look again"),
    )
    return (
        (Level.OK if free else Level.WARNING),
        f"{case.fmt(case.by)} off, hole {case.fmt(wide)} wide",
        [plug, leave, move],
    )
