"""What stands on the screen, in the language that is chosen.

The computation speaks English: its sentences are made there, once, and files, logs and the terminal keep them. Where a
text is shown it goes through `tr`, which finds the sentence among the phrases of the language by its pattern and puts
the numbers and names of this one into it. A language is one file of phrases, data/phrases-XX.po;
tools/make_phrases.py brings it up to date with the sources.
"""

from __future__ import annotations

from collections.abc import Iterable
from enum import StrEnum
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.language.phrases import Phrases


class Language(StrEnum):
    """By the two letters of ISO 639-1."""

    ENGLISH = "en"
    GERMAN = "de"


NAMES = {Language.ENGLISH: "English", Language.GERMAN: "Deutsch"}  # each in its own words

_phrases: Phrases | None = None
_language = Language.ENGLISH


def tr(text: str) -> str:
    """Return a text of the program in the language that is spoken; what is not of the program stays as it is."""
    return text if _phrases is None else _phrases.tr(text)


def mark_final(said: str) -> str:
    """Return what was said already, broken or cut off since: it stays as it is when it is shown."""
    if _phrases is not None:
        _phrases.mark_final(said)
    return said


class Spoken:
    """The language that is chosen, for drawings that break texts into lines."""

    def tr(self, text: str) -> str:
        """Return a text in it; see `tr`."""
        return tr(text)

    def mark_final(self, said: str) -> str:
        """Return what was said already; see `mark_final`."""
        return mark_final(said)


SPOKEN = Spoken()


def protect_names(names: Iterable[str]) -> None:
    """Tell what somebody has typed, names of leaves and of people: they stay as they are."""
    if _phrases is not None:
        _phrases.names.update(each for each in names if each)


def set_catalogue(phrases: Phrases | None) -> None:
    """Say everything from now on in these phrases; None for English as it is made."""
    global _phrases
    _phrases = phrases


def set_language(language: Language) -> None:
    """Say everything from now on in that language."""
    global _language
    if language is not _language:
        if language is Language.ENGLISH:
            set_catalogue(None)
        else:
            from oakmeasure.language.phrases import phrases_of  # English needs none

            set_catalogue(phrases_of(language))
        _language = language


def current_language() -> Language:
    """Return the language that is chosen."""
    return _language
