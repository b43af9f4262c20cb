"""The calculations of a door joiner, without Qt and without files."""
