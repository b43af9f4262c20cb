"""The job file and what keeps it safe: journal, earlier saves, claims, job book."""
