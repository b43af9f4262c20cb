"""Locks, latches, bolts and pulls."""
