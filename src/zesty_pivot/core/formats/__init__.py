"""Files in and out: block, style, report, SVG, PDF. One short module per format."""
