"""Let in: fullness that lies open in the cloth (flare, gathers, ease) and is cut across: it goes into both parts."""

from __future__ import annotations

import numpy as np
import shapely

from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.open_up import BRIDGE, drawn_on
from zesty_pivot.core.piece import OPEN_USES, Dart, LetIn, Piece, Run, Source, Use, called
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.record import replace

INSIDE = 2.0  # mm inside the cut line that the point lies which what is gathered below it runs to. Our own choice


def crossed_open(piece: Piece, line: Path) -> tuple[str, ...]:
    """The darts left open as flare, gathered or eased whose cloth a line goes across."""
    drawn = shapely.LineString(line.outline)
    return tuple(
        dart.id
        for dart in piece.darts
        if dart.use in OPEN_USES
        and drawn.intersects(shapely.Polygon([*piece.mouth(dart.id), piece.pivot(dart.pivot)]).buffer(-1e-3))
    )


def filled(piece: Piece, dart: str) -> Piece:
    """The piece with the cloth of an open dart filled in: a flare's edge is drawn on across its mouth for good, another's for
    the while with a straight line. What the dart held is told in the account as let in."""
    held = piece.dart(dart)
    entry = LetIn(dart, held.pivot, piece.angle(dart), held.use, called(piece, dart))
    if held.use is Use.FLARE:
        made, _opened = drawn_on(piece, held)
    else:
        index = piece.mouth_run(dart)
        first, second = piece.runs[index], piece.runs[piece.after(index)]
        across = Run(first.edge, Path.straight(first.path.end, second.path.start), Source(BRIDGE + dart, 0.0, 1.0))
        runs = (*piece.runs[:index], replace(first, mouth=None), across, *piece.runs[index + 1 :])
        darts = tuple(other for other in piece.darts if other.id != dart)
        made = replace(piece, runs=well_begun(runs, dict(piece.roles)), darts=darts)
    return replace(made, let_in=(*made.let_in, entry))


def taken_up_again(part: Piece, dart: Dart, line: Path, legs: tuple[Vector, Vector, Vector]) -> Piece:
    """A part that has the mouth of a gathered or eased dart that was filled in to be cut: gathered or eased again as it was,
    its lines running to the cut; a part without it as it is. `legs` are the mouth's ends and the pivot before the cut."""
    index = next((k for k, run in enumerate(part.runs) if run.source.edge == BRIDGE + dart.id), None)
    if index is None or dart.use is Use.FLARE:
        return part
    before = (index - 1) % len(part.runs)
    runs = list(part.runs)
    runs[before] = replace(runs[before], mouth=dart.id)
    del runs[index]
    first, second, pin = legs
    middle = _on_the_cut(line, (first + second) / 2.0, pin)
    at = middle + unit((first + second) / 2.0 - middle) * INSIDE
    pivot = f"{dart.id}_let_in"
    made = replace(
        part,
        runs=well_begun(tuple(runs), dict(part.roles)),
        darts=(*part.darts, replace(dart, pivot=pivot, parked=(), extended_mm=0.0, beside=0.0)),
        landmarks={**part.landmarks, pivot: (float(at[0]), float(at[1]))},
    )
    return replace(made, added=(*made.added, (pivot, made.angle(dart.id))))


def _on_the_cut(line: Path, middle: Vector, pin: Vector) -> Vector:
    """Where the axis of a dart meets a line; the line's nearest point where it does not."""
    drawn, axis = shapely.LineString(line.outline), shapely.LineString([middle, pin])
    met = shapely.get_coordinates(drawn.intersection(axis))
    found = met[0] if len(met) else shapely.get_coordinates(shapely.shortest_line(drawn, axis))[0]
    return np.asarray(found)
