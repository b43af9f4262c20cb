"""A leaf as pieces in place: what is wood where, how thick, how heavy, and what is cut out of it."""
