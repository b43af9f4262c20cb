"""The window's frame: start, session, job line, rod, centre, side panel."""
