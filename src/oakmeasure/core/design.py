"""A leaf from its readings to its hardware: all that making, hanging, planning and paper read."""

from __future__ import annotations

from dataclasses import dataclass, replace

from oakmeasure.core.body.pieces import Body
from oakmeasure.core.body.weight import Weights
from oakmeasure.core.cutting.leaf_plan import LeafPlan
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.figure import Figure, Figures
from oakmeasure.core.fit.alternatives import Comparison
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.frame import Frame
from oakmeasure.core.fit.swing.obstacles import Swing
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.hardware.clash.search import ClashMap
from oakmeasure.core.hardware.hinges.butt_places import Butts
from oakmeasure.core.hardware.hinges.cups import Cups
from oakmeasure.core.hardware.old_frame import Patch
from oakmeasure.core.hardware.sliding.hangers import Gear
from oakmeasure.core.leaf.part import Build, Part
from oakmeasure.core.survey.clear_opening import Opening
from oakmeasure.core.timber.choice import Timber

NO_CLASHES = ClashMap()


@dataclass(frozen=True, slots=True)
class LeafDesign:
    """One leaf, set out with its hardware. What lies beyond a leaf that cannot be is None."""

    leaf: Leaf
    """As the document holds it."""
    figures: Figures
    """Every number with its working; what makes and hangs the leaf adds its own."""
    opening: Opening
    """The clear opening with its lining, after the survey."""
    fit: Fit
    """Size of the leaf and its gaps; not possible where it cannot hang so."""
    wood: Timber
    """Species and moisture, as made and in the driest and wettest air."""
    build: Build | None = None
    """Parts, joints and panels."""
    body: Body | None = None
    """Its pieces in place, with everything that is cut out of them."""
    frame: Frame | None = None
    """What it hangs in, with it where it hangs."""
    weights: Weights | None = None
    """Mass of each part and of the leaf, kg."""
    plan: LeafPlan | None = None
    """The leaf's own parts on the stock."""
    butts: Butts | None = None
    """Of a leaf on butts."""
    cups: Cups | None = None
    """Of a cabinet leaf on cup hinges."""
    gear: Gear | None = None
    """Of a leaf that slides."""
    swing: Swing | None = None
    """Of a leaf that swings: its way and what stands in it."""
    other_borings: tuple[Boring, ...] = ()
    """What is cut and bored besides hinges: locks, latches, bolts, pulls, guides, gear."""
    patches: tuple[Patch, ...] = ()
    """Old recesses in a frame that stays, which nothing goes into any more."""
    clashes: ClashMap = NO_CLASHES
    """What lies in the leaf, and what of it lies too near."""
    fit_choices: tuple[Comparison, ...] = ()
    """Ways of hanging it, side by side."""
    leaf_choices: tuple[Comparison, ...] = ()
    """Ways of making it, side by side."""
    fault: Exception | None = None
    """What the program failed with over this leaf; it has no parts then. None where it did not fail."""
    sigma_cut: float = 0.0
    """Standard deviation of a cut, mm: a shop rule."""
    sigma_hang: float = 0.0
    """Standard deviation of hanging, mm: a shop rule."""

    def left_undone(self, fault: Exception) -> LeafDesign:
        """Return the same without what rests on parts, for a leaf that the program fails over.

        Args:
            fault: What it failed with.
        """
        known = {
            each: getattr(self, each) for each in ("leaf", "figures", "opening", "wood", "sigma_cut", "sigma_hang")
        }
        return LeafDesign(**known, fit=replace(self.fit, possible=False), fault=fault)

    @property
    def borings(self) -> tuple[Boring, ...]:
        """Return everything that is cut and bored for hardware, on leaf and on what carries it."""
        return (
            (self.butts.borings if self.butts else ()) + (self.cups.borings if self.cups else ()) + self.other_borings
        )

    @property
    def cut_parts(self) -> tuple[Part, ...]:
        """Return everything on the cut list: the leaf's parts, then those of a lining to be made and its packing."""
        lining = self.opening.lining
        return (self.build.parts if self.build else ()) + (lining.parts if lining else ())

    @property
    def sawn(self) -> tuple[Part, ...]:
        """Return every piece that is cut out of boards, sections or sheets, each as often as it is made."""
        lining = self.opening.lining.parts if self.opening.lining else ()
        return pieces_sawn((self.build.parts * self.fit.leaves if self.build else ()) + lining)

    def pieces_of(self, part: Part) -> int:
        """Return how many of a part are made: of a pair or a run, one for each leaf.

        Args:
            part: The part.
        """
        return 1 if part.role in (Role.LINING, Role.PACKING) else self.fit.leaves

    def mass_of(self, part: Part) -> Figure | None:
        """Return the weight of one of a part of the leaf; None for one of its lining.

        Args:
            part: The part.
        """
        return self.weights.parts.get(part.name) if self.weights else None

    @property
    def woods(self) -> list[str]:
        """Return what the leaf is made of, by its keys, what weighs most first; less than 2 % of it is not told."""
        masses: dict[str, float] = {}
        for part in self.build.parts if self.build else ():
            mass = self.mass_of(part)
            masses[part.species] = masses.get(part.species, 0.0) + (mass.value if mass is not None else 0.0)
        least = 0.02 * sum(masses.values())
        return sorted((each for each, mass in masses.items() if mass >= least), key=lambda each: -masses[each])


def pieces_sawn(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """Return the parts that come out of boards or sheets: no packing, which off-cuts give, nothing that is there.

    Args:
        parts: The leaf's parts.
    """
    return tuple(each for each in parts if each.role is not Role.PACKING and not each.at_hand)
