"""Solid slabs."""
