"""Boarded leaves."""
