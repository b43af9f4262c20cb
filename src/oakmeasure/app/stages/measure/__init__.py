"""Measure: its sheet and lists."""
