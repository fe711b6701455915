"""A digitiser that is not there: a hand that traces a piece, and what the line then sends."""

from __future__ import annotations

import random
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.bezier import are_straight
from zesty_pivot.core.intake.digitiser.device import Deed, Device
from zesty_pivot.core.intake.digitiser.stream import Press
from zesty_pivot.core.intake.traced import Point
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.record import record

TIMES = 3  # that a careful hand presses a corner
EVERY = 5.0  # mm between the places that a hand presses along a curve
ALONG = 8.0  # mm along a straight edge. All three common practice, no source


@record
class Hand:
    """How a piece is traced: how far the hand strays (mm, a standard deviation), by chance of which number, and how often it
    presses a corner."""

    strays: float = 0.15
    seed: int = 1
    times: int = TIMES


def presses(piece: Piece, at: Point = (0.0, 0.0), hand: Hand | None = None) -> list[Press]:
    """The presses of a hand that traces a piece: its edges with corners, darts along their legs, fish-eyes, grain, bust
    point; the piece shifted by `at`, mm."""
    hand = hand or Hand()
    chance = random.Random(hand.seed)
    found: list[Press] = []

    def press(point: Sequence[float] | np.ndarray, deed: Deed) -> None:
        for _time in range(hand.times if deed == "corner" else 1):
            x, y = (float(value) + shift + chance.gauss(0.0, hand.strays) for value, shift in zip(point, at, strict=True))
            found.append(Press(x, y, deed))

    for index, run in enumerate(piece.runs):
        for cubic in run.path.cubics:
            path = Path(cubic[None])
            is_start = cubic is run.path.cubics[0] or np.array_equal(cubic, run.path.cubics[0])
            press(path.start, "corner" if is_start else "curve")
            _along(path, press)
        if run.mouth:
            pin = piece.pivot(piece.dart(run.mouth).pivot)
            press(run.path.end, "corner")
            _along(Path.straight(run.path.end, pin), press)
            press(pin, "corner")
            _along(Path.straight(pin, piece.runs[piece.after(index)].path.start), press)
    press(found_start(piece), "close")
    for eye in piece.fisheyes:
        for corner in (*eye.corners, eye.corners[0]):
            press(corner, "leg")
        press(eye.corners[0], "close")
    if piece.grain is not None:
        for end in piece.grain:
            press(end, "grain")
    if "bust_point" in piece.landmarks:
        press(piece.landmarks["bust_point"], "point")
    press((0.0, 0.0), "next")
    return found


def found_start(piece: Piece) -> np.ndarray:
    """Where the tracing began."""
    return piece.runs[0].path.start


def _along(path: Path, press: object) -> None:
    """The places between a stretch's ends."""
    is_line = bool(are_straight(path.cubics).all())
    count = int(path.length // (ALONG if is_line else EVERY))
    for number in range(1, count + 1):
        press(path.point_at(path.length * number / (count + 1)), "line" if is_line else "curve")  # type: ignore[operator]


def sent(marks: Sequence[Press], device: Device) -> bytes:
    """Presses as a device sends them: a line each."""
    names = {deed: button for button, deed in reversed(device.buttons.items())}
    lines = [
        device.written(mark.x / device.mm, (-mark.y if device.y_up else mark.y) / device.mm, names[mark.deed]) for mark in marks
    ]
    return ("\r\n".join(lines) + "\r\n").encode("ascii")
