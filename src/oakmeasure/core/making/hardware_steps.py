"""What is cut for hinges, lock, latch, pull and gear.

In the loose member where its edges stay, else on the sized leaf.
"""

from __future__ import annotations

from collections.abc import Iterable

from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.production import About
from oakmeasure.core.document.roles import Place, Role
from oakmeasure.core.hardware.boring import Boring, BoringKind, Device
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many


def hardware(m: StepBuilder) -> None:
    """Add what is cut for hardware, in the leaf and in what carries it.

    Args:
        m: Where the operations are added.
    """
    by = _by_device(m.leaf.borings)
    if Device.BUTT in by:
        _butts(m, by[Device.BUTT])
    if Device.CUP in by:
        _cups(m, by)
    if Device.LOCK in by:
        _lock(m, by[Device.LOCK])
    if Device.LATCH in by:
        _latch(m, by[Device.LATCH])
    _bolts_and_pull(m, by)
    if m.leaf.gear is not None:
        _gear(m, by)
    _guide(m, by)


def _by_device(cuts: Iterable[Boring]) -> dict[Device, list[Boring]]:
    found: dict[Device, list[Boring]] = {}
    for cut in cuts:
        found.setdefault(cut.kind.device, []).append(cut)
    return found


def _moment(m: StepBuilder, cuts: list[Boring], *, from_edge: bool = True) -> tuple[tuple[str, ...], bool]:
    """Return what a cut in the leaf needs, and whether it is made in loose members.

    Loose, where they are worked before they are joined, no joint lies in the cut and the edge that it is measured from
    stays as it is; else on the leaf as it is sized.
    """
    loose = m.leaf.leaf.build.is_worked_loose and not (from_edge and m.trim_side > 0.01)
    for cut in cuts:
        loose = loose and cut.member in m.ready and not _meets_joint(m, cut)
    if loose:
        return ("measure:set", "mark:joints", *m.loose(cut.member for cut in cuts)), True
    return ("measure:set", m.sized), False


def _meets_joint(m: StepBuilder, cut: Boring) -> bool:
    y1 = m.build.height - cut.from_top
    return any(
        cut.member in (t.member, t.into) and t.rect.y0 < y1 and t.rect.y1 > y1 - cut.along for t in m.build.tenons
    )


def _cut(m: StepBuilder, op_id: str, name: str, trade: Trade, cuts: list[Boring], hold: SideUp, **what: object) -> None:
    """Add a cut in the leaf at its earliest moment."""
    needs, loose = _moment(m, cuts, from_edge=bool(what.pop("from_edge", True)))
    more = what.pop("after", ())
    part = cuts[0].member if loose else ""
    settings = what.pop("settings", ())
    m.add(
        op_id,
        name + (" in the loose " + cuts[0].member if loose else ""),
        trade,
        needs=(*needs, *more),  # type: ignore[misc]
        early=True,
        parts=tuple(dict.fromkeys(c.member for c in cuts)),
        cuts=tuple(c.name for c in cuts),
        settings=settings,
        hold=WorkpieceSetup(hold, part),
        bucket=Bucket.HANGING,
        about=About.HARDWARE,
        why="a loose member lies flat under the tool" if loose else "as soon as its edge is as it stays",
        later="a leaf of full weight on edge" if loose else "nothing can be hung dry before it",
        **what,
    )


# --- hinges ------------------------------------------------------------------------------------------------


def _butts(m: StepBuilder, cuts: list[Boring]) -> None:
    leaf, side = [c for c in cuts if c.cut_in.is_leaf], [c for c in cuts if not c.cut_in.is_leaf]
    tops = tuple(Setting(f"{n} from the top", c.from_top, figure=f"butt_{n}_top") for n, c in enumerate(leaf, start=1))
    deep = m.set_to(deep="butt_depth", across="butt_across")
    template = m.leaf.leaf.hardware.template is not None
    _cut(
        m,
        "let-in:leaf",
        "Let the butts into the leaf's edge",
        Trade.ROUT,
        leaf,
        SideUp.HINGE_EDGE,
        settings=(*deep, *m.set_to(guide_offset="template_offset"), *tops[:3]),
        practice="one recess in an off-cut: leaf of the hinge flush with the edge",
        cautions=("router", "chisel"),
        check=StepCheck("hinge flush by straightedge, over or under", 0.1),
        how=("template against the head end" if template else "knifed round the hinge itself") + "; knuckles to the "
        "opening face; all from the head end",
    )
    if side:
        made = m.leaf.opening.lining is not None
        jamb = tuple(Setting(f"{n} from the head", c.from_top, figure=f"butt_{n}_jamb") for n, c in enumerate(side, 1))
        carrier = "cabinet's side" if m.leaf.leaf.hanging is Hanging.INSET_BUTTS else "lining's leg"
        loose = f" the loose {carrier}" if made else f" the {carrier}"
        m.add(
            "let-in:side",
            f"Let the butts into{loose}",
            Trade.ROUT,
            early=made,
            cuts=tuple(c.name for c in side),
            needs=("measure:set", *(m.loose(("lining leg, hinge side",)) if made else ("let-in:leaf",))),
            parts=("lining leg, hinge side",) if made else (),
            settings=(*deep[:1], *jamb[:3]),
            bucket=Bucket.HANGING,
            about=About.HARDWARE,
            cautions=("router", "chisel"),
            check=StepCheck("the same template, distance between hinges against the leaf, difference", 0.3),
            how="head gap on top of the leaf's own places; knuckles to the opening side",
            why="before the lining is up it lies on the bench" if made else "",
            later="on knees, with a chisel, in the opening" if made else "",
        )


def _cups(m: StepBuilder, by: dict[Device, list[Boring]]) -> None:
    cups = [c for c in by[Device.CUP] if c.kind is BoringKind.CUP]
    places = tuple(
        Setting(f"cup {n} from the top", m.value(f"cup_{n}"), figure=f"cup_{n}") for n in range(1, len(cups) + 1)
    )
    _cut(
        m,
        "bore:cups",
        "Bore the cups from the closing face",
        Trade.BORE,
        by[Device.CUP],
        SideUp.CLOSING,
        settings=(*m.set_to(fence_to_the_middle="cup_centre"), Setting("depth stop", cups[0].depth), *places[:3]),
        practice="one cup in an off-cut of the leaf's own thickness: nothing through the face",
        cautions=("drill",),
        check=StepCheck("wood left under the cup, by calliper on the off-cut"),
        how="on the drill's table, against the fence; hinge edge to the fence",
    )
    if Device.PLATE in by:
        plates = tuple(
            Setting(f"plate {n}", m.value(f"cup_{n}_plate"), figure=f"cup_{n}_plate") for n in range(1, len(cups) + 1)
        )
        m.add(
            "bore:plates",
            "Bore the plates' holes in the cabinet's side",
            Trade.BORE,
            needs=("measure:set",),
            early=True,
            settings=(*m.set_to(back_from_the_front="plate_back"), *plates[:3]),
            cautions=("drill",),
            bucket=Bucket.HANGING,
            about=About.HARDWARE,
            cuts=tuple(c.name for c in by[Device.PLATE]),
            check=StepCheck("all from one end, the upper one"),
            why="the cabinet's side is bored while it is loose, or at once where it stands",
            later="measured off a leaf that is held up by hand",
        )


# --- lock, latch, bolts, pull ------------------------------------------------------------------------------


def _lock(m: StepBuilder, cuts: list[Boring]) -> None:
    lock, trim = m.leaf.leaf.hardware.lock, m.trim_side
    keeps = [c for c in cuts if c.kind.is_keep]
    inner = [c for c in cuts if c.kind is BoringKind.LOCK_MORTISE]
    holes = [c for c in cuts if c.kind in (BoringKind.SPINDLE_HOLE, BoringKind.KEYHOLE)]
    if lock is None or not inner:
        return
    more = "from both ends to the middle"
    if trim > 0.01:
        more = f"{m.show.length(trim, sign=False)} more than the case for what is trimmed"
    _cut(
        m,
        "mortise:lock",
        "Mortise for the lock",
        Trade.BORE,
        inner,
        SideUp.LATCH_EDGE,
        from_edge=False,
        settings=(
            Setting("drill", lock.case_thickness),
            Setting("deep, from this edge", lock.case_depth + trim),
            Setting("down from the top", m.value("lock_down"), figure="lock_down"),
        ),
        practice="the same bore in an off-cut of the thickness",
        cautions=("drill", "chisel", *_fire(m)),
        check=StepCheck("case slides in by hand; wood left on both faces alike"),
        how="a row of holes on the gauge line, then chisel; " + more,
    )
    _cut(
        m,
        "bore:spindle",
        "Bore for spindle and key, from both faces",
        Trade.BORE,
        holes or inner,
        SideUp.OPENING,
        from_edge=False,
        after=("mortise:lock",),
        cautions=("drill",),
        check=StepCheck("square through, by a rod in it"),
        settings=(
            Setting("from the edge", lock.backset + trim),
            Setting("spindle", lock.spindle_bore),
            *((Setting("key", lock.key_bore),) if lock.key_bore else ()),
        ),
    )
    m.add(
        "let-in:forend",
        "Let the forend in, lock flush with the edge",
        Trade.FIT,
        needs=("mortise:lock", m.sized),
        hold=WorkpieceSetup(SideUp.LATCH_EDGE),
        bucket=Bucket.HANGING,
        share=0.5,
        about=About.HARDWARE,
        cautions=("chisel",),
        settings=(Setting("deep", lock.forend_thickness), Setting("wide", lock.forend_width)),
        cuts=(BoringKind.LOCK_FOREND.value,),
        check=StepCheck("flush with the bevelled edge", 0.1),
    )
    _keep(m, keeps, "lock")


def _fire(m: StepBuilder) -> tuple[str, ...]:
    return ("fire",) if m.leaf.leaf.hanging.has_butts and not m.leaf.leaf.hanging.is_cabinet else ()


def _latch(m: StepBuilder, cuts: list[Boring]) -> None:
    latch = m.leaf.leaf.hardware.latch
    inner = [c for c in cuts if c.cut_in.is_leaf and not c.kind.is_keep]
    keeps = [c for c in cuts if c.kind.is_keep]
    if not inner:
        return
    thumb = any(c.kind is BoringKind.THUMB_SLOT for c in inner)
    edge = any(c.kind is not BoringKind.LATCH_SPINDLE for c in inner) and not thumb
    settings = (
        (Setting("bore", latch.bore), Setting("deep", latch.deep))
        if edge
        else (Setting("slot, high", latch.slot_high), Setting("wide", latch.slot_wide))
    )
    _cut(
        m,
        "bore:latch",
        "Cut the slot for the thumb latch" if thumb else "Bore for the latch",
        Trade.BORE,
        inner,
        SideUp.LATCH_EDGE if edge else SideUp.OPENING,
        cautions=("drill", *_fire(m)),
        settings=(*settings, Setting("from the edge", latch.backset), *m.set_to(down_from_the_top="latch_down")),
        practice="the same bore in an off-cut",
        check=StepCheck("square to the edge, by a rod in it"),
    )
    _keep(m, keeps, "latch")


def _keep(m: StepBuilder, keeps: list[Boring], word: str) -> None:
    if keeps:
        m.add(
            f"let-in:{word}-keep",
            f"Let the keep of the {word} in",
            Trade.FIT,
            needs=("hang:dry",),
            bucket=Bucket.HANGING,
            share=0.4,
            about=About.HARDWARE,
            cuts=tuple(c.name for c in keeps),
            settings=m.set_to(from_the_head=f"{word}_keep"),
            cautions=("chisel",),
            how="marked from the bolt itself, chalk on its end, as the leaf hangs",
            check=StepCheck("shuts without a push, no rattle"),
        )


def _bolts_and_pull(m: StepBuilder, by: dict[Device, list[Boring]]) -> None:
    leaf = m.leaf.leaf
    if Device.BOLT in by and leaf.hardware.bolts is not None:
        bolts = leaf.hardware.bolts
        _cut(
            m,
            "let-in:bolts",
            "Let the flush bolts into the slow leaf's edge",
            Trade.ROUT,
            [c for c in by[Device.BOLT] if not c.kind.is_bolt_hole],
            SideUp.LATCH_EDGE,
            settings=(Setting("wide", bolts.width), Setting("deep", bolts.deep), Setting("long", bolts.length)),
            cautions=("router", "chisel"),
            practice="a short recess in an off-cut",
            check=StepCheck("flush, bolt runs by hand"),
        )
        m.add(
            "bore:bolt-holes",
            "Bore where the bolts shoot, head and floor",
            Trade.BORE,
            needs=("hang:dry", "let-in:bolts"),
            bucket=Bucket.HANGING,
            share=0.3,
            about=About.HARDWARE,
            cautions=("drill",),
            settings=(Setting("bolt", bolts.bolt), Setting("deep", bolts.into)),
            cuts=tuple(c.name for c in by[Device.BOLT] if c.kind.is_bolt_hole),
        )
    if Device.PULL in by:
        bar = by[Device.PULL][0].kind is BoringKind.PULL_HOLE
        _cut(
            m,
            "let-in:pull",
            "Bore for the bar's screws" if bar else "Let the flush pull in",
            Trade.BORE if bar else Trade.ROUT,
            by[Device.PULL],
            SideUp.OPENING,
            cautions=("drill" if bar else "router",),
            practice="a hole through an off-cut: no burst" if bar else "the recess in an off-cut",
            settings=(Setting("deep", by[Device.PULL][0].depth), Setting("from the edge", leaf.hardware.pull.in_from)),
            check=StepCheck("both holes from the head end") if bar else StepCheck("flush with the face", 0.1),
        )
    elif m.has("recess_depth"):
        m.add(
            "let-in:pull",
            "Rout the recess of the flush pull, pass by pass",
            Trade.ROUT,
            needs=("measure:set", m.sized),
            bucket=Bucket.HANGING,
            share=0.6,
            about=About.HARDWARE,
            cautions=("router", "dust"),
            hold=WorkpieceSetup(SideUp.OPENING),
            settings=(
                *m.set_to(deep="recess_depth", a_pass="recess_step"),
                many(int(m.value("recess_passes", 1)), "passes"),
            ),
            practice="the recess in an off-cut of the same face",
            check=StepCheck("flush with the face", 0.1),
        )


# --- gear --------------------------------------------------------------------------------------------------


def _gear(m: StepBuilder, by: dict[Device, list[Boring]]) -> None:
    hangers, wheels = by.get(Device.HANGER, []), by.get(Device.WHEEL, [])
    if any(c.kind is BoringKind.HANGER_BOLT for c in hangers):
        _cut(
            m,
            "bore:hangers",
            "Bore through for the hangers' bolts",
            Trade.BORE,
            hangers,
            SideUp.OPENING,
            cautions=("drill",),
            settings=m.set_to(
                in_from_the_edge="bolt_in", down_from_the_top="bolt_down", drill="bolt", apart="bolt_apart"
            ),
            check=StepCheck("both hangers from the same end, level", 0.5),
            practice="one hole through an off-cut: no burst",
            how="a board behind it",
        )
    recess = [c for c in (*hangers, *wheels) if c.kind.is_recess]
    if recess:
        foot = bool(wheels)
        _cut(
            m,
            "let-in:gear",
            "Let the gear into the leaf's " + ("foot" if foot else "head"),
            Trade.ROUT,
            recess,
            SideUp.FOOT if foot else SideUp.HEAD,
            cautions=m.cautions("router", "heavy"),
            practice="one recess in an off-cut",
            settings=(
                Setting("long", recess[0].along),
                Setting("deep", recess[0].depth),
                Setting("in from the edge", recess[0].across),
            ),
            check=StepCheck("flush, and both alike", 0.2),
        )
    if Device.HEAD_GUIDE in by:
        groove = by[Device.HEAD_GUIDE][0]
        _cut(
            m,
            "groove:head",
            "Groove the head for its guide",
            Trade.ROUT,
            by[Device.HEAD_GUIDE],
            SideUp.HEAD,
            settings=(Setting("wide", groove.across), Setting("deep", groove.depth)),
            cautions=m.cautions("router", "heavy"),
            check=StepCheck("the guide runs through by hand"),
        )
    if m.has("track_needed") or m.has("stud_hits") or m.has("hole_pitch"):
        m.add(
            "fix:track",
            "Fix the track level, into what holds",
            Trade.SITE,
            needs=("measure:set", "measure:opening"),
            bucket=Bucket.HANGING,
            about=About.HARDWARE,
            cautions=("wall",),
            settings=m.set_to(
                line_above_the_floor="track_line", holes_every="hole_pitch", first="hole_first", backing="backing"
            ),
            check=StepCheck("level over its whole length", 0.5),
            how="from the highest point of the floor",
        )
        m.add(
            "proof:track",
            "Hang the proof load on the track",
            Trade.SITE,
            needs=("fix:track",),
            bucket=Bucket.HANGING,
            share=0.3,
            about=About.HARDWARE,
            settings=m.set_to(load="proof_load"),
            cautions=("wall",),
            check=StepCheck("nothing has moved after ten minutes"),
        )


def _guide(m: StepBuilder, by: dict[Device, list[Boring]]) -> None:
    if Device.FLOOR_GUIDE not in by:
        return
    groove = m.set_to(wide="guide_width", deep="guide_depth")
    rails = [p for p in m.parts(Role.RAIL) if p.place is Place.BOTTOM and p.name in m.ready]
    why, later = "a loose rail runs over the table", "the whole leaf on its head, over the router"
    if rails and m.leaf.leaf.build.is_worked_loose:
        m.add(
            "groove:guide",
            "Groove the loose bottom rail for the floor guide",
            Trade.ROUT,
            parts=(rails[0].name,),
            needs=("measure:set", "mark:joints", *m.loose((rails[0].name,))),
            early=True,
            settings=groove,
            bucket=Bucket.HANGING,
            share=0.5,
            hold=WorkpieceSetup(SideUp.FOOT, rails[0].name),
            cautions=("router",),
            cuts=(BoringKind.GUIDE_GROOVE.value,),
            why=why,
            later=later,
            practice="an off-cut, the guide run through it",
            check=StepCheck("in the middle of the thickness", 0.2),
        )
        m.add(
            "groove:guide-ends",
            "Carry the guide's groove through the stiles' feet",
            Trade.ROUT,
            needs=("groove:guide", m.sized),
            early=True,
            settings=groove,
            bucket=Bucket.HANGING,
            share=0.3,
            hold=WorkpieceSetup(SideUp.FOOT),
            cautions=m.cautions("router", "heavy"),
            cuts=(BoringKind.GUIDE_GROOVE.value,),
            check=StepCheck("one line with the rail's"),
            why="as soon as the feet are sawn off",
            later="a leaf that waits",
        )
        return
    if "guide_left" in m.leaf.figures or m.leaf.leaf.late.is_any:
        how = "the foot is trimmed later: what is left of the groove then is on the drawing"
    else:
        how = "leaf on its long edge, router along the foot"
    m.add(
        "groove:guide",
        "Groove the foot for the floor guide",
        Trade.ROUT,
        needs=("measure:set", m.sized),
        settings=groove,
        early=True,
        bucket=Bucket.HANGING,
        share=0.6,
        hold=WorkpieceSetup(SideUp.FOOT),
        cuts=(BoringKind.GUIDE_GROOVE.value,),
        how=how,
        why="as soon as the foot is square",
        later=later,
        cautions=m.cautions("router", "heavy"),
        practice="an off-cut, the guide run through it",
        check=StepCheck("in the middle of the thickness", 0.2),
    )
