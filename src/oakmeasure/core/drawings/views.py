"""Which view the board shows at which stage."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.drawing import Drawing
from oakmeasure.core.drawings.cutting_view import cutting_view
from oakmeasure.core.drawings.fit_view import fit_view
from oakmeasure.core.drawings.hardware_view import hardware_view
from oakmeasure.core.drawings.leaf_view import leaf_view
from oakmeasure.core.drawings.opening_view import opening_view
from oakmeasure.core.verdicts import Stage

VIEWS: dict[Stage, Callable[..., Drawing]] = {
    Stage.MEASURE: opening_view,
    Stage.FIT: fit_view,
    Stage.LEAF: leaf_view,
    Stage.TIMBER: cutting_view,
    Stage.HARDWARE: hardware_view,
}
