"""Photographs and scans: printed marks found, lens and perspective removed, outline and marks traced. Needs OpenCV, the
extra `photo`."""
