"""One door to the three solvers, and what is told of a plan: what is left over, and what would help."""

from __future__ import annotations

from oakmeasure.core.cutting.model import CutKind, CutPlan, Deadline, PartItem, Problem, StockItem

TIDY = 0.3  # seconds at the most, to bring what bars leave together
LONG = 250  # parts of bars; more are near enough by columns alone
BY_COLUMNS = 0.75  # of the time for bars, for columns; the rest for taking bars apart that nearly fit


def cut(problem: Problem, watch: Deadline) -> CutPlan:
    """Return the best plan that is found until the watch ends it.

    What fits no stock, or finds none left, is left.

    Args:
        problem: What is to be cut out of what.
        watch: The time that there is, who may stop it, and whom to tell.
    """
    if problem.kind is CutKind.BARS:
        from oakmeasure.core.cutting.one_d.bars import plan_bars
        from oakmeasure.core.cutting.one_d.repack import better_bars

        if sum(each.quantity for each in problem.parts) > LONG:
            return plan_bars(problem, watch)
        plan = plan_bars(problem, Deadline(BY_COLUMNS * watch.seconds, watch.stop, watch.tell, watch.clock))
        if plan.left:
            return plan
        if not plan.is_least:
            plan = better_bars(problem, plan, watch)
        tidied = better_bars(
            problem, plan, Deadline(min(TIDY, 0.1 * watch.seconds, max(watch.left, 0.0)), clock=watch.clock), tidy=True
        )
        return max((plan, tidied), key=lambda each: longest_offcut(problem, each))
    from oakmeasure.core.cutting.two_d.strips import plan_strips

    return plan_strips(problem, watch)


def longest_offcut(problem: Problem, plan: CutPlan) -> float:
    """Return the longest piece that is left of a bar, mm.

    Args:
        problem: What is to be cut out of what.
        plan: The plan.
    """
    length = {each.name: each.length for each in problem.stock}
    end: dict[tuple[str, int], float] = {}
    for cut in plan.cuts:
        key = (cut.stock, cut.index)
        end[key] = max(end.get(key, 0.0), cut.x + cut.length)
    return max((length[name] - each for (name, _), each in end.items()), default=0.0)


def fits(part: PartItem, stock: StockItem, problem: Problem) -> bool:
    """Return whether a part goes into a whole piece of stock without regard to its defects.

    Args:
        part: The part.
        stock: The piece of stock.
        problem: What is to be cut out of what.
    """
    long = stock.length - 2 * problem.trim + 1e-6
    if problem.kind is CutKind.BARS:
        return part.length <= long
    wide = stock.width - (2 * problem.trim if problem.kind is CutKind.SHEETS else 0.0) + 1e-6
    return (part.length <= long and part.width <= wide) or (part.turns and part.width <= long and part.length <= wide)


def why_left(problem: Problem, plan: CutPlan) -> list[str]:
    """Return for each part that is left how many, why, and what would help.

    Args:
        problem: What is to be cut out of what.
        plan: The plan.
    """
    said = []
    by_name = {each.name: each for each in problem.parts}
    for name, many in plan.left:
        part = by_name[name]
        size = f"{part.length:g}" if problem.kind is CutKind.BARS else f"{part.length:g} × {part.width:g}"
        if not any(fits(part, each, problem) for each in problem.stock):
            longest = max((each.length for each in problem.stock), default=0.0) - 2 * problem.trim
            widest = max((each.width for each in problem.stock), default=0.0)
            most = f"{longest:g}" if problem.kind is CutKind.BARS else f"{longest:g} × {widest:g}"
            said.append(
                f"{many} of {name} ({size}) fit no stock; the largest is {most}: larger stock, or make it of two"
            )
        else:
            said.append(f"{many} of {name} ({size}) are left over: more stock that holds them")
    return said
