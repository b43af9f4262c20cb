"""Views of the stage Measure."""
