"""Light and dark, turned while somebody works: nothing on the screen keeps the other's colours, nothing is lost."""

from __future__ import annotations

from PySide6.QtWidgets import QLabel, QLineEdit

from driving import box, page, refusals, write
from oakmeasure.app.shell import theme
from oakmeasure.core.figures.check import Stage


def test_dark_theme_is_turned_on_and_off(window, qtbot):
    window.commands.turn_light()
    qtbot.waitUntil(lambda: theme.palette() is theme.DARK and window.updatesEnabled())
    dark = window.grab().toImage().pixelColor(340, 300).lightness()
    texts = "".join(each.text() for each in window.checks.findChildren(QLabel))
    assert theme.LIGHT.pencil not in texts
    assert theme.DARK.pencil in texts
    window.commands.turn_light()
    qtbot.waitUntil(lambda: theme.palette() is theme.LIGHT and window.updatesEnabled())
    assert dark < 80 < window.grab().toImage().pixelColor(340, 300).lightness()


def test_what_somebody_is_writing_outlives_a_turn_from_light_to_dark(window, qtbot):
    """What no page on the screen shows is taken away for it: but nothing that the job does not hold yet."""
    window.session.go_to(Stage.FIT)
    write(window, "fit.gap_latch", "99")
    window.session.go_to(Stage.MAKE)
    page(window, "Log")
    note = window.sheet().findChild(QLineEdit, "noteText")
    note.setText("the heart side up")
    window.session.go_to(Stage.TIMBER)
    page(window, "Plan")
    window.commands.turn_light()
    qtbot.waitUntil(lambda: theme.palette() is theme.DARK and window.updatesEnabled())
    window.session.go_to(Stage.FIT)
    assert box(window, "fit.gap_latch").text() == "99"
    assert refusals(window)
    window.session.go_to(Stage.MAKE)
    assert window.sheet().findChild(QLineEdit, "noteText").text() == "the heart side up"
    window.session.go_to(Stage.LEAF)
    write(window, "build.stile", "101")
    assert window.session.leaf.build.stile == 101.0
