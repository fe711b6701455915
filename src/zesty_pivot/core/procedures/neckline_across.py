"""A neckline that goes on across a style line: the side panel laid to the centre panel where the edge crosses the line."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from zesty_pivot.core.errors import GeometryError, StepError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.crossing import of_curves, with_line
from zesty_pivot.core.moves.join import moved
from zesty_pivot.core.moves.neckline import cut_away
from zesty_pivot.core.necklines.base import Drawn, EdgePart
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece, Seam, Source
from zesty_pivot.core.piece.bodice_half import BodiceHalf, nearest_place
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.into_panels import with_panels
from zesty_pivot.core.record import record, replace

_ROUNDS = 12
EASED_OVER = 50.0  # mm below the point: as far as the notch. Common practice, no source.
_STILL = 1e-9  # mm; the crossing has settled


@record
class Beyond:
    """What lies on the side panel: its name, the new edge's parts there in its own coordinates, and on the centre panel, as far
    as the line `edge`."""

    side: Piece
    edge: str
    inner: tuple[EdgePart, ...]
    outer: tuple[EdgePart, ...]


def side_of_line(pattern: Pattern, centre: str) -> tuple[Piece, str] | None:
    """The panel beyond the style line of a centre panel, if that line leads up, and the line's edge."""
    for line in pattern.lines:
        if line.panels[0] == centre and pattern.has(line.panels[1]):
            panel = pattern.piece(line.panels[1])
            if {"shoulder", "armhole"} & set(dict(panel.roles).values()) and line.id in dict(panel.roles):
                return panel, line.id
    return None


def drawn_across(
    bodice: BodiceHalf, side: Piece, edge: str, draw: Callable[[BodiceHalf], Drawn | None]
) -> tuple[BodiceHalf, Drawn | None, Beyond | None]:
    """A shape drawn over both panels. The side panel is laid so that both lines run on into each other where the edge crosses
    them, which is sought in a few rounds; then what is sewn crosses the seam without a corner.

    Raises GeometryError or PlaceError when it cannot be drawn.
    """
    return _drawn(bodice, side, edge, draw, lambda drawn: (drawn.parts,))[:3]


def drawn_over_both(
    bodice: BodiceHalf, side: Piece, edge: str, draw: Callable[[BodiceHalf], Drawn | None]
) -> tuple[BodiceHalf, Drawn | None, Beyond | None, bool]:
    """As `drawn_across`, for a shape that goes over the centre to the other side; also, whether what lies beyond is on the side
    that halves are not drawn on. Raises as it does, and StepError when it crosses both lines or not the centre."""

    def sides(drawn: Drawn) -> tuple[tuple[EdgePart, ...], ...]:
        near, far = outwards(drawn.path, float(bodice.nape[0]), bodice.piece.name)
        if drawn.parts[0].role == drawn.parts[-1].role:
            return (EdgePart(near),), (EdgePart(far),)
        curve, end = far.split_at(far.length - drawn.parts[0].path.length)  # of a wrap
        return (EdgePart(near),), (EdgePart(curve), EdgePart(end, drawn.parts[0].role))

    return _drawn(bodice, side, edge, draw, sides)


def outwards(path: Path, middle: float, name: str) -> tuple[Path, Path]:
    """An edge that comes from the far side, x < `middle`, as two from the centre outwards: the near one as it lies, the far one
    turned over. Raises StepError when it does not cross the centre."""
    hits = with_line(path.cubics, np.array([middle, 0.0]), np.array([0.0, 1.0]))
    if not hits:
        raise StepError("the edge does not cross the centre", where=name, advice="Choose another shape.")
    far, near = path.split_at(path.distance_of(hits[0][0], hits[0][1]))
    return near, far.moved(Motion.reflect(np.array([middle, 0.0]), np.array([0.0, 1.0]))).reversed()


def _drawn(
    bodice: BodiceHalf, side: Piece, edge: str, draw: Callable[[BodiceHalf], Drawn | None],
    ways: Callable[[Drawn], Sequence[Sequence[EdgePart]]],
) -> tuple[BodiceHalf, Drawn | None, Beyond | None, bool]:  # fmt: skip
    """A shape drawn over both panels, whose `ways` go from the centre outwards, and whether it is the second that crosses."""
    one, two = _line(bodice.piece, edge, from_end=False), _line(side, edge, from_end=True)
    at, point = 0.0, one.length - next(run for run in reversed(bodice.piece.runs) if run.edge == edge).path.length
    last: tuple[float, float] | None = None
    for _ in range(_ROUNDS):
        # What the side panel has more is eased in below the crossing; what was eased in above it is gone.
        eased = min(max((at - point) / EASED_OVER, 0.0), 1.0) * (two.length - one.length)
        lay = _laid(one, two, at, eased)
        both = replace(bodice, more=moved(side, lay))
        drawn = draw(both)
        if drawn is None:
            return both, None, None, False
        parts = ways(drawn)
        met = [_crossings(Path.chain([part.path for part in way]), one) for way in parts]
        crossing = [number for number, hits in enumerate(met) if hits]
        if not crossing:
            return both, drawn, None, False
        if len(crossing) > 1:
            what = "the neckline crosses the style lines of both sides"
            raise GeometryError(what, where=side.name, advice="Shape it before the style line.")
        way, hits = parts[crossing[0]], met[crossing[0]]
        if len(hits) > 1:
            what = "the neckline crosses the style line more than once"
            raise GeometryError(what, where=side.name, advice="Shape it before the style line.")
        along, down = hits[0]
        if abs(down - at) <= _STILL:
            inner, outer = _split(way, along)
            if not inner or not outer:
                what = "the neckline begins on the style line"
                raise GeometryError(what, where=side.name, advice="Shape it before the style line.")
            own = tuple(EdgePart(part.path.moved(lay.undone), part.role) for part in outer)
            return both, drawn, Beyond(side, edge, inner, own), crossing[0] > 0
        at, last = _next(at, down, last), (at, down)
    raise GeometryError("the neckline runs along the style line", where=side.name, advice="Make it wider or narrower.")


def _next(at: float, down: float, last: tuple[float, float] | None) -> float:
    """Where to lay the panels next, when laid at a distance the edge crosses at another: by the secant of the last two."""
    if last is None or abs(at - last[0]) < _STILL:
        return down
    slope = (down - last[1]) / (at - last[0])
    return down if abs(1.0 - slope) < 0.1 else at + (down - at) / (1.0 - slope)


def _line(piece: Piece, edge: str, *, from_end: bool) -> Path:
    """A panel's line from its top, as far as no mouth opens in it."""
    runs = [run for run in piece.runs if run.edge == edge]
    found: list[Path] = []
    if from_end:
        for number, run in enumerate(reversed(runs)):
            if number and run.mouth is not None:
                break
            found.append(run.path.reversed())
    else:
        for run in runs:
            found.append(run.path)
            if run.mouth is not None:
                break
    return Path.chain(found)


def _laid(one: Path, two: Path, at: float, more: float) -> Motion:
    """How the side panel's line `two` is laid to the centre's `one` at a distance along it; `more` is what is eased into the
    side panel above."""
    places = []
    for line, distance in ((two, at + more), (one, at)):
        where = min(distance, line.length)
        point = line.point_at(where)
        places.append((point, point + line.direction_at(where)))
    return Motion.lay(places[0], places[1])


def _crossings(path: Path, line: Path) -> list[tuple[float, float]]:
    """Where an edge crosses a line: the distances along both, the first first."""
    return sorted(
        (path.distance_of(i, t), line.distance_of(j, u)) for i, t, j, u in of_curves(path.cubics, line.cubics)
    )  # fmt: skip


def _split(parts: Sequence[EdgePart], at: float) -> tuple[tuple[EdgePart, ...], tuple[EdgePart, ...]]:
    """The parts before and behind a distance along them."""
    before: list[EdgePart] = []
    for number, part in enumerate(parts):
        size = part.path.length
        if at < size - 1e-6:
            if at <= 1e-6:
                return tuple(before), tuple(parts[number:])
            first, second = part.path.split_at(at)
            return (*before, EdgePart(first, part.role)), (EdgePart(second, part.role), *parts[number + 1 :])
        before.append(part)
        at -= size
    return tuple(before), ()


def cut_beyond(pattern: Pattern, beyond: Beyond, ends_on: str, source: Source) -> Pattern:
    """The side panel cut along what goes on across the line. Raises StepError when that misses its outline."""
    piece = beyond.side
    start = nearest_place(piece, beyond.outer[0].path.start, lambda run: run.edge == beyond.edge)
    stop = nearest_place(piece, beyond.outer[-1].path.end, lambda run: piece.role(run.edge) == ends_on)
    if start is None or stop is None:
        raise StepError("the edge misses the side panel", where=piece.name, advice="Shape it before the style line.")
    kept, gone = cut_away(piece, start, stop, [(part.path, part.role) for part in beyond.outer], source)
    lost = tuple((dart.pivot, -piece.angle(dart.id)) for dart in gone.darts)
    made = with_panels(pattern, piece.name, (replace(kept, added=(*piece.added, *lost)),), ())
    return replace(made, seams=tuple(_as_eased(made, seam, piece.name, beyond.edge) for seam in made.seams))


def _as_eased(pattern: Pattern, seam: Seam, name: str, edge: str) -> Seam:
    """The seam of a side panel's line with the ease that is left in it."""
    if seam.pair is None or seam.b.only != EdgeRef(name, edge) or seam.ease_mm <= 0.0:
        return seam
    left = pattern.sewn_length(seam.b) - pattern.sewn_length(seam.a)
    return replace(seam, ease_mm=left) if 0.0 <= left < seam.ease_mm else seam


def refuse_whole(pattern: Pattern, name: str) -> None:
    """Raises StepError for a piece in panels where the whole piece is needed."""
    if not pattern.has(name):
        what = f"the {words(name)} is in panels, and this neckline needs it whole"
        raise StepError(what, where=name, advice="Shape the neckline before the style line.")
