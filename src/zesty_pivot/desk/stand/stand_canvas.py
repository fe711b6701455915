"""The stand as it is seen: turned by hand or keys, coarse while it moves, sharp when it rests."""

from __future__ import annotations

import threading
from collections.abc import Iterator

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPen, QPolygonF

from zesty_pivot.core.record import record, replace
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.maps import GAPS, PULLS
from zesty_pivot.core.stand.raster import Picture, Viewpoint, drawn
from zesty_pivot.core.stand.scene import seen_runs
from zesty_pivot.core.stand.whereabouts import where
from zesty_pivot.desk.beside import Beside
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.stand.figures import Figure, palette
from zesty_pivot.desk.stand.trying_on import TryingOn
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.theme import NOW, text_font

APART = 60.0  # mm between two figures
QUICK = 60_000  # pixels of a picture while it moves
TURN, TILT = 0.009, 0.006  # radians a pixel of a drag
STEP = np.radians(15.0)  # a key turns by
STEEPEST = 1.2  # radians from above or below
REACH = 9.0  # px from the pointer to a point of the cloth
PENS = {
    "tape": ("quiet", 150, 1.0, Qt.PenStyle.DotLine), "centre": ("quiet", 150, 1.0, Qt.PenStyle.DotLine),
    "seam": ("ink", 190, 1.0, Qt.PenStyle.SolidLine), "edge": ("ink", 255, 1.4, Qt.PenStyle.SolidLine),
    "dart": ("ink", 190, 1.0, Qt.PenStyle.DashLine), "fold": ("ink", 130, 1.0, Qt.PenStyle.DashDotLine),
    "grain": ("ink", 110, 0.8, Qt.PenStyle.SolidLine),
}  # fmt: skip
SIDES = {"front": 0.0, "left": np.pi / 2.0, "back": np.pi, "right": -np.pi / 2.0}


@record(eq=False)
class Shot:
    """A picture of the figures from one viewpoint, for a painter's width and height in pixels."""

    key: tuple[object, ...]
    pictures: tuple[tuple[Viewpoint, Picture], ...]


class StandCanvas(Canvas):
    """One figure, or two side by side that turn together."""

    looked = pyqtSignal()

    def __init__(self, model: DeskModel, trying: TryingOn) -> None:
        super().__init__(model)
        self.setAccessibleName("Stand")
        self._trying = trying
        self.look, self.turn, self.tilt, self.has_tapes = "gap", 0.35, 0.08, True
        self._figures: list[tuple[str, Figure]] = []
        self._shot: Shot | None = None
        self._work = Beside("drawing the stand")
        self._work.improved.connect(self._got)
        self._turning: QPointF | None = None
        self.pointed = ""  # what lies under the pointer, in words
        trying.changed.connect(self.refresh)

    # What is seen.

    def refresh(self) -> None:
        """Shows what there is by now."""
        before = self.content_box()
        known = {(id(figure.shown), figure.look, figure.palette): figure for _title, figure in self._figures}
        figures, colors = [], palette()
        for wanted, shown in self._trying.shown():
            if shown is not None:
                figures.append((wanted.title, known.get((id(shown), self.look, colors)) or Figure(shown, self.look, colors)))
        self._figures = figures
        self._fit_again(before)
        self.looked.emit()

    def show_look(self, look: str) -> None:
        """By another look: one of LOOKS."""
        self.look = look
        self.refresh()

    def face(self, turn: float, tilt: float = 0.08) -> None:
        """Turned so that it is seen from one side."""
        self.turn, self.tilt = float((turn + np.pi) % (2.0 * np.pi) - np.pi), float(np.clip(tilt, -STEEPEST, STEEPEST))
        self.update()
        self.looked.emit()

    def face_side(self, side: str) -> None:
        """Seen from one of SIDES."""
        self.face(SIDES[side])

    def face_place(self, place: np.ndarray) -> None:
        """Turned so that a place of the body is seen."""
        ahead = self._figures[0][1].middle[1] if self._figures else 0.0
        self.face(float(np.arctan2(place[0], place[1] - ahead)))

    def close_work(self) -> None:
        """Waits for the thread."""
        self._work.close()

    def content_box(self) -> QRectF:
        extents = [figure.extent for _title, figure in self._figures]
        if not extents:
            return QRectF(-250.0, -420.0, 500.0, 700.0)
        low, high = min(extent[1] for extent in extents), max(extent[2] for extent in extents)
        centres = self._centres()
        left, right = centres[0] - extents[0][0], centres[-1] + extents[-1][0]
        return QRectF(left, -high, right - left, high - low + 24.0)

    def _centres(self) -> list[float]:
        """Where the figures stand, mm from the middle of the first."""
        found = [0.0]
        for (_a, one), (_b, other) in zip(self._figures, self._figures[1:], strict=False):
            found.append(found[-1] + one.extent[0] + other.extent[0] + APART)
        return found

    # Drawing.

    def _viewpoints(self, shrink: float) -> list[Viewpoint]:
        """From where each figure is seen, in a picture that is smaller than the canvas by a share."""
        wide, tall = max(1, round(self.width() * shrink)), max(1, round(self.height() * shrink))
        middle = self.to_mm(QPointF(self.width() / 2.0, self.height() / 2.0))
        return [
            Viewpoint(self.turn, self.tilt, self.scale * shrink, (middle.x() - at, -middle.y()), (wide, tall))
            for at in self._centres()
        ]

    def _key(self, views: list[Viewpoint]) -> tuple[object, ...]:
        return (*views, *(id(figure) for _title, figure in self._figures))

    def _quick(self) -> float:
        return float(min(1.0, np.sqrt(QUICK / max(1, self.width() * self.height()))))

    def render_to(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.fillRect(self.rect(), NOW.color("table"))
        if self._figures:
            self._paint_figures(painter)
        self._legend(painter)
        self._words(painter)
        self._focus_frame(painter)

    def _paint_figures(self, painter: QPainter) -> None:
        is_screen = painter.device() is self
        sharp = self._viewpoints(1.0 if not is_screen else self.devicePixelRatioF())
        key = self._key(sharp)
        if self._shot is not None and self._shot.key == key:
            shot = self._shot
        elif not is_screen:
            figures = self._figures
            if any(figure.palette != palette() for _title, figure in figures):  # what leaves the program is light
                figures = [(title, replace(figure, palette=palette())) for title, figure in figures]
            shot = _taken(key, [figure for _title, figure in figures], sharp)
        else:
            shot = _taken((), [figure for _title, figure in self._figures], self._viewpoints(self._quick()))
            if self._turning is None and self._lies_still():
                self._sharpen(key, sharp)
        for (view, picture), (_title, figure) in zip(shot.pictures, self._figures, strict=True):
            tall, wide = picture.near.shape
            image = QImage(picture.pixels.tobytes(), wide, tall, 4 * wide, QImage.Format.Format_RGBA8888)
            painter.drawImage(QRectF(0.0, 0.0, self.width(), self.height()), image)
            self._paint_lines(painter, view, picture, figure)

    def _lies_still(self) -> bool:
        """Whether what is seen stays as it is: while the cloth falls, a sharp picture is too late for it."""
        return not self._trying.work.is_at_work or all(figure.shown.done >= 1.0 for _title, figure in self._figures)

    def _sharpen(self, key: tuple[object, ...], views: list[Viewpoint]) -> None:
        if self._work.asked == key:
            return
        figures = [figure for _title, figure in self._figures]

        def work(_stop: threading.Event) -> Iterator[Shot]:
            yield _taken(key, figures, views)

        self._work.begin(key, work)

    def _got(self, _key: object, shot: object) -> None:
        if isinstance(shot, Shot):
            self._shot = shot
            self.update()

    def _paint_lines(self, painter: QPainter, view: Viewpoint, picture: Picture, figure: Figure) -> None:
        pens = {kind: QPen(NOW.color(color, alpha), wide, dash) for kind, (color, alpha, wide, dash) in PENS.items()}
        larger = self.width() / picture.near.shape[1]
        lines = [line for line in figure.lines if self.has_tapes or line.kind not in ("tape", "centre")]
        for line, run in seen_runs(lines, view, picture):
            painter.setPen(pens[line.kind])
            painter.drawPolyline(QPolygonF([QPointF(x * larger, y * larger) for x, y in run.tolist()]))

    def _legend(self, painter: QPainter) -> None:
        """Bands of the map, from the least on, with their limits."""
        if self.look not in ("gap", "pull") or not any(isinstance(figure.shown, Fitting) for _t, figure in self._figures):
            return
        unit = self._model.style.units
        if self.look == "gap":
            limits = [f"{mm / 25.4:.2g}" if unit == "in" else f"{mm / 10.0:g}" if unit == "cm" else f"{mm:g}" for mm in GAPS]
            head = f"stands off, {unit}"
        else:
            limits, head = [f"{100.0 * share:g}" for share in PULLS], "stretched, %"
        bands = self._figures[0][1].palette.bands
        wide, tall, left = 15.0, 20.0, 16.0
        top = self.height() / 2.0 - tall * len(bands) / 2.0
        painter.setFont(text_font(8.5))
        painter.setPen(NOW.color("ink"))
        painter.drawText(QPointF(left, top - 8.0), head)
        for n, band in enumerate(reversed(bands)):  # the most at the top
            painter.fillRect(QRectF(left, top + n * tall, wide, tall), QColor(*band))
        painter.setPen(QPen(NOW.color("edge"), 1.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(QRectF(left, top, wide, tall * len(bands)))
        painter.setPen(NOW.color("ink"))
        for n, text in enumerate(reversed(limits)):
            box = QRectF(left + wide + 6.0, top + (n + 0.5) * tall, 60.0, tall)
            painter.drawText(box, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, text)

    def _words(self, painter: QPainter) -> None:
        painter.setPen(NOW.color("ink"))
        painter.setFont(text_font(10, bold=True))
        if not self._figures:
            painter.setFont(text_font(10))
            painter.setPen(NOW.color("error" if self._trying.fault else "quiet"))
            text = self._trying.fault or "The pattern is being sewn…"
            painter.drawText(
                self.rect().adjusted(60, 40, -60, -40), Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignCenter, text
            )
            return
        if len(self._figures) > 1:
            bottom = self.content_box().bottom()
            for (title, _figure), at in zip(self._figures, self._centres(), strict=True):
                under = self.to_px(at, bottom - 12.0)
                wide = 420.0
                shown = painter.fontMetrics().elidedText(title, Qt.TextElideMode.ElideRight, int(wide))
                painter.drawText(
                    QRectF(under.x() - wide / 2.0, under.y() - 10.0, wide, 20.0), Qt.AlignmentFlag.AlignCenter, shown
                )
        if self.pointed:
            painter.setFont(text_font(9.5))
            painter.drawText(
                QRectF(RULER + 14.0, RULER + 6.0, self.width() - 60.0, 20.0), Qt.AlignmentFlag.AlignLeft, self.pointed
            )

    def _focus_frame(self, painter: QPainter) -> None:
        if self.hasFocus():
            painter.setPen(QPen(NOW.color("cool"), 1.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(self.rect()).adjusted(1.0, 1.0, -1.0, -1.0))

    def _rulers(self, painter: QPainter) -> None:
        """None: what is turned has no scale along the edges."""

    # Hands.

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if event.button() == Qt.MouseButton.LeftButton and not event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self._turning = event.position()
            self.setCursor(Qt.CursorShape.SizeAllCursor)
            self.setFocus()
        else:
            super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._turning is None:
            super().mouseMoveEvent(event)
            if self._grab is None:
                self._point(event.position())
            return
        by = event.position() - self._turning
        self._turning = event.position()
        self.face(self.turn - by.x() * TURN, self.tilt + by.y() * TILT)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._turning = None
        super().mouseReleaseEvent(event)
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        turns = {
            Qt.Key.Key_Left: (STEP, 0.0),
            Qt.Key.Key_Right: (-STEP, 0.0),
            Qt.Key.Key_Up: (0.0, STEP),
            Qt.Key.Key_Down: (0.0, -STEP),
        }
        key = Qt.Key(event.key())
        if key in turns:
            self.face(self.turn + turns[key][0], self.tilt + turns[key][1])
        elif key == Qt.Key.Key_Home:
            self.face(0.0)
        else:
            super().keyPressEvent(event)

    def _point(self, at: QPointF) -> None:
        """What lies under the pointer, said in words."""
        before, self.pointed = self.pointed, self._said(at)
        if self.pointed != before:
            self.update()

    def _said(self, at: QPointF) -> str:
        for (_title, figure), view in zip(self._figures, self._viewpoints(1.0), strict=True):
            shown = figure.shown
            if not isinstance(shown, Fitting):
                continue
            points, _triangles, own = shown.both_sides()
            seen = view.seen(points)
            off = np.hypot(seen[:, 0] - at.x(), seen[:, 1] - at.y())
            near = np.flatnonzero(off < max(REACH, shown.step * view.scale))
            if not len(near):
                continue
            point = near[seen[near, 2].argmax()]
            gap, pull = max(float(shown.gap[own[point]]), 0.0), max(float(shown.pull[own[point]]), 0.0)
            place = where(shown.form, points[point], is_whole=shown.worn.is_whole)
            return f"{place[4:].capitalize()}: {self.length_words(gap)} off the form, stretched by {100.0 * pull:.1f} %"
        return ""


def _taken(key: tuple[object, ...], figures: list[Figure], views: list[Viewpoint]) -> Shot:
    return Shot(key, tuple((view, drawn(figure.skins, view)) for figure, view in zip(figures, views, strict=True)))
