"""An opening of 3 to 8 sides taken by its sides and diagonals."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.job import Leaf, Reading
from oakmeasure.core.document.readings import Polygon
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.adjust import ContradictoryError, Observed, Status
from oakmeasure.core.survey.checks import assumed, judge_readings
from oakmeasure.core.survey.polygon import FLOOR_RISE, LEAN_HINGE, adjust_polygon, span_key
from oakmeasure.core.survey.survey_result import Taken, outline_of

PREFIX = "span_"


def label_of(key: str, corners: int, *, short: bool = False) -> str:
    """Return what a reading of a polygon is called.

    Args:
        key: Name of the reading: a side or a diagonal.
        corners: How many corners it has.
        short: In a list.
    """
    if key == FLOOR_RISE:
        return "floor" if short else "rise of the floor"
    if key == LEAN_HINGE:
        return "lean, hinges" if short else "lean of the hinge side"
    start, end = (int(each) for each in key.split("-"))
    word = "side" if is_side(key, corners) else "diag." if short else "diagonal"
    return f"{word} {start} to {end}"


def is_side(key: str, corners: int) -> bool:
    """Return whether a length runs along a side of the polygon, not across it.

    Args:
        key: Name of the reading: a side or a diagonal.
        corners: How many corners it has.
    """
    start, end = (int(each) for each in key.split("-"))
    return end - start == 1 or (start == 1 and end == corners)


def readings_of(polygon: Polygon) -> dict[str, tuple[Reading, str]]:
    """Return each reading with the path of its field; of a length that was read twice, the first.

    Args:
        polygon: Sides and diagonals as they were read.
    """
    found: dict[str, tuple[Reading, str]] = {}
    for at, each in enumerate(polygon.spans):
        found.setdefault(span_key(each.start, each.end), (each.length, f"polygon.spans.{at}.length"))
    for key, reading in ((FLOOR_RISE, polygon.floor_rise), (LEAN_HINGE, polygon.lean_hinge)):
        if reading is not None:
            found[key] = (reading, f"polygon.{key}")
    return found


def next_span(leaf: Leaf) -> dict[str, int]:
    """Return the corners of the length to read next: the sides in their order, then diagonals from corner 1.

    Args:
        leaf: The leaf, as the document holds it.
    """
    polygon = leaf.polygon
    if polygon is None:
        return {}
    n = polygon.corners
    taken = {span_key(each.start, each.end) for each in polygon.spans}
    order = [(at, at % n + 1) for at in range(1, n + 1)]
    order += [(start, end) for start in range(1, n + 1) for end in range(start + 2, n + 1)]
    return next(({"start": a, "end": b} for a, b in order if span_key(a, b) not in taken), {})


def take_by_polygon(ctx: Context, polygon: Polygon) -> Taken | None:
    """Adjust the sides and diagonals; None, with a check, where they fix no shape yet.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        polygon: Sides and diagonals as they were read.
    """
    rules = ctx.rules
    readings = readings_of(polygon)
    observed = {}
    for key, (reading, _) in readings.items():
        sigma = rules.sigma_tape.value
        if key in (FLOOR_RISE, LEAN_HINGE):
            sigma = rules.sigma_plumb_per_m.value
        elif not is_side(key, polygon.corners):
            sigma = rules.sigma_diagonal.value
        observed[key] = Observed(reading.value, reading.sigma or sigma)
    inputs = [
        ctx.reading(figure_name(f"reading_{PREFIX}{key}"), label_of(key, polygon.corners), reading, path)
        for key, (reading, path) in readings.items()
    ]
    try:
        adjustment = adjust_polygon(polygon.corners, observed)
    except InputError as error:
        code, title = "polygon-open", "The readings fix no shape yet"
        if isinstance(error, ContradictoryError):
            code, title = "survey-contradictory", "No opening has these readings"
        ctx.stop(
            code,
            title,
            f"{len(readings)} readings for {polygon.corners} corners: needs {error.need}.",
            Remedy("Take it, or look for a corner that is numbered wrongly"),
            grounds=Grounds("clear_width", f"reading:{PREFIX}{next(iter(readings), '')}"),
        )
        return None
    inputs += assumed(ctx, adjustment)
    used = sum(each.status is Status.USED for each in adjustment.readings.values())
    return Taken(
        outline_of(adjustment.corners, bows=ctx.leaf.bows),
        adjustment.corners,
        adjustment.covariance,
        tuple(inputs),
        f"least squares over {used} sides and diagonals, the hinge side's foot being 0",
        "survey adjustment, weighted by each reading's uncertainty",
        adjustment,
    )


def judge_polygon(ctx: Context, taken: Taken, polygon: Polygon) -> None:
    """Say what the sides and diagonals say of each other.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        taken: The opening as it was taken.
        polygon: Sides and diagonals as they were read.
    """
    assert taken.adjustment is not None
    labels = {key: label_of(key, polygon.corners) for key in taken.adjustment.readings}
    judge_readings(ctx, taken.adjustment, labels, prefix=PREFIX)
