"""Limits that several checks share, each named once."""

from __future__ import annotations

# A seam line that turns by more than this where it runs on across a mouth or a seam shows as a corner. Common practice, no
# source.
SMOOTH_DEG = 3.0

# A step in a line wider than this is more than a pencil line. Common practice, no source.
STEP_MM = 1.0

# Edges sewn to each other may differ by this much beyond the ease that is meant. Common practice, no source.
SEAM_MM = 1.0
