"""What is cut first of stock."""

from __future__ import annotations

from enum import StrEnum


class FirstCut(StrEnum):
    """What is cut first: strips along the stock, lengths across it, or whichever is better for each piece."""

    RIP = "rip"
    CROSS = "crosscut"
    EITHER = "either"
