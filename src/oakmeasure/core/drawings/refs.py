"""What shapes of a drawing are pointed at by."""

from __future__ import annotations


def part_ref(name: str) -> str:
    """Return what a part is pointed at by.

    Args:
        name: Its name.
    """
    return f"part:{name}"
