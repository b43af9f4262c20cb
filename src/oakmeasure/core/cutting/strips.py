"""Boards with defects, and sheets: cut right through into strips, the strips across into parts, parts trimmed to width.

A strip lies along the stock (ripped first) or across it (crosscut first). It is filled by an exact bounded knapsack, a
part of less width allowed in it; which strips a piece of stock gets is a knapsack over its width. Whole plans are made
again and again, the worth of a part raised where plans waste around it, until the watch ends it or the material bound
is met. Sources: sequential value correction, Mukhacheva and Mukhacheva 1991; the bound is of the material.
"""

from __future__ import annotations

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from oakmeasure.core.cutting import exact, highs
from oakmeasure.core.cutting.problem import (
    CENT,
    SCALE,
    Cut,
    CutKind,
    CutPlan,
    Defect,
    Problem,
    Watch,
    cents,
    least_cost,
    tenths,
)

if TYPE_CHECKING:
    import numpy as np

NOISE = 0.06  # of a part's worth, from plan to plan
MEMORY = 0.75  # of a part's worth that stays from plan to plan
SEED = 7
JOIN_SHARE, LAST = 0.15, 0.18  # of the time: for one choice out of the pool, and kept for the last one


@dataclass(frozen=True, slots=True)
class _Stock:
    """A kind of stock, whole tenths, without its trim: where things may lie. holes: defects as x0, y0, x1, y1."""

    at: int
    length: int
    width: int
    price: int
    count: int | None
    holes: tuple[tuple[int, int, int, int], ...] = ()

    def turned(self) -> _Stock:
        """Return it with length and width changed: strips then lie across it."""
        holes = tuple((y0, x0, y1, x1) for x0, y0, x1, y1 in self.holes)
        return _Stock(self.at, self.width, self.length, self.price, self.count, holes)


@dataclass(frozen=True, slots=True)
class _Way:
    """A way in which a part may lie in a strip: along it and across it."""

    part: int
    along: int
    across: int


@dataclass(slots=True)
class _Piece:
    """One piece of stock with what is cut from it, as x, y, part, length, width in tenths within the trim."""

    stock: int
    cuts: list[tuple[int, int, int, int, int]] = field(default_factory=list)


def plan_strips(problem: Problem, watch: Watch) -> CutPlan:
    """Return the best plan found until the watch ends it or the bound is met; what fits nowhere is left."""
    shop = _Shop(problem)
    search = _Search(shop, watch)
    while search.best is None or not (watch.over() or search.is_least):
        if not search.round():
            break
        search.rest_and_join()
    return shop.plan(search.best or [], search.bound / CENT, watch)


class _Search:
    """Plan after plan, what they cut kept in a pool, of which the best whole set is chosen now and then."""

    def __init__(self, shop: _Shop, watch: Watch) -> None:
        self.shop, self.watch = shop, watch
        k = shop.kerf
        self.need = sum(shop.demand[at] * (shop.sizes[at][0] + k) * (shop.sizes[at][1] + k) for at in shop.fits)
        self.kinds = [(each.price, shop.room(each), each.count) for each in shop.stock]
        self.worth = {at: float(shop.sizes[at][0] * shop.sizes[at][1]) for at in shop.fits}
        self.duals: dict[int, float] = {}
        self.source = random.Random(SEED)
        self.rounds, self.bound, self.joined = 0, 0, False
        self.best: list[_Piece] | None = None
        self.key = (math.inf, math.inf)

    @property
    def is_least(self) -> bool:
        return self.best is not None and not self.key[0] and self.key[1] <= self.bound

    def round(self) -> bool:
        """Make one whole plan; return whether the search may go on."""
        sheets = self.shop.problem.kind is CutKind.SHEETS
        ways = ("rip", "cross", "both")[self.rounds % 3] if sheets else ("rip", "rip", "both")[self.rounds % 3]
        worth = self.duals if self.duals and self.rounds % 2 else self.worth
        watch = self.watch if self.best is not None else None
        below = math.inf if self.key[0] else self.key[1]
        pieces, left = self.shop.whole_plan(worth, ways, self.source, self.rounds, watch, below)
        if pieces is None:
            return False
        if pieces or self.best is None:
            self.offer(pieces, left)
            self.shop.correct(self.worth, pieces)
        self.rounds += 1
        return bool(self.shop.fits)

    def rest_and_join(self) -> None:
        """Before the time is over, choose anew out of the pool."""
        late = self.watch.left < LAST * self.watch.seconds
        if late and not self.joined and not self.is_least and self.best is not None:
            self.joined = True
            self.join()

    def offer(self, pieces: list[_Piece], left: int) -> None:
        """Take a plan that leaves less or costs less."""
        cost = sum(self.shop.price[each.stock] for each in pieces)
        if (float(left), float(cost)) >= self.key:
            return
        self.best, self.key = pieces, (float(left), float(cost))
        if not left:
            if not self.bound:
                self.bound = least_cost(self.kinds, need=self.need, at_least=0.0, most=cost)
            if self.watch.tell is not None:
                self.watch.tell(self.shop.plan(pieces, self.bound / CENT, self.watch))

    def join(self) -> None:
        """Choose the cheapest whole set of pieces out of all that were cut so far, and learn what parts are worth."""
        shop, pool = self.shop, list(self.shop.pool.values())
        limited = {each.at: len(shop.fits) + n for n, each in enumerate(one for one in shop.stock
                                                                        if one.count is not None)}  # fmt: skip
        row = {at: n for n, at in enumerate(shop.fits)}
        low = [float(shop.demand[at]) for at in shop.fits] + [-math.inf for _ in limited]
        high = [math.inf for _ in shop.fits] + [float(shop.stock[at].count or 0) for at in limited]
        programme = highs.Programme(low, high)
        for piece in pool:
            entries: dict[int, float] = {}
            for _, _, part, _, _ in piece.cuts:
                entries[row[part]] = entries.get(row[part], 0.0) + 1.0
            if piece.stock in limited:
                entries[limited[piece.stock]] = 1.0
            programme.add(float(shop.price[piece.stock]), entries)
        solved = programme.solve()
        if solved is None:
            return
        rate = min(each.price / max(each.length * each.width, 1) for each in shop.stock)
        self.duals = {at: max(float(solved.prices[row[at]]), 0.0) + 0.3 * rate * shop.sizes[at][0] * shop.sizes[at][1]
                      for at in shop.fits}  # fmt: skip
        x = programme.solve_whole(seconds=min(JOIN_SHARE * self.watch.seconds, max(self.watch.left, 0.05)))
        if x is None:
            return
        spare = {at: shop.demand[at] for at in shop.fits}
        chosen: list[_Piece] = []
        for piece, many in zip(pool, x, strict=True):
            for _ in range(int(many)):
                kept = []
                for cut in piece.cuts:
                    if spare[cut[2]] > 0:
                        spare[cut[2]] -= 1
                        kept.append(cut)
                if kept:
                    chosen.append(_Piece(piece.stock, kept))
        self.offer(chosen, sum(spare.values()) + shop.homeless)


class _Shop:
    """The problem in whole tenths, and the making of one plan."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.kerf, self.trim = tenths(problem.kerf, up=True), tenths(problem.trim, up=True)
        side = self.trim if problem.kind is CutKind.SHEETS else 0  # boards are trimmed at their ends
        self.side = side
        self.stock = [
            _Stock(at, tenths(each.length, up=False) - 2 * self.trim, tenths(each.width, up=False) - 2 * side,
                   cents(each.price), each.quantity, tuple(self._hole(one) for one in problem.defects
                                                           if one.board == each.name))
            for at, each in enumerate(problem.stock)
        ]  # fmt: skip
        self.price = [each.price for each in self.stock]
        self.rate = {each.at: each.price / max(self.room(each), 1) for each in self.stock}
        self.sizes = [(tenths(each.length, up=True), tenths(each.width, up=True)) for each in problem.parts]
        self.demand = [each.quantity for each in problem.parts]
        self.turns = [each.turns for each in problem.parts]
        self.fits = [at for at in range(len(problem.parts)) if any(self._goes(at, each) for each in self.stock)]
        self.homeless = sum(self.demand) - sum(self.demand[at] for at in self.fits)
        self.pool: dict[tuple[int, tuple[int, ...]], _Piece] = {}

    def _hole(self, defect: Defect) -> tuple[int, int, int, int]:
        x0, y0 = tenths(defect.x, up=False) - self.trim, tenths(defect.y, up=False) - self.side
        x1, y1 = tenths(defect.x + defect.length, up=True), tenths(defect.y + defect.width, up=True)
        return x0, y0, x1 - self.trim, y1 - self.side

    def _goes(self, at: int, stock: _Stock) -> bool:
        a, b = self.sizes[at]
        return (a <= stock.length and b <= stock.width) or (self.turns[at] and b <= stock.length and a <= stock.width)

    def room(self, stock: _Stock) -> int:
        """Return what parts with their kerfs may take of a stock: all of it but its defects, a kerf round each off.

        A defect can be cut away with cuts that other parts need too: that much less is taken off, so that the bound
        never promises too much.
        """
        k = self.kerf
        whole = (stock.length + k) * (stock.width + k)
        lost = 0
        for x0, y0, x1, y1 in _apart(stock.holes):
            wide, high = min(x1, stock.length) - max(x0, 0) - k, min(y1, stock.width) - max(y0, 0) - k
            if wide > 0 and high > 0:
                lost += wide * high
        return max(whole - lost, 0)

    def may_win(
        self, pieces: list[_Piece], demand: list[int], left: dict[int, int | None], below: float
    ) -> bool:  # fmt: skip
        """Return whether the rest can still be cut for so little that the whole costs less than what is known."""
        if math.isinf(below):
            return True
        k = self.kerf
        need = sum(many * (self.sizes[at][0] + k) * (self.sizes[at][1] + k) for at, many in enumerate(demand) if many)
        spare = int(below) - sum(self.price[each.stock] for each in pieces)
        if spare <= 0:
            return False
        kinds = [(each.price, self.room(each), left[each.at]) for each in self.stock if left[each.at] != 0]
        return need == 0 or least_cost(kinds, need=need, at_least=0.0, most=spare) < spare

    def piece(self, stock: int, cuts: list[tuple[int, int, int, int, int]]) -> _Piece:
        """Return a piece of stock with its cuts, kept for the choice of whole sets."""
        used = [0] * len(self.demand)
        for cut in cuts:
            used[cut[2]] += 1
        made = _Piece(stock, cuts)
        self.pool.setdefault((stock, tuple(used)), made)
        return made

    # --- one plan --------------------------------------------------------------------------------------------

    def whole_plan(
        self,
        worth: dict[int, float],
        ways: str,
        source: random.Random,
        rounds: int,
        watch: Watch | None,
        below: float = math.inf,
    ) -> tuple[list[_Piece] | None, int]:
        """Return a plan of everything and how many parts it leaves; None where the watch ended it. below: what a plan
        must cost less than, hundredths: one that cannot is given up.
        """
        noise = 0.0 if rounds == 0 else NOISE
        value = {at: each * (1.0 + noise * source.uniform(-1.0, 1.0)) for at, each in worth.items()}
        demand = [count if at in value else 0 for at, count in enumerate(self.demand)]
        left = {each.at: each.count for each in self.stock}
        pieces: list[_Piece] = exact.perfect_pieces(self, demand, left, source) if rounds else []
        if rounds and not self.may_win(pieces, demand, left, below):
            return [], sum(demand) + self.homeless + 1
        while any(demand):
            if watch is not None and watch.over():
                return None, 0
            found: tuple[float, _Piece, list[int]] | None = None
            for stock in self._asked(left, demand, source):
                made, used = self._filled(stock, value, demand, ways)
                gain = sum(value[at] * many for at, many in enumerate(used) if many)
                if made.cuts:
                    self.pool.setdefault((stock.at, tuple(used)), made)
                rate = gain / max(stock.price, 1)
                if made.cuts and (found is None or rate > found[0]):
                    found = (rate, made, used)
            if found is None:
                break
            _, made, used = found
            repeat = self._again(made, used, demand, left)
            for _ in range(repeat):
                pieces.append(_Piece(made.stock, list(made.cuts)))
                demand = [a - b for a, b in zip(demand, used, strict=True)]
                count = left[made.stock]
                if count is not None:
                    left[made.stock] = count - 1
        self._cheaper(pieces, left)
        return pieces, sum(demand) + self.homeless

    def _asked(self, left: dict[int, int | None], demand: list[int], source: random.Random) -> list[_Stock]:
        """Return the kinds of stock that are tried for the next piece: all, or a few of many alike."""
        there = [each for each in self.stock if left[each.at] != 0]
        return there if len(there) <= 6 else sorted(source.sample(there, 6), key=lambda each: each.at)

    def _again(self, made: _Piece, used: list[int], demand: list[int], left: dict[int, int | None]) -> int:
        """Return how often the same piece is cut at once: half as often as its parts would allow, for long lists."""
        most = min(count // many for count, many in zip(demand, used, strict=True) if many)
        count = left[made.stock]
        most = most if count is None else min(most, count)
        return max(1, most // 2)

    def _filled(
        self, stock: _Stock, value: dict[int, float], demand: list[int], ways: str
    ) -> tuple[_Piece, list[int]]:  # fmt: skip
        """Return one piece of stock cut as well as can be, strips along it or across it, whichever is worth more."""
        best: tuple[float, _Piece, list[int]] | None = None
        for across in (False, True):
            if (across and ways == "rip") or (not across and ways == "cross"):
                continue
            cuts, used = _Filling(self, stock.turned() if across else stock, value, demand, across).fill()
            gain = sum(value[at] * many for at, many in enumerate(used) if many)
            if best is None or gain > best[0]:
                if across:
                    cuts = [(y, x, part, width, length) for x, y, part, length, width in cuts]
                best = (gain, _Piece(stock.at, cuts), used)
        assert best is not None
        return best[1], best[2]

    def _cheaper(self, pieces: list[_Piece], left: dict[int, int | None]) -> None:
        """Change each piece for the cheapest stock without defects that still holds its cuts and is left."""
        for piece in pieces:
            if not piece.cuts:
                continue
            long = max(x + length for x, _, _, length, _ in piece.cuts)
            wide = max(y + width for _, y, _, _, width in piece.cuts)
            for other in sorted(self.stock, key=lambda each: each.price):
                if other.price >= self.price[piece.stock]:
                    break
                count = left[other.at]
                if not other.holes and count != 0 and other.length >= long and other.width >= wide:
                    back = left[piece.stock]
                    left[piece.stock] = None if back is None else back + 1
                    left[other.at] = None if count is None else count - 1
                    piece.stock = other.at
                    break

    def correct(self, worth: dict[int, float], pieces: list[_Piece]) -> None:
        """Raise the worth of parts that lie on wasteful pieces: the next plan cuts them first."""
        total: dict[int, float] = {}
        many: dict[int, int] = {}
        for piece in pieces:
            area = sum(length * width for _, _, _, length, width in piece.cuts)
            stock = self.stock[piece.stock]
            waste = stock.length * stock.width / max(area, 1)
            for _, _, part, length, width in piece.cuts:
                total[part] = total.get(part, 0.0) + length * width * min(waste, 3.0)
                many[part] = many.get(part, 0) + 1
        for part, each in total.items():
            worth[part] = MEMORY * worth[part] + (1 - MEMORY) * each / many[part]

    def plan(self, pieces: Sequence[_Piece], bound: float, watch: Watch) -> CutPlan:
        """Return the plan in mm, from the stock's corner."""
        cuts: list[Cut] = []
        index: dict[int, int] = {}
        done = [0] * len(self.demand)
        for piece in sorted(pieces, key=lambda each: each.stock):
            stock = self.problem.stock[piece.stock]
            number = index.get(piece.stock, 0)
            index[piece.stock] = number + 1
            for x, y, at, length, _ in sorted(piece.cuts):
                part = self.problem.parts[at]
                turned = length != self.sizes[at][0]
                size = (part.width, part.length) if turned else (part.length, part.width)
                cuts.append(Cut(stock.name, number, part.name, (x + self.trim) / SCALE, (y + self.side) / SCALE, *size))
                done[at] += 1
        left = tuple((part.name, part.quantity - many) for part, many in zip(self.problem.parts, done, strict=True)
                     if many < part.quantity)  # fmt: skip
        cost = round(sum(self.problem.stock[at].price * many for at, many in index.items()), 6)
        used = tuple((self.problem.stock[at].name, many) for at, many in sorted(index.items()))
        return CutPlan(cost, min(bound, cost) if not left else 0.0, tuple(cuts), left, used, watch.gone)


def _apart(holes: Sequence[tuple[int, int, int, int]]) -> list[tuple[int, int, int, int]]:
    """Return the defects that overlap no larger one: what is counted once is enough for a bound."""
    found: list[tuple[int, int, int, int]] = []
    for x0, y0, x1, y1 in sorted(holes, key=lambda each: -(each[2] - each[0]) * (each[3] - each[1])):
        if all(x1 <= a0 or a1 <= x0 or y1 <= b0 or b1 <= y0 for a0, b0, a1, b1 in found):
            found.append((x0, y0, x1, y1))
    return found


class _Filling:
    """Strips in one piece of stock, in its own frame: strips run along x."""

    def __init__(self, shop: _Shop, stock: _Stock, value: dict[int, float], demand: list[int], across: bool) -> None:
        self.shop, self.stock, self.value = shop, stock, value
        self.left = list(demand)
        self.used = [0] * len(demand)
        self.ways: list[_Way] = []
        for at in value:
            a, b = shop.sizes[at]
            lies = [(b, a)] if across else [(a, b)]
            if shop.turns[at] and a != b:
                lies.append(lies[0][::-1])
            for along, wide in lies:
                if self.left[at] and along <= stock.length and wide <= stock.width:
                    self.ways.append(_Way(at, along, wide))
        self.ways.sort(key=lambda way: (way.across, -way.along))

    def fill(self) -> tuple[list[tuple[int, int, int, int, int]], list[int]]:
        """Return the cuts and how many of each part they hold: strip upon strip until none is worth its width."""
        cuts: list[tuple[int, int, int, int, int]] = []
        y, k = 0, self.shop.kerf
        marks = sorted({0, *(y1 for _, _, _, y1 in self.stock.holes if 0 < y1 < self.stock.width)})
        while y < self.stock.width:
            ways = [way for way in self.ways if self.left[way.part]]
            room = self.stock.width - y
            ways = [way for way in ways if way.across <= room]
            if not ways:
                break
            wide, strip = self._next_strip(ways, y, room)
            if not strip:
                later = next((each for each in marks if each > y), None)
                if later is None:
                    break
                y = later
                continue
            for x, way in strip:
                cuts.append((x, y, way.part, way.along, way.across))
                self.left[way.part] -= 1
                self.used[way.part] += 1
            y += wide + k
        return cuts, self.used

    def _next_strip(self, ways: list[_Way], y: int, room: int) -> tuple[int, list[tuple[int, _Way]]]:
        """Return the width of the next strip and what lies in it: of the strips that fill the width best together, the
        one that is filled best itself."""
        import numpy as np

        tables = _Tables(ways, self.left, self.value, self.stock.length + self.shop.kerf, self.shop.kerf)
        k = self.shop.kerf
        widths = [wide for wide in tables.widths if wide <= room]
        gains = [sum(tables.best(wide, b - a + k) for a, b in self._free(y, wide)) for wide in widths]
        # Which widths fill the room best together: a knapsack over it, each strip as often as its parts would go.
        unit = math.gcd(*(wide + k for wide in widths), room + k)
        size = (room + k) // unit
        value = np.zeros(size + 1)
        first = np.full(size + 1, -1, dtype=np.int32)
        for at, wide in enumerate(widths):
            weight = (wide + k) // unit
            for _ in range(min(tables.strips(wide, self.stock.length + k), size // weight)):
                with_it = value[: size + 1 - weight] + gains[at]
                better = with_it > value[weight:] + 1e-6
                value[weight:][better] = with_it[better]
                first[weight:][better] = at
        taken, spot = [], size
        while spot > 0 and first[spot] >= 0:
            taken.append(int(first[spot]))
            spot -= (widths[taken[-1]] + k) // unit
            if len(taken) > 64:
                break
        if not taken:
            return 0, []
        pick = max(taken, key=lambda at: gains[at] / (widths[at] + k))
        wide = widths[pick]
        strip: list[tuple[int, _Way]] = []
        left = list(self.left)
        for a, b in sorted(self._free(y, wide), key=lambda span: span[0] - span[1]):
            x = a
            for way in tables.taken(wide, b - a + k, left):
                strip.append((x, way))
                left[way.part] -= 1
                x += way.along + k
        return wide, strip

    def _free(self, y: int, wide: int) -> list[tuple[int, int]]:
        return _free_spans(self.stock, y, wide)


def _free_spans(stock: _Stock, y: int, wide: int) -> list[tuple[int, int]]:
    """Return the spans of a strip that no defect reaches into."""
    holes = sorted((x0, x1) for x0, y0, x1, y1 in stock.holes if y0 < y + wide and y1 > y)
    found, at = [], 0
    for x0, x1 in holes:
        if x0 > at:
            found.append((at, min(x0, stock.length)))
        at = max(at, x1)
    if at < stock.length:
        found.append((at, stock.length))
    return found


class _Tables:
    """For every width of strip the most that parts of at most that width are worth in any length of it."""

    def __init__(self, ways: list[_Way], left: list[int], value: dict[int, float], longest: int, kerf: int) -> None:
        import numpy as np

        self.ways, self.kerf = ways, kerf
        self.unit = math.gcd(longest, *(way.along + kerf for way in ways))
        size = longest // self.unit
        table = np.zeros(size + 1)
        self.rows: list[tuple[_Way, int, np.ndarray]] = []
        self.tables: dict[int, np.ndarray] = {}
        self.upto: dict[int, int] = {}
        self._left = left
        for way in ways:
            weight = (way.along + kerf) // self.unit
            count, share = min(left[way.part], size // weight if weight else 0), 1
            while count > 0:
                take = min(share, count)
                count -= take
                share *= 2
                with_it = table[: size + 1 - take * weight] + take * value[way.part]
                better = with_it > table[take * weight :] + 1e-6
                table[take * weight :][better] = with_it[better]
                self.rows.append((way, take, better))
            self.tables[way.across] = table.copy()
            self.upto[way.across] = len(self.rows)
        self.widths = sorted(self.tables)

    def best(self, wide: int, length: int) -> float:
        """Return the most that is worth in a span of a strip."""
        return float(self.tables[wide][max(length, 0) // self.unit])

    def strips(self, wide: int, longest: int) -> int:
        """Return in how many strips of that width its own parts would go."""
        total = sum(self._left[way.part] * (way.along + self.kerf) for way in self.ways if way.across == wide)
        return max(1, -(-total // longest))

    def taken(self, wide: int, length: int, left: list[int]) -> list[_Way]:
        """Return what lies in that span, the widest first; no more of a part than is left."""
        found: list[_Way] = []
        at, spare = max(length, 0) // self.unit, list(left)
        for way, take, better in reversed(self.rows[: self.upto[wide]]):
            weight = take * ((way.along + self.kerf) // self.unit)
            if at >= weight and better[at - weight]:
                for _ in range(min(take, spare[way.part])):
                    found.append(way)
                    spare[way.part] -= 1
                at -= weight
        return sorted(found, key=lambda way: (-way.across, -way.along))
