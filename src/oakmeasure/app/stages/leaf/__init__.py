"""Leaf: its sheet and panels."""
