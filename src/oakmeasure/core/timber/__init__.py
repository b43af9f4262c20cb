"""Species, weight, moisture, movement."""
