"""The openings of the demo job beyond its three room doors: one of each kind that people come with. All made up."""

from __future__ import annotations

import math
import random
from collections.abc import Iterable

from demo_log import HUNG, ledger_making

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.construction.boarded.model import Boarded, BoardedStyle
from oakmeasure.core.construction.existing.model import Existing, Inside, ReduceBy, Splice
from oakmeasure.core.construction.framed.model import Framed, Infill
from oakmeasure.core.construction.framed.patterns import with_pattern
from oakmeasure.core.construction.layered.model import Layered, Lipping, Pieced
from oakmeasure.core.construction.light.model import Light, LightBrace, LightFill
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint, Stiffener
from oakmeasure.core.construction.veneered.model import Veneered, VeneerForm
from oakmeasure.core.document.construction_model import LaidBoard
from oakmeasure.core.document.cup_hinges import CupChoices, CupUnknown, cup_from_table
from oakmeasure.core.document.hanging import (
    CabinetChoices,
    EvenGap,
    LeafShape,
    PairChoices,
    Shim,
    SlideChoices,
    track_sets,
)
from oakmeasure.core.document.hinges import (
    Butt,
    FlushBolts,
    HardwareChoices,
    Latch,
    LatchKind,
    MortiseLock,
    PacketButt,
    Screws,
    butt_from_table,
)
from oakmeasure.core.document.job import Climate, FitChoices, Hand, Hanging, LateTrim, Leaf, TimberChoices
from oakmeasure.core.document.old_frame import JambSide, OldFrame, OldRecess
from oakmeasure.core.document.readings import (
    FloorAlong,
    FloorPoint,
    FloorReadings,
    HeadKind,
    HeadShape,
    InTheWay,
    Lining,
    LiningFrom,
    MeasuredBy,
    Obstruction,
    OpeningReadings,
    Reading,
    Side,
    Tick,
    TickTemplate,
)
from oakmeasure.core.document.sliding_gear import (
    FloorKind,
    Guide,
    GuideKind,
    HangerChoices,
    StackChoices,
    WallChoices,
    WallKind,
)
from oakmeasure.core.figures.figure import Provenance


def read(**values: float) -> OpeningReadings:
    return OpeningReadings(**{name: Reading(value=value) for name, value in values.items()})


def square(width: float, height: float, **more: float) -> OpeningReadings:
    """Readings of an opening that is true, as a tape gives them: to the half millimetre."""
    diagonal = round(2 * math.hypot(width, height)) / 2
    values = {
        "width_top": width,
        "width_middle": width,
        "width_bottom": width,
        "height_hinge": height,
        "height_latch": height,
        "diagonal_rising": diagonal,
        "diagonal_falling": diagonal,
    }
    return read(**(values | more))


def thing(what: Obstruction, where: Side, out: float, *, away: float = 0.0, up: float = 0.0) -> InTheWay:
    return InTheWay(what=what, where=where, away=away, up=up, stands_out=Reading(value=out))


def travel(points: Iterable[Point]) -> FloorReadings:
    return FloorReadings(
        along=FloorAlong.TRAVEL, travel=tuple(FloorPoint(at=at, height=Reading(value=high)) for at, high in points)
    )


def ticked(corners: tuple[Point, ...], counts: tuple[int, ...], wrong: tuple[int, int, float]) -> TickTemplate:
    """Ticks of a stick of 250 round an opening, one of them wrong by `wrong[2]`, and a check in one corner."""
    source = random.Random(5)
    middle = (sum(x for x, _ in corners) / len(corners), sum(y for _, y in corners) / len(corners))
    ticks = []

    def tick(point: Point, side: int | None) -> Tick:
        turn = math.atan2(point[1] - middle[1], point[0] - middle[0]) + source.uniform(-0.2, 0.2)
        return Tick(
            x=round(point[0] - 250 * math.cos(turn), 1),
            y=round(point[1] - 250 * math.sin(turn), 1),
            angle_deg=round(math.degrees(turn), 2),
            side=side,
        )

    for side, count in enumerate(counts, start=1):
        (ax, ay), (bx, by) = corners[side - 1], corners[side % len(corners)]
        length = math.dist((ax, ay), (bx, by))
        for at in range(count):
            share = 0.12 + 0.76 * at / (count - 1)
            off = source.uniform(-0.25, 0.25) + (wrong[2] if (side, at) == wrong[:2] else 0.0)
            ticks.append(
                tick(
                    (
                        ax + share * (bx - ax) + off * (by - ay) / length,
                        ay + share * (by - ay) - off * (bx - ax) / length,
                    ),
                    side,
                )
            )
    return TickTemplate(
        stick=Reading(value=250.0),
        ticks=tuple(ticks),
        check=tick(corners[2], None),
        check_corner=2,
        nick_x=corners[0][0] + 60.0,
        nick_y=corners[0][1] + 300.0,
        nick_up=300.0,
    )


READING_STILE = 118.0  # leaves 720 for the arch between
PLAIN = Framed(thickness=38.0, stile=110.0, top_rail=110.0, middle_rail=190.0, bottom_rail=210.0, muntin=None)
CUPBOARD = Framed(
    thickness=20.0,
    stile=60.0,
    top_rail=60.0,
    middle_rail=None,
    bottom_rail=65.0,
    muntin=None,
    panel_thickness=6.0,
    groove_depth=8.0,
)
EVEN = FitChoices(gap_hinge=1.5, gap_latch=1.5, gap_head=1.5, gap_floor=1.5)
HATCH = ((84.0, 52.0), (724.0, 52.0), (731.0, 962.0), (91.0, 962.0))


def brass_butt() -> Butt:
    """The butts on the bench for the scale case, measured."""
    read = {"closed_thickness": 4.6, "pin_projection": 3.2, "pin_inset": 0.4, "leaf_width": 16.0, "length": 50.0}
    return butt_from_table("brock-76").model_copy(update={name: Reading(value=value) for name, value in read.items()})


def deep_cups(**more) -> HardwareChoices:
    """Cups of 13, as they came out of the packet and not as their sheet has them."""
    hinge = cup_from_table("heron-110").model_copy(update={"cup_depth": Reading(value=13.0, state=Provenance.MEASURED)})
    return HardwareChoices(cup=CupChoices(hinge=hinge, **more))


def cups(key: str, **more) -> HardwareChoices:
    """Cup hinges of the table, set so."""
    return HardwareChoices(cup=CupChoices(hinge=cup_from_table(key), **more))


def latched(kind: LatchKind, **more: float) -> HardwareChoices:
    """Butts as they are, and a latch."""
    return HardwareChoices(latch=Latch(kind=kind, **more))


SMALL_CATCH = {"up": 300.0, "bore": 9.0, "deep": 18.0, "plate_length": 0.0, "plate_width": 9.0}


def laid(*widths: float) -> tuple[LaidBoard, ...]:
    return tuple(LaidBoard(width=each) for each in widths)


def hatch() -> Leaf:
    return Leaf(
        id="hatch",
        name="Hatch in the gable",
        measured_by=MeasuredBy.TICKS,
        template=ticked(HATCH, (2, 4, 3, 3), (2, 2, 9.0)),
        readings=OpeningReadings(
            width_middle=Reading(value=640.0, state=Provenance.ASSUMED),
            height_middle=Reading(value=910.0, state=Provenance.ASSUMED),
        ),
        fit=FitChoices(gap_hinge=1.5, gap_latch=1.5, gap_head=1.5, gap_floor=1.5),
        build=Framed(
            thickness=28.0,
            stile=60.0,
            top_rail=60.0,
            middle_rail=None,
            bottom_rail=70.0,
            muntin=None,
            panel_thickness=9.0,
        ),
        hardware=latched(LatchKind.CATCH, up=480.0, bore=12.0, deep=24.0, plate_length=38.0, plate_width=14.0),
    )


def _open(leaf_id: str, name: str, readings: OpeningReadings, **more) -> Leaf:
    return Leaf(id=leaf_id, name=name, readings=readings, hanging=more.pop("hanging", Hanging.OPEN), **more)


def openings() -> tuple[Leaf, ...]:
    """Return one leaf for each of the jobs, in their order."""
    linings = {
        "made-longer": Lining(
            made_from=LiningFrom.LEAF,
            thickness=25.0,
            packing=8.0,
            packing_head=5.0,
            leaf_width=Reading(value=737.0),
            leaf_height=Reading(value=1990.0),
        ),
        "pair": Lining(thickness=25.0, packing=12.0, packing_head=6.0),
    }
    return (
        hatch(),
        _open(
            "office-store",
            "Office store door",
            square(817.0, 2044.0),
            hanging=Hanging.LINING,
            in_the_way=(
                thing(Obstruction.ARCHITRAVE, Side.HINGE, 18.0, away=6.0),
                thing(Obstruction.ARCHITRAVE, Side.LATCH, 18.0, away=6.0),
            ),
            fit=FitChoices(gap_floor=10.0),
            build=Layered(
                stile=110.0,
                top_rail=110.0,
                middle_rail=190.0,
                bottom_rail=220.0,
                lock_height=1000.0,
                lipping=Lipping.T,
                lipping_depth=20.0,
                tongue=10.0,
                pieced=Pieced.BOTTOM_RAIL,
            ),
            timber=TimberChoices(finish="paint"),
            hardware=HardwareChoices(lock=MortiseLock(case_depth=76.0, case_height=150.0, backset=55.0)),
        ),
        _open(
            "winnowing",
            "Winnowing floor slider",
            square(756.0, 2075.0),
            hanging=Hanging.SLIDING,
            fit=FitChoices(gap_floor=12.0),
            slide=SlideChoices(
                overlap_head=45.0, track_set=track_sets()["marram-flat-40"], headroom=290.0, free_wall=1100.0
            ),
            build=Existing(
                width=838.0,
                height=2040.0,
                inside=Inside.BLOCKS,
                face=4.0,
                solid=38.0,
                rail=60.0,
                splice=Splice.BLOCK,
                grooves=7,
                band=72.0,
                groove_depth=2.0,
                recess_depth=10.0,
            ),
            hardware=HardwareChoices(
                guide=Guide(kind=GuideKind.FIN, groove_width=8.0, groove_depth=18.0, fin=6.0),
                wall=WallChoices(stud_first=110.0, redrill=True),
            ),
            late=LateTrim(foot=4.0),
            timber=TimberChoices(species="redwood"),
            hung=HUNG["winnowing"],
            floor=travel(((0, 0.0), (400, 3.0), (800, 5.5), (1200, 7.0), (1600, 4.0))),
            in_the_way=(thing(Obstruction.SKIRTING, Side.LATCH, 15.0, away=60.0),),
        ),
        _open(
            "packet-press",
            "Packet press cupboard",
            square(447.0, 713.0),
            hanging=Hanging.INSET,
            build=CUPBOARD,
            fit=EVEN,
            hardware=cups("bittern-95", crank=18.0, plate=0.0, point=3.0, push_latch=True),
        ),
        _open(
            "specimens",
            "Specimen cupboard, left of two",
            square(440.0, 660.0),
            build=CUPBOARD,
            hanging=Hanging.HALF_OVERLAY,
            cabinet=CabinetChoices(overlay=16.0, division=22.0, gap=3.0),
            hardware=cups("heron-long", crank=9.0, plate=0.0),
        ),
        _open(
            "tool-shed",
            "Tool shed leaf of old boards",
            square(796.0, 1948.0, lean_hinge=1.0, lean_latch=-1.0),
            hanging=Hanging.LINING,
            old_frame=OldFrame(
                recesses=(
                    *(OldRecess(down=down, length=90.0, wide=16.5, deep=2.0) for down in (150.0, 888.0, 1622.0)),
                    OldRecess(jamb=JambSide.RIGHT, down=184.0, length=102.0, wide=27.0, deep=2.5),
                )
            ),
            build=Slab(
                thickness=23.0,
                measured=laid(212, 187, 231, 198),
                joint=SlabJoint.TENONS,
                joint_spacing=300.0,
                glue=SlabGlue.MORTISES,
                stiffener=Stiffener.NAILED,
                stiffener_width=120.0,
                stiffener_thickness=22.0,
                stiffener_in=40.0,
            ),
            hardware=latched(LatchKind.THUMB, up=1050.0, backset=60.0),
        ),
        _open(
            "ledger",
            "Ledger cupboard",
            square(532.0, 704.0),
            hanging=Hanging.OVERLAY,
            build=CUPBOARD.model_copy(update={"thickness": 18.0}),
            cabinet=CabinetChoices(side=18.0),
            hardware=deep_cups(unknown=CupUnknown.OVERLAY, boring=4.5, plate=2.0, crank=0.0),
            making=ledger_making(),
        ),
        _open(
            "meter",
            "Covers before the meter board",
            square(1150.0, 980.0),
            hanging=Hanging.BYPASS_TRACKS,
            slide=SlideChoices(
                overlap_hinge=25.0,
                overlap_latch=25.0,
                centre=60.0,
                overlap_head=20.0,
                projection=55.0,
                track_set=track_sets()["sedge-cover-20"],
            ),
            hardware=HardwareChoices(
                wall=WallChoices(kind=WallKind.MASONRY),
                guide=Guide(
                    kind=GuideKind.FIN,
                    floor=FloorKind.CONCRETE,
                    groove_width=5.0,
                    groove_depth=12.0,
                    fin=3.0,
                    plate=2.0,
                ),
            ),
            build=Light(
                frame_thickness=20.0,
                fill=LightFill.BOARDED,
                fill_thickness=9.0,
                stile=65.0,
                top_rail=65.0,
                bottom_rail=65.0,
                brace=LightBrace.ONE,
                brace_width=60.0,
            ),
            in_the_way=(thing(Obstruction.BOLT, Side.BEHIND, 9.0, away=820.0, up=480.0),),
        ),
        _open(
            "pantry",
            "Pantry door made narrower",
            square(663.0, 1989.0),
            hanging=Hanging.LINING,
            build=Existing(
                width=724.0,
                height=1981.0,
                inside=Inside.PANELLED,
                stile=95.0,
                tenon=67.0,
                panels=3,
                panels_above=1,
                muntin=70.0,
                middle_rail=170.0,
                bottom_rail=190.0,
            ),
            hardware=latched(LatchKind.TUBULAR, up=1000.0),
        ),
        _open(
            "stair-cupboard",
            "Cupboard under the stair",
            read(
                width_top=580.0,
                width_bottom=580.0,
                height_hinge=640.0,
                height_latch=848.0,
                diagonal_rising=1027.5,
                diagonal_falling=864.0,
            ),
            head=HeadShape(kind=HeadKind.RAKED),
            hanging=Hanging.INSET_BUTTS,
            fit=FitChoices(shape=LeafShape.SCRIBED),
            build=Existing(
                width=590.0,
                height=870.0,
                thickness=20.0,
                inside=Inside.PANELLED,
                stile=62.0,
                tenon=36.0,
                top_rail=62.0,
                middle_rail=None,
                bottom_rail=70.0,
                panels=1,
            ),
            hardware=latched(LatchKind.CATCH, **SMALL_CATCH).model_copy(update={"butt": butt_from_table("brock-51")}),
        ),
        _open(
            "barn-side",
            "Barn side slab on a track",
            square(905.0, 2095.0),
            hanging=Hanging.SLIDING,
            build=Slab(thickness=38.0, strip=140.0, joint=SlabJoint.GLUED, group_size=3, stiffener=Stiffener.DADOES),
            timber=TimberChoices(species="ponderosa", moisture=12.0),
            fit=FitChoices(gap_floor=10.0),
            hardware=HardwareChoices(
                hangers=HangerChoices(rating_kg=30.0, off=30.0, hole_first=50.0, hole_pitch=400.0),
                wall=WallChoices(stud_first=130.0, stud_pitch=406.0),
                guide=Guide(kind=GuideKind.FIN, floor=FloorKind.CONCRETE),
            ),
            slide=SlideChoices(overlap_hinge=25.0, overlap_latch=25.0, overlap_head=45.0, stand_off=19.0),
            in_the_way=(
                thing(Obstruction.ARCHITRAVE, Side.HINGE, 22.0),
                thing(Obstruction.ARCHITRAVE, Side.LATCH, 22.0),
                thing(Obstruction.ARCHITRAVE, Side.HEAD, 22.0),
            ),
        ),
        _open(
            "press-left",
            "Press cupboard, out of level",
            square(520.0, 690.0),
            hanging=Hanging.OVERLAY,
            build=CUPBOARD,
            hung=HUNG["press-left"],
        ),
        _open(
            "tall-press",
            "Tall press",
            square(500.0, 1193.0),
            hanging=Hanging.INSET,
            build=CUPBOARD,
            fit=FitChoices(gap_hinge=2.5, gap_latch=2.5, gap_head=2.5, gap_floor=2.5),
            hardware=cups("bittern-95", first=105.0, count=2),
        ),
        _open(
            "pigeon-holes",
            "Run of leaves on a face frame",
            square(388.0, 512.0),
            hanging=Hanging.OVERLAY,
            build=CUPBOARD,
            cabinet=CabinetChoices(overlay=12.0, run=3, frame=40.0, must_open=165.0),
            hardware=cups("bittern-170", first=102.0, plate=3.0),
            hung=HUNG["pigeon-holes"],
        ),
        _open(
            "scale-case",
            "Scale case, brass butts",
            square(413.6, 620.0),
            hanging=Hanging.INSET_BUTTS,
            build=CUPBOARD.model_copy(update={"thickness": 22.0}),
            fit=FitChoices(
                gap_hinge=0.8,
                gap_latch=0.8,
                gap_head=0.8,
                gap_floor=0.8,
                bevel_deg=1.0,
                bevel_margin=0.3,
                even=EvenGap(
                    shims=(Shim(thickness=0.55, count=2),),
                    full_width=Reading(value=412.6),
                    full_height=Reading(value=619.0),
                ),
            ),
            hardware=HardwareChoices(
                butt=brass_butt(),
                packet=(
                    PacketButt(length=50.0, width=16.0, closed_thickness=4.6),
                    PacketButt(length=50.2, width=16.1, closed_thickness=4.75),
                ),
                latch=Latch(kind=LatchKind.CATCH, **SMALL_CATCH),
                screws=Screws(diameter=2.5, length=16.0, count=3),
            ),
        ),
        _open(
            "sorting",
            "Sorting room, two leaves on one rail",
            square(2210.0, 2040.0),
            build=PLAIN,
            hanging=Hanging.BYPASS_RAIL,
            slide=SlideChoices(
                overlap_hinge=40.0, overlap_latch=40.0, running_clearance=12.0, track_set=track_sets()["marram-bypass"]
            ),
            hardware=HardwareChoices(
                hangers=HangerChoices(bolt_down=32.0, bolt_apart=90.0),
                wall=WallChoices(stud_first=300.0, stud_pitch=600.0, backing=20.0),
                guide=Guide(kind=GuideKind.FIN, floor=FloorKind.LAMINATE, let_in=True),
            ),
            floor=travel(((0, 0.0), (1100, 0.5), (2210, 0.0))),
        ),
        _open(
            "coal-hole",
            "Coal hole, boarded with a Z",
            square(747.0, 1820.0),
            hand=Hand.RIGHT,
            hanging=Hanging.LINING,
            build=Boarded(
                cover=112.0,
                groove=6.0,
                gap=0.0,
                ledge_inset=37.0,
                ledge_width=190.0,
                ledge_from_foot=126.0,
                ledge_top=126.0,
                brace_width=110.0,
            ),
            hardware=latched(LatchKind.THUMB, up=990.0, backset=45.0),
            timber=TimberChoices(species="redwood", moisture=13.0),
        ),
        _open(
            "made-longer",
            "Loft door made longer",
            square(805.0, 2040.0, depth=118.0),
            hanging=Hanging.LINING,
            fit=FitChoices(gap_hinge=2.0, gap_latch=3.0),
            lining=linings["made-longer"],
            timber=TimberChoices(species="redwood", moisture=12.0),
            build=Existing(
                width=746.0,
                height=1915.0,
                inside=Inside.PANELLED,
                stile=83.0,
                tenon=60.0,
                panels=2,
                muntin=76.0,
                reduce_by=ReduceBy.STILES,
                splice=Splice.STAGGERED,
                splice_lap=75.0,
                splice_stagger=25.0,
            ),
            hardware=latched(LatchKind.TUBULAR, up=1040.0),
        ),
        _open(
            "pair",
            "Pair to the threshing floor",
            square(1536.0, 2090.0, lean_hinge=0.0, lean_latch=0.0, across_hinge=0.0, across_latch=8.0, depth=120.0),
            lining=linings["pair"],
            build=with_pattern(Framed(), "glazed_top"),
            hanging=Hanging.PAIR,
            pair=PairChoices(meeting=3.0),
            hardware=HardwareChoices(
                lock=MortiseLock(case_depth=76.0, case_height=56.0, backset=57.0), bolts=FlushBolts()
            ),
            fit=FitChoices(gap_hinge=3.0, gap_latch=3.0),
            hung=HUNG["pair"],
        ),
        _open(
            "walnut",
            "Counting room slab, hidden gear",
            square(985.0, 2330.0),
            hanging=Hanging.FLOOR_GEAR,
            fit=FitChoices(gap_floor=10.0),
            build=Slab(
                thickness=44.0,
                strip=150.0,
                joint=SlabJoint.TENONS,
                stiffener=Stiffener.CHANNELS,
                stiffeners=3,
                stiffener_width=22.0,
                stiffener_thickness=12.0,
            ),
            timber=TimberChoices(
                species="walnut",
                moisture=8.0,
                dry=Climate(temperature=20.0, humidity=28.8),
                wet=Climate(temperature=20.0, humidity=54.4),
            ),
            slide=SlideChoices(
                overlap_hinge=15.0, overlap_latch=15.0, overlap_head=-10.0, track_set=track_sets()["whin-floor-100"]
            ),
            hardware=HardwareChoices(stack=StackChoices(depth=35.0)),
            floor=travel(((0, 0.0), (1000, -5.0), (2000, -10.0))),
            in_the_way=(thing(Obstruction.PIPE, Side.LATCH, -35.0, away=140.0, up=300.0),),
        ),
        _open(
            "engine-room",
            "Engine room, double thickness",
            square(700.0, 870.0),
            hanging=Hanging.SLIDING,
            fit=FitChoices(gap_floor=10.0),
            slide=SlideChoices(overlap_hinge=27.5, overlap_latch=27.5, overlap_head=42.0),
            build=Boarded(
                style=BoardedStyle.X,
                double=True,
                board_thickness=16.0,
                cover=95.0,
                groove=5.0,
                ledge_inset=72.5,
                ledge_width=70.0,
                ledge_from_foot=61.0,
                ledge_top=61.0,
                brace_width=70.0,
            ),
            hardware=HardwareChoices(
                latch=Latch(kind=LatchKind.RIM, up=430.0, backset=50.0),
                hangers=HangerChoices(bolt_in=100.0),
                guide=Guide(kind=GuideKind.FIN, groove_width=7.0, groove_depth=20.0),
                wall=WallChoices(kind=WallKind.MASONRY),
            ),
            timber=TimberChoices(species="redwood", moisture=13.0),
        ),
        _open(
            "sample-room",
            "Sample room, six panels",
            square(767.0, 2050.0),
            hanging=Hanging.LINING,
            build=with_pattern(Framed(bottom_rail=210.0), "six").model_copy(
                update={
                    "rows": tuple(
                        row.model_copy(update={"infill": Infill.RAISED}) for row in with_pattern(Framed(), "six").rows
                    )
                }
            ),
            hardware=HardwareChoices(lock=MortiseLock(case_depth=76.0, case_height=56.0, backset=57.0)),
        ),
        _open(
            "scullery",
            "Scullery, boarded below",
            square(727.0, 1990.0),
            hand=Hand.RIGHT,
            hanging=Hanging.LINING,
            build=with_pattern(Framed(), "boarded_lower"),
            hung=HUNG["scullery"],
        ),
        _open(
            "linen-press",
            "Linen room, under an arch",
            read(
                width_top=720.0,
                width_middle=720.0,
                width_bottom=720.0,
                height_hinge=2020.0,
                height_latch=2020.0,
                height_middle=2058.0,
                diagonal_rising=2144.5,
                diagonal_falling=2144.5,
            ),
            head=HeadShape(kind=HeadKind.SEGMENTAL),
            hanging=Hanging.LINING,
            fit=FitChoices(shape=LeafShape.SCRIBED),
            build=with_pattern(Framed(top_rail=120.0, muntin=70.0), "one_over_three"),
            hardware=latched(LatchKind.TUBULAR, up=1000.0),
        ),
        _open(
            "reading-room",
            "Reading room, arched",
            square(880.0, 2058.0),
            hanging=Hanging.POCKET,
            build=Veneered(
                form=VeneerForm.FRAMED,
                thickness=40.0,
                stile=READING_STILE,
                top_rail=120.0,
                middle_rail=190.0,
                bottom_rail=210.0,
                muntin=None,
                arch_rise=38.0,
                veneer=2.8,
                sanding=0.5,
                thickness_spread=0.3,
                stock=44.0,
                moulding=9.0,
                sapwood=6.0,
            ),
            hardware=HardwareChoices(guide=Guide(kind=GuideKind.CHEEKS), hangers=HangerChoices(bolt_in=64.0)),
            slide=SlideChoices(track_set=track_sets()["osier-pocket-92"], size_height=Reading(value=1981.0)),
        ),
    )
