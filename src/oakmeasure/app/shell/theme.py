"""Colours, type and the style sheet: paper and pencil, one accent for what the person can change."""

from __future__ import annotations

import re
from dataclasses import asdict, dataclass
from functools import cache, lru_cache
from string import Template

from PySide6.QtGui import QColor, QFont, QFontDatabase
from PySide6.QtWidgets import QApplication

from oakmeasure.core.figures.check import Level
from oakmeasure.data import path_of, text
from oakmeasure.language import tr

FAMILY = "Source Sans 3"
# Px of the window: the job line, the rod under it, the sheet at the left
LINE_HIGH = 54
ROD_HIGH = 72
SHEET_WIDE = 320


@dataclass(frozen=True, slots=True)
class Palette:
    """Named by what a colour is for. `wood_share` is how much of a species' tint is kept."""

    name: str
    ground: str
    sheet: str
    field: str
    ink: str
    pencil: str
    hairline: str
    accent: str
    accent_soft: str
    look: str
    stop: str
    fine: str
    check: str
    wood_share: float

    def level(self, level: Level) -> QColor:
        return QColor({Level.STOP: self.stop, Level.WARNING: self.look, Level.OK: self.fine}[level])


LIGHT = Palette(
    "light",
    "#F4EFE6",
    "#FFFDF9",
    "#F4EFE6",
    "#2A2723",
    "#6B645A",
    "#D8D0C2",
    "#1C5C66",
    "#E3ECEA",
    "#8F5A0E",
    "#9E3526",
    "#4A6236",
    "#F4EFE6",
    1.0,
)
DARK = Palette(
    "dark",
    "#1F1D1A",
    "#292623",
    "#35312D",
    "#EFE9DE",
    "#B5AC9F",
    "#4A453E",
    "#86CBD5",
    "#2B3A3B",
    "#E3AC55",
    "#EE9684",
    "#A9C68D",
    "#332F2B",
    0.5,
)

_current = LIGHT


def palette() -> Palette:
    """Return the colours in force."""
    return _current


def rod_wood() -> QColor:
    """Return the colour of the rod across the window."""
    return mixed("#EED9B2", 0.95 if _current.wood_share == 1.0 else 0.38, _current.ground)


def load_fonts() -> None:
    """Register the shipped type, so that the application looks the same everywhere."""
    if FAMILY in QFontDatabase.families():
        return
    for weight in ("Regular", "Semibold"):
        QFontDatabase.addApplicationFont(path_of(f"fonts/SourceSans3-{weight}.ttf"))


@cache
def font(px: float, *, bold: bool = False) -> QFont:
    """Return the type at a size in px, with digits of one width. Shared: not to be changed by who gets it."""
    made = QFont(FAMILY)
    made.setPixelSize(round(px))
    made.setWeight(QFont.Weight.DemiBold if bold else QFont.Weight.Normal)
    made.setHintingPreference(QFont.HintingPreference.PreferNoHinting)
    made.setFeature(QFont.Tag("tnum"), 1)
    return made


_ABOVE = str.maketrans("0123456789", "⁰¹²³⁴⁵⁶⁷⁸⁹")
_BELOW = str.maketrans("0123456789", "₀₁₂₃₄₅₆₇₈₉")


def typeset(text: str) -> str:
    """Return a text as it is shown, in the language that is chosen, with true inch fractions: 27 7/8" as 27 ⁷⁄₈"."""
    text = tr(text)
    return _with_fractions(text) if '"' in text else text


@lru_cache(maxsize=4096)  # a drawing asks for each of its labels some twenty times until they have their places
def _with_fractions(text: str) -> str:
    return re.sub(
        r"(?<![\d/])(\d{1,2})/(\d{1,2})(?=\")",
        lambda found: f"{found[1].translate(_ABOVE)}\N{FRACTION SLASH}{found[2].translate(_BELOW)}",
        text,
    )


def apply(app: QApplication, wanted: Palette) -> None:
    """Put a palette in force for the whole application."""
    undress(app)
    dress(app, wanted)


def undress(app: QApplication) -> None:
    """Take the style sheet off.

    One sheet over another takes Qt six times as long as none, and then the other: it goes through every widget's
    children again for each of them.
    """
    app.setStyleSheet("")


def dress(app: QApplication, wanted: Palette) -> None:
    """Put a palette in force for an application that has no style sheet on."""
    global _current
    _current = wanted
    app.setFont(font(14))
    app.setStyleSheet(style_sheet(wanted))


def style_sheet(p: Palette) -> str:
    """Return the style sheet of a palette."""
    return Template(text("style.qss")).substitute(asdict(p))


def contrast(one: str, other: str) -> float:
    """Return the WCAG contrast ratio of two colours."""

    def light(colour: str) -> float:
        channels = [int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5)]
        linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]
        return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]

    high, low = sorted((light(one), light(other)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def mixed(tint: str, share: float, ground: str) -> QColor:
    """Return `share` of a tint over a ground."""
    one, other = QColor(tint), QColor(ground)
    return QColor.fromRgbF(
        one.redF() * share + other.redF() * (1 - share),
        one.greenF() * share + other.greenF() * (1 - share),
        one.blueF() * share + other.blueF() * (1 - share),
    )
