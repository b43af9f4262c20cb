"""Drives the window on a real X server; run by test_window as a process of its own."""

from __future__ import annotations

import sys
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit

from oakmeasure.app.session import Session
from oakmeasure.app.start import application, demo_job
from oakmeasure.app.window import Window
from oakmeasure.core.verdicts import Stage


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
