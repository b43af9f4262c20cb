"""Butt hinges: how many, where on leaf and jamb, how deep let in, what they carry.

Sources: common practice of the trade; places by school; depth = (closed − gap) / 2.
"""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.prisms import block
from oakmeasure.core.base.units import Unit
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import is_chosen
from oakmeasure.core.document.rules import ButtSchool, ShopRules
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, derived, fixed, given, minus, plus, total
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.fit.frame import Frame, add_head_gap
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutIn, CutSide, Datum, jamb_datum, leg
from oakmeasure.core.hardware.hinges import butt_checks as checks
from oakmeasure.core.hardware.hinges.butt_places import ButtPlace, Butts
from oakmeasure.core.hardware.hinges.butt_schools import (
    ELEVEN_INCHES,
    ONE_MORE_PER,
    SEVEN_INCHES,
    THREE_UP_TO_HEIGHT,
    TWO_UP_TO_HEIGHT,
    TWO_UP_TO_MASS,
    ButtEnds,
    butt_count,
    places_by_school,
)
from oakmeasure.core.hardware.hinges.loads import top_hinge_pull
from oakmeasure.core.hardware.hinges.mortise_depth import mortise_depth
from oakmeasure.core.hardware.hinges.old_recesses import OldPlaces, judge_recesses, old_places, tops_from
from oakmeasure.core.leaf.gap_choice import gap_let_in_for
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Rect

BUTT_FIGURES = (
    ("length", "butt_length", "butt, length", Unit.MM),
    ("leaf_width", "butt_leaf", "butt, width of one leaf", Unit.MM),
    ("closed_thickness", "butt_closed", "butt, thickness when shut", Unit.MM),
    ("pin_projection", "butt_knuckle", "pin's centre, out from the face", Unit.MM),
    ("pin_inset", "butt_setback", "pin's centre, back from the edge", Unit.MM),
    ("rating_kg", "butt_rating_kg", "butts, the leaf they are rated for", Unit.KG),
)


def add_butt_figures(ctx: Context) -> None:
    """Add the butt's own figures with their states, before fit needs its pin.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    butt = ctx.leaf.hardware.butt
    for field, name, label, unit in BUTT_FIGURES:
        reading = getattr(butt, field)
        ctx.reading(figure_name(name), label, reading, f"hardware.butt.{field}", f"“{butt.name}”", unit)


def hang_on_butts(ctx: Context, fit: Fit, frame: Frame, body: Body, mass: Figure) -> Butts:
    """Place the butts on leaf and jamb, and judge number, places, let-in and load.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf, as high as its hinge edge is, mm.
        frame: What the leaf hangs in.
        body: The leaf's pieces in place.
        mass: Of the leaf, kg.
    """
    height, length = fit.height, ctx.figures["butt_length"]
    by_rule = butt_count(height=height.value, mass=mass.value)
    old = old_places(ctx)
    count = _count(ctx, height, mass, by_rule, old)
    school = ctx.leaf.hardware.school or ctx.rules.butt_school
    end = _ends_from(ctx, school, length)
    depth = _depth(ctx, old)
    across = _across(ctx, body, mass)
    tops = _tops(ctx, school, int(count.value), height, length, end)
    if not tops[school]:
        ctx.stop(
            "butts-room",
            "The butts do not fit up the edge",
            f"{int(count.value)} of {ctx.fmt(length)} in a leaf of {ctx.fmt(height)}.",
            Remedy("Shorter or fewer butts"),
            grounds=Grounds("butt_count"),
        )
    by_hand = _by_hand(ctx, int(count.value), height, length)
    if by_hand:
        tops[school] = by_hand
    add_head_gap(ctx, frame, "hinge")
    if old is not None:
        tops[school] = tops_from(old, frame, height.value)
        judge_recesses(ctx, old)
    downs = old.downs if old is not None else ()
    places = tuple(_place(ctx, at, top, school, end, (fit, frame, downs)) for at, top in enumerate(tops[school]))
    pull = _pull(ctx, fit, mass, places, length)
    checks.judge_count(ctx, int(count.value), by_rule, school, mass)
    checks.judge_places(ctx, places, body.build)
    return Butts(
        places,
        depth,
        across,
        pull,
        _borings(ctx, places, (depth, across, length), body, on_jamb=old is None),
        {str(key): value for key, value in tops.items() if key is not school},
    )


def _count(ctx: Context, height: Figure, mass: Figure, by_rule: int, old: OldPlaces | None) -> Figure:
    """Return how many butts: by hand, as many as old recesses, or by rule."""
    by_hand = ctx.leaf.hardware.count
    if old is not None:
        return ctx.figures.derived(
            "butt_count", "butts", len(old.downs), *old.downs, formula="one for each old recess", unit=Unit.COUNT
        )
    return ctx.figures.derived(
        "butt_count",
        "butts",
        by_hand or by_rule,
        height,
        mass,
        formula="set by hand"
        if by_hand
        else f"2 to {ctx.fmt(TWO_UP_TO_HEIGHT)} high and {ctx.show.value(TWO_UP_TO_MASS, Unit.KG)}, 3 to "
        f"{ctx.fmt(THREE_UP_TO_HEIGHT)}, one more for each further {ctx.fmt(ONE_MORE_PER)}",
        source="common practice",
        unit=Unit.COUNT,
    )


def _ends_from(ctx: Context, school: ButtSchool, length: Figure) -> dict[str, Figure]:
    """Return how far the butts are from the leaf's ends, and from one another, by that school."""
    end = {
        "from_top": ctx.rule("butt_from_top", "leaf's top to the near end of the top butt"),
        "from_bottom": ctx.rule("butt_from_bottom", "leaf's foot to the near end of the bottom butt"),
        "third_below": ctx.rule("butt_third_below", "between the top butt and the one under it"),
    }
    if ctx.leaf.hanging is Hanging.INSET_BUTTS:
        end |= _cabinet_ends(ctx, length)
    elif school is ButtSchool.SEVEN_ELEVEN:
        for at, name, words, size in (
            ("from_top", "seven_inches", "leaf's top to the near end of the top butt, 7 in", SEVEN_INCHES),
            ("from_bottom", "eleven_inches", "leaf's foot to the near end of the bottom butt, 11 in", ELEVEN_INCHES),
        ):
            end[at] = ctx.figures.given(figure_name(name), words, size, fixed(source="common practice"))
    return end


def _tops(
    ctx: Context, school: ButtSchool, count: int, height: Figure, length: Figure, end: dict[str, Figure]
) -> dict[str, tuple[float, ...]]:
    """Return how far down each butt begins, by every school; () where they do not fit."""
    own = ButtEnds(**{key: one.value for key, one in end.items()})
    tops: dict[str, tuple[float, ...]] = {}
    for each in ButtSchool:
        try:
            tops[each] = places_by_school(
                school=each,
                count=count,
                height=height.value,
                length=length.value,
                ends=own if each is school or ctx.leaf.hanging is Hanging.INSET_BUTTS else _ends(ctx.rules),
            )
        except InputError:
            tops[each] = ()
    return tops


def _cabinet_ends(ctx: Context, length: Figure) -> dict[str, Figure]:
    """Return how far the end butts of a cabinet's leaf are from its ends.

    They stand in line with the rails' inner edges, or a butt's length from the ends where it has none. Common
    practice, no source.
    """
    found = {}
    ends = (
        ("from_top", "top_rail", "leaf's top to the near end of the top butt"),
        ("from_bottom", "bottom_rail", "leaf's foot to the near end of the bottom butt"),
    )
    for key, rail, words in ends:
        least = ctx.figures.get(figure_name(rail)) or length
        found[key] = ctx.figures.derived(
            figure_name(f"butt_{key}"),
            words,
            least.value,
            least,
            formula="in line with the rail's inner edge" if figure_name(rail) in ctx.figures else "a butt's own length",
            source="common practice",
        )
    return found


def _by_hand(ctx: Context, count: int, height: Figure, length: Figure) -> tuple[float, ...]:
    """Return the upper ends that were set by hand, from the top down; () where there are none, or they cannot be."""
    tops = tuple(sorted(ctx.leaf.hardware.tops))
    if not tops:
        return ()
    if len(tops) != count:
        ctx.warn(
            "butts-by-hand",
            "Places by hand are for another number of butts",
            f"{len(tops)} are set, the leaf has {count}.",
            Remedy("By the school", "hardware.tops", ()),
            grounds=Grounds("butt_count", "butt:1"),
        )
        return ()
    ends = (*tops[1:], height.value + 1e9)
    if tops[-1] + length.value > height.value or any(b - a < length.value for a, b in zip(tops, ends, strict=True)):
        ctx.stop(
            "butts-by-hand",
            "The butts by hand lie on one another or off the leaf",
            f"Upper ends {', '.join(ctx.fmt(each) for each in tops)} down a leaf of {ctx.fmt(height)}.",
            Remedy("By the school", "hardware.tops", ()),
            grounds=Grounds("butt_count", "butt:1"),
        )
    return tops


def _ends(rules: ShopRules) -> ButtEnds:
    return ButtEnds(
        from_top=rules.butt_from_top.value,
        from_bottom=rules.butt_from_bottom.value,
        third_below=rules.butt_third_below.value,
    )


def _place(
    ctx: Context,
    at: int,
    top_value: float,
    school: ButtSchool,
    end: dict[str, Figure],
    where: tuple[Fit, Frame, Sequence[Figure]],
) -> ButtPlace:
    """Return a butt's place; where: the leaf as high as its hinge edge is, what it hangs in, its old recesses."""
    fit, frame, old = where
    figures, number, height = ctx.figures, at + 1, fit.height
    length, across, over = figures["butt_length"], figures["butt_across"], figures["head_gap_hinge"]
    if old:
        top = derived(
            figure_name(f"butt_{number}_top"),
            f"butt {number}, its upper end down from the leaf's top",
            top_value,
            old[at],
            over,
            formula="down to the old recess − from the leaf up to the head there",
        )
    else:
        top = _top(ctx, at, top_value, school, end, height)
    figures.add(top)
    bottom = figures.total(
        figure_name(f"butt_{number}_bottom"), f"butt {number}, its lower end", plus(top), plus(length)
    )
    y1 = height.value - top.value
    jamb = figures.derived(
        figure_name(f"butt_{number}_jamb"),
        f"butt {number}, its upper end down from the head, on the hinge jamb",
        frame.carried("hinge", y1),
        top,
        over,
        formula="down the leaf + from the leaf up to the head there",
    )
    jamb_end = figures.derived(
        figure_name(f"butt_{number}_jamb_bottom"),
        f"butt {number}, its lower end on the hinge jamb",
        frame.carried("hinge", y1 - length.value),
        jamb,
        length,
        formula="its upper end + its length",
    )
    return ButtPlace(number, top, bottom, jamb, jamb_end, Rect(0.0, y1 - length.value, across.value, y1))


def _top(ctx: Context, at: int, top_value: float, school: ButtSchool, end: dict[str, Figure], height: Figure) -> Figure:
    """Return how far down the leaf a butt begins: as it was set by hand, or by that school."""
    number, length, count = at + 1, ctx.figures["butt_length"], int(ctx.figures["butt_count"].value)
    name, label = figure_name(f"butt_{number}_top"), f"butt {number}, its upper end down from the leaf's top"
    source = f"school: {school}"
    if len(ctx.leaf.hardware.tops) == count:
        return given(name, label, top_value, fixed(f"hardware.tops.{at}", source="set by hand for this leaf"))
    if at == 0:
        return total(name, label, plus(end["from_top"]), source=source)
    if number == count:
        return total(name, label, plus(height), minus(end["from_bottom"]), minus(length), source=source)
    if at == 1 and school is ButtSchool.THIRD_HIGH:
        return total(name, label, plus(end["from_top"]), plus(length), plus(end["third_below"]), source=source)
    return derived(
        name,
        label,
        top_value,
        height,
        end["from_top"],
        end["from_bottom"],
        length,
        formula="equal spaces between the others",
        source=source,
    )


def _depth(ctx: Context, old: OldPlaces | None) -> Figure:
    """Add the depth of letting in: half of what the shut butt is thicker than the gap, or what an old recess leaves."""
    closed, gap = ctx.figures["butt_closed"], gap_let_in_for(ctx.figures)
    if old is not None:
        depth = ctx.figures.total("butt_depth", "butt let into the leaf", plus(closed), minus(gap), minus(old.deep))
    else:
        depth = ctx.figures.derived(
            "butt_depth",
            "butt let in, leaf and lining each",
            mortise_depth(closed=closed.value, gap=gap.value),
            closed,
            gap,
            formula="half of (thickness when shut − gap)",
        )
    if depth.value < 0:
        ctx.stop(
            "butt-gap",
            "The butt is too thin for this gap",
            f"Shut it is {ctx.fmt(closed)}; the gap at the hinges is {ctx.fmt(gap)}.",
            Remedy(f"Gap of {ctx.fmt(closed)}: the butts lie on the surface", "fit.gap_hinge", closed.value),
            grounds=Grounds("butt_depth", "butt:1"),
        )
    elif old is None:
        checks.foretell_flush(ctx, depth)
    return depth


def _across(ctx: Context, body: Body, mass: Figure) -> Figure:
    """Add how far the butt's leaf goes into the edge, gauged from the opening face."""
    edge, leaf, knuckle = body.thickness_along("hinge"), ctx.figures["butt_leaf"], ctx.figures["butt_knuckle"]
    across = ctx.figures.total("butt_across", "butt, across the edge from the opening face", plus(leaf), minus(knuckle))
    wood = ctx.figures.total("butt_wood_behind", "wood behind the butt", plus(ctx.figures["thickness"]), minus(across))
    least = ctx.rule("butt_back_wood", "wood that stays behind a butt")
    if across.value <= 0 or wood.value < least.value:
        ctx.report(
            "butt-back",
            Level.STOP if wood.value < 0 and is_chosen(ctx.leaf.hardware.butt) else Level.WARNING,
            "Little wood behind the butts" if wood.value >= 0 else "The butts are wider than the edge",
            f"In {ctx.fmt(edge)} the butt reaches {ctx.fmt(across)}: {ctx.fmt(wood)} stays.",
            *checks.other_butts(
                ctx,
                lambda each: (
                    edge - each.leaf_width.value + each.pin_projection.value >= least.value
                    and each.rating_kg.value >= mass.value
                ),
            ),
            Remedy("A narrower butt, or hinges on the face"),
            grounds=Grounds("butt_wood_behind", "butt:1", rule=f"{ctx.fmt(least)} or more"),
        )
    return across


def _pull(ctx: Context, fit: Fit, mass: Figure, places: tuple[ButtPlace, ...], length: Figure) -> Figure | None:
    if len(places) < 2:
        return None
    spacing = ctx.figures.total(
        "butt_spacing", "top butt's centre to the bottom one's", plus(places[-1].top), minus(places[0].top)
    )
    value = top_hinge_pull(mass=mass.value, leaf_width=fit.width.value, hinge_spacing=spacing.value)
    return ctx.figures.derived(
        "top_hinge_pull",
        "pull on the top butt",
        value,
        mass,
        fit.width,
        spacing,
        formula="weight × 9.80665 × half the width ÷ spacing",
        unit=Unit.N,
    )


def _borings(
    ctx: Context,
    places: tuple[ButtPlace, ...],
    size: tuple[Figure, Figure, Figure],
    body: Body,
    *,
    on_jamb: bool = True,
) -> tuple[Boring, ...]:
    """Return what is let in for the butts, in the leaf and, but for old recesses, in the lining; size: how deep, how
    far across, how long.
    """
    depth, across, length = size
    if not 0 < across.value <= body.thickness_along("hinge"):
        return ()  # a stop says so: nothing is let into wood that is not there
    if depth.value <= 0:
        return ()
    found: list[Boring] = []
    front, _ = body.along("hinge")
    for place in places:
        sizes = (length.value, across.value, depth.value)
        r = place.rect
        middle = (r.y0 + r.y1) / 2
        edge = body.out_at("hinge", middle)
        member = body.member_at("hinge", middle, front + across.value / 2)
        found.append(
            Boring(
                BoringKind.BUTT,
                CutIn.LEAF,
                member.name if member is not None else "the leaf",
                CutSide.HINGE_EDGE,
                Datum.LEAF_TOP,
                place.top.value,
                *sizes,
                block(edge, r.y0, edge + depth.value, r.y1, (front, front + across.value)),
                number=place.number,
            )
        )
        if not on_jamb:
            continue
        found.append(
            Boring(
                BoringKind.BUTT,
                CutIn.HINGE_SIDE,
                leg(ctx.leaf.hanging, "hinge"),
                CutSide.FACE_TO_LEAF,
                jamb_datum(ctx.leaf.hanging),
                place.jamb_top.value,
                *sizes,
                number=place.number,
            )
        )
    return tuple(found)
