"""Lines and cubic Bezier segments, exact until paper: lengths, places, splits, crossings, motions."""

from zesty_pivot.core.geometry.angles import between, clockwise, unit
from zesty_pivot.core.geometry.motion import Motion
from zesty_pivot.core.geometry.path import Path
from zesty_pivot.core.geometry.tolerance import ANGLE_NOISE, FLATNESS, JOIN_TOL

__all__ = ["ANGLE_NOISE", "FLATNESS", "JOIN_TOL", "Motion", "Path", "between", "clockwise", "unit"]
