"""Texts that are broken into lines, or cut off where there is little room, in the words of whoever looks at them."""

from __future__ import annotations

import textwrap

from oakmeasure.core.base.units import Show


def broken(show: Show, text: str, characters: int, head: str = "") -> list[str]:
    """Return a text as lines.

    Args:
        show: In whose words.
        text: As core makes it.
        characters: How many stand in a line at the most.
        head: A number or a mark that stands before the first line; "" for none.

    Returns:
        The lines, as they are shown.

    >>> broken(Show(), "plane the head to the line", 14, "1  ")
    ['1  plane the', 'head to the', 'line']
    """
    return [show.speech.mark_final(line) for line in textwrap.wrap(f"{head}{show.speech.tr(text)}", characters)]


def cut_off(show: Show, text: str, *characters: int, head: str = "") -> tuple[str, ...]:
    """Return a text cut short, for each length that is less than it has.

    Args:
        show: In whose words.
        text: As core makes it.
        characters: How many are left of it, one number for each text that is wanted.
        head: What stands before it; "" for nothing.

    Returns:
        The texts, as they are shown, in the order of the lengths.

    >>> cut_off(Show(), "hinge stile", 40, 5)
    ('hinge…',)
    """
    words = show.speech.tr(text)
    return tuple(show.speech.mark_final(f"{head}{words[:many].rstrip()}…") for many in characters if many < len(words))
