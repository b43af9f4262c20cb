"""A frame with panels: mortises and grooves in loose members, tenons, panels, dry fit; the glue-up follows its plan."""

from __future__ import annotations

from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.roles import Role
from oakmeasure.core.making.changes import FeatureKind
from oakmeasure.core.making.glue import GluePlan
from oakmeasure.core.making.glue_steps import glue_up
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.panel_steps import cut_later, cut_panels, last_steps
from oakmeasure.core.making.step_builder import StepBuilder, many
from oakmeasure.core.making.tenon_sizes import between_shoulders, reaches
from oakmeasure.core.making.wood_steps import panels_ahead

__all__ = ["after_frame", "cut_later", "frame_steps", "glue_frame", "last_steps", "steps"]

SUNK = (FeatureKind.MORTISE, FeatureKind.SOCKET)
GROOVED = (FeatureKind.GROOVE, FeatureKind.REBATE)
WEDGE_SHORT, WEDGE_FLARE = 10.0, 3.0  # mm: common practice, no source
MORTISE_DEEPER = 2.0  # than its tenon is long, for the glue: common practice, no source
SHOULDER_GAP = 0.1  # mm: common practice, no source
DRY_SQUARE = 1.0  # diagonals of a dry frame, mm


def steps(m: StepBuilder, choice: Framed, glue: GluePlan | None) -> None:
    """Add the operations of a framed leaf, from its marked members to one that is glued and levelled.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the frame.
        glue: How the leaf is glued up; None where nothing is.
    """
    frame_steps(m, choice)
    glue_frame(m, glue)
    after_frame(m, choice)


def glue_frame(m: StepBuilder, glue: GluePlan | None) -> None:
    """Add the glue-up of a frame, which shuts its panels in.

    Args:
        m: Where the operations are added.
        glue: How the leaf is glued up; None where nothing is.
    """
    panels = tuple(part.name for part in m.parts(Role.PANEL) if part.species != "glass" and not part.layer_of)
    members = m.names(Role.STILE, Role.RAIL, Role.MUNTIN)
    glue_up(m, glue, "frame", m.whole, held=(*members, *panels))


def frame_steps(m: StepBuilder, choice: Framed) -> None:
    """Add the operations of a frame, from its marked parts to the dry fit.

    Veneered frames are framed as well.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the frame.
    """
    stiles, rails = m.names(Role.STILE), m.names(Role.RAIL)
    muntins, panels = m.names(Role.MUNTIN), m.names(Role.PANEL)
    m.add(
        "mark:joints",
        "Set out the joints, stiles as a pair",
        Trade.MARK,
        parts=(*stiles, *rails, *muntins),
        needs=m.loose((*stiles, *rails, *muntins)),
        bucket=Bucket.JOINTS,
        share=0.5,
        settings=m.set_to(shoulder_to_shoulder="shoulder"),
        hold=WorkpieceSetup(SideUp.INNER_EDGE, stiles[0]) if stiles else None,
        check=StepCheck("shoulders of like rails against one another, difference", SHOULDER_GAP),
    )
    joint = {TenonKind.DOWELS: _bored, TenonKind.POCKET: _pocket, TenonKind.HALF_LAP: _lapped}.get(
        choice.tenon, _mortised
    )
    joint(m, choice, stiles, rails, muntins)
    _stub_tenons(m, rails, muntins)
    if m.build.groove_depth > 0:
        straight = rails[:-1] if choice.arch_rise is not None else rails  # an arch is grooved once it is sawn
        _groove(m, stiles, straight, muntins)
    _arch(m, choice, rails)
    cut_panels(m, choice, panels)
    members = tuple(each for each in ("fit:joints", "cut:wedges", "groove:frame", "arch:rail") if m.steps.has(each))
    dry = m.add(
        "dry:frame",
        "Put it together dry, clamps and all",
        Trade.FIT,
        parts=(*stiles, *rails, *muntins, *panels),
        needs=(*members, "cut:panels", "field:panels"),
        bucket=Bucket.GLUE,
        share=0.4,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("diagonals, difference", DRY_SQUARE),
        how="winding sticks on the stiles; every clamp set and laid by in its order",
        why="what does not close dry does not close with glue on it",
    )
    panels_ahead(m, dry, needs=(*members, "cut:panels", "field:panels"))
    m.whole = dry


def _mortised(
    m: StepBuilder, choice: Framed, stiles: tuple[str, ...], rails: tuple[str, ...], muntins: tuple[str, ...]
) -> None:
    thick, deep = m.set_out_thick, m.value("tenon")
    tool, loose = m.value("tenon_thickness"), choice.tenon is TenonKind.LOOSE
    bridle = choice.tenon is TenonKind.BRIDLE
    what = "open mortises" if bridle else "mortises"
    through = choice.tenon.goes_through
    m.add(
        "mortise:stiles",
        f"Cut the {what} in the loose stiles",
        Trade.JOINT,
        parts=stiles,
        needs=("mark:joints",),
        early=True,
        bucket=Bucket.JOINTS,
        hold=WorkpieceSetup(SideUp.INNER_EDGE, stiles[0]) if stiles else None,
        settings=(
            Setting("chisel", tool, figure="tenon_thickness"),
            Setting("fence to it", (thick - tool) / 2),
            *((Setting("deep", deep, figure="tenon"),) if not through else ()),
        ),
        check=StepCheck("cheeks true to the face, from face to mortise on both stiles, difference", 0.1),
        practice="one mortise in an off-cut of the same stuff, and its tenon",
        cautions=("chisel", "drill"),
        how="opening face to the fence, both stiles; "
        + ("from both edges to the middle" if through else f"{m.show.length(MORTISE_DEEPER)} deeper"),
        why="a loose stile lies flat under the machine",
        later="by hand, in a frame that is already shut",
        changes=m.cuts(stiles, *SUNK),
    )
    if muntins and rails:
        m.add(
            "mortise:rails",
            "Cut the mortises for the muntins in the loose rails",
            Trade.JOINT,
            parts=rails,
            needs=("mark:joints",),
            early=True,
            bucket=Bucket.JOINTS,
            share=0.6,
            hold=WorkpieceSetup.of(SideUp.INNER_EDGE, rails),
            settings=(
                Setting("chisel", tool, figure="tenon_thickness"),
                Setting("fence to it", (thick - tool) / 2),
                *(Setting("deep", each) for each in reaches(m, muntins)),
            ),
            cautions=("chisel", "drill"),
            how=f"{m.show.length(MORTISE_DEEPER)} deeper",
            why="the same setting as the stiles, before it is moved",
            later="the fence is set a second time, never quite the same",
            changes=m.cuts(rails, FeatureKind.MORTISE),
        )
    _tenoned(m, stiles, rails, muntins, loose)


def _tenoned(
    m: StepBuilder, stiles: tuple[str, ...], rails: tuple[str, ...], muntins: tuple[str, ...], loose: bool
) -> None:
    """Mortise the ends for loose tenons, or cut tenons; then fit the joints."""
    tool, deep = m.value("tenon_thickness"), m.value("tenon")
    if loose:
        m.add(
            "mortise:ends",
            "Cut the mortises in the ends of rails and muntins",
            Trade.JOINT,
            parts=(*rails, *muntins),
            needs=("mark:joints", "mortise:stiles"),
            bucket=Bucket.JOINTS,
            settings=(Setting("cutter", tool),),
            cautions=("router",),
            practice="one joint in off-cuts",
            changes=m.cuts((*rails, *muntins), FeatureKind.SOCKET),
        )
    else:
        m.add(
            "tenon:rails",
            "Cut the tenons" + (", haunched" if "haunched" in m.build.says else ""),
            Trade.JOINT,
            parts=(*rails, *muntins),
            needs=("mark:joints", "mortise:stiles", "mortise:rails"),
            bucket=Bucket.JOINTS,
            settings=(
                Setting("between shoulders", m.value("shoulder"), figure="shoulder"),
                Setting("tenon", tool, figure="tenon_thickness"),
                Setting("long", deep, figure="tenon"),
                *(Setting("muntins between", each) for each in between_shoulders(m, muntins)),
                *(Setting("their tenons long", each) for each in reaches(m, muntins)),
            ),
            hold=WorkpieceSetup(SideUp.OPENING, rails[0]) if rails else None,
            practice="the tenon of the trial joint first",
            check=StepCheck("pushed home by hand, shoulders shut", SHOULDER_GAP),
            cautions=("saw",),
            how="opening face to the fence as at the mortises",
            changes=m.cuts((*rails, *muntins), FeatureKind.TENON),
        )
    _fit(m, stiles, rails, muntins, "tenon:rails", "mortise:ends")
    _wedges(m, stiles, rails)


def _bored(
    m: StepBuilder, choice: Framed, stiles: tuple[str, ...], rails: tuple[str, ...], muntins: tuple[str, ...]
) -> None:
    m.add(
        "dowel:joints",
        "Bore the dowel holes in all loose members",
        Trade.BORE,
        parts=(*stiles, *rails, *muntins),
        needs=("mark:joints",),
        early=True,
        bucket=Bucket.JOINTS,
        share=2.0,
        cautions=("drill",),
        settings=(Setting("jig to face", m.set_out_thick / 2), many(len(m.build.tenons), "joints")),
        hold=WorkpieceSetup(SideUp.INNER_EDGE, stiles[0]) if stiles else None,
        practice="one joint in off-cuts",
        check=StepCheck("a dry joint, step between the faces", 0.1),
        why="loose members go under the drill",
        later="no drill reaches them once a member is glued",
        changes=m.cuts((*stiles, *rails, *muntins), *SUNK),
    )
    _fit(m, stiles, rails, muntins, "dowel:joints")


def _pocket(
    m: StepBuilder, choice: Framed, stiles: tuple[str, ...], rails: tuple[str, ...], muntins: tuple[str, ...]
) -> None:
    m.add(
        "pocket:holes",
        "Bore the pocket holes from the closing face",
        Trade.BORE,
        parts=(*rails, *muntins),
        needs=("mark:joints",),
        early=True,
        bucket=Bucket.JOINTS,
        share=1.5,
        cautions=("drill",),
        settings=m.set_to(screw="pocket_screw"),
        hold=WorkpieceSetup(SideUp.CLOSING, rails[0]) if rails else None,
        practice="one joint in off-cuts, screw and all",
        why="before any member is fixed",
        later="a frame that has to come apart again",
    )
    _fit(m, stiles, rails, muntins, "pocket:holes")


def _lapped(
    m: StepBuilder, choice: Framed, stiles: tuple[str, ...], rails: tuple[str, ...], muntins: tuple[str, ...]
) -> None:
    m.add(
        "lap:joints",
        "Cut the half laps",
        Trade.JOINT,
        parts=(*stiles, *rails, *muntins),
        needs=("mark:joints",),
        early=True,
        bucket=Bucket.JOINTS,
        share=2.0,
        settings=(Setting("deep", m.set_out_thick / 2),),
        hold=WorkpieceSetup(SideUp.OPENING, rails[0]) if rails else None,
        practice="one lap in off-cuts: faces flush",
        check=StepCheck("step between the faces", 0.1),
        cautions=("saw", "router"),
        why="one depth for all, set once",
        later="each by itself",
        changes=m.cuts((*stiles, *rails, *muntins), FeatureKind.LAP, *SUNK, FeatureKind.TENON),
    )
    _fit(m, stiles, rails, muntins, "lap:joints")


def _fit(
    m: StepBuilder, stiles: tuple[str, ...], rails: tuple[str, ...], muntins: tuple[str, ...], *needs: str
) -> None:
    m.add(
        "fit:joints",
        "Fit every joint by hand, and letter it",
        Trade.FIT,
        parts=(*stiles, *rails, *muntins),
        needs=(*needs, "mortise:stiles", "mortise:rails", "tenon:muntins"),
        bucket=Bucket.JOINTS,
        cautions=("chisel",),
        check=StepCheck("shoulders shut without a clamp", SHOULDER_GAP),
        hold=WorkpieceSetup(SideUp.OPENING),
        changes=m.layers_to_shoulders((*rails, *muntins)),
    )


def _wedges(m: StepBuilder, stiles: tuple[str, ...], rails: tuple[str, ...]) -> None:
    """Kerf through tenons and flare their mortises, and cut the wedges, before glue is on."""
    through = [each for each in m.build.tenons if each.through and not each.is_haunch and each.member in rails]
    if not through:
        return
    m.add(
        "cut:wedges",
        "Cut the wedges, kerf the tenons, flare the mortises",
        Trade.JOINT,
        parts=(*stiles, *rails),
        needs=("fit:joints",),
        bucket=Bucket.JOINTS,
        share=0.4,
        settings=(
            many(2 * len(through), "wedges"),
            Setting("wide", m.value("tenon_thickness"), figure="tenon_thickness"),
            Setting("kerfs stop short of the shoulder", WEDGE_SHORT),
            Setting("flare outside, each end", WEDGE_FLARE),
        ),
        cautions=("saw", "chisel"),
        check=StepCheck("each wedge starts by hand and is as wide as its tenon is thick"),
        how="1 in 8, grain along the wedge, of the stiles' wood; kerfs a fifth in from each edge of the tenon",
        why="once glue is on there is no time for it",
    )


def _stub_tenons(m: StepBuilder, rails: tuple[str, ...], muntins: tuple[str, ...]) -> None:
    """Tenon the muntins into their rails where the frame itself is joined another way."""
    left = m.cuts_left((*rails, *muntins), FeatureKind.TENON, FeatureKind.MORTISE)
    if not left:
        return
    m.add(
        "tenon:muntins",
        "Cut the muntins' tenons, and their mortises in the loose rails",
        Trade.JOINT,
        parts=(*rails, *muntins),
        needs=("mark:joints",),
        early=True,
        bucket=Bucket.JOINTS,
        share=0.8,
        settings=m.set_to(thick="tenon_thickness"),
        hold=WorkpieceSetup.of(SideUp.OPENING, muntins or rails),
        cautions=("saw", "chisel"),
        practice="one joint in off-cuts",
        check=StepCheck("pushed home by hand, shoulders shut", SHOULDER_GAP),
        why="loose rails lie flat under the machine",
        later="by hand, in a frame that is already shut",
        changes=left,
    )


def _groove(m: StepBuilder, stiles: tuple[str, ...], rails: tuple[str, ...], muntins: tuple[str, ...]) -> None:
    wide, thick = m.build.groove_width, m.set_out_thick
    m.add(
        "groove:frame",
        "Plough the grooves in the loose members",
        Trade.ROUT,
        parts=(*stiles, *rails, *muntins),
        needs=("mark:joints", "mortise:stiles", "mortise:rails", "dowel:joints"),
        early=True,
        bucket=Bucket.JOINTS,
        settings=(
            Setting("wide", wide),
            Setting("deep", m.build.groove_depth, figure="groove_depth"),
            Setting("fence to it", (thick - wide) / 2),
        ),
        hold=WorkpieceSetup(SideUp.INNER_EDGE, stiles[0]) if stiles else None,
        cautions=("router", "dust"),
        check=StepCheck("a panel off-cut slides without a knock"),
        practice="an off-cut of panel and one of stile",
        how="opening face to the fence, all of them; both edges of a muntin and of a rail between",
        why="loose members run over the table in one go",
        later="stopped grooves by hand in a shut frame",
        changes=m.cuts((*stiles, *rails, *muntins), *GROOVED),
    )


def _arch(m: StepBuilder, choice: Framed, rails: tuple[str, ...]) -> None:
    if choice.arch_rise is not None:
        m.add(
            "arch:rail",
            "Saw and clean the arch of the top rail",
            Trade.SAW,
            parts=rails[-1:],
            needs=("fit:joints",),
            bucket=Bucket.JOINTS,
            settings=(
                *m.set_to(radius="arch_radius", rise="arch"),
                *((Setting("groove wide", m.build.groove_width),) if m.build.groove_depth > 0 else ()),
                *m.set_to(deep="groove_depth"),
            ),
            cautions=("saw", "router"),
            how="its groove after it, with a bearing cutter" if m.build.groove_depth > 0 else "",
            check=StepCheck("along a full-size template", 0.5),
            changes=m.cuts_left(rails[-1:], FeatureKind.SHAPE, *GROOVED),
        )
        m.steps.need("arch:rail", "groove:frame")


def after_frame(m: StepBuilder, choice: Framed) -> None:
    """Add what follows the glue-up of a frame: joints flushed, wedges cut, glass last.

    Args:
        m: Where the operations are added.
        choice: What is chosen for the frame.
    """
    glued = m.whole
    m.whole = m.add(
        "flush:frame",
        "Clean off, flush the joints" + (", saw the wedges off" if choice.tenon is TenonKind.THROUGH else ""),
        Trade.PLANE,
        needs=(glued,),
        bucket=Bucket.FINISH,
        share=1.0,
        hold=WorkpieceSetup(SideUp.OPENING),
        check=StepCheck("step at each joint by straightedge", 0.05),
        how="rails first, then stiles along their grain",
    )
