"""Views of the stage Make."""
