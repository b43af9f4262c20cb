"""Quick sums of hinges, screws and fixings."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import Unit
from oakmeasure.core.document.species import species
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus, total
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.hardware.hinges.loads import top_hinge_pull
from oakmeasure.core.hardware.hinges.mortise_depth import mortise_depth, solve_cup, withdrawal
from oakmeasure.core.sums.quick import Given, Sum, SumOption, allowance, rule, size
from oakmeasure.core.sums.wood_sums import NAMES, WOODS
from oakmeasure.core.timber.wood import dry_gravity

CUP = (
    ("overlay", "overlay; less than 0 for inset"),
    ("reach", "reach of the hinge"),
    ("crank", "crank of its arm"),
    ("boring", "leaf's edge to the cup"),
    ("plate", "plate, height"),
)


def _cup(g: Given, unknown: str, label: str) -> Figure:
    """Add the one figure of a cup hinge that the others give; its signs are the core's."""
    known = {name: None if name == unknown else g.number(name) for name, _ in CUP}
    value = solve_cup(**known)[unknown]
    parts = [g.figure(name) for name, _ in CUP if name != unknown]
    signs = {"boring": "overlay − reach + crank + plate", "reach": "overlay + crank − boring + plate"}
    name = {"boring": "boring_distance"}.get(unknown, unknown)
    return g.figures.derived(figure_name(name), label, value, *parts, formula=signs[unknown])


def _cup_boring(g: Given) -> None:
    distance = _cup(g, "boring", "leaf's edge to the cup")
    g.figures.total(
        "centre_from_edge", "leaf's edge to the cup's centre", plus(distance), plus(g.figure("cup-diameter"), 0.5)
    )


def _cup_reach(g: Given) -> None:
    _cup(g, "reach", "reach of the hinge")


def _butt_mortise(g: Given) -> None:
    closed, gap = g.figure("closed-thickness"), g.figure("gap")
    depth = mortise_depth(closed=closed.value, gap=gap.value)
    if depth < 0:
        raise InputError("gap", f"{gap.value:g}", f"at most what the hinge is thick when shut, {closed.value:g} mm")
    g.figures.derived("depth", "let in, each leaf of it", depth, closed, gap, formula="(shut − gap) / 2")


def _hinge_pull(g: Given) -> None:
    mass, width, apart = (g.figure(name) for name in ("mass", "leaf-width", "hinge-spacing"))
    pull = top_hinge_pull(mass=mass.value, leaf_width=width.value, hinge_spacing=apart.value)
    g.figures.derived(
        "pull",
        "pull on the top hinge",
        pull,
        mass,
        width,
        apart,
        formula="mass × 9.80665 × (width / 2) / spacing",
        source="leaf open, its weight at the middle",
        unit=Unit.N,
    )


def _screw_hold(g: Given) -> None:
    if "specific-gravity" in g:
        dry = g.figure("specific-gravity")
    elif "species" in g:
        wood = species(g.word("species"))
        dry = g.figures.given(
            "specific_gravity",
            f"gravity of {wood.name}, dry over volume at 12 %",
            dry_gravity(basic_gravity=wood.basic_gravity),
            fixed(source=wood.source),
            unit=Unit.RATIO,
        )
    else:
        raise InputError("species", "nothing", "a species, or --specific-gravity")
    diameter, thread = g.figure("diameter"), g.figure("thread")
    holds = withdrawal(gravity=dry.value, diameter=diameter.value, thread=thread.value)
    g.figures.derived(
        "withdrawal",
        "it pulls out at",
        holds,
        dry,
        diameter,
        thread,
        formula="108.25 × G² × D × L",
        source="side grain, ultimate: work with a sixth. Wood Handbook, FPL-GTR-282, ch. 8",
        unit=Unit.N,
    )


def _hinge_transfer(g: Given) -> None:
    gap = g.figure("head-gap")
    g.figures.total("top", "top hinge, down from the head", plus(g.figure("from-top")), plus(gap))
    bottom = total(
        "bottom",
        "bottom hinge, down from the head",
        plus(g.figure("leaf-height")),
        minus(g.figure("from-bottom")),
        plus(gap),
    )
    if bottom.value <= g.number("from-top") + gap.value:
        raise InputError("from-bottom", f"{g.number('from-bottom'):g}", "hinges that do not cross")
    g.figures.add(bottom)


def _screw_stack(g: Given) -> None:
    parts = [g.figure(name) for name in ("spacer", "backing", "plaster", "bite")]
    least = g.figures.total("least_length", "screw, at least", *(plus(each) for each in parts))
    if "depth-limit" in g:
        limit = g.figure("depth-limit")
        words = "no screw does both" if limit.value < least.value else "from the outer face of the spacer"
        g.figures.total("greatest_length", "screw, at most", plus(limit), source=words)


def _of_cup(*without: str) -> tuple[SumOption, ...]:
    defaults = {"crank": 0.0, "plate": 0.0}
    return tuple(
        allowance(name, label, defaults.get(name), low=-40.0 if name in ("overlay", "boring") else 0.0, high=80.0)
        for name, label in CUP
        if name not in without
    )


SUMS = (
    Sum(
        "cup-boring",
        "Where a cup is bored",
        "Leaf's edge to the cup and to its centre, from the overlay that is wanted.",
        "cup hinge concealed overlay centre 35 cabinet",
        (*_of_cup("boring"), size("cup-diameter", "cup, diameter", default=35.0)),
        ("boring_distance", "centre_from_edge"),
        _cup_boring,
        sends={"boring_distance": "hardware.cup.boring", "plate": "hardware.cup.plate"},
    ),
    Sum(
        "cup-reach",
        "Reach of a cup hinge",
        "What a mock-up says of a hinge without a sheet.",
        "cup hinge concealed mock-up overlay",
        _of_cup("reach"),
        ("reach",),
        _cup_reach,
        sends={"reach": "hardware.cup.hinge.reach"},
    ),
    Sum(
        "butt-mortise",
        "How deep a butt is let in",
        "The depth that leaves the gap that is wanted.",
        "hinge butt recess depth gap let in",
        (size("closed-thickness", "hinge, thick when shut"), allowance("gap", "gap at the hinges", rule("gap_hinge"))),
        ("depth",),
        _butt_mortise,
        {"closed": "closed-thickness"},
    ),
    Sum(
        "hinge-pull",
        "Pull on the top hinge",
        "What the top hinge is pulled out with, and the bottom one pushed in.",
        "load weight force butt screw",
        (
            SumOption("mass", "mass of the leaf", Unit.KG, over_zero=True, high=1000),
            size("leaf-width", "leaf, width"),
            size("hinge-spacing", "centre to centre of the outer hinges"),
        ),
        ("pull",),
        _hinge_pull,
    ),
    Sum(
        "screw-hold",
        "What a screw holds",
        "Withdrawal of a wood screw across the grain.",
        "screw withdrawal pull out force strength",
        (
            SumOption("species", "species", None, needed=False, choices=WOODS, also=NAMES),
            SumOption(
                "specific-gravity", "or gravity, dry over volume at 12 %", Unit.RATIO, needed=False, low=0.1, high=1.19
            ),
            size("diameter", "screw, diameter", high=20),
            size("thread", "thread in the solid wood", high=300),
        ),
        ("withdrawal",),
        _screw_hold,
        {"gravity": "specific-gravity"},
    ),
    Sum(
        "hinge-transfer",
        "Hinges carried to the lining",
        "Hinge places of the leaf, measured down from the head of the lining.",
        "butt carry over transfer jamb head gap",
        (
            size("leaf-height", "leaf, height"),
            allowance("from-top", "top hinge from the leaf's top", None),
            allowance("from-bottom", "bottom hinge from the leaf's foot", None),
            allowance("head-gap", "gap, head", rule("gap_head")),
        ),
        ("top", "bottom"),
        _hinge_transfer,
    ),
    Sum(
        "screw-stack",
        "A screw through a stack",
        "The least screw that bites, and the greatest that goes no deeper than it may.",
        "fixing wall plaster spacer backing bite pipe length",
        (
            allowance("spacer", "spacer or packer"),
            allowance("backing", "backing board"),
            allowance("plaster", "plaster or board"),
            allowance("bite", "it must bite", 25.0),
            allowance("depth-limit", "it may go in, from the outer face of the spacer", None, needed=False),
        ),
        ("least_length", "greatest_length"),
        _screw_stack,
        sends={
            "spacer": "hardware.stack.spacer",
            "backing": "hardware.wall.backing",
            "plaster": "hardware.wall.plaster",
            "bite": "hardware.stack.bite",
        },
    ),
)
