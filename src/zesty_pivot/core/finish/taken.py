"""The marks of fullness that is not sewn as a dart: gathers, ease and flare; tucks and pleats."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.finish.darts import SewnDart
from zesty_pivot.core.finish.marks import Text, notch
from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.moves.open_up import OpenedMouth
from zesty_pivot.core.piece import Use
from zesty_pivot.core.quantity import Scope, format_length
from zesty_pivot.core.record import record

# The words stand this far (mm) inside the edge, in letters this high. Common practice, no source.
WORDS_INSIDE, WORDS_SIZE = 14.0, 4.0

# The arrow of a pleat lies this far (mm) from the edge. Common practice, no source.
ARROW_INSIDE = 22.0

VERBS = {Use.GATHERS: "gather", Use.EASE: "ease", Use.FLARE: "flare"}


@record
class Marked:
    """Notches of a stretch or an arrow of a pleat, and the words beside it."""

    id: str
    notches: tuple[Path, ...]
    arrow: tuple[Path, ...]
    text: Text


def mark_opened(opened: OpenedMouth, ring: NDArray[np.float64], scope: Scope) -> Marked:
    """Notches where gathers or ease start and stop, and the words that say from what length to what."""
    inside = -opened.outwards
    notches: tuple[Path, ...] = ()
    if opened.dart.use is not Use.FLARE:
        notches = tuple(notch(end, end + inside * 50.0, ring) for end in (opened.start, opened.stop))
    lengths = f" {format_length(opened.open_mm, scope.unit)} to {format_length(opened.sewn_mm, scope.unit)}" if notches else ""
    at = opened.middle + inside * WORDS_INSIDE
    words = Text((float(at[0]), float(at[1])), VERBS[opened.dart.use] + lengths, WORDS_SIZE, upright(opened.outwards))
    return Marked(opened.dart.id, notches, (), words)


def mark_folded(dart: SewnDart) -> Marked:
    """The arrow of a tuck or pleat: from the line that is laid over to the line it is laid on; and its name."""
    near, far = dart.mouth if dart.fold == "before" else (dart.mouth[1], dart.mouth[0])
    inwards = unit(dart.point - np.mean(dart.mouth, axis=0))
    reach = min(ARROW_INSIDE, 0.5 * dart.legs[0].length)
    tip, tail = (end + (dart.point - end) * (reach / math.dist(end, dart.point)) for end in (near, far))
    along = unit(tip - tail)
    across = np.array([-along[1], along[0]])
    size = min(4.0, 0.4 * math.dist(tip, tail))
    head = Path.straight(tip - along * size + across * size * 0.5, tip, tip - along * size - across * size * 0.5)
    at = np.mean(dart.mouth, axis=0) + inwards * (reach + 8.0)
    text = Text((float(at[0]), float(at[1])), dart.use.value, WORDS_SIZE, upright(-inwards))
    return Marked(dart.dart, (), (Path.straight(tail, tip), head), text)


def upright(outwards: NDArray[np.float64]) -> float:
    """The turn (radians clockwise) of words along an edge, so that they can be read from below or from the right."""
    turn = math.atan2(outwards[0], -outwards[1])
    if turn > math.pi / 2.0 + 1e-9:
        turn -= math.pi
    elif turn < -math.pi / 2.0 - 1e-9:
        turn += math.pi
    return turn
