"""In whose words a text stands where core itself must know its length: broken into lines, or cut off."""

from __future__ import annotations

from typing import Protocol


class Speech(Protocol):
    """A language, as a drawing asks for it."""

    def tr(self, text: str) -> str:
        """Return a text of the program in this language.

        Args:
            text: The text, as core makes it in English.

        Returns:
            The same in this language.
        """
        ...

    def mark_final(self, said: str) -> str:
        """Return what was said already, broken or cut off since; it is not said again where it is shown.

        Args:
            said: The text as it is said in this language.

        Returns:
            The same text.
        """
        ...


class _AsMade:
    """The words that core makes."""

    def tr(self, text: str) -> str:
        return text

    def mark_final(self, said: str) -> str:
        return said


AS_MADE: Speech = _AsMade()
