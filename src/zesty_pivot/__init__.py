"""Zesty Pivot: styled garment patterns from a fitted bodice block."""

__version__ = "0.1.0"
