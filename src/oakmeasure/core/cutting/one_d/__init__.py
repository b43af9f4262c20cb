"""Bars: one dimension."""
