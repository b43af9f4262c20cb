"""Out and in: job file, CSV, PDF."""
