"""Rails of a veneered frame are dragged as those of any frame."""

from __future__ import annotations

from oakmeasure.core.construction.framed.drag import is_between, rails, set_rail

__all__ = ["is_between", "rails", "set_rail"]
