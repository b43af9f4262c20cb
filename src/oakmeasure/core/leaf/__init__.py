"""What survey, fit, timber and construction share about a leaf: its parts and which of its gaps counts."""
