"""The door that every text goes through to the screen.

The computation speaks English: its sentences are made there, once, and files and logs keep them. Where a text is shown
it goes through `say`. With the phrases of another language in force it is found among them by its pattern, and the
numbers and names of this one are put into it; with none it stays as it is.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.language.phrases import Phrases

_phrases: Phrases | None = None


def say(text: str) -> str:
    """Return a text of the program in the language that is spoken; what is not of the program stays as it is."""
    return text if _phrases is None else _phrases.say(text)


def speak(phrases: Phrases | None) -> None:
    """Say everything from now on in these phrases; None for English as it is made."""
    global _phrases
    _phrases = phrases
