"""Sheets of paper as PDF."""
