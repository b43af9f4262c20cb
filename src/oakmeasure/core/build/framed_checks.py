"""What can be wrong with a framed leaf. Every check runs; each finding names what would mend it."""

from __future__ import annotations

import math

from oakmeasure.core.build.shape import Rect
from oakmeasure.core.context import Context
from oakmeasure.core.fit.shape import Fit
from oakmeasure.core.job import Framed
from oakmeasure.core.verdicts import Level, Remedy, Stage
from oakmeasure.core.working import Figure

ROUNDING = 1e-6  # mm
PANEL_LEAST = 20.0  # narrower than this is no panel: common practice, no source
BLIND_WOOD = 10.0  # wood that stays beyond a blind mortise: common practice, no source
BETWEEN_MUNTINS = 10.0  # wood between two muntin tenons in one rail: common practice, no source
DEEPEST_GROOVE = 40.0  # as the document allows
TONGUE_WOOD = 5.0  # wood each side of a groove: common practice, no source


def judge(
    ctx: Context,
    choice: Framed,
    fit: Fit,
    rails: dict[str, Rect],
    rows: list,
    columns: list,
    shoulder: Figure,
    tenon: Figure,
    groove: Figure,
) -> None:
    """Judge the frame."""
    stops = len(ctx.findings.items)
    _widths(ctx, choice, fit, shoulder)
    _heights(ctx, choice, rails)
    if len(ctx.findings.items) == stops:
        across = f" and {len(columns)} wide" if len(columns) > 1 else ""
        ctx.say(
            "frame-fits",
            Level.FINE,
            Stage.LEAF,
            "The frame fills the leaf",
            f"{len(rows)} panel{'s' * (len(rows) != 1)} high{across}, {ctx.fmt(shoulder)} between shoulders.",
            figure="shoulder",
        )
    _joints(ctx, choice, tenon, groove)


def _widths(ctx: Context, choice: Framed, fit: Fit, shoulder: Figure) -> None:
    least = PANEL_LEAST if choice.muntin is None else 2 * PANEL_LEAST + choice.muntin
    short = least - shoulder.value
    if short <= ROUNDING:
        return
    stile = choice.stile - short / 2
    remedies = []
    if stile >= 30:
        remedies.append(Remedy(f"Stiles of {ctx.fmt(stile)}", "build.stile", stile))
    if choice.muntin is not None:
        if choice.muntin - short >= 20:
            narrower = choice.muntin - short
            remedies.append(Remedy(f"Muntin of {ctx.fmt(narrower)}", "build.muntin", narrower))
        if shoulder.value >= PANEL_LEAST:
            remedies.append(Remedy("No muntin", "build.muntin", None))
    sight = ctx.figures["sight_width"]
    what = "The stiles meet" if shoulder.value <= 0 else f"A panel must show {ctx.fmt(PANEL_LEAST)} or more"
    ctx.say(
        "panel-width",
        Level.STOP,
        Stage.LEAF,
        what,
        f"In {ctx.fmt(fit.width)} the stiles leave {ctx.fmt(shoulder)}; each panel would show {ctx.fmt(sight)}.",
        *(remedies or [Remedy("Narrower stiles and no muntin, or a wider opening")]),
        where="part:muntin" if choice.muntin else "part:hinge stile",
        figure="sight_width",
    )


def _heights(ctx: Context, choice: Framed, rails: dict[str, Rect]) -> None:
    top, bottom, middle = rails["top rail"], rails["bottom rail"], rails.get("middle rail")
    if middle is None:
        _gap_between(ctx, "bottom rail", bottom, "top rail", top, [])
        return
    floor = ctx.figures["gap_floor"].value
    half = middle.height / 2
    lowest, highest = bottom.y1 + PANEL_LEAST + half + floor, top.y0 - PANEL_LEAST - half + floor
    remedies = []
    if top.y0 - bottom.y1 >= PANEL_LEAST:
        remedies.append(Remedy("No middle rail", "build.middle_rail", None))
    if lowest <= highest:
        nearest = min(max(choice.lock_height, lowest), highest)
        remedies.insert(0, Remedy(f"Lock at {ctx.fmt(nearest)}", "build.lock_height", nearest))
    _gap_between(ctx, "bottom rail", bottom, "middle rail", middle, remedies)
    _gap_between(ctx, "middle rail", middle, "top rail", top, remedies)


def _gap_between(ctx: Context, low_name: str, low: Rect, high_name: str, high: Rect, remedies: list[Remedy]) -> None:
    sight = high.y0 - low.y1
    if sight >= PANEL_LEAST - ROUNDING:
        return
    title = f"{low_name.capitalize()} and {high_name} overlap" if sight < 0 else "A panel is too low"
    numbers = f"The {low_name} ends {ctx.fmt(low.y1)} up the leaf, the {high_name} begins at {ctx.fmt(high.y0)}: " + (
        f"they overlap by {ctx.fmt(-sight)}." if sight < 0 else f"{ctx.fmt(sight)} would show."
    )
    ctx.say(
        f"rails-{low_name}-{high_name}".replace(" ", "-"),
        Level.STOP,
        Stage.LEAF,
        title,
        numbers,
        *(remedies or [Remedy("Narrower rails")]),
        rule=f"a panel shows {ctx.fmt(PANEL_LEAST)} or more",
        where=f"part:{high_name}",
        figure=high_name.replace(" ", "_"),
    )


def _joints(ctx: Context, choice: Framed, tenon: Figure, groove: Figure) -> None:
    thickness, thick = ctx.figures["thickness"], ctx.figures["tenon_thickness"]
    if choice.tenon == "blind" and choice.stile - tenon.value < BLIND_WOOD:
        ctx.say(
            "tenon-deep",
            Level.LOOK,
            Stage.LEAF,
            "Little wood beyond the mortise",
            f"Tenon {ctx.fmt(tenon)} in a stile of {ctx.fmt(choice.stile)} leaves "
            f"{ctx.fmt(choice.stile - tenon.value)}.",
            Remedy("Wider stiles"),
            where="part:hinge stile",
            figure="tenon",
        )
    if choice.muntin is not None and choice.middle_rail is not None:
        between = choice.middle_rail - 2 * ctx.rules.muntin_tenon.value
        if between < BETWEEN_MUNTINS:
            needed = 2 * ctx.rules.muntin_tenon.value + BETWEEN_MUNTINS
            ctx.say(
                "muntin-tenons-meet",
                Level.STOP if between <= 0 else Level.LOOK,
                Stage.LEAF,
                "The muntins' tenons meet in the middle rail"
                if between <= 0
                else "Little wood between the muntins' tenons",
                f"Two of {ctx.fmt(ctx.rules.muntin_tenon.value)} in a rail of {ctx.fmt(choice.middle_rail)} leave "
                f"{ctx.fmt(between)}.",
                Remedy(f"Middle rail of {ctx.fmt(needed)}", "build.middle_rail", needed),
                where="part:middle rail",
                figure="middle_rail",
            )
    if thickness.value - thick.value < 2 * TONGUE_WOOD:
        ctx.say(
            "tenon-thick",
            Level.LOOK,
            Stage.LEAF,
            "Thin cheeks beside the mortise",
            f"Tenon {ctx.fmt(thick)} in {ctx.fmt(thickness)} leaves {ctx.fmt((thickness.value - thick.value) / 2)} "
            "a side.",
            Remedy("A thicker leaf or a smaller cutter"),
            figure="tenon_thickness",
        )
    narrowest = min(width for width in (choice.stile, choice.top_rail, choice.bottom_rail) if width)
    if groove.value > narrowest / 3:
        ctx.say(
            "groove-deep",
            Level.LOOK,
            Stage.LEAF,
            "The groove is deep for its frame",
            f"{ctx.fmt(groove)} in a member of {ctx.fmt(narrowest)}.",
            Remedy(f"Groove {ctx.fmt(narrowest / 3)}", "build.groove_depth", narrowest / 3),
            rule="at most a third of the member: common practice",
            figure="groove_depth",
        )


def judge_panels(
    ctx: Context, choice: Framed, hold: Figure, room: Figure, swell: Figure, groove: Figure, tenon_thick: Figure
) -> None:
    """Judge the panels in their grooves: held at the driest, free at the wettest."""
    least = ctx.rule("panel_hold", "least hold of a panel")
    free = room.value - swell.value / 2
    numbers = f"{ctx.fmt(hold)} held at the driest, {ctx.fmt(free)} free each side at the wettest."
    where = "part:panel"
    if hold.value < least.value:
        ctx.say(
            "panel-drops",
            Level.STOP if hold.value <= 0 else Level.LOOK,
            Stage.LEAF,
            "A panel may come out of its groove",
            numbers,
            _deeper_groove(ctx, choice, hold, least, swell, groove),
            rule=f"at least {ctx.fmt(least)} held",
            where=where,
            figure="panel_hold",
        )
    else:
        ctx.say(
            "panel-holds",
            Level.FINE,
            Stage.LEAF,
            "Panels stay in their grooves",
            numbers,
            where=where,
            figure="panel_hold",
        )
    wood = (choice.thickness - choice.panel_thickness) / 2
    if wood < TONGUE_WOOD:
        thinner = choice.thickness - 2 * TONGUE_WOOD
        ctx.say(
            "panel-thick",
            Level.STOP if wood <= 0 else Level.LOOK,
            Stage.LEAF,
            "The panel is thick for its frame",
            f"A groove of {ctx.fmt(choice.panel_thickness)} in {ctx.fmt(choice.thickness)} leaves "
            f"{ctx.fmt(wood)} each side.",
            Remedy(f"Panels of {ctx.fmt(thinner)}", "build.panel_thickness", thinner),
            rule=f"{ctx.fmt(TONGUE_WOOD)} or more each side",
            where=where,
            figure="thickness",
        )
    elif choice.panel_thickness > tenon_thick.value:
        ctx.say(
            "groove-wide",
            Level.LOOK,
            Stage.LEAF,
            "The groove is wider than the mortise",
            f"Groove {ctx.fmt(choice.panel_thickness)}, mortise {ctx.fmt(tenon_thick)}: the tenon's cheeks would "
            "show a slot.",
            Remedy(f"Panels of {ctx.fmt(tenon_thick)}", "build.panel_thickness", tenon_thick.value),
            rule="groove no wider than the mortise: common practice",
            where=where,
            figure="tenon_thickness",
        )


def _deeper_groove(ctx: Context, choice: Framed, hold: Figure, least: Figure, swell: Figure, groove: Figure) -> Remedy:
    """Return the least groove, to the full step above, that holds the panel.

    A deeper groove makes the panel wider, which then moves more; that is allowed for.
    """
    swells = swell.value / ctx.figures["panel_widest"].value
    shrinks = ctx.figures["panel_shrink"].value / ctx.figures["panel_width"].value
    gained_per_mm = (1 - swells) * (1 - shrinks)
    step = ctx.rules.joint_step.value
    deeper = math.ceil((groove.value + (least.value - hold.value) / gained_per_mm) / step - 1e-9) * step
    if deeper > min(DEEPEST_GROOVE, choice.stile / 2):
        return Remedy("A muntin between, or quarter-sawn panels, which move about half as much")
    return Remedy(f"Groove {ctx.fmt(deeper)}", "build.groove_depth", deeper)
