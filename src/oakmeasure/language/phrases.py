"""The phrases of a language, and the finding of a sentence among them.

A phrase is a sentence with places for what changes, `{0} of {1} boards`. A text that is no phrase as it stands is held
against those that share a rare word with it, the most telling first; what stands in the places is said in turn. A text
of several sentences, or of words with commas, is said piece by piece. What is found nowhere, a name that somebody
typed, stays.
"""

from __future__ import annotations

import re
from collections import defaultdict
from functools import lru_cache

MOST_DEPTH = 8  # of what stands in a place of what stands in a place
BREAKS = ("\n", "   ", ". ", "; ", " · ", ": ", ", ", " – ", " / ", " (", ") ")
WORD = re.compile(r"[^\W\d_]+")
PLACE = re.compile(r"\{(\d+)\}")
POINT = re.compile(r"(?<![\d.])(\d+)\.(\d+)(?![.\d])")
EDGES = re.compile(r"^([\s(“„]*)(.*?)([\s.:…?!)”]*)$", re.DOTALL)
NUMBER = re.compile(r"([\d×½¼¾][\d.,/×½¼¾⁄ ]*)")
TAG = re.compile(r"(<[^>]*>|&[a-z]+;)")


class Pattern:
    """A phrase with places: what a text must look like, and what it becomes."""

    def __init__(self, phrase: str, said: str) -> None:
        pieces = PLACE.split(phrase)  # words, number, words, number …
        self.order = [int(each) for each in pieces[1::2]]
        self.words = [each for each in pieces[::2] if each]
        made = "(.+?)".join(re.escape(each) for each in pieces[::2])
        self.matches = re.compile(made, re.DOTALL).fullmatch
        self.said = said
        self.weight = sum(map(len, self.words))


class Phrases:
    """The phrases of one language. decimal: what stands between whole and tenths."""

    def __init__(self, said: dict[str, str], *, decimal: str = ",") -> None:
        self.decimal = decimal
        self.strange: set[str] = set()  # what was found nowhere
        self.plain = {phrase: text for phrase, text in said.items() if not PLACE.search(phrase)}
        patterns = [Pattern(phrase, text) for phrase, text in said.items() if PLACE.search(phrase)]
        often: dict[str, int] = defaultdict(int)
        for each in patterns:
            for word in set(WORD.findall(" ".join(each.words))):
                often[word] += 1
        self.by_word: dict[str, list[Pattern]] = defaultdict(list)
        for each in sorted(patterns, key=lambda each: -each.weight):
            words = WORD.findall(" ".join(each.words))
            self.by_word[min(words, key=lambda word: (often[word], -len(word)), default="")].append(each)
        self.say = lru_cache(maxsize=30_000)(self._say)

    def _say(self, text: str) -> str:
        found = self.known(text, 0)
        return self.numbers(text if found is None else found)

    def numbers(self, text: str) -> str:
        """Return a text with the decimals of its numbers as they are written in the language."""
        return POINT.sub(rf"\1{self.decimal}\2", text)

    def known(self, text: str, depth: int) -> str | None:
        """Return what a text becomes; None where nothing of it is known."""
        if depth > MOST_DEPTH or not WORD.search(text):
            return None
        if TAG.search(text):
            return self._pieces(TAG.split(text), "", depth)
        found = self._whole(text) or self._trimmed(text) or self._by_pattern(text, depth) or self._broken(text, depth)
        if found is None:
            self.strange.add(text.strip())
        return found

    def _whole(self, text: str) -> str | None:
        found = self.plain.get(text)
        if found is None and text[:1].isupper():
            found = self.plain.get(text[0].lower() + text[1:])
            found = found and found[0].upper() + found[1:]
        if found is None and text[:1].islower():
            found = self.plain.get(text[0].upper() + text[1:])
        return found

    def _trimmed(self, text: str) -> str | None:
        found = EDGES.match(text)
        if found is None or not (found[1] or found[3]):
            return None
        inner = self._whole(found[2])
        return None if inner is None else f"{found[1]}{inner}{found[3]}"

    def _by_pattern(self, text: str, depth: int) -> str | None:
        for begun, change in ((text, False), (text[0].lower() + text[1:], True), (text[0].upper() + text[1:], True)):
            if change and begun == text:
                continue
            words = dict.fromkeys(WORD.findall(begun))
            patterns = [each for word in (*words, "") for each in self.by_word.get(word, ())]
            for pattern in sorted(patterns, key=lambda each: -each.weight):
                found = pattern.matches(begun)
                if found is not None:
                    said = self._filled(pattern, found, depth)
                    return said[:1].upper() + said[1:] if change and text[0].isupper() else said
        return None

    def _filled(self, pattern: Pattern, found: re.Match[str], depth: int) -> str:
        groups = {n: found[at + 1] for at, n in enumerate(pattern.order)}
        said = {n: self.known(each, depth + 1) or each for n, each in groups.items()}
        return PLACE.sub(lambda place: said.get(int(place[1]), ""), pattern.said)

    def _broken(self, text: str, depth: int) -> str | None:
        for between in BREAKS:
            if between in text.strip():
                found = self._pieces(text.split(between), between, depth)
                if found is not None:
                    return found
        return self._pieces(NUMBER.split(text), "", depth) if NUMBER.search(text) else None

    def _pieces(self, pieces: list[str], between: str, depth: int) -> str | None:
        said = [self.known(each, depth + 1) for each in pieces]
        if not any(each is not None for each in said):
            return None
        return between.join(old if new is None else new for old, new in zip(pieces, said, strict=True))

    def is_known(self, text: str) -> bool:
        """Return whether a text of the program needs nothing more: for tests and for tools."""
        return not WORD.search(text) or self.known(text, 0) is not None
