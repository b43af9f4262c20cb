"""Quick sums: small calculations, each by itself. One registry, for the window and the command line."""
