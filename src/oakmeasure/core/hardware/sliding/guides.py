"""What keeps a sliding leaf's foot in line: a fin in a groove, cheeks, a roller; by the kind of floor.

Source: common practice of the trade. A floating floor moves, so nothing may pin it; a carpet hides and clogs a guide.
"""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.base.prisms import block
from oakmeasure.core.body.pieces import Body
from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.sliding_gear import FloorKind, Guide, GuideKind
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.figures.figure import fixed, minus, plus
from oakmeasure.core.hardware.boring import Boring, BoringKind, CutSide, leaf_cut
from oakmeasure.core.hardware.locks.mortise_locks import middle
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, DrawnMark

CHEEK = 5.0  # wood on each side of a groove: common practice, no source
PLAY = (1.0, 4.0)  # of a fin in its groove: common practice, no source
AIR_UNDER = 2.0  # between the guide's plate and the leaf's foot: common practice, no source
SOLID_OVER = 3.0  # wood over a groove: common practice, no source
# Of a fin in its groove, and over it: common practice, no source
HOLD = 8.0
AIR_OVER = 2.0


def cut_guide(ctx: Context, build: Build) -> Build:
    """Return the build with the groove for a guide marked in its foot, and judge it; a late trim rests on it.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
    """
    guide = ctx.leaf.hardware.guide
    if not ctx.leaf.hanging.slides or guide.kind is not GuideKind.FIN:
        return build
    f, w = ctx.figures, build.width
    wide = ctx.chosen("guide_width", "groove for the guide, width", guide.groove_width, "hardware.guide.groove_width")
    deep = ctx.chosen("guide_depth", "groove for the guide, depth", guide.groove_depth, "hardware.guide.groove_depth")
    if not ctx.leaf.build.keeps_its_sizes:
        what = "groove in the loose rail, depth, its trimming allowance still on"
        f.total("guide_loose", what, plus(deep), plus(f["trim_height"]))
    fin = ctx.chosen("guide_fin", "fin in the groove, thickness", guide.fin, "hardware.guide.fin")
    cheek = f.total("guide_cheek", "wood beside the groove, each side", plus(f["thickness"], 0.5), minus(wide, 0.5))
    f.total("guide_play", "play of the fin in its groove", plus(wide), minus(fin))
    _judge_groove(ctx, guide)
    if cheek.value <= 0:
        return build
    corners = ((0.0, 0.0), (0.0, deep.value), (w, deep.value), (w, 0.0))
    return replace(build, marks=(*build.marks, DrawnMark(corners, "figure:guide_depth", hidden=True)))


def _judge_groove(ctx: Context, guide: Guide) -> None:
    f, wide = ctx.figures, ctx.figures["guide_width"]
    cheek, play, deep = f["guide_cheek"], f["guide_play"], f["guide_depth"]
    if cheek.value < CHEEK:
        most = f["thickness"].value - 2 * CHEEK
        words = (
            "The guide's groove is wider than the leaf"
            if cheek.value <= 0
            else ("The guide's groove leaves thin cheeks")
        )
        ctx.stop(
            "guide-wide",
            words,
            f"{ctx.fmt(wide)} in {ctx.fmt(f['thickness'])}: {ctx.fmt(cheek)} on each side.",
            Remedy(f"A groove of {ctx.fmt(most)}", "hardware.guide.groove_width", most)
            if most >= 3
            else Remedy("Cheeks beside the leaf", "hardware.guide.kind", GuideKind.CHEEKS),
            grounds=Grounds("guide_cheek", rule=f"{ctx.fmt(CHEEK)} on each side"),
        )
    if not PLAY[0] <= play.value <= PLAY[1]:
        fin = max(wide.value - 2.0, 1.0)
        ctx.report(
            "guide-play",
            Level.STOP if play.value <= 0 else Level.WARNING,
            "The fin binds in its groove" if play.value < PLAY[0] else "The fin rattles in its groove",
            f"A fin of {ctx.fmt(guide.fin)} in {ctx.fmt(wide)}: {ctx.fmt(play)} of play.",
            Remedy(f"A fin of {ctx.fmt(fin)}", "hardware.guide.fin", fin),
            grounds=Grounds("guide_play", rule=f"{ctx.fmt(PLAY[0])} to {ctx.fmt(PLAY[1])}"),
        )
    solid = ctx.leaf.build.solid_from_foot
    if solid is not None and deep.value > solid - SOLID_OVER and f["off_height"].value >= 0:
        most = solid - SOLID_OVER
        ctx.stop(
            "guide-deep",
            "The guide's groove goes beyond the solid foot",
            f"{ctx.fmt(deep)} deep, {ctx.fmt(solid)} is solid.",
            Remedy(f"{ctx.fmt(most)} deep", "hardware.guide.groove_depth", most)
            if most >= 3
            else Remedy("Glue a block into the foot"),
            grounds=Grounds("guide_depth"),
        )


def bore_guide(ctx: Context, body: Body) -> tuple[Boring, ...]:
    """Return the groove as it is left once the leaf is trimmed, and judge the guide against floor and leaf.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        body: The leaf's pieces in place.
    """
    if not ctx.leaf.hanging.slides or ctx.leaf.hanging is Hanging.FLOOR_GEAR:
        return ()  # on the floor its own wheels keep it in line
    guide, f = ctx.leaf.hardware.guide, ctx.figures
    _judge_floor(ctx, guide)
    if guide.kind is GuideKind.CHEEKS:
        _cheeks(ctx, guide)
    if guide.kind in (GuideKind.FIN, GuideKind.CHEEKS):
        _over_plate(ctx, guide)
    if guide.kind is not GuideKind.FIN or f["guide_cheek"].value <= 0:
        return ()
    deep = f.get("guide_left") or f["guide_depth"]
    over = f.given("guide_over", "air over the fin in its groove", AIR_OVER, fixed(source="common practice"))
    held = f.total("guide_holds", "the fin stands into its groove, at the most", plus(deep), minus(over))
    fin = f.total("guide_fin_up", "fin over the floor, at the most", plus(f["gap_floor"]), plus(held))
    if held.value < HOLD:
        more = deep.value + HOLD - held.value
        ctx.warn(
            "guide-holds",
            "The fin hardly reaches into its groove",
            f"{ctx.fmt(held)} of it in a groove {ctx.fmt(deep)} deep.",
            Remedy(
                f"A groove {ctx.fmt(more)} deep", "hardware.guide.groove_depth", guide.groove_depth + HOLD - held.value
            )
            if guide.groove_depth + HOLD - held.value <= 50
            else Remedy("Trim less off the foot"),
            grounds=Grounds("guide_holds", rule=f"{ctx.fmt(HOLD)} or more"),
        )
    else:
        ctx.fine(
            "guide",
            "The fin holds the foot",
            f"{ctx.fmt(f['guide_width'])} × {ctx.fmt(deep)} in the foot, {ctx.fmt(f['guide_play'])} of play; the fin "
            f"up to {ctx.fmt(fin)} over the floor.",
            grounds=Grounds("guide_holds"),
        )
    lies = middle(body.along("hinge"), guide.groove_width)
    return (
        leaf_cut(
            BoringKind.GUIDE_GROOVE,
            "foot",
            CutSide.FOOT_ALONG,
            body.height - deep.value,
            (deep.value, guide.groove_width, deep.value),
            block(0.0, 0.0, body.width, deep.value, lies),
        ),
    )


def _cheeks(ctx: Context, guide: Guide) -> None:
    felt = ctx.chosen("guide_felt", "felt on each cheek", guide.felt, "hardware.guide.felt")
    apart = ctx.figures.total("guide_spacing", "between the cheeks", plus(ctx.figures["thickness"]), plus(felt, 2))
    ctx.fine(
        "guide",
        f"Cheeks {ctx.fmt(apart)} apart",
        f"The leaf and {ctx.fmt(felt)} of felt on each side.",
        grounds=Grounds("guide_spacing"),
    )


def _over_plate(ctx: Context, guide: Guide) -> None:
    """The foot passes over the guide's plate and the heads of its screws."""
    f = ctx.figures
    if guide.kind is GuideKind.CHEEKS and not ctx.leaf.hanging.bypasses:
        return  # the plate of cheeks stands beside the leaf
    plate = ctx.chosen("guide_plate", "guide's plate with its screw heads", guide.plate, "hardware.guide.plate")
    air = f.total("guide_under", "air between plate and foot", plus(f["gap_floor"]), minus(plate))
    if air.value < AIR_UNDER:
        wanted = plate.value + AIR_UNDER
        ctx.report(
            "guide-plate",
            Level.STOP if air.value <= 0 else Level.WARNING,
            "The foot meets the guide's screws" if air.value <= 0 else "The foot hardly clears the guide",
            f"Plate and screw heads {ctx.fmt(plate)}, the gap over the floor is {ctx.fmt(f['gap_floor'])}.",
            Remedy(f"Gap over the floor {ctx.fmt(wanted)}", "fit.gap_floor", wanted),
            Remedy("Or let the plate into the floor", "hardware.guide.plate", 0.0),
            grounds=Grounds("guide_under", rule=f"{ctx.fmt(AIR_UNDER)} of air"),
        )


def _judge_floor(ctx: Context, guide: Guide) -> None:
    """Which guide a floor bears, and what holds it there."""
    if guide.kind is GuideKind.NONE:
        ctx.warn(
            "guide-none",
            "Nothing keeps the foot in line",
            "A sliding leaf without a guide swings, and comes off its track.",
            Remedy("A fin in a groove in the foot", "hardware.guide.kind", GuideKind.FIN)
            if guide.floor is not FloorKind.CARPET
            else Remedy("A roller on the wall", "hardware.guide.kind", GuideKind.ROLLER),
        )
        return
    on_floor = guide.kind is not GuideKind.ROLLER
    if guide.floor is FloorKind.LAMINATE and on_floor and not guide.let_in:
        ctx.stop(
            "guide-floor",
            "A guide must not pin a floating floor",
            "It moves with the seasons: screwed down in one place it lifts or opens elsewhere.",
            Remedy("On a piece of its own, let in with a gap round it", "hardware.guide.let_in", True),
            Remedy("Or a roller on the wall", "hardware.guide.kind", GuideKind.ROLLER),
            grounds=Grounds(rule="never through a floating floor"),
        )
    elif guide.floor is FloorKind.CARPET and on_floor:
        ctx.stop(
            "guide-floor",
            "No guide holds on a carpet",
            "It tilts on the pile, and the pile drags on the leaf.",
            Remedy("A roller on the wall", "hardware.guide.kind", GuideKind.ROLLER),
            grounds=Grounds(rule="carpet: from the wall"),
        )
    else:
        how = {
            FloorKind.TIMBER: f"Screws {ctx.fmt(guide.screws)} long; mind pipes and cables under the boards.",
            FloorKind.CONCRETE: "Plugs and screws, or glued to tiles; mind floor heating.",
            FloorKind.LAMINATE: "Its own piece is glued to the floor under it, the boards end round it with a gap.",
            FloorKind.CARPET: "Nothing touches the carpet.",
        }[guide.floor]
        ctx.fine("guide-floor", f"{str(guide.kind).capitalize()} on {guide.floor}", how)
