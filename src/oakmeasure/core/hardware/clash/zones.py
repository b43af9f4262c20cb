"""Keep-out zones: where nothing may be nailed, pinned, screwed or cut, told before anything is driven."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.hardware.clash.rules import BodyKind, spacing
from oakmeasure.core.hardware.clash.search import HARDWARE, ClashMap, keep_out

_FIXING_RULE = spacing(BodyKind.CUT, BodyKind.FIXING)
MARGIN = _FIXING_RULE.least if _FIXING_RULE is not None else 0.0  # round each, on the face and in depth, mm


@dataclass(frozen=True, slots=True)
class Zone:
    """A block of the leaf to be kept free. from_top, to: down from the leaf's top. from_hinge, in_to: in from the hinge
    edge. deep_from, deep_to: from the opening face. All mm, the margin in them. ref: on the drawing.
    is_slow, is_active: of a pair, in that leaf alone.
    """

    name: str
    from_top: float
    to: float
    from_hinge: float
    in_to: float
    deep_from: float
    deep_to: float
    ref: str
    is_slow: bool = False
    is_active: bool = False

    def in_words(self, thickness: float) -> str:
        """Return which face a nail must not come from so deep: both, or one with what it may be long."""
        if self.deep_from <= 0 and self.deep_to >= thickness:
            return "right through"
        if self.deep_from <= 0:
            return "opening face"
        return "closing face" if self.deep_to >= thickness else "inside"


def zones(made: ClashMap, *, width: float, height: float, thickness: float) -> tuple[Zone, ...]:
    """Return a zone for all that is cut and driven for each piece of hardware, from the top down."""
    found = []
    for family, solid in keep_out(made.things, MARGIN).items():
        x0, y0, x1, y1 = solid.box
        one = next(each for each in made.things if each.family == family and each.kind in HARDWARE)
        found.append(
            Zone(
                family,
                max(height - y1, 0.0),
                min(height - y0, height),
                max(x0, 0.0),
                min(x1, width),
                max(solid.depth[0] - MARGIN, 0.0),
                min(solid.depth[1] + MARGIN, thickness),
                one.ref,
                one.is_slow,
                one.is_active,
            )
        )
    return tuple(sorted(found, key=lambda each: (each.from_top, each.from_hinge)))
