"""What in a leaf can be moved out of the way, how far, and the edit that moves it."""

from __future__ import annotations

from collections.abc import Callable

from oakmeasure.core.document.hinges import LatchKind, PullKind
from oakmeasure.core.figures.check import Remedy
from oakmeasure.core.hardware.clash.search import Mover
from oakmeasure.core.hardware.hinges.butt_places import Butts
from oakmeasure.core.hardware.hinges.cups import Cups
from oakmeasure.core.leaf.leaf_context import Context

# Of a cup's middle from the leaf's end
END_LEAST = 30.0
END_MOST = 600.0


def movers(ctx: Context, butts: Butts | None, cups: Cups | None) -> list[Mover]:
    """Return everything that can be moved, in the order in which a joiner would rather move it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        butts: The leaf's butts; None where it hangs on something else.
        cups: The leaf's cup hinges; None where it hangs on something else.
    """
    found = [*_heights(ctx), *(_butts(ctx, butts) if butts else ()), *(_cups(ctx, cups) if cups else ())]
    if "bolt_in" in ctx.figures:
        found.append(_bolts(ctx))
    return found


def up_or_down(way: float) -> str:
    """Return a distance with its direction in words.

    Args:
        way: How far, mm; less than 0 is down.
    """
    return "up" if way > 0 else "down"


def _move(ctx: Context, what: str, field: str, value: float, sign: float = 1.0) -> Callable[[float], Remedy]:
    """Return the edit of something whose field grows with its height (sign 1) or falls (−1)."""

    def edit(way: float) -> Remedy:
        return Remedy(f"Move {what} {up_or_down(way)} {ctx.fmt(abs(way))}", field, round(value + sign * way, 3))

    return edit


def _heights(ctx: Context) -> list[Mover]:
    """Latch, pull and, where no rail goes with it, lock: each at a height above the floor."""
    h, f = ctx.leaf.hardware, ctx.figures
    found = []
    if h.latch.kind is not LatchKind.NONE:
        found.append(
            Mover(
                {"latch": 1.0, "thumb slot": 1.0},
                "y",
                100 - h.latch.up,
                2500 - h.latch.up,
                _move(ctx, "the latch", "hardware.latch.up", h.latch.up),
            )
        )
    if h.pull.kind is not PullKind.NONE:
        found.append(
            Mover(
                {"pull": 1.0, "flush pull": 1.0},
                "y",
                100 - h.pull.up,
                2500 - h.pull.up,
                _move(ctx, "the pull", "hardware.pull.up", h.pull.up),
            )
        )
    height = f.get("lock_height")
    if h.lock is not None and height is not None and height.edit and not ctx.leaf.build.judges_its_lock:
        found.append(
            Mover(
                {"lock": 1.0},
                "y",
                300 - height.value,
                1900 - height.value,
                _move(ctx, "the lock", height.edit, height.value),
            )
        )
    return found


def _butts(ctx: Context, butts: Butts) -> list[Mover]:
    """Each butt by itself, no further than its neighbours and the leaf's ends."""
    places = butts.places
    tops = [each.top.value for each in places]
    height = places[0].rect.y1 + tops[0] if places else 0.0
    found = []
    for at, each in enumerate(places):
        above = places[at - 1].rect.y0 if at else height
        below = places[at + 1].rect.y1 if at + 1 < len(places) else 0.0

        def edit(way: float, at: int = at) -> Remedy:
            moved = tuple(round(top - way, 3) if n == at else top for n, top in enumerate(tops))
            words = f"Move butt {at + 1} {up_or_down(way)} {ctx.fmt(abs(way))}, to {ctx.fmt(moved[at])}"
            return Remedy(words, "hardware.tops", moved)

        found.append(Mover({f"butt {each.number}": 1.0}, "y", below - each.rect.y0, above - each.rect.y1, edit))
    return found


def _cups(ctx: Context, cups: Cups) -> list[Mover]:
    """The top and the bottom cup; those between follow from them."""
    if len(cups.places) < 2:
        return []
    choice, places = ctx.leaf.hardware.cup, cups.places
    first, last = choice.first, choice.first if choice.last is None else choice.last
    return [
        Mover(
            {f"cup {places[0].number}": 1.0},
            "y",
            first - END_MOST,
            first - END_LEAST,
            _move(ctx, "the top cup", "hardware.cup.first", first, -1.0),
        ),
        Mover(
            {f"cup {places[-1].number}": 1.0},
            "y",
            END_LEAST - last,
            END_MOST - last,
            _move(ctx, "the bottom cup", "hardware.cup.last", last),
        ),
    ]


def _bolts(ctx: Context) -> Mover:
    """Both hangers of a sliding leaf, in from its edges."""
    at = ctx.figures["bolt_in"].value

    def edit(way: float) -> Remedy:
        side = "in" if way > 0 else "out"
        return Remedy(f"Move the hangers {side} {ctx.fmt(abs(way))}", "hardware.hangers.bolt_in", round(at + way, 3))

    middle = ctx.figures["leaf_width"].value / 2  # beyond it each would be the other
    return Mover({"hanger 1": 1.0, "hanger 2": -1.0}, "x", 15 - at, min(600.0, middle) - at, edit)
