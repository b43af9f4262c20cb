"""What a leaf takes: hours by what is made, timber and sheet as bought, money; to compare, not to invoice.

Sources: data/hours.toml and the shop rules, both made up from common practice; timber by whole boards of the plan.
"""

from __future__ import annotations

from oakmeasure.core.base.units import MM2_PER_M2, MM3_PER_M3, Unit, counted
from oakmeasure.core.cutting.leaf_plan import LeafPlan, board_at
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import SheetMaterial, stuff
from oakmeasure.core.document.stock import Board
from oakmeasure.core.figures.figure import Figure, fixed, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.data import table

SHEET_PRICED_AT = 12.0  # thickness that price_m2 is for, mm


def cost_up(ctx: Context, build: Build, plan: LeafPlan, rack: tuple[Board, ...], leaves: int) -> None:
    """Add hours, timber, sheet and cost of a leaf; of several alike, of all of them where timber is counted.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        plan: The leaf's own parts on the stock.
        rack: The boards that there are, and that can be bought.
        leaves: How many leaves alike hang in the opening.
    """
    hours = _hours(ctx, build)
    timber, sheet = _timber(ctx, plan, rack, leaves), _sheet(ctx, plan, leaves)
    price = ctx.rule("hour_price", "an hour of work", Unit.MONEY)
    work = ctx.figures.derived(
        "cost_work",
        "work",
        hours.value * price.value,
        hours,
        price,
        formula="hours × the hour's price",
        unit=Unit.MONEY,
    )
    ctx.figures.total("cost", "cost of one leaf", plus(work), plus(timber), plus(sheet))


def _hours(ctx: Context, build: Build) -> Figure:
    """Add the hours: each part, joint, fixing and glue-up, and the finish by its area."""
    rows, other = table("hours")["part"], table("hours")["other"]
    new = [part for part in build.parts if not part.at_hand or (part.role is Role.VENEER and not part.is_old)]
    old = any(part.is_old for part in build.parts)
    faces = 2 * build.width * build.height / MM2_PER_M2
    f = ctx.figures
    reworked = {
        key: f[figure_name(f"work_{key}")].value for key in ("reduce", "extend") if figure_name(f"work_{key}") in f
    }
    items = {
        "parts": sum(rows.get(str(part.role), 0.3) for part in new),
        "joints": other["tenon"] * len(build.tenons) + other["fixing"] * len(build.fixings),
        "glue": other["glue_up"] * len(build.glue_ups),
        "finish": other["finish_per_m2"] * faces,
        "old": other["work_on_old"] if old else 0.0,
        "reduce": reworked.get("reduce", 0.0),
        "extend": reworked.get("extend", 0.0),
    }
    words = {
        "parts": counted(len(new), "part"),
        "joints": f"{counted(len(build.tenons), 'joint')}, {counted(len(build.fixings), 'fixing')}",
        "glue": counted(len(build.glue_ups), "glue-up"),
        "finish": "finish on both faces",
        "reduce": "making it narrower",
        "extend": "making it longer",
        "old": "taking down and cleaning the old leaf",
    }
    terms = [
        plus(
            ctx.figures.given(
                figure_name(f"hours_{key}"),
                f"hours, {words[key]}",
                value,
                fixed(source="made up from common practice"),
                unit=Unit.HOURS,
            )
        )
        for key, value in items.items()
        if value
    ]
    return ctx.figures.total("hours", "hours of work", *terms)


def _timber(ctx: Context, plan: LeafPlan, rack: tuple[Board, ...], leaves: int) -> Figure:
    """Add the boards of the plan as bought: by their own price where they have one, else by the cubic metre."""
    by_price = volume = 0.0
    for group in plan.groups:
        if isinstance(stuff(group.species), SheetMaterial):
            continue
        for cut in group.plan.boards:
            price = cut.stock.price if rack[board_at(cut.stock.name)].price is not None else None
            if price is None:
                volume += cut.stock.area * group.thickness / MM3_PER_M3
            else:
                by_price += price
    cubic = ctx.figures.given(
        "timber_volume",
        "boards as bought, cubic metres, a leaf",
        volume / leaves,
        fixed(source="whole boards of the plan"),
        unit=Unit.RATIO,
    )
    rate = ctx.rule("timber_price", "a cubic metre of sawn timber", Unit.MONEY)
    return ctx.figures.derived(
        "cost_timber",
        "timber",
        by_price / leaves + cubic.value * rate.value,
        cubic,
        rate,
        formula="cubic metres × price, or the boards' own prices",
        unit=Unit.MONEY,
    )


def _sheet(ctx: Context, plan: LeafPlan, leaves: int) -> Figure:
    value = area = 0.0
    for group in plan.groups:
        made_of = stuff(group.species)
        if isinstance(made_of, SheetMaterial):
            square = sum(cut.stock.area for cut in group.plan.boards) / MM2_PER_M2
            area += square
            value += square * made_of.price_m2 * group.thickness / SHEET_PRICED_AT
    bought = ctx.figures.given(
        "sheet_area", "sheet as bought, a leaf", area / leaves, fixed(source="whole sheets of the plan"), unit=Unit.M2
    )
    return ctx.figures.derived(
        "cost_sheet", "sheet", value / leaves, bought, formula="each by its kind and thickness", unit=Unit.MONEY
    )
