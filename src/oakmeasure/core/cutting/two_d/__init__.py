"""Boards and sheets: strips and what lies in them."""
