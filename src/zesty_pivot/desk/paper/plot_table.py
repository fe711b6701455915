"""What the simulated plotter has drawn, pen by pen, as it draws it."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.plotting import Plotting
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.theme import NOW, text_font

PENS = {1: ("ink", 2.2), 2: ("cool", 1.2), 3: ("quiet", 1.0)}  # colour and width (px) of each pen


class PlotTable(Canvas):
    """The paper of the plotter. With a real one it shows nothing: its paper is the one to look at."""

    def __init__(self, model: DeskModel, plotting: Plotting) -> None:
        super().__init__(model)
        self._plotting = plotting
        self._paths: dict[int, QPainterPath] = {}
        self._count = 0  # lines that are whole and in the paths already
        self._plotter: object = None
        self.setAccessibleName("Plotter")
        plotting.drawn.connect(self.follow)
        plotting.changed.connect(self.follow)

    def follow(self) -> None:
        """Takes up what was drawn since it looked last."""
        plotter = self._plotting.plotter
        if plotter is not self._plotter:
            self._plotter, self._paths, self._count = plotter, {}, 0
            self.fit()
        while self._count < len(plotter.lines) - 1:  # the last one may still grow
            pen, line = plotter.lines[self._count]
            self._draw(self._paths.setdefault(pen, QPainterPath()), line)
            self._count += 1
        self.update()

    def _draw(self, path: QPainterPath, line: list[tuple[float, float]]) -> None:
        across = self._plotting.size[1]
        for number, (x, y) in enumerate(line):
            at = QPointF(x, across - y)
            path.lineTo(at) if number else path.moveTo(at)

    def content_box(self) -> QRectF:
        wide, tall = self._plotting.size
        return QRectF(0.0, 0.0, wide or 1000.0, tall or 700.0).adjusted(-20, -20, 20, 20)

    def paint_content(self, painter: QPainter) -> None:
        px, plotter = 1.0 / self.scale, self._plotting.plotter
        painter.fillRect(self.content_box(), NOW.color("paper"))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        paths = dict(self._paths)
        if len(plotter.lines) > self._count:
            pen, line = plotter.lines[-1]
            paths[pen] = QPainterPath(paths.get(pen, QPainterPath()))
            self._draw(paths[pen], line)
        for pen, path in paths.items():
            colour, width = PENS.get(pen, ("quiet", 1.0))
            painter.setPen(QPen(NOW.color(colour), width * px))
            painter.drawPath(path)
        if plotter.lines and plotter.lines[-1][1]:
            x, y = plotter.lines[-1][1][-1]
            at = QPointF(x, self._plotting.size[1] - y)
            painter.setPen(QPen(NOW.color("citrus"), 2.0 * px))
            painter.drawEllipse(at, 7.0 * px, 7.0 * px)

    def paint_over(self, painter: QPainter) -> None:
        painter.setFont(text_font(10))
        painter.setPen(NOW.color("quiet"))
        room = self.rect().adjusted(60, 44, -60, -44)
        if not self._plotting.is_simulated:
            painter.drawText(room, Qt.TextFlag.TextWordWrap, "A real plotter draws on its own paper: look there.")
        elif self._plotting.sending is None:
            painter.drawText(
                room, Qt.TextFlag.TextWordWrap, "Start the plot: the simulated plotter draws here what it is sent."
            )
