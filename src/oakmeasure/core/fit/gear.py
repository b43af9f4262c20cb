"""Track and hangers: what the chosen set says, what the hand has set instead, and whether a set fits where it goes."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.units import HAIR, Show, Unit
from oakmeasure.core.document.hanging import Hanging, TrackSet, track_sets
from oakmeasure.core.document.readings import Side
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, given, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

LABELS = {
    "roller": "roller, wide",
    "roller_in": "roller centre from the leaf's edge",
    "stand_off": "stand-off of the track",
    "drop": "track's underside to the leaf's top",
    "gear_height": "the set needs, beyond the leaf",
}
OF_SET = {"gear_height": "opening"}  # where the set calls it otherwise


def from_set(ctx: Context, name: str) -> Figure | None:
    """Return a figure of the gear: set by hand, else of the chosen set; None where nobody says.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        name: Its name.
    """
    if figure_name(name) in ctx.figures:
        return ctx.figures[figure_name(name)]
    choice = ctx.leaf.slide
    value, source = getattr(choice, name), "set by hand for this leaf"
    if value is None and choice.track_set is not None:
        value, source = getattr(choice.track_set, OF_SET.get(name, name)), choice.track_set.name
    return None if value is None else ctx.figures.add(_gear(name, value, source))


def from_set_or(ctx: Context, name: str, default: float) -> Figure:
    """Return the same, or the default as the figure until a set is chosen.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        name: Its name.
        default: What it is where neither the leaf nor the set says so, in the figure's unit.
    """
    return from_set(ctx, name) or ctx.figures.add(_gear(name, default, "taken until a set is chosen"))


def _gear(name: str, value: float, source: str) -> Figure:
    return given(figure_name(name), LABELS[name], value, fixed(f"slide.{name}", source=source))


@dataclass(frozen=True, slots=True)
class GearPlace:
    """What a set must fit into, lengths in mm. None: not known."""

    way: Hanging
    """How the leaf hangs."""
    leaf_height: float
    """Height of the leaf, mm."""
    thickness: float
    """Thickness of the leaf, mm."""
    over_head: float
    """Its top over the opening's head."""
    opening: float
    """Height of the opening where it is tallest, floor to head, mm."""
    headroom: float | None
    """Free wall over the head, mm; None where nobody has read it."""
    back: float
    """Wall to the leaf's back at the least."""
    track: float
    """Length of the track that is needed, mm."""
    mass: float | None
    """Mass of one leaf, kg; None where it is not known."""


@dataclass(frozen=True, slots=True)
class Miss:
    """One thing in which a set does not fit."""

    what: str
    """What is missing."""
    words: str
    """By how much, in words."""
    short: float = 0.0
    """By how much, mm; 0 where it is no length."""


def misses(track_set: TrackSet, place: GearPlace, show: Show) -> list[Miss]:
    """Return everything in which a set does not fit its place; none where it does.

    The load's lever is not in it.

    Args:
        track_set: The track set.
        place: The opening, the leaf and what is over it, for a track set.
        show: How lengths and other quantities are written.
    """
    found: list[Miss] = []
    fmt = show.length
    if place.way not in track_set.ways:
        found.append(Miss("way", f"made for {', '.join(track_set.ways)}"))
    if track_set.opening is not None:
        short = place.leaf_height + track_set.opening - place.opening
        if short > HAIR:
            found.append(Miss("opening", f"opening {fmt(short)} short", short))
    elif place.headroom is not None:
        short = place.over_head + track_set.above + track_set.lift - place.headroom
        if short > HAIR:
            found.append(Miss("headroom", f"headroom {fmt(short)} short", short))
    if not track_set.thickness_least <= place.thickness <= track_set.thickness_most:
        takes = f"{fmt(track_set.thickness_least)} to {fmt(track_set.thickness_most)}"
        found.append(Miss("thickness", f"takes leaves of {takes}, not {fmt(place.thickness)}"))
    if place.mass is not None and place.mass / 2 > track_set.rating_kg:
        kilos = show.value(place.mass / 2, Unit.KG), show.value(track_set.rating_kg, Unit.KG)
        found.append(Miss("rating", f"{kilos[0]} a hanger, rated {kilos[1]}"))
    if place.track > max(track_set.lengths) + HAIR:
        found.append(Miss("length", f"longest track {fmt(max(track_set.lengths))}, needed {fmt(place.track)}"))
    return found


def length_to_buy(track_set: TrackSet, needed: float) -> float | None:
    """Return the shortest track sold that is long enough, mm; None where none is.

    Args:
        track_set: The track set.
        needed: What is needed, mm.
    """
    return min((each for each in track_set.lengths if each >= needed - HAIR), default=None)


def backing_for(track_set: TrackSet, place: GearPlace) -> float:
    """Return the backing board that a set's stand-off lacks, mm; 0 where it does.

    Args:
        track_set: The track set.
        place: The opening, the leaf and what is over it, for a track set.
    """
    return max(0.0, place.back - track_set.stand_off)


def sets_for(way: Hanging) -> dict[str, TrackSet]:
    """Return the sets of the table that are made for a way of hanging.

    Args:
        way: How the leaf hangs.
    """
    return {key: each for key, each in track_sets().items() if way in each.ways}


def place_of(ctx: Context, opening: Opening, fitted: Fit, mass: float | None = None) -> GearPlace:
    """Return what a set must fit into.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        fitted: Size of the leaf and its gaps, mm.
        mass: Of the leaf, kg; None where it is not known.
    """
    f = ctx.figures
    top = fitted.y_foot + fitted.height.value
    return GearPlace(
        ctx.leaf.hanging,
        fitted.height.value,
        f["thickness"].value,
        top - opening.head_low.value,
        tallest(opening),
        ctx.leaf.slide.headroom,
        f["back_off"].value,
        f["track_needed"].value,
        mass,
    )


def tallest(opening: Opening) -> float:
    """Return the opening from its floor to the highest place of its head, mm: there a track could lie.

    Args:
        opening: The clear opening.
    """
    crown = max((y for _, y in opening.taken.outline.of(Side.HEAD)), default=opening.head_low.value)
    return max(crown, opening.head_low.value) - opening.floor_high.value


def judge_set(ctx: Context, place: GearPlace) -> None:
    """Say whether the chosen set fits, or which of the table's do; ratings of a leaf off its middle come later.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        place: The opening, the leaf and what is over it, for a track set.
    """
    fixed = ctx.leaf.slide.track_set
    _headroom(ctx, place)
    if fixed is None:
        return
    found = [each for each in misses(fixed, place, ctx.show) if each.what not in ("opening", "headroom")]
    if found:
        words = "; ".join(each.words for each in found)
        others = [each for each in sets_for(place.way).values() if not misses(each, place, ctx.show)]
        cheapest = min(others, key=lambda each: each.price, default=None)
        ctx.stop(
            "set",
            f"The {fixed.name} does not suit this leaf",
            f"It is {words}." if found[0].what == "way" else f"{words[0].upper()}{words[1:]}.",
            Remedy(f"Take the {cheapest.name}", "slide.track_set", cheapest) if cheapest else Remedy("Another set"),
            grounds=Grounds("track_needed", rule="its sheet"),
        )
        return
    buy = length_to_buy(fixed, place.track)
    cut = f"Buy {ctx.fmt(buy)} of track and cut {ctx.fmt(buy - place.track)} off." if buy else ""
    ctx.fine(
        "set",
        f"The {fixed.name} suits this leaf",
        f"{cut} It takes leaves of {ctx.fmt(fixed.thickness_least)} to {ctx.fmt(fixed.thickness_most)}.",
        grounds=Grounds("track_needed", rule="its sheet"),
    )


def overlap_left(ctx: Context, short: Figure) -> float:
    """Return the overlap at the head that would leave room to lift the leaf on, mm; may be negative.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        short: By how much it is too short, mm.
    """
    known = ctx.figures.get("overlap_head")
    return (known.value if known is not None else 0.0) - short.value


def _headroom(ctx: Context, place: GearPlace) -> None:
    """Judge the free wall over the opening: the track with its hangers, the leaf lifted on, the anti-lift block."""
    track, f = ctx.leaf.slide.track_set, ctx.figures
    if track is None or track.opening is not None:
        return
    over = f.derived(
        "leaf_over_head",
        "leaf's top over the opening's head",
        place.over_head,
        ctx.figures["leaf_height"],
        formula="foot + height − lowest head",
    )
    above = f.given("gear_above", "track and hangers over the leaf", track.above, fixed(source=track.name))
    lift = f.given("lift_on", "lifted to be hung on", track.lift, fixed(source=track.name))
    needed = f.total("headroom_needed", "free wall it needs over the opening", plus(over), plus(above), plus(lift))
    block = f.given("anti_lift", "anti-lift block", track.block, fixed(source=track.name))
    drop = from_set_or(ctx, "drop", track.drop)
    room = f.total("anti_lift_room", "room over the leaf for the block", plus(drop))
    if room.value < block.value:
        ctx.stop(
            "anti-lift",
            "No room for the anti-lift block",
            f"{ctx.fmt(room)} between leaf and track, the block is {ctx.fmt(block)}.",
            Remedy("A set with more drop, or take a little off the leaf's top"),
            grounds=Grounds("anti_lift_room", rule="a leaf that can be lifted off its track falls"),
        )
    elif lift.value > 0:
        ctx.fine(
            "anti-lift",
            "Fit the anti-lift block last",
            f"The leaf goes up {ctx.fmt(lift)} to be hung on; after that the block of {ctx.fmt(block)} keeps it "
            "from coming off.",
            grounds=Grounds("anti_lift_room"),
        )
    if ctx.leaf.slide.headroom is None:
        return
    _to_lift_on(ctx, place, needed, ctx.leaf.slide.headroom)


def _to_lift_on(ctx: Context, place: GearPlace, needed: Figure, headroom: float) -> None:
    """Judge the free wall that there is against what lifting it on needs."""
    f = ctx.figures
    free = f.given("headroom", "free wall over the opening", headroom, fixed("slide.headroom"))
    short = f.total("headroom_short", "missing over the opening", plus(needed), minus(free))
    if short.value > HAIR:
        lower = overlap_left(ctx, short)
        others = [each for each in sets_for(place.way).values() if not misses(each, place, ctx.show)]
        ctx.stop(
            "headroom",
            "There is no room to lift it on",
            f"It needs {ctx.fmt(needed)} over the opening, there is {ctx.fmt(free)}: {ctx.fmt(short)} short.",
            *(Remedy(f"Take the {each.name}", "slide.track_set", each) for each in others[:1]),
            *(
                [Remedy(f"Or overlap {ctx.fmt(lower)} at the head", "slide.overlap_head", lower)]
                if lower > -200
                else []
            ),
            grounds=Grounds("headroom_short", rule="track, hangers and the lift to hang it on"),
        )
    else:
        ctx.fine(
            "headroom",
            "There is room to lift it on",
            f"{ctx.fmt(free)} over the opening, {ctx.fmt(needed)} needed.",
            grounds=Grounds("headroom_needed"),
        )
