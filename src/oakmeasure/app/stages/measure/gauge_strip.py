"""The strip under the Measure sheet: a gauge on a serial line writes its readings into the box with the cursor."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtWidgets import QApplication, QHBoxLayout, QMenu, QToolButton, QVBoxLayout, QWidget

from oakmeasure.app.forms.notes import label
from oakmeasure.app.forms.quantity_edit import QuantityEdit
from oakmeasure.app.shell.session import Session
from oakmeasure.core.base.units import Unit
from oakmeasure.core.survey.kinds import SurveyKind
from oakmeasure.core.survey.takings.tape import lean_over_side
from oakmeasure.gauges.port import GaugePort, GaugeState, ports
from oakmeasure.gauges.protocol import GaugeReading, Quantity
from oakmeasure.gauges.simulated import SimulatedGauge
from oakmeasure.language import tr

SIMULATED = "a simulated gauge"


class _GaugeLine(QObject):
    """Carries what the gauge's thread says over to the window's."""

    reading = Signal(object)
    bad = Signal(bytes, str)
    state = Signal(object, str)


class GaugeStrip(QWidget):
    """Connects, shows how the line is and the last bad line; hands readings to the box with the cursor."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("gaugeStrip")
        self.port: GaugePort | None = None
        self.simulated: SimulatedGauge | None = None
        self.bad_lines = 0
        self._line = _GaugeLine()
        self._line.reading.connect(self.take)
        self._line.bad.connect(self._bad)
        self._line.state.connect(self._state)
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 6, 12, 8)
        column.setSpacing(1)
        row = QHBoxLayout()
        row.setSpacing(6)
        self.words = label("Gauge: none", "sum")
        self.words.setObjectName("gaugeWords")
        row.addWidget(self.words, 1)
        self.press = self._button("press", "Press it", "a reading from the simulated gauge (F8)")
        self.press.setShortcut("F8")
        self.press.clicked.connect(self.press_simulated)
        self.press.hide()
        row.addWidget(self.press)
        self.connect_button = self._button("gauge", "Connect", "readings go into the box with the cursor")
        self.connect_button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self._menu = QMenu(self)
        self._menu.aboutToShow.connect(self._fill_menu)
        self.connect_button.setMenu(self._menu)
        row.addWidget(self.connect_button)
        column.addLayout(row)
        self.last = label("", "pencil")
        self.last.setObjectName("gaugeLast")
        self.last.setWordWrap(True)
        self.last.hide()
        column.addWidget(self.last)

    def _button(self, name: str, text: str, note: str) -> QToolButton:
        button = QToolButton()
        button.setObjectName(name)
        button.setText(tr(text))
        button.setToolTip(tr(note))
        button.setProperty("role", "gauge")
        button.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # the cursor stays in the box that is to take the reading
        return button

    # --- connecting ----------------------------------------------------------------------------------------

    def _fill_menu(self) -> None:
        self._menu.clear()
        offered: list[tuple[str, Callable[[], None]]] = [
            (f"{words} ({path})", partial(self.connect_to, path)) for path, words in ports()
        ]
        offered.append((SIMULATED.capitalize(), self.connect_simulated))
        if self.simulated is not None:
            offered += [("Unplug it", self.simulated.unplug), ("Plug it in again", self.simulated.plug_in)]
        if self.port is not None:
            offered.append(("No gauge", self.disconnect_gauge))
        for words, what in offered:
            self._menu.addAction(tr(words)).triggered.connect(lambda _on=False, what=what: what())

    def connect_simulated(self, *, bad_share: float = 0.12, seed: int = 1) -> None:
        """Start the gauge that ships with the program and listen to it."""
        self.disconnect_gauge()
        self.simulated = SimulatedGauge(bad_share=bad_share, seed=seed)
        self._listen(self.simulated.path)
        self.press.show()

    def connect_to(self, path: str) -> None:
        """Listen to a serial port."""
        self.disconnect_gauge()
        self._listen(path)

    def _listen(self, path: str) -> None:
        self.bad_lines = 0
        line = self._line
        self.port = GaugePort(
            path,
            on_reading=lambda reading: _tell(line.reading, reading),
            on_bad=lambda bad, reason: _tell(line.bad, bad, reason),
            on_state=lambda state, reason: _tell(line.state, state, reason),
        )
        self.port.start()

    def disconnect_gauge(self) -> None:
        """Let the gauge go."""
        if self.port is not None:
            self.port.stop()
            self.port = None
        if self.simulated is not None:
            self.simulated.close()
            self.simulated = None
        self.press.hide()
        self.words.setText(tr("Gauge: none"))
        self.last.hide()

    # --- what comes ------------------------------------------------------------------------------------------

    def _state(self, state: GaugeState, reason: str) -> None:
        if self.port is None:
            return
        name = "Simulated gauge" if self.simulated is not None else "Gauge"
        words = {
            GaugeState.READY: "takes the reading here",
            GaugeState.CONNECTING: "connecting",
            GaugeState.UNPLUGGED: "unplugged, waiting",
            GaugeState.STOPPED: "off",
        }[state]
        self.words.setText(tr(f"{name}: {words}"))
        self.words.setToolTip(tr(reason))

    def _bad(self, line: bytes, reason: str) -> None:
        self.bad_lines += 1
        shown = "".join(chr(each) if 32 <= each < 127 else "·" for each in line[:28])
        self.show_note(f"ignored “{shown}”: {reason}")

    def show_note(self, text: str) -> None:
        """Say something under the strip's words."""
        self.last.setText(tr(text))
        self.last.setVisible(bool(text))

    def _entry(self) -> QuantityEdit | None:
        focus = QApplication.focusWidget()
        parent = focus.parentWidget() if focus is not None else None
        return parent if isinstance(parent, QuantityEdit) and self.window().isAncestorOf(parent) else None

    def take(self, reading: GaugeReading) -> None:
        """Give a reading to the box with the cursor."""
        entry = self._entry()
        if entry is None:
            self.show_note(f"{self._in_words(reading)} came, but no box has the cursor")
            return
        value = reading.value
        path = entry.line.objectName()
        if reading.quantity is Quantity.SLOPE:
            name = path.partition(".")[2]
            if not entry.signed or not path.startswith("readings."):
                self.show_note("a slope came, but the cursor is in no lean")
                return
            value = lean_over_side(self.session.leaf, name, value)
        elif (reading.quantity is Quantity.ANGLE) is not (entry.unit is Unit.DEG):
            what = "an angle" if reading.quantity is Quantity.ANGLE else "a distance"
            self.show_note(f"{what} came where none is asked")
            return
        if entry.take(value):
            self.show_note("")

    def _in_words(self, reading: GaugeReading) -> str:
        if reading.quantity is Quantity.DISTANCE:
            return self.session.show.length(reading.value, unit=True)
        return f"{reading.value:g}°" if reading.quantity is Quantity.ANGLE else f"{reading.value:g} mm a metre"

    # --- the simulated one -----------------------------------------------------------------------------------

    def press_simulated(self) -> None:
        """Press the simulated gauge's button: it reads about what stands in the box, or what the opening makes it."""
        if self.simulated is None:
            return
        entry = self._entry()
        value = 0.0
        if entry is not None:
            value = self._about(entry)
        if entry is not None and entry.unit is Unit.DEG:
            self.simulated.press(value, Quantity.ANGLE)
        else:
            self.simulated.press(value)

    def _about(self, entry: QuantityEdit) -> float:
        if entry.value is not None:
            return entry.value
        name = entry.line.objectName().partition(".")[2]
        adjustment = self.session.solved.opening.adjustment
        if adjustment is not None and name in list(SurveyKind) and name in adjustment.network.matrices:
            return adjustment.predicted(SurveyKind(name))
        return 0.0


def _tell(signal: object, *args: object) -> None:
    """Emit from the gauge's thread; the window may be gone by then."""
    try:
        signal.emit(*args)  # type: ignore[attr-defined]
    except RuntimeError:
        return
