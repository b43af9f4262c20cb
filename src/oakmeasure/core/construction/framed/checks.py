"""What can be wrong with a framed leaf. Every check runs; each finding names what would mend it."""

from __future__ import annotations

import math
from itertools import pairwise

from oakmeasure.core.base.units import counted
from oakmeasure.core.construction.framed.layout import MUNTIN, FrameLayout, PanelAcross, rows_of
from oakmeasure.core.construction.framed.lock import BLIND_WOOD
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.roles import Place
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Part, Rect

ROUNDING = 1e-6  # mm
PANEL_LEAST = 20.0  # narrower than this is no panel: common practice, no source
SHORT_TENON = 35.0  # into a door's stile: common practice, no source
JOINT_WORDS = {
    TenonKind.BLIND: "blind tenons",
    TenonKind.THROUGH: "through tenons, wedged",
    TenonKind.LOOSE: "loose tenons",
    TenonKind.DOWELS: "dowels",
    TenonKind.BRIDLE: "bridles",
    TenonKind.POCKET: "pocket screws",
    TenonKind.HALF_LAP: "half laps",
}
BETWEEN_MUNTINS = 10.0  # wood between two muntin tenons in one rail: common practice, no source
DEEPEST_GROOVE = 40.0  # as the document allows
TONGUE_WOOD = 5.0  # wood each side of a groove: common practice, no source


def judge_room(ctx: Context, choice: Framed, fit: Fit, layout: FrameLayout, shoulder: Figure) -> None:
    """Judge whether stiles, rails and fields have room in the leaf.

    For any construction that is set out as a frame.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the frame.
        fit: Size of the leaf and its gaps, mm.
        layout: Where rails and fields stand.
        shoulder: Between the shoulders of a rail, mm.
    """
    stops = len(ctx.checks_so_far.items)
    _widths(ctx, choice, fit, shoulder)
    _heights(ctx, choice, layout)
    if len(ctx.checks_so_far.items) == stops:
        wide = max((len(row.columns) for row in layout.rows), default=0)
        across = f" and {wide} wide" if wide > 1 else ""
        ctx.fine(
            "frame-fits",
            "The frame fills the leaf",
            f"{counted(len(layout.rows), 'panel')} high{across}, {ctx.fmt(shoulder)} between shoulders.",
            grounds=Grounds("shoulder"),
        )


def _widths(ctx: Context, choice: Framed, fit: Fit, shoulder: Figure) -> None:
    rows = rows_of(choice)
    columns = max(row.columns for row in rows)
    muntin = (choice.muntin or MUNTIN) if columns > 1 else 0.0
    least = columns * PANEL_LEAST + (columns - 1) * muntin
    short = least - shoulder.value
    if short <= ROUNDING:
        return
    stile = choice.stile - short / 2
    remedies = []
    if stile >= 30:
        remedies.append(Remedy(f"Stiles of {ctx.fmt(stile)}", "build.stile", stile))
    if columns > 1:
        narrower = muntin - short / (columns - 1)
        if narrower >= 20:
            remedies.append(Remedy(f"Muntin of {ctx.fmt(narrower)}", "build.muntin", narrower))
        if shoulder.value >= PANEL_LEAST and not choice.rows:
            remedies.append(Remedy("No muntin", "build.muntin", None))
        elif shoulder.value >= PANEL_LEAST:
            whole = tuple(row.model_copy(update={"columns": 1, "widths": ()}) for row in rows)
            remedies.append(Remedy("One panel wide", "build.rows", whole))
    sights = [each for each in ctx.figures if each.name.startswith("sight_width")]
    sight = min(sights, key=lambda each: each.value)
    what = "The stiles meet" if shoulder.value <= 0 else f"A panel must show {ctx.fmt(PANEL_LEAST)} or more"
    ctx.stop(
        "panel-width",
        what,
        f"In {ctx.fmt(fit.width)} the stiles leave {ctx.fmt(shoulder)}; each panel would show {ctx.fmt(sight)}.",
        *(remedies or [Remedy("Narrower stiles and no muntin, or a wider opening")]),
        grounds=Grounds(sight.name, "part:muntin" if columns > 1 else "part:hinge stile"),
    )


def _heights(ctx: Context, choice: Framed, layout: FrameLayout) -> None:
    rails = layout.rails
    bottom, top = rails[0], rails[-1]
    remedies = []
    if len(rails) > 2:
        if top.rect.y0 - bottom.rect.y1 >= PANEL_LEAST:
            none = Remedy("No middle rail", "build.middle_rail", None)
            remedies.append(none if not choice.rows else Remedy("One row of panels", "build.rows", choice.rows[:1]))
        lock = next((at for at, each in enumerate(rails) if each.place is Place.LOCK), None)
        if lock is not None and choice.middle_rail is not None:
            floor, half = ctx.figures["gap_floor"].value, choice.middle_rail / 2
            below = sum(each.rect.height + PANEL_LEAST for each in rails[:lock])
            above = sum(each.rect.height + PANEL_LEAST for each in rails[lock + 1 :])
            lowest, highest = below + half + floor, top.rect.y1 - above - half + floor
            if lowest <= highest:
                nearest = min(max(choice.lock_height, lowest), highest)
                remedies.insert(0, Remedy(f"Lock at {ctx.fmt(nearest)}", "build.lock_height", nearest))
    for low, high in pairwise(rails):
        _gap_between(ctx, low.name, low.rect, high.name, high.rect, remedies)


def _gap_between(ctx: Context, low_name: str, low: Rect, high_name: str, high: Rect, remedies: list[Remedy]) -> None:
    sight = high.y0 - low.y1
    if sight >= PANEL_LEAST - ROUNDING:
        return
    title = f"{low_name.capitalize()} and {high_name} overlap" if sight < 0 else "A panel is too low"
    numbers = f"The {low_name} ends {ctx.fmt(low.y1)} up the leaf, the {high_name} begins at {ctx.fmt(high.y0)}: " + (
        f"they overlap by {ctx.fmt(-sight)}." if sight < 0 else f"{ctx.fmt(sight)} would show."
    )
    ctx.stop(
        f"rails-{low_name}-{high_name}".replace(" ", "-"),
        title,
        numbers,
        *(remedies or [Remedy("Narrower rails")]),
        grounds=Grounds(
            high_name.replace(" ", "_"), f"part:{high_name}", rule=f"a panel shows {ctx.fmt(PANEL_LEAST)} or more"
        ),
    )


def judge_joints(ctx: Context, choice: Framed, tenon: Figure, groove: Figure) -> None:
    """Judge tenons and grooves.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the frame.
        tenon: How far a tenon goes into the stile, mm.
        groove: Depth of the panel groove, mm.
    """
    thickness, thick = ctx.figures["thickness"], ctx.figures["tenon_thickness"]
    _say_joints(ctx, choice, tenon)
    if choice.tenon is TenonKind.BLIND and choice.stile - tenon.value < BLIND_WOOD:
        ctx.warn(
            "tenon-deep",
            "Little wood beyond the mortise",
            f"Tenon {ctx.fmt(tenon)} in a stile of {ctx.fmt(choice.stile)} leaves "
            f"{ctx.fmt(choice.stile - tenon.value)}.",
            Remedy("Wider stiles"),
            grounds=Grounds("tenon", "part:hinge stile"),
        )
    if choice.middle_rail is not None and any(row.columns > 1 for row in rows_of(choice)) and len(rows_of(choice)) > 1:
        between = choice.middle_rail - 2 * ctx.rules.muntin_tenon.value
        if between < BETWEEN_MUNTINS:
            needed = 2 * ctx.rules.muntin_tenon.value + BETWEEN_MUNTINS
            ctx.report(
                "muntin-tenons-meet",
                Level.STOP if between <= 0 else Level.WARNING,
                "The muntins' tenons meet in the middle rail"
                if between <= 0
                else "Little wood between the muntins' tenons",
                f"Two of {ctx.fmt(ctx.rules.muntin_tenon.value)} in a rail of {ctx.fmt(choice.middle_rail)} leave "
                f"{ctx.fmt(between)}.",
                Remedy(f"Middle rail of {ctx.fmt(needed)}", "build.middle_rail", needed),
                grounds=Grounds("middle_rail", "part:middle rail"),
            )
    if thickness.value - thick.value < 2 * TONGUE_WOOD:
        ctx.warn(
            "tenon-thick",
            "Thin cheeks beside the mortise",
            f"Tenon {ctx.fmt(thick)} in {ctx.fmt(thickness)} leaves {ctx.fmt((thickness.value - thick.value) / 2)} "
            "a side.",
            Remedy("A thicker leaf or a smaller cutter"),
            grounds=Grounds("tenon_thickness"),
        )
    narrowest = min(width for width in (choice.stile, choice.top_rail, choice.bottom_rail) if width)
    if groove.value > narrowest / 3:
        ctx.warn(
            "groove-deep",
            "The groove is deep for its frame",
            f"{ctx.fmt(groove)} in a member of {ctx.fmt(narrowest)}.",
            Remedy(f"Groove {ctx.fmt(narrowest / 3)}", "build.groove_depth", narrowest / 3),
            grounds=Grounds("groove_depth", rule="at most a third of the member: common practice"),
        )


def _say_joints(ctx: Context, choice: Framed, tenon: Figure) -> None:
    """Name the joints, with what is easily done wrong at them; say where one is too weak for a door."""
    words = {
        TenonKind.BLIND: "Dry fit first; glue on the cheeks, none in the bottom of the mortise.",
        TenonKind.THROUGH: "Wedges: the outer ones first, until shoulders and muntins seat, then the inner ones; all "
        "to about the same depth.",
        TenonKind.LOOSE: "Mortise rails and stiles alike, from the opening face.",
        TenonKind.DOWELS: "Bore the rails, carry the holes over to the stiles.",
        TenonKind.BRIDLE: "Open at the ends: clamp the cheeks as well.",
        TenonKind.POCKET: "From the closing face, the shoulders clamped.",
        TenonKind.HALF_LAP: "Half the thickness each, the stiles in front.",
    }
    weak = choice.tenon in (TenonKind.POCKET, TenonKind.HALF_LAP) and choice.thickness >= 30
    if weak:
        ctx.warn(
            "joint-weak",
            f"{str(choice.tenon).capitalize()} are for light frames",
            f"This leaf is {ctx.fmt(choice.thickness)} thick. {words[choice.tenon]}",
            Remedy("Blind tenons", "build.tenon", TenonKind.BLIND),
            grounds=Grounds("tenon", rule="common practice"),
        )
    else:
        ctx.fine("joints", f"Rails on {JOINT_WORDS[choice.tenon]}", words[choice.tenon], grounds=Grounds("tenon"))
    if (
        choice.tenon in (TenonKind.BLIND, TenonKind.LOOSE, TenonKind.DOWELS)
        and tenon.value < SHORT_TENON
        and (choice.thickness >= 30)
    ):
        wider = math.ceil(SHORT_TENON / ctx.rules.blind_share.value)
        ctx.warn(
            "tenon-short",
            "A short tenon for a door",
            f"{ctx.fmt(tenon)} into a stile of {ctx.fmt(choice.stile)}.",
            Remedy(f"Stiles of {ctx.fmt(wider)}", "build.stile", float(wider)),
            Remedy("Or through and wedged", "build.tenon", TenonKind.THROUGH),
            grounds=Grounds("tenon", "part:hinge stile", rule=f"{ctx.fmt(SHORT_TENON)} at the least: common practice"),
        )


def judge_panels(ctx: Context, choice: Framed, across: PanelAcross, groove: Figure) -> None:
    """Judge the panels in their grooves: held at the driest, free at the wettest.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is chosen for the frame.
        across: How the panel that is held least stands in its grooves.
        groove: Depth of the panel groove, mm.
    """
    hold, tenon_thick = across.hold, ctx.figures["tenon_thickness"]
    least = ctx.rule("panel_hold", "least hold of a panel")
    free = across.room.value - across.swell.value / 2
    numbers = f"{ctx.fmt(hold)} held at the driest, {ctx.fmt(free)} free each side at the wettest."
    where = "part:panel"
    if hold.value < least.value:
        ctx.report(
            "panel-drops",
            Level.STOP if hold.value <= 0 else Level.WARNING,
            "A panel may come out of its groove",
            numbers,
            _deeper_groove(ctx, choice, across, least, groove),
            grounds=Grounds(hold.name, where, rule=f"at least {ctx.fmt(least)} held"),
        )
    else:
        ctx.fine("panel-holds", "Panels stay in their grooves", numbers, grounds=Grounds(hold.name, where))
    wood = (choice.thickness - choice.panel_thickness) / 2
    if wood < TONGUE_WOOD:
        thinner = choice.thickness - 2 * TONGUE_WOOD
        ctx.report(
            "panel-thick",
            Level.STOP if wood <= 0 else Level.WARNING,
            "The panel is thick for its frame",
            f"A groove of {ctx.fmt(choice.panel_thickness)} in {ctx.fmt(choice.thickness)} leaves "
            f"{ctx.fmt(wood)} each side.",
            Remedy(f"Panels of {ctx.fmt(thinner)}", "build.panel_thickness", thinner),
            grounds=Grounds("thickness", where, rule=f"{ctx.fmt(TONGUE_WOOD)} or more each side"),
        )
    elif choice.panel_thickness > tenon_thick.value:
        ctx.warn(
            "groove-wide",
            "The groove is wider than the mortise",
            f"Groove {ctx.fmt(choice.panel_thickness)}, mortise {ctx.fmt(tenon_thick)}: the tenon's cheeks would "
            "show a slot.",
            Remedy(f"Panels of {ctx.fmt(tenon_thick)}", "build.panel_thickness", tenon_thick.value),
            grounds=Grounds("tenon_thickness", where, rule="groove no wider than the mortise: common practice"),
        )


def _deeper_groove(ctx: Context, choice: Framed, across: PanelAcross, least: Figure, groove: Figure) -> Remedy:
    """Return the least groove, to the full step above, that holds the panel.

    A deeper groove makes the panel wider, which then moves more; that is allowed for.
    """
    swells = across.swell.value / across.widest.value
    shrinks = across.shrink.value / across.width.value
    gained_per_mm = (1 - swells) * (1 - shrinks)
    step = ctx.rules.joint_step.value
    deeper = math.ceil((groove.value + (least.value - across.hold.value) / gained_per_mm) / step - 1e-9) * step
    if deeper > min(DEEPEST_GROOVE, choice.stile / 2):
        return Remedy("A muntin between, or quarter-sawn panels, which move about half as much")
    return Remedy(f"Groove {ctx.fmt(deeper)}", "build.groove_depth", deeper)


def say_arch(ctx: Context, span: Figure, rise: Figure) -> None:
    """Say that no segment has such a rise.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        span: From springing to springing, mm.
        rise: The rise that was asked for, mm.
    """
    most = math.floor(10 * span.value / 2) / 10
    ctx.stop(
        "arch",
        "No arch rises so high over its span",
        f"{ctx.fmt(rise)} over {ctx.fmt(span)}; half the span is a half circle.",
        Remedy(f"A rise of {ctx.fmt(most)}", "build.arch_rise", most),
        grounds=Grounds("arch", "part:top rail"),
    )


def say_glass(ctx: Context, pane: Part) -> None:
    """The caution that stands at glass.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        pane: The pane of glass.
    """
    ctx.warn(
        "glass",
        "Glass in a door",
        f"{ctx.show.size(pane.finished.length, pane.finished.width, pane.finished.thickness)} panes: what glass may "
        "stand here, local code decides.",
        Remedy("Safety glass by its mark; order after the frame is glued up and measured"),
        grounds=Grounds(pane.length.name, f"part:{pane.name}", rule="glass in doors: local code and the glazier"),
    )
