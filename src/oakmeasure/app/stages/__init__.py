"""One folder a stage: its sheet, panels and lists."""
