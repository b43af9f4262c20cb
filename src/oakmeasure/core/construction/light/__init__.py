"""Light face frames."""
