"""Core drawings on the screen."""
