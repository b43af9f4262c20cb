"""Hardware: its sheets."""
