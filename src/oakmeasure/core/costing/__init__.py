"""Hours, timber and money."""
