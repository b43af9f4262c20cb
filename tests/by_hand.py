"""Jobs as a person does them: from an empty job, through the screen alone, the inputs counted.

`python tests/by_hand.py` prints the table of docs/by-hand.md.
"""

from __future__ import annotations

import sys
import tempfile
from dataclasses import dataclass, field
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QLabel, QLineEdit, QPushButton, QToolButton

from driving import let_go
from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.theme import typeset
from oakmeasure.app.shell.window import Window
from oakmeasure.app.stages.hang.panels import SignPanel
from oakmeasure.app.tools.dialogs import AnswerStops, NewJob
from oakmeasure.core.base.units import UnitSystem
from oakmeasure.core.document.job import new_job
from oakmeasure.core.figures.check import Stage

# Seconds of the keystroke-level model: a key, a click with its way, the hand from one to the other, a thought.
# Source: Card, Moran and Newell 1980, from memory; a key of somebody who is no typist.
KEY, CLICK, HOME, THOUGHT = 0.28, 1.3, 0.4, 1.35
Step = str | tuple[str, object]


@dataclass
class Done:
    """A job, its inputs counted, what was refused, and the stops that were answered for when it was signed off."""

    window: Window
    keys: int = 0
    clicks: int = 0
    boxes: int = 0
    refused: list[str] = field(default_factory=list)
    stops: list[str] = field(default_factory=list)

    @property
    def minutes(self) -> float:
        hands = KEY * self.keys + CLICK * self.clicks + HOME * self.boxes
        return (hands + THOUGHT * (self.boxes + self.clicks / 2)) / 60

    def take(self, step: Step) -> None:
        """Go to a stage and page, "Fit/Opens"; take a check's remedy, "!code"; or fill a box."""
        if isinstance(step, tuple):
            self.fill(step[0], str(step[1]))
        elif step.startswith("!"):
            card = next(each for each in self.window.checks.cards if each.check.code == step[1:])
            remedy = next(each for each in card.check.remedies if each.path)
            words = typeset(remedy.text).split()
            button = next(each for each in card.findChildren(QPushButton) if each.text().split() == words)
            QTest.mouseClick(button, Qt.MouseButton.LeftButton)
            self.clicks += 1
        else:
            stage, _, page = step.partition("/")
            QTest.mouseClick(self.window.rod.marks[Stage(stage)], Qt.MouseButton.LeftButton)
            self.clicks += 1 + bool(page)
            if page:
                tab = self.window.sheet().findChild(QToolButton, f"page-{page}")
                QTest.mouseClick(tab, Qt.MouseButton.LeftButton)
        QApplication.processEvents()
        labels = [label for place in (self.window.sheet(), self.window.checks) for label in place.findChildren(QLabel)]
        said = (each for each in labels if each.property("role") == "refused")
        self.refused += [f"{step}: {each.text()}" for each in said if each.text() and each.isVisibleTo(self.window)]

    def hang(self) -> None:
        """Write down how it hangs, answer for what stops it, and sign it off."""
        self.take("Hang")
        sheet, figures = self.window.sheet(), self.window.session.solved.figures
        for at, name in enumerate(AS_HUNG):
            if any(each.isVisibleTo(self.window) for each in sheet.findChildren(QLineEdit, name)):
                planned = figures.get(f"gap_{name.rpartition('.')[2].partition('_')[0]}")
                gap = planned.value if planned is not None else 8.0
                self.fill(name, f"{gap + 0.1 * (at % 3):.1f}")  # a little more from place to place, as it comes
        if any(each.isVisibleTo(self.window) for each in sheet.findChildren(QComboBox, "hung.proof_held")):
            self.fill("hung.proof_held", "it held")
        self.take("Hang/Record")
        panel = self.window.findChild(SignPanel)
        self.type_into(sheet.findChild(QLineEdit, "signBy"), "E. Fell")
        self.stops = [each.code for each in self.window.session.solved.open_stops()]
        if self.stops:
            QTimer.singleShot(0, self.window, self.answer)
        QTest.mouseClick(panel.go, Qt.MouseButton.LeftButton)
        self.clicks += 1

    def answer(self) -> None:
        """Give a reason for every stop that is open, in the box that asks for them."""
        box = QApplication.activeModalWidget()
        assert isinstance(box, AnswerStops)
        for line in box.findChildren(QLineEdit, "find"):
            self.type_into(line, "agreed with the customer")
        QTest.mouseClick(box.findChild(QPushButton, "accept"), Qt.MouseButton.LeftButton)
        self.clicks += 1

    def type_into(self, line: QLineEdit, text: str) -> None:
        """Write into a line that has no name in the job."""
        QTest.keyClicks(line, text)
        self.keys += len(text)
        self.boxes += 1

    def choose(self, combo: QComboBox, at: int) -> None:
        """Open a list, go down it and take an option; counted as the two clicks that it takes with a mouse."""
        combo.setFocus()
        QTest.keyClick(combo, Qt.Key.Key_Down, Qt.KeyboardModifier.AltModifier)
        opened = combo.view()
        assert opened.isVisible()
        QTest.keyClick(opened, Qt.Key.Key_Home)
        for _ in range(at):
            QTest.keyClick(opened, Qt.Key.Key_Down)
        QTest.keyClick(opened, Qt.Key.Key_Return)
        self.clicks += 2

    def fill(self, name: str, text: str) -> None:
        """Write into a box, or choose the first option with these words."""
        sheet = self.window.sheet()
        for combo in (each for each in sheet.findChildren(QComboBox, name) if each.isVisibleTo(self.window)):
            options = [combo.itemText(n) for n in range(combo.count())]
            at = next(n for n, each in enumerate(options) if text in each)
            self.choose(combo, at)
            return
        line = next(each for each in sheet.findChildren(QLineEdit, name) if each.isVisibleTo(self.window))
        line.setFocus()
        line.selectAll()
        QTest.keyClicks(line, text)
        QTest.keyClick(line, Qt.Key.Key_Return)
        self.keys += len(text) + 1
        self.boxes += 1


def begun(name: str, width: float, height: float) -> Done:
    """Return a new job of one leaf, by the three questions of the first start."""
    window = Window(Session(new_job()))
    window.resize(1280, 800)
    window.show()
    done = Done(window)
    asked = NewJob(window, UnitSystem.MM)
    QTest.keyClicks(asked.name, name)
    for entry, value in zip(asked._entries, (width, height), strict=True):
        entry.line.selectAll()
        QTest.keyClicks(entry.line, f"{value:g}")
    asked.accept()
    window.session.open(asked.job, None)
    done.keys = len(name) + len(f"{width:g}{height:g}")
    done.boxes, done.clicks = 3, 2
    return done


# What is read of a leaf that hangs, as far as its sheet asks for it.
AS_HUNG = (
    *(f"hung.gaps.{side}_{at}" for side in ("hinge", "latch") for at in ("top", "middle", "bottom")),
    *(f"hung.gaps.head_{at}" for at in ("hinge", "middle", "latch")),
    "hung.sliding.jamb_top",
    "hung.sliding.jamb_bottom",
)
EACH_GAP = ("fit.gap_hinge", "fit.gap_latch", "fit.gap_head", "fit.gap_floor")
SLAB = ("Leaf/Set out", ("construction", "solid slab"))
# Ticks of a hatch of some 700 × 960 with a stick of 300, the eighth wrong by 9: x, y, angle, side.
TICKS = """41.5 117.5 -117.06 1;150 151 -90 1;258.2 118.7 -62.88 1;283.4 202.8 -43.62 2;202 330.2 0.24 2
286.3 460.1 43.65 2;260.4 543.9 62.71 3;150.2 518.5 89.94 3;40.6 541.9 117.3 3;15.1 457.9 136.52 4
98.5 329.9 -179.84 4;16 201.4 -136.18 4""".replace("\n", ";")
TICKED = [
    (f"ticks.new.{name}", value)
    for tick in TICKS.split(";")
    for name, value in zip(("x", "y", "angle_deg", "side"), tick.split(), strict=True)
]
# By name: width and height of the opening, the steps, and what must come out. Common practice, worked by hand.
JOBS: dict[str, tuple[float, float, list[Step], dict[str, float]]] = {
    "crooked hatch by ticks": (
        700,
        960,
        [
            ("measured_by", "ticks"),
            ("template.stick", 300),
            *TICKED,
            "Fit/Leaf",
            ("hanging", "inset on butts"),
            ("fit.shape", "scribed"),
            *((each, 1.5) for each in EACH_GAP),
        ],
        {"clear_width": 700, "clear_height": 956},
    ),
    "layered leaf out of sheet": (
        838,
        2049,
        [
            "Leaf/Set out",
            ("construction", "layered"),
            ("build.lipping", "T, its"),
            ("build.lipping_depth", 18),
            ("build.stile", 120),
            ("build.lock_height", 1020),
            ("build.pieced", "the bottom rail"),
            "Hardware/Locks",
            ("has-a-lock", "mortise"),
        ],
        {"layers": 36, "first_stile": 18, "middle_rail_centre": 1014, "bottom_rail_piece": 278.5},
    ),
    "bought slab made taller, sliding": (
        780,
        2060,
        [
            "Fit/Leaf",
            ("hanging", "sliding on the wall"),
            ("slide.overlap_hinge", 40),
            ("slide.overlap_latch", 40),
            ("slide.overlap_head", 50),
            ("fit.gap_floor", 10),
            "Leaf/Set out",
            ("construction", "that exists"),
            ("build.width", 862),
            ("build.height", 2030),
            ("build.grooves", 6),
            ("build.band", 80),
            "Leaf/Ways",
            ("late.foot", 5),
            "Hardware/Gear",
            ("hardware.guide.kind", "a fin"),
            ("hardware.guide.groove_depth", 20),
        ],
        {"leaf_width": 860, "leaf_height": 2100, "added": 70, "pitch": 140, "guide_left": 15},
    ),
    "inset cabinet leaf": (
        452,
        708,
        [
            "Fit/Leaf",
            ("hanging", "inset on cups"),
            *((each, 2) for each in EACH_GAP),
            *SLAB,
            ("build.thickness", 19),
            "Hardware/Hinges",
            ("hardware.cup.crank", 18),
            ("hardware.cup.hinge.reach", 12),
            ("hardware.cup.hinge.cup_depth", 12.5),
            ("hardware.cup.point", 3),
            ("hardware.cup.push_latch", "push"),
        ],
        {"cup_boring": 4, "cup_centre": 21.5, "plate_back": 56, "cup_left": 3.5, "stop_back": 19},
    ),
    "two leaves on one division": (
        500,
        700,
        [
            "Fit/Leaf",
            ("hanging", "half overlay"),
            ("cabinet.division", 25),
            ("cabinet.gap", 4),
            *SLAB,
            ("build.thickness", 19),
            "Hardware/Hinges",
            ("hardware.cup.hinge.reach", 12),
            ("hardware.cup.crank", 9),
        ],
        {"overlay_shared": 10.5, "cup_boring": 7.5},
    ),
    "leaf of old boards": (
        788,
        2004,
        [
            "Leaf/Set out",
            ("construction", "boarded"),
            ("build.style", "ledged"),
            ("build.edge", "square"),
            *(("boards-laid.new.width", each) for each in (205, 190, 240, 188)),
            ("build.gap", 1),
            "!boards-over",
            "Leaf/Joints",
            ("build.fixed_by", "clenched"),
        ],
        {"board_1": 183.5, "board_4": 166.5},
    ),
    "which overlay do I get": (
        450,
        700,
        [
            "Fit/Leaf",
            ("hanging", "full overlay"),
            *SLAB,
            ("build.thickness", 18),
            "Hardware/Hinges",
            ("hardware.cup.unknown", "overlay"),
            ("hardware.cup.hinge.reach", 12),
            ("hardware.cup.boring", 4),
            ("hardware.cup.plate", 2),
        ],
        {"overlay": 14, "side_shown": 4},
    ),
    "by-passing covers on two tracks": (
        1200,
        900,
        [
            "Measure/Round it",
            ("in_the_way.new.what", "bolt"),
            ("in_the_way.new.where", "behind"),
            ("in_the_way.new.away", 300),
            ("in_the_way.new.up", 400),
            ("in_the_way.new.stands_out", 11),
            "Fit/Leaf",
            ("hanging", "two tracks"),
            ("slide.overlap_hinge", 30),
            ("slide.overlap_latch", 30),
            ("slide.centre", 70),
            "Leaf/Set out",
            ("construction", "light face frame"),
            "Fit/Opens",
            ("slide.projection", 50),
        ],
        {"track_needed": 1260, "leaf_width": 665, "clear_way": 565, "in_the_way_1_off": 16},
    ),
    "panelled leaf made narrower": (
        673,
        2040,
        [
            "Leaf/Set out",
            ("construction", "that exists"),
            ("build.inside", "framed and panelled"),
            ("build.width", 730),
            ("build.height", 2032),
            ("build.panels", 3),
            ("build.tenon", 75),
        ],
        {"stile_off": 12, "lower_panel_1_off": 13, "lower_panel_2_off": 12, "lower_panel_3_off": 13},
    ),
    "heavy slab, sliding": (
        900,
        2080,
        [
            "Fit/Leaf",
            ("hanging", "sliding on the wall"),
            *SLAB,
            ("build.thickness", 42),
            "Timber/Parts",
            ("timber.species", "Ponderosa"),
            ("timber.moisture", 11),
            "Hardware/Gear",
            ("hardware.hangers.rating_kg", 32),
            "Hardware/Fixings",
            ("hardware.wall.stud_first", 130),
            ("hardware.wall.stud_pitch", 406),
        ],
        {"hanger_1": 197.7, "hanger_limit": 313.8},
    ),
    "level a cabinet leaf": (
        450,
        700,
        [
            "Fit/Leaf",
            ("hanging", "full overlay"),
            *SLAB,
            ("build.thickness", 18),
            "Hang/Gaps",
            ("hung.gaps.low_latch", 3),
            ("hung.gaps.proud_top", 1.5),
        ],
        {"leaf_width": 478, "leaf_height": 728},
    ),
    "two cups from the ends": (
        600,
        1243,
        [
            "Fit/Leaf",
            ("hanging", "inset on cups"),
            *((each, 3) for each in EACH_GAP),
            *SLAB,
            ("build.thickness", 19),
            "Hardware/Hinges",
            ("hardware.cup.first", 110),
            ("hardware.cup.last", 110),
            ("hardware.cup.count", 2),
        ],
        {"cup_1_plate": 113, "cup_2": 1127, "cup_2_plate": 1130},
    ),
    "run of leaves on a face frame": (
        400,
        500,
        [
            "Fit/Leaf",
            ("hanging", "full overlay"),
            ("cabinet.overlay", 14),
            ("cabinet.run", 3),
            ("cabinet.frame", 40),
            "Fit/Opens",
            ("cabinet.must_open", 170),
            *SLAB,
            ("build.thickness", 19),
            "Hardware/Hinges",
            ("hardware.cup.first", 102),
        ],
        {"leaf_width": 428, "leaf_height": 528, "run_between": 12, "cup_1": 102, "cup_2": 426},
    ),
    "inset on brass butts": (
        440,
        560,
        [
            "Fit/Leaf",
            ("hanging", "inset on butts"),
            ("fit.gap_hinge", 1),
            ("fit.gap_latch", 1),
            ("fit.bevel_margin", 0.4),
            *SLAB,
            ("build.thickness", 24),
            "Hardware/Hinges",
            ("butt", "76 brass"),
            ("hardware.butt.closed", 5),
            *(("packet.new.closed", each) for each in (5, 5.1, 5.2)),
        ],
        {"butt_depth": 2, "packet_2_depth": 2.05, "packet_spread": 0.2, "butt_1_top": 76},
    ),
    "two by-passing on one rail": (
        2300,
        2050,
        [
            "Fit/Leaf",
            ("hanging", "one rail"),
            ("slide.overlap_hinge", 45),
            ("slide.overlap_latch", 45),
            ("slide.roller", 70),
            ("slide.roller_in", 35),
            "Hardware/Gear",
            ("hardware.guide.floor", "laminate"),
            ("hardware.guide.kind", "a fin"),
            ("hardware.guide.let_in", "let in"),
        ],
        {"centre": 140, "track_needed": 2390, "leaf_width": 1265, "clear_way": 1010},
    ),
    "boarded leaf with a Z": (
        766,
        2006,
        [
            ("hand", "right"),
            "Leaf/Set out",
            ("construction", "boarded"),
            ("build.cover", 115),
            ("build.groove", 7),
            ("build.gap", 0),
            ("build.brace_width", 100),
            ("build.ledge_in", 45),
        ],
        {"leaf_width": 761, "board_end": 93, "field_width": 671},
    ),
    "old leaf made longer": (
        748,
        2013,
        [
            "Leaf/Set out",
            ("construction", "that exists"),
            ("build.inside", "framed and panelled"),
            ("build.height", 1920),
            ("build.width", 752),
            ("build.stile", 84),
            ("build.tenon", 60),
        ],
        {"leaf_width": 743, "added": 85, "stile_off": 4.5, "stile_left": 79.5},
    ),
    "pair in a crooked wall": (
        1600,
        2100,
        [
            ("readings.lean_latch", 8),
            "Measure/Lining",
            ("lining", "to the rough"),
            "Fit/Leaf",
            ("hanging", "a pair"),
            ("fit.gap_hinge", 3),
            ("fit.gap_latch", 3),
            ("pair.meeting", 3),
        ],
        {"lining_outside": 1588, "clear_width": 1538, "leaf_width": 764.5},
    ),
    "walnut slab on hidden gear": (
        1000,
        2300,
        [
            "Fit/Leaf",
            ("hanging", "gear on the floor"),
            *SLAB,
            ("build.thickness", 44),
            ("build.stiffener", "channels"),
            "Timber/Parts",
            ("timber.species", "Walnut"),
            ("timber.moisture", 8),
            "Fit/Opens",
            ("track-set", "hidden floor gear"),
            "Measure/Round it",
            ("floor.along", "travel"),
            ("travel.new.at", 0),
            ("travel.new.height", 5),
            ("travel.new.at", 1000),
            ("travel.new.height", 0),
        ],
        {"leaf_width": 1076},
    ),
    "double thickness with an X": (
        780,
        2040,
        [
            "Leaf/Set out",
            ("construction", "boarded"),
            ("build.style", "X"),
            "Leaf/Joints",
            ("build.double", "two of boards"),
            ("build.fixed_by", "clenched"),
            "!butts-weak",
        ],
        {"leaf_width": 775, "butt_rating_kg": 80},
    ),
    "veneered leaf with an arch, in a pocket": (
        840,
        2010,
        [
            "Leaf/Joints",
            ("build.arch", 35),
            "Leaf/Set out",
            ("construction", "veneered"),
            ("build.form", "stiles"),
            ("build.stock", 44),
            ("build.veneer", 3),
            ("build.sanding", 0.6),
            "Fit/Leaf",
            ("hanging", "pocket"),
            "Fit/Opens",
            ("track-set", "frame 92"),
        ],
        {"arch": 35, "veneer_raw": 3.9, "veneers_each": 8, "gear_short": 131},
    ),
}


def do(name: str) -> Done:
    """Do one of the jobs, from the readings to the leaf that is signed off; the window stays open."""
    width, height, steps, _ = JOBS[name]
    done = begun(name, width, height)
    for step in steps:
        done.take(step)
    done.hang()
    return done


def main() -> None:
    """Print the table. What is signed off goes into a book of its own, not into that of whoever runs it."""
    from oakmeasure.app.shell.start import application
    from oakmeasure.files.job import job_book

    folder = Path(tempfile.mkdtemp(prefix="oak-measure-by-hand-"))
    job_book.place = lambda: folder
    app = application()
    print("| job | boxes | keys | clicks | minutes | answered for |\n| --- | ---: | ---: | ---: | ---: | --- |")
    for name in JOBS:
        done = do(name)
        print(f"| {name} | {done.boxes} | {done.keys} | {done.clicks} | {done.minutes:.1f} | {', '.join(done.stops)} |")
        let_go(done.window)
    del app


if __name__ == "__main__":
    sys.exit(main())
