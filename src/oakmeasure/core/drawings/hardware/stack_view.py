"""A fixing as a stack, cut open: what a screw of a track or a hinge passes, what it bites, what it must miss."""

from __future__ import annotations

from oakmeasure.core.base.geometry import circle
from oakmeasure.core.base.units import Show
from oakmeasure.core.document.sliding_gear import WallKind
from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Drawing, Layer, Lettering, Sketch
from oakmeasure.core.drawings.hatching import hatching
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.solution import LeafSolution

SHOWN = 70.0  # of what carries it, beyond the longest screw drawn at the least
LAYERS = (
    ("stack_lining", "lining", Layer.WOOD),
    ("lining_thickness", "lining", Layer.WOOD),
    ("stack_spacer", "packer", Layer.END_GRAIN),
    ("stack_backing", "backing board", Layer.WOOD),
    ("stack_plaster", "plaster", Layer.SPACE),
)
BAND = 46.0  # of the wall that is drawn, up and down


def stack_view(leaf: LeafSolution, show: Show) -> Drawing:
    """Return the stack on its own, large.

    Args:
        leaf: The leaf, worked out to the end.
        show: How lengths and other quantities are written.
    """
    sketch = Sketch(show)
    step = sketch.step = 3.0
    stack_drawn(sketch, leaf, 0.0, 0.0)
    return sketch.drawing(margin=4 * step)


def stack_drawn(page: Sketch, leaf: LeafSolution, x: float, top: float) -> float:
    """Draw the stack with its left upper corner at x, top; return how far down it reaches.

    Args:
        page: The drawing that is added to, which is not mirrored by the hand.
        leaf: The leaf, worked out to the end.
        x: Across, away from the hinge edge, mm.
        top: Upper edge of the drawing, mm.
    """
    step = page.step
    f, slides = leaf.figures, leaf.leaf.hanging.slides
    title = "Section through a track screw" if slides else "Section through a hinge's long screw"
    page.write((x, top), title, BOLD)
    if "stack_passes" not in f:
        page.write((x, top - 4.2 * step), "nothing of this leaf is screwed to a wall", PENCIL)
        return top - 10 * step
    page.write((x, top - 4.2 * step), "from the room to the wall's inside", PENCIL)
    shown = [
        (f[figure_name(name)].value, name, word, layer)
        for name, word, layer in LAYERS
        if figure_name(name) in f and f[figure_name(name)].value > 0 and not (name == "lining_thickness" and slides)
    ]
    passes = f["stack_passes"].value
    screw = f["stack_screw"].value if "stack_screw" in f else None
    whole = passes + max((screw or f["stack_least"].value) - passes + 20.0, SHOWN)
    big = 44 * step / max(whole, 60.0)
    y0, y1 = top - 9 * step - BAND * big, top - 9 * step
    at = 0.0
    for row, (thick, name, word, layer) in enumerate(shown):
        rect = Rect(x + at * big, y0, x + (at + thick) * big, y1)
        page.rect(rect, layer, ref=f"figure:{name}")
        page.box(rect, Layer.OUTLINE, ref=f"figure:{name}")
        low = y0 - (3 + 4.4 * row) * step
        middle = (rect.x0 + rect.x1) / 2
        page.line([(middle, y0), (middle, low)], Layer.FAINT)
        page.write(
            (middle + step, low), f"{word} {page.show.length(thick)}", Lettering(on_paper=True), ref=f"figure:{name}"
        )
        at += thick
    _inside(page, leaf, Rect(x + at * big, y0, x + whole * big, y1))
    below = y0 - (3 + 4.4 * len(shown)) * step
    if "stack_most" in f:
        _pipe(page, leaf, x, at, big, (y0, y1))
    if screw is not None:
        _screw(page, leaf, x, big, (y0 + y1) / 2)
    else:
        page.write(
            (x, below - 4.4 * step),
            "no screw both bites and stays short",
            Lettering(Layer.DOUBT, bold=True),
            ref="figure:stack_least",
        )
    return below - 9 * step


def _inside(page: Sketch, leaf: LeafSolution, rect: Rect) -> None:
    step = page.step
    kind = leaf.leaf.hardware.wall.kind if leaf.leaf.hanging.slides else WallKind.STUDS
    if kind is WallKind.BOARD:
        page.label(((rect.x0 + rect.x1) / 2, (rect.y0 + rect.y1) / 2), "nothing", Lettering(Layer.DOUBT))
        return
    page.rect(rect, Layer.END_GRAIN if kind is WallKind.STUDS else Layer.WALL)
    for line in hatching(rect, 1.8 * step):
        page.line(line, Layer.FAINT)
    page.box(rect, Layer.OUTLINE)
    page.label(
        (rect.x1 - step, rect.y1 - 3 * step),
        "stud" if kind is WallKind.STUDS else "masonry",
        Lettering(size=0.95, on_paper=True),
        anchor=Anchor.RIGHT,
    )


def _pipe(page: Sketch, leaf: LeafSolution, x: float, at: float, big: float, band: tuple[float, float]) -> None:
    """What must not be reached, at its depth from the wall's own face."""
    step = page.step
    f = leaf.figures
    plaster = f["stack_plaster"].value if "stack_plaster" in f else 0.0
    deep = x + (at - plaster + f["stack_depth"].value) * big
    page.line([(deep, band[0] - step), (deep, band[1] + step)], Layer.DOUBT, ref="figure:stack_depth")
    page.line(circle(deep + 7 * big, band[0] + 9 * big, 7 * big), Layer.DOUBT, ref="figure:stack_depth")
    page.label(
        (deep + step, band[1] + 3 * step),
        f"not to be reached: {page.show.length(f['stack_depth'].value)}",
        Lettering(Layer.DOUBT, 0.95),
        ref="figure:stack_depth",
    )


def _screw(page: Sketch, leaf: LeafSolution, x: float, big: float, y: float) -> None:
    show = page.show
    screw, passes = leaf.figures["stack_screw"].value, leaf.figures["stack_passes"].value
    half = leaf.leaf.hardware.stack.diameter / 2 * big
    page.area(
        [
            (x, y - half),
            (x + (screw - 4) * big, y - half),
            (x + screw * big, y),
            (x + (screw - 4) * big, y + half),
            (x, y + half),
        ],
        Layer.METAL,
        ref="figure:stack_screw",
    )
    page.area(
        [(x - 3 * big, y - 2 * half), (x, y - 2 * half), (x, y + 2 * half), (x - 3 * big, y + 2 * half)],
        Layer.METAL,
        ref="figure:stack_screw",
    )
    line = y + 11 * big
    page.dimension((x + passes * big, line), (x + screw * big, line), show.length(screw - passes), figure="stack_bites")
    line = y - 13 * big
    page.dimension((x, line), (x + screw * big, line), show.length(screw), figure="stack_screw")
