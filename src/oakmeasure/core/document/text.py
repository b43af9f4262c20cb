"""Texts that people write into a job: without characters that no paper, drawing or list can hold."""

from __future__ import annotations

import re
from typing import Annotated, Any

from pydantic import BeforeValidator

# Control characters, halves of a character, and marks that turn the direction of what stands beside them.
_NEVER = re.compile("[\x00-\x08\x0b-\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff\u2028-\u202e\u2066-\u2069\ufeff\ufffe\uffff]")
_BREAKS = re.compile(r"[\t\r\n]+")


def one_line(text: str) -> str:
    """Return a text without what no list, drawing or paper can hold, on one line.

    Args:
        text: As it was typed or read.

    >>> one_line("seed\\x1b room\\n2")
    'seed room 2'
    """
    return _BREAKS.sub(" ", _NEVER.sub("", text))


def _of_lines(value: Any) -> Any:
    return _NEVER.sub("", value) if isinstance(value, str) else value


def _of_a_line(value: Any) -> Any:
    return one_line(value) if isinstance(value, str) else value


# They stand behind a field's lengths: before them, a refusal would speak of items instead of characters.
ONE_LINE = BeforeValidator(_of_a_line)
SOME_LINES = BeforeValidator(_of_lines)
Line = Annotated[str, ONE_LINE]
"""A name or a remark, of any length."""
