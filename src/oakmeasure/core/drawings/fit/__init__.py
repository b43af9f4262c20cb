"""Views of the stage Fit."""
