"""What is cut and bored for hardware: named, measured from an end and an edge, and, in a leaf, as a solid."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.prisms import Solid, block
from oakmeasure.core.document.hanging import Hanging


@dataclass(frozen=True, slots=True)
class Boring:
    """A cut for hardware. from_top: to its upper end, down from the leaf's top or from the lining's head.

    along: up the member; across: from the face or edge that the datum names; depth: into the edge or face. mm.
    solid: where it lies in the leaf; None for a cut in what carries the leaf.
    """

    name: str
    member: str
    edge: str
    datum: str
    from_top: float
    along: float
    across: float
    depth: float
    solid: Solid | None = None

    @property
    def ref(self) -> str:
        """What it is shown by on a drawing: "butt:1" for butt 1, "cup:2" for cup 2."""
        if self.name.startswith("cup "):
            return "cup:" + self.name.split()[1]  # with its screws or dowels
        kind, _, number = self.name.rpartition(" ")
        return f"{kind}:{number}"

    @property
    def is_slow(self) -> bool:
        """Whether it is cut in the slow leaf of a pair, or where that is bolted."""
        return self.member.endswith("slow leaf") or self.name.startswith("bolt hole")

    @property
    def is_active(self) -> bool:
        """Whether, of a pair, it is cut in the active leaf alone: what a lock or latch needs."""
        return self.name.startswith(("lock", "latch", "spindle", "keyhole", "thumb")) and not self.is_slow

    @property
    def to(self) -> float:
        """Its lower end, from the same datum, mm."""
        return self.from_top + self.along


def leg(hanging: Hanging, side: str) -> str:
    """Return what carries the leaf at a side, "hinge" or "latch": a lining's leg or a cabinet's side."""
    return f"cabinet, {side} side" if hanging is Hanging.INSET_BUTTS else f"{side} lining leg"


def keep(
    name: str,
    hanging: Hanging,
    member: str,
    *,
    from_top: float,
    head_gap: float,
    width: float,
    height: float,
    plate: tuple[float, float, float],
    depth: tuple[float, float],
) -> Boring | None:
    """Return the plate that a lock or latch shuts into: in the lining, or of a pair in the edge of its slow leaf.

    from_top: its upper end on the leaf. head_gap: more, down from the lining's head. width, height: of the leaf. plate:
    its length, width and thickness. depth: where it lies in the slow leaf's edge. None where nothing stands there.
    """
    long, wide, thick = plate
    if hanging is Hanging.PAIR:
        y = height - from_top
        return Boring(
            name,
            f"{member}, slow leaf",
            "meeting edge, in its middle",
            "down from the leaf's top",
            from_top,
            long,
            wide,
            thick,
            block(width - thick, y - long, width, y, depth),
        )
    if not hanging.has_butts:
        return None
    return Boring(
        name,
        leg(hanging, "latch"),
        "face to the leaf",
        "down from the lining's head",
        from_top + head_gap,
        long,
        wide,
        thick,
    )
