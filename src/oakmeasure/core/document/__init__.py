"""The job as its file holds it: readings, choices, stock, records."""
