"""Hang: its sheet, room and panels."""
