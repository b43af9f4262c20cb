"""Timber: its sheets, room, panels and lists."""
