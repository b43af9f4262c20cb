"""Figures that show their working, and checks that name their rule."""
