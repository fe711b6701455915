"""The gallery of necklines: each shape as a small picture, worked out on the user's own block."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QPixmap

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.necklines.registry import all_shapes
from zesty_pivot.core.piece import Body, Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import cleared
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps.neck_shape import ShapeNeck
from zesty_pivot.desk.panels.picture_grid import PictureGrid, Tried, drawn
from zesty_pivot.desk.table.shapes import shapes_of

_DOWN = 0.74  # of the block's front from its top, shown


class Gallery(PictureGrid):
    """All shapes."""

    def __init__(self) -> None:
        super().__init__({name: (shape.title, shape.hint) for name, shape in all_shapes().items()}, "neckline")
        self._block: Pattern | None = None
        self._scope = Scope()

    def show_block(self, block: Pattern, scope: Scope, now: str | None) -> None:
        """The pictures for a block; `now` is the shape in use."""
        self.check(now)
        if self._block is block and self._scope.key() == scope.key():
            return
        self._block, self._scope = block, scope
        plain = _without_darts(block, scope)  # on which a shape is seen best
        self.begin(partial(_worked, plain=plain, block=block, scope=scope), partial(self._picture, block))

    def _picture(self, block: Pattern, pattern: Pattern) -> QPixmap:
        """The whole front down to below the bust, its other half mirrored; the back's neckline behind it."""
        front = pattern.pieces[0]
        whole = shapes_of(block.piece(front.of or front.name)).box
        wide = max(whole.right(), 1.0)
        shown = QRectF(-wide, whole.top() - 75.0, 2.0 * wide, whole.height() * _DOWN + 75.0)
        backs = [(piece, "table") for piece in pattern.pieces if piece.body is Body.BACK]
        fronts = [(piece, "paper") for piece in pattern.pieces if piece.body is not Body.BACK]
        return drawn(backs + fronts, shown, self.devicePixelRatioF())


def _without_darts(block: Pattern, scope: Scope) -> Pattern:
    made = block
    for piece in block.pieces:
        try:
            made = cleared(made, piece.name, Context(block, scope)).pattern
        except ZestyError:
            continue
    return made


def _worked(name: str, plain: Pattern, block: Pattern, scope: Scope) -> Tried:
    names = [piece.name for piece in block.pieces]
    on = "front" if "front" in names else names[0]
    other = "back" if "back" in names and on != "back" else ""
    step, fault = ShapeNeck(on=on, other=other, shape=name), ""
    for pattern in (plain, block):  # some shapes cut darts away that cannot wait below
        try:
            return Tried(attempt(step, pattern, Context(block, scope)).pattern)
        except ZestyError as found:
            fault = str(found)
    return Tried(None, fault)
