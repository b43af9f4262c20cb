"""What a sheet asks, as data: boxes, choices, lists in groups; the window builds them."""
