"""A worked example for each quick sum: what its boxes hold until something else is written."""

from __future__ import annotations

from collections.abc import Mapping

from oakmeasure.core.figures.figure import Figures
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.sums.quick import Sum

EXAMPLES: Mapping[str, Mapping[str, str]] = {
    "leaf-size": {"opening-width": "742", "opening-height": "1990"},
    "edge-bevel": {"leaf-width": "737", "thickness": "40", "gap": "2", "knuckle": "7", "pin-setback": "1"},
    "square": {"width": "742", "height": "1990", "diagonal": "2126"},
    "arch": {"span": "860", "rise": "140"},
    "sliding-leaf": {"opening-width": "838", "opening-height": "2090", "overlap-side": "40", "overlap-head": "35"},
    "bypass": {"opening-width": "1900", "overlap-side": "30", "overlap-centre": "90"},
    "lining": {"rough-width": "840", "thickness": "25"},
    "board-layout": {"leaf-width": "760", "cover": "112", "edge-loss": "6"},
    "brace": {"width": "610", "height": "690", "brace-width": "110"},
    "veneer-yield": {"board-thickness": "44", "veneer": "3", "kerf": "1.2"},
    "groove-spacing": {"width": "720", "band": "60", "grooves": "6"},
    "last-rip": {"leaf-width": "760", "laid": "112.5 111 113 110.5 112 114"},
    "reduce-split": {"from-width": "726", "to-width": "664", "stile-cut": "20", "panels": "3"},
    "tenon-panel": {"leaf-width": "737", "stile": "98", "tenon": "66", "groove": "11", "room": "2"},
    "cup-boring": {"overlay": "15", "reach": "11.5"},
    "cup-reach": {"overlay": "15", "boring": "4"},
    "butt-mortise": {"closed-thickness": "5", "gap": "2"},
    "hinge-pull": {"mass": "32", "leaf-width": "737", "hinge-spacing": "1550"},
    "screw-hold": {"species": "redwood", "diameter": "4", "thread": "25"},
    "hinge-transfer": {"leaf-height": "1982", "from-top": "180", "from-bottom": "260"},
    "screw-stack": {"spacer": "5", "backing": "18", "plaster": "12.5", "bite": "35", "depth-limit": "90"},
    "movement": {"species": "european_oak", "width": "180", "from-mc": "9", "to-mc": "13"},
    "emc": {"temperature": "20", "humidity": "55"},
    "weight": {"species": "european_oak", "length": "1982", "width": "737", "thickness": "40"},
}

# Option of a sum, and the figure of a leaf that it is.
OF_LEAF = {
    "opening-width": "clear_width",
    "opening-height": "clear_height",
    "leaf-width": "leaf_width",
    "leaf-height": "leaf_height",
    "thickness": "thickness",
    "mass": "mass",
    "gap-hinge": "gap_hinge",
    "gap-latch": "gap_latch",
    "gap-head": "gap_head",
    "gap-floor": "gap_floor",
    "head-gap": "gap_head",
    "stile": "stile",
    "cover": "board_cover",
}
ONLY_OF_LEAF = ("leaf-size", "edge-bevel", "hinge-pull", "hinge-transfer", "board-layout", "last-rip", "tenon-panel")


def start(which: Sum, leaf: Figures | None = None) -> dict[str, list[float | str]]:
    """Return what a sum's boxes start with.

    Figures of the leaf in hand where it has them, else the example's texts.

    Args:
        which: The sum.
        leaf: Figures of the leaf in hand; None where there is none.
    """
    said: dict[str, list[float | str]] = {}
    for option in which.options:
        figure = (
            leaf.get(figure_name(OF_LEAF.get(option.name, "")))
            if leaf is not None and which.name in ONLY_OF_LEAF
            else None
        )
        if figure is not None and figure.value > 0:
            said[option.name] = [figure.value]
        elif option.name in EXAMPLES[which.name]:
            texts = EXAMPLES[which.name][option.name]
            said[option.name] = list(texts.split()) if option.repeated else [texts]
        elif option.default is not None:
            said[option.name] = [option.default]
    return said
