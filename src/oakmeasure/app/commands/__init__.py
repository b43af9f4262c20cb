"""The menu's commands, and what works behind the window."""
