"""Boxes, lists and choices, and the sheets built of them."""
