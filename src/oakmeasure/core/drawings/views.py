"""Which view the board shows at which stage, and at Measure on which page of its sheet."""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.readings import MeasuredBy
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.fit.cabinet_view import cabinet_view
from oakmeasure.core.drawings.fit.fit_view import fit_view
from oakmeasure.core.drawings.fit.pair_view import pair_view
from oakmeasure.core.drawings.fit.slide_view import slid_to, slide_view
from oakmeasure.core.drawings.fit.swing_view import swing_view, swung_to
from oakmeasure.core.drawings.hang.crooked import can_exaggerate
from oakmeasure.core.drawings.hang.hang_view import hang_view
from oakmeasure.core.drawings.hardware.clash_view import clash_view
from oakmeasure.core.drawings.hardware.gear_view import gear_view
from oakmeasure.core.drawings.hardware.hardware_view import hardware_view
from oakmeasure.core.drawings.hardware.lock_view import lock_view
from oakmeasure.core.drawings.hardware.stack_view import stack_view
from oakmeasure.core.drawings.leaf.leaf_view import joints_view, leaf_view
from oakmeasure.core.drawings.leaf.ways_view import ways_view
from oakmeasure.core.drawings.make.op_view import op_view
from oakmeasure.core.drawings.measure.floor_view import floor_view
from oakmeasure.core.drawings.measure.lining_view import lining_view
from oakmeasure.core.drawings.measure.old_frame_view import may_stay, old_frame_view
from oakmeasure.core.drawings.measure.opening_view import opening_view
from oakmeasure.core.drawings.measure.ticks_view import ticks_view
from oakmeasure.core.drawings.timber.cutting_view import cutting_view
from oakmeasure.core.drawings.timber.year_view import year_view
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.solution import LeafSolution


class MeasurePage(StrEnum):
    """A page of the Measure sheet; each has its own view."""

    OPENING = "Opening"
    ROUND = "Round it"
    LINING = "Lining"


def measure_view(
    leaf: LeafSolution, show: Show, *, exaggeration: float = 10.0, page: MeasurePage = MeasurePage.OPENING
) -> Drawing:
    """Return the view of a page of Measure; of its first page, as the opening was taken.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        exaggeration: How many times crookedness is drawn.
        page: The page of Measure that is open.
    """
    view: Callable[..., Drawing] = ticks_view if leaf.leaf.measured_by is MeasuredBy.TICKS else opening_view
    if page is MeasurePage.ROUND:
        view = floor_view
    elif page is MeasurePage.LINING:
        if may_stay(leaf.leaf):
            return old_frame_view(leaf, show)
        view = lining_view
    return view(leaf, show, exaggeration=exaggeration)


def is_exaggerated(leaf: LeafSolution, page: MeasurePage) -> bool:
    """Return whether a page of Measure shows crookedness larger than it is.

    Args:
        leaf: The leaf, worked out to the end.
        page: The page of Measure that is open.
    """
    if page is MeasurePage.LINING and may_stay(leaf.leaf):
        return False
    return page is not MeasurePage.OPENING or can_exaggerate(leaf)


class FitPage(StrEnum):
    """A page of the Fit sheet; each has its own view."""

    LEAF = "Leaf"
    WAY = "Opens"
    SURE = "Goes in"
    CHOICES = "Compare"


def fit_stage_view(leaf: LeafSolution, show: Show, *, page: FitPage = FitPage.LEAF, opened: float = 0.35) -> Drawing:
    """Return the leaf in or before its opening; on the second page opened by a share of its way, 0 shut to 1.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        page: The page of Fit that is open.
        opened: Share of its way, 0 shut to 1 open.
    """
    hanging = leaf.leaf.hanging
    if leaf.swing is not None and page is FitPage.WAY:
        return swing_view(leaf, show, leaf.swing, opened=180 * opened)
    if hanging is Hanging.PAIR and leaf.build is not None:
        return pair_view(leaf, leaf.build, show)
    if hanging.covers and leaf.fit.possible:
        return slide_view(leaf, show, slid=opened if page is FitPage.WAY else 0.0)
    if hanging.lies_on and leaf.fit.possible:
        return cabinet_view(leaf, show)
    return fit_view(leaf, show, is_small=page is FitPage.CHOICES)


def opened_by(leaf: LeafSolution, x: float, y: float) -> float:
    """Return the share of its way to which a leaf goes when its handle is drawn to a place on the drawing, mm.

    Args:
        leaf: The leaf, worked out to the end.
        x: Across, away from the hinge edge, mm.
        y: Up, from the foot, mm.
    """
    if leaf.swing is not None:
        return swung_to(leaf, leaf.swing, x, y)
    return slid_to(leaf, x)


class LeafPage(StrEnum):
    """A page of the Leaf sheet: set out, joints listed, ways and late trim, beside another construction."""

    SET_OUT = "Set out"
    JOINTS = "Joints"
    WAYS = "Ways"
    OTHER = "Beside"


def leaf_stage_view(
    leaf: LeafSolution, show: Show, *, page: LeafPage = LeafPage.SET_OUT, title: bool = True
) -> Drawing:
    """Return the leaf set out, with its joints and fixings alone, or the ways of making it.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        page: The page of the sheet that is open.
        title: Whether it is said in words what the leaf is.
    """
    if page is LeafPage.WAYS:
        return ways_view(leaf, show)
    return joints_view(leaf, show) if page is LeafPage.JOINTS else leaf_view(leaf, show, title=title, handles=True)


class TimberPage(StrEnum):
    """A page of the Timber sheet; each has its own view."""

    BOARDS = "Parts"
    RACK = "Rack"
    PLAN = "Plan"
    SETTINGS = "Saw"
    VENEERS = "Veneer"
    DRYING = "Dry"
    COST = "Cost"
    YEAR = "Year"


def timber_view(leaf: LeafSolution, show: Show, *, page: TimberPage = TimberPage.BOARDS) -> Drawing:
    """Return the quick plan of the leaf, or how it moves through its year; the other pages are the job's.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        page: The page of the sheet that is open.
    """
    return year_view(leaf, show) if page is TimberPage.YEAR else cutting_view(leaf, show)


class HardwarePage(StrEnum):
    """A page of the Hardware sheet; each shows the leaf with what is cut for its own."""

    HINGES = "Hinges"
    GEAR = "Gear"
    FIXINGS = "Fixings"
    LOCKS = "Locks"
    CLASHES = "Clashes"
    CATALOGUE = "Catalogue"


def hardware_stage_view(leaf: LeafSolution, show: Show, *, page: HardwarePage = HardwarePage.HINGES) -> Drawing:
    """Return the leaf with what the open page of Hardware is about.

    That is its hinges or its gear, what carries it, its lock, or all that clashes.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        page: The page of the sheet that is open.
    """
    if leaf.gear is not None and page in (HardwarePage.HINGES, HardwarePage.GEAR):
        return gear_view(leaf, show, leaf.gear)
    if page is HardwarePage.FIXINGS:
        return stack_view(leaf, show)
    if page is HardwarePage.CLASHES:
        return clash_view(leaf, show)
    return lock_view(leaf, show) if page is HardwarePage.LOCKS else hardware_view(leaf, show)


class MakePage(StrEnum):
    """A page of the Make sheet; each has its own view."""

    STEPS = "Steps"
    BATCH = "Batch"
    GLUE = "Glue"
    FINISH = "Coats"
    TIME = "Time"
    MISHAPS = "Mend"
    LOG = "Log"
    LABELS = "Labels"


def make_view(leaf: LeafSolution, show: Show, *, op: str = "") -> Drawing:
    """Return the operation at hand, the first where none is named; the other pages are the window's to ask for.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
        op: Id of the operation; "" for the first.
    """
    return op_view(leaf, show, op)


class HangPage(StrEnum):
    """A page of the Hang sheet; each has its own view."""

    GAPS = "Gaps"
    RUN = "Run"
    SLIDE = "Slides"
    PRACTICE = "Drill"
    RECORD = "Record"
    BOOK = "Book"


VIEWS: dict[Stage, Callable[..., Drawing]] = {
    Stage.MEASURE: measure_view,
    Stage.FIT: fit_stage_view,
    Stage.LEAF: leaf_stage_view,
    Stage.TIMBER: timber_view,
    Stage.HARDWARE: hardware_stage_view,
    Stage.MAKE: make_view,
    Stage.HANG: hang_view,
}
