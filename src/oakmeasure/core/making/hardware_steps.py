"""What is cut for hinges, lock, latch, pull and gear.

It is cut in the loose member where its edges stay, else on the sized leaf.
"""

from __future__ import annotations

from collections.abc import Iterable

from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.document.hinges import MortiseLock
from oakmeasure.core.document.production import About
from oakmeasure.core.hardware.boring import Boring, BoringKind, Device
from oakmeasure.core.hardware.hinges.butt_checks import FLUSH
from oakmeasure.core.making.cut_steps import cut_for, is_cut_loose
from oakmeasure.core.making.gear_steps import gear_steps, guide_steps
from oakmeasure.core.making.operation import Bucket, Setting, SideUp, StepCheck, Trade, WorkpieceSetup
from oakmeasure.core.making.step_builder import StepBuilder, many


def hardware(m: StepBuilder) -> None:
    """Add what is cut for hardware, in the leaf and in what carries it.

    Args:
        m: Where the operations are added.
    """
    by = _by_device(m.leaf.borings)
    _patches(m)
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
        gear_steps(m, by)
    guide_steps(m, by)


def _by_device(cuts: Iterable[Boring]) -> dict[Device, list[Boring]]:
    found: dict[Device, list[Boring]] = {}
    for cut in cuts:
        found.setdefault(cut.kind.device, []).append(cut)
    return found


def _patches(m: StepBuilder) -> None:
    """Patch what was cut into a frame that stays, before anything new is cut there."""
    patches = m.leaf.patches
    if patches:
        m.add(
            "patch:frame",
            "Patch the old recesses in the frame",
            Trade.FIT,
            needs=("measure:set",),
            settings=tuple(
                Setting(f"{each.recess.what}, {each.edge} jamb, down from the head", each.recess.down)
                for each in patches[:4]
            ),
            bucket=Bucket.HANGING,
            about=About.HARDWARE,
            cautions=("chisel",),
            check=StepCheck("by straightedge over each patch, proud or low", 0.1),
            how="wood of the frame's kind, its grain along, a hair proud; glued, planed flush when dry",
            why="new cuts keep clear of a patch: screws do not hold on a glue line",
        )


# --- hinges ------------------------------------------------------------------------------------------------


def _butts(m: StepBuilder, cuts: list[Boring]) -> None:
    leaf, side = [c for c in cuts if c.cut_in.is_leaf], [c for c in cuts if not c.cut_in.is_leaf]
    above = m.left_end if m.evened else 0.0
    template_at = "template against the head end"
    if above:
        template_at = f"template {m.show.length(above, sign=False)} under the head, which is still longer"
    words = "{} from the top as it is" if above else "{} from the top"
    tops = tuple(
        Setting(words.format(c.number), c.from_top + above, figure="" if above else f"butt_{c.number}_top")
        for c in leaf
    )
    deep = m.set_to(deep="butt_depth", across="butt_across")
    template = m.leaf.leaf.hardware.template is not None
    cut_for(
        m,
        "let-in:leaf",
        "Let the butts into the leaf's edge",
        Trade.ROUT,
        leaf,
        SideUp.HINGE_EDGE,
        settings=(*deep, *m.set_to(guide_offset="template_offset"), *tops),
        practice=f"one recess in an off-cut: leaf of the hinge {_lies(m)}",
        cautions=("router", "chisel"),
        check=StepCheck(f"hinge {_lies(m)}, by straightedge, more or less", 0.1),
        how=(template_at if template else "knifed round the hinge itself") + "; knuckles to the "
        "opening face; all from the head end. Each hinge and its recess get one letter; its leaf with fewer knuckles "
        "goes on the door",
    )
    if side:
        _butts_in_carrier(m, side, template=template)


def _butts_in_carrier(m: StepBuilder, side: list[Boring], *, template: bool) -> None:
    """Let the butts into what carries the leaf: a loose lining leg, a cabinet's side, a frame that stands."""
    made = m.leaf.opening.lining is not None
    jamb = tuple(Setting(f"{c.number} from the head", c.from_top, figure=f"butt_{c.number}_jamb") for c in side)
    carrier = "cabinet's side" if m.leaf.leaf.hanging is Hanging.INSET_BUTTS else "lining's leg"
    same = "the same template, " if template else ""
    open_yet = m.leaf.leaf.hanging is Hanging.INSET_BUTTS  # or it stands already: then now is as good
    loose = f" the loose {carrier}" if made else f" the {carrier}" + (", before it is closed" if open_yet else "")
    m.add(
        "let-in:side",
        f"Let the butts into{loose}",
        Trade.ROUT,
        early=made or open_yet,
        cuts=tuple(c.name for c in side),
        needs=(
            "measure:set",
            *(("patch:frame",) if m.leaf.patches else ()),
            *(m.loose(("lining leg, hinge side",)) if made else () if open_yet else ("let-in:leaf",)),
        ),
        parts=("lining leg, hinge side",) if made else (),
        settings=(*m.set_to(deep="butt_depth"), *jamb),
        bucket=Bucket.HANGING,
        about=About.HARDWARE,
        cautions=("router", "chisel"),
        check=StepCheck(same + "distance between hinges against the leaf, difference", 0.3),
        how="head gap on top of the leaf's own places; knuckles to the opening side. The leaf with more knuckles "
        "goes here, each hinge in the recess with its letter",
        why="before the lining is up it lies on the bench"
        if made
        else "a side lies flat under the router until the carcass is closed"
        if open_yet
        else "",
        later="on knees, with a chisel, in the opening" if made or open_yet else "",
    )


def _lies(m: StepBuilder) -> str:
    """Return how the metal of a butt lies in its recess."""
    metal = m.leaf.figures.get("butt_metal")
    proud = metal.value - m.value("butt_depth") if metal is not None else 0.0
    if abs(proud) < FLUSH:
        return "flush with the edge"
    return f"{m.show.length(abs(proud))} {'proud of' if proud > 0 else 'under'} the edge"


def _cups(m: StepBuilder, by: dict[Device, list[Boring]]) -> None:
    cups = [c for c in by[Device.CUP] if c.kind is BoringKind.CUP]
    numbers = [c.number for c in cups]
    places = tuple(Setting(f"cup {n} from the top", m.value(f"cup_{n}"), figure=f"cup_{n}") for n in numbers)
    cut_for(
        m,
        "bore:cups",
        "Bore the cups from the closing face",
        Trade.BORE,
        by[Device.CUP],
        SideUp.CLOSING,
        settings=(*m.set_to(fence_to_the_middle="cup_centre"), Setting("depth stop", cups[0].depth), *places),
        practice="one cup in an off-cut of the leaf's own thickness: nothing through the face",
        cautions=("drill",),
        check=StepCheck("wood left under the cup, by calliper on the off-cut"),
        how="on the drill's table, against the fence; hinge edge to the fence",
    )
    if Device.PLATE in by:
        plates = tuple(Setting(f"plate {n}", m.value(f"cup_{n}_plate"), figure=f"cup_{n}_plate") for n in numbers)
        m.add(
            "bore:plates",
            "Bore the plates' holes in the cabinet's side",
            Trade.BORE,
            needs=("measure:set",),
            early=True,
            settings=(*m.set_to(back_from_the_front="plate_back"), *plates),
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
    lock = m.leaf.leaf.hardware.lock
    keeps = [c for c in cuts if c.kind.is_keep]
    inner = [c for c in cuts if c.kind is BoringKind.LOCK_MORTISE]
    holes = [c for c in cuts if c.kind in (BoringKind.SPINDLE_HOLE, BoringKind.KEYHOLE)]
    if lock is None or not inner:
        return
    trim, horn = (m.trim_side, m.trim_end) if is_cut_loose(m, inner, from_edge=False) else (0.0, 0.0)
    more = "from both ends to the middle"
    if trim > 0.01:
        more = f"{m.show.length(trim, sign=False)} more than the case for what is trimmed"
    cut_for(
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
            Setting("down from the top as it is", m.value("lock_down") + horn)
            if horn
            else Setting("down from the top", m.value("lock_down"), figure="lock_down"),
        ),
        practice="the same bore in an off-cut of the thickness",
        cautions=("drill", "chisel", *_fire(m)),
        check=StepCheck("case slides in by hand; wood left on both faces alike"),
        how="a row of holes on the gauge line, then chisel; " + more,
    )
    _spindle(m, lock, holes or inner)
    m.add(
        "let-in:forend",
        "Let the forend in, lock flush with the edge",
        Trade.FIT,
        needs=("mortise:lock", m.evened or m.sized),
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


def _spindle(m: StepBuilder, lock: MortiseLock, holes: list[Boring]) -> None:
    """Add the bores for spindle and key of a lock."""
    from_edge = lock.backset + (m.trim_side if is_cut_loose(m, holes, from_edge=False) else 0.0)
    cut_for(
        m,
        "bore:spindle",
        "Bore for spindle and key, from both faces",
        Trade.BORE,
        holes,
        SideUp.OPENING,
        from_edge=False,
        after=("mortise:lock",),
        cautions=("drill",),
        check=StepCheck("square through, by a rod in it"),
        settings=(
            Setting("from the edge", from_edge),
            Setting("spindle", lock.spindle_bore),
            *((Setting("key", lock.key_bore),) if lock.key_bore else ()),
        ),
    )


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
    cut_for(
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
            needs=("hang:dry", "plane:even"),
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
        cut_for(
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
        cut_for(
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
