"""What is chosen for the program itself: kept, read again, harmless where it is damaged; larger figures at a start."""

from __future__ import annotations

import os
import subprocess
import sys

import pytest

from oakmeasure.files import settings
from oakmeasure.files.settings import Settings, keep_settings, read_settings
from oakmeasure.language import Language

START = """
from oakmeasure.app.shell.application import application
from oakmeasure.app.shell.splash import Splash
from oakmeasure.app.shell import theme
from oakmeasure.language import current_language
app = application()
opening = Splash("store")
opening.show()
app.processEvents()
print(app.devicePixelRatio(), theme.palette().name, opening.was_painted, current_language())
"""


@pytest.fixture(autouse=True)
def own(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    return tmp_path


def test_what_is_chosen_is_there_at_the_next_start(own):
    assert read_settings() == Settings()
    keep_settings(Settings(dark=True, scale=1.5, language=Language.GERMAN))
    assert read_settings() == Settings(True, 1.5, Language.GERMAN)
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen", "XDG_CONFIG_HOME": str(own)}
    done = subprocess.run([sys.executable, "-c", START], env=environment, capture_output=True, text=True, check=True)
    assert done.stdout.split() == ["1.5", "dark", "True", "de"]
    environment["QT_SCALE_FACTOR"] = "2"  # what the desktop says goes before
    done = subprocess.run([sys.executable, "-c", START], env=environment, capture_output=True, text=True, check=True)
    assert done.stdout.split()[0] == "2.0"


DAMAGED = (
    "",
    "[",
    "[]",
    "null",
    '{"scale": 40, "dark": "yes"}',
    '{"scale": NaN, "language": ["xx"]}',
    "\x00",
    "[" * 9000,
)


@pytest.mark.parametrize("text", DAMAGED)
def test_settings_that_are_damaged_are_those_of_the_first_start(own, text):
    settings.place().parent.mkdir(parents=True)
    settings.place().write_text(text, encoding="utf-8")
    assert read_settings() == Settings()


def test_dark_and_larger_are_kept_from_the_menu_and_a_place_without_leave_is_told(window, own, qtbot):
    commands = window.commands
    commands.turn_light()
    qtbot.waitUntil(lambda: read_settings().dark)
    commands.turn_light()
    qtbot.waitUntil(lambda: not read_settings().dark)
    commands.ask_one_of = lambda _title, _question, choices: choices[2]
    commands.larger()
    assert read_settings() == Settings(False, 1.5)
    assert window.said[-1] == ("Larger figures", "150 % from the next start on.")
    settings.place().unlink()
    settings.place().parent.rmdir()
    settings.place().parent.write_text("a file where a folder was meant")
    commands.larger()
    assert window.said[-1][0] == "Not kept"
