"""All quick sums, and how they are found. A new one: write it in one of the modules below, into its SUMS."""

from __future__ import annotations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.sums import build_sums, hardware_sums, leaf_sums, wood_sums
from oakmeasure.core.sums.quick import Sum

SUMS: dict[str, Sum] = {
    each.name: each for group in (leaf_sums, build_sums, hardware_sums, wood_sums) for each in group.SUMS
}


def sum_named(name: str) -> Sum:
    """Return a sum by its name; InputError where there is none of that name.

    Args:
        name: Its name.
    """
    if name not in SUMS:
        raise InputError("sum", name, "one of " + ", ".join(SUMS))
    return SUMS[name]


def find(words: str) -> list[Sum]:
    """Return the sums that answer to every word, those with it in their title first; all of them for none.

    Args:
        words: The words.
    """
    asked = words.lower().split()

    def text(each: Sum) -> str:
        options = " ".join(option.label for option in each.options)
        return f"{each.name} {each.title} {each.says} {each.words} {options}".lower()

    found = [each for each in SUMS.values() if all(word in text(each) for word in asked)]
    return sorted(found, key=lambda each: -sum(word in f"{each.name} {each.title}".lower() for word in asked))
