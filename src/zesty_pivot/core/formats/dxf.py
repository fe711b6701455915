"""DXF for other pattern systems: a block a piece, layers in the manner of ASTM D6673 as remembered (no copy of the standard was
at hand): 1 cut line, 2 turn points, 3 curve points, 4 notches, 6 fold, 7 grain, 8 lines inside, 13 drill holes, 14 sewing
lines, 15 words, 11 slits, 85 sewing lines as exact curves. Millimetres, y up.
"""

from __future__ import annotations

import io
import math
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from threading import Lock

import numpy as np
from ezdxf._options import options
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts.blocklayout import BlockLayout
from numpy.typing import NDArray

from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.formats.dxf_names import block_names
from zesty_pivot.core.formats.printing import DxfVersion
from zesty_pivot.core.geometry import Path

CUT, TURN, CURVE, NOTCH, FOLD, GRAIN, INSIDE, DRILL, SEW, WORDS, EXACT = (
    "1",
    "2",
    "3",
    "4",
    "6",
    "7",
    "8",
    "13",
    "14",
    "15",
    "85",
)
SLIT = "11"
# By the kind of a stroke: its layer. Caps are not written: the cut line shows them.
LAYERS = {"seam": SEW, "leg": SEW, "fold": FOLD, "cut": SLIT, "notch": NOTCH, "grain": GRAIN, "cap": ""}
FLAT = 0.02  # mm that a polyline may lie off its curve; the other systems are promised 0.05
CORNER = math.radians(8.0)  # a turn of a polyline from which on a point is a turn point. Our own choice
_COLOURS = {CUT: 7, SEW: 3, NOTCH: 1, FOLD: 5, GRAIN: 6, INSIDE: 8, DRILL: 1, WORDS: 7, EXACT: 4, SLIT: 7, TURN: 2, CURVE: 2}
_LOCK = Lock()  # the library's switch that keeps dates out of the file is one for the whole program


def pattern_dxf(laid: Sequence[Laid], style: str, size: str, cloth: str, version: DxfVersion) -> bytes:
    """Pieces as they lie on a sheet, each in a block of its own, named by the piece and, where there is one, its size."""
    with _undated():
        return _document(laid, style, size, cloth, version)


def _document(laid: Sequence[Laid], style: str, size: str, cloth: str, version: DxfVersion) -> bytes:
    document = Drawing.new(version)
    if version != "R12":
        document.header["$INSUNITS"] = 4  # millimetres
    document.header["$MEASUREMENT"] = 1  # metric
    for layer, colour in _COLOURS.items():
        document.layers.add(layer, color=colour)
    space = document.modelspace()
    names = block_names([one.piece.name for one in laid], size)
    for one, name in zip(laid, names, strict=True):
        pen = _DxfPen(document.blocks.new(name), version != "R12")
        draw((Laid(one.piece, 0.0, 0.0),), pen)
        pen.said(one.piece, size, cloth)
        space.add_blockref(name, (one.dx, -one.dy), dxfattribs={"layer": CUT})
    # As exchange files say it: words in the drawing itself. R12 has no other way to tell its unit.
    low = min((-one.dy - one.piece.box()[3] for one in laid), default=0.0) - 10.0
    for number, line in enumerate((f"Style Name: {style}", f"Sample Size: {size}", "Units: METRIC", "Author: Zesty Pivot")):
        space.add_text(line, height=5.0, dxfattribs={"layer": WORDS}).set_placement((0.0, low - 8.0 * number))
    return _written(document)


def _written(document: Drawing) -> bytes:
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode(document.output_encoding, errors="dxfreplace")


@contextmanager
def _undated() -> Iterator[None]:
    """No dates and fixed ids in what is written: two exports of one style are equal."""
    with _LOCK:
        before = options.write_fixed_meta_data_for_testing
        options.write_fixed_meta_data_for_testing = True
        try:
            yield
        finally:
            options.write_fixed_meta_data_for_testing = before


class _DxfPen:
    """Draws one piece into a block."""

    def __init__(self, block: BlockLayout, has_splines: bool) -> None:
        self._block, self._has_splines = block, has_splines

    def begin(self, piece: FinishedPiece, dx: float, dy: float) -> None:
        """The piece in its own frame; its cut line as one closed outline, also along a fold."""
        self._polyline(piece.ring, CUT, closed=True)
        self._points(piece.ring)

    def stroke(self, stroke: Stroke) -> None:
        layer = LAYERS.get(stroke.kind, INSIDE)
        if not layer or stroke.id == "cut":
            return
        if layer == NOTCH:
            for path in stroke.paths:
                self._notch(path)
            return
        # Of the grain line its shaft: systems draw heads of their own.
        for path in stroke.paths[:1] if layer == GRAIN else stroke.paths:
            self._polyline(path.flatten(FLAT), layer)
            if layer == SEW and self._has_splines:
                self._spline(path)

    def _notch(self, path: Path) -> None:
        """A notch as a point on the cut line, turned the way that it is cut."""
        start, stop = path.start, path.end
        turn = math.degrees(math.atan2(-(stop[1] - start[1]), stop[0] - start[0])) % 360.0
        self._block.add_point(_at(start), dxfattribs={"layer": NOTCH, "angle": turn, "thickness": path.length})

    def circle(self, circle: Circle) -> None:
        self._block.add_point(_at(circle.at), dxfattribs={"layer": DRILL})

    def text(self, text: Text) -> None:
        made = self._block.add_text(
            text.text, height=0.7 * text.size, dxfattribs={"layer": WORDS, "rotation": -math.degrees(text.turn)}
        )
        made.set_placement(_at(text.at), align=TextEntityAlignment.CENTER)

    def said(self, piece: FinishedPiece, size: str, cloth: str) -> None:
        """What other systems read of a piece, as words in its block."""
        x, y = piece.ring.mean(axis=0)
        lines = (f"Piece Name: {piece.name}", f"Size: {size}", f"Quantity: {piece.cut_words}", f"Material: {cloth}")
        for number, line in enumerate(lines):
            made = self._block.add_text(line, height=3.0, dxfattribs={"layer": WORDS})
            made.set_placement((float(x), -float(y) - 5.0 * number))

    def _polyline(self, points: NDArray[np.float64], layer: str, *, closed: bool = False) -> None:
        self._block.add_polyline2d([_at(point) for point in points], close=closed, dxfattribs={"layer": layer})

    def _points(self, ring: NDArray[np.float64]) -> None:
        """Turn points and curve points of the cut line: at every vertex one."""
        before, after = np.roll(ring, 1, axis=0), np.roll(ring, -1, axis=0)
        came, goes = ring - before, after - ring
        turns = np.abs(np.arctan2(came[:, 0] * goes[:, 1] - came[:, 1] * goes[:, 0], (came * goes).sum(axis=1)))
        for point, turn in zip(ring, turns, strict=True):
            self._block.add_point(_at(point), dxfattribs={"layer": TURN if turn >= CORNER else CURVE})

    def _spline(self, path: Path) -> None:
        """The cubics as one spline of degree three, its knots threefold where two of them meet: exactly the same curve."""
        points = [path.cubics[0][0], *(point for cubic in path.cubics for point in cubic[1:])]
        knots = [0.0] * 4 + [float(k) for k in range(1, len(path.cubics)) for _ in range(3)] + [float(len(path.cubics))] * 4
        spline = self._block.add_spline(dxfattribs={"layer": EXACT, "degree": 3})
        spline.control_points = [(*_at(point), 0.0) for point in points]
        spline.knots = knots


def _at(point: Iterable[float]) -> tuple[float, float]:
    """A place of the paper, y up; minus nought is nought."""
    x, y = point
    return float(x) + 0.0, -float(y) + 0.0
