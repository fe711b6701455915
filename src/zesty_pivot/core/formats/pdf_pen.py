"""Finished pieces drawn on a page of a PDF."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.pen import DRILL, LOOKS, LineLook
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.formats.pdf_paper import MM, Paper
from zesty_pivot.core.geometry import Path

Box = tuple[float, float, float, float]

THICKEST = 2.0  # mm: no line is as wide
THINNEST = 0.25  # mm: what a cheap printer still draws as a whole line. Common practice, no source


class PdfPen:
    """Draws on a page whose corner lies at (-dx, -dy) mm of the sheet. Of lines that lie wholly outside the box `within` (low
    x, y, high x, y, mm of the page) nothing is written."""

    def __init__(
        self, paper: Paper, dx: float, dy: float, *, in_colour: bool = False, within: Box | None = None
    ) -> None:  # fmt: skip
        self._paper, self._corner, self._in_colour, self._within = paper, (dx, dy), in_colour, within
        self._dx, self._dy = dx, dy
        self._drills = False  # whether the look of drill holes is set

    def begin(self, piece: FinishedPiece, dx: float, dy: float) -> None:
        self._dx, self._dy = dx + self._corner[0], dy + self._corner[1]

    def look(self, stroke: Stroke) -> LineLook:
        """How a line is drawn."""
        return LOOKS[stroke.kind]

    def stroke(self, stroke: Stroke) -> None:
        look, self._drills = self.look(stroke), False
        self._paper.look(max(look.mm, THINNEST), look.dash_mm, colour=look.colour if self._in_colour else "")
        for path in stroke.paths:
            if self._is_seen(path):
                self._paper.path(path, self._dx, self._dy)

    def _is_seen(self, path: Path) -> bool:
        if self._within is None:
            return True
        controls = np.add(path.cubics.reshape(-1, 2), (self._dx, self._dy))
        (x0, y0), (x1, y1) = (controls.min(axis=0) - THICKEST).tolist(), (controls.max(axis=0) + THICKEST).tolist()
        low_x, low_y, high_x, high_y = self._within
        return bool(x0 <= high_x and low_x <= x1 and y0 <= high_y and low_y <= y1)

    def circle(self, circle: Circle) -> None:
        if not self._drills:
            self._paper.look(DRILL.mm, DRILL.dash_mm, colour=DRILL.colour if self._in_colour else "")
            self._drills = True
        x, y = self._paper.point(circle.at[0] + self._dx, circle.at[1] + self._dy)
        self._paper.canvas.circle(x, y, circle.radius * MM, stroke=1, fill=0)

    def text(self, text: Text) -> None:
        x, y = text.at[0] + self._dx, text.at[1] + self._dy
        self._paper.text(x, y, text.text, text.size, bold=text.bold, turn=text.turn)
