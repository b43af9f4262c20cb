"""How veneers of one board lie beside one another."""

from __future__ import annotations

from enum import StrEnum


class Match(StrEnum):
    """How veneers of one board lie beside one another."""

    SLIP = "slip-matched, all as sawn"
    BOOK = "book-matched, every other turned over"
