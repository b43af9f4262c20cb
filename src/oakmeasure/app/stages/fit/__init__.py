"""Fit: its sheet and panels."""
