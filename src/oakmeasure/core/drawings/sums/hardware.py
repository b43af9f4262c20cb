"""Drawings of the quick sums of hinges, screws and fixings."""

from __future__ import annotations

from oakmeasure.core.base.geometry import circle
from oakmeasure.core.drawings.drawing import BOLD, Anchor, Grain, Layer, Lettering
from oakmeasure.core.drawings.sums.members import Draft
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import Rect


def cup_boring(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    edge, cup, centre = d.v("boring_distance"), d.v("cup_diameter"), d.v("centre_from_edge")
    d.wood(Rect(0, -1.3 * cup, 3.2 * cup, 1.3 * cup), asked=False)
    hole = circle(centre, 0, cup / 2, steps=40)
    d.sketch.area(hole, Layer.METAL)
    d.sketch.line(hole, Layer.LEAF)
    d.sketch.line([(centre, -0.8 * cup), (centre, 0.8 * cup)], Layer.CENTRE)
    d.across(0, centre, 0.95 * cup, "centre_from_edge")
    d.across(0, edge, -0.8 * cup, "boring_distance")
    d.note(1.6 * cup, -1.5 * cup, "inner face of the leaf, hinge edge at the left")


def cup_reach(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    over, edge, reach = d.v("overlay"), d.v("boring"), d.v("reach")
    side, thick = 18.0, 18.0
    d.sketch.rect(Rect(0, 0, side, 70), Layer.WALL)
    d.sketch.box(Rect(0, 0, side, 70), Layer.OUTLINE)
    x0 = side - over
    d.wood(Rect(x0, -thick - 2, x0 + 90, -2), Grain.END, asked=False)
    d.sketch.rect(Rect(x0 + edge, -14, x0 + edge + 35, -2), Layer.METAL)
    d.sketch.box(Rect(x0 + edge, -14, x0 + edge + 35, -2), Layer.OUTLINE)
    d.sketch.line([(x0 + edge + 6, -4), (x0 + edge + 6, 9), (side, 9), (side, 37)], Layer.LEAF)
    d.across(x0, side, -thick - 12, "overlay")
    d.across(x0, x0 + edge, -thick - 24, "boring")
    d.sketch.write((side + 6, 52), f"reach {d.show.length(reach)}", BOLD)
    d.note(side + 36, 82, "in plan: cabinet side above, leaf below")


def butt_mortise(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    shut, gap, depth = d.v("closed_thickness"), d.v("gap"), d.v("depth")
    deep, long = 6 * shut, 9 * shut
    for x0, x1 in ((-deep - gap / 2, -gap / 2), (gap / 2, gap / 2 + deep)):
        d.wood(Rect(x0, 0, x1, long), Grain.UPRIGHT, asked=False)
    plate = Rect(-gap / 2 - depth, 2 * shut, gap / 2 + depth, 7 * shut)
    d.sketch.rect(plate, Layer.METAL)
    d.sketch.box(plate, Layer.LEAF)
    d.sketch.line([(0, 2 * shut), (0, 7 * shut)], Layer.OUTLINE)
    d.across(-gap / 2 - depth, -gap / 2, 7.7 * shut, "depth")
    d.across(-gap / 2, gap / 2, long + 0.9 * shut, "gap")
    d.across(plate.x0, plate.x1, 1.1 * shut, "closed_thickness")
    d.note(-deep / 2, -0.9 * shut, "lining")
    d.note(deep / 2, -0.9 * shut, "leaf")


def hinge_pull(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, apart = d.v("leaf_width"), d.v("hinge_spacing")
    h, foot = apart * 1.24, apart * 0.12
    d.wood(Rect(0, 0, w, h), asked=False)
    arrow = 0.26 * w
    for y, way, words in ((foot + apart, 1, d.text("pull")), (foot, -1, "pushes in")):
        d.sketch.rect(Rect(-0.02 * w, y - 0.03 * h, 0.02 * w, y + 0.03 * h), Layer.METAL)
        tip = arrow + 0.06 * w if way > 0 else 0.06 * w
        d.sketch.line([(0.06 * w, y), (arrow + 0.06 * w, y)], Layer.DOUBT)
        back = tip - way * 0.05 * w
        d.sketch.line([(back, y + 0.02 * h), (tip, y), (back, y - 0.02 * h)], Layer.DOUBT)
        d.sketch.write((arrow + 0.1 * w, y), words, Lettering(bold=way > 0, on_paper=True))
    d.sketch.line([(w / 2, h / 2), (w / 2, 0.36 * h)], Layer.DOUBT)
    d.sketch.label((w / 2, h / 2 + 0.03 * h), d.text("mass"), Lettering(on_paper=True))
    d.up(foot, foot + apart, -0.16 * w, "hinge_spacing")
    d.across(0, w, -0.05 * h, "leaf_width")


def hinge_transfer(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    h, gap, top, bottom = d.v("leaf_height"), d.v("head_gap"), d.v("top"), d.v("bottom")
    w = 0.4 * h
    d.wood(Rect(0, -gap - h, w, -gap), asked=False)
    for rect in (Rect(-0.05 * h, -gap - h, -0.003 * h, 0.05 * h), Rect(-0.003 * h, 0, w, 0.05 * h)):
        d.sketch.rect(rect, Layer.LINING)
        d.sketch.box(rect, Layer.OUTLINE)
    for y in (-top, -bottom):
        d.sketch.rect(Rect(-0.03 * h, y - 0.03 * h, 0.03 * h, y + 0.03 * h), Layer.METAL)
        d.sketch.box(Rect(-0.03 * h, y - 0.03 * h, 0.03 * h, y + 0.03 * h), Layer.LEAF)
    d.up(-top, 0, -0.1 * h, "top")
    d.up(-bottom, 0, -0.22 * h, "bottom")
    d.up(-gap - h, -gap, w + 0.07 * h, "leaf_height")


def screw_stack(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    at, high = 0.0, 60.0
    layers = (("spacer", Layer.WOOD), ("backing", Layer.WOOD), ("plaster", Layer.LINING))
    for at_row, (name, layer) in enumerate(layers):
        thick = d.v(name)
        if thick:
            rect = Rect(at, -high, at + thick, high)
            d.sketch.rect(rect, layer)
            d.sketch.box(rect, Layer.OUTLINE)
            words = d.found.figures[figure_name(name)].label.split()[0]
            d.sketch.line([(at + thick / 2, high), (at + thick / 2, high + 12 + 14 * at_row)], Layer.PENCIL)
            d.note(at + thick / 2 + 3, high + 12 + 14 * at_row, words, anchor=Anchor.LEFT)
            at += thick
    d.wood(Rect(at, -high, at + 2.4 * d.v("bite") + 10, high), Grain.END, asked=False)
    least = d.v("least_length")
    d.sketch.area([(0, 7), (0, -7), (5, -2.5), (least - 6, -2.5), (least, 0), (least - 6, 2.5), (5, 2.5)], Layer.METAL)
    d.sketch.line([(0, 7), (5, 2.5), (least - 6, 2.5), (least, 0), (least - 6, -2.5), (5, -2.5), (0, -7)], Layer.LEAF)
    d.across(0, least, -high - 16, "least_length")
    if "greatest_length" in d.found.figures:
        most = d.v("greatest_length")
        d.sketch.line([(most, -high - 44), (most, high)], Layer.DOUBT)
        d.across(0, most, -high - 44, "greatest_length")


def screw_hold(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    thick, thread = d.v("diameter"), d.v("thread")
    r, plate = thick / 2, 0.3 * thread
    d.wood(Rect(-1.2 * thread, 0, 1.2 * thread, 1.5 * thread), Grain.LEVEL, asked=False)
    d.sketch.rect(Rect(-0.8 * thread, -plate, 0.8 * thread, 0), Layer.METAL)
    d.sketch.box(Rect(-0.8 * thread, -plate, 0.8 * thread, 0), Layer.OUTLINE)
    body = [(-2 * r, -plate), (2 * r, -plate), (r, 0.0), (r, thread - r), (0.0, thread), (-r, thread - r), (-r, 0.0)]
    d.sketch.area(body, Layer.METAL)
    d.sketch.line([*body, body[0]], Layer.LEAF)
    d.up(0, thread, 1.35 * thread, "thread")
    d.sketch.line([(0, -plate), (0, -plate - 0.7 * thread)], Layer.DOUBT)
    d.sketch.write((0.1 * thread, -plate - 0.5 * thread), d.text("withdrawal"), BOLD)


VIEWS = {
    "cup-boring": cup_boring,
    "cup-reach": cup_reach,
    "butt-mortise": butt_mortise,
    "hinge-pull": hinge_pull,
    "hinge-transfer": hinge_transfer,
    "screw-stack": screw_stack,
    "screw-hold": screw_hold,
}
