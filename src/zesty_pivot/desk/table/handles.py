"""Handles on the table for the places of the chosen step: dragged along the outline, the pattern follows live."""

from __future__ import annotations

import math
from collections.abc import Mapping

import shapely
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPen

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.fullness_slash import Slash
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.theme import NOW

GRIP = 10.0  # px round a handle
_HALF = 5.0  # px, half a handle's side


class Handles:
    """The places of a slash: where it begins, and its hinge. Knows the canvas only to turn mm into px."""

    def __init__(self, model: DeskModel, canvas: Canvas) -> None:
        self._model, self._canvas = model, canvas
        self.held: str | None = None  # the parameter that is dragged
        self._step: Step | None = None  # what it would become

    def _chosen(self) -> tuple[int, Slash, Piece, Piece] | None:
        """The chosen slash with its number, and its piece before and after it; None for another step or a broken one."""
        at, derivation = self._model.step, self._model.derived.derivation
        if at is None or self._model.state_index != at + 1 or at + 1 >= len(derivation.states):
            return None
        step, before = derivation.states[at + 1].step, derivation.states[at].pattern
        if not isinstance(step, Slash) or step.off or not before.has(step.on):
            return None
        return at, step, before.piece(step.on), derivation.states[at + 1].pattern.piece(step.on)

    def points(self, shifts: Mapping[str, tuple[float, float]]) -> dict[str, QPointF]:
        """Where the handles are, px, by the step's parameters."""
        found = self._chosen()
        if found is None:
            return {}
        _at, step, before, after = found
        dx, dy = shifts.get(step.on, (0.0, 0.0))
        points: dict[str, QPointF] = {}
        block = self._model.derived.derivation.block
        for key, spot in (("at", step.at), ("hinge", step.hinge)):
            if spot is None or not block.has(step.on):
                continue
            try:
                place = resolve(spot, before, block.piece(step.on), self._model.style.scope(), _pivot(before, step))
                now = places.by_source(after, *places.source_of(before, place))
            except ZestyError:
                continue
            x, y = places.point(after, now)
            points[key] = self._canvas.to_px(float(x) + dx, float(y) + dy)
        return points

    def paint(self, painter: QPainter, shifts: Mapping[str, tuple[float, float]]) -> None:
        """Small squares, and the line of the slash between them."""
        points = self.points(shifts)
        painter.setPen(QPen(NOW.color("citrus"), 1.6, Qt.PenStyle.DashLine))
        if len(points) == 2:
            painter.drawLine(points["at"], points["hinge"])
        for key, at in points.items():
            painter.setPen(QPen(NOW.color("citrus"), 2.0))
            painter.setBrush(NOW.color("citrus_fill" if key == self.held else "paper"))
            painter.drawRect(int(at.x() - _HALF), int(at.y() - _HALF), int(2 * _HALF), int(2 * _HALF))

    def press(self, at: QPointF, shifts: Mapping[str, tuple[float, float]]) -> bool:
        """Takes the handle under a place (px). False when there is none."""
        near = self.under(at, shifts)
        self.held, self._step = near, None
        return near is not None

    def under(self, at: QPointF, shifts: Mapping[str, tuple[float, float]]) -> str | None:
        """The handle under a place (px)."""
        points = self.points(shifts)
        near = min(points, key=lambda key: _apart(points[key], at), default=None)
        return near if near is not None and _apart(points[near], at) <= GRIP else None

    def drag(self, x: float, y: float) -> None:
        """The held handle goes to the place of the outline nearest to a point (mm on the piece); the pattern follows."""
        found = self._chosen()
        if found is None or self.held is None:
            return
        number, step, before, after = found
        spot = _spot_near(before, after, x, y)
        if spot is None:
            return
        self._step = step.model_copy(update={self.held: spot})
        steps = self._model.style.steps
        self._model.preview(self._model.style.with_steps((*steps[:number], self._step, *steps[number + 1 :])))

    def let_go(self) -> None:
        """Everything back as it was."""
        self.held, self._step = None, None
        self._model.preview(None)

    def drop(self) -> None:
        """Puts the handle down: one entry of the history. What could not be is left as it was."""
        found, step, self.held, self._step = self._chosen(), self._step, None, None
        if found is None or step is None:
            self._model.preview(None)
            return
        fault = self._model.derived.derivation.states[found[0] + 1].error
        if fault is not None:
            self._model.preview(None)
            self._model.say(f"Not moved: {fault.what}.", fault=True)
            return
        self._model.replace_step(found[0], step, step.words())


def _apart(one: QPointF, two: QPointF) -> float:
    return math.hypot(one.x() - two.x(), one.y() - two.y())


def _pivot(piece: Piece, step: Slash) -> str:
    if step.dart is not None and piece.has_dart(step.dart):
        return piece.dart(step.dart).pivot
    return piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")


def _spot_near(before: Piece, after: Piece, x: float, y: float) -> Spot | None:
    """The place of the piece before a step that lies, after it, nearest to a point (mm). Cloth that the step added is no
    place of the piece before."""
    point = shapely.Point(x, y)
    lines = [(shapely.LineString(run.path.outline), index) for index, run in enumerate(after.runs)]
    for line, index in sorted(lines, key=lambda pair: float(pair[0].distance(point))):
        path = after.runs[index].path
        along = float(line.project(point)) / max(float(line.length), 1e-9) * path.length
        try:
            edge, u = places.source_of(after, Place(index, along))
            place = places.by_source(before, edge, u)
        except ZestyError:
            continue
        name = before.runs[place.run].edge
        share = places.sewn_distance(before, place) / before.edge(name).sewn_length
        return Spot(edge=name, at=f"{100.0 * share:.1f}%")
    return None
