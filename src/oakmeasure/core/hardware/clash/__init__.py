"""What lies too near to what in a leaf, and where it would be free."""
