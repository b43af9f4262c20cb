"""Hinges: number, places, letting in, loads."""
