"""Drives the window on a real X server; run by test_window as a process of its own."""

from __future__ import annotations

import sys
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QToolButton

from oakmeasure.app.shell.session import Session
from oakmeasure.app.shell.start import application
from oakmeasure.app.shell.window import Window
from oakmeasure.core.figures.check import Stage
from oakmeasure.files.job.job_file import demo_job


def main(folder: Path) -> int:
    app = application()
    assert app.platformName() == "xcb"
    window = Window(Session(demo_job()))
    window.show()
    assert QTest.qWaitForWindowExposed(window)
    window.activateWindow()
    assert QTest.qWaitForWindowActive(window)

    def write(name: str, text: str) -> None:
        line = window.sheet().findChild(QLineEdit, name)
        line.setFocus()
        line.selectAll()
        QTest.keyClicks(line, text)
        QTest.keyClick(line, Qt.Key.Key_Return)

    write("readings.width_top", "740 + 3.5")

    def waited(until: Callable[[], bool], ms: int) -> bool:
        for _ in range(ms // 20):
            if until():
                return True
            QTest.qWait(20)
        return until()

    # A gauge writes into the box that has the cursor; here the simulated one, with a bad line before its reading.
    window.gauge.connect_simulated(bad_share=1.0)
    assert waited(lambda: "takes the reading" in window.gauge.words.text(), 5000)
    line = window.sheet().findChild(QLineEdit, "readings.width_middle")
    line.setFocus()
    QTest.mouseClick(window.gauge.press, Qt.MouseButton.LeftButton)
    assert waited(lambda: window.session.leaf.readings.width_middle.value != 739.5, 5000)
    assert window.gauge.bad_lines == 1
    page = window.sheet().findChild(QToolButton, "page-Round it")
    QTest.mouseClick(page, Qt.MouseButton.LeftButton)
    write("swing.new.at", "60")
    write("swing.new.height", "2.5")
    assert window.session.leaf.floor.swing[0].height.value == 2.5
    QTest.keyClick(window, Qt.Key.Key_3, Qt.KeyboardModifier.ControlModifier)
    assert window.session.stage is Stage.LEAF
    write("build.stile", "102")
    QTest.qWait(50)
    assert window.screen().grabWindow(window.winId()).save(str(folder / "real.png"))
    window.commands.ask_save_path = lambda *_: str(folder / "real.pdf")
    window.commands.bench_sheet()
    window.commands.ask_save_path = lambda *_: str(folder / "real.oakjob")
    assert window.commands.save()
    QTimer.singleShot(0, window.close)
    return app.exec()  # closing the last window must end it


if __name__ == "__main__":
    sys.exit(main(Path(sys.argv[1])))
