"""Texts that are broken into lines, or cut off where there is little room: they are said in the language that is spoken
first, and what comes of it stays as it is.
"""

from __future__ import annotations

import textwrap

from oakmeasure.language import keep, say


def broken(text: str, characters: int, head: str = "") -> list[str]:
    """Return a text as lines of so many characters at the most. head: a number or a mark, before the first of them.

    >>> broken("plane the head to the line", 14, "1  ")
    ['1  plane the', 'head to the', 'line']
    """
    return [keep(line) for line in textwrap.wrap(f"{head}{say(text)}", characters)]


def cut_off(text: str, *characters: int, head: str = "") -> tuple[str, ...]:
    """Return a text cut to so many characters, for each number that is less than it has.

    >>> cut_off("hinge stile", 40, 5)
    ('hinge…',)
    """
    words = say(text)
    return tuple(keep(f"{head}{words[:many].rstrip()}…") for many in characters if many < len(words))
