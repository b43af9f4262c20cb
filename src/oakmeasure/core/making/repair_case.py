"""A mishap, the ways of mending it, and what it means."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import Show
from oakmeasure.core.figures.check import Level
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.making.spoilt_holes import Hole
from oakmeasure.data import table

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign


PATCH_DEEPER = 2.0
PATCH_LONG = 3.0
GLUE_SETS = 2.0  # hours until a plug or a patch may be cut: common practice, no source


@dataclass(frozen=True, slots=True)
class Repair:
    """One way of mending a mishap."""

    key: str
    """Kept in the log."""
    name: str
    """What it is called."""
    words: str
    """What is done."""
    fits: bool
    """Whether it will do here."""
    why: str
    """The reason where it will not, or what limits it."""
    hours: float
    """Hours that it takes."""
    wait_hours: float = 0.0
    """Hours that one waits for it."""
    sizes: tuple[tuple[str, float], ...] = ()
    """Label and mm."""
    moves: tuple[str, ...] = ()
    """What else is no longer as it was."""

    @property
    def adds(self) -> float:
        """Return the time that it adds until work on the part goes on, h."""
        return self.hours + self.wait_hours


@dataclass(frozen=True, slots=True)
class Judgement:
    """What a mishap means, and how it is mended."""

    sound: Level
    """Fine, it goes on; look again, mended it does; stop, the part is made again."""
    words: str
    """What the mishap means."""
    repairs: tuple[Repair, ...]
    """What fits first, the quickest before the others."""

    @property
    def best(self) -> Repair | None:
        """The repair that is advised."""
        return next((each for each in self.repairs if each.fits), None)


@dataclass(frozen=True, slots=True)
class Case:
    """What went wrong, where, by how much, mm, and what lies in that part."""

    leaf: LeafDesign
    """The leaf."""
    part: Part | None
    """The part; None for the leaf as a whole."""
    by: float
    """How far it went wrong, mm."""
    cuts: tuple[Boring, ...]
    """Cuts near it."""
    show: Show
    """How lengths are written."""
    hole: Hole | None = None
    """The hole, where one went wrong."""

    def fmt(self, mm: float) -> str:
        """Return a length as it is written.

        Args:
            mm: The length, mm.
        """
        return self.show.length(mm, sign=False)

    @property
    def name(self) -> str:
        """Name of the part."""
        return self.part.name if self.part is not None else "leaf"

    @property
    def thick(self) -> float:
        """Thickness of the part, mm."""
        return self.part.finished.thickness if self.part is not None else self.leaf.figures["thickness"].value


def remake(case: Case) -> tuple[Repair, ...]:
    """Return the repair that makes the part again; () for old wood and for what is bought.

    Args:
        case: The mishap and the part.
    """
    part = case.part
    if part is None or part.is_old or part.at_hand:
        return ()
    hours = float(table("hours")["part"].get(str(part.role), 0.3)) * 2
    tenons = sum(case.name in (t.member, t.into) for t in case.leaf.build.tenons) if case.leaf.build else 0
    hours += float(table("hours")["other"]["tenon"]) * tenons
    return (
        Repair(
            "remake",
            f"Make the {part.name} again",
            "out of the same board where it can be",
            True,
            "a rough piece is left over" if part.rough.length < 600 else "takes wood that was not planned",
            hours,
            0.0,
            (("rough, long", part.rough.length), ("wide", part.rough.width), ("thick", part.rough.thickness)),
            (f"{tenons} joints are cut again" if tenons else "nothing else", "the cutting plan: one part more"),
        ),
    )


Found = tuple[Level, str, list[Repair]]
