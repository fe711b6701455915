"""A draft as a block file: its pieces, edges, darts, levels and landmarks, with method, settings and measurements."""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np

from zesty_pivot.core.drafting.draft import Draft, DraftError, draft
from zesty_pivot.core.drafting.evaluate import Surroundings, holds, worth
from zesty_pivot.core.drafting.expression import names_in, parsed
from zesty_pivot.core.drafting.method import ALWAYS, Method, MethodDart, MethodEdge, MethodFishEye, MethodPiece
from zesty_pivot.core.drafting.values import Inked, Number, Point
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockDart, BlockEdge, BlockFile, BlockFishEye, BlockPiece
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.bezier import is_straight
from zesty_pivot.core.measure import MEASUREMENTS

Coordinate = tuple[float, float]

# Where the grain line stands on a drafted piece: this share of the width at the underarm from the centre, over this part of its
# height. Our own choice: clear of the neck, and of the waist dart of most figures.
GRAIN_OUT, GRAIN_FROM, GRAIN_TO = 0.16, 0.3, 0.85


def drafted(
    method: Method, measures: Mapping[str, float], settings: Mapping[str, str], name: str = "", *, is_own: bool = False
) -> BlockFile:
    """The block of a method for measurements in mm. Raises DraftError where it cannot be drawn, FormulaError for a setting."""
    return block_of(draft(method, measures, settings), name, is_own=is_own)


def block_of(drawn: Draft, name: str = "", *, is_own: bool = False) -> BlockFile:
    """The block file of a draft. `is_own` carries the method inside, for one that is not the program's.

    Raises DraftError where what was drawn is no sound block: an outline that crosses itself, a dart without an angle.
    """
    method = drawn.method
    block = BlockFile(
        name=(name or method.title)[:200],
        measurements={known: round(drawn.measures[known], 6) for known in sorted(drawn.measures) if known in MEASUREMENTS},
        pieces=tuple(_Piece(drawn, piece).made() for piece in method.pieces),
        method=method.id,
        settings=dict(drawn.settings),
        own_method=method if is_own else None,
    )
    try:
        block_file.pattern(block)
    except FileError as fault:
        place = fault.where.removeprefix("block, ")
        advice = "Measure again, or set other conventions."
        raise DraftError(
            f"the draft comes to no block: {fault.what}", where=f"{method.title}, {place}", advice=advice
        ) from None
    return block


def block_name(method: Method, person: str) -> str:
    """What a drafted block is called: by its method, and the person where there is a name."""
    return f"{method.title}, {person}" if person else method.title


class _Piece:
    """Reads one piece off a draft."""

    def __init__(self, drawn: Draft, piece: MethodPiece) -> None:
        self._drawn, self._piece = drawn, piece
        self._around = Surroundings(drawn.names, piece.name)

    def made(self) -> BlockPiece:
        piece = self._piece
        darts = [dart for dart in piece.darts if not dart.when or holds(parsed(dart.when), self._around)]
        eyes = tuple(self._fisheye(eye) for eye in piece.fisheyes)
        return BlockPiece(
            name=piece.name,
            body=piece.body,
            fold=self._fold(),
            landmarks={name: self._point(point) for name, point in piece.landmarks.items()},
            levels={name: mm for name, text in piece.levels.items() if (mm := self._length(text)) is not None},
            edges=tuple(self._edge(edge) for edge in piece.edges),
            darts=tuple(self._dart(dart) for dart in darts),
            fisheyes=eyes,
            grain=self._grain(),
            allowances={edge: mm for edge, text in piece.allowances.items() if (mm := self._length(text))},
        )

    def _fold(self) -> str | None:
        fold = self._piece.fold
        is_on = fold == ALWAYS or (bool(fold) and holds(parsed(fold), self._around))
        return next(edge.id for edge in self._piece.edges if edge.role == "centre") if is_on else None

    def _point(self, name: str) -> Coordinate:
        found = self._drawn.value(self._piece.name, name)
        if not isinstance(found, Point):
            raise DraftError(f"no point {name!r} was drawn", where=f"{self._drawn.method.title}, {self._piece.name}")
        return _rounded(found.at)

    def _length(self, text: str) -> float | None:
        """A length in mm, or None where it hangs on something that is not known, or is none."""
        node = parsed(text)
        if any(self._around.key(name) is None for name in names_in(node) if name in MEASUREMENTS):
            return None
        found = worth(node, self._around)
        return round(found.amount, 6) if isinstance(found, Number) else None

    def _edge(self, edge: MethodEdge) -> BlockEdge:
        strokes = [self._drawn.value(self._piece.name, name) for name in edge.strokes]
        paths = [stroke.path for stroke in strokes if isinstance(stroke, Inked)]
        if not paths:
            raise DraftError(f"nothing of the {edge.id} was drawn", where=f"{self._drawn.method.title}, {self._piece.name}")
        return BlockEdge(id=edge.id, role=edge.role, path=_path_data(paths))

    def _dart(self, dart: MethodDart) -> BlockDart:
        even = self._length(dart.even) if dart.even else None
        mouth = (self._point(dart.mouth[0]), self._point(dart.mouth[1]))
        return BlockDart(
            id=dart.id, edge=dart.edge, mouth=mouth, point=self._point(dart.point), pivot=dart.pivot, even=even or None
        )

    def _fisheye(self, eye: MethodFishEye) -> BlockFishEye:
        top, point = self._point(eye.top), self._point(eye.point) if eye.point else None
        waist = (self._point(eye.waist[0]), self._point(eye.waist[1]))
        own = point if point != top else None
        return BlockFishEye(id=eye.id, top=top, waist=waist, bottom=self._point(eye.bottom), point=own)

    def _grain(self) -> tuple[Coordinate, Coordinate] | None:
        """A line beside the centre; none where a landmark is missing, which the reader of the block tells."""
        marks = self._piece.landmarks
        low = marks.get("centre_hem") or marks.get("centre_waist")
        if low is None or not {"underarm", "centre_neck"} <= set(marks):
            return None
        (x, _y), (_x, top), (_cx, foot) = self._point(marks["underarm"]), self._point(marks["centre_neck"]), self._point(low)
        out = round(GRAIN_OUT * x, 6)
        first, last = (round(top + (foot - top) * share, 6) for share in (GRAIN_FROM, GRAIN_TO))
        return (out, first), (out, last)


def _rounded(at: np.ndarray) -> Coordinate:
    return round(float(at[0]), 6) + 0.0, round(float(at[1]), 6) + 0.0


def _path_data(paths: list[Path]) -> str:
    """SVG path data; a new subpath where the strokes do not meet."""
    parts: list[str] = []
    end: np.ndarray | None = None
    for path in paths:
        if end is None or math.dist(end, path.start) > JOIN_TOL:
            parts.append(f"M {_told(path.start)}")
        for cubic in path.cubics:
            told = [_told(cubic[3])] if is_straight(cubic) else [_told(point) for point in cubic[1:]]
            parts.append(f"{'L' if len(told) == 1 else 'C'} {' '.join(told)}")
        end = path.end
    return " ".join(parts)


def _told(at: np.ndarray) -> str:
    return " ".join(f"{value:.6f}".rstrip("0").rstrip(".") for value in _rounded(at))
