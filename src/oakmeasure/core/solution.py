"""What follows from a job: every leaf worked out to the end, and what is to be said of them together."""

from __future__ import annotations

from dataclasses import dataclass, fields

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.design import LeafDesign
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.sliding_gear import HangerKind
from oakmeasure.core.figures.check import Check, Level, Stage
from oakmeasure.core.hanging.adjust import NOT_HUNG, Hung
from oakmeasure.core.making.log import Progress, progress
from oakmeasure.core.making.sequence import Making


@dataclass(frozen=True, slots=True)
class LeafSolution(LeafDesign):
    """Everything that follows from one leaf: its design, how it is made, how it hangs, what is to be said of it."""

    checks: tuple[Check, ...] = ()
    """The worst first."""
    making: Making | None = None
    """Its operations in working order."""
    hung: Hung = NOT_HUNG
    """What the gaps as read ask for."""

    @classmethod
    def of(cls, design: LeafDesign, *, checks: tuple[Check, ...], making: Making | None, hung: Hung) -> LeafSolution:
        """Return a design worked out to the end.

        Args:
            design: The leaf from its readings to its hardware.
            checks: What is to be said of it, the worst first.
            making: Its operations, None where it cannot be.
            hung: What the gaps as read ask for.

        Returns:
            The whole of it.
        """
        known = {each.name: getattr(design, each.name) for each in fields(design)}
        return cls(**known, checks=checks, making=making, hung=hung)

    def open_stops(self) -> list[Check]:
        """Return the stops that nobody has answered for; with any left, no bench sheet is printed."""
        answered = {each.code for each in self.leaf.acknowledged}
        return [each for each in self.checks if each.level is Level.STOP and each.code not in answered]

    def key_figure(self, stage: Stage, show: Show) -> str:
        """Return the figure that stands under the stage's name on the rod.

        Args:
            stage: The stage that it belongs to.
            show: How lengths and other quantities are written.
        """
        f = self.figures
        if stage is Stage.MEASURE:
            return show.size(f["clear_width"].value, f["clear_height"].value)
        if self.leaf.hanging is Hanging.OPEN:
            return "not decided"
        if stage is Stage.FIT:
            return show.size(self.fit.width.value, self.fit.height.value)
        if self.build is None or self.plan is None:
            return "no leaf"
        if stage is Stage.LEAF:
            return self.build.summary
        if stage is Stage.TIMBER:
            return self.plan.in_words()
        if stage is Stage.MAKE:
            return self._made_so_far()
        if stage is Stage.HANG:
            return self._how_it_hangs(show)
        if self.cups is not None:
            return f"{int(f['cup_count'].value)} cups · {show.value(f['mass'].value, Unit.KG)}"
        if self.gear is not None:
            word = "wheels" if self.gear.kind is HangerKind.FLOOR else "hangers"
            return f"2 {word} · {show.value(f['mass'].value, Unit.KG)}"
        if self.butts is None:
            return f"no gear yet · {show.value(f['mass'].value, Unit.KG)}"
        return f"{int(f['butt_count'].value)} butts · {show.value(f['mass'].value, Unit.KG)}"

    def _how_it_hangs(self, show: Show) -> str:
        """Return when it was signed off, or how far its worst gap is off once it is put right."""
        signed = self.leaf.hung.signed
        if signed is not None:
            return f"hung {signed.on.day} {signed.on:%b %Y}"
        if "hung_worst" in self.figures:
            return f"within {show.length(self.figures['hung_worst'].value)}"
        return "to be adjusted" if self.hung.is_read else "not hung yet"

    def _made_so_far(self) -> str:
        """Return how many of its operations are done, or how many there are and their hours."""
        if self.making is None:
            return ""
        states = progress(self.making.operations, self.leaf.making.log)
        done = sum(each is Progress.DONE for each in states.values())
        if done:
            return f"{done} of {len(states)} done"
        return f"{len(states)} steps, {self.making.hours:.0f} h"


@dataclass(frozen=True, slots=True)
class Solution:
    """The whole job, worked out. `checks` are those of the job as a whole."""

    job: Job
    """The job."""
    leaves: tuple[LeafSolution, ...]
    """Every leaf, worked out."""
    checks: tuple[Check, ...]
    """What is said of the job as a whole, the worst first."""

    def leaf(self, leaf_id: str) -> LeafSolution:
        """Return a leaf of the job, worked out.

        Args:
            leaf_id: Id of the leaf in the job.
        """
        for each in self.leaves:
            if each.leaf.id == leaf_id:
                return each
        raise KeyError(leaf_id)
