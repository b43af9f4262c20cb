"""The wood of a job: the parts of all leaves sorted into lots that are planned each by itself, and the whole plan.

A lot is one kind of stock: boards of a species and thickness, a planed section, sheets of a material and thickness.
What is on the rack is worth what it cost, so that a plan uses up what is there; what has no end at the yard is to be
bought.
"""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from oakmeasure.core.cutting.leaf_plan import boards_for, pieces_of
from oakmeasure.core.cutting.model import CutKind, CutPlan, Defect, PartItem, Problem, StockItem
from oakmeasure.core.design import LeafDesign
from oakmeasure.core.document.job import Job
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SHEET_LENGTH, SHEET_WIDTH, SheetMaterial, stuff
from oakmeasure.core.document.stock import Board, Came, Pin, Section, SheetStock
from oakmeasure.core.leaf.part import Part
from oakmeasure.core.planning.plan_model import (
    CutStock,
    JobPlan,
    Lot,
    LotPlan,
    Needs,
    Offcut,
    PlacedPiece,
    Remnant,
    Source,
    Wanted,
)
from oakmeasure.core.planning.remnants import pinned

MM3_PER_M3 = 1e9
MM2_PER_M2 = 1e6
SHEET_PRICED_AT = 12.0  # thickness that price_m2 is for, mm
OVER = 3.0  # a planed section may be over a part's finished size, mm
ALIKE = 0.6  # sheets are as thick as they are called within, mm
LEAST_PRICE = 0.01  # of stock, so that using less of what costs nothing is still better


# --- what is wanted, and out of what ---------------------------------------------------------------------------


def needs(job: Job, leaves: Iterable[LeafDesign]) -> Needs:
    """Return the lots of these leaves' parts, without what is cut already.

    Args:
        job: The job that is read; it is not changed.
        leaves: The leaves, worked out.
    """
    done = Counter((each.leaf, each.part) for each in job.cutting.done)
    homeless: list[tuple[Wanted, str]] = []
    lots: dict[tuple[CutKind, str, float, float], list[Wanted]] = defaultdict(list)
    for leaf in leaves:
        for part in leaf.sawn:
            for name, length, width in _cut_from(job, part):
                wanted = Wanted(leaf.leaf.id, leaf.leaf.name, part, name, length, width, _clear(job, part))
                if done[wanted.leaf, name] > 0:
                    done[wanted.leaf, name] -= 1
                    continue
                key, reason = _lot_of(job, wanted)
                if key is None:
                    homeless.append((wanted, reason))
                else:
                    lots[key].append(wanted)
    order = sorted(lots, key=lambda key: (list(CutKind).index(key[0]) != 1, key[0], -key[2], key[1], -key[3]))
    return Needs(tuple(_lot(job, key, lots[key]) for key in order), tuple(homeless))


def _clear(job: Job, part: Part) -> int:
    return 0 if part.role in job.cutting.may_hold else job.cutting.shown.clear


def _cut_from(job: Job, part: Part) -> list[tuple[str, float, float]]:
    """Return the pieces of a part, rough: itself, or the strips of a panel wider than any board."""
    if isinstance(stuff(part.species), SheetMaterial):
        return [(part.name, part.rough.length, part.rough.width)]
    boards = boards_for(job.boards, part.species, part.rough.thickness)
    widest = max((each.width - each.crook for _, each in boards), default=math.inf)
    pieces = pieces_of(part, widest, job.rules.joint_allowance.value, job.rules.allow_width.value)
    return [(each.name, each.length, each.width) for each in pieces]


def _lot_of(job: Job, wanted: Wanted) -> tuple[tuple[CutKind, str, float, float] | None, str]:
    """Return which lot a piece belongs to, or None and why it belongs to none."""
    part = wanted.part
    made_of = stuff(part.species)
    if isinstance(made_of, SheetMaterial):
        thickness = round(part.finished.thickness, 3)
        if made_of.moist:
            return (CutKind.SHEETS, part.species, thickness, 0.0), ""
        return None, f"{made_of.name} is cut where it is bought"
    for each in job.sections:
        if each.species in (None, part.species) and _serves(each, part):
            return (CutKind.BARS, part.species, each.thickness, each.width), ""
    rough = part.rough.thickness
    boards = boards_for(job.boards, part.species, rough)
    if boards:
        return (CutKind.BOARDS, part.species, boards[0][1].thickness, 0.0), ""
    most = max((each.thickness for each in job.boards if each.species in (None, part.species)), default=0.0)
    return None, f"it needs {rough:.1f} rough; the thickest board is {most:g}"


def _serves(section: Section, part: Part) -> bool:
    """Return whether a planed section is the part's finished size, or a little over."""
    wide, thick = section.width - part.finished.width, section.thickness - part.finished.thickness
    return -0.05 <= wide <= OVER and -0.05 <= thick <= OVER and part.role is not Role.PANEL


def _lot(job: Job, key: tuple[CutKind, str, float, float], wanted: Sequence[Wanted]) -> Lot:
    kind, made_of, thickness, width = key
    sources = {each.name: each for each in _sources(job, key)}
    pins = {(each.leaf, each.part): each.board for each in job.cutting.pins}
    laid, rest, sunk, free = (
        pinned(job, sources, wanted, pins) if kind is CutKind.BOARDS else ({}, {}, 0.0, list(wanted))
    )
    items: dict[tuple[float, float, int, bool], list[Wanted]] = defaultdict(list)
    turns = kind is CutKind.SHEETS and all(not _grained(each.item) for each in sources.values())
    for each in free:
        across = 0.0 if kind is CutKind.BARS else each.width
        items[each.length, across, each.clear, turns].append(each)
    by_name = {
        f"{at + 1}": (size, tuple(alike)) for at, (size, alike) in enumerate(sorted(items.items(), reverse=True))
    }
    parts = tuple(
        PartItem(name, long, wide, len(alike), turn, clear)
        for name, ((long, wide, clear, turn), alike) in by_name.items()
    )
    stock, defects = _stock(sources, laid, rest, made_of)
    trim = max((each.item.trim for each in sources.values() if isinstance(each.item, SheetStock)), default=0.0)
    problem = Problem(
        kind,
        stock,
        parts,
        defects,
        job.rules.kerf.value,
        trim if kind is CutKind.SHEETS else job.rules.end_trim.value,
        job.cutting.first,
    )
    return Lot(
        kind,
        made_of,
        thickness,
        width,
        problem,
        {name: alike for name, (_, alike) in by_name.items()},
        sources,
        laid,
        rest,
        sunk,
    )


def _grained(item: Board | Section | SheetStock) -> bool:
    return not isinstance(item, SheetStock) or item.grained


def _sources(job: Job, key: tuple[CutKind, str, float, float]) -> list[Source]:
    """Return the stock of a lot."""
    kind, made_of, thickness, width = key
    if kind is CutKind.BOARDS:
        rate = job.rules.timber_price.value / MM3_PER_M3
        return [
            Source(each, at, _price(each, each.length * each.width * each.thickness * rate))
            for at, each in boards_for(job.boards, made_of, thickness)
        ]
    if kind is CutKind.BARS:
        rate = job.rules.timber_price.value / MM3_PER_M3
        return [
            Source(each, at, _price(each, each.length * each.width * each.thickness * rate))
            for at, each in enumerate(job.sections)
            if (each.thickness, each.width) == (thickness, width) and each.species in (None, made_of)
        ]
    made = stuff(made_of)
    assert isinstance(made, SheetMaterial)
    rate = made.price_m2 * thickness / SHEET_PRICED_AT / MM2_PER_M2
    usual = SheetStock(material=made_of, length=SHEET_LENGTH, width=SHEET_WIDTH, thickness=max(thickness, 2.0))
    found = [
        Source(each, at, _price(each, each.length * each.width * rate))
        for at, each in enumerate(job.sheets)
        if each.material == made_of and abs(each.thickness - thickness) <= ALIKE and not each.forbidden
    ]
    if any(not each.is_owned for each in found):
        return found
    return [*found, Source(usual, -1, _price(usual, usual.length * usual.width * rate))]


def _price(item: Board | Section | SheetStock, by_rate: float) -> float:
    return max(round(by_rate if item.price is None else item.price, 2), LEAST_PRICE)


def _stock(
    sources: Mapping[str, Source],
    laid: Mapping[str, tuple[PlacedPiece, ...]],
    rest: Mapping[str, tuple[str, Remnant]],
    made_of: str,
) -> tuple[tuple[StockItem, ...], tuple[Defect, ...]]:
    """Return the stock for a solver and its defects; of a board that is pinned to, what is left of it, at no price."""
    stock, defects = [], []
    for name, source in sources.items():
        item = source.item
        wide = 0.0 if isinstance(item, Section) else item.width - (item.crook if isinstance(item, Board) else 0.0)
        count = item.quantity if item.quantity is None or name not in laid else item.quantity - 1
        if count is None or count > 0:
            stock.append(StockItem(name, item.length, wide, count, source.price))
            if isinstance(item, Board):
                defects += [_defect(name, each, wide) for each in item.marks if each.y < wide]
    for name, (_, remnant) in rest.items():
        stock.append(StockItem(name, remnant.length, remnant.width, 1, LEAST_PRICE))
        defects += [replace(each, board=name) for each in remnant.defects]
    return tuple(stock), tuple(defects)


def _defect(board: str, mark: object, wide: float) -> Defect:
    return Defect(board, mark.x, mark.y, mark.length, min(mark.width, wide - mark.y), mark.rank)  # type: ignore[attr-defined]


# --- the plan -----------------------------------------------------------------------------------------------------


def lot_plan(lot: Lot, plan: CutPlan, job: Job) -> LotPlan:
    """Return a solver's plan in the words of the job: which part of which leaf lies where, and what is left.

    Args:
        lot: Parts of one kind of stock.
        plan: The plan.
        job: The job that is read; it is not changed.
    """
    waiting = {name: list(alike) for name, alike in lot.wanted.items()}
    on: dict[tuple[str, int], list[PlacedPiece]] = defaultdict(list)
    for cut in plan.cuts:
        wanted = waiting[cut.part].pop(0)
        name, x, y, number = cut.stock, cut.x, cut.y, cut.index
        if name in lot.rest:
            name, remnant = lot.rest[name]
            x, y, number = x + remnant.x, y + remnant.y, -1
        wide = lot.width if lot.kind is CutKind.BARS else cut.width
        on[name, number].append(PlacedPiece(wanted, x, y, cut.length, wide))
    for name, fixed in lot.laid.items():
        on[name, -1] += fixed
    found = []
    for (name, number), pieces in sorted(on.items()):
        source = lot.sources[name]
        shift = 1 if (name, -1) in on else 0  # the one that is pinned to comes first
        found.append(CutStock(source, number + shift, tuple(pieces), _offcuts(source, pieces, lot, job)))
    left = tuple((waiting[name][0], many) for name, many in plan.left)
    return LotPlan(lot, plan, tuple(found), left)


def _offcuts(source: Source, pieces: Sequence[PlacedPiece], lot: Lot, job: Job) -> tuple[Offcut, ...]:
    """Return what is left in rectangles worth keeping, with what is wrong in them: behind all pieces, beside them."""
    choices, kerf, item = job.cutting, lot.problem.kerf, source.item
    wide = item.width
    least_wide = 0.0 if lot.kind is CutKind.BARS else choices.useful_width
    ends = max(each.x + each.length for each in pieces) + kerf
    top = max(each.y + each.width for each in pieces) + kerf
    first = [Offcut(ends, 0.0, item.length - ends, wide), Offcut(0.0, top, min(ends - kerf, item.length), wide - top)]
    other = [Offcut(0.0, top, item.length, wide - top), Offcut(ends, 0.0, item.length - ends, min(top - kerf, wide))]
    ways = [
        [each for each in way if each.length >= choices.useful_length and each.width >= least_wide and each.width > 0]
        for way in (first, other)
    ]
    return tuple(max(ways, key=lambda way: max((each.length * each.width for each in way), default=0.0)))


@dataclass(frozen=True, slots=True)
class Bought:
    """What is to be bought: so many of a size. price: of one."""

    source: Source
    """The stock that was bought."""
    made_of: str
    """What the stock is called."""
    count: int
    """How many pieces of it."""

    @property
    def cost(self) -> float:
        """Return what they cost together."""
        return self.count * self.source.price


def to_buy(plan: JobPlan) -> tuple[Bought, ...]:
    """Return what is to be bought for a plan, in the order of its lots: what it takes of stock that has no end.

    Args:
        plan: The plan of the job's wood.
    """
    count: dict[tuple[str, str], int] = defaultdict(int)
    source: dict[tuple[str, str], Source] = {}
    for lot in plan.lots:
        for each in lot.stock:
            if not each.source.is_owned:
                key = (lot.lot.made_of, each.source.name)
                count[key] += 1
                source[key] = each.source
    return tuple(Bought(source[key], key[0], many) for key, many in count.items())


def cost_to_buy(plan: JobPlan) -> float:
    """Return what all that is to be bought for a plan costs.

    Args:
        plan: The plan of the job's wood.
    """
    return sum(each.cost for each in to_buy(plan))


def with_cut(job: Job, stock: CutStock, made_of: str) -> Job:
    """Return the job after a board of the plan was cut.

    Its parts are done, it leaves the rack, and what is left of it that is worth keeping comes back with a label of
    its own.

    Args:
        job: The job that is read; it is not changed.
        stock: The piece of stock with what is cut from it.
        made_of: What the off-cuts are called after.
    """
    from oakmeasure.core.document.stock import Done

    name = stock.source.name
    done = [
        *job.cutting.done,
        *(Done(leaf=each.wanted.leaf, part=each.wanted.name[:120], board=name[:40]) for each in stock.pieces),
    ]
    pins = tuple(each for each in job.cutting.pins if each.board != name)
    changes: dict[str, object] = {"cutting": job.cutting.model_copy(update={"done": tuple(done), "pins": pins})}
    item, at = stock.source.item, stock.source.at
    taken = {each.label for each in job.boards} | {each.label for each in job.sheets}
    for field_name, kind in (("boards", Board), ("sheets", SheetStock)):
        if not isinstance(item, kind):
            continue
        have = list(getattr(job, field_name))
        if item.quantity is not None and at >= 0:
            many = item.quantity - 1
            have[at] = item.model_copy(update={"quantity": many}) if many else None
        for each in stock.offcuts:
            label = next(f"O{n}" for n in range(1, 10_000) if f"O{n}" not in taken)
            taken.add(label)
            update: dict[str, object] = {
                "label": label,
                "came": Came.OFFCUT,
                "quantity": 1,
                "price": None,
                "length": each.length,
                "width": each.width,
            }
            if isinstance(item, Board):
                update["species"], update["marks"] = made_of, _marks_on(item, each)
            if each.length >= 150 and each.width >= (20 if kind is Board else 100):
                have.append(item.model_copy(update=update))
        changes[field_name] = tuple(each for each in have if each is not None)
    return job.model_copy(update=changes)


def _marks_on(board: Board, offcut: Offcut) -> tuple[object, ...]:
    """Return the defects of a board that lie on what is left of it."""
    found = []
    for mark in board.marks:
        x0, x1 = max(mark.x, offcut.x), min(mark.x + mark.length, offcut.x + offcut.length)
        y0, y1 = max(mark.y, offcut.y), min(mark.y + mark.width, offcut.y + offcut.width)
        if x1 - x0 >= 1 and y1 - y0 >= 1:
            found.append(
                mark.model_copy(update={"x": x0 - offcut.x, "y": y0 - offcut.y, "length": x1 - x0, "width": y1 - y0})
            )
    return tuple(found)


def overdrawn(plan: JobPlan) -> tuple[tuple[str, int, int], ...]:
    """Return which boards and sheets several lots take more of than there are.

    Their name, how many are taken, and how many there are. It happens to what is of no one species, or thick
    enough for two lots.

    Args:
        plan: The plan of the job's wood.
    """
    taken: Counter[tuple[str, int]] = Counter()
    sources: dict[tuple[str, int], Source] = {}
    for lot in plan.lots:
        for each in lot.stock:
            key = (type(each.source.item).__name__, each.source.at)
            taken[key] += 1
            sources[key] = each.source
    found = []
    for key, many in taken.items():
        have = sources[key].item.quantity
        if have is not None and many > have:
            found.append((sources[key].name, many, have))
    return tuple(found)


def pins_missed(plan: JobPlan, job: Job) -> tuple[Pin, ...]:
    """Return the pins that no clear place was found for on their board, or whose board is not of their lot.

    Args:
        plan: The plan of the job's wood.
        job: The job that is read; it is not changed.
    """
    kept = {
        (each.wanted.leaf, each.wanted.name) for lot in plan.lots for some in lot.lot.laid.values() for each in some
    }
    wanted = {(each.leaf, each.name) for lot in plan.lots for alike in lot.lot.wanted.values() for each in alike}
    return tuple(each for each in job.cutting.pins if (each.leaf, each.part) in wanted - kept)
