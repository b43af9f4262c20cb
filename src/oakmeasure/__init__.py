"""Oak Measure: from a measured opening to a door that shuts."""

__version__ = "0.1.0"
