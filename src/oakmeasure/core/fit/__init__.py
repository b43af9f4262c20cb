"""From the opening to the size of the leaf."""
