"""A neckline that goes on across a style line: the side panel laid to the centre panel where the edge crosses the line."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from zesty_pivot.core.errors import GeometryError, StepError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.crossing import of_curves
from zesty_pivot.core.moves.join import moved
from zesty_pivot.core.necklines.base import Drawn, EdgePart
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.piece.names import words

_ROUNDS = 12
_STILL = 1e-9  # mm; the crossing has settled


@dataclass(frozen=True)
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
    one, two = _line(bodice.piece, edge, from_end=False), _line(side, edge, from_end=True)
    at = 0.0
    for _ in range(_ROUNDS):
        lay = _laid(one, two, at)
        both = replace(bodice, more=moved(side, lay))
        drawn = draw(both)
        if drawn is None:
            return both, None, None
        hits = _crossings(drawn.path, one)
        if not hits:
            return both, drawn, None
        if len(hits) > 1:
            what = "the neckline crosses the style line more than once"
            raise GeometryError(what, where=side.name, advice="Shape it before the style line.")
        along, down = hits[0]
        if abs(down - at) <= _STILL:
            inner, outer = _split(drawn.parts, along)
            if not inner or not outer:
                what = "the neckline begins on the style line"
                raise GeometryError(what, where=side.name, advice="Shape it before the style line.")
            own = tuple(EdgePart(part.path.moved(lay.undone), part.role) for part in outer)
            return both, drawn, Beyond(side, edge, inner, own)
        at = down
    raise GeometryError("the neckline runs along the style line", where=side.name, advice="Make it wider or narrower.")


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


def _laid(one: Path, two: Path, at: float) -> Motion:
    places = []
    for line in (two, one):
        where = min(at, line.length)
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


def refuse_whole(pattern: Pattern, name: str) -> None:
    """Raises StepError for a piece in panels where the whole piece is needed."""
    if not pattern.has(name):
        what = f"the {words(name)} is in panels, and this neckline needs it whole"
        raise StepError(what, where=name, advice="Shape the neckline before the style line.")
