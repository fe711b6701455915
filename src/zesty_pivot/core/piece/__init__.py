"""Frozen values: runs, edges, darts, pieces, patterns, and places on them."""

from zesty_pivot.core.piece.called import called, dart_called, dart_id, dart_key, dart_words
from zesty_pivot.core.piece.dart import OPEN_USES, Dart, Hold, LetIn, Parked, Shape, Use
from zesty_pivot.core.piece.edge import Edge, Notch, Origin, Run, Source
from zesty_pivot.core.piece.fisheye import FishEye
from zesty_pivot.core.piece.fullness import Fullness, LetLine, Lies, Taking
from zesty_pivot.core.piece.hanging import Hang, TurnedBack
from zesty_pivot.core.piece.mark import Mark
from zesty_pivot.core.piece.pattern import Extra, Follow, Joined, Measured, Opening, Pattern, StyleLine
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place
from zesty_pivot.core.piece.refs import DartRef, EdgeRef, Seam, SeamSide
from zesty_pivot.core.piece.sides import Body, Side

__all__ = [
    "OPEN_USES", "Body", "Dart", "DartRef", "Edge", "EdgeRef", "Extra", "FishEye", "Follow", "Fullness", "Hang", "Hold",
    "Joined", "LetIn", "LetLine", "Lies", "Mark", "Measured",
    "Notch", "Opening", "Origin", "Parked", "Pattern", "Piece", "Place", "Run", "Seam", "SeamSide", "Shape", "Side",
    "Source", "StyleLine", "Taking", "TurnedBack", "Use", "called", "dart_called", "dart_id", "dart_key", "dart_words",
]  # fmt: skip
