"""The phrases of a language, and the finding of a sentence among them.

A phrase is a sentence with places for what changes, `{0} of {1} boards`. A text that is no phrase as it stands is held
against those that share a rare word with it, the most telling first; what stands in the places is said in turn. A text
of several sentences, or of words with commas, is said piece by piece. What is found nowhere, a name that somebody
typed, stays.
"""

from __future__ import annotations

import html
import re
from collections import defaultdict
from collections.abc import Callable, Iterator
from functools import lru_cache

from oakmeasure.language import german

Said = tuple[str, int]  # what a text becomes, and how many of its letters nobody knows
TELLING = 12  # letters of its own from which a phrase is tried before a text is broken at its commas
MOST_STRANGE = 0.4  # of its letters, from which a text is not of the program: half said it would be worse than not
MOST_KEPT = 30_000  # texts that are remembered: each edit makes some with other numbers
MOST_DEPTH = 5  # of what stands in a place of what stands in a place
BREAKS = ("\n", "   ", "  ", ". ", "; ", " · ", ": ", ", ", " – ", " / ", " (", ") ", " + ", " − ")
WORD = re.compile(r"[^\W\d_]+")
PLACE = re.compile(r"\{(\d+)\}")
POINT = re.compile(r"(?<![\d.])(\d+)\.(\d+)(?!\d|\.\d)")
EDGES = re.compile(r"^([\s(“„]*)(.*?)([\s.:…?!)”]*)$", re.DOTALL)
NUMBER = re.compile(r"([\d×½¼¾][\d.,/×½¼¾⁄ \u202f]*)")
UNITS = frozenset(
    ["mm", "cm", "m", "kg", "g", "N", "kN", "h", "s", "min", "Nm", "MPa", "DXF", "CSV", "PDF", "SVG", "JSON", "x", "y"]
)  # the same in every language
TAG = re.compile(r"(<[^>]*>|&nbsp;)")


def is_word(word: str) -> bool:
    """Return whether letters are a word: units and the letters that name a side or a board are none."""
    return word.isalpha() and word not in UNITS and not (len(word) == 1 and word.isupper())


def bounded(words: str, at: int, *, last: int) -> str:
    """Return what matches the words between two places: neither cuts a word in two, but for its ending."""
    before = r"(?<![^\W\d_])" if at and words[:1].isalpha() else ""
    after = r"(?=[\W\d_]|$|e?s\b)" if at < last and words[-1:].isalpha() else ""
    return f"{before}{re.escape(words)}{after}"


class Pattern:
    """A phrase with places: what a text must look like, and what it becomes."""

    def __init__(self, phrase: str, said: str) -> None:
        pieces = PLACE.split(phrase)  # words, number, words, number …
        self.order = [int(each) for each in pieces[1::2]]
        self.words = [each for each in pieces[::2] if each]
        made = "(.+?)".join(bounded(words, at, last=len(pieces) // 2) for at, words in enumerate(pieces[::2]))
        self.matches = re.compile(made, re.DOTALL).fullmatch
        self.phrase, self.said = phrase, said
        self.weight = sum(map(len, self.words))
        self.longest = max(self.words, key=len, default="")  # looked for first: much quicker than the whole match


class Phrases:
    """The phrases of one language.

    decimal: what stands between whole and tenths. after: what becomes of a name in a place, by the words before it
    and the English phrase.
    """

    def __init__(
        self, said: dict[str, str], *, decimal: str = ",", after: Callable[[str, str, str], str] | None = None
    ) -> None:
        self.decimal, self.after = decimal, after
        self.names: set[str] = set()  # what somebody typed: it stays, and is not strange
        self._kept: dict[str, Said] = {}
        self._tried: dict[tuple[str, int], Said] = {}  # of the text in hand
        self._stays: set[str] = set()
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
        self.tr = lru_cache(maxsize=MOST_KEPT)(self._found)

    def _found(self, text: str) -> str:
        if text in self._stays:
            return text
        said, strange = self.best(text)
        told = self.numbers(text if strange > MOST_STRANGE * sum(map(str.isalpha, text)) else said)
        if told not in self.plain:
            self.mark_final(told)  # it may be said again, as a part of a larger text
        return told

    def mark_final(self, said: str) -> None:
        """Leave a text as it is from now on: it was said already."""
        if len(self._stays) > MOST_KEPT:
            self._stays.clear()
        self._stays.add(said)

    def numbers(self, text: str) -> str:
        """Return a text with the decimals of its numbers as they are written in the language."""
        return POINT.sub(rf"\1{self.decimal}\2", text)

    def is_known(self, text: str) -> bool:
        """Return whether a text needs nothing more: for tests and for tools."""
        return self.best(text)[1] == 0

    def best(self, text: str, depth: int = 0) -> Said:
        """Return what a text becomes and how many of its letters stay strange.

        Of the ways to take it apart it is the one that leaves the fewest.
        """
        if depth == 0:
            self._tried.clear()
            if len(self._kept) > MOST_KEPT:
                self._kept.clear()
        found = self._kept.get(text) or self._tried.get((text, depth))  # papers are written in a thread of their own
        if found is None:
            found = self._tried[text, depth] = self._taken_apart(text, depth)
            if depth == 0 or not found[1]:  # what leaves nothing is as good at any depth
                self._kept[text] = found
        return found

    def _taken_apart(self, text: str, depth: int) -> Said:
        if text in self.names or text in self._stays or not any(is_word(each) for each in WORD.findall(text)):
            return text, 0
        whole = self._whole(text) or self._trimmed(text)
        if whole is not None:
            return whole, 0
        best = text, sum(map(str.isalpha, text))
        if depth > MOST_DEPTH:
            return best
        if TAG.search(text):
            return self._marked_up(text, depth)
        bare = text.strip()
        if bare != text:
            said, strange = self.best(bare, max(depth, 1))
            return text.replace(bare, said, 1), strange
        for found in self._ways(text, depth):
            if found[1] < best[1]:
                best = found
            if not best[1]:
                break
        return best

    def _ways(self, text: str, depth: int) -> Iterator[Said]:
        """Yield the ways to take a text apart, those that hold it together best first."""
        if text.count("; ") > 1:
            yield self._pieces(text.split("; "), "; ", depth)
        yield from self._by_patterns(text, depth, telling=True)
        for between in BREAKS:
            if between in text.strip():
                yield self._pieces(text.split(between), between, depth)
                if between == ": ":  # a word, and what it means
                    yield self._pieces(text.split(between, 1), between, depth)
        yield from self._by_patterns(text, depth, telling=False)
        if NUMBER.search(text):
            yield self._pieces(NUMBER.split(text), "", depth)

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

    def _by_patterns(self, text: str, depth: int, *, telling: bool) -> Iterator[Said]:
        """Yield what a text becomes by each phrase that it matches, those first that say most of it themselves."""
        for begun, change in ((text, False), (text[0].lower() + text[1:], True), (text[0].upper() + text[1:], True)):
            if change and begun == text:
                continue
            words = dict.fromkeys(WORD.findall(begun))
            patterns = [each for word in (*words, "") for each in self.by_word.get(word, ())]
            for pattern in sorted(patterns, key=lambda each: -each.weight):
                if (pattern.weight >= TELLING) is not telling or pattern.longest not in begun:
                    continue
                found = pattern.matches(begun)
                if found is not None:
                    said, strange = self._filled(pattern, found, depth)
                    yield (said[:1].upper() + said[1:] if change and text[0].isupper() else said), strange

    def _filled(self, pattern: Pattern, found: re.Match[str], depth: int) -> Said:
        groups = {n: self.best(found[at + 1], depth + 1) for at, n in enumerate(pattern.order)}

        def put(place: re.Match[str]) -> str:
            words = groups[int(place[1])][0]
            return words if self.after is None else self.after(place.string[: place.start()], words, pattern.phrase)

        return PLACE.sub(put, pattern.said), sum(strange for _, strange in groups.values())

    def _marked_up(self, text: str, depth: int) -> Said:
        """Return a text with marks in it: what stands between them is said, its quotes and ampersands plain."""
        said, strange = [], 0
        for each in TAG.split(text):
            words, left = (each, 0) if TAG.fullmatch(each) else self.best(html.unescape(each), depth + 1)
            said.append(words if TAG.fullmatch(each) else html.escape(words))
            strange += left
        return "".join(said), strange

    def _pieces(self, pieces: list[str], between: str, depth: int) -> Said:
        said = [self.best(each, max(depth, 1)) for each in pieces]  # shorter than the whole: that ends by itself
        return between.join(each for each, _ in said), sum(strange for _, strange in said)


def phrases_of(language: str) -> Phrases:
    """Return the phrases of a language that ships with the program. language: its two letters of ISO 639-1."""
    from oakmeasure.data import text

    after = german.after if language == "de" else None
    return Phrases(read_phrases(text(f"phrases-{language}.po")), after=after)


def read_phrases(source: str) -> dict[str, str]:
    """Return what each phrase of a .po file becomes; those that nobody has written yet are left out."""
    import polib

    return {each.msgid: each.msgstr for each in polib.pofile(source) if each.msgstr and not each.obsolete}
