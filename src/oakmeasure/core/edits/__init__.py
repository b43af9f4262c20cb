"""Edits: pure functions from a job to a new job."""
