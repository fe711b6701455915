"""Stretches of paper between mouths, and printed lengths: what the person with paper works with."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field

import numpy as np


def mm(text: str) -> float:
    """A printed length, `20.9 cm`, `1 15/16 in`, `7 mm`, in mm."""
    number, unit = text.rsplit(" ", 1)
    value = sum(int(a) / int(b) if b else float(a) for a, b in re.findall(r"([\d.]+)(?:/(\d+))?", number))
    return value * {"mm": 1.0, "cm": 10.0, "in": 25.4}[unit]


@dataclass
class Strip:
    """A stretch of one edge; `mouth` names the dart that opens at its end, `marks` are points on it."""

    edge: str
    points: np.ndarray
    mouth: str = ""
    marks: dict[str, np.ndarray] = field(default_factory=dict)

    @property
    def ticks(self) -> np.ndarray:
        return np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(self.points, axis=0).T))])

    @property
    def length(self) -> float:
        return float(self.ticks[-1])

    def cut(self, at: float) -> tuple[Strip, Strip]:
        ticks = self.ticks
        spot = np.array([np.interp(at, ticks, self.points[:, k]) for k in (0, 1)])
        before, after = self.points[ticks < at - 1e-9], self.points[ticks > at + 1e-9]
        one, two = Strip(self.edge, np.vstack([before, spot])), Strip(self.edge, np.vstack([spot, after]), self.mouth)
        for name, point in self.marks.items():
            (one if math.dist(point, spot) < 1e-9 or self.where(point) <= at else two).marks[name] = point
        return one, two

    def where(self, point: np.ndarray) -> float:
        return float(self.ticks[np.argmin(np.hypot(*(self.points - point).T))])
