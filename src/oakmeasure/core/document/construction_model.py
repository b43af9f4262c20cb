"""What all constructions share in the document. Each kind's own model stands in its folder of core/construction."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import TYPE_CHECKING, Annotated, ClassVar, Self

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.rules import FrozenModel, bounded
from oakmeasure.core.document.species import CORES


def known_sheet(key: str) -> str:
    """Return the key of a sheet that wood can be laid on; InputError for any other.

    Args:
        key: Its key in the table.
    """
    if key not in CORES:
        raise InputError("sheet", key, "one of " + ", ".join(CORES))
    return key


class LaidBoard(FrozenModel):
    """A board or strip at hand, measured."""

    width: Annotated[float, bounded(30, 600, "board")]
    """What it shows in the leaf, a tongue not counted, mm."""


def laid(widths: Sequence[float]) -> tuple[LaidBoard, ...]:
    """Return boards at hand from their widths as read.

    Args:
        widths: What each shows, from the hinge edge, mm; brought into 30 to 600.

    Returns:
        A board for each.
    """
    return tuple(LaidBoard(width=min(max(each, 30.0), 600.0)) for each in widths)


class GlueOrder(StrEnum):
    """In which order a construction is glued up."""

    FRAME = "a frame"
    FRAME_AND_FILL = "a frame, then what closes it"
    SLAB = "strips, in groups"
    LAYERS = "layer upon layer"
    PRESSED = "pressed"
    PRESSED_FRAME = "members pressed, then a frame of them"
    ONE_BY_ONE = "each by itself"


@dataclass(frozen=True, slots=True)
class EdgeLayer:
    """One layer of a leaf's long edges, or several alike."""

    name: str
    """Name of its figure."""
    label: str
    """What it is called."""
    thickness: float
    """Of one, mm."""
    edit: str
    """Path of the field that sets it, relative to the leaf; "" where several do."""
    times: int = 1
    """How many there are."""


class ConstructionModel(FrozenModel):
    """What is chosen for one construction: the base of every kind's model, and what other rooms ask of any of them."""

    trade_name: ClassVar[str]
    """What the trade calls it."""
    is_worked_loose: ClassVar[bool] = False
    """Whether its members are cut and bored before they are joined."""
    keeps_its_sizes: ClassVar[bool] = False
    """Whether its sizes are those of wood that is there: none is carried over from another construction or to it."""
    judges_its_lock: ClassVar[bool] = False
    """Whether its own checks judge the lock against its joints, and move it."""

    if TYPE_CHECKING:  # a field of some kinds, the sum of fields of others

        @property
        def kind(self) -> str:
            """Its folder's name, as the file holds it."""
            ...

        @property
        def thickness(self) -> float:
            """Thickness, mm."""
            ...

    @property
    def edge_layers(self) -> tuple[EdgeLayer, ...]:
        """What its long edges are made of, from the opening face to the closing face."""
        return (EdgeLayer("thickness", "leaf thickness", self.thickness, "build.thickness"),)

    @property
    def over_all(self) -> float:
        """Thickness over its ledges or battens, mm."""
        return self.thickness

    @property
    def glue_order(self) -> GlueOrder:
        """In which order it is glued up."""
        return GlueOrder.ONE_BY_ONE

    @property
    def material_not_said(self) -> str | None:
        """Key of what it is reckoned to be made of, where it asks for that and nobody said it; else None."""
        return None

    @property
    def glued_at_once(self) -> int:
        """How many strips are glued up together, before their groups are."""
        return 2

    @property
    def solid_from_foot(self) -> float | None:
        """How far it is solid wood from its foot up, mm; None: all the way."""
        return None

    def with_widths(self, widths: Sequence[float]) -> Self | None:
        """Return the same of boards as wide as they were read.

        Args:
            widths: What each board or strip shows, from the hinge edge, mm.

        Returns:
            The construction; None where it is not laid up of boards.
        """
        return None

    def begun(self, clear_height: float | None) -> Self:
        """Return the same as a leaf of that height begins.

        Args:
            clear_height: The least reading of the opening's height, mm; None where nobody has read it.

        Returns:
            The construction with the defaults that a joiner would change first.
        """
        return self
