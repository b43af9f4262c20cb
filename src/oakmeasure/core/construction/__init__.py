"""Constructions, one folder a kind."""
