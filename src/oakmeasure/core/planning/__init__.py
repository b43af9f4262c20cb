"""What is planned over all leaves of a job: wood, veneers, saw and planer settings."""
