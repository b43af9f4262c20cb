"""The customer's sheet: what is going to be made, and what is to be agreed before the first cut.

It is in plain words and without sums. Each choice can still be changed on paper; after that, wood is cut.
"""

from __future__ import annotations

from oakmeasure.core.base.units import Show, Unit
from oakmeasure.core.document.constructions import trade_name
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import LatchKind, PullKind
from oakmeasure.core.document.job import Hand
from oakmeasure.core.document.species import stuff
from oakmeasure.core.drawings.drawing import Drawing
from oakmeasure.core.drawings.leaf.leaf_view import front, no_leaf, sketch_for, surround, unit_step
from oakmeasure.core.figures.check import Level
from oakmeasure.core.fit.fit_result import gap_as_hung
from oakmeasure.core.leaf.assumed import still_to_measure
from oakmeasure.core.paper.stage_sheet import BOX, Block, Row
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.timber.place import finish_of

CAUTION = (
    "Fire doors, escape routes, glass, electrics and structure: the local code and licensed practice decide. "
    "Wood moves with the seasons: the gaps are made for that."
)


def customer_drawing(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the leaf in its opening, its width and height written, nothing else.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    build = leaf.build
    if build is None:
        return no_leaf(leaf, show)
    step = unit_step(build)
    sketch = sketch_for(leaf, show, step)  # mirrored for hinges on the right
    surround(sketch, leaf)
    front(sketch, build)
    page = sketch.page()
    low, right = -leaf.figures["gap_floor"].value - 3.5 * step, build.width + 6.0 * step
    page.dimension((0.0, low), (build.width, low), show.length(build.width), ref="width")
    page.dimension((right, 0.0), (right, build.height), show.length(build.height), ref="height")
    return sketch.drawing(margin=2 * step)


def customer_blocks(leaf: LeafSolution, show: Show) -> tuple[Block, ...]:
    """Return what is told and what is asked.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    if leaf.build is None:
        return (Block("Not yet", ("",), (1.0,), (("The opening is still to be measured or decided.",),), bold=-1),)
    told = Block(f"What it will be, {show.system} and kg", ("", ""), (0.24, 0.76), _told(leaf, show), bold=0)
    asked = Block(
        "To be agreed before the first cut",
        ("", "as drawn", "agreed", "or rather"),
        (0.24, 0.4, 0.08, 0.28),
        _asked(leaf, show),
        tall=True,
    )
    return told, asked, *_open(leaf)


def _told(leaf: LeafSolution, show: Show) -> tuple[Row, ...]:
    said, f = leaf.leaf, leaf.figures
    kind = trade_name(said.build.kind)
    rows = [
        ("Leaf", f"{show.size(leaf.fit.width.value, leaf.fit.height.value, said.build.over_all)}, {kind}"),
        ("Made of", ", ".join(stuff(each).name for each in leaf.woods)),
        ("Hangs", f"{said.hanging}, {said.hand_in_words}, seen from the side that it opens to"),
        ("Weight", show.value(f["mass"].value, Unit.KG)),
    ]
    if leaf.fit.leaves > 1:
        rows.insert(1, ("Leaves", f"{leaf.fit.leaves}, each of this size"))
    if "clear_way" in f:
        rows.append(("Clear way when open", show.length(f["clear_way"].value)))
    if "leaf_change_wet" in f:
        wet, dry = f["leaf_change_wet"].value, f["leaf_change_dry"].value
        rows.append(
            (
                "Over the year",
                f"{show.length(abs(wet))} wider in the wettest weeks, {show.length(abs(dry))} narrower in the driest",
            )
        )
    return tuple(rows)


def _asked(leaf: LeafSolution, show: Show) -> tuple[Row, ...]:
    said, f, hardware = leaf.leaf, leaf.figures, leaf.leaf.hardware
    side = "left" if said.hand is Hand.LEFT else "right"
    swings = f"towards you, hinges on the {side}"
    over_floor = show.length(gap_as_hung(f, "gap_floor").value)
    asked = [
        ("Opens", f"{said.hanging}" if said.hanging.slides else swings),
        ("Look", leaf.build.summary if leaf.build is not None else ""),
        ("Finish", f"{finish_of(said.timber)}, both faces and all edges"),
        ("Gap over the floor", f"{over_floor} over the finished floor: carpet, threshold?"),
    ]
    if hardware.lock is not None and "lock_height" in f:
        asked.append(("Lock", f"its middle {show.length(f['lock_height'].value)} above the floor"))
    if hardware.latch.kind is not LatchKind.NONE and "latch_up" in f:
        asked.append(("Latch", f"{hardware.latch.kind}, {show.length(f['latch_up'].value)} above the floor"))
    if hardware.pull.kind is not PullKind.NONE and "pull_up" in f:
        asked.append(("Handle", f"{hardware.pull.kind}, {show.length(f['pull_up'].value)} above the floor"))
    if said.hanging is Hanging.PAIR:
        asked.append(("Which leaf opens first", f"the {side} one; bolts hold the other"))
    if any(part.species == "glass" for part in leaf.cut_parts):
        asked.append(("Glass", "safety glass where the code asks for it; who supplies it?"))
    if any(part.is_old for part in leaf.cut_parts):
        asked.append(("The old leaf", "is worked on; paint may hide what it is made of"))
    asked += [("Who hangs it, when", ""), ("Price", "")]
    return tuple((what, how, BOX, "") for what, how in asked)


def _open(leaf: LeafSolution) -> tuple[Block, ...]:
    """What is only assumed, and what the joiner has been warned of and has not settled."""
    rows = [
        (f"{each.label[:1].upper()}{each.label[1:]} is assumed; it is measured before it is made.",)
        for each in still_to_measure(leaf.figures)
    ]
    rows += [(f"{each.title}.",) for each in leaf.checks if each.level is Level.STOP]
    return (Block("Still open", ("",), (1.0,), tuple(rows), bold=-1),) if rows else ()
