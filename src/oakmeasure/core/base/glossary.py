"""Words of the trade and what they mean, for whoever meets one for the first time. Source: data/words.toml."""

from __future__ import annotations

import re
from functools import cache, lru_cache

from oakmeasure.data import table


@cache
def words() -> dict[str, str]:
    """Return what each word of the trade means, by its first form."""
    return {forms.partition("|")[0]: str(meaning) for forms, meaning in table("words").items()}


@cache
def _by_form() -> dict[str, str]:
    """Return the first form of a word by each of its forms."""
    return {form: forms.partition("|")[0] for forms in table("words") for form in forms.split("|")}


@cache
def _pattern() -> re.Pattern[str]:
    longest_first = sorted(_by_form(), key=len, reverse=True)
    return re.compile(rf"(?<![\w-])({'|'.join(map(re.escape, longest_first))})(?![\w-])", re.IGNORECASE)


def trade_words(text: str) -> tuple[str, ...]:
    """Return the words of the trade in a text, each once, in its first form.

    Args:
        text: The text.

    >>> trade_words("rail, between shoulders")
    ('rail', 'shoulder')
    """
    return tuple(dict.fromkeys(_by_form()[found.lower()] for found in _pattern().findall(text)))


@lru_cache(maxsize=4096)
def explained(text: str) -> str:
    """Return what the words of the trade in a text mean, a line each; "" where there is none.

    Args:
        text: The text.

    >>> explained("haunched")
    'haunch: the short rest of a tenon beside it: it fills the groove and keeps the rail from twisting'
    """
    return "\n".join(f"{word}: {words()[word]}" for word in trade_words(text))
