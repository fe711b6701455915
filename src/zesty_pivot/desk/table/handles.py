"""Handles on the table for the parameters of the chosen step: dragged, and the pattern follows live."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPen

from zesty_pivot.core.moves.laid_open import on_paper
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.grips.base import Grips, Scene
from zesty_pivot.desk.table.grips.registry import all_grips
from zesty_pivot.desk.table.lying import FLAT, Layout
from zesty_pivot.desk.theme import NOW

GRIP = 10.0  # px round a handle
_HALF = 5.0  # px, half a handle's side


class Handles:
    """The handles of the chosen step, for the kinds of step that have some. Knows the canvas only to turn mm into px."""

    def __init__(self, model: DeskModel, canvas: Canvas) -> None:
        self._model, self._canvas = model, canvas
        self.held: str | None = None  # the parameter that is dragged
        self._on = ""  # the piece that it lies on
        self._lying = FLAT  # how the piece lies that its handle is on
        self._caught = ((0.0, 0.0), (0.0, 0.0))  # where the handle and the pointer were when it was caught, mm of the piece
        self._step: Step | None = None  # what it would become

    def _chosen(self) -> tuple[int, Grips, Scene] | None:
        """The chosen step's number, its handles and what they lie on; None for a step without handles or a broken one."""
        at, derivation = self._model.step, self._model.derived.derivation
        if at is None or self._model.state_index != at + 1 or at + 1 >= len(derivation.states):
            return None
        state, before = derivation.states[at + 1], derivation.states[at].pattern
        grips = all_grips().get(type(state.step)) if state.step is not None else None
        if grips is None or state.step is None or state.step.off or not before.has(state.step.on):
            return None
        return at, grips, Scene(state.step, before, state.pattern, derivation.block, self._model.scope_before(at))

    def points(self, layout: Layout) -> dict[str, QPointF]:
        """Where the handles are, px, by the step's parameters."""
        found = self._chosen()
        if found is None:
            return {}
        _at, grips, scene = found
        points: dict[str, QPointF] = {}
        for key, (piece, x, y) in grips.places(scene).items():
            x, y = on_paper(scene.after.piece(piece), (x, y)) if scene.after.has(piece) else (x, y)
            points[key] = self._canvas.to_px(*layout.get(piece, FLAT).on_table((x, y)))
        return points

    def paint(self, painter: QPainter, layout: Layout) -> None:
        """Small squares, and the lines between them."""
        points, found = self.points(layout), self._chosen()
        painter.setPen(QPen(NOW.color("citrus"), 1.6, Qt.PenStyle.DashLine))
        for one, two in found[1].lines if found is not None else ():
            if one in points and two in points:
                painter.drawLine(points[one], points[two])
        for key, at in points.items():
            painter.setPen(QPen(NOW.color("citrus"), 2.0))
            painter.setBrush(NOW.color("citrus_fill" if key == self.held else "paper"))
            painter.drawRect(int(at.x() - _HALF), int(at.y() - _HALF), int(2 * _HALF), int(2 * _HALF))

    def press(self, at: QPointF, layout: Layout) -> bool:
        """Takes the handle under a place (px). False when there is none."""
        near = self.under(at, layout)
        self.held, self._step = near, None
        found = self._chosen()
        if near is not None and found is not None:
            self._on = found[1].places(found[2])[near][0]
            self._lying = layout.get(self._on, FLAT)
            _piece, x, y = found[1].places(found[2])[near]
            caught = self._canvas.to_mm(at)
            self._caught = (x, y), self._lying.on_piece((caught.x(), caught.y()))
        return near is not None

    def under(self, at: QPointF, layout: Layout) -> str | None:
        """The handle under a place (px)."""
        points = self.points(layout)
        near = min(points, key=lambda key: _apart(points[key], at), default=None)
        return near if near is not None and _apart(points[near], at) <= GRIP else None

    def drag(self, x: float, y: float) -> None:
        """The held handle goes towards a point of the table (mm); the pattern follows."""
        found = self._chosen()
        if found is None or self.held is None:
            return
        number, grips, scene = found
        at = self._lying.on_piece((x, y))
        if scene.after.has(self._on) and scene.after.piece(self._on).fullness:
            # The paper changes under the hand while fullness is carried along it: what counts is how far the hand has gone.
            (x0, y0), (x1, y1) = self._caught
            at = (x0 + at[0] - x1, y0 + at[1] - y1)
        change = grips.dragged(scene, self.held, *at)
        if change is None:
            return
        self._step = scene.step.model_copy(update=change)
        steps = self._model.style.steps
        style = self._model.style.with_steps((*steps[:number], self._step, *steps[number + 1 :]))
        self._model.preview(style, until=number + 1)

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
        self._model.recipe.replace_step(found[0], step)


def _apart(one: QPointF, two: QPointF) -> float:
    return math.hypot(one.x() - two.x(), one.y() - two.y())
