"""The command `oak-measure`: the window, and the same answers without a screen."""
