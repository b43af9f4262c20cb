"""From readings to the opening."""
