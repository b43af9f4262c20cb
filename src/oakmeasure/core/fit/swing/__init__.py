"""A leaf that swings: its latch edge, its way, what stands in it."""
