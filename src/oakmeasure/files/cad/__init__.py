"""DXF and SVG."""
