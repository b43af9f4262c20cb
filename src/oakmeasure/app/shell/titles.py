"""What stands over the board at each stage and page, and whose working stands beside it first."""

from __future__ import annotations

from oakmeasure.core.document.job import Leaf
from oakmeasure.core.drawings.measure.old_frame_view import may_stay
from oakmeasure.core.drawings.views import FitPage, HardwarePage, LeafPage, MeasurePage, TimberPage
from oakmeasure.core.figures.check import Stage

PAGE_WORDS = {
    MeasurePage.OPENING: "The opening as measured",
    MeasurePage.ROUND: "What stands round it",
    MeasurePage.LINING: "The lining in the rough opening",
}


def measure_words(page: MeasurePage, leaf: Leaf) -> str:
    """Return what stands over the board at a page of Measure."""
    if page is MeasurePage.LINING and leaf.lining is None:
        return "The frame that stays" if may_stay(leaf) else PAGE_WORDS[MeasurePage.OPENING]
    return PAGE_WORDS[page]


FIT_WORDS = {
    FitPage.LEAF: "The leaf in its opening",
    FitPage.WAY: "How it opens",
    FitPage.SURE: "Will it go in without planing",
    FitPage.CHOICES: "The choices side by side",
}
OTHER_WORDS: dict[str, str] = {
    TimberPage.SETTINGS: "Saw and planer settings over all leaves, the largest first",
    TimberPage.YEAR: "The leaf through its year",
    LeafPage.WAYS: "Ways to make it, and what a late trim leaves",
    LeafPage.OTHER: "The leaf beside another construction",
    HardwarePage.GEAR: "Gear, and what carries the leaf",
    HardwarePage.FIXINGS: "What the fixings go through",
    HardwarePage.LOCKS: "Lock, latch and pull, and what is cut for them",
    HardwarePage.CLASHES: "All that lies in the leaf, and what clashes",
    HardwarePage.CATALOGUE: "Hinges to be had, against this leaf",
}
BOARD_WORDS = {
    Stage.LEAF: "The leaf, set out",
    Stage.TIMBER: "Cutting plan and cut list",
    Stage.HARDWARE: "Hinges, and what is cut for them",
    Stage.MAKE: "The operation in hand",
    Stage.HANG: "As it hangs",
}
# Of each stage's figures the first that the leaf has: its working stands there until another one is asked for.
FIRST_WORKING = {
    Stage.MEASURE: ("clear_width",),
    Stage.FIT: ("leaf_width",),
    Stage.LEAF: ("rail_length", "board_end", "boards_laid", "strip_width"),
    Stage.TIMBER: ("mass",),
    Stage.HARDWARE: ("cup_boring", "butt_depth", "hanger_works", "hanger_1"),
    Stage.MAKE: ("make_hours",),
    Stage.HANG: ("hung_worst", "gap_hinge"),
}
# How high the list under the board is, in px.
MOST_LIST_PX = {
    Stage.MEASURE: 220,
    Stage.HARDWARE: 178,
    Stage.MAKE: 186,
    Stage.HANG: 176,
}  # under the board; the rest is scrolled
# Of the two constructions side by side, and of the hinges to be had: all of their lines.
TABLES_PX: dict[str, int] = {LeafPage.OTHER: 316, HardwarePage.CATALOGUE: 250}
LIST_SHARE = 0.36  # of the height, that a list takes at the most: the drawing needs the rest
PLAN_LIST_PX = 156  # what is to be bought, under the plan
