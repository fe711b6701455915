"""Frozen values: runs, edges, darts, pieces, patterns, and places on them."""

from zesty_pivot.core.piece.edge import Edge, Run, Source
from zesty_pivot.core.piece.pattern import Pattern, Seam
from zesty_pivot.core.piece.piece import Dart, Piece, Use
from zesty_pivot.core.piece.place import Place

__all__ = ["Dart", "Edge", "Pattern", "Piece", "Place", "Run", "Seam", "Source", "Use"]
