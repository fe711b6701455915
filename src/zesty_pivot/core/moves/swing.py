"""Swing: the pin stays in the pivot, one part of the piece turns; what one dart loses another gains."""

from __future__ import annotations

from collections.abc import Callable, Iterable

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece.edge import Run
from zesty_pivot.core.piece.fisheye import FishEye
from zesty_pivot.core.piece.piece import Piece, Point
from zesty_pivot.core.piece.region import arc, contains, polygon
from zesty_pivot.core.record import replace


def swing(piece: Piece, closing: str, opening: str, angle: float) -> Piece:
    """The piece after `angle` radians of the dart `closing` have gone to the dart (or slit) `opening`.

    Both share a pivot. The part that holds the longer stretch of the centre stays still (CF and CB never
    move); in a piece without a centre, the part with the longer outline stays. The rotation is clockwise when the
    moving part runs up to the closing dart, anticlockwise when it starts there.

    Raises GeometryError when the pivots differ.
    """
    pivot = piece.dart(closing).pivot
    if pivot != piece.dart(opening).pivot:
        raise GeometryError(
            f"the darts {closing!r} and {opening!r} have different pivots",
            where=piece.name,
            advice="They cannot merge through one point.",
        )
    moving, sign = moving_part(piece, piece.mouth_run(closing), piece.mouth_run(opening))
    turn = sign * angle
    pin = piece.pivot(pivot)
    return carry(piece, moving, (pin,), Motion.turn(pin, turn), keep={pivot})


def moving_part(piece: Piece, closes: int, opens: int) -> tuple[tuple[int, ...], float]:
    """The runs that move when the mouth at the end of run `closes` shuts and the one at `opens` opens, and the sense of
    their turn (1 clockwise, -1 anticlockwise)."""
    before_closing = arc(piece, piece.after(opens), closes)
    after_closing = arc(piece, piece.after(closes), opens)
    if _weight(piece, before_closing) >= _weight(piece, after_closing):
        return after_closing, -1.0
    return before_closing, 1.0


def _weight(piece: Piece, indices: Iterable[int]) -> tuple[float, float]:
    """How strongly a part stays: its length of centre line in mm, then its whole length."""
    runs = [piece.runs[index] for index in indices]
    centre = sum(run.path.length for run in runs if piece.role(run.edge) == "centre")
    return centre, sum(run.path.length for run in runs)


def carry(piece: Piece, indices: tuple[int, ...], closing: tuple[Vector, ...], motion: Motion, keep: set[str]) -> Piece:
    """A piece with an arc of its ring moved, and with it every landmark inside that part, and the grain that lies in it; of a
    piece on the fold the grain stays as the fold does.

    `closing` are the points that close the arc to a region; landmarks named in `keep` stay where they are.
    """
    carried = set(indices)
    controls = np.concatenate([piece.runs[index].path.cubics.reshape(-1, 2) for index in indices] + [p[None] for p in closing])
    low, high = controls.min(axis=0), controls.max(axis=0)
    ring: NDArray[np.float64] | None = None

    def goes_along(at: Point) -> bool:
        """Whether a point lies in the moving part; the box of the control points settles most."""
        nonlocal ring
        if not (low[0] <= at[0] <= high[0] and low[1] <= at[1] <= high[1]):
            return False
        if ring is None:
            ring = polygon(piece, indices, closing)
        return contains(ring, np.array(at))

    def moved(at: Point) -> Point:
        x, y = motion(np.array(at))
        return float(x), float(y)

    runs = tuple(
        Run(run.edge, run.path.moved(motion), run.source, run.mouth) if index in carried else run
        for index, run in enumerate(piece.runs)
    )
    landmarks = {name: moved(at) if name not in keep and goes_along(at) else at for name, at in piece.landmarks.items()}
    grain = piece.grain
    if grain is not None and _carries_grain(piece, grain, carried, goes_along):
        grain = moved(grain[0]), moved(grain[1])
    fisheyes = tuple(eye.moved(motion) if goes_along(_whole_side(piece, eye, goes_along)) else eye for eye in piece.fisheyes)
    return replace(piece, runs=runs, landmarks=landmarks, grain=grain, fisheyes=fisheyes)


def _carries_grain(piece: Piece, grain: tuple[Point, Point], carried: set[int], goes_along: Callable[[Point], bool]) -> bool:
    fold = [index for index, run in enumerate(piece.runs) if run.edge == piece.fold]
    if fold:  # of one that is opened by a dart the longer part keeps the grain
        return max(fold, key=lambda index: piece.runs[index].path.length) in carried
    (x0, y0), (x1, y1) = grain
    return goes_along(((x0 + x1) / 2.0, (y0 + y1) / 2.0))


def _whole_side(piece: Piece, eye: FishEye, goes_along: Callable[[Point], bool]) -> Point:
    """A point of a fish-eye dart, all of which lies on one side of what moves. Raises GeometryError for one that is parted."""
    corners = (eye.top, eye.right, eye.bottom, eye.left)
    if len({goes_along(corner) for corner in corners}) > 1:
        what = f"the fish-eye dart {eye.id!r} would be parted"
        raise GeometryError(what, where=piece.name, advice="Choose a line that passes it.")
    return eye.top
