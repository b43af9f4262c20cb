"""Views of the stage Leaf."""
