"""The application itself: its name, type, colours and language."""

from __future__ import annotations

import os
import sys

from PySide6.QtCore import QLibraryInfo, QLocale, QTranslator
from PySide6.QtGui import QIcon
from PySide6.QtWidgets import QApplication

from oakmeasure.app.shell import theme
from oakmeasure.data import path_of
from oakmeasure.files.settings import read_settings
from oakmeasure.language import Language, set_language


def application() -> QApplication:
    """Return the application with its type and colours, made when there is none."""
    app = QApplication.instance()
    if not isinstance(app, QApplication):
        chosen = read_settings()
        if chosen.scale != 1.0:  # what the desktop itself is told stays in force
            os.environ.setdefault("QT_SCALE_FACTOR", f"{chosen.scale:g}")
        app = QApplication(sys.argv[:1])
        app.setApplicationName("oak-measure")
        app.setApplicationDisplayName("Oak Measure")
        app.setDesktopFileName("oak-measure")
        app.setWindowIcon(QIcon(path_of("desktop/oak-measure.svg")))
        app.setStyle("Fusion")
        theme.load_fonts()
        theme.apply(app, theme.DARK if chosen.dark else theme.LIGHT)
        set_language(chosen.language)
        speak_of_qt(app, chosen.language)
    return app


def speak_of_qt(app: QApplication, language: Language) -> None:
    """Have the buttons that Qt brings along, Cancel and Yes, speak a language too."""
    for each in app.findChildren(QTranslator):
        app.removeTranslator(each)
        each.deleteLater()
    QLocale.setDefault(QLocale.system() if language is Language.ENGLISH else QLocale(str(language)))  # names of days
    if language is not Language.ENGLISH:
        words = QTranslator(app)
        if words.load(f"qtbase_{language}", QLibraryInfo.path(QLibraryInfo.LibraryPath.TranslationsPath)):
            app.installTranslator(words)
