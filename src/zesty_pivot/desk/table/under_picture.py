"""What lies under a block that came in: the photograph, or the lines of the file, piece by piece."""

from __future__ import annotations

import numpy as np
import shapely
from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QImage, QPainter, QPainterPath, QTransform

from zesty_pivot.core.intake.photo.picture import Flat
from zesty_pivot.desk.incoming import Incoming
from zesty_pivot.desk.table.incoming_things import LaidPiece
from zesty_pivot.desk.table.shapes import qt_path

AROUND = 20.0  # mm of a photograph that is seen round a piece


class UnderPicture:
    """Keeps the picture and the lines as Qt has them, until something else came in."""

    def __init__(self, incoming: Incoming) -> None:
        self._incoming = incoming
        self._picture: tuple[Flat, QImage] | None = None
        self._lines: dict[int, QPainterPath] = {}

    def forget(self) -> None:
        """The pieces lie elsewhere now."""
        self._lines = {}

    @property
    def is_picture(self) -> bool:
        """Whether a photograph lies under it."""
        came = self._incoming.came
        return came is not None and came.under is not None

    def paint(self, painter: QPainter, laid: LaidPiece) -> None:
        """The photograph under a piece, as far as the piece reaches; the painter is in mm on the table."""
        picture = self._image()
        came = self._incoming.came
        if picture is None or came is None or came.under is None:
            return
        (a, b), (c, d) = laid.motion.matrix
        x, y = laid.motion(np.zeros(2))
        low, high = laid.traced.ring.min(axis=0) - AROUND, laid.traced.ring.max(axis=0) + AROUND
        painter.save()
        painter.setTransform(QTransform(a, c, b, d, x, y), combine=True)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        part = QRectF(QPointF(*low), QPointF(*high))
        fine = came.under.fine
        painter.drawImage(part, picture, QRectF(part.topLeft() * fine, part.bottomRight() * fine))
        painter.restore()

    def _image(self) -> QImage | None:
        came = self._incoming.came
        under = came.under if came is not None else None
        if under is None:
            return None
        if self._picture is None or self._picture[0] is not under:
            high, wide, _colours = under.pixels.shape
            image = QImage(under.pixels.tobytes(), wide, high, 3 * wide, QImage.Format.Format_BGR888).copy()
            self._picture = (under, image)
        return self._picture[1]

    def lines_near(self, laid: LaidPiece) -> QPainterPath:
        """The lines of what came in that lie in a piece or round it, mm on the table."""
        if laid.number not in self._lines:
            came = self._incoming.came
            around = laid.traced.region.buffer(25.0)
            lines = came.lines(self._incoming.told.unit or None) if came is not None else ()
            near = [line for line in lines if around.contains(shapely.Point(line.point_at(line.length / 2.0)))]
            self._lines[laid.number] = qt_path(line.moved(laid.motion) for line in near)
        return self._lines[laid.number]
