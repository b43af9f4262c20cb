"""Names after a preposition in German: in them article and adjective change their endings.

The phrases hold every name as it stands by itself, in the nominative: `unterer Querfries`. In a place of a phrase that
follows a preposition it becomes `in unterem Querfries`. Source: the strong and the weak endings of any German grammar.
"""

from __future__ import annotations

import re

DATIVE = frozenset(["aus", "bei", "mit", "nach", "von", "zu", "ab"])
ACCUSATIVE = frozenset(["für", "durch", "gegen", "ohne", "um"])
EITHER = frozenset(["in", "an", "auf", "unter", "über", "vor", "hinter", "neben", "zwischen"])  # where, or where to
MOVES = re.compile(r"\b(into|onto)\b")  # in the English phrase: where to
# Stems of the adjectives that name a part by its place or its kind.
STEMS = (
    "oberst|unterst|ober|unter|mittler|hinter|vorder|link|recht|erst|zweit|dritt|letzt|bandseitig|schlossseitig|los|alt|"
    "neu|halb|ganz|breit|schmal|mittig|dünnst|dickst|größt|kleinst|stehend|liegend|äußer|inner|massiv|verborgen"
)
NAMED = re.compile(rf"^(?:(der|die|das|ein|eine) )?({STEMS})(er|es|e) (?=[A-ZÄÖÜ])(\S+)")
ARTICLED = re.compile(r"^(der|das|die|eine) (?=[A-ZÄÖÜ])(\S+)")
LAST_WORD = re.compile(r"(\w+)\s+[(„“]?$")
FEMININE = ("e", "ung", "heit", "keit", "wand", "nut", "schicht")  # endings of nouns
STRONG = {"dative": {"er": "em", "es": "em", "e": "er"}, "accusative": {"er": "en", "es": "es", "e": "e"}}
ARTICLES = {
    "dative": {"der": "dem", "das": "dem", "die": "der", "ein": "einem", "eine": "einer"},
    "accusative": {"der": "den", "das": "das", "die": "die", "ein": "ein", "eine": "eine"},
}


def after(before: str, name: str, phrase: str = "") -> str:
    """Return a name as it stands after the words before it. phrase: the English one that they belong to.

    >>> after("tief in ", "unterer Querfries")
    'unterem Querfries'
    >>> after("", "unterer Querfries")
    'unterer Querfries'
    """
    case = _case(before, phrase)
    if case is None:
        return name
    found = NAMED.match(name)
    if found is None:
        plain = ARTICLED.match(name)
        if plain is None or (plain[1] == "die" and not _is_feminine(plain[2])):
            return name
        return f"{ARTICLES[case][plain[1]]}{name[len(plain[1]) :]}"
    article, stem, ending, noun = found.groups()
    if ending == "e" and article in (None, "die") and not _is_feminine(noun):
        return name  # more than one: the noun would change too
    if article is None:
        return f"{stem}{STRONG[case][ending]}{name[len(stem) + len(ending) :]}"
    weak = "en" if case == "dative" or article == "der" else ending
    rest = name[len(article) + 1 + len(stem) + len(ending) :]
    return f"{ARTICLES[case][article]} {stem}{weak}{rest}"


def _case(before: str, phrase: str) -> str | None:
    word = LAST_WORD.search(before)
    if word is None:
        return None
    preposition = word[1].lower()
    if preposition in DATIVE:
        return "dative"
    if preposition in ACCUSATIVE:
        return "accusative"
    if preposition in EITHER:
        return "accusative" if MOVES.search(phrase) else "dative"
    return None


def _is_feminine(noun: str) -> bool:
    """Return whether a noun that an adjective on -e stands before is one, and not several."""
    return noun.rstrip(".,;:)").endswith(FEMININE)
