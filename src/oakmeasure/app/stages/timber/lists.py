"""Lists of the Timber pages of the whole job: the rack, what to buy, veneers, readings, price."""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.app.shell.part_lists import Listed, ListRow
from oakmeasure.core.base.units import Show, counted
from oakmeasure.core.costing.pricing import BuyWay, Price
from oakmeasure.core.document.job import Job, TimberChoices
from oakmeasure.core.document.species import stuff
from oakmeasure.core.document.stock import Came
from oakmeasure.core.planning.job_plan import cost_to_buy, to_buy
from oakmeasure.core.planning.plan_model import JobPlan
from oakmeasure.core.planning.veneer_plan import VeneerPlan
from oakmeasure.core.reports.stock_advice import remarks
from oakmeasure.core.timber.drying import trend
from oakmeasure.core.timber.place import rests_at


def rack_list(job: Job, show: Show, timber: TimberChoices) -> Listed:
    """Return header and rows of the rack: every board, and what is to be thought of with it."""
    header = ("board", "species", "size", "came as", "%", "to think of")
    rows = []
    rest = rests_at(timber)
    for at, each in enumerate(job.boards):
        if not each.is_owned:
            continue
        wet = f"{each.readings[-1].percent:.1f}" if each.readings else "–"
        said = remarks(each, rest, show)
        many = f" × {each.quantity}" if (each.quantity or 1) > 1 else ""
        rows.append(
            ListRow(
                (
                    f"{each.label or '–'}{many}",
                    stuff(each.species).name if each.species else "any",
                    show.size(each.length, each.width, each.thickness),
                    "" if each.came is Came.NEW else str(each.came),
                    wet,
                    "; ".join(said),
                ),
                f"rack:{at}",
            )
        )
    for sheet in job.sheets:
        if sheet.quantity is not None:
            size = show.size(sheet.length, sheet.width, sheet.thickness)
            rows.append(ListRow((sheet.label or "–", stuff(sheet.material).name, size, _came(sheet.came), "–", ""), ""))
    return header, rows


def _came(came: Came) -> str:
    return "" if came is Came.NEW else str(came)


def buy_list(plan: JobPlan | None, show: Show) -> Listed:
    """Return header and rows of what is to be bought, and of what finds no stock."""
    header = ("to buy", "wood", "size", "each", "sum")
    if plan is None:
        return header, []
    rows = []
    for each in to_buy(plan):
        item = each.source.item
        size = show.size(item.length, item.width, item.thickness)
        rows.append(
            ListRow(
                (f"{each.count} ×", stuff(each.made_of).name, size, f"{each.source.price:.2f}", f"{each.cost:.2f}"), ""
            )
        )
    rows.sort(key=lambda row: row.cells[1])
    rows.append(ListRow(("all of it", "", "", "", f"{cost_to_buy(plan):.2f}"), ""))
    rows += [
        ListRow(("not planned", wanted.name, wanted.leaf_name, reason, ""), "") for wanted, reason in plan.homeless
    ]
    return header, rows


def veneer_list(plan: VeneerPlan | None, show: Show) -> Listed:
    """Return header and rows of the veneers: what a board gives, what is left of them, and the ways out."""
    header = ("veneers", "", "")
    if plan is None:
        return header, []
    got = plan.resawn
    rows = [
        ListRow(("from one board", f"{len(got.slices)}", f"of {show.length(plan.stock)}"), ""),
        ListRow(("needed", f"{plan.needed}", counted(plan.boards, "board")), ""),
        ListRow(("left when sanded", show.length(got.finished), f"thinnest place {show.length(got.thinnest)}"), ""),
    ]
    if plan.at_hand is not None and plan.boards > plan.at_hand:
        rows.append(ListRow(("short", f"{plan.at_hand} at hand", f"{plan.boards} wanted"), ""))
    for way in plan.ways:
        fit = "holds" if way.holds else "too thin"
        rows.append(ListRow(("way out", way.words, f"thinnest {show.length(way.thinnest)}: {fit}"), ""))
    return header, rows


def drying_list(job: Job, timber: TimberChoices) -> Listed:
    """Return header and rows of every board with readings: how wet, how fast, when ready."""
    header = ("board", "readings", "last", "at rest", "a week now", "ready")
    rows = []
    rest = rests_at(timber)
    for at, each in enumerate(job.boards):
        found = trend(each.readings, rest)
        if found is None:
            continue
        ready = "not drying" if found.ready is None else f"{found.ready:%d %b %Y} ± {found.either_side:.0f} days"
        if found.is_ready:
            ready = "now"
        rows.append(
            ListRow(
                (
                    each.label or "–",
                    f"{len(each.readings)}",
                    f"{found.last:.1f} %",
                    f"{rest:.1f} %",
                    f"{found.a_week:+.2f}",
                    ready,
                ),
                f"rack:{at}",
            )
        )
    return header, rows


def price_list(price: Price | None, ways: Sequence[BuyWay]) -> Listed:
    """Return header and rows of the price, of the bought leaf, and of the parts bought three ways."""
    header = ("", "hours", "money", "")
    if price is None:
        return header, []
    rows = [
        ListRow((each.words, f"{each.hours:.1f}" if each.hours else "", f"{each.value:.2f}", each.note), "")
        for each in price.lines
    ]
    rows.append(ListRow(("price, with margin", "", f"{price.price:.2f}", ""), ""))
    if price.bought_price is not None:
        rows.append(
            ListRow(
                ("nearest bought leaf, altered and hung", "", f"{price.bought_price:.2f}", "with the same margin"), ""
            )
        )
    rows += [
        ListRow((each.words, f"{each.hours:.1f}" if each.hours else "", f"{each.total:.2f}", each.note), "")
        for each in ways
    ]
    return header, rows
