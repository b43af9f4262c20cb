"""Listens to a gauge on a serial line, in a thread of its own; a gauge that is unplugged is waited for."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from enum import StrEnum

from oakmeasure.gauges.protocol import BadLineError, GaugeReading, Lines, parse_line

MOST_A_SECOND = 60  # lines that are handed on; a hand presses no faster
RETRY_S = 0.5
WAIT_S = 0.2


class GaugeState(StrEnum):
    """How the line is."""

    CONNECTING = "connecting"
    READY = "ready"
    UNPLUGGED = "unplugged, waiting for it"
    STOPPED = "off"


class LinesASecond:
    """Lets so many things through in a second."""

    def __init__(self, most: int) -> None:
        self._most, self._second, self._count = most, -1, 0

    def goes(self, now: float) -> bool:
        """Return whether one more goes through.

        Args:
            now: Of a clock that only runs on, s.
        """
        if int(now) != self._second:
            self._second, self._count = int(now), 0
        self._count += 1
        return self._count <= self._most

    @property
    def is_first_over(self) -> bool:
        """Whether the last one was the first of its second that did not."""
        return self._count == self._most + 1


class GaugePort:
    """Calls back from its thread: `on_reading(reading)`, `on_bad(line, reason)`, `on_state(state, reason)`."""

    def __init__(
        self,
        path: str,
        *,
        baud: int = 9600,
        on_reading: Callable[[GaugeReading], None],
        on_bad: Callable[[bytes, str], None],
        on_state: Callable[[GaugeState, str], None],
    ) -> None:
        self.path, self.baud = path, baud
        self._on_reading, self._on_bad, self._on_state = on_reading, on_bad, on_state
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._run, name=f"gauge {path}", daemon=True)

    def start(self) -> None:
        """Begin to listen."""
        self._thread.start()

    def stop(self) -> None:
        """Stop listening; returns when the thread has ended, within about a second."""
        self._stop.set()
        if self._thread.is_alive() and threading.current_thread() is not self._thread:
            self._thread.join(timeout=3)

    def _run(self) -> None:
        self._on_state(GaugeState.CONNECTING, "")
        while not self._stop.is_set():
            reason = self._listen()
            if not self._stop.is_set():
                self._on_state(GaugeState.UNPLUGGED, reason)
                self._stop.wait(RETRY_S)
        self._on_state(GaugeState.STOPPED, "")

    def _listen(self) -> str:
        """Read until the line fails or `stop` is called; returns the reason."""
        import serial

        try:
            with serial.Serial(self.path, self.baud, timeout=WAIT_S) as line:
                self._on_state(GaugeState.READY, "")
                lines, pace = Lines(), LinesASecond(MOST_A_SECOND)
                while not self._stop.is_set():
                    # At least one byte, so that a quiet line blocks for WAIT_S rather than spins.
                    received = line.read(max(1, min(line.in_waiting, 4096)))
                    for each in lines.feed(received):
                        if pace.goes(time.monotonic()):
                            self._take(each)
                        elif pace.is_first_over:
                            self._on_bad(each, f"more than {MOST_A_SECOND} lines in a second: the rest is left out")
        except (OSError, serial.SerialException, ValueError) as error:
            return _in_words(error)
        return ""

    def _take(self, line: bytes) -> None:
        try:
            reading = parse_line(line)
        except BadLineError as error:
            self._on_bad(line, str(error))
            return
        self._on_reading(reading)


def _in_words(error: Exception) -> str:
    text = str(error).lower()
    for sign, words in (
        ("no such file", "there is no such port"),
        ("permission", "no permission to open it"),
        ("disconnected", "it is gone"),
        ("busy", "something else has it"),
    ):
        if sign in text:
            return words
    return text[:80]


def ports() -> list[tuple[str, str]]:
    """Return path and description of every serial port that there is."""
    from serial.tools import list_ports

    return [(each.device, each.description or each.device) for each in list_ports.comports()]
