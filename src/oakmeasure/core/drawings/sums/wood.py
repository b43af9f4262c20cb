"""Drawings of the quick sums of wood."""

from __future__ import annotations

from oakmeasure.core.drawings.drawing import BOLD, PENCIL, Anchor, Grain, Layer, Lettering
from oakmeasure.core.drawings.sums.members import Draft
from oakmeasure.core.leaf.part import Rect
from oakmeasure.core.timber.wood import equilibrium_moisture

# Of the curve, in drawing units
WIDE = 600.0
TALL = 340.0
MOST = 28.0  # % of moisture on its scale


def movement(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    w, change = d.v("width"), d.v("change")
    h, seen = 0.3 * w, change * min(10.0, 0.12 * w / max(abs(change), 1e-9))
    d.wood(Rect(0, 0, w, h), Grain.END)
    d.sketch.box(Rect(0, 0, w + seen, h), Layer.DOUBT)
    d.across(0, w, -0.25 * h, "width")
    d.sketch.write((w + max(seen, 0) + 0.03 * w, 0.5 * h), d.text("change"), BOLD)
    d.note(w / 2, 1.3 * h, "the change is drawn larger than it is")


def emc(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    air, at, rests = d.v("temperature"), d.v("humidity"), d.v("moisture")

    def place(humidity: float, moisture: float) -> tuple[float, float]:
        return WIDE * humidity / 100, TALL * moisture / MOST

    for moisture in range(0, int(MOST) + 1, 4):
        d.sketch.line([place(0, moisture), place(100, moisture)], Layer.FAINT)
        d.note(-10, place(0, moisture)[1], f"{moisture} %", anchor=Anchor.RIGHT)
    for humidity in range(0, 101, 20):
        d.sketch.line([place(humidity, 0), place(humidity, MOST)], Layer.FAINT)
        d.sketch.label(place(humidity, -0.8), f"{humidity} %", PENCIL, anchor=Anchor.BELOW)
    curve = [place(each, equilibrium_moisture(temperature=air, humidity=each)) for each in range(99)]
    d.sketch.line([each for each in curve if each[1] <= TALL], Layer.LEAF)
    x, y = place(at, min(rests, MOST))
    d.sketch.line([(x, 0), (x, y), (0, y)], Layer.DOUBT)
    d.sketch.label((x - 12, y + 16), d.text("moisture"), BOLD, anchor=Anchor.RIGHT)
    d.note(WIDE / 2, -64, f"humidity of air at {d.text('temperature')}")


def weight(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    long, wide, thick = d.v("length"), d.v("width"), d.v("thickness")
    lean = 0.35 * min(thick, long, wide) + 0.04 * max(long, wide)
    d.wood(Rect(0, 0, long, wide), Grain.LEVEL)
    top = [(0.0, wide), (lean, wide + lean), (long + lean, wide + lean), (long, wide)]
    end = [(long, 0.0), (long + lean, lean), (long + lean, wide + lean), (long, wide)]
    d.shape(top)
    d.shape(end, grain=Grain.END)
    d.across(0, long, -0.12 * wide, "length")
    d.up(0, wide, -0.06 * long, "width")
    d.sketch.label((long / 2, wide / 2), d.text("mass"), Lettering(size=1.6, bold=True, on_paper=True))


def veneers(d: Draft) -> None:
    """Draw what the sum is about, with its figures where they are.

    Args:
        d: The drawing that is made of the sum.
    """
    stock, veneer, kerf, count = d.v("board_thickness"), d.v("veneer"), d.v("kerf"), round(d.v("leaves"))
    wide = 3.2 * stock
    d.sketch.rect(Rect(0, 0, wide, stock), Layer.WASTE)
    for n in range(count):
        y = n * (veneer + kerf)
        d.wood(Rect(0, y, wide, y + veneer), Grain.LEVEL)
    d.sketch.box(Rect(0, 0, wide, stock), Layer.OUTLINE)
    d.up(0, stock, -0.1 * wide, "board_thickness")
    d.sketch.write((wide * 1.05, stock / 2), f"{count} leaves", BOLD)
    d.note(wide / 2, -0.25 * stock, "the board on edge, its end; kerfs and what is left hatched")


VIEWS = {"movement": movement, "emc": emc, "weight": weight, "veneer-yield": veneers}
