"""The curvature comb: on each style line a row of teeth as long as the line is curved there, so that the eye sees what is not
fair."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from zesty_pivot.core.geometry import Path, between
from zesty_pivot.core.piece import Pattern
from zesty_pivot.desk.table.lying import FLAT, Layout
from zesty_pivot.desk.theme import NOW

APART = 4.0  # mm between teeth
LONG = 900.0  # mm2: a curve of 90 mm radius has teeth of 10 mm
MOST = 60.0  # mm, the longest tooth


def teeth(path: Path) -> list[tuple[np.ndarray, np.ndarray, float]]:
    """The teeth of a line: foot and tip (2,) mm, and the curvature (1/mm, positive clockwise) by the turn of its tangent over
    2 mm."""
    found = []
    count = max(2, int(path.length / APART))
    for distance in np.linspace(1.0, path.length - 1.0, count):
        before, behind = path.direction_at(distance - 1.0), path.direction_at(distance + 1.0)
        curvature = between(before, behind) / 2.0
        foot, along = path.point_at(distance), path.direction_at(distance)
        out = np.array([along[1], -along[0]])
        long = float(np.clip(curvature * LONG, -MOST, MOST))
        found.append((foot, foot + out * long, curvature))
    return found


def paint_comb(painter: QPainter, pattern: Pattern, layout: Layout, px: float) -> None:
    """Draws the combs of all style lines in mm; `px` is one pixel in mm."""
    painter.setPen(QPen(NOW.color("cool"), 1.0 * px))
    for piece in pattern.pieces:
        lying = layout.get(piece.name, FLAT)
        for run in piece.runs:
            if piece.role(run.edge) != "style_line":
                continue
            row = teeth(run.path)
            tips = [QPointF(*lying.on_table(tip)) for _foot, tip, _curvature in row]
            for (foot, _tip, _curvature), tip in zip(row, tips, strict=True):
                painter.drawLine(QPointF(*lying.on_table(foot)), tip)
            painter.drawPolyline(QPolygonF(tips))
