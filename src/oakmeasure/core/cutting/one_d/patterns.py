"""All ways of cutting a bar, where they are few: then the best whole set of them is the least possible, proven."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

Column = tuple[int, tuple[int, ...]]


def every_way(sizes: Sequence[int], lengths: Sequence[int], demand: Sequence[int], *, most: int) -> list[Column] | None:
    """Return every way of cutting each kind of bar that leaves no room for one more wanted part.

    None if they are more than `most`.

    Each way: kind of bar, and how many of each part.

    Args:
        sizes: Lengths of the parts with their kerf in them.
        lengths: Lengths of the bars with one kerf in them.
        demand: How many of each part are wanted.
        most: How many ways are too many.

    >>> every_way([100], [60, 40], [2, 5], most=10)
    [(0, (1, 1)), (0, (0, 2))]
    """
    found: list[Column] = []
    for kind, size in enumerate(sizes):
        for counts in _ways(size, lengths, demand):
            found.append((kind, counts))
            if len(found) > most:
                return None
    return found


def _ways(size: int, lengths: Sequence[int], demand: Sequence[int]) -> Iterator[tuple[int, ...]]:
    counts = [0] * len(lengths)

    def deeper(at: int, room: int) -> Iterator[tuple[int, ...]]:
        if at == len(lengths):
            full = all(counts[n] >= demand[n] or lengths[n] > room for n in range(len(lengths)))
            if full and any(counts):
                yield tuple(counts)
            return
        for many in range(min(demand[at], room // lengths[at]), -1, -1):
            counts[at] = many
            yield from deeper(at + 1, room - many * lengths[at])
        counts[at] = 0

    yield from deeper(0, size)
