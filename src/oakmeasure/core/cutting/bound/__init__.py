"""What no cutting plan can cost less than."""
