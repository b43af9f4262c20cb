"""Which part goes into which, and the letter that both carry. Letters run from the foot up, hinge side first."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.document.roles import Role
from oakmeasure.core.leaf.part import Build, Part


@dataclass(frozen=True, slots=True)
class Joint:
    """member goes into `into`."""

    letter: str
    """On both parts."""
    member: str
    """Name of the part that has the tenon."""
    into: str
    """Name of the part that it goes into."""
    at: tuple[float, float]
    """Its middle in the finished leaf."""
    pieces: int = 1
    """Tenons, dowels."""


def letter_of(number: int) -> str:
    """Return the letter of a number from 0: A to Z without I and O, then AA, AB and so on.

    Args:
        number: Its number, from 1.

    >>> letter_of(0), letter_of(8), letter_of(24)
    ('A', 'J', 'AA')
    """
    letters = "ABCDEFGHJKLMNPQRSTUVWXYZ"
    first, last = divmod(number, len(letters))
    return (letter_of(first - 1) if first else "") + letters[last]


def joints_of(build: Build) -> tuple[Joint, ...]:
    """Return the joints of a leaf: its tenons by pairs of parts.

    Of a frame without tenons, every rail at both stiles.

    Args:
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    found: dict[tuple[str, str], list[tuple[float, float]]] = {}
    for tenon in build.tenons:
        if not tenon.is_haunch:
            r = tenon.rect
            found.setdefault((tenon.member, tenon.into), []).append(((r.x0 + r.x1) / 2, (r.y0 + r.y1) / 2))
    if not found:
        found = _butted(build)
    middles = {
        pair: (sum(x for x, _ in at) / len(at), sum(y for _, y in at) / len(at), len(at)) for pair, at in found.items()
    }
    ordered = sorted(middles.items(), key=lambda each: (round(each[1][1], 1), each[1][0]))
    return tuple(
        Joint(letter_of(n), member, into, (x, y), pieces) for n, ((member, into), (x, y, pieces)) in enumerate(ordered)
    )


def _butted(build: Build) -> dict[tuple[str, str], list[tuple[float, float]]]:
    stiles = [part for part in build.parts if part.role is Role.STILE and not part.is_old and _is_upright(part)]
    rails = [part for part in build.parts if part.role is Role.RAIL and not part.is_old]
    cores = (build.depth_of(part) for part in build.parts if part.role is Role.CORE)
    if any(a > 0.01 and b < build.thickness - 0.01 for a, b in cores):  # laid on a core, not into one another
        return {}
    return {
        (rail.name, stile.name): [((stile.face.x0 + stile.face.x1) / 2, (rail.face.y0 + rail.face.y1) / 2)]
        for rail in rails
        for stile in stiles
        if stile.face.y0 - 1 <= rail.face.y0 and rail.face.y1 <= stile.face.y1 + 1
    }


def _is_upright(part: Part) -> bool:
    return part.face.height > part.face.width
