"""Units, errors, geometry and other tools that know nothing of doors."""
