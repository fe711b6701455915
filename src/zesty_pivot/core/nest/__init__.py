"""Pieces laid close together: on pages of paper, and on cloth."""
