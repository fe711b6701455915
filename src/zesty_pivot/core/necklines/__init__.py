"""Shapes of necklines, one module each with a SHAPE: the numbers it takes, their starting values from the block, its curve."""
