"""Make: its sheet, room, panels and lists."""
