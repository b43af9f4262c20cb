"""Cut list and boring list as CSV, and all figures as JSON records."""

from __future__ import annotations

import csv
import io
from typing import Any

from oakmeasure.core.base.units import Show
from oakmeasure.core.cutting.model import CutPlan
from oakmeasure.core.document.constructions import trade_name
from oakmeasure.core.document.job import Hand, Hanging
from oakmeasure.core.document.species import stuff
from oakmeasure.core.hardware.clash.zones import zones
from oakmeasure.core.paper.rods import rods
from oakmeasure.core.planning.job_plan import to_buy
from oakmeasure.core.planning.plan_model import JobPlan
from oakmeasure.core.planning.setups import setups
from oakmeasure.core.solution import LeafSolution, Solution

CUT_LIST_HEADER = (
    "leaf",
    "no",
    "part",
    "pieces",
    "species",
    "length_mm",
    "width_mm",
    "thickness_mm",
    "planed_length_mm",
    "planed_width_mm",
    "planed_thickness_mm",
    "rough_length_mm",
    "rough_width_mm",
    "rough_thickness_mm",
    "mass_kg",
    "note",
)
KEEP_OUT_HEADER = (
    "leaf",
    "hand",
    "keep free",
    "from_top_mm",
    "to_mm",
    "from_hinge_edge_mm",
    "in_to_mm",
    "from_opening_face_mm",
    "deep_to_mm",
    "comes from",
)
BORING_LIST_HEADER = (
    "leaf",
    "hand",
    "what",
    "member",
    "edge",
    "datum",
    "mark_mm",
    "marked_by",
    "from_top_mm",
    "to_mm",
    "along_mm",
    "across_mm",
    "depth_mm",
)
SETTINGS_HEADER = ("machine", "set_to_mm", "thickness_mm", "pieces", "leaf", "part", "of_it")


def settings_csv(solution: Solution) -> str:
    """Return the cut list by setting: planer, fence and stop over all leaves, the largest first; planed sizes, mm.

    Args:
        solution: The job, worked out.
    """
    rows = []
    for each in setups(solution.leaves):
        for piece in each.pieces:
            rows.append(
                [
                    str(each.machine),
                    _mm(each.size),
                    _mm(each.thickness) if each.thickness else "",
                    str(each.count),
                    piece.leaf,
                    piece.part.name,
                    str(piece.count),
                ]
            )
    return written_csv(SETTINGS_HEADER, rows)


def cut_record(plan: CutPlan) -> dict[str, Any]:
    """Return a cutting plan as plain values: cost, bound, gap, pieces of stock, and every part where it lies, mm.

    Args:
        plan: The plan.
    """
    return {
        "cost": plan.cost,
        "bound": round(plan.bound, 6),
        "gap": round(plan.gap, 6),
        "least_possible": plan.is_least,
        "stock_used": sum(many for _, many in plan.used),
        "seconds": round(plan.seconds, 2),
        "left": [{"part": name, "qty": many} for name, many in plan.left],
        "pieces": [
            {
                "stock": each.stock,
                "index": each.index,
                "part": each.part,
                "x": each.x,
                "y": each.y,
                "length": each.length,
                "width": each.width,
            }
            for each in plan.cuts
        ],
    }


def buy_csv(plan: JobPlan) -> str:
    """Return what is to be bought for a plan: sizes, mm, how many, the price of one and of all.

    Args:
        plan: The plan of the job's wood.
    """
    rows = []
    for each in to_buy(plan):
        item = each.source.item
        kind = type(item).__name__.replace("Stock", "").lower()
        rows.append(
            [
                kind,
                stuff(each.made_of).name,
                _mm(item.length),
                _mm(item.width),
                _mm(item.thickness),
                str(each.count),
                f"{each.source.price:.2f}",
                f"{each.cost:.2f}",
            ]
        )
    return written_csv(("kind", "wood", "length_mm", "width_mm", "thickness_mm", "pieces", "price", "together"), rows)


def keep_outs_csv(solution: Solution) -> str:
    """Return where in each leaf nothing may be driven, mm, for both hands of a pair.

    Args:
        solution: The job, worked out.
    """
    rows = []
    for leaf in solution.leaves:
        if leaf.body is None:
            continue
        for hand in hands_of(leaf):
            for zone in zones(leaf.clashes, leaf.body):
                lengths = (zone.from_top, zone.to, zone.from_hinge, zone.in_to, zone.deep_from, zone.deep_to)
                if belongs(leaf, hand, zone.is_slow, zone.is_active):
                    rows.append([leaf.leaf.name, hand, zone.name, *map(_mm, lengths), zone.in_words()])
    return written_csv(KEEP_OUT_HEADER, rows)


def rods_csv(leaf: LeafSolution) -> str:
    """Return every mark of both rods of a leaf, each from one end, mm.

    Args:
        leaf: The leaf, worked out to the end.
    """
    rows = [[rod.name, rod.datum, f"{mark.at:.2f}", "; ".join(mark.what)] for rod in rods(leaf) for mark in rod.marks()]
    return written_csv(("rod", "from", "at_mm", "what"), rows)


def cut_list_csv(solution: Solution) -> str:
    """Return the cut list of all leaves: finished, planed (trimming allowance still on) and rough sizes, mm.

    Args:
        solution: The job, worked out.
    """
    rows = []
    for leaf in solution.leaves:
        for part in leaf.cut_parts:
            sizes = [
                _mm(value)
                for size in (part.finished, part.planed, part.rough)
                for value in (size.length, size.width, size.thickness)
            ]
            mass = leaf.mass_of(part)
            weight = f"{mass.value:.2f}" if mass else ""
            rows.append(
                [
                    leaf.leaf.name,
                    part.mark,
                    part.name,
                    str(leaf.pieces_of(part)),
                    stuff(part.species).name,
                    *sizes,
                    weight,
                    part.note,
                ]
            )
    return written_csv(CUT_LIST_HEADER, rows)


def hands_of(leaf: LeafSolution) -> tuple[str, ...]:
    """Return the hands of all leaves in an opening: its own, and of a pair the other one's, which is mirrored.

    Args:
        leaf: The leaf, worked out to the end.
    """
    mine = leaf.leaf.hand
    if leaf.leaf.hanging is not Hanging.PAIR:
        return (str(mine),)
    return str(mine), str(Hand.LEFT if mine is Hand.RIGHT else Hand.RIGHT)


def belongs(leaf: LeafSolution, hand: str, slow: bool, active: bool) -> bool:
    """Return whether a cut is made in the leaf of that hand: of a pair the first is active, the other one is slow.

    Args:
        leaf: The leaf, worked out to the end.
        hand: Whose hand the row is for; "" for both.
        slow: Whether the row is for the slow leaf of a pair.
        active: Whether it is for the leaf that opens first.
    """
    if leaf.leaf.hanging is not Hanging.PAIR:
        return True
    is_first = hand == str(leaf.leaf.hand)
    return not (slow and is_first) and not (active and not is_first)


def boring_list_csv(solution: Solution) -> str:
    """Return what is let in for hardware, on leaf and lining, each measured down from one end, mm.

    Args:
        solution: The job, worked out.
    """
    rows = []
    for leaf in solution.leaves:
        for hand, cut in ((hand, cut) for hand in hands_of(leaf) for cut in leaf.borings):
            if not belongs(leaf, hand, cut.is_slow, cut.is_active):
                continue
            numbers = (cut.from_top, cut.to, cut.along, cut.across, cut.depth)
            mark = _mm(cut.marked_at), "its middle" if cut.kind.is_round else "its upper end"
            where = leaf.leaf.name, hand, cut.name, cut.member, cut.edge, cut.datum
            rows.append([*where, *mark, *(_mm(each) for each in numbers)])
    return written_csv(BORING_LIST_HEADER, rows)


def _mm(value: float) -> str:
    return f"{value:.2f}".rstrip("0").rstrip(".")


def escaped(cell: str) -> str:
    """Return a cell that a spreadsheet reads as text: one that starts like a formula gets an apostrophe.

    Args:
        cell: The cell's text.
    """
    return "'" + cell if cell[:1] in "=+-@\t\r" and not _is_number(cell) else cell


def unescaped(cell: str) -> str:
    """Return a cell without the mark that keeps it from being taken for a formula.

    Args:
        cell: The cell as it was read.
    """
    return cell[1:] if cell[:1] == "'" and cell[1:2] in ("=", "+", "-", "@") else cell


def _is_number(cell: str) -> bool:
    try:
        float(cell)
    except ValueError:
        return cell == ""
    return True


def written_csv(header: tuple[str, ...], rows: list[list[str]]) -> str:
    """Return a table as CSV; no cell can be taken for a formula.

    Args:
        header: Names of the columns.
        rows: The rows, a text for each column.
    """
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow(header)
    writer.writerows([escaped(cell) for cell in row] for row in rows)
    return stream.getvalue()


def figures_record(solution: Solution) -> dict[str, Any]:
    """Return all figures, parts, borings and checks of a job as plain values.

    Args:
        solution: The job, worked out.
    """
    show = Show(solution.job.unit)
    return {
        "leaves": [_leaf_record(leaf, show) for leaf in solution.leaves],
        "verdicts": [_check_record(each) for each in solution.checks],
    }


def _leaf_record(leaf: LeafSolution, show: Show) -> dict[str, Any]:
    figures = {
        each.name: {
            "label": each.label,
            "value": each.value,
            "unit": str(each.unit),
            "state": str(each.state or "chosen"),
            "rests_on": sorted(each.rests_on),
            "working": each.lines(show),
        }
        for each in leaf.figures
    }
    return {
        "id": leaf.leaf.id,
        "name": leaf.leaf.name,
        "construction": trade_name(leaf.leaf.build.kind),
        "hanging": str(leaf.leaf.hanging),
        "hand": str(leaf.leaf.hand),
        "figures": figures,
        "parts": [_part_record(leaf, part) for part in leaf.cut_parts],
        "borings": [
            {
                "what": each.name,
                "member": each.member,
                "edge": each.edge,
                "datum": each.datum,
                "from_top": each.from_top,
                "along": each.along,
                "across": each.across,
                "depth": each.depth,
            }
            for each in leaf.borings
        ],
        "verdicts": [_check_record(each) for each in leaf.checks],
    }


def _part_record(leaf: LeafSolution, part: Any) -> dict[str, Any]:
    def size(of: Any) -> dict[str, float]:
        return {"length": of.length, "width": of.width, "thickness": of.thickness}

    return {
        "name": part.name,
        "pieces": leaf.pieces_of(part),
        "note": part.note,
        "species": part.species,
        "grain": "upright" if part.grain_upright else "level",
        "finished": size(part.finished),
        "planed": size(part.planed),
        "rough": size(part.rough),
        "mass_kg": mass.value if (mass := leaf.mass_of(part)) else None,
    }


def _check_record(check: Any) -> dict[str, Any]:
    return {
        "code": check.code,
        "level": str(check.level),
        "stage": str(check.stage),
        "title": check.title,
        "sentence": check.sentence,
        "rule": check.rule,
        "where": check.where,
        "figure": check.figure,
        "remedies": [each.text for each in check.remedies],
    }
