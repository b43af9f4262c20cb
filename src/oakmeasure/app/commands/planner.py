"""Plans the wood of the job in another process: better plans come in while the window stays live.

A stop keeps the best.
"""

from __future__ import annotations

import json
import sys
import time
from typing import Any

from PySide6.QtCore import QObject, QProcess, QTimer, Signal

from oakmeasure.core.document.job import Job
from oakmeasure.core.planning.job_plan import lot_plan
from oakmeasure.core.planning.plan_model import JobPlan, LotPlan, Needs
from oakmeasure.files.plan_worker import encoded, plan_from

SHOW_EVERY_MS = 120  # better plans that come faster are shown together


class Planner(QObject):
    """Signals: `changed` when there is a better plan or it has ended, `ticked` when time has gone; `ended`."""

    changed = Signal()
    ticked = Signal()
    ended = Signal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._process: QProcess | None = None
        self._needs: Needs | None = None
        self._job: Job | None = None
        self._lots: dict[int, LotPlan] = {}
        self._waiting = b""
        self._began = 0.0
        self.seconds = 0.0
        self.trouble = ""
        self._tick = QTimer(self)
        self._tick.setInterval(SHOW_EVERY_MS)
        self._tick.timeout.connect(self._show)
        self._is_fresh = False

    @property
    def is_running(self) -> bool:
        """Whether better plans may still come."""
        return self._process is not None

    @property
    def progress(self) -> float:
        """Return the share of the time that is gone, 0 to 1."""
        if not self.is_running:
            return 1.0
        return min(1.0, (time.monotonic() - self._began) / max(self.seconds, 0.1))

    def plan(self) -> JobPlan | None:
        """Return the best plan so far, of the lots that have one; None before there is any."""
        if self._needs is None or (self._needs.lots and not self._lots):
            return None
        return JobPlan(tuple(self._lots[at] for at in sorted(self._lots)), self._needs.homeless)

    @property
    def missing(self) -> int:
        """Return how many lots have no plan yet."""
        return 0 if self._needs is None else len(self._needs.lots) - len(self._lots)

    def start(self, job: Job, needs: Needs) -> None:
        """Plan anew; what was running is stopped."""
        self.stop()
        self._job, self._needs, self._lots = job, needs, {}
        self.trouble, self._waiting, self.seconds = "", b"", job.cutting.seconds
        if not needs.lots:
            self.changed.emit()
            self.ended.emit()
            return
        process = QProcess(self)
        process.readyReadStandardOutput.connect(self._read)
        process.finished.connect(lambda *_: self._finished(process))
        process.errorOccurred.connect(lambda *_: self._finished(process))
        self._process = process
        self._began = time.monotonic()
        process.start(sys.executable, ["-m", "oakmeasure.files.plan_worker"])
        process.write(encoded([each.problem for each in needs.lots], job.cutting.seconds).encode())
        process.closeWriteChannel()
        self._tick.start()
        self.changed.emit()

    def stop(self) -> None:
        """End the search; the best plan stays."""
        process, self._process = self._process, None
        self._tick.stop()
        if process is not None:
            process.kill()
            process.waitForFinished(1000)
            process.deleteLater()
            self.changed.emit()
            self.ended.emit()

    def _show(self) -> None:
        if self._is_fresh:
            self._is_fresh = False
            self.changed.emit()
        else:
            self.ticked.emit()

    def _read(self) -> None:
        if self._process is None or self._needs is None or self._job is None:
            return
        *lines, self._waiting = (self._waiting + bytes(self._process.readAllStandardOutput().data())).split(b"\n")
        latest: dict[int, Any] = {}
        for line in lines:
            if line.strip():
                told = json.loads(line)
                latest[int(told["at"])] = told["plan"]
        self._is_fresh = self._is_fresh or bool(latest)
        for at, document in latest.items():
            self._lots[at] = lot_plan(self._needs.lots[at], plan_from(document), self._job)

    def _finished(self, process: QProcess) -> None:
        if process is not self._process:
            return
        self._read()
        if process.exitCode() != 0 or process.error() is not QProcess.ProcessError.UnknownError:
            self.trouble = "Planning came to an end by itself; what was found so far is shown."
        self._process = None
        self._tick.stop()
        process.deleteLater()
        self.changed.emit()
        self.ended.emit()
