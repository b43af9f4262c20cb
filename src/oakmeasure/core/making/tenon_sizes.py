"""How long tenons are, and pieces between their shoulders, as a step says them."""

from __future__ import annotations

from oakmeasure.core.making.step_builder import StepBuilder


def reaches(m: StepBuilder, names: tuple[str, ...]) -> list[float]:
    """Return how long the tenons of some pieces are, each length once, mm.

    Args:
        m: Where the operations are added.
        names: Names of the pieces.
    """
    tenons = (each for each in m.build.tenons if each.member in names and not each.is_haunch and each.loose is None)
    return sorted({round(each.reach, 1) for each in tenons}, reverse=True)


def between_shoulders(m: StepBuilder, names: tuple[str, ...]) -> list[float]:
    """Return how long some pieces are between their shoulders, each length once, mm.

    Args:
        m: Where the operations are added.
        names: Names of the pieces; they stand upright.
    """
    found = set()
    for part in m.build.parts:
        tenons = [each for each in m.build.tenons if each.member == part.name and not each.is_haunch]
        if part.name in names and tenons and not part.is_raked:
            middle = (part.outline.y0 + part.outline.y1) / 2
            low = max((each.rect.y1 for each in tenons if each.rect.y1 < middle), default=part.outline.y0)
            high = min((each.rect.y0 for each in tenons if each.rect.y0 > middle), default=part.outline.y1)
            found.add(round(high - low, 1))
    return sorted(found, reverse=True)
