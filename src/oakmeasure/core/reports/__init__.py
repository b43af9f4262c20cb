"""Overviews of a solved job: what is still to be read, schedules, comparisons."""
