"""What can be wrong with cup hinges: boring out of range, too little wood, too narrow a stile, too few, no reveal."""

from __future__ import annotations

import math

from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.document.cup_hinges import CupChoices, CupUnknown, cup_from_table, cup_keys, is_cup_chosen
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build

# Height, kg and how many hinges that takes: common practice, no source.
COUNTS = ((900.0, 6.0, 2), (1600.0, 12.0, 3), (2000.0, 17.0, 4), (2400.0, 22.0, 5))
LEFT_LEAST = 1.0  # under cup and point: common practice, no source
INNER_WOOD = 3.0  # of a stile beyond its cup: common practice, no source
WIDEST = 600.0  # of a leaf that the table of numbers is for: common practice
CUP = 35.0  # diameter, mm
# Of a cup's two fixings, mm: common practice, no source
DOWEL = 8.0
PILOT = 2.5
HOLE_WOOD = 1.0  # that stays between a cup and its screw holes: common practice, no source
SIDES = (16.0, 19.0)  # that straight arms are made for: common practice


def judge(ctx: Context, choice: CupChoices, over: Figure, build: Build, by_rule: int | None, mass: Figure) -> None:
    """Judge the hinges as they are set.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the cup hinges.
        over: What is left over the screws, mm.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        by_rule: How many the table asks for; None where it does not say.
        mass: Of the leaf, kg.
    """
    if not is_cup_chosen(choice.hinge) and choice.unknown is not CupUnknown.REACH:
        _not_chosen(ctx, choice, build, mass)
        return
    _boring(ctx, choice, over)
    _pattern(ctx, choice)
    _gives(ctx, choice, over)
    _solved(ctx, choice)
    _depth(ctx, choice)
    _stile(ctx, choice, build)
    _number(ctx, by_rule, mass)
    _reveal(ctx, choice)
    _latch(ctx, choice)


def _not_chosen(ctx: Context, choice: CupChoices, build: Build, mass: Figure) -> None:
    """Say that nobody chose the hinges, and offer the first of the table that would do."""
    boring, reach = ctx.figures["cup_boring"].value, choice.hinge.reach.value
    offers = []
    for hinge in map(cup_from_table, cup_keys()):
        then = boring + reach - hinge.reach.value if choice.unknown is CupUnknown.BORING else boring
        left = build.thickness - hinge.cup_depth.value - choice.point
        if hinge.boring_least <= then <= hinge.boring_most and left >= LEFT_LEAST:
            offers = [Remedy(f"Take the {hinge.name}", "hardware.cup.hinge", hinge)]
            break
    ctx.warn(
        "hinges-not-chosen",
        "The hinges are not chosen yet",
        f"Borings and plates are those of the {choice.hinge.name}. They will have to carry {ctx.fmt(mass)}.",
        *offers,
        Remedy("Choose them in the list of hinges, or measure your own"),
        grounds=Grounds("cup_boring", "cup:1"),
    )


def up_to(ctx: Context, row: tuple[float, float, int]) -> str:
    """Return a row of COUNTS in words.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        row: Height and mass up to which it holds, mm and kg, and how many hinges.
    """
    high, heavy, count = row
    return f"{count} to {ctx.fmt(high)} high and {ctx.show.value(heavy, Unit.KG)}"


def _gives(ctx: Context, choice: CupChoices, over: Figure) -> None:
    """What the hinges give where it is sought, against what the leaf's size was worked out with."""
    f = ctx.figures
    if choice.unknown is not CupUnknown.OVERLAY or ctx.leaf.hanging is Hanging.OVERLAY:
        return
    gives = f.total(
        "cup_gives",
        "overlay that these hinges give (less than 0: a gap)",
        plus(f["cup_reach"]),
        minus(f["cup_crank"]),
        plus(f["cup_boring"]),
        minus(f["cup_plate"]),
    )
    if abs(gives.value - over.value) <= HAIR:
        return
    gap, remedies = -gives.value, []
    if ctx.leaf.hanging is Hanging.INSET and 0 <= gap <= 60:
        remedies.append(Remedy(f"A gap of {ctx.fmt(gap)} at the hinges", "fit.gap_hinge", gap))
    ctx.stop(
        "cup-gives",
        "The hinges give another gap than the leaf was worked out with",
        f"They give {ctx.fmt(gives)}, where the leaf has {ctx.fmt(over)} (less than 0: a gap).",
        *remedies,
        Remedy("Seek the boring, the plate or the crank instead", "hardware.cup.unknown", CupUnknown.BORING),
        grounds=Grounds("cup_gives", "cup:1"),
    )


def _pattern(ctx: Context, choice: CupChoices) -> None:
    """The holes of its screws or dowels against the cup itself: a pattern too close breaks into it."""
    hinge, hole = choice.hinge, DOWEL if choice.dowels else PILOT
    apart = math.hypot(hinge.pattern_apart / 2, hinge.pattern_off)
    left = ctx.figures.derived(
        "cup_pattern_wood",
        "wood between the cup and its screw holes",
        apart - CUP / 2 - hole / 2,
        ctx.figures["cup_radius"],
        ctx.figures["cup_pattern"],
        formula="from middle to middle − half of the cup − half of the hole",
    )
    if left.value < HOLE_WOOD:
        pattern = ctx.show.size(hinge.pattern_apart, hinge.pattern_off)
        ctx.stop(
            "cup-pattern",
            "The screw holes break into the cup" if left.value < 0 else "Hardly any wood between cup and screw holes",
            f"With a pattern of {pattern} {ctx.fmt(left)} stays between them.",
            Remedy("45 apart, as most are", "hardware.cup.hinge.pattern_apart", 45.0),
            Remedy("Measure the pattern again"),
            grounds=Grounds("cup_pattern_wood", "cup:1", rule=f"{ctx.fmt(HOLE_WOOD)} or more: common practice"),
        )


def _boring(ctx: Context, choice: CupChoices, over: Figure) -> None:
    """The boring against the range that the hinge is made for; what would bring it in."""
    f, hinge = ctx.figures, choice.hinge
    boring = f["cup_boring"]
    if choice.unknown is CupUnknown.REACH and boring.value >= 0:
        return  # a mock-up of a hinge whose sheet nobody has: no other hinge's range counts
    low, high = hinge.boring_least, hinge.boring_most
    if low - 1e-6 <= boring.value <= high + 1e-6:
        ctx.fine(
            "cup-boring",
            f"Boring {ctx.fmt(boring)}, middle {ctx.fmt(f['cup_centre'])}",
            f"Overlay {ctx.fmt(over)}, crank {ctx.fmt(f['cup_crank'])}, plate {ctx.fmt(f['cup_plate'])}.",
            grounds=Grounds("cup_boring", "cup:1", rule=f"{ctx.fmt(low)} to {ctx.fmt(high)} by its sheet"),
        )
        return
    out = boring.value - (high if boring.value > high else low)
    ctx.report(
        "cup-boring",
        Level.STOP if boring.value < 0 else Level.WARNING,
        "The boring is out of the hinge's range",
        f"{ctx.fmt(boring)}; the hinge is made for {ctx.fmt(low)} to {ctx.fmt(high)}.",
        *_brings_in(ctx, choice, over, out),
        grounds=Grounds("cup_boring", "cup:1", rule="by its sheet: look again"),
    )


def _brings_in(ctx: Context, choice: CupChoices, over: Figure, out: float) -> list[Remedy]:
    """Return what would bring the boring in: another plate or crank that is sold, or a little more or less overlay."""
    found: list[Remedy] = []
    f, hinge = ctx.figures, choice.hinge
    if choice.unknown is CupUnknown.BORING:
        reach = f["cup_reach"].value

        def fits(crank: float, plate: float) -> bool:
            return hinge.boring_least <= over.value - reach + crank + plate <= hinge.boring_most

        plate = next((each for each in hinge.plates if fits(f["cup_crank"].value, each)), None)
        crank = next((each for each in hinge.cranks if fits(each, choice.plate)), None)
        if plate is not None:
            found.append(Remedy(f"A plate of {ctx.fmt(plate)}", "hardware.cup.plate", plate))
        if crank is not None:
            found.append(Remedy(f"An arm cranked {ctx.fmt(crank)}", "hardware.cup.crank", crank))
        both = next(((c, p) for c in hinge.cranks for p in hinge.plates if fits(c, p)), None)
        if not found and both is not None:
            found.append(Remedy(f"An arm cranked {ctx.fmt(both[0])} on a plate of {ctx.fmt(both[1])}"))
    wanted = over.value - out
    if choice.unknown is not CupUnknown.BORING:  # it is chosen, whatever the overlay
        boring = min(max(f["cup_boring"].value, hinge.boring_least), hinge.boring_most)
        return [*found, Remedy(f"A boring of {ctx.fmt(boring)}", "hardware.cup.boring", boring)]
    if ctx.leaf.hanging is Hanging.HALF_OVERLAY:
        gap = f["division"].value - 2 * wanted
        if 0 <= gap <= 20:
            found.append(Remedy(f"A gap of {ctx.fmt(gap)} between the two", "cabinet.gap", gap))
    elif ctx.leaf.hanging is Hanging.INSET and 0 <= -wanted <= 60:
        found.append(Remedy(f"A gap of {ctx.fmt(-wanted)} at the hinges", "fit.gap_hinge", -wanted))
    elif ctx.leaf.hanging is Hanging.OVERLAY and 0 <= wanted <= 60:
        found.append(Remedy(f"An overlay of {ctx.fmt(wanted)}", "cabinet.overlay", wanted))
    return found or [Remedy("A hinge with another reach")]


def _solved(ctx: Context, choice: CupChoices) -> None:
    """A crank or a plate that is wanted, against what is sold."""
    f, hinge = ctx.figures, choice.hinge
    for unknown, sold, word in ((CupUnknown.CRANK, hinge.cranks, "crank"), (CupUnknown.PLATE, hinge.plates, "plate")):
        if choice.unknown is not unknown:
            continue
        wanted = f[figure_name(f"cup_{word}")]
        nearest = min(sold, key=lambda each: abs(each - wanted.value))
        if abs(nearest - wanted.value) > 0.26:
            ctx.warn(
                "cup-not-sold",
                f"No such {word} is sold",
                f"{ctx.fmt(wanted)} is wanted; there are {', '.join(ctx.fmt(each) for each in sold)}.",
                Remedy(f"The {word} of {ctx.fmt(nearest)}: then the boring follows"),
                grounds=Grounds(wanted.name, "cup:1"),
            )
    if choice.unknown is CupUnknown.REACH:
        ctx.fine(
            "cup-mock-up",
            f"The mock-up gives a reach of {ctx.fmt(f['cup_reach'])}",
            "Keep the hinge, and its figures join the catalogue of this job.",
            grounds=Grounds("cup_reach"),
        )


def _depth(ctx: Context, choice: CupChoices) -> None:
    left = ctx.figures["cup_left"]
    if left.value >= LEFT_LEAST - 1e-6:
        ctx.fine(
            "cup-depth",
            f"{ctx.fmt(left)} stays under the cup",
            f"{ctx.fmt(ctx.figures['thickness'])} less {ctx.fmt(ctx.figures['cup_depth'])} and a point of "
            f"{ctx.fmt(choice.point)}.",
            grounds=Grounds("cup_left", "cup:1", rule=f"{ctx.fmt(LEFT_LEAST)} at the least"),
        )
        return
    point = left.value + choice.point - LEFT_LEAST  # of a cutter that would leave enough
    mend = Remedy("A thicker leaf, or a shallower hinge")
    if point >= 0:
        mend = Remedy(f"A cutter with a point of {ctx.fmt(point)}", "hardware.cup.point", point)
    ctx.stop(
        "cup-depth",
        "The cutter comes through the face",
        f"{ctx.fmt(left)} would be left under cup and point.",
        mend,
        grounds=Grounds("cup_left", "cup:1", rule=f"{ctx.fmt(LEFT_LEAST)} at the least"),
    )


def _stile(ctx: Context, choice: CupChoices, build: Build) -> None:
    """The cup against the width of what it is bored into."""
    stile = build.at(Role.STILE, Place.HINGE)
    if stile is None:
        return
    inner = ctx.figures["cup_centre"].value + ctx.figures["cup_radius"].value
    left = stile.face.x1 - inner
    if left < INNER_WOOD:
        wider = inner + INNER_WOOD
        wider_stile = Remedy("A wider stile")
        if ctx.leaf.build.keeps_its_sizes:
            wider_stile = Remedy("A smaller cup, or butts")
        elif hasattr(ctx.leaf.build, "stile"):
            wider_stile = Remedy(f"Stiles of {ctx.fmt(wider)}", "build.stile", wider)
        ctx.report(
            "cup-stile",
            Level.STOP if left < 0 else Level.WARNING,
            "The cup is wider than the stile" if left < 0 else "The cup reaches the stile's inner edge",
            f"It reaches {ctx.fmt(inner)} in, the stile {ctx.fmt(stile.face.x1)}.",
            wider_stile,
            grounds=Grounds("cup_centre", "cup:1", rule=f"{ctx.fmt(INNER_WOOD)} stay"),
        )


def _number(ctx: Context, by_rule: int | None, mass: Figure) -> None:
    width, count = ctx.figures["leaf_width"], int(ctx.figures["cup_count"].value)
    numbers = f"{ctx.fmt(mass)}, {ctx.fmt(ctx.figures['leaf_height'])} high, on {count}."
    if by_rule is None:
        ctx.stop(
            "cups-few",
            "Too high or too heavy for cup hinges",
            numbers,
            Remedy("Butts, or a lighter leaf"),
            grounds=Grounds("cup_count", rule=up_to(ctx, COUNTS[-1])),
        )
    elif count < by_rule:
        ctx.warn(
            "cups-few",
            "Too few cup hinges",
            numbers,
            Remedy(f"{by_rule} hinges", "hardware.cup.count", by_rule),
            grounds=Grounds("cup_count", rule=f"{by_rule} by height and weight"),
        )
    elif width.value > WIDEST and count <= by_rule:
        ctx.warn(
            "cups-wide",
            "The leaf is wide for its hinges",
            f"{ctx.fmt(width)}; the numbers are for leaves to {ctx.fmt(WIDEST)}.",
            Remedy("One more hinge near the top", "hardware.cup.count", min(count + 1, 8)),
            grounds=Grounds("cup_count"),
        )
    else:
        ctx.fine(
            "cups-carry", f"{count} hinges carry it", numbers, grounds=Grounds("cup_count", rule="by height and weight")
        )


def _reveal(ctx: Context, choice: CupChoices) -> None:
    """The reveal that the hinge needs against what there is beside the leaf."""
    f, needed = ctx.figures, ctx.figures.get("cup_reveal")
    if needed is None:
        return
    room = (
        f.get("run_between") or f.get("gap_between") or (f["gap_hinge"] if ctx.leaf.hanging is Hanging.INSET else None)
    )
    if room is not None and room.value < needed.value - HAIR:
        ctx.warn(
            "cup-reveal",
            "Its corner strikes what stands beside it",
            f"On its way open it needs {ctx.fmt(needed)}; there is {ctx.fmt(room)}.",
            Remedy("More boring, a thinner leaf, or a rounded corner"),
            grounds=Grounds("cup_reveal", "cup:1", rule="the hinge's own table"),
        )
    else:
        where = f"there is {ctx.fmt(room)}" if room is not None else "nothing stands beside it"
        ctx.fine(
            "cup-reveal",
            "Its corner passes",
            f"It needs {ctx.fmt(needed)}; {where}.",
            grounds=Grounds("cup_reveal", rule="the hinge's own table"),
        )
    side = f.get("side")
    if side is not None and f["cup_crank"].value == 0 and not SIDES[0] <= side.value <= SIDES[1]:
        ctx.warn(
            "cup-side",
            "Straight arms are made for other sides",
            f"The side is {ctx.fmt(side)}.",
            Remedy("Another crank, or a packer under the plate"),
            grounds=Grounds("side", rule=f"{ctx.fmt(SIDES[0])} to {ctx.fmt(SIDES[1])}: common practice"),
        )


def _latch(ctx: Context, choice: CupChoices) -> None:
    """A push latch needs travel: the leaf must go in further before it comes out; dampers work against it."""
    if choice.push_latch:
        travel = choice.push_travel
        stand = choice.hinge.stand_off
        if stand < travel:
            ctx.warn(
                "push-latch",
                "The push latch has too little travel",
                f"It needs {ctx.fmt(travel)}; shut, the leaf stands off {ctx.fmt(stand)}.",
                Remedy(f"Set the stop or the plate {ctx.fmt(travel - stand)} back"),
                grounds=Grounds("cup_count"),
            )
        else:
            ctx.fine(
                "push-latch",
                "The push latch has its travel",
                f"{ctx.fmt(travel)} of {ctx.fmt(stand)}.",
                grounds=Grounds("cup_count"),
            )
        if choice.hinge.damped:
            ctx.warn(
                "push-damped",
                "Dampers work against a push latch",
                f"“{choice.hinge.name}” is damped.",
                Remedy("Undamped hinges"),
                grounds=Grounds("cup_count"),
            )
    elif choice.hinge.damped and ctx.figures["mass"].value < 2.0:
        light = ctx.show.value(ctx.figures["mass"].value, Unit.KG)
        ctx.warn(
            "damped-light",
            "A light leaf with a damper in every hinge hardly shuts",
            f"{light} on {ctx.fmt(ctx.figures['cup_count'])} hinges.",
            Remedy("A damper in one of them"),
            grounds=Grounds("cup_count", rule="not in every hinge of a light leaf"),
        )
