"""Leaves that exist and are altered."""
