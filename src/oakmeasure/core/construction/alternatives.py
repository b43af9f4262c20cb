"""Columns of comparisons that several constructions have."""

from __future__ import annotations

GLUE_COLUMNS = ("glue", "moves", "opens", "what it means")
