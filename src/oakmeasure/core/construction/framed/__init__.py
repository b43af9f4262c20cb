"""Framed and panelled leaves."""
