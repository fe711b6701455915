"""Cut into panels: a piece cut along a designed line through pivots, its darts shut into the seam."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence

import numpy as np

from zesty_pivot.core.errors import GeometryError, PlaceError, ZestyError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, between
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.cut import across, slit
from zesty_pivot.core.moves.join import moved, shut
from zesty_pivot.core.moves.style_lines import refuse_unclear
from zesty_pivot.core.moves.swing import carry, swing
from zesty_pivot.core.piece import Origin, Piece, Place, Run, Source
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.place import by_origin, mouth_at, point
from zesty_pivot.core.piece.region import arc
from zesty_pivot.core.record import record, replace

STYLE_LINE = "style_line"

_HELD = "*line."  # a dart that waits while the line is cut is called this and its pivot

# Shares of an arc of the outline where darts may wait, the likeliest first.
_TRIES = (0.5, 0.35, 0.65, 0.2, 0.8, 0.1, 0.9, 0.43, 0.57)


@record
class Through:
    """A pivot that the line goes through, or passes by `offset` mm (towards the side when positive), with the darts round it
    that go into the seam. Where they are bent to the line, `bent_to` is the landmark on it that they lead to."""

    pivot: str
    offset: float
    darts: tuple[str, ...]
    bent_to: str = ""

    @property
    def pin(self) -> str:
        """The landmark that the darts lead to."""
        return self.bent_to or self.pivot


@record
class Panels:
    """The two panels as they are cut, laid as the darts let them lie: `side` is the part from the line's top clockwise to its
    bottom. `angles` are the fullness (radians) at each pivot, measured between the panels."""

    centre: Piece
    side: Piece
    edge: str
    angles: tuple[tuple[str, float], ...]

    @property
    def bottom_role(self) -> str:
        """The role of the edge that the line ends on."""
        runs = self.side.runs
        first = next(index for index, run in enumerate(runs) if run.edge == self.edge)
        return self.side.role(runs[first - 1].edge)

    def stretches(self, of_side: bool) -> tuple[Path, ...]:
        """The line on a panel from its top to its bottom, parted at the pivots."""
        piece = self.side if of_side else self.centre
        paths = tuple(run.path for run in piece.runs if run.edge == self.edge)
        return tuple(path.reversed() for path in reversed(paths)) if of_side else paths


Draw = Callable[[Piece], tuple[Place, Place, tuple[Path, ...]]]


def cut_panels(
    piece: Piece, drafted: Piece, throughs: Sequence[Through], draw: Draw, edge: str, names: tuple[str, str], left: str
) -> Panels:
    """A half piece cut into its centre and its side panel.

    The darts of the line wait in one slash to the outline while `draw` draws the line on the piece (its top, its bottom, and
    its stretches between the pivots); it is cut, and each panel shuts what waits in it, so nothing is stretched and the
    panels hold exactly the darts' angles. Where the line passes a pivot, the fullness stays in that panel as a dart `left`
    from the line to the pivot. The centre lies still; the side is laid to the line's upper stretch and turned until its side
    seam lies as it was drafted, so that wherever the darts were, the panels lie alike. A hem cannot open: on a hip-length
    piece all of the fullness shows above.

    Raises GeometryError or PlaceError when no clear way is found.
    """
    fault: ZestyError | None = None
    whole = sum(piece.angle(dart) for dart in throughs[0].darts)
    for waiting in _waiting(piece, throughs, draw):
        try:
            top, bottom, stretches = draw(waiting)
            refuse_unclear(waiting, Path.chain(stretches))
            panels = _cut(waiting, throughs, (top, bottom), stretches, edge, names, left)
            one, two = panels.stretches(False)[0], panels.stretches(True)[0]
            lay = Motion.lay((two.end, two.start), (one.end, one.start))
            turn = Motion.turn(one.end, whole if drafted.is_hip_length else _as_drafted(panels.side, drafted, lay))
            both = Motion(turn.matrix @ lay.matrix, lay.origin, turn(lay.target))
            return replace(panels, side=moved(panels.side, both))
        except ZestyError as found:
            fault = fault or found
    raise fault or GeometryError("the line has no clear way", where=piece.name, advice="Take it elsewhere.")


def _waiting(piece: Piece, throughs: Sequence[Through], draw: Draw) -> Iterator[Piece]:
    """The piece with the darts of every pivot in one slash each, at places that the line does not cross."""
    if not any(through.darts for through in throughs):
        yield piece
        return
    fault: ZestyError | None = None
    found = False
    for share in _TRIES:
        made = piece
        try:
            for number, through in enumerate(throughs):
                if through.darts:
                    made = _gathered(made, through, draw, share + 0.04 * number)
        except ZestyError as trouble:
            fault = fault or trouble
            continue
        found = True
        yield made
    if not found:
        raise fault or GeometryError("there is no place to put the darts aside", where=piece.name, advice="Move them first.")


def _gathered(piece: Piece, through: Through, draw: Draw, share: float) -> Piece:
    """The darts of one pivot swung into a slash, in the part of the outline that will hold the pivot."""
    top, bottom, _stretches = draw(piece)
    first, last = (bottom, top) if through.offset > 0.0 else (top, bottom)
    place = _within(piece, first, last, share)
    held = _HELD + through.pin
    made = slit(piece, place, through.pin, held)
    for dart in through.darts:
        made = shut(swing(made, dart, held, made.angle(dart)), dart)
    return made


def _within(piece: Piece, first: Place, last: Place, share: float) -> Place:
    """A place of the outline clockwise between two others, not on the centre."""
    indices = arc(piece, first.run, last.run)
    if first.run == last.run and last.at <= first.at:
        indices = (*arc(piece, first.run, (first.run - 1) % len(piece.runs)), last.run)
    parts: list[tuple[int, float, float]] = []
    for number, index in enumerate(indices):
        low = first.at if number == 0 else 0.0
        high = last.at if number == len(indices) - 1 else piece.runs[index].path.length
        if high - low > JOIN_TOL and piece.role(piece.runs[index].edge) != "centre":
            parts.append((index, low, high))
    goal = share * sum(high - low for _index, low, high in parts)
    for index, low, high in parts:
        if goal <= high - low:
            return Place(index, low + goal)
        goal -= high - low
    raise PlaceError("there is no room beside that line", where=piece.name, advice="Take it elsewhere.")


def _cut(
    piece: Piece, throughs: Sequence[Through], ends: tuple[Place, Place], stretches: tuple[Path, ...], edge: str,
    names: tuple[str, str], left: str,
) -> Panels:  # fmt: skip
    if any(mouth_at(piece, end) for end in ends):
        taken = next(mouth_at(piece, end) for end in ends if mouth_at(piece, end))
        raise GeometryError(
            f"the {words(taken or '')} dart opens where the line ends", where=piece.name, advice="Take it into the line."
        )
    centre, side = across(piece, *ends, Path.chain(stretches), edge, STYLE_LINE, names)
    for through in throughs:  # on the line itself inside and outside cannot be told
        mark = {through.pin: piece.landmarks[through.pin]}
        if through.offset <= 0.0:
            side = replace(side, landmarks={**side.landmarks, **mark})
        if through.offset >= 0.0:
            centre = replace(centre, landmarks={**centre.landmarks, **mark})
    centre, side = _parted(centre, edge, stretches, turned=False), _parted(side, edge, stretches, turned=True)
    angles: list[tuple[str, float]] = []
    for number, through in enumerate(throughs):
        held = _HELD + through.pin
        if not through.darts:
            continue
        if through.offset == 0.0:
            side, angle = _shut_into(side, edge, number, throughs, held)
            angles.append((through.pivot, angle))
        elif through.offset > 0.0:
            centre = _left_over(centre, edge, number, held, left)
        else:
            side = _left_over(side, edge, len(stretches) - 2 - number, held, left)
    if any(dart.id.startswith(_HELD) for panel in (centre, side) for dart in panel.darts):
        raise GeometryError("the darts do not reach that line", where=piece.name, advice="Begin and end it further apart.")
    return Panels(centre, side, edge, tuple(angles))


def _as_drafted(side: Piece, drafted: Piece, lay: Motion) -> float:
    """The turn (radians) after `lay` that lays the lowest stretch of a panel's side seam as it was drafted; none for a panel
    without."""
    runs = [run for run in side.runs if side.role(run.edge) == "side_seam" and run.source.u1 > run.source.u0]
    lowest = max(runs, key=lambda run: run.source.u1, default=None)
    if lowest is None:
        return 0.0
    shares = (0.1, 0.9)  # not the ends, where a dart may open and two places have one provenance
    try:
        before = [point(drafted, by_origin(drafted, Origin(lowest.source.edge, lowest.source.at(share)))) for share in shares]
    except PlaceError:
        return 0.0
    now = [lowest.path.point_at(lowest.path.length * share) for share in shares]
    return between(lay(now[1]) - lay(now[0]), before[1] - before[0])


def _parted(piece: Piece, edge: str, stretches: tuple[Path, ...], *, turned: bool) -> Piece:
    """The piece with its line in one run for each stretch; u runs from its top to its bottom by length."""
    lengths = np.cumsum([0.0, *(path.length for path in stretches)])
    source = f"{piece.of or piece.name}.{edge}"
    runs = [
        Run(edge, path, Source(source, float(low / lengths[-1]), float(high / lengths[-1])))
        for path, low, high in zip(stretches, lengths, lengths[1:], strict=False)
    ]
    if turned:
        runs = [Run(edge, run.path.reversed(), run.source.turned()) for run in reversed(runs)]
    at = next(index for index, run in enumerate(piece.runs) if run.edge == edge)
    return replace(piece, runs=(*piece.runs[:at], *runs, *piece.runs[at + 1 :]))


def _line_runs(piece: Piece, edge: str) -> list[int]:
    return [index for index, run in enumerate(piece.runs) if run.edge == edge]


def _shut_into(side: Piece, edge: str, number: int, throughs: Sequence[Through], held: str) -> tuple[Piece, float]:
    """What waits shut in the side panel about a pivot on its line, and the corner (radians) that the line has there now."""
    pivot = throughs[number].pin
    on_line = [other.pin for other in throughs if other.offset == 0.0]
    line = _line_runs(side, edge)
    joint = line[len(line) - 2 - number]  # the panel's line is walked from its bottom
    pin, angle = side.pivot(pivot), side.angle(held)
    moving = arc(side, side.after(side.mouth_run(held)), joint)
    turn = Motion.turn(pin, -angle)
    turned = carry(side, moving, (pin,), turn, keep=set(on_line))
    marks = dict(turned.landmarks)
    for below in on_line[on_line.index(pivot) + 1 :]:  # they lie on the line itself, where inside and outside cannot be told
        x, y = turn(np.array(side.landmarks[below]))
        marks[below] = (float(x), float(y))
    made = shut(replace(turned, landmarks=marks), held)
    line = _line_runs(made, edge)
    joint = line[len(line) - 2 - number]
    before, behind = made.runs[joint].path, made.runs[made.after(joint)].path
    return made, between(before.end_direction, behind.start_direction)


def _left_over(panel: Piece, edge: str, number: int, held: str, left: str) -> Piece:
    """What waits swung to the line: a short dart from it to the pivot that it passes."""
    joint = _line_runs(panel, edge)[number]
    pivot = panel.dart(held).pivot
    made = slit(panel, Place(joint, panel.runs[joint].path.length), pivot, left)
    return shut(swing(made, held, left, made.angle(held)), held)


def drawn(points: Sequence[Vector], bows: tuple[float, float]) -> tuple[Path, ...]:
    """A style line from point to point, smooth where it passes one, each stretch one cubic that is straight at the line's ends.

    `bows` (mm) are how far the first and the last stretch stand off at their middle, towards the side when positive.
    """
    found: list[Path] = []
    last = len(points) - 2
    for number in range(last + 1):
        start, stop = points[number], points[number + 1]
        way = stop - start
        size = math.hypot(way[0], way[1])
        if size <= JOIN_TOL * 10.0:
            raise GeometryError("two points of the line coincide", advice="Begin or end it elsewhere.")
        aside = np.array([way[1], -way[0]]) / size * (8.0 / 3.0)
        one, two = start + way / 3.0, stop - way / 3.0
        if number > 0:
            one = start + _passing(points, number) * size / 3.0
        if number < last:
            two = stop - _passing(points, number + 1) * size / 3.0
        if number == 0 < last:  # no bend at the end, so that it turns one way: P1 midway between P0 and P2
            one = (start + two) / 2.0
        if number == last > 0:
            two = (one + stop) / 2.0
        if number == 0:
            one = one + aside * bows[0]
        if number == last:
            two = two + aside * bows[1]
        found.append(Path(np.array([[start, one, two, stop]])))
    return tuple(found)


def _passing(points: Sequence[Vector], number: int) -> Vector:
    """The direction of a line where it passes one of its inner points: between the ways to its neighbours, nearer to that of
    the nearer one, so that with ends that do not bend the curvature is the same on both sides (a natural cubic spline)."""
    before, behind = points[number] - points[number - 1], points[number + 1] - points[number]
    return unit(before / float(before @ before) + behind / float(behind @ behind))
