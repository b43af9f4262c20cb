"""Views of the stage Timber."""
