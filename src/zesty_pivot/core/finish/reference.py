"""Marks by which a cutter lays and checks a piece: the bust point, and the centre with what it is."""

from __future__ import annotations

import math

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.finish.labels import REST
from zesty_pivot.core.finish.marks import Text
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.lettering import rough_width
from zesty_pivot.core.piece import Body, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Point
from zesty_pivot.core.piece.region import cloth
from zesty_pivot.core.piece.sides import body_of
from zesty_pivot.core.record import record

CROSS = 5.0  # mm from the middle of a cross to its ends
BESIDE = 4.0  # mm that the words of the centre stand beside it
CENTRE_WORDS = {Body.FRONT: "CF", Body.BACK: "CB"}
MARKED = ("bust_point",)  # pivots that are marked on the sheet


@record
class Reference:
    """The lines of the marks by their ids, their words, and what these cover."""

    lines: tuple[tuple[str, tuple[Path, ...]], ...]
    texts: tuple[Text, ...]
    covered: shapely.Geometry


def references(piece: Piece, order: str) -> Reference:
    """The bust point as a cross with its name, and beside the centre `CF fold`, `CB seam`; on an unfolded piece the centre as a
    line. `order` is the cut order."""
    lines: list[tuple[str, tuple[Path, ...]]] = []
    texts: list[Text] = []
    covered: list[shapely.Geometry] = []
    inside = cloth(piece)
    for name, at in piece.landmarks.items():
        if piece.sides.name(name) not in MARKED:
            continue
        x, y = at
        cross = (Path.straight((x - CROSS, y), (x + CROSS, y)), Path.straight((x, y - CROSS), (x, y + CROSS)))
        lines.append((name, cross))
        said = words(piece.sides.name(name))
        wide = rough_width(said) * REST
        below = _beside_cross(at, said, inside)
        texts.append(below)
        covered += [shapely.box(x - CROSS, y - CROSS, x + CROSS, y + CROSS), _box(below, wide)]
    for line, text in _centres(piece, order, inside):
        if line is not None:
            lines.append(("centre.line", (line,)))
        texts.append(text)
        covered.append(_box(text, rough_width(text.text) * REST))
    return Reference(tuple(lines), tuple(texts), shapely.union_all(covered))


def _beside_cross(at: Point, said: str, inside: shapely.Geometry) -> Text:
    """The words of a cross below it, or where else beside it they lie on the cloth."""
    (x, y), half = at, rough_width(said) * REST / 2.0
    low, high, aside = y + CROSS + REST * 1.2, y - CROSS - REST * 0.5, CROSS + half + 1.0
    ways = [(x, low), (x - half, low), (x + half, low), (x, high), (x - aside, y + REST / 3.0), (x + aside, y + REST / 3.0)]
    found = [Text(way, said, REST) for way in ways]
    return next((text for text in found if inside.contains(_box(text, 2.0 * half))), found[0])


def block_waist(piece: Piece, drafted: Piece, ring: NDArray[np.float64]) -> tuple[Path, ...]:
    """The waist line of the block as it was drafted, inside the cut line (m, 2); nothing for a piece without a centre to keep
    it by, nor for a hip-length block, whose waist is a level."""
    if not any(piece.role(run.edge) == "centre" for run in piece.runs):
        return ()
    cut = shapely.Polygon(ring)
    lines = [shapely.LineString(run.path.outline) for run in drafted.runs if drafted.role(run.edge) == "waist"]
    parts = [part for line in lines for part in shapely.get_parts(shapely.intersection(line, cut))]
    return tuple(
        Path.polyline(shapely.get_coordinates(part)) for part in parts if part.geom_type == "LineString" and part.length > 1.0
    )


def _centres(piece: Piece, order: str, inside: shapely.Geometry) -> list[tuple[Path | None, Text]]:
    """The words of each centre, and its line where it is no edge. A piece that is front and back in one has two."""
    if piece.body not in CENTRE_WORDS:
        return []
    found: list[tuple[Path | None, Text]] = []
    for edge in [edge for edge, role in piece.roles if role == "centre"]:
        run = max(piece.edge(edge).runs, key=lambda run: run.path.length)
        middle = run.path.length / 2.0
        along = run.path.direction_at(middle)
        inwards = np.array([-along[1], along[0]])  # the piece lies to the right of the way round it
        at = run.path.point_at(middle) + inwards * (BESIDE + REST / 2.0)
        turn = math.atan2(float(along[1]), float(along[0]))
        is_on_fold = order == "fold" and piece.fold in (None, edge)
        said = f"{CENTRE_WORDS[body_of(run.source.edge, piece.body)]} {'fold' if is_on_fold else 'seam'}"
        found.append((None, Text((float(at[0]), float(at[1])), said, REST, turn)))
    if found or not piece.is_unfolded:
        return found
    said = CENTRE_WORDS[piece.body]
    low, high = inside.bounds[1], inside.bounds[3]
    met = shapely.intersection(inside, shapely.LineString([(0.0, low - 1.0), (0.0, high + 1.0)]))
    parts = [part for part in shapely.get_parts(met) if part.length > 0.0]
    if not parts:
        return []
    (x0, y0), (x1, y1) = max(parts, key=lambda part: float(part.length)).coords
    text = Text((-BESIDE, (y0 + y1) / 2.0), said, REST, -math.pi / 2.0)
    return [(Path.straight((x0, y0), (x1, y1)), text)]


def _box(text: Text, wide: float) -> shapely.Polygon:
    """What a line of writing covers."""
    c, s = math.cos(text.turn), math.sin(text.turn)
    corners = np.array([[-wide, -text.size], [wide, -text.size], [wide, text.size * 0.6], [-wide, text.size * 0.6]])
    corners[:, 0] /= 2.0
    return shapely.Polygon(corners @ np.array([[c, s], [-s, c]]) + np.array(text.at))
