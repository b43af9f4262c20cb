"""Lists and schedules as CSV and JSON, in and out."""
