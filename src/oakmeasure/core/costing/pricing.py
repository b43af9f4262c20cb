"""What a leaf costs and is sold for: timber, sheet, hardware, finish, hours by operation, margin.

Beside a bought leaf. And the same parts bought three ways: rough and milled here, planed to size, machined out of
house.

Prices are the shop's own rules and data/prices.toml, all made up. Sources: sums; common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from oakmeasure.core.base.units import HAIR, MM2_PER_M2, MM3_PER_M3
from oakmeasure.core.design import LeafDesign
from oakmeasure.core.document.cup_hinges import is_cup_chosen
from oakmeasure.core.document.hinges import LatchKind, is_chosen
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.rules import ShopRules
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.planning.plan_model import JobPlan
from oakmeasure.data import table

OPERATIONS = {
    "parts": "sawing, planing, marking",
    "joints": "joints and fixings",
    "glue": "glue-ups",
    "finish": "finishing",
    "reduce": "making it narrower",
    "extend": "making it longer",
    "old": "taking the old leaf down",
    "hanging": "hanging it",
}


@dataclass(frozen=True, slots=True)
class PriceLine:
    """A line of the price."""

    words: str
    """In words."""
    value: float
    """In the job's money."""
    hours: float = 0.0
    """Hours, where it is work; 0 for material."""
    note: str = ""
    """How it is reckoned."""


@dataclass(frozen=True, slots=True)
class Price:
    """What a leaf costs and is sold for."""

    lines: tuple[PriceLine, ...]
    """Material, then work."""
    cost: float
    """Cost of all lines together, in the job's money."""
    margin: float
    """What is put on top of the cost, in the job's money."""
    price: float
    """Cost and margin together, in the job's money."""
    bought: tuple[PriceLine, ...] = ()
    """What altering and hanging the nearest bought leaf comes to; None where there is none."""

    @property
    def bought_price(self) -> float | None:
        """Return what the bought leaf comes to, with the same margin; None where there is none."""
        return sum(each.value for each in self.bought) if self.bought else None


def price_of(job: Job, leaf: LeafDesign, *, timber: float | None = None) -> Price | None:
    """Return the price of a leaf; None where it cannot be made.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, set out with its hardware.
        timber: What the job's plan says the leaf's timber costs, in its money; None: by its own plan.
    """
    if leaf.build is None or "cost" not in leaf.figures:
        return None
    f, rules, prices = leaf.figures, job.rules, table("prices")
    hour = rules.hour_price.value
    of_plan = timber is not None
    wood = timber if timber is not None else f["cost_timber"].value + f["cost_sheet"].value
    faces = 2 * leaf.build.width * leaf.build.height / MM2_PER_M2
    lines = [
        PriceLine(
            "timber and sheet as bought",
            wood,
            note="its share of the whole job's plan" if of_plan else "by its own quick plan",
        ),
        PriceLine("hardware", hardware_price(leaf), note=_hardware_words(leaf)),
        PriceLine("finish", faces * rules.finish_price.value, note=f"{faces:.1f} m² of faces"),
    ]
    hours = {key: f[figure_name(f"hours_{key}")].value for key in OPERATIONS if figure_name(f"hours_{key}") in f}
    hours["hanging"] = float(prices["hanging"]["hours"])
    lines += [PriceLine(OPERATIONS[key], value * hour, value) for key, value in hours.items() if value]
    cost = sum(each.value for each in lines)
    margin = cost * rules.margin.value / 100
    return Price(tuple(lines), cost, margin, cost + margin, _bought(leaf, rules, hour))


def wood_share(plan: JobPlan, leaf_id: str) -> float:
    """Return what the wood of an opening costs in the plan of the job: each board by the area that its pieces take.

    Args:
        plan: The plan of the job's wood.
        leaf_id: Id of the leaf in the job.
    """
    total = 0.0
    for stock in (each for lot in plan.lots for each in lot.stock):
        areas = [each.length * each.width for each in stock.pieces]
        mine = sum(area for each, area in zip(stock.pieces, areas, strict=True) if each.wanted.leaf == leaf_id)
        total += stock.source.price * mine / max(sum(areas), 1e-9)
    return total


def wood_of_one(plan: JobPlan, leaf: LeafDesign) -> float:
    """Return what the wood of one leaf costs in the plan of the job; of a pair or a run each has its share.

    Args:
        plan: The plan of the job's wood.
        leaf: The leaf, set out with its hardware.
    """
    return wood_share(plan, leaf.leaf.id) / leaf.fit.leaves


def hardware_price(leaf: LeafDesign) -> float:
    """Return what the hinges or gear of one leaf, and its lock or latch, cost: those that somebody chose.

    Args:
        leaf: The leaf, set out with its hardware.
    """
    return sum(value for _, value, chosen in _ware(leaf) if chosen)


def _ware(leaf: LeafDesign) -> Iterator[tuple[str, float, bool]]:
    """Yield the hardware of one leaf: its name, what it costs, and whether somebody chose it."""
    prices, said = table("prices")["hardware"], leaf.leaf
    if leaf.butts is not None:
        count = len(leaf.butts.places)
        yield f"{count} butts", prices["butt"] * count, is_chosen(said.hardware.butt)
    if leaf.cups is not None:
        count = len(leaf.cups.places)
        yield f"{count} cup hinges", prices["cup"] * count, is_cup_chosen(said.hardware.cup.hinge)
    if leaf.gear is not None:
        yield "track set", prices["track_set"], said.slide.track_set is not None
    if said.hardware.lock is not None:
        yield "lock", prices["lock"], True
    elif said.hardware.latch.kind is not LatchKind.NONE:
        yield "latch", prices["latch"], True


def _hardware_words(leaf: LeafDesign) -> str:
    return ", ".join(name if chosen else f"{name} not chosen yet" for name, _, chosen in _ware(leaf))


def _bought(leaf: LeafDesign, rules: ShopRules, hour: float) -> tuple[PriceLine, ...]:
    """Return the lines of the nearest slab that is sold: bought, altered, hung."""
    f = leaf.figures
    if "slab_width" not in f:
        return ()
    prices = table("prices")
    slab = float(prices["slab"]["each"])
    alter = float(prices["slab"]["alter_hours"]) if f["slab_off"].value + f["slab_off_height"].value > HAIR else 0.0
    hang = float(prices["hanging"]["hours"])
    lines = [
        PriceLine("slab as sold", slab),
        PriceLine("hardware", hardware_price(leaf)),
        PriceLine("altering it", alter * hour, alter),
        PriceLine("hanging it", hang * hour, hang),
    ]
    cost = sum(each.value for each in lines)
    return (*lines, PriceLine("margin", cost * rules.margin.value / 100))


# --- three ways to buy the same parts ---------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class BuyWay:
    """One way to come by the parts."""

    words: str
    """In words."""
    material: float
    """What the wood costs, in the job's money."""
    service: float
    """What the work on it costs, in the job's money."""
    hours: float
    """Hours of milling in this shop."""
    total: float
    """With the hours' price."""
    note: str
    """How it is reckoned."""

    @property
    def hours_cost(self) -> float:
        """Return what its hours cost."""
        return self.total - self.material - self.service


def buy_ways(job: Job, leaf: LeafDesign, *, timber: float | None = None) -> tuple[BuyWay, ...]:
    """Return what the solid parts of a leaf cost rough and milled here, planed to size, and machined out of house.

    Rough: the boards of the plan, and so many minutes of milling for each part. Planed: by the cubic metre of
    the planed parts, with the yard's waste in its price; each part is only cut to length here. Machined:
    planed, and so much for every part with its joints; nothing is milled here. () where nothing is solid.

    Args:
        job: The job that is read; it is not changed.
        leaf: The leaf, set out with its hardware.
        timber: What the job's plan says the leaf's timber costs, in its money; None: by the leaf's own plan.
    """
    rules = job.rules
    parts = [
        each
        for each in leaf.sawn
        if not isinstance(stuff(each.species), SheetMaterial) and each.role is not Role.PACKING
    ]
    if not parts or "cost_timber" not in leaf.figures:
        return ()
    hour = rules.hour_price.value
    planed = sum(each.planed.length * each.planed.width * each.planed.thickness for each in parts) / MM3_PER_M3
    rough_wood = leaf.figures["cost_timber"].value * leaf.fit.leaves if timber is None else timber
    milling, cutting = len(parts) * rules.milling_minutes.value / 60, len(parts) * rules.length_minutes.value / 60
    ready = planed * rules.planed_price.value
    machined = len(parts) * rules.machining_price.value
    made = (
        ("rough, milled here", rough_wood, 0.0, milling, "what shows is chosen at the bench; wood rests between cuts"),
        ("planed to size", ready, 0.0, cutting, "comes straight, may move again; order 5 % more"),
        ("machined out of house", ready, machined, 0.0, "drawings must be final; joints as they are sent"),
    )
    return tuple(
        BuyWay(words, wood, service, hours, wood + service + hours * hour, note)
        for words, wood, service, hours, note in made
    )
