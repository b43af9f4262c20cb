"""The Timber stage of the whole job in the window: rack, drawn defects, plan, pins, drying, veneers, cost, CSV."""

from __future__ import annotations

from PySide6.QtCore import QCoreApplication, QPoint, Qt
from PySide6.QtTest import QTest

from driving import choose, page, write
from oakmeasure.core.document.stock import Came, CuttingChoices, Face, Flaw, Pin
from oakmeasure.core.drawings.views import TimberPage
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.planning.job_plan import to_buy


def at_page(window, which, leaf="drying-loft"):
    window.session.choose_leaf(leaf)
    window.session.go_to(Stage.TIMBER)
    page(window, which)


def drag(window, start, by, steps=12):
    QTest.mousePress(window.board, Qt.MouseButton.LeftButton, pos=start)
    for n in range(1, steps + 1):
        QTest.mouseMove(window.board, start + QPoint(by[0] * n // steps, by[1] * n // steps))
    QTest.mouseRelease(window.board, Qt.MouseButton.LeftButton, pos=start + QPoint(*by))


def board(window):
    return window.session.job.boards[window.session.board_in_hand()]


def planned(window, qtbot, leaf="drying-loft", seconds=1.0):
    pin = Pin(leaf="drying-loft", part="hinge stile", board="R1")
    cutting = CuttingChoices(seconds=seconds, one_leaf=True, pins=(pin,))
    window.session.push("plan quickly", lambda job: job.model_copy(update={"cutting": cutting}))
    at_page(window, TimberPage.PLAN, leaf)
    qtbot.waitUntil(lambda: not window.timber.planner.is_running and window.timber.plan() is not None, timeout=20_000)
    return window.timber.plan()


def test_defect_is_drawn_on_a_face_moved_sized_typed_and_each_drag_is_one_step(window):
    at_page(window, TimberPage.RACK)
    window.timber.clicked("rack:3")  # B4: one knot
    assert board(window).label == "B4"
    steps = window.session.undo_stack.count()
    clear = window.board.place_of(f"handle:new {Face.OTHER}").toPoint()
    drag(window, clear + QPoint(-140, -4), (40, 8))  # clear of the knot
    assert window.session.undo_stack.count() == steps + 1
    made = board(window).marks[-1]
    assert (made.flaw, made.face) == (Flaw.KNOT, Face.OTHER)
    assert made.length > 100
    drag(window, window.board.place_of(f"handle:move {Face.OTHER}").toPoint(), (-60, 0))
    moved = board(window).marks[-1]
    assert moved.x < made.x
    assert (moved.length, moved.width) == (made.length, made.width)
    drag(window, window.board.place_of(f"handle:size {Face.OTHER}").toPoint(), (2000, 0))
    assert board(window).marks[-1].x + board(window).marks[-1].length == board(window).length  # it ends with the board
    assert window.session.undo_stack.count() == steps + 3
    QCoreApplication.processEvents()  # rows made just now are shown
    write(window, "marks.0.x", "2230")
    assert board(window).marks[0].x == 1330  # would reach beyond the board's end, at 2250
    write(window, "marks.0.x", "1400")
    assert board(window).marks[0].x == 1400
    window.findChild(object, "turnBoard").click()
    assert board(window).marks[-1].face is Face.BEST


def test_figures_of_a_board_are_written_a_label_that_is_taken_is_refused_and_boards_come_and_go(window):
    at_page(window, TimberPage.RACK)
    write(window, "rack.width", "240")
    assert board(window).width == 240
    label = window.findChild(object, "rack.label")
    label.setText("B3")
    label.editingFinished.emit()
    assert board(window).label == "B1"
    assert "B3 is on another board" in window.findChild(object, "rackBoard").parent().note.text()
    window.findChild(object, "addBoard").click()
    assert (board(window).label, board(window).quantity) == ("B6", 1)
    choose(window, "rack.came", "reclaimed")
    assert board(window).came is Came.RECLAIMED
    assert any("search it for metal" in each.cells[-1] for each in window.list.records.records)
    window.findChild(object, "removeBoard").click()
    assert "B6" not in {each.label for each in window.session.job.boards}


def test_wood_is_planned_in_the_background_proven_pinned_left_out_and_cut(window, qtbot):
    plan = planned(window, qtbot)
    assert plan.is_whole
    strip = window.middle.strip
    assert strip.go.text() == "Plan again"
    assert "least possible" in strip.all.text() or "gap" in strip.all.text()
    assert window.list.records.records[-1].cells[0] == "all of it"
    at = next(n for n, lot in enumerate(plan.lots) if any(one.source.name == "R1" for one in lot.stock))
    window.timber._choose_lot(at)
    window.timber.clicked("piece:drying-loft/hinge stile")
    assert not strip.buttons["pin"].isVisible()
    strip.buttons["unpin"].click()
    assert window.session.job.cutting.pins == ()
    window.timber.clicked("piece:drying-loft/hinge stile")  # the plan stands until it is made anew
    strip.buttons["pin"].click()
    assert window.session.job.cutting.pins[0].board == "R1"
    window.timber.clicked("stock:R1#0")
    assert strip.buttons["forbid"].isVisible()
    strip.buttons["cut"].click()
    job = window.session.job
    assert "R1" not in {each.label for each in job.boards}
    assert {each.board for each in job.cutting.done} == {"R1"}
    qtbot.waitUntil(lambda: window.timber.planner.is_running, timeout=5_000)  # planned anew round what is cut
    strip.go.click()
    assert not window.timber.planner.is_running


def test_planning_is_stopped_with_what_it_has_and_a_worker_that_dies_is_told(window, qtbot):
    window.session.push("long", lambda job: job.model_copy(update={"cutting": CuttingChoices(seconds=60)}))
    at_page(window, TimberPage.PLAN)
    planner = window.timber.planner
    qtbot.waitUntil(lambda: planner.plan() is not None, timeout=20_000)
    assert window.middle.strip.go.text() == "Stop"
    planner._process.kill()
    qtbot.waitUntil(lambda: not planner.is_running, timeout=5_000)
    assert "came to an end by itself" in window.middle.strip.all.text()
    assert planner.plan() is not None


def test_readings_are_written_by_day_and_what_cannot_be_is_refused(window):
    at_page(window, TimberPage.DRYING)
    assert "ready" in " ".join(window.board.drawing.texts())
    before = board(window).readings
    write(window, "drying.percent", "14.4")
    assert len(board(window).readings) == len(before) + 1
    assert board(window).readings[-1].percent == 14.4
    write(window, "drying.percent", "95")
    assert len(board(window).readings) == len(before) + 1


def test_veneers_cost_and_setups_are_shown_for_their_leaves(window):
    at_page(window, TimberPage.VENEERS, "reading-room")
    assert {"front", "back"} <= set(window.board.drawing.texts())
    write(window, "build.stock_boards", "2")
    assert any(each.cells[0] == "way out" for each in window.list.records.records)
    at_page(window, TimberPage.COST, "seed-room")
    texts = " ".join(window.board.drawing.texts())
    assert "Made here" in texts
    assert "Nearest bought leaf" in texts
    window.timber.planner.stop()


def test_rack_goes_out_as_csv_and_comes_back_and_a_wrong_one_is_refused(window, tmp_path):
    path = tmp_path / "rack.csv"
    window.commands.ask_save_path = lambda *_: str(path)
    window.commands.export_rack()
    before = window.session.job
    window.session.push("empty", lambda job: job.model_copy(update={"boards": (), "sheets": ()}))
    window.commands.ask_rack_path = lambda: str(path)
    window.commands.import_rack()
    job = window.session.job
    assert (job.boards, job.sections, job.sheets) == (before.boards, before.sections, before.sheets)
    path.write_text(path.read_text(encoding="utf-8-sig").replace("3015", "-3015"), encoding="utf-8")
    window.commands.import_rack()
    assert "line 2: length_mm: -3015" in window.said[-1][1]
    assert window.session.job.boards == before.boards


def test_boards_are_turned_over_page_by_page_and_a_sheet_is_added_with_its_trim(window, qtbot):
    cutting = CuttingChoices(seconds=1)
    window.session.push("quickly", lambda job: job.model_copy(update={"cutting": cutting}))
    at_page(window, TimberPage.PLAN)
    qtbot.waitUntil(lambda: window.timber.plan() is not None and not window.timber.planner.missing, timeout=30_000)
    strip = window.middle.strip
    window.timber._choose_lot(0)
    first = window.board.drawing.refs()
    assert strip.pages.text().startswith("1 to ")
    strip.on.click()
    assert not strip.pages.text().startswith("1 to ")
    assert window.board.drawing.refs() != first
    strip.back.click()
    assert window.board.drawing.refs() == first
    window.timber.planner.stop()
    count = len(window.session.job.sheets)
    for name, text in (("length", "2500"), ("width", "1250"), ("thickness", "18"), ("quantity", "3"), ("price", "61")):
        write(window, f"sheets.new.{name}", text)
    assert len(window.session.job.sheets) == count + 1
    QCoreApplication.processEvents()
    write(window, f"grain.{count}.trim", "10")
    assert window.session.job.sheets[-1].trim == 10
    write(window, f"grain.{count}.trim", "900")
    assert window.session.job.sheets[-1].trim == 10


def test_what_to_buy_goes_to_a_file_and_nothing_is_written_without_a_plan(window, qtbot, tmp_path):
    window.commands.export_buy()
    assert "no plan yet" in window.said[-1][1]
    plan = planned(window, qtbot)
    path = tmp_path / "buy.csv"
    window.commands.ask_save_path = lambda *_: str(path)
    window.commands.export_buy()
    lines = path.read_text(encoding="utf-8-sig").splitlines()
    assert lines[0].startswith("kind,wood,length_mm")
    assert len(lines) - 1 == len({(each.made_of, each.source.name) for each in to_buy(plan)})


def test_board_that_is_left_out_holds_nothing_in_the_next_plan(window, qtbot):
    planned(window, qtbot)
    at = next(n for n, lot in enumerate(window.timber.plan().lots) if any(one.source.name == "R1" for one in lot.stock))
    window.timber._choose_lot(at)
    window.timber.clicked("stock:R1#0")
    window.middle.strip.buttons["forbid"].click()
    assert next(each for each in window.session.job.boards if each.label == "R1").forbidden
    window.timber.replan()
    qtbot.waitUntil(lambda: not window.timber.planner.is_running, timeout=20_000)
    names = {one.source.name for lot in window.timber.plan().lots for one in lot.stock}
    assert "R1" not in names
    assert "no clear place" in window.middle.title.text()  # its pinned part had to go elsewhere
