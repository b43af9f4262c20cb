"""Views of the stage Hang."""
