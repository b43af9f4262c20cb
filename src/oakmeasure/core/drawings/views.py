"""Which view the board shows at which stage, and at Measure on which page of its sheet."""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum

from oakmeasure.core.drawing import Drawing
from oakmeasure.core.drawings.cutting_view import cutting_view
from oakmeasure.core.drawings.fit_view import fit_view
from oakmeasure.core.drawings.floor_view import floor_view
from oakmeasure.core.drawings.hardware_view import hardware_view
from oakmeasure.core.drawings.leaf_view import leaf_view
from oakmeasure.core.drawings.lining_view import lining_view
from oakmeasure.core.drawings.opening_view import opening_view
from oakmeasure.core.drawings.ticks_view import ticks_view
from oakmeasure.core.readings import MeasuredBy
from oakmeasure.core.solve import LeafSolution
from oakmeasure.core.units import Show
from oakmeasure.core.verdicts import Stage


class MeasurePage(StrEnum):
    """A page of the Measure sheet; each has its own view."""

    OPENING = "Opening"
    ROUND = "Round it"
    LINING = "Lining"


def measure_view(
    leaf: LeafSolution, show: Show, *, exaggeration: float = 10.0, page: MeasurePage = MeasurePage.OPENING
) -> Drawing:
    """Return the view of a page of Measure; of its first page, as the opening was taken."""
    view: Callable[..., Drawing] = ticks_view if leaf.leaf.measured_by is MeasuredBy.TICKS else opening_view
    if page is MeasurePage.ROUND:
        view = floor_view
    elif page is MeasurePage.LINING:
        view = lining_view
    return view(leaf, show, exaggeration=exaggeration)


VIEWS: dict[Stage, Callable[..., Drawing]] = {
    Stage.MEASURE: measure_view,
    Stage.FIT: fit_view,
    Stage.LEAF: leaf_view,
    Stage.TIMBER: cutting_view,
    Stage.HARDWARE: hardware_view,
}
