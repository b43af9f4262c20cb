"""What leaves the screen at full size or as a list, as data: the page is the business of `files`."""
