"""What the step makers share.

The leaf, its parts by role, its figures as settings, and where its loose parts are ready.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any

from oakmeasure.core.base.units import IN_MM, Show, Unit
from oakmeasure.core.body.listed import size_of
from oakmeasure.core.body.weight import TWO_PEOPLE_KG
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Build, Part
from oakmeasure.core.making.changes import (
    LEAF,
    Axis,
    Brought,
    Change,
    Feature,
    FeatureKind,
    FeatureMade,
    Joined,
    PieceTaken,
)
from oakmeasure.core.making.features import NO_WOOD, features_of
from oakmeasure.core.making.operation import Operation, Setting, Steps, Trade

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

NOTHING = 0.005  # mm: no setting
ROUNDED = 0.06  # mm that a setting may be off its figure: it is told to a tenth


@dataclass(slots=True)
class StepBuilder:
    """Handed from one step maker to the next."""

    leaf: LeafDesign
    """The leaf."""
    build: Build
    """Its parts and joints."""
    steps: Steps = field(default_factory=Steps)
    """The operations so far."""
    ready: dict[str, str] = field(default_factory=dict)
    """Id after which a part may be worked by itself, by its name."""
    whole: str = ""
    """Id after which the leaf is one piece."""
    sized: str = ""
    """Id after which its edges are as they stay; of a leaf left full, its hinge edge."""
    evened: str = ""
    """Id after which all edges of a leaf left full are as they stay; "" where it is none."""
    show: Show = IN_MM
    """How lengths are written."""
    later: dict[str, tuple[Axis, ...]] = field(default_factory=dict)
    """Pieces that are brought to a size only by a later step of their construction, each with the ways of it."""
    _features: tuple[Feature, ...] = ()

    def add(self, op_id: str, name: str, trade: Trade, **what: Any) -> str:
        """Add an operation; see `Operation`.

        Args:
            op_id: Id of the operation.
            name: Its name.
            trade: What kind of work it is.
            what: Further fields of the operation.
        """
        return self.steps.add(Operation(op_id, name, trade, **what))

    def has(self, figure: str) -> bool:
        """Return whether the leaf has such a figure.

        Args:
            figure: Name of the figure; "" for none.
        """
        return figure_name(figure) in self.leaf.figures

    def value(self, figure: str, otherwise: float = 0.0) -> float:
        """Return a figure's value.

        Args:
            figure: Name of the figure; "" for none.
            otherwise: What it is where the leaf has no such figure, in the figure's unit.
        """
        found = self.leaf.figures.get(figure_name(figure))
        return found.value if found is not None else otherwise

    # --- what is done to the pieces ---------------------------------------------------------------------------

    def taken(self, parts: Iterable[Part], size: str) -> tuple[Change, ...]:
        """Return that parts come to be.

        Args:
            parts: The parts.
            size: Which of their sizes they have then: "rough", "planed" or "finished".
        """
        return tuple(PieceTaken(part.name, getattr(part, size)) for part in parts)

    def brought(self, parts: Iterable[Part], axis: Axis) -> tuple[Change, ...]:
        """Return that parts are brought to what they measure at the glue-up, one way.

        Args:
            parts: The parts.
            axis: Which way.
        """
        return tuple(Brought(part.name, axis, getattr(part.planed, axis)) for part in self.not_later(parts, axis))

    def not_later(self, parts: Iterable[Part], axis: Axis) -> tuple[Part, ...]:
        """Return the parts that are brought to their size with all others.

        Args:
            parts: The parts.
            axis: Which way.
        """
        return tuple(part for part in parts if axis not in self.later.get(part.name, ()))

    def brought_now(self, names: Iterable[str]) -> tuple[Brought, ...]:
        """Return that pieces which waited for it are brought to what they measure at the glue-up.

        Args:
            names: Names of the pieces.
        """
        wanted = set(names)
        return tuple(
            Brought(part.name, axis, getattr(part.planed, axis))
            for part in self.build.parts
            if part.name in wanted
            for axis in self.later.get(part.name, ())
        )

    def cuts(self, names: Iterable[str], *kinds: FeatureKind) -> tuple[Change, ...]:
        """Return that all of some kinds is made on some pieces.

        Args:
            names: Names of the pieces.
            kinds: What is made.
        """
        wanted = set(names)
        wanted |= {part.name for part in self.build.parts if part.layer_of in wanted}  # all layers of a member at once
        return tuple(FeatureMade(each) for each in self.features if each.piece in wanted and each.kind in kinds)

    def cuts_left(self, names: Iterable[str], *kinds: FeatureKind) -> tuple[Change, ...]:
        """Return that what of some kinds nobody has made yet is made on some pieces.

        Args:
            names: Names of the pieces.
            kinds: What is made.
        """
        left = set(self.rest(*kinds))
        return tuple(each for each in self.cuts(names, *kinds) if each in left)

    def rest(self, *kinds: FeatureKind) -> tuple[Change, ...]:
        """Return that what of some kinds nobody has made yet is made on all pieces.

        Args:
            kinds: What is made.
        """
        done = {
            change.feature
            for op in self.steps.items.values()
            for change in op.changes
            if isinstance(change, FeatureMade)
        }
        return tuple(FeatureMade(each) for each in self.features if each.kind in kinds and each not in done)

    def to_length(self, names: Iterable[str]) -> tuple[Change, ...]:
        """Return that pieces are cut to the length that they have in the leaf, in their place.

        Args:
            names: Names of the pieces.
        """
        wanted = set(names)
        return tuple(
            Brought(part.name, axis, getattr(part.finished, axis))
            for part in self.build.parts
            if part.name in wanted
            for axis in (Axis.LENGTH, Axis.WIDTH)
            if getattr(part.planed, axis) > getattr(part.finished, axis) + NOTHING
        )

    def layers_to_shoulders(self, names: Iterable[str]) -> tuple[Change, ...]:
        """Return that edgings and veneers of members end at the shoulders once the tenons are cut.

        Args:
            names: Names of the members.
        """
        wanted = set(names)
        ends = {piece.name: size_of(piece) for piece in self.leaf.body.pieces if piece.part} if self.leaf.body else {}
        return tuple(
            Brought(part.name, Axis.LENGTH, ends[part.name].length)
            for part in self.build.parts
            if part.layer_of in wanted and part.planed.length > ends[part.name].length + NOTHING
        )

    def as_read(self) -> tuple[Change, ...]:
        """Return that pieces are as thick as somebody read the leaf, where that is less than was set out."""
        if not self.has("thickness_set_out") or self.leaf.body is None:
            return ()
        ends = [(piece.name, size_of(piece).thickness, piece.part) for piece in self.leaf.body.pieces if piece.part]
        return tuple(
            Brought(name, Axis.THICKNESS, thick)
            for name, thick, part in ends
            if thick < part.planed.thickness - NOTHING
        )

    def joined(self, names: Iterable[str], into: str = LEAF) -> tuple[Change, ...]:
        """Return that pieces become one.

        Args:
            names: Their names.
            into: What they are then part of.
        """
        return (Joined(tuple(names), into),)

    @property
    def features(self) -> tuple[Feature, ...]:
        """All that has to be made on the leaf's pieces beside their sizes and the hardware."""
        if not self._features and self.leaf.body is not None:
            self._features = features_of(self.leaf.body)
        return self._features

    # --- settings -----------------------------------------------------------------------------------------------

    def set_to(self, **figures: str) -> tuple[Setting, ...]:
        """Return settings from figures, as `label="figure"`.

        Those that the leaf does not have, or that are nothing, are left out.

        Args:
            figures: Names of figures by the label that each has in the settings.
        """
        found = []
        for label, name in figures.items():
            figure = self.leaf.figures.get(figure_name(name))
            if figure is not None and abs(figure.value) > NOTHING:
                found.append(Setting(label.replace("_", " "), figure.value, figure.unit, name))
        return tuple(found)

    def parts(self, *roles: Role, made: bool = True) -> tuple[Part, ...]:
        """Return the parts of some roles.

        Args:
            roles: What the parts are in the leaf.
            made: Whether only those are wanted that are made, not what is there already.
        """
        return tuple(p for p in self.build.parts if p.role in roles and not (made and p.at_hand))

    def names(self, *roles: Role) -> tuple[str, ...]:
        """Return the names of the parts with one of these roles.

        Args:
            roles: What the parts are in the leaf.
        """
        return tuple(part.name for part in self.parts(*roles))

    @property
    def solid(self) -> tuple[Part, ...]:
        """Return the parts that are made of solid wood, the leaf's and its lining's."""
        return tuple(p for p in self._made() if is_solid(p) and p.role is not Role.PACKING)

    @property
    def sheet(self) -> tuple[Part, ...]:
        """Return the parts that are cut out of sheet."""
        return tuple(
            p for p in self._made() if isinstance(stuff(p.species), SheetMaterial) and p.species not in NO_WOOD
        )

    def _made(self) -> Iterable[Part]:
        return (p for p in self.leaf.cut_parts if not p.at_hand)

    @property
    def trim_side(self) -> float:
        """Return what is left on each long edge until it is sized, mm: of a leaf that is there already nothing."""
        return 0.0 if self.leaf.leaf.build.keeps_its_sizes else self.value("trim_side")

    @property
    def trim_end(self) -> float:
        """Return what is left on foot and head each until it is sized, mm: of a leaf that is there already nothing."""
        return 0.0 if self.leaf.leaf.build.keeps_its_sizes else self.value("trim_height")

    @property
    def left_side(self) -> float:
        """Return what stays on at the latch edge until the leaf has hung, mm."""
        return min(self.value("left_full_side"), self.trim_side)

    @property
    def left_end(self) -> float:
        """Return what stays on at head and foot each until the leaf has hung, mm."""
        return min(self.value("left_full_end"), self.trim_end)

    @property
    def set_out_thick(self) -> float:
        """Return the thickness that joints are set out on: as it was before anybody read how it came out."""
        return self.value("thickness_set_out", self.value("thickness"))

    @property
    def is_heavy(self) -> bool:
        """Whether two lift the leaf."""
        return self.value("mass") > TWO_PEOPLE_KG

    def loose(self, names: Iterable[str]) -> tuple[str, ...]:
        """Return the ids after which parts may be worked, each once.

        Args:
            names: Names of the parts.
        """
        return tuple(dict.fromkeys(self.ready[name] for name in names if name in self.ready))

    def cautions(self, *keys: str) -> tuple[str, ...]:
        """Return cautions, with the one on weight where the leaf is heavy and is to be lifted.

        Args:
            keys: Keys of data/cautions.toml; "" for none.
        """
        return tuple(each for each in keys if each and (each != "heavy" or self.is_heavy))


def is_solid(part: Part) -> bool:
    """Return whether a part is of solid wood.

    Args:
        part: The part.
    """
    return part.species not in NO_WOOD and not isinstance(stuff(part.species), SheetMaterial)


def sizes(parts: Iterable[Part], what: str, label: str) -> tuple[Setting, ...]:
    """Return the sizes that a machine is set to, the largest first: "length", "width" or "thickness" as planed.

    Args:
        parts: The parts.
        what: What it is.
        label: What it is called, for the working and the drawing.
    """
    found = sorted({round(getattr(part.planed, what), 1) for part in parts}, reverse=True)
    return tuple(Setting(label, each) for each in found)


def explained(m: StepBuilder, settings: Iterable[Setting], *figures: str) -> tuple[Setting, ...]:
    """Return settings with the figure that explains each, where one of these has its value.

    Args:
        m: Where the operations are added.
        settings: The settings.
        figures: Names of figures that may; those that the leaf does not have are left out.
    """
    known = [name for name in figures if m.has(name)]
    by = [(each, next((n for n in known if abs(m.value(n) - each.value) < ROUNDED), "")) for each in settings]
    return tuple(replace(each, figure=name) if name else each for each, name in by)


def sizes_to(changes: Iterable[Change], **labels: str) -> tuple[Setting, ...]:
    """Return the sizes to which changes bring pieces, each once, the largest first.

    Args:
        changes: The changes; only those that bring a piece to a size count.
        labels: What the size is called, by the way of it: `length="stop"`.
    """
    found: dict[Setting, None] = {}
    for axis, label in labels.items():
        to = {round(each.to, 1) for each in changes if isinstance(each, Brought) and each.axis == axis}
        found |= dict.fromkeys(Setting(label, each) for each in sorted(to, reverse=True))
    return tuple(found)


def many(count: int, word: str) -> Setting:
    """Return a count as a setting.

    Args:
        count: How many there are.
        word: The word for one of them.
    """
    return Setting(word, float(count), Unit.COUNT)
