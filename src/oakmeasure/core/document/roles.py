"""What a part is in a leaf."""

from __future__ import annotations

from enum import StrEnum


class Role(StrEnum):
    """What a part is in the leaf."""

    STILE = "stile"
    RAIL = "rail"
    MUNTIN = "muntin"
    PANEL = "panel"
    BOARD = "board"
    LEDGE = "ledge"
    BRACE = "brace"
    STRIP = "strip"
    STIFFENER = "stiffener"
    CORE = "core"
    LIPPING = "lipping"
    TRIM = "trim"
    VENEER = "veneer"
    LINING = "lining"  # of the opening, not of the leaf
    PACKING = "packing"  # out of off-cuts


class Place(StrEnum):
    """Where in the leaf a part of its role stands."""

    HINGE = "at the hinge edge"
    LATCH = "at the latch edge"
    TOP = "at the top"
    LOCK = "at the lock, or in the middle"
    BOTTOM = "at the foot"
    UPPER = "the upper one"
    LOWER = "the lower one"
