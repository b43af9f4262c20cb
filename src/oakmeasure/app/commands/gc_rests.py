"""When memory is swept: while nobody changes anything.

Python's collector walks through all that is there now and then, a pause of some 100 ms with a whole job worked out,
in the middle of a stroke or a plan if it is left to itself.
"""

from __future__ import annotations

import gc
import time

from PySide6.QtCore import QObject, QTimer

from oakmeasure.app.shell.session import Session

EVERY_MS = 15_000  # between two looks whether there is a rest
REST_S = 3.0  # without an edit that count as one
YOUNG = (20_000, 20, 1_000_000)  # the collector's thresholds: what has just been made is looked at as it always is


class Sweeper(QObject):
    """Sweeps the memory of the application in the rests that people make."""

    def __init__(self, session: Session, parent: QObject) -> None:
        super().__init__(parent)
        self.last = time.monotonic()
        self._timer = QTimer(self)
        self._timer.setInterval(EVERY_MS)
        self._timer.timeout.connect(self.look)
        gc.collect()
        gc.freeze()  # what is there now stays, and need not be walked through again
        gc.set_threshold(*YOUNG)
        session.changed.connect(self.note)
        self._timer.start()

    def note(self) -> None:
        """Note when there was an edit."""
        self.last = time.monotonic()

    def look(self) -> bool:
        """Sweep if there has been a rest; return whether there was one."""
        rests = time.monotonic() - self.last > REST_S
        if rests:
            gc.collect()
        return rests
