"""What a sliding leaf runs on and is guided by."""
