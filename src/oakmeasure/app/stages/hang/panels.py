"""The panels of the Hang sheet: the drill, the signing, the book."""

from __future__ import annotations

import random

from PySide6.QtWidgets import QHBoxLayout, QLabel, QLineEdit, QSpinBox

from oakmeasure.app.forms.notes import label, tell
from oakmeasure.app.forms.quantity_edit import Asked, QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.app.stages.hang.room import HangRoom
from oakmeasure.app.stages.make.panels import Stack
from oakmeasure.app.tools.dialogs import answered_for
from oakmeasure.core.base.parsing import NEAR_SIZE
from oakmeasure.core.base.units import Unit
from oakmeasure.core.hanging.remedy import hinge_name
from oakmeasure.language import tr

LAST_SEED = 9999


def box(name: str, words: str, hint: str = "") -> QLineEdit:
    """Return a line of text to be written."""
    made = QLineEdit()
    made.setObjectName(name)
    made.setAccessibleName(tr(words))
    made.setPlaceholderText(tr(hint or words))
    made.setProperty("role", "box")
    return made


class DrillPanel(Stack):
    """Which door, what is packed at each hinge, what is planed; then its score."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.hang = session.room(HangRoom)
        self.seed = QSpinBox()
        self.seed.setObjectName("drillSeed")
        self.seed.setAccessibleName(tr("number of the door"))
        self.seed.setRange(0, LAST_SEED)
        self.seed.valueChanged.connect(self.hang.new_door)
        self.row(label("door no.", "pencil"), self.seed)
        self.column.addWidget(self.button("Another door", "drillNext", self._another, role="plain"))
        self.entries: list[tuple[QLabel, QuantityEdit]] = []
        for n in range(3):
            self._entry(f"drill.{n}")
        self.planed = self._entry("drill.planed")
        self.planed[0].setText(tr("planed off the latch edge"))
        self.go = self.button("Judge it", "drillJudge", self._judge)
        self.column.addWidget(self.go)
        self.column.addWidget(self.note)
        self.score = self.words("head")

    def _entry(self, name: str) -> tuple[QLabel, QuantityEdit]:
        title = label("", "pencil")
        entry = QuantityEdit(
            "remedy", Unit.MM, lambda _value, _nudge: "", name=name, asks=Asked(signed=True, optional=True)
        )
        entry.setFixedWidth(126)
        entry.told.connect(lambda text, refused: tell(self.note, text, refused))
        line = QHBoxLayout()
        line.addWidget(title, 1)
        line.addWidget(entry)
        self.column.addLayout(line)
        if name != "drill.planed":
            self.entries.append((title, entry))
        return title, entry

    def refresh(self) -> None:
        """Show the door."""
        door, show = self.hang.door, self.session.show
        self.seed.blockSignals(True)
        self.seed.setValue(door.seed)
        self.seed.blockSignals(False)
        count = len(door.frame.hinges)
        for n, (title, entry) in enumerate(self.entries):
            for each in (title, entry):
                each.setVisible(n < count)
            if n < count:
                title.setText(tr(f"{hinge_name(n, count)}, packed"))
                entry.show_value(self.hang.packed[n] or None, show)
        self.planed[1].show_value(self.hang.planed or None, show)
        judged = self.hang.judged
        self.score.setText(tr(f"{judged.points} of 100" if judged is not None else ""))

    def _another(self) -> str:
        self.hang.new_door(random.randrange(LAST_SEED))
        return ""

    def _judge(self) -> str:
        count = len(self.hang.door.frame.hinges)
        for entry in (*(each for _, each in self.entries[:count]), self.planed[1]):
            if not entry.commit():
                return "one of the numbers cannot be read"
        packed = [entry.value or 0.0 for _, entry in self.entries[:count]]
        planed = self.planed[1].value or 0.0
        if planed < 0:
            return "wood does not grow back: what is planed is 0 or more"
        self.hang.try_remedy(packed, planed)
        return ""


class SignPanel(Stack):
    """As hung: sizes, weight; who signs; a note. Then it goes into the book."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.sizes: dict[str, QuantityEdit] = {}
        for name, words, unit in (
            ("width", "width as hung", Unit.MM),
            ("height", "height as hung", Unit.MM),
            ("mass", "weight", Unit.KG),
        ):
            entry = QuantityEdit(words, unit, lambda _value, _nudge: "", name=f"sign.{name}", asks=Asked(optional=True))
            entry.setFixedWidth(126)
            entry.told.connect(lambda text, refused: tell(self.note, text, refused))
            line = QHBoxLayout()
            line.addWidget(label(words, "pencil"), 1)
            line.addWidget(entry)
            self.column.addLayout(line)
            self.sizes[name] = entry
        self.by, self.words_ = (
            box("signBy", "who signs", "who hung it"),
            box("signNote", "note", "what is to be remembered"),
        )
        self.column.addWidget(self.by)
        self.column.addWidget(self.words_)
        self.go = self.button("Sign it off, into the book", "signOff", self._sign)
        self.column.addWidget(self.go)
        self.column.addWidget(self.note)
        self.state = self.words()

    def refresh(self) -> None:
        """Show whether the leaf in hand is signed off."""
        signed = self.session.leaf.hung.signed
        for name, entry in self.sizes.items():
            value = getattr(signed, "mass_kg" if name == "mass" else name) if signed is not None else None
            entry.show_value(value, self.session.show)
        if signed is not None and not self.by.hasFocus():
            self.by.setText(signed.by)
            self.words_.setText(signed.note)
        self.go.setText(tr("Sign it off anew" if signed is not None else "Sign it off, into the book"))
        stops = self.session.solved.open_stops()
        self.state.setText(
            tr(f"to be answered for first: {'; '.join(each.title for each in stops[:3])}" if stops else "")
        )

    def _sign(self) -> str:
        for entry in self.sizes.values():
            if not entry.commit():
                return "one of the sizes cannot be read"
        values = [self.sizes[name].value for name in ("width", "height", "mass")]
        if self.by.text().strip() and not answered_for(self.window(), self.session, signs=True):
            return "not answered for yet: nothing is signed"
        return self.session.room(HangRoom).sign(self.by.text(), self.words_.text(), *values)


class BookPanel(Stack):
    """Search the book; open a leaf of it again as the start of a new job."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.search = box("bookSearch", "search the book", "place, construction, size, a word")
        self.search.textChanged.connect(session.room(HangRoom).look_for)
        self.column.addWidget(self.search)
        self.hint = self.words()
        self.column.addWidget(self.note)

    def refresh(self) -> None:
        """Show what is sought."""
        if self.search.text() != self.session.room(HangRoom).search:
            self.search.setText(self.session.room(HangRoom).search)
        near = self.session.show.length(NEAR_SIZE, unit=True)
        self.hint.setText(tr(f"Every word must stand in it; a number finds widths and heights within {near}."))
