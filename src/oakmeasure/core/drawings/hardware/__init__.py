"""Views of the stage Hardware."""
