"""A half's lower edge from the side seam to the centre as it is sewn: across darts that are shut, and across panels."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.shaping import displaced
from zesty_pivot.core.piece import OPEN_USES, Pattern, Piece, Run, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record, replace

LOWER = ("waist", "hem")


@record
class _Stretch:
    """A run of the edge, and the motion that lays it beside the others as they are sewn."""

    piece: str
    run: int
    lay: Motion


def trimmed(pattern: Pattern, name: str, by: float) -> tuple[Pattern, float]:
    """The pattern with a half's lower edge raised by `by` mm at the centre (let down where negative), in one curve to nothing
    at the side seam, and how much longer (mm) the edge is. It leaves both ends in the directions that it had there.

    Raises StepError where the edge does not run from the side to the centre.
    """
    stretches = _stretches(pattern, name)
    before = [pattern.piece(one.piece).runs[one.run].path for one in stretches]
    laid = [path.moved(one.lay) for path, one in zip(before, stretches, strict=True)]
    starts = np.cumsum([0.0, *(path.length for path in laid)]).tolist()
    runs = {piece.name: list(piece.runs) for piece in pattern.pieces}
    ends: dict[int, tuple[Vector | None, Vector | None]] = dict.fromkeys(range(len(stretches)), (None, None))
    last = pattern.piece(stretches[-1].piece)
    centre = last.after(stretches[-1].run)
    top = _cut(runs[last.name], centre, by, at_start=True, name=name)
    ends[len(stretches) - 1] = (None, top)
    knots = [(0.0, np.zeros(2)), (starts[-1], stretches[-1].lay(top) - laid[-1].end)]
    for number in range(len(stretches) - 1):
        one, two = stretches[number], stretches[number + 1]
        if one.piece == two.piece:
            continue
        share = starts[number + 1] / starts[-1]
        there = by * share * share * (3.0 - 2.0 * share)
        left, right = pattern.piece(one.piece), pattern.piece(two.piece)
        corners = (
            _cut(runs[one.piece], left.after(one.run), there, at_start=True, name=name),
            _cut(runs[two.piece], (two.run - 1) % len(right.runs), there, at_start=False, name=name),
        )
        ends[number] = (ends[number][0], corners[0])
        ends[number + 1] = (corners[1], ends[number + 1][1])
        knots.insert(-1, (starts[number + 1], two.lay(corners[1]) - laid[number + 1].start))
    still = {0.0: np.zeros(2), starts[-1]: np.zeros(2)}
    for number, (one, path) in enumerate(zip(stretches, displaced(laid, knots, slopes=still), strict=True)):
        cubics = path.moved(one.lay.undone).cubics.copy()
        first, end = ends[number]
        if first is not None:
            cubics[0, 0] = first
        if end is not None:
            cubics[-1, 3] = end
        _keep_angle(pattern.piece(one.piece), runs[one.piece], one.run, cubics)
        runs[one.piece][one.run] = replace(runs[one.piece][one.run], path=Path(cubics))
    for piece in pattern.pieces:
        pattern = pattern.with_piece(replace(piece, runs=tuple(runs[piece.name])))
    after = sum(pattern.piece(one.piece).runs[one.run].path.length for one in stretches)
    return pattern, after - starts[-1]


def _keep_angle(piece: Piece, runs: list[Run], index: int, cubics: np.ndarray) -> None:
    """Moves the beginning of a run behind a mouth to where the dart keeps its angle: where its legs are unequal the longer one
    must be cut off by a hair more. The run before it is drawn already."""
    before = (index - 1) % len(runs)
    mouth = piece.runs[before].mouth
    if mouth is None:
        return
    pin, (first, second) = piece.pivot(piece.dart(mouth).pivot), piece.legs(mouth)
    shut = Motion.turn(pin, piece.angle(mouth))(runs[before].path.end)
    off = pin + (shut - pin) * (second / first) - cubics[0, 0]
    cubics[0, :2] += off


def _cut(runs: list[Run], index: int, by: float, *, at_start: bool, name: str) -> Vector:
    """A run cut off by a length at its lower end, or drawn on straight; the point where it ends then."""
    run = runs[index]
    path = run.path if at_start else run.path.reversed()
    source = run.source if at_start else run.source.turned()
    if by >= path.length - 1.0:
        raise StepError(f"the {words(name)} is not so long", where=name, advice="Trim less.")
    if by > 0.0:
        path, source = path.split_at(by)[1], source.parted(by / path.length)[1]
    elif by < 0.0:
        path = Path.chain([Path.straight(path.start + path.start_direction * by, path.start), path])
    runs[index] = replace(run, path=path if at_start else path.reversed(), source=source if at_start else source.turned())
    return path.start


def _stretches(pattern: Pattern, name: str) -> list[_Stretch]:
    """The runs of the lower edge from the side to the centre. Raises StepError where they do not make one line."""
    parts = (pattern.piece(name),) if pattern.has(name) else pattern.come_from(name)
    piece = next((part for part in parts if {"centre"} <= _roles(part) and _roles(part) & set(LOWER)), None)
    if piece is None or piece.is_unfolded:
        raise StepError("the piece has no lower edge at a centre", where=name, advice="Choose a half with its centre.")
    found: list[_Stretch] = []
    lay = Motion.shift(np.zeros(2))
    seen: set[str] = set()
    while True:
        seen.add(piece.name)
        indices = [index for index, run in enumerate(piece.runs) if piece.role(run.edge) in LOWER]
        for index in reversed(indices):
            mouth = piece.runs[index].mouth
            if mouth is not None and index == indices[-1]:
                what = f"the {dart_words(piece, mouth)} dart opens at the end of the {words(piece.runs[index].edge)}"
                raise StepError(what, where=piece.name, advice="Move it away first.")
            if mouth is not None:
                if piece.dart(mouth).use in OPEN_USES:
                    what = f"the {dart_words(piece, mouth)} dart is left open in the {words(piece.runs[index].edge)}"
                    raise StepError(what, where=piece.name, advice="Trim it before.")
                lay = Motion.turn(piece.pivot(piece.dart(mouth).pivot), piece.angle(mouth)).then(lay)
            found.insert(0, _Stretch(piece.name, index, lay))
        beside = piece.runs[(indices[0] - 1) % len(piece.runs)]
        if piece.role(beside.edge) != STYLE_LINE or beside.mouth is not None:
            return _whole(pattern, found, name)
        other = _partner(pattern, piece.name, beside.edge, seen)
        if other is None:
            return _whole(pattern, found, name)
        seam = next(run for run in other.runs if run.edge == beside.edge)
        down = beside.path.reversed()
        here, there = (
            (down.start, down.start + down.start_direction),
            (seam.path.start, seam.path.start + seam.path.start_direction),
        )
        lay = Motion.lay(there, here).then(lay)
        piece = other


def _whole(pattern: Pattern, found: list[_Stretch], name: str) -> list[_Stretch]:
    first, last = (pattern.piece(found[index].piece) for index in (0, -1))
    beside, behind = first.runs[(found[0].run - 1) % len(first.runs)], last.runs[last.after(found[-1].run)]
    if first.role(beside.edge) != "side_seam" or last.role(behind.edge) != "centre":
        what = f"the lower edge of the {words(name)} does not run from the side to the centre"
        raise StepError(what, where=name, advice="Trim it earlier.")
    return found


def _partner(pattern: Pattern, name: str, edge: str, seen: set[str]) -> Piece | None:
    """The panel beyond a style line."""
    for line in pattern.lines:
        if line.id == edge and name in line.panels:
            other = next(panel for panel in line.panels if panel != name)
            if pattern.has(other) and other not in seen and _roles(pattern.piece(other)) & set(LOWER):
                return pattern.piece(other)
    return None


def _roles(piece: Piece) -> set[str]:
    return {role for _edge, role in piece.roles}
