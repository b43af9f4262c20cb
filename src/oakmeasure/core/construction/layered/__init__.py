"""Leaves layered from sheet."""
