"""A fixing as a stack: what it passes, what it must bite, how deep it may go, and the screw that does both. mm.

Source: common practice of the trade; the sums are plain.
"""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.sliding_gear import ScrewKind, WallKind
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure, Term, fixed, given, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hardware.hinges.screws import pilot
from oakmeasure.core.leaf.leaf_context import Context

SCREWS = (25.0, 30.0, 35.0, 40.0, 45.0, 50.0, 60.0, 70.0, 80.0, 90.0, 100.0, 120.0, 140.0, 160.0, 180.0)
SAFE = 5.0  # kept between a point and what it must not reach: common practice, no source
LEAST_BITE = 25.0  # in a stud: common practice, no source
# Softwood studs: common practice, no source
CLEARANCE = 0.5
STUD_GRAVITY = 0.42
# Of a coach screw: common practice, no source
COACH_PILOT = 0.7
COACH_LEAST = 6.0
HOLE_DEEPER = 10.0  # of a plug's hole beyond the screw's point: common practice, no source


def screw_between(*, least: float, most: float | None) -> float | None:
    """Return the shortest screw sold that is long enough and not too long, mm; None where none is sold.

    Args:
        least: The least length that holds, mm.
        most: The greatest length that does not come through, mm; None for no limit.

    Raises:
        InputError: For a least length that is not positive.

    >>> screw_between(least=72.5, most=95.0), screw_between(least=47.5, most=30.0)
    (80.0, None)
    """
    if least <= 0:
        raise InputError("least", least, "more than 0")
    return next((each for each in SCREWS if each >= least - 1e-9 and (most is None or each <= most + 1e-9)), None)


def judge_stack(ctx: Context) -> None:
    """Add what the fixings of a track, or the long screw of each hinge, pass and bite, and the screw that does.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    hanging = ctx.leaf.hanging
    if hanging is Hanging.POCKET:
        return  # its frame carries it
    if hanging.slides:
        at_head = hanging is Hanging.FLOOR_GEAR  # its weight goes into the floor
        _stack(ctx, "screws of the guide at the head" if at_head else "track's screws", _of_track(ctx))
    elif hanging in (Hanging.LINING, Hanging.PAIR):
        _stack(ctx, "one long screw in each hinge", _of_hinge(ctx))


def _of_track(ctx: Context) -> list[Term]:
    wall, stack = ctx.leaf.hardware.wall, ctx.leaf.hardware.stack
    add = ctx.figures.add
    terms = []
    if stack.spacer:
        terms.append(plus(add(_chosen("stack_spacer", "spacer", stack.spacer, "hardware.stack.spacer"))))
    if wall.backing:
        terms.append(plus(add(_chosen("stack_backing", "backing board", wall.backing, "hardware.wall.backing"))))
    terms.append(
        plus(add(_chosen("stack_plaster", "plaster or board on the wall", wall.plaster, "hardware.wall.plaster")))
    )
    return terms


def _of_hinge(ctx: Context) -> list[Term]:
    """The lining, and the packer behind it; what is let in of the butt is taken off."""
    stack, f, lining = ctx.leaf.hardware.stack, ctx.figures, ctx.leaf.lining
    if "lining_thickness" in f:
        thick = f["lining_thickness"]
    else:
        thick = f.add(_chosen("stack_lining", "lining, thickness", stack.lining, "hardware.stack.lining"))
    packer = stack.spacer or (lining.packing / 2 if lining is not None else 0.0)
    edit = "hardware.stack.spacer" if stack.spacer or lining is None else "lining.packing"
    behind = f.add(_chosen("stack_spacer", "packer behind the lining", packer, edit))
    return [plus(thick), plus(behind)]


def _chosen(name: str, label: str, value: float, edit: str) -> Figure:
    return given(figure_name(name), label, value, fixed(edit))


def _stack(ctx: Context, what: str, terms: list[Term]) -> None:
    stack, f = ctx.leaf.hardware.stack, ctx.figures
    passes = f.total("stack_passes", f"{what}: what they pass", *terms)
    bite = ctx.chosen("stack_bite", "what they must bite", stack.bite, "hardware.stack.bite")
    least = f.total("stack_least", "screw, at the least", plus(passes), plus(bite))
    most = _most(ctx, terms)
    found = screw_between(least=least.value, most=most.value if most else None)
    if stack.screw is not None:
        screw = f.add(_chosen("stack_screw", "screw, length", stack.screw, "hardware.stack.screw"))
    elif found is None:
        _none_does(ctx, what, passes, least, most)
        return
    else:
        screw = f.given(
            "stack_screw",
            "screw, length",
            found,
            fixed("hardware.stack.screw", source="the shortest sold that is long enough"),
        )
    bites = f.total("stack_bites", "it bites", plus(screw), minus(passes))
    _plug(ctx, bites)
    _holes(ctx)
    words = f"{ctx.fmt(screw)} long: through {ctx.fmt(passes)}, {ctx.fmt(bites)} into what must hold."
    if most is not None and screw.value > most.value + 1e-9:
        ctx.stop(
            "stack-deep",
            "The screw reaches what it must not",
            f"{ctx.fmt(screw)} long; {ctx.fmt(most)} at the most.",
            *([Remedy(f"Screws of {ctx.fmt(found)}", "hardware.stack.screw", found)] if found else []),
            Remedy("Find the pipe or cable first, and fix elsewhere"),
            grounds=Grounds("stack_screw", rule=f"{ctx.fmt(SAFE)} short of it"),
        )
    elif bites.value < bite.value - 1e-9:
        ctx.report(
            "stack-bite",
            Level.STOP if bites.value < LEAST_BITE / 2 else Level.WARNING,
            "The screw bites too little",
            words,
            Remedy(f"Screws of {ctx.fmt(found)}", "hardware.stack.screw", found)
            if found
            else Remedy("Nothing sold bites more and stays short enough: more fixings, or elsewhere"),
            grounds=Grounds("stack_bites", rule=f"{ctx.fmt(bite)} wanted"),
        )
    else:
        ctx.fine(
            "stack",
            f"{what[0].upper()}{what[1:]}: {ctx.fmt(screw)}",
            words,
            grounds=Grounds(
                "stack_bites", rule=f"{ctx.fmt(bite)} wanted" + (f", {ctx.fmt(most)} at the most" if most else "")
            ),
        )


def _holes(ctx: Context) -> None:
    """The hole through what is passed, the pilot hole in a stud, and whether the head suits what it holds."""
    stack, f = ctx.leaf.hardware.stack, ctx.figures
    size = ctx.chosen("stack_diameter", "screw, diameter", stack.diameter, "hardware.stack.diameter")
    free = f.derived(
        "stack_clearance",
        "hole through what is passed",
        size.value + CLEARANCE,
        size,
        formula="diameter and half a millimetre",
        source="common practice",
    )
    words = f"{ctx.fmt(free)} through what it passes"
    if not (ctx.leaf.hanging.slides and ctx.leaf.hardware.wall.kind is WallKind.MASONRY):
        share = (
            COACH_PILOT * size.value
            if stack.kind is ScrewKind.COACH
            else pilot(diameter=size.value, gravity=STUD_GRAVITY)
        )
        hole = f.derived(
            "stack_pilot",
            "pilot hole in the stud",
            share,
            size,
            formula="0.7 × diameter" if stack.kind is ScrewKind.COACH else "root of the screw × 0.7 in soft wood",
            source="common practice",
        )
        words += f", {ctx.fmt(hole)} in the stud"
    _head(ctx, size, words)


def _head(ctx: Context, size: Figure, words: str) -> None:
    """Judge whether the head suits what it holds."""
    stack = ctx.leaf.hardware.stack
    if stack.kind is ScrewKind.COACH and size.value < COACH_LEAST:
        ctx.warn(
            "stack-head",
            "No coach screw is so thin",
            f"{ctx.fmt(size)} across.",
            Remedy(f"A coach screw of {ctx.fmt(COACH_LEAST)}", "hardware.stack.diameter", COACH_LEAST),
            grounds=Grounds("stack_diameter"),
        )
    elif stack.kind is ScrewKind.COUNTERSUNK and ctx.leaf.hanging.slides:
        ctx.warn(
            "stack-head",
            "A countersunk head wedges in a track's round hole",
            "It rides up the hole's edge and never draws the track flat.",
            Remedy("Flat-headed screws", "hardware.stack.kind", ScrewKind.FLAT),
            grounds=Grounds("stack_diameter"),
        )
    else:
        ctx.fine(
            "stack-holes",
            f"{str(stack.kind).capitalize()}: its holes",
            f"{words[0].upper()}{words[1:]}.",
            grounds=Grounds("stack_clearance"),
        )


def _most(ctx: Context, terms: list[Term]) -> Figure | None:
    """Add the longest screw that stays short of what it must not reach, which is measured from the wall's own face."""
    depth, f = ctx.leaf.hardware.stack.depth, ctx.figures
    if depth is None:
        return None
    reach = f.add(
        _chosen("stack_depth", "from the wall's face to what must not be reached", depth, "hardware.stack.depth")
    )
    safe = f.given("stack_safe", "kept short of it", SAFE, fixed(source="common practice"))
    before = [each for each in terms if each.figure.name != "stack_plaster"]
    return f.total("stack_most", "screw, at the most", *before, plus(reach), minus(safe))


def _none_does(ctx: Context, what: str, passes: Figure, least: Figure, most: Figure | None) -> None:
    most_value = most.value if most is not None else SCREWS[-1]
    bite = max((each for each in SCREWS if each <= most_value), default=0.0) - passes.value
    remedies = [Remedy("Fix beside the pipe or cable, where it is not: find it first")]
    if bite >= 15:
        remedies.insert(0, Remedy(f"Bite {ctx.fmt(bite)} only, with twice as many", "hardware.stack.bite", bite))
    ctx.stop(
        "stack-none",
        "No screw both bites and stays short",
        f"{what[0].upper()}{what[1:]}: {ctx.fmt(least)} at the least, {ctx.fmt(most_value)} at the most.",
        *remedies,
        grounds=Grounds("stack_least", rule="a bite, and never into what lies behind"),
    )


def _plug(ctx: Context, bites: Figure) -> None:
    """The hole of a plug in masonry: as deep as the screw bites and a little more."""
    wall = ctx.leaf.hardware.wall
    if not ctx.leaf.hanging.slides or wall.kind is not WallKind.MASONRY:
        return
    deeper = ctx.figures.given(
        "plug_deeper", "hole beyond the screw's point", HOLE_DEEPER, fixed(source="common practice")
    )
    plaster = ctx.figures["stack_plaster"]
    deep = ctx.figures.total(
        "plug_hole", "hole for the plug, from the wall's face", plus(bites), plus(plaster), plus(deeper)
    )
    ctx.fine(
        "plug",
        f"Plugs of {ctx.fmt(wall.plug)}",
        f"Holes {ctx.fmt(deep)} deep; the plug in the masonry, not in the plaster.",
        grounds=Grounds("plug_hole"),
    )
