"""7: whatever is open below the chest line uncovers the bust: a neckline, a keyhole, a slit, where a wrap's halves cross."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator

import numpy as np

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import Motion, between
from zesty_pivot.core.piece import Body, Origin, Pattern, Piece, Run
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

LEAST = 0.5  # mm below the chest line from which it is told
GAP = 2.0  # mm of the centre that are gone from which it is an opening, not a seam that was trued. Our own choice


def _run(look: Look) -> Iterable[Finding]:
    unit = look.scope.unit
    for drafted in look.block.pieces:
        parts = look.pattern.come_from(drafted.name)
        worn = {part.role(run.edge) for part in parts for run in part.runs}
        if drafted.body is Body.BACK or "chest" not in drafted.levels or "shoulder" not in worn:
            continue
        for piece, what, low in _openings(look.pattern, drafted, parts):
            below = low - drafted.levels["chest"]
            if below > LEAST:
                yield Finding(
                    "uncovered", Severity.WARNING, piece.name, "neckline:depth",
                    f"{what} goes {format_length(below, unit)} below the chest line: it uncovers the bust",
                    below, 0.0, "mm", "Raise it, or plan what is worn under it.",
                )  # fmt: skip


def _openings(pattern: Pattern, drafted: Piece, parts: tuple[Piece, ...]) -> Iterator[tuple[Piece, str, float]]:
    """What is open at the top or at the centre: on which piece, what it is called, and its lowest height (mm) on the piece as
    it was drafted, for darts may have swung its paper."""
    for piece in parts:
        low = _neckline(piece, drafted)
        if low is not None:
            yield piece, f"the {words(piece.name)} neckline", low
    yield from ((piece, f"the opening in the {words(piece.name)}", low) for piece, low in _holes(drafted, parts))
    slits = [opening.piece for opening in pattern.openings if opening.kind == "slit"]
    for piece in parts:
        for mark in piece.notches if piece.name in slits else ():
            low = _drafted_height(drafted, mark.at) if mark.id == "slit.end" else None
            if low is not None:
                yield piece, f"the slit in the {words(piece.name)}", low


def _neckline(piece: Piece, drafted: Piece) -> float | None:
    """The lowest height of a neckline between the points of the bust, its darts shut, as the piece was drafted; None where it
    changed nothing. Of a piece that crosses over, only what the other half leaves open: down to the centre line."""
    known = {run.source.line for run in drafted.runs if drafted.role(run.edge) == "neckline"}
    if all(run.source.line in known for run in piece.runs if piece.role(run.edge) == "neckline"):
        return None
    bust = abs(float(drafted.landmarks["bust_point"][0])) if "bust_point" in drafted.landmarks else np.inf
    crosses = not piece.is_unfolded and any(piece.role(run.edge) == "overlap" for run in piece.runs)
    motion, found = _frame(piece, drafted), -np.inf
    for run in piece.runs:
        if piece.role(run.edge) != "neckline":
            continue
        points = motion(run.path.flatten(0.05))
        if crosses:
            points = _right_of_centre(points)
        within = points[np.abs(points[:, 0]) <= bust]
        found = max(found, float(within[:, 1].max(initial=-np.inf)))
        if run.mouth is not None:
            motion = _closed(piece, run).then(motion)
    return found if np.isfinite(found) else None


def _right_of_centre(points: np.ndarray) -> np.ndarray:
    """The part of a line (n, 2) at or beyond the centre, x >= 0, with the point where it crosses."""
    crossed = [a + (b - a) * (a[0] / (a[0] - b[0])) for a, b in itertools.pairwise(points) if (a[0] < 0.0) != (b[0] < 0.0)]
    return np.vstack([points[points[:, 0] >= 0.0], *crossed])


def _frame(piece: Piece, drafted: Piece) -> Motion:
    """What lays the paper beside the upper end of the centre as it was drafted."""
    first = next(index for index, run in enumerate(piece.runs) if piece.role(run.edge) == "neckline")
    run = piece.runs[first - 1]
    if piece.role(run.edge) != "centre" or run.path.length < GAP:
        return Motion.shift(np.zeros(2))
    source = run.source
    ends = [_drafted(drafted, Origin(source.edge, u, source.is_mirrored)) for u in (source.u0, source.u1)]
    if ends[0] is None or ends[1] is None:
        return Motion.shift(np.zeros(2))
    return Motion.lay((run.path.end, run.path.start), (ends[1], ends[0]))


def _closed(piece: Piece, run: Run) -> Motion:
    """What turns the paper beyond a mouth to where it lies with the dart shut."""
    assert run.mouth is not None
    pin, (first, second) = piece.pivot(piece.dart(run.mouth).pivot), piece.mouth(run.mouth)
    return Motion.turn(pin, between(second - pin, first - pin))


def _holes(drafted: Piece, parts: tuple[Piece, ...]) -> Iterator[tuple[Piece, float]]:
    """Where the centre is gone between two stretches of it that are left: the pieces above, and the lowest heights."""
    left: list[tuple[float, float, Piece]] = []
    for part in parts:
        for run in part.runs if not part.is_unfolded else ():
            if part.role(run.edge) == "centre":
                ends = [_drafted_height(drafted, Origin(run.source.edge, u)) for u in (run.source.u0, run.source.u1)]
                if ends[0] is not None and ends[1] is not None:
                    left.append((min(ends[0], ends[1]), max(ends[0], ends[1]), part))
    left.sort(key=lambda stretch: stretch[0])
    for above, (top, _bottom, _part) in itertools.pairwise(left):
        if top > above[1] + GAP:
            yield above[2], top


def _drafted(drafted: Piece, at: Origin) -> np.ndarray | None:
    try:
        return places.point(drafted, places.by_origin(drafted, at))
    except PlaceError:
        return None


def _drafted_height(drafted: Piece, at: Origin) -> float | None:
    """The height (y, mm) of a place of the cloth on the piece as it was drafted; None where the piece did not have it."""
    point = _drafted(drafted, at)
    return None if point is None else float(point[1])


CHECK = Check("uncovered", "Nothing is open below the chest line", _run)
