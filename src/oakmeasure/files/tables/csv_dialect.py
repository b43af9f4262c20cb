"""How a list was written: its letters and what stands between its cells, as spreadsheets of all lands save it."""

from __future__ import annotations

import codecs

SEP = "sep="  # a first line by which a spreadsheet tells another what stands between the cells
SEPARATORS = ("\t", ";", ",")
SAVE_AS = "save it as CSV in UTF-8"


def encoding_of(start: bytes) -> str:
    """Return the encoding of a text by how it begins: UTF-16 with its mark, else UTF-8, with a mark or without.

    Args:
        start: Its first bytes.
    """
    return "utf-16" if start.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)) else "utf-8-sig"


def told_separator(line: str) -> str:
    """Return the separator that a first line tells of, "sep=;"; "" where it is a line like any other.

    Args:
        line: The first line of a list.
    """
    told = line.strip("\r\n")
    return told[len(SEP)] if told.lower().startswith(SEP) and len(told) == len(SEP) + 1 else ""


def separator_of(line: str) -> str:
    """Return what stands between the cells of a line: a tab, a semicolon where there is one, else a comma.

    Semicolons are what spreadsheets write where a comma is the decimal sign.

    Args:
        line: The first line with cells.
    """
    return next((each for each in SEPARATORS if each in line), ",")
