"""Bench rows of the leaf turned: a frame while it is dragged, a step of the slider, an edit redrawn."""

from __future__ import annotations

import os
import statistics
import time
from collections.abc import Callable

Row = tuple[str, str, str, bool]
FRAMES = 120
SIXTY = "walnut"  # the demo's leaf of sixty pieces and more


def _timed(step: Callable[[int], object], count: int) -> list[float]:
    """Return how long each step took, ms, the shortest first; the first two are not counted."""
    times = []
    for at in range(count + 2):
        start = time.perf_counter()
        step(at)
        times.append((time.perf_counter() - start) * 1000)
    return sorted(times[2:])


def rows() -> list[Row]:
    """Return every row."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from oakmeasure.app.shell.start import application, open_window
    from oakmeasure.core.figures.check import Stage
    from oakmeasure.files.job.job_file import demo_job

    app = application()
    window = open_window(demo_job())
    window.resize(1280, 800)
    room, board, session = window.turning.room, window.board, window.session
    session.go_to(Stage.LEAF)
    found: list[Row] = []

    def flat(_at: int) -> None:
        window.draw()
        board.repaint()

    def frame(at: int) -> None:
        room.turned(4 if at % 60 < 30 else -4, 1 if at % 20 < 10 else -1)
        board.repaint()

    def slid(at: int) -> None:
        window.turning.apart.setValue(at % 100)
        board.repaint()

    for leaf in ("seed-room", SIXTY, "reading-room"):
        window.choose_leaf(leaf)
        room.switch(False)
        app.processEvents()
        usual = statistics.median(_timed(flat, 20))
        room.switch(True)
        for apart in (0, 100):
            window.turning.apart.setValue(apart)
            app.processEvents()
            times = _timed(frame, FRAMES)
            middle, slow = statistics.median(times), times[-3]
            pieces = len(session.solved.body.pieces)
            words = f"median {middle:.1f} ms, slowest but two {slow:.1f} ms; {middle / usual:.2f} × the flat drawing's"
            is_fast = middle < 1000 / 60 and slow < 33
            found.append((f"turning {leaf}, {pieces} pieces, {apart} % apart", "60 a second, 33 ms", words, is_fast))
        times = _timed(slid, 100)
        words = f"median {statistics.median(times):.0f} ms, slowest but two {times[-3]:.0f} ms"
        found.append((f"taking {leaf} apart, a step of the slider", "100 ms", words, times[-3] < 100))
        window.turning.apart.setValue(0)
    session.go_to(Stage.MAKE)

    def played(at: int) -> None:
        window.turning.steps.setValue(1 + at % window.turning.steps.maximum())
        board.repaint()

    for leaf in ("seed-room", SIXTY, "reading-room"):
        window.choose_leaf(leaf)
        app.processEvents()
        times = _timed(played, window.turning.steps.maximum() - 2)
        words = f"median {statistics.median(times):.0f} ms, slowest {times[-1]:.0f} ms"
        found.append((f"playing {leaf}, a step of its making", "100 ms, none over 300", words, times[-1] < 300))
    session.go_to(Stage.LEAF)
    window.choose_leaf("seed-room")

    def edited(at: int) -> None:
        assert not session.edit("build.stile", 90.0 + at % 10 + at / 100)
        app.processEvents()

    room.switch(False)
    before = statistics.median(_timed(edited, 25))
    room.switch(True)
    times = _timed(edited, 50)
    words = f"median {statistics.median(times):.0f} ms, worst {times[-1]:.0f} ms; flat {before:.0f} ms"
    is_fast = statistics.median(times) < 50 and times[-1] < 100
    session.undo_stack.setClean()
    window.close()
    return [*found, ("one edit redrawn while the leaf is turned", "under 50 ms, worst 100", words, is_fast)]


if __name__ == "__main__":
    for name, budget, measured, within in rows():
        print(f"{name:<52}  {budget:<24}  {measured}{'' if within else '   OVER'}")
