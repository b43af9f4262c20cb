"""Hangers of a leaf that slides: where they hold it, what each carries, and what is bored or let in for them.

Two hangers share the weight as the centre of gravity lies between them; a leaf that hangs beside its wheels pulls on
its upper bolts besides: share × offset ÷ bolts apart. Sources: statics; common practice of the trade.
"""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.prisms import block, bore
from oakmeasure.core.base.units import GRAVITY, Unit
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.sliding_gear import HangerKind
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutIn, CutSide, Datum, leaf_cut
from oakmeasure.core.hardware.locks.mortise_locks import middle, name_at, through_at
from oakmeasure.core.leaf.leaf_context import Context

USUAL_KIND = {
    Hanging.POCKET: HangerKind.TOP,
    Hanging.BYPASS_TRACKS: HangerKind.TOP,
    Hanging.FLOOR_GEAR: HangerKind.FLOOR,
}
# Until a set is chosen: common practice, no source
USUAL_IN = 75.0
USUAL_OFF = 25.0
USUAL_RATING = 40.0
USUAL_PLATE = {HangerKind.TOP: (70.0, 20.0, 4.0), HangerKind.FLOOR: (120.0, 20.0, 36.0)}
EDGE_WOOD = 2.0  # of a bolt's own diameters, from its middle to the leaf's edge: common practice, no source


@dataclass(frozen=True, slots=True)
class Gear:
    """What a leaf slides on."""

    kind: HangerKind
    """How it is held."""
    at: tuple[float, float]
    """Middles of its two hangers from the leaf's hinge edge, mm."""
    loads: tuple[Figure, Figure]
    """What each hanger carries, N."""
    borings: tuple[Boring, ...] = ()
    """In the leaf."""
    holes: tuple[float, ...] = ()
    """Of the track from its hinge end as it is first held up."""
    held: tuple[bool, ...] = ()
    """Which of them find wood, (); empty on masonry."""
    studs: tuple[float, ...] = ()
    """Their middles."""
    shift: float = 0.0
    """How far the track is shifted, mm."""
    shims: tuple[Figure, ...] = ()
    """At each hole, of a track on the floor."""


def shares(*, mass: float, first: float, second: float, centre: float) -> tuple[float, float]:
    """Return what two hangers carry, N.

    A centre outside of them loads one with more than the whole. Source: moments about the other hanger.

    Args:
        mass: Of the leaf, kg.
        first: Middle of the first hanger, from one edge of the leaf, mm.
        second: Middle of the second hanger, from the same edge, mm.
        centre: Place of the centre of gravity, from the same edge, mm.

    Raises:
        InputError: Unless first < second.

    >>> [round(each, 1) for each in shares(mass=52.6, first=75, second=825, centre=450)]
    [257.9, 257.9]
    """
    if not first < second:
        raise InputError("bolt_in", first, f"less than half of the leaf: the hangers stand {second - first:g} mm apart")
    whole = mass * GRAVITY
    right = whole * (centre - first) / (second - first)
    return whole - right, right


def eccentric(*, share: float, off: float, apart: float) -> float:
    """Return the pull on a hanger's upper bolt from a leaf that hangs beside its wheel, N: share × off ÷ apart.

    Source: moments about the lower bolt.

    Args:
        share: What the hanger carries, N.
        off: From the wheel's plane to the leaf's middle, mm.
        apart: Between the two bolts, mm.

    Raises:
        InputError: For apart of 0.

    >>> eccentric(share=172.0, off=30.0, apart=60.0)
    86.0
    """
    if apart <= 0:
        raise InputError("bolt_apart", apart, "more than 0")
    return share * off / apart


def kind_of(ctx: Context) -> HangerKind:
    """Return how the leaf is held: as chosen, by its set, or as is usual for its way of hanging.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice, fixed = ctx.leaf.slide.track_set, ctx.leaf.hardware.hangers.kind
    if fixed is not None:
        return fixed
    return choice.kind if choice is not None else USUAL_KIND.get(ctx.leaf.hanging, HangerKind.FACE)


def gear_figure(ctx: Context, name: str, label: str, default: float, unit: Unit = Unit.MM) -> Figure:
    """Add a figure of the gear: set by hand, else of the set, else what is usual until one is chosen.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        name: Its name.
        label: What it is called, for the working and the drawing.
        default: What it is where the set does not say so, in the figure's unit.
        unit: Its unit.
    """
    value, source = getattr(ctx.leaf.hardware.hangers, name), "set by hand for this leaf"
    track = ctx.leaf.slide.track_set
    if value is None:
        value, source = (
            (getattr(track, name), track.name)
            if track is not None and hasattr(track, name)
            else (default, "taken until a set is chosen")
        )
    return ctx.figures.given(
        figure_name(name), label, value, fixed(f"hardware.hangers.{name}", source=source), unit=unit
    )


def hang_on_hangers(ctx: Context, fit: Fit, body: Body, mass: Figure) -> Gear | None:
    """Place the hangers, share the load between them, judge them; None where they lie beyond the leaf.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        body: The leaf's pieces in place.
        mass: Of the leaf, kg.
    """
    kind, f = kind_of(ctx), ctx.figures
    inward = gear_figure(ctx, "bolt_in", "hangers' middles, from the leaf's edges", USUAL_IN)
    apart = f.total("hangers_apart", "between the two hangers", plus(fit.width), minus(inward, 2))
    if apart.value <= 0:
        usual = min(USUAL_IN, fit.width.value / 4)
        ctx.stop(
            "hangers-beyond",
            "The hangers lie beyond the leaf's middle",
            f"{ctx.fmt(inward)} from each edge of {ctx.fmt(fit.width)}.",
            Remedy(f"{ctx.fmt(usual)} from the edges", "hardware.hangers.bolt_in", usual),
            grounds=Grounds("hangers_apart"),
        )
        return None
    at = (inward.value, fit.width.value - inward.value)
    loads = _loads(ctx, kind, mass, at, inward, apart)
    _judge_rating(ctx, kind, mass, loads)
    borings = _bolts(ctx, fit, body, at) if kind is HangerKind.FACE else _let_in(ctx, fit, body, kind, at)
    return Gear(kind, at, loads, borings)


def _loads(
    ctx: Context, kind: HangerKind, mass: Figure, at: tuple[float, float], inward: Figure, apart: Figure
) -> tuple[Figure, Figure]:
    f = ctx.figures
    centre = f.get("centre_across") or f.derived(
        "centre_across", "centre of gravity, from the hinge edge", sum(at) / 2, f["leaf_width"], formula="its middle"
    )
    left, right = shares(mass=mass.value, first=at[0], second=at[1], centre=centre.value)
    word = "wheel" if kind is HangerKind.FLOOR else "hanger"
    one = f.derived(
        "hanger_1",
        f"{word} at the hinge side carries",
        left,
        mass,
        centre,
        inward,
        apart,
        formula="weight × 9.80665 × (other hanger − centre of gravity) ÷ apart",
        unit=Unit.N,
    )
    two = f.derived(
        "hanger_2",
        f"{word} at the latch side carries",
        right,
        mass,
        centre,
        inward,
        apart,
        formula="weight × 9.80665 × (centre of gravity − first hanger) ÷ apart",
        unit=Unit.N,
    )
    return one, two


def _judge_rating(ctx: Context, kind: HangerKind, mass: Figure, loads: tuple[Figure, Figure]) -> None:
    """The greater share, with what hanging beside the wheels adds, against what one hanger is rated for."""
    f, choice = ctx.figures, ctx.leaf.hardware.hangers
    most = max(loads, key=lambda each: each.value)
    rating = gear_figure(ctx, "rating_kg", "rated: one hanger", USUAL_RATING, Unit.KG)
    works = most
    if kind is HangerKind.FACE:
        works = _with_eccentric(ctx, most)
    limit = f.derived(
        "hanger_limit", "a hanger may bear", rating.value * GRAVITY, rating, formula="rating × 9.80665", unit=Unit.N
    )
    proof = ctx.chosen(
        "proof_ratio", "proof load, of the leaf's own weight", choice.proof, "hardware.hangers.proof", Unit.RATIO
    )
    load = f.derived(
        "proof_load",
        "proof load, before the leaf goes up",
        proof.value * mass.value,
        proof,
        mass,
        formula="ratio × weight",
        unit=Unit.KG,
    )
    if choice.rating_kg is None and ctx.leaf.slide.track_set is None:
        ctx.warn(
            "gear-not-chosen",
            "The set is not chosen yet",
            f"Places and recesses are those of a usual one. It will have to bear {ctx.fmt(works)} a hanger.",
            Remedy("Choose a set, or write what a hanger of yours is rated for"),
            grounds=Grounds("hanger_works" if kind is HangerKind.FACE else most.name),
        )
        return
    _say_rating(ctx, kind, (most, works, rating), limit, load)


def _say_rating(
    ctx: Context, kind: HangerKind, hanger: tuple[Figure, Figure, Figure], limit: Figure, load: Figure
) -> None:
    """Say how much of its rating a hanger uses: by its greater share, what it bears with that, and its rating."""
    f, choice, (most, works, rating) = ctx.figures, ctx.leaf.hardware.hangers, hanger
    ratio = f.derived(
        "hanger_ratio",
        "of its rating a hanger uses",
        works.value / limit.value,
        works,
        limit,
        formula="bears ÷ may bear",
        unit=Unit.RATIO,
    )
    words = f"{ctx.fmt(works)} of {ctx.fmt(limit)}, {ctx.fmt(rating)} a hanger."
    if works.value > limit.value:
        need = works.value / GRAVITY
        ctx.stop(
            "hangers-weak",
            "The hangers are too weak for the leaf",
            words,
            Remedy(f"Hangers rated for {ctx.show.value(need, Unit.KG)} and more"),
            *(
                [Remedy("Bolts further apart", "hardware.hangers.bolt_apart", min(2 * choice.bolt_apart, 300.0))]
                if kind is HangerKind.FACE and choice.bolt_apart < 150
                else []
            ),
            grounds=Grounds("hanger_works" if kind is HangerKind.FACE else most.name, rule="its sheet"),
        )
    else:
        ctx.fine(
            "hangers-carry",
            f"The hangers carry it at {ratio.value:.0%} of their rating",
            f"{words} Hang {ctx.fmt(load)} from the track first.",
            grounds=Grounds(ratio.name, rule="its sheet"),
        )


def _with_eccentric(ctx: Context, most: Figure) -> Figure:
    """Return what a hanger bears with what hanging beside its wheel adds."""
    f, choice = ctx.figures, ctx.leaf.hardware.hangers
    off = gear_figure(ctx, "off", "wheel's plane to the leaf's middle", USUAL_OFF)
    if ctx.leaf.hanging is Hanging.BYPASS_RAIL:  # the outer of the two hangs further out
        off = f.total(
            "off_outer",
            "outer leaf: wheel's plane to its middle",
            plus(off),
            plus(f["thickness"]),
            plus(f["slide_air"]),
        )
    apart = ctx.chosen("bolt_apart", "a hanger's two bolts apart", choice.bolt_apart, "hardware.hangers.bolt_apart")
    pull = eccentric(share=most.value, off=off.value, apart=apart.value)
    extra = f.derived(
        "hanger_eccentric",
        "pull on the upper bolt, from hanging beside the wheel",
        pull,
        most,
        off,
        apart,
        formula="share × offset ÷ bolts apart",
        unit=Unit.N,
    )
    return f.total("hanger_works", "a hanger bears, with its eccentric part", plus(most), plus(extra))


# --- what is cut for them ------------------------------------------------------------------------------------


def _bolts(ctx: Context, fit: Fit, body: Body, at: tuple[float, float]) -> tuple[Boring, ...]:
    choice, f = ctx.leaf.hardware.hangers, ctx.figures
    down = ctx.chosen(
        "bolt_down", "upper bolt, down from the leaf's top", choice.bolt_down, "hardware.hangers.bolt_down"
    )
    size = ctx.chosen("bolt", "hanger bolts, diameter", choice.bolt, "hardware.hangers.bolt")
    h = fit.height.value
    ys = (h - down.value, h - down.value - choice.bolt_apart)
    holes = [(number, n, x, y, *through_at(body, x, y)) for number, x in enumerate(at, 1) for n, y in enumerate(ys, 1)]
    thickest = max(back - front for *_, (front, back) in holes)
    over = f.given("bolt_through", "wood at the bolts", thickest, fixed(source="what is there"))
    length = f.given(
        "bolt_nut",
        "washer and nut beyond the wood",
        round(1.5 * size.value),
        fixed(source="one and a half diameters: common practice"),
    )
    f.total("bolt_length", "hanger bolts, length under the head", plus(over), plus(length))
    wood = EDGE_WOOD * size.value
    if down.value < wood or at[0] < wood:
        ctx.warn(
            "bolts-edge",
            "The hanger bolts are near the edge",
            f"{ctx.fmt(min(down.value, at[0]))} from it; a bolt of {ctx.fmt(size)} wants {ctx.fmt(wood)}.",
            Remedy(f"{ctx.fmt(wood)} down", "hardware.hangers.bolt_down", max(wood, 10.0))
            if down.value < wood
            else Remedy(f"{ctx.fmt(wood)} in", "hardware.hangers.bolt_in", wood),
            grounds=Grounds("bolt_down", rule="two diameters from its middle"),
        )
    return tuple(
        Boring(
            BoringKind.HANGER_BOLT,
            CutIn.LEAF,
            member,
            CutSide.OPENING_THROUGH_AT_HINGE if number == 1 else CutSide.OPENING_THROUGH_AT_LATCH,
            Datum.LEAF_TOP,
            h - y - size.value / 2,
            size.value,
            at[0],
            faces[1] - faces[0],
            bore(x, y, size.value, faces),
            number=number,
            at=n,
        )
        for number, n, x, y, member, faces in holes
    )


def _let_in(ctx: Context, fit: Fit, body: Body, kind: HangerKind, at: tuple[float, float]) -> tuple[Boring, ...]:
    """Plates in the head, or wheels in the foot with the groove over the head that guides them."""
    track, f, w, h = ctx.leaf.slide.track_set, ctx.figures, fit.width.value, fit.height.value
    long, wide, deep = track.plate if track is not None and track.plate[0] else USUAL_PLATE[kind]
    what = "wheel" if kind is HangerKind.FLOOR else "hanger"
    source = track.name if track is not None else "taken until a set is chosen"
    thick = f["thickness"]
    size = f.given("plate_wide", f"{what}'s recess, wide", wide, fixed(source=source))
    f.given("plate_deep", f"{what}'s recess, deep", deep, fixed(source=source))
    cheek = f.total("plate_cheek", f"wood beside the {what}'s recess, each side", plus(thick, 0.5), minus(size, 0.5))
    if cheek.value < 5.0:
        ctx.report(
            "recess-thin",
            Level.STOP if cheek.value < 2 else Level.WARNING,
            f"The {what}s' recesses leave thin cheeks",
            f"{ctx.fmt(cheek)} on each side of {ctx.fmt(size)}.",
            ctx.thickness_remedy(f"A leaf of {ctx.fmt(wide + 10)}", wide + 10),
            grounds=Grounds("plate_cheek", rule=f"{ctx.fmt(5.0)} on each side"),
        )
    faces = body.along("hinge")
    lies = middle(faces, wide)
    floor = kind is HangerKind.FLOOR
    edge = CutSide.FOOT if floor else CutSide.HEAD
    y0, y1 = (0.0, deep) if floor else (h - deep, h)
    found = [
        Boring(
            BoringKind.WHEEL_RECESS if floor else BoringKind.HANGER_RECESS,
            CutIn.LEAF,
            name_at(body, (x, (y0 + y1) / 2, (faces[0] + faces[1]) / 2)),
            edge,
            Datum.LEAF_TOP,
            h - y1,
            y1 - y0,
            x if n == 1 else w - x,
            deep,
            block(x - long / 2, y0, x + long / 2, y1, lies),
            number=n,
        )
        for n, x in enumerate(at, start=1)
    ]
    groove = track.head_groove if track is not None else (12.0, 22.0)
    if floor and groove[1]:
        found.append(
            leaf_cut(
                BoringKind.HEAD_GROOVE,
                "head",
                CutSide.HEAD_ALONG,
                0.0,
                (groove[1], groove[0], groove[1]),
                block(0.0, h - groove[1], w, h, middle(faces, groove[0])),
            )
        )
    return tuple(found)
