"""Frozen values: runs, edges, darts, pieces, patterns, and places on them."""

from zesty_pivot.core.piece.dart import OPEN_USES, Dart, Hold, Parked, Shape, Use
from zesty_pivot.core.piece.edge import Edge, Notch, Run, Source
from zesty_pivot.core.piece.fisheye import FishEye
from zesty_pivot.core.piece.pattern import Extra, Measured, Opening, Pattern, Seam, StyleLine
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place

__all__ = [
    "OPEN_USES", "Dart", "Edge", "Extra", "FishEye", "Hold", "Measured", "Notch", "Opening", "Parked", "Pattern", "Piece",
    "Place", "Run", "Seam", "Shape", "Source", "StyleLine", "Use",
]  # fmt: skip
