"""An old leaf made longer or wider."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.base.prisms import block
from oakmeasure.core.construction.existing.model import Splice
from oakmeasure.core.construction.existing.old_leaf import OldLeaf, add_hours, part_there, span_of
from oakmeasure.core.construction.existing.splices import splice_ends, splice_length, spliced_stile
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.figures.figure import Figure, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.part import DrawnMark, Rect, Size
from oakmeasure.core.leaf.part_factory import PartSpec

TENON_EVERY = 150.0  # of the loose tenons that hold a block: common practice, no source


def make_longer(leaf: OldLeaf) -> None:
    """New wood at one end: a piece on each stile with its splice and a rail between, or a block across.

    Args:
        leaf: The old leaf while it is worked out.
    """
    choice, ctx, f = leaf.choice, leaf.ctx, leaf.ctx.figures
    grow = leaf.longer
    if not grow:
        return
    add_hours(ctx, "extend", "extend_leaf", "making it longer", grow)
    added = f.derived("added", "added in height", grow, leaf.off_height, formula="what it lacks")
    h = leaf.fit.height.value
    x0, x1, _, _ = span_of(leaf)
    y0, y1 = (0.0, grow) if choice.at_foot else (h - grow, h)
    end, place = ("foot", Place.BOTTOM) if choice.at_foot else ("head", Place.TOP)
    if choice.splice is Splice.BLOCK:
        across = part_there(leaf, "there_width", "old leaf that stays, width", x1 - x0)
        _new(
            leaf,
            PartSpec(
                f"{end} block",
                Role.RAIL,
                Rect(x0, y0, x1, y1),
                (across, added),
                upright=False,
                note=f"glued on, loose tenons about every {ctx.fmt(TENON_EVERY)}",
                place=place,
            ),
        )
        return
    _spliced(leaf, added, Rect(x0, y0, x1, y1), end, place)


def _spliced(leaf: OldLeaf, added: Figure, rect: Rect, end: str, place: Place) -> None:
    """A piece on each stile with its splice, and a rail between; rect: the new end."""
    choice, ctx, f, t = leaf.choice, leaf.ctx, leaf.ctx.figures, leaf.choice.thickness
    x0, x1, y0, y1 = rect.x0, rect.x1, rect.y0, rect.y1
    lap = f.derived(
        "splice_lap",
        "splice, length",
        splice_length(splice=choice.splice, lap=choice.splice_lap, thickness=t),
        f["thickness"],
        formula="1 in 8 of the thickness" if choice.splice is Splice.SCARF else "set by hand",
    )
    stagger = ctx.chosen(
        "splice_stagger", "one splice further than the other", choice.splice_stagger, "build.splice_stagger"
    )
    wide = _stile_width(leaf)
    _pieces(leaf, added, rect, end, lap, stagger)
    inner = Rect(x0 + wide.value, y0, x1 - wide.value, y1)
    between = f.derived(
        "new_rail",
        "new rail between the pieces, shoulder to shoulder",
        inner.width,
        leaf.fit.width,
        wide,
        formula="width − both stiles",
    )
    _new(
        leaf,
        PartSpec(
            f"{end} rail",
            Role.RAIL,
            inner,
            (between, added),
            upright=False,
            note="glued to the old rail, tongued",
            place=place,
        ),
    )


def _pieces(leaf: OldLeaf, added: Figure, rect: Rect, end: str, lap: Figure, stagger: Figure) -> None:
    """Both stiles' new pieces; lap, stagger: of their splices."""
    choice, f, t, wide = leaf.choice, leaf.ctx.figures, leaf.choice.thickness, _stile_width(leaf)
    x0, x1, y0, y1 = rect.x0, rect.x1, rect.y0, rect.y1
    pieces = []
    for at, (name, x) in enumerate((("hinge", x0), ("latch", x1 - wide.value))):
        more = at * stagger.value
        terms = [plus(added), plus(lap), *([plus(stagger)] if at else [])]
        length = f.total(figure_name(f"piece_{name}"), f"new piece of the {name} stile, with its splice", *terms)
        end_at = y1 + more if choice.at_foot else y0 - more
        shape = spliced_stile(x, wide.value, y0, y1, more, at_foot=choice.at_foot)
        low, high = (y1, end_at) if choice.at_foot else (end_at, y0)
        way = lap.value if choice.at_foot else -lap.value
        tongues = (
            block(x, end_at, x + wide.value, end_at + way, (t / 2, t)),  # halved, or as much of a scarf
            *((block(x, low, x + wide.value, high, (0.0, t)),) if more else ()),
        )
        pieces.append((name, shape, length, tongues))
        leaf.marks += [
            DrawnMark(line, f"part:{end} piece, {name} side")
            for line in splice_ends((x, x + wide.value), end_at, lap.value, t, upward=choice.at_foot)
        ]
    for name, shape, length, tongues in pieces:
        _new(
            leaf,
            PartSpec(
                f"{end} piece, {name} side",
                Role.STILE,
                shape,
                (length, wide),
                upright=True,
                tongues=tongues,
                note="halved, ends 30° falling outwards" if choice.splice is Splice.STAGGERED else "scarf 1:8",
            ),
        )


def _stile_width(leaf: OldLeaf) -> Figure:
    f = leaf.ctx.figures
    return (
        f["stile_left"]
        if "stile_left" in f
        else f.get("there_edge")
        or part_there(leaf, "there_edge", "edge that is spliced", min(leaf.choice.solid, leaf.fit.width.value / 4))
    )


def _new(leaf: OldLeaf, spec: PartSpec) -> None:
    """Add a part of new wood, as thick as the old leaf."""
    length, width = spec.figures
    size = Size(length.value, width.value, leaf.choice.thickness)
    depth, species = (0.0, size.thickness), leaf.wood.frame.key
    spec = replace(spec, sizes=(size, size), species=species, depth=depth)
    leaf.parts.append(spec.made(leaf.ctx))


def make_wider(leaf: OldLeaf) -> None:
    """A strip on each long edge where the leaf is too narrow.

    Args:
        leaf: The old leaf while it is worked out.
    """
    if leaf.off_edge.value >= 0:
        return
    w, h = leaf.fit.width.value, leaf.fit.height.value
    strip = leaf.ctx.figures.derived(
        "strip_on", "strip on each long edge", -leaf.off_edge.value, leaf.off_edge, formula="half of what it lacks"
    )
    for name, rect in (
        ("hinge strip", Rect(0.0, 0.0, strip.value, h)),
        ("latch strip", Rect(w - strip.value, 0, w, h)),
    ):
        _new(
            leaf,
            PartSpec(
                name, Role.LIPPING, rect, (leaf.fit.height, strip), upright=True, note="glued on, tongued or plain"
            ),
        )
