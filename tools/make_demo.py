"""Writes the demo job that ships with the application: a made-up seed store under repair, invented readings."""

from __future__ import annotations

import sys
from pathlib import Path

from oakmeasure.core.construction.existing.model import Existing
from oakmeasure.core.construction.framed.model import Framed, TenonKind
from oakmeasure.core.document.cup_hinges import cup_from_table, is_cup_chosen
from oakmeasure.core.document.hinges import HardwareChoices, butt_from_table, is_chosen
from oakmeasure.core.document.job import Climate, FitChoices, Hand, Job, Leaf, Reading, TimberChoices
from oakmeasure.core.document.rules import ButtSchool, load_rules
from oakmeasure.core.document.stock import CuttingChoices
from oakmeasure.core.figures.figure import Provenance
from oakmeasure.files.job.job_file import save

sys.path.insert(0, str(Path(__file__).parent))
from demo_log import HUNG
from demo_openings import openings, read
from demo_rack import PINS, RACK, SECTIONS, SHEETS, YARD


def seed_room() -> Leaf:
    """Leans 6 at the latch side; everything else agrees."""
    readings = read(
        width_top=742.0,
        width_middle=739.5,
        width_bottom=736.5,
        height_hinge=2031.0,
        height_middle=2032.0,
        height_latch=2033.5,
        diagonal_rising=2164.5,
        diagonal_falling=2160.0,
        lean_hinge=0.5,
        lean_latch=-6.0,
    )
    return Leaf(
        id="seed-room",
        name="Seed room door",
        readings=readings,
        fit=FitChoices(gap_floor=9.0),
        build=Framed(bottom_rail=210.0, middle_rail=190.0),
    )


def drying_loft() -> Leaf:
    """A width misread by 10, which two leans give away; hinges right, no muntin, softwood, one panel over another."""
    readings = read(
        width_top=678.5,
        width_middle=667.0,
        width_bottom=666.0,
        height_hinge=1884.5,
        height_middle=1884.0,
        height_latch=1883.0,
        diagonal_rising=2000.5,
        diagonal_falling=1997.5,
        lean_hinge=-0.5,
        lean_latch=-1.5,
    )
    wood = TimberChoices(
        species="redwood",
        moisture=12.0,
        dry=Climate(temperature=12, humidity=50),
        wet=Climate(temperature=8, humidity=80),
    )
    return Leaf(
        id="drying-loft",
        name="Drying loft door",
        hand=Hand.RIGHT,
        readings=readings,
        timber=wood,
        build=Framed(
            stile=90.0,
            top_rail=90.0,
            middle_rail=150.0,
            bottom_rail=190.0,
            muntin=None,
            panel_thickness=14.0,
            lock_height=950.0,
        ),
        hung=HUNG["drying-loft"],
    )


def weighing_office() -> Leaf:
    """Diagonals that disagree, one of them wrong; wedged through tenons; butts that nobody has unpacked."""
    readings = read(
        width_top=811.0,
        width_middle=811.5,
        width_bottom=812.5,
        height_hinge=2058.0,
        height_middle=2057.0,
        height_latch=2056.5,
        diagonal_rising=2212.0,
        diagonal_falling=2221.5,
    )
    butt = butt_from_table("tern-102")
    butt = butt.model_copy(update={"closed_thickness": Reading(value=6.0, state=Provenance.ASSUMED)})
    return Leaf(
        id="weighing-office",
        name="Weighing office door",
        readings=readings,
        build=Framed(
            tenon=TenonKind.THROUGH,
            stile=100.0,
            top_rail=110.0,
            middle_rail=200.0,
            bottom_rail=225.0,
            muntin=100.0,
            lock_height=1020.0,
        ),
        timber=TimberChoices(species="white_oak", moisture=9.5),
        hardware=HardwareChoices(butt=butt, school=ButtSchool.THIRD_HIGH),
    )


def demo() -> Job:
    return Job(
        name="Saltmarsh seed store",
        place="north range, first floor",
        rules=load_rules("site-metric"),
        boards=(*RACK, *YARD),
        sections=SECTIONS,
        sheets=SHEETS,
        cutting=CuttingChoices(pins=PINS),
        leaves=tuple(map(hung, (seed_room(), drying_loft(), weighing_office(), *openings()))),
    )


def hung(leaf: Leaf) -> Leaf:
    """Return a leaf with its timber and its butts chosen; the boarded one waits for hinges on its face."""
    if leaf.timber.species is None:
        leaf = leaf.model_copy(update={"timber": leaf.timber.model_copy(update={"species": leaf.timber.wood})})
    if isinstance(leaf.build, Existing) and leaf.build.material is None:
        leaf = leaf.model_copy(update={"build": leaf.build.model_copy(update={"material": leaf.build.wood})})
    cup = leaf.hardware.cup
    if leaf.hanging.is_cabinet and not leaf.hanging.has_butts and not is_cup_chosen(cup.hinge):
        hinge = cup.model_copy(update={"hinge": cup_from_table("heron-110")})
        return leaf.model_copy(update={"hardware": leaf.hardware.model_copy(update={"cup": hinge})})
    if not leaf.hanging.has_butts or is_chosen(leaf.hardware.butt) or leaf.id == "coal-hole":
        return leaf
    key = "brock-90" if leaf.id == "tool-shed" else "brock-100"
    chosen = leaf.hardware.model_copy(update={"butt": butt_from_table(key)})
    return leaf.model_copy(update={"hardware": chosen})


if __name__ == "__main__":
    target = Path(__file__).parent.parent / "src/oakmeasure/data/demo.oakjob"
    save(demo(), target)
    print(target)
