"""What stands on the screen and on paper, in the language that is chosen.

The computation speaks English: its sentences are made there, once, and files and logs keep them. Where a text is shown
it goes through `say`, which finds the sentence in the phrases of the language by its pattern and puts the numbers and
names of this one into it. A language is one file of phrases, `phrases-XX.po`; tools/make_phrases.py brings it up to
date with the sources.
"""

from __future__ import annotations

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


def say(text: str) -> str:
    """Return a text of the program in the language that is chosen; what is not of the program stays as it is."""
    return text if _phrases is None else _phrases.say(text)


def choose(language: Language) -> None:
    """Say everything from now on in that language."""
    global _language, _phrases
    if language is Language.ENGLISH:
        _phrases = None
    elif language is not _language:
        from oakmeasure.language.phrases import phrases_of

        _phrases = phrases_of(language)
    _language = language


def spoken() -> Language:
    """Return the language that is chosen."""
    return _language
