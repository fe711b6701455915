"""Blocks from measurements: a method is a data file, drawn operation by operation."""
