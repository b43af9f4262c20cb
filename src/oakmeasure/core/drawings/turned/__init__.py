"""The leaf seen askew, turned, taken apart and cut open."""
