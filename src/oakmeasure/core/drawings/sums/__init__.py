"""Drawings of the quick sums."""
