"""Veneered, built-up leaves."""
