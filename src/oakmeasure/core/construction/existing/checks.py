"""What can be wrong with a leaf that exists: it contradicts itself, or more is asked of it than it has inside.

Every check names the smallest change that would make it work.
"""

from __future__ import annotations

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.construction.existing.contradictions import WITH_FACES
from oakmeasure.core.construction.existing.model import Existing, Inside, ReduceBy, Splice
from oakmeasure.core.construction.existing.narrowing import (
    PANEL_LEAST,
    Reduction,
    panel_words,
    rows_of,
    sights_of,
    stile_may_lose,
    ways_of,
)
from oakmeasure.core.construction.existing.splices import HALVED_LEAST, STAGGER_LEAST, splice_length
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.leaf.leaf_context import Context

EDGE_KEPT = 10.0  # solid edge that must stay for hinges and lock: common practice, no source
RAIL_KEPT = 40.0  # of an end rail, for its tenons: common practice, no source
FACE_KEPT = 1.0  # of a face under a V line or a recess: common practice, no source
STRIP_LEAST = 4.0  # a thinner strip cannot be glued on and planed: common practice, no source


def judge(ctx: Context, choice: Existing, off_edge: Figure, off_height: Figure, reduction: Reduction | None) -> None:
    """Judge everything that is done to the leaf.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        choice: What is known of the old leaf, and chosen for it.
        off_edge: What comes off each long edge, mm; less than 0: what it lacks.
        off_height: What comes off the height, mm; less than 0: what it lacks.
        reduction: How it is made narrower; None where it is not.
    """
    found = len(ctx.checks_so_far.items)
    if choice.inside is Inside.PANELLED:
        _reduced(ctx, choice, reduction)
    else:
        _edges(ctx, choice, off_edge)
    _widened(ctx, choice, off_edge)
    _height(ctx, choice, off_height)
    _cuts(ctx, choice)
    if all(each.level is Level.OK for each in ctx.checks_so_far.items[found:]):
        ctx.fine(
            "existing",
            "The leaf can be made to fit",
            f"{ctx.show.size(choice.width, choice.height)} becomes "
            f"{ctx.show.size(ctx.figures['leaf_width'].value, ctx.figures['leaf_height'].value)}; seal what is cut.",
            grounds=Grounds("off_edge"),
        )


def _reduced(ctx: Context, choice: Existing, reduction: Reduction | None) -> None:
    over = ctx.figures["old_over"].value
    if over <= HAIR:
        return
    may = ctx.figures["stile_may_lose"]
    if reduction is None:
        needed = over / 2 if choice.reduce_by is ReduceBy.STILES else 0.0
        smallest = needed - may.value
        others = ways_of(choice, over, ctx.rules.joint_step.value)  # the chosen way is none of them
        takes = [Remedy(f"{by}".capitalize(), "build.reduce_by", by) for by in others]
        short = (
            f"{ctx.fmt(smallest)} more off each stile than its tenons bear."
            if smallest > 0
            else (f"{ctx.fmt(over)} is more than panels and stiles can lose.")
        )
        ctx.stop(
            "reduce-too-far",
            "It cannot lose so much this way",
            f"{ctx.fmt(over)} too wide; {short}",
            *(takes or [Remedy(f"A leaf {ctx.fmt(most_off(choice))} narrower is the most; or widen the opening")]),
            grounds=Grounds("stile_may_lose", "part:hinge stile", rule="tenons stay whole"),
        )
        return
    words = panel_words([row for row in reduction.panels if any(row)], ctx.show)
    panels = f", panels {words}" if words else ""
    ctx.fine(
        "reduced",
        f"{ctx.fmt(reduction.stile_off)} off each stile{panels}",
        f"{ctx.fmt(ctx.figures['stile_left'])} of each stile is left, "
        + (f"{ctx.fmt(reduction.tenon_cover)} outside its tenons" if not choice.through else "its tenons shorter")
        + (", and the frame comes apart." if reduction.is_apart else "; the frame stays together."),
        grounds=Grounds("stile_off", "part:hinge stile"),
    )


def most_off(choice: Existing) -> float:
    """Return the most that a panelled leaf can lose in width, mm: both stiles, and its panels down to 40.

    Args:
        choice: What is known of the old leaf, and chosen for it.
    """
    may = stile_may_lose(stile=choice.stile, tenon=choice.tenon, through=choice.through)
    rows = zip(rows_of(choice), sights_of(choice), strict=True)
    return 2 * may + min(count * max(0.0, float(int(sight - PANEL_LEAST))) for count, sight in rows)


def _edges(ctx: Context, choice: Existing, off_edge: Figure) -> None:
    """A leaf without panels loses its solid edge."""
    off, left = off_edge.value, ctx.figures["solid_left"]
    if choice.inside is Inside.SOLID or off <= HAIR:
        return
    if off > choice.solid - EDGE_KEPT:
        beyond = off > choice.solid
        most = max(choice.solid - EDGE_KEPT, 0.0)
        more = off - most
        ctx.report(
            "edge-gone",
            Level.STOP if beyond else Level.WARNING,
            "The trim goes beyond the solid edge" if beyond else "Little solid edge is left",
            f"{ctx.fmt(off)} off each edge; {ctx.fmt(choice.solid)} is solid"
            + (", and hollow wood would show." if beyond else f", {ctx.fmt(left)} is left."),
            Remedy(f"At most {ctx.fmt(most)} off each edge: line the opening {ctx.fmt(2 * more)} narrower"),
            Remedy(f"Or glue a filler of {ctx.fmt(more)} or more into each edge first"),
            grounds=Grounds("solid_left", "part:hinge edge", rule=f"{ctx.fmt(EDGE_KEPT)} stays for hinges and lock"),
        )


def _widened(ctx: Context, choice: Existing, off_edge: Figure) -> None:
    if off_edge.value >= -HAIR:
        return
    on, shaped = -off_edge.value, ctx.figures["edge_by"].value
    if shaped:
        ctx.warn(
            "edge-shape",
            f"Its edges are {choice.edge_shape}: plane them square first",
            f"{ctx.fmt(shaped)} goes off each edge before a strip can be glued on; the strip is then "
            f"{ctx.fmt(on + shaped)}.",
            Remedy(f"Strips of {ctx.fmt(on + shaped)}"),
            grounds=Grounds("edge_by"),
        )
    if on + shaped < STRIP_LEAST:
        ctx.warn(
            "strip-thin",
            "The strips are too thin to glue on and plane",
            f"{ctx.fmt(on + shaped)} on each edge.",
            Remedy(f"Plane {ctx.fmt(STRIP_LEAST - on - shaped)} off each edge first"),
            grounds=Grounds(
                "strip_on", "part:hinge strip", rule=f"{ctx.fmt(STRIP_LEAST)} at the least: common practice"
            ),
        )


def _height(ctx: Context, choice: Existing, off_height: Figure) -> None:
    off = off_height.value
    if off > HAIR:
        if choice.inside in WITH_FACES and off > choice.rail:
            ctx.stop(
                "end-gone",
                "The trim goes beyond its solid end",
                f"{ctx.fmt(off)} off one end; {ctx.fmt(choice.rail)} is solid.",
                Remedy(
                    f"{ctx.fmt(off / 2)} off each end"
                    if off / 2 <= choice.rail
                    else f"At most {ctx.fmt(2 * choice.rail)} in all, half at each end; or glue a block in"
                ),
                grounds=Grounds("off_height"),
            )
        if choice.inside is Inside.PANELLED:
            left = min(ctx.figures["bottom_rail"].value, ctx.figures["top_rail"].value)
            if left < RAIL_KEPT:
                ctx.stop(
                    "rails-gone",
                    "The end rails are cut too far down",
                    f"{ctx.fmt(left)} of one is left.",
                    Remedy(f"A leaf {ctx.fmt(2 * (RAIL_KEPT - left))} taller; or take it apart and cut the panels"),
                    grounds=Grounds("top_rail", rule=f"{ctx.fmt(RAIL_KEPT)} for its tenons: common practice"),
                )
        return
    if off < -HAIR:
        _longer(ctx, choice, -off)


def _longer(ctx: Context, choice: Existing, grow: float) -> None:
    if choice.splice is Splice.BLOCK:
        if ctx.leaf.hanging.has_butts:
            ctx.warn(
                "block-loaded",
                "A block bears no hinge",
                f"{ctx.fmt(grow)} are glued on end grain and loose tenons.",
                Remedy("Staggered splices", "build.splice", Splice.STAGGERED),
                grounds=Grounds("added", rule="for ends without load: common practice"),
            )
        return
    lap = splice_length(splice=choice.splice, lap=choice.splice_lap, thickness=choice.thickness)
    if grow < lap - HAIR and choice.splice is Splice.STAGGERED:
        smaller = grow >= HALVED_LEAST
        ctx.stop(
            "splice-short",
            "The extension is shorter than its splice",
            f"{ctx.fmt(grow)} are added, halved over {ctx.fmt(lap)}.",
            Remedy(f"Halved over {ctx.fmt(grow)}", "build.splice_lap", grow)
            if smaller
            else Remedy(
                f"Cut {ctx.fmt(HALVED_LEAST - grow)} off the old end first, then halve over {ctx.fmt(HALVED_LEAST)}"
            ),
            *(
                []
                if ctx.leaf.hanging.has_butts
                else [Remedy("Or a block on loose tenons", "build.splice", Splice.BLOCK)]
            ),
            grounds=Grounds("splice_lap"),
        )
    elif choice.splice is Splice.STAGGERED and choice.splice_lap < HALVED_LEAST:
        ctx.warn(
            "splice-lap",
            "The splice is short",
            f"Halved over {ctx.fmt(lap)}.",
            Remedy(f"Halved over {ctx.fmt(HALVED_LEAST)}", "build.splice_lap", HALVED_LEAST),
            grounds=Grounds("splice_lap", rule=f"{ctx.fmt(HALVED_LEAST)} and more: common practice"),
        )
    _splice_places(ctx, choice, grow + lap + choice.splice_stagger)


def _splice_places(ctx: Context, choice: Existing, reach: float) -> None:
    """Judge where the splices lie; reach: how far new wood goes from the end, mm."""
    if choice.splice_stagger < STAGGER_LEAST:
        ctx.warn(
            "splice-beside",
            "The splices lie beside one another",
            f"{ctx.fmt(choice.splice_stagger)} apart: one weak line across the leaf.",
            Remedy(f"Staggered by {ctx.fmt(STAGGER_LEAST + 5)}", "build.splice_stagger", STAGGER_LEAST + 5),
            grounds=Grounds("splice_stagger", rule=f"{ctx.fmt(STAGGER_LEAST)} and more: common practice"),
        )
    if ctx.leaf.hanging.has_butts and choice.splice is not Splice.SCARF:
        end = ctx.rules.butt_from_bottom if choice.at_foot else ctx.rules.butt_from_top
        if reach > end.value:
            ctx.warn(
                "splice-hinge",
                "A hinge stands on the splice",
                f"New wood reaches {ctx.fmt(reach)} up, the butt begins {ctx.fmt(end.value)} from the end.",
                Remedy("A long scarf, 1 in 8", "build.splice", Splice.SCARF),
                grounds=Grounds("splice_lap", rule="a stile that carries a hinge is scarfed: common practice"),
            )


def _cuts(ctx: Context, choice: Existing) -> None:
    """V lines and the recess against what is inside."""
    faces = choice.inside in WITH_FACES
    deepest = choice.face - FACE_KEPT if faces else choice.thickness / 4
    if choice.grooves and choice.groove_depth > deepest:
        ctx.report(
            "groove-deep",
            Level.STOP if faces and choice.groove_depth >= choice.face else Level.WARNING,
            "The V lines cut through the face" if faces else "The V lines cut the leaf thin",
            f"{ctx.fmt(choice.groove_depth)} deep in {ctx.fmt(choice.face if faces else choice.thickness)}.",
            Remedy(f"{ctx.fmt(deepest)} deep", "build.groove_depth", deepest)
            if deepest >= 0.5
            else Remedy("Lines painted or scribed, not cut"),
            grounds=Grounds("band"),
        )
    if "pitch" in ctx.figures and ctx.figures["pitch"].value < 5:
        band = max(5.0, (ctx.figures["leaf_width"].value - 5.0 * (choice.grooves - 1)) / 2)
        ctx.stop(
            "band-wide",
            "The bands leave no room for the lines",
            f"{ctx.fmt(ctx.figures['pitch'])} from line to line.",
            Remedy(f"Bands of {ctx.fmt(band)}", "build.band", band),
            grounds=Grounds("pitch"),
        )
    if (
        choice.recess_depth is not None
        and choice.inside in (Inside.HOLLOW, Inside.BLOCKS)
        and (choice.recess_depth > choice.face - FACE_KEPT)
    ):
        most = choice.face - FACE_KEPT
        ctx.report(
            "recess-deep",
            Level.WARNING if choice.inside is Inside.BLOCKS else Level.STOP,
            "The recess breaks into the leaf's inside",
            f"{ctx.fmt(choice.recess_depth)} deep in a face of {ctx.fmt(choice.face)}.",
            Remedy("Only where its block is: knock, and drill a small hole first")
            if choice.inside is Inside.BLOCKS
            else (
                Remedy(f"A pull {ctx.fmt(most)} deep", "build.recess_depth", most)
                if most >= 1
                else Remedy("A pull on the face")
            ),
            grounds=Grounds("recess_depth"),
        )
