"""A leaf that is there: read what it has inside, then make it narrower or wider, shorter or longer, and cut it.

Each edge loses or gains half of the difference in width; a panelled one is reduced as `reduce` says. A longer one gets
new wood at one end, spliced. Coordinates are those of the leaf as it will hang. Sources: common practice of the trade.
"""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.construction.existing import checks
from oakmeasure.core.construction.existing.contradictions import contradictions, says
from oakmeasure.core.construction.existing.longer import make_longer, make_wider
from oakmeasure.core.construction.existing.model import EdgeShape, Existing, Inside
from oakmeasure.core.construction.existing.narrowing import (
    STILE_LEAST,
    TENON_COVER,
    Reduction,
    rows_of,
    sights_of,
    stile_may_lose,
    ways_of,
)
from oakmeasure.core.construction.existing.old_leaf import OldLeaf, add_hours, part_there, span_of
from oakmeasure.core.construction.existing.recess import mark_grooves, mark_recess, panel_sights
from oakmeasure.core.construction.real_parts import least_size
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure, Origin, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Dim, GlueUp, GlueUpKind, Part, Rect, Size
from oakmeasure.core.leaf.part_factory import PartSpec
from oakmeasure.core.timber.choice import Timber, movement_of
from oakmeasure.core.timber.movement import frame_movement, slab_movement

BLOCKS_SHARE = 0.3  # of the inside of a framed leaf that is wood: common value, no source
OLD_PANEL = 12.0  # thickness of an old panel where nothing else is known: common practice, no source


def build(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the leaf as it will be; what cannot be done is said by checks, and the rest is still set out.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Existing)
    leaf = _read(ctx, fit, wood, choice)
    fine = contradictions(ctx, choice)
    if choice.inside is Inside.PANELLED:
        _panelled(leaf)
    else:
        _plain(leaf)
    make_longer(leaf)
    make_wider(leaf)
    mark_grooves(leaf)
    mark_recess(leaf)
    moves = movement_of(ctx, wood, choice.wood)
    if choice.inside is Inside.PANELLED:
        frame_movement(ctx, wood, ctx.figures.get("stile_left") or ctx.figures["stile"], moves)
    elif choice.inside is Inside.SOLID:
        slab_movement(ctx, wood, fit.width, moves)
    else:
        edges = ctx.figures.total("solid_edges", "both solid edges", plus(ctx.figures["solid_left"], 2))
        slab_movement(ctx, wood, edges, moves)
    if fine:
        checks.judge(ctx, choice, leaf.off_edge, leaf.off_height, leaf.reduction)
    parts = tuple(each for each in leaf.parts if least_size(each) > 0)  # cut away: the stop of its room says so
    summary = f"{ctx.show.size(choice.width, choice.height)} there · {choice.inside}"
    return Build(
        width=fit.width.value,
        height=fit.height.value,
        thickness=choice.thickness,
        parts=parts,
        sights=panel_sights(leaf),
        summary=summary,
        dims=_dims(leaf),
        says=says(choice, leaf.off_edge, leaf.off_height),
        glue_ups=_glue_ups(leaf, parts),
        layered=True,
        marks=tuple(leaf.marks),
    )


def _read(ctx: Context, fit: Fit, wood: Timber, choice: Existing) -> OldLeaf:
    f = ctx.figures

    def there(name: str, label: str, value: float) -> Figure:
        return f.given(
            figure_name(f"old_{name}"), label, value, Origin(edit=f"build.{name}", source="as it lies on the bench")
        )

    width, height = (
        there("width", "leaf as it is, width", choice.width),
        there("height", "leaf as it is, height", choice.height),
    )
    shaped = 0.0 if choice.edge_shape is EdgeShape.SQUARE else choice.edge_by
    shape = f.given("edge_by", f"its edges are {choice.edge_shape}, in by", shaped, Origin(edit="build.edge_by"))
    over = f.total("old_over", "wider than it must be", plus(width), minus(fit.width))
    off = f.total(
        "off_edge", "off each long edge" if over.value >= 0 else "each long edge, off it (less is on)", plus(over, 0.5)
    )
    high = f.total("off_height", "taller than it must be", plus(height), minus(fit.height))
    leaf = OldLeaf(ctx, fit, wood, choice, off, high)
    if choice.inside is not Inside.PANELLED:
        solid = ctx.chosen("solid", "solid edge, from each long edge", choice.solid, "build.solid")
        f.derived(
            "solid_left",
            "solid edge that is left",
            max(0.0, solid.value - max(off.value, 0.0)),
            solid,
            off,
            shape,
            formula="solid edge − what comes off",
        )
    return leaf


# --- a leaf without panels ---------------------------------------------------------------------------------


def _plain(leaf: OldLeaf) -> None:
    """The old leaf: one piece where it is solid, else its solid edges and ends, its faces and what is between."""
    choice, ctx = leaf.choice, leaf.ctx
    x0, x1, y0, y1 = span_of(leaf)
    t, face = choice.thickness, choice.face
    wide = part_there(leaf, "there_width", "old leaf that stays, width", x1 - x0)
    tall = part_there(leaf, "there_height", "old leaf that stays, height", y1 - y0)
    if choice.inside is Inside.SOLID:
        _old(leaf, PartSpec("old leaf", Role.BOARD, Rect(x0, y0, x1, y1), (tall, wide), (0.0, t)))
        return
    solid = min(ctx.figures["solid_left"].value, (x1 - x0) / 2)
    off_end = max(0.0, leaf.off_height.value)
    foot, top = (
        (max(choice.rail - off_end, 0.0), choice.rail)
        if choice.at_foot
        else (choice.rail, max(choice.rail - off_end, 0.0))
    )
    edge = part_there(leaf, "there_edge", "solid edge that stays", solid)
    z = (face, t - face)
    for name, place, rect in (
        ("hinge edge", Place.HINGE, Rect(x0, y0, x0 + solid, y1)),
        ("latch edge", Place.LATCH, Rect(x1 - solid, y0, x1, y1)),
    ):
        _old(leaf, PartSpec(name, Role.STILE, rect, (tall, edge), z, place=place))
    for name, place, low, high in (("foot end", Place.BOTTOM, y0, y0 + foot), ("top end", Place.TOP, y1 - top, y1)):
        if high > low:
            end = part_there(leaf, f"there_{name.split()[0]}", f"solid {name} that stays", high - low)
            between = part_there(leaf, "there_between", "between the solid edges", x1 - x0 - 2 * solid)
            _old(
                leaf,
                PartSpec(
                    name,
                    Role.RAIL,
                    Rect(x0 + solid, low, x1 - solid, high),
                    (between, end),
                    z,
                    upright=False,
                    place=place,
                ),
            )
    if choice.inside in (Inside.BLOCKS, Inside.THICK):
        inner = Rect(x0 + solid, y0 + foot, x1 - solid, y1 - top)
        share = BLOCKS_SHARE if choice.inside is Inside.BLOCKS else 1.0
        size = (
            part_there(leaf, "inside_height", "inside, height", inner.height),
            part_there(leaf, "there_between", "between the solid edges", inner.width),
        )
        made = _old(leaf, PartSpec("inside", Role.CORE, inner, size, z))
        leaf.parts[-1] = replace(made, share=share, note="blocks" if share < 1 else "core")
    for name, depth in (("front face", (0.0, face)), ("back face", (t - face, t))):
        made = _old(leaf, PartSpec(name, Role.VENEER, Rect(x0, y0, x1, y1), (tall, wide), depth))
        leaf.parts[-1] = replace(made, is_back=depth[0] > 0)


def _old(leaf: OldLeaf, spec: PartSpec) -> Part:
    """Add a part that is there already: it is cut out of nothing."""
    rect, deep = spec.face, spec.depth[1] - spec.depth[0]
    size = Size(*((rect.height, rect.width) if spec.upright else (rect.width, rect.height)), deep)
    note = spec.note or "is there"
    spec = replace(spec, sizes=(size, size), species=leaf.choice.wood, at_hand=True, bought=True, note=note)
    made = replace(spec.made(leaf.ctx), is_old=True)
    leaf.parts.append(made)
    return made


# --- a panelled leaf ---------------------------------------------------------------------------------------


def _panelled(leaf: OldLeaf) -> None:
    choice, ctx, f = leaf.choice, leaf.ctx, leaf.ctx.figures
    stile = f.given("stile", "stile, as it is", choice.stile, Origin(edit="build.stile"))
    tenon = f.given("tenon", "tenon, into the stile", choice.tenon, Origin(edit="build.tenon"))
    may = stile_may_lose(stile=choice.stile, tenon=choice.tenon, through=choice.through)
    formula = (
        f"stile − {ctx.fmt(STILE_LEAST)}, its tenons go through"
        if choice.through
        else (f"stile − tenon − {ctx.fmt(TENON_COVER)} that stay outside it")
    )
    f.derived("stile_may_lose", "a stile may lose, its tenons whole", may, stile, tenon, formula=formula)
    over = max(0.0, ctx.figures["old_over"].value)
    if over:
        step = ctx.rule("joint_step", "joints are set out to")
        leaf.reduction = ways_of(choice, over, step.value).get(choice.reduce_by)
    reduction = leaf.reduction or Reduction(
        choice.reduce_by, over / 2, tuple((0,) * n for n in rows_of(choice)), choice.stile - over / 2 - choice.tenon
    )
    off = f.derived(
        "stile_off",
        "off each stile",
        reduction.stile_off,
        ctx.figures["old_over"],
        ctx.figures["stile_may_lose"],
        formula=f"{choice.reduce_by}",
    )
    if over:
        add_hours(ctx, "reduce", reduction.key, "making it narrower", 2 * reduction.stile_off)
    left = f.total("stile_left", "stile that is left", plus(stile), minus(off))
    if not choice.through:
        f.total("tenon_cover", "wood left outside its tenons", plus(left), minus(tenon))
    _frame(leaf, reduction, left)


def _frame(leaf: OldLeaf, reduction: Reduction, left: Figure) -> None:
    """Add what stays of stiles, rails, muntins and panels, each where it will stand."""
    choice, f, t = leaf.choice, leaf.ctx.figures, leaf.choice.thickness
    x0, x1, y0, y1 = span_of(leaf)
    s = max(left.value, 1.0)
    tall = part_there(leaf, "there_height", "old leaf that stays, height", y1 - y0)
    for name, place, at in (("hinge stile", Place.HINGE, x0), ("latch stile", Place.LATCH, x1 - s)):
        _old(leaf, PartSpec(name, Role.STILE, Rect(at, y0, at + s, y1), (tall, left), (0.0, t), place=place))
    between = f.derived(
        "shoulder", "rails, between shoulders", x1 - x0 - 2 * s, leaf.fit.width, left, formula="width − both stiles"
    )
    foot, top = _rails_left(leaf)
    low = [(y0, y0 + foot.value, "bottom rail", Place.BOTTOM, foot)]
    if choice.middle_rail is not None:
        # The middle rail stays where it is on the old wood: its height up the leaf moves with the foot.
        up = f.derived(
            "middle_up",
            "middle rail's centre, up the leaf",
            choice.middle_up + _foot_shift(leaf),
            leaf.off_height,
            formula="as it is, moved with what the foot loses or gains",
        )
        middle = f.given("middle_rail", "middle rail, as it is", choice.middle_rail, Origin(edit="build.middle_rail"))
        low.append((up.value - middle.value / 2, up.value + middle.value / 2, "middle rail", Place.LOCK, middle))
    low.append((y1 - top.value, y1, "top rail", Place.TOP, top))
    note = "is there"
    if reduction.panels and sum(reduction.panels[0]):
        off = f.total("rail_off", "off each rail, between its shoulders", plus(f["old_over"]), minus(f["stile_off"], 2))
        note = f"is there; shortened by {leaf.ctx.fmt(off)}, shoulders cut anew"
    for bottom, upper, name, place, width in low:
        _old(
            leaf,
            PartSpec(
                name,
                Role.RAIL,
                Rect(x0 + s, bottom, x1 - s, upper),
                (between, width),
                (0.0, t),
                upright=False,
                note=note,
                place=place,
            ),
        )
    names = ("",) if len(low) == 2 else ("lower ", "upper ")
    for row, (name, below, above) in enumerate(zip(names, low, low[1:], strict=False)):
        _fields(leaf, reduction, row, name, Rect(x0 + s, below[1], x1 - s, above[0]))


def _fields(leaf: OldLeaf, reduction: Reduction, row: int, name: str, inner: Rect) -> None:
    """A row's panels and muntins; `inner` is what stiles and rails leave for them."""
    y0, y1 = inner.y0, inner.y1
    choice, f = leaf.choice, leaf.ctx.figures
    count, old = rows_of(choice)[row], sights_of(choice)[row]
    offs = reduction.panels[row]
    if y1 <= y0 or old <= 0:
        return
    height = f.derived(
        figure_name(f"sight_height_{name.strip() or 'whole'}"),
        f"{name}panels, sight height",
        y1 - y0,
        leaf.off_height,
        formula="between the rails",
    )
    middle = (choice.thickness - min(OLD_PANEL, choice.thickness)) / 2
    x = inner.x0
    for at, off in enumerate(offs, start=1):
        words = f"{name}panel {at}" if count > 1 else f"{name}panel"
        slug = words.replace(" ", "_")
        how = "whole steps of the rule, alike from both sides"
        lost = f.derived(figure_name(f"{slug}_off"), f"off the {words}", off, f["stile_off"], formula=how)
        name_of, label, how = figure_name(f"{slug}_sight"), f"{words}, sight width", "as it is − what comes off"
        sight = f.derived(name_of, label, old - off, lost, f["stile"], formula=how)
        note = f"cut {leaf.ctx.fmt(lost)} narrower" if off else "is there"
        _old(
            leaf,
            PartSpec(
                words,
                Role.PANEL,
                Rect(x, y0, x + old - off, y1),
                (height, sight),
                (middle, choice.thickness - middle),
                note=note,
            ),
        )
        x += old - off
        if at < count:
            muntin = f.get("muntin") or f.given(
                "muntin", "muntin, as it is", choice.muntin, Origin(edit="build.muntin")
            )
            title = f"{name}muntin" if count == 2 else f"{name}muntin {at}"
            _old(
                leaf,
                PartSpec(
                    title, Role.MUNTIN, Rect(x, y0, x + choice.muntin, y1), (height, muntin), (0.0, choice.thickness)
                ),
            )
            x += choice.muntin


def _foot_shift(leaf: OldLeaf) -> float:
    """Return how far the old wood moves up in the finished leaf: less what the foot loses, more by what it gains."""
    if leaf.longer:
        return leaf.longer if leaf.choice.at_foot else 0.0
    return -leaf.ctx.figures["foot_off"].value if "foot_off" in leaf.ctx.figures else 0.0


def _rails_left(leaf: OldLeaf) -> tuple[Figure, Figure]:
    """Add what the end rails lose in height: the bottom one down to the top one's width, then both alike."""
    choice, f = leaf.choice, leaf.ctx.figures
    off = max(0.0, leaf.off_height.value)
    spare = max(0.0, choice.bottom_rail - choice.top_rail)
    foot_off = min(off, spare) + max(0.0, off - spare) / 2
    bottom = f.given("bottom_rail_old", "bottom rail, as it is", choice.bottom_rail, Origin(edit="build.bottom_rail"))
    top = f.given("top_rail_old", "top rail, as it is", choice.top_rail, Origin(edit="build.top_rail"))
    foot = f.derived(
        "foot_off",
        "off the foot",
        foot_off,
        leaf.off_height,
        bottom,
        top,
        formula="the bottom rail down to the top one's width, then both alike",
    )
    head = f.derived(
        "head_off", "off the head", off - foot_off, leaf.off_height, foot, formula="what the foot does not lose"
    )
    return (
        f.total("bottom_rail", "bottom rail that is left", plus(bottom), minus(foot)),
        f.total("top_rail", "top rail that is left", plus(top), minus(head)),
    )


# --- grooves and recesses ----------------------------------------------------------------------------------


def _glue_ups(leaf: OldLeaf, parts: tuple[Part, ...]) -> tuple[GlueUp, ...]:
    w, h = leaf.fit.width.value, leaf.fit.height.value
    found = []
    if leaf.longer:
        found.append(GlueUp("the new end", w, leaf.longer + 250.0, 3, GlueUpKind.NEW_END))
    if leaf.off_edge.value < 0:
        found.append(GlueUp("both strips", h, w, max(2, round(h / 300) + 1)))
    rails = sum(each.role is Role.RAIL for each in parts)
    if (
        leaf.reduction is not None and leaf.reduction.is_apart and rails
    ):  # none is left of rails cut away: a stop says so
        found.append(GlueUp("the frame again", h, w, rails, GlueUpKind.AGAIN))
    return tuple(found)


def _dims(leaf: OldLeaf) -> tuple[Dim, ...]:
    f, w, h = leaf.ctx.figures, leaf.fit.width.value, leaf.fit.height.value
    x0, x1, y0, y1 = span_of(leaf)
    found = []
    if "stile_left" in f:
        s = f["stile_left"].value
        found += [Dim(x0, x0 + s, "stile_left", "part:hinge stile", False)]
        row = [each for each in leaf.parts if each.role is Role.PANEL]
        if row:
            lowest = [each for each in row if each.face.y0 == row[0].face.y0]
            found += [Dim(each.face.x0, each.face.x1, each.width.name, f"part:{each.name}", False) for each in lowest]
        found += [Dim(x1 - s, x1, "stile_left", "part:latch stile", False)]
    elif "strip_on" in f:
        found += [Dim(0.0, x0, "strip_on", "part:hinge strip", False)]
    elif "pitch" in f:
        band = f["band"].value
        pitch = f["pitch"].value
        second = band + pitch * ((leaf.choice.grooves - 1) // 2)
        found += [Dim(second, second + pitch, "pitch", "", False), Dim(w - band, w, "band", "", False)]
    if leaf.longer:
        low, high = (0.0, y0) if leaf.choice.at_foot else (y1, h)
        found.append(Dim(low, high, "added", "", True))
    return tuple(found)
