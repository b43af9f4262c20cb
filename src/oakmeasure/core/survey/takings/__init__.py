"""The ways of taking an opening; each gives a `Taken`."""
