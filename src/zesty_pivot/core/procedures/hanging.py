"""How a fold hangs: a catenary between two points of the same height.

A thread 2 L long between points 2 w apart hangs in y = a cosh(x / a) with L = a sinh(w / a); it sags a (cosh(w / a) - 1).
Source: the catenary, any handbook of mechanics (from memory).
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.geometry.root import root
from zesty_pivot.core.piece import Hang

TAUT = 1e-9  # how much longer than its span, as a share, a thread must be to sag


def parameter(hang: Hang) -> float:
    """The parameter a (mm) of a fold's catenary; infinite where it is pulled straight."""
    ratio = hang.long_mm / hang.open_mm
    if ratio <= 1.0 + TAUT:
        return math.inf
    # With u = w / a: sinh(u) / u = L / w, which grows with u.
    high = 1.0
    while math.sinh(high) / high < ratio:
        high *= 2.0
    u = root(lambda u: math.sinh(u) / u - ratio, 1e-9, high)
    return hang.open_mm / u


def sag(hang: Hang) -> float:
    """How far the middle of a fold hangs below its ends as a catenary, mm."""
    a = parameter(hang)
    return 0.0 if math.isinf(a) else a * (math.cosh(hang.open_mm / a) - 1.0)


def hung(hang: Hang, count: int = 41) -> NDArray[np.float64]:
    """Points of a fold from one end to the other, (count, 2) mm: x from its middle, y down from its ends."""
    a, x = parameter(hang), np.linspace(-hang.open_mm, hang.open_mm, count)
    if math.isinf(a):
        return np.stack([x, np.zeros(count)], axis=1)
    return np.stack([x, a * (math.cosh(hang.open_mm / a) - np.cosh(x / a))], axis=1)
