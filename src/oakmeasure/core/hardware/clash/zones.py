"""Keep-out zones: where nothing may be nailed, pinned, screwed or cut, told before anything is driven."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.prisms import Span
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.hardware.clash.rules import BodyKind, spacing
from oakmeasure.core.hardware.clash.search import HARDWARE, ClashMap, keep_out
from oakmeasure.core.leaf.part import Rect

_FIXING_RULE = spacing(BodyKind.CUT, BodyKind.FIXING)
MARGIN = _FIXING_RULE.least if _FIXING_RULE is not None else 0.0  # round each, on the face and in depth, mm


@dataclass(frozen=True, slots=True)
class Zone:
    """A block of the leaf to be kept free.

    All mm, the margin in them.
    """

    name: str
    """Its name, as it is shown."""
    from_top: float
    """Where it begins, down from the leaf's top, mm."""
    to: float
    """Where it ends, down from the leaf's top, mm."""
    from_hinge: float
    """Where it begins, in from the hinge edge, mm."""
    in_to: float
    """Where it ends, in from the hinge edge, mm."""
    deep_from: float
    """Where it begins, in from the opening face, mm."""
    deep_to: float
    """Where it ends, in from the opening face, mm."""
    faces: Span
    """Where the leaf's two faces are there, in from its opening face, mm."""
    ref: str
    """On the drawing."""
    is_slow: bool = False
    """Whether it is in the slow leaf of a pair alone."""
    is_active: bool = False
    """Whether it is in the first opening leaf of a pair alone."""

    def in_words(self) -> str:
        """Return which face a nail must not come from so deep: both, or one with what it may be long."""
        front, back = self.faces
        if self.deep_from <= front and self.deep_to >= back:
            return "right through"
        if self.deep_from <= front:
            return "opening face"
        return "closing face" if self.deep_to >= back else "inside"


def zones(made: ClashMap, body: Body) -> tuple[Zone, ...]:
    """Return a zone for all that is cut and driven for each piece of hardware, from the top down.

    Args:
        made: What lies in the leaf.
        body: The leaf's pieces in place.
    """
    found = []
    bare, width, height = body.bare, body.width, body.height
    for family, solid in keep_out(made.things, MARGIN).items():
        x0, y0, x1, y1 = solid.box
        place = Rect(max(x0, 0.0), max(y0, 0.0), min(x1, width), min(y1, height))
        faces = bare.span_over(place, widest=True) or bare.over_all
        one = next(each for each in made.things if each.family == family and each.kind in HARDWARE)
        found.append(
            Zone(
                family,
                max(height - y1, 0.0),
                min(height - y0, height),
                max(x0, 0.0),
                min(x1, width),
                max(solid.depth[0] - MARGIN, faces[0]),
                min(solid.depth[1] + MARGIN, faces[1]),
                faces,
                one.ref,
                one.is_slow,
                one.is_active,
            )
        )
    return tuple(sorted(found, key=lambda each: (each.from_top, each.from_hinge)))
