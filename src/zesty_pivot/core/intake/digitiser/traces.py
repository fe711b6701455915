"""Presses of a digitiser as outlines with marks: corners, straight and curved stretches as the buttons say, legs, notches,
holes."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import numpy as np
import shapely

from zesty_pivot.core.errors import FileError, GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.digitiser.adjust import PressedEdge, adjusted
from zesty_pivot.core.intake.digitiser.device import Deed
from zesty_pivot.core.intake.digitiser.stream import Press, standing
from zesty_pivot.core.intake.loops import clockwise
from zesty_pivot.core.intake.traced import Array, Point, TracedPaper, TracedPiece
from zesty_pivot.core.record import record

AGAIN = 2.0  # mm: a corner pressed again this near is the same corner, and known the better
LEAST_BAND = 0.1  # mm: no table is truer
AT_EDGE = 12.0  # mm from the outline that a notch is pressed
MOST_ON_EDGE = 250  # places that tell it
LEAST_AREA = 100.0  # mm² within it
LEAST = 3  # corners of an outline


@record(eq=False)
class _Place:
    """A place of the outline, mm, what it was pressed as, and how often."""

    at: Array
    deed: Deed
    count: int


@record
class _Raw:
    outline: tuple[Press, ...]
    legs: tuple[tuple[Point, ...], ...]
    notches: tuple[Point, ...]
    holes: tuple[Point, ...]
    points: tuple[Point, ...]
    grain: tuple[Point, ...]


def traced(presses: Sequence[Press], notes: tuple[str, ...] = ()) -> TracedPaper:
    """The pieces that were pressed. Raises FileError where none has an outline."""
    told = list(notes)
    pieces = []
    for number, raw in enumerate(_parted(presses), 1):
        piece = _piece(raw)
        if piece is None:
            told.append(f"Piece {number} has no outline: fewer than three places at its edge.")
        else:
            pieces.append(piece)
    if not pieces:
        raise FileError(
            "no outline was pressed", advice="Press the corners and curves all round a piece, then the button that closes it."
        )
    return TracedPaper(tuple(pieces), tuple(told))


def _parted(presses: Sequence[Press]) -> list[_Raw]:
    """The presses of each piece."""
    found, mine = [], list[Press]()
    for press in standing(presses):
        if press.deed == "next":
            found.append(_raw(mine))
            mine = []
        else:
            mine.append(press)
    if mine:
        found.append(_raw(mine))
    return [raw for raw in found if raw.outline or raw.legs]


def _raw(presses: Sequence[Press]) -> _Raw:
    outline: list[Press] = []
    legs: list[list[Point]] = []
    places: dict[str, list[Point]] = {"notch": [], "hole": [], "point": [], "grain": []}
    is_closed, before = False, ""
    for press in presses:
        at = (press.x, press.y)
        if press.deed in ("line", "curve", "corner"):
            if is_closed:  # what is pressed along an edge after it was closed is a line inside
                legs.append([at]) if before not in ("line", "curve", "corner") else legs[-1].append(at)
            else:
                outline.append(press)
        elif press.deed == "leg":
            legs.append([at]) if before != "leg" else legs[-1].append(at)
        elif press.deed == "close":
            is_closed = is_closed or bool(outline)
            if before == "leg":  # ends one line inside, so that the next begins anew
                before = ""
                continue
        else:
            places[press.deed].append(at)
        before = press.deed
    lines = tuple(tuple(leg) for leg in legs if len(leg) > 1)
    return _Raw(
        tuple(outline), lines, tuple(places["notch"]), tuple(places["hole"]), tuple(places["point"]), tuple(places["grain"])
    )  # fmt: skip


def _piece(raw: _Raw) -> TracedPiece | None:
    outline = _places(raw.outline)
    if len(outline) < LEAST:
        return None
    try:
        path, sigma = _outline(outline)
        path = clockwise(path)
    except GeometryError:
        return None
    if len(path.outline) < 4 or shapely.Polygon(path.outline).buffer(0).area < LEAST_AREA:  # there and back again
        return None
    edge = shapely.LinearRing(path.outline[:-1])
    notches = []
    for at in raw.notches:
        where = edge.interpolate(edge.project(shapely.Point(at)))
        if edge.distance(shapely.Point(at)) <= AT_EDGE:
            notches.append((float(where.x), float(where.y)))
    grain = (raw.grain[0], raw.grain[1]) if len(raw.grain) >= 2 else None
    return TracedPiece(
        path, inner=tuple(Path.straight(*leg) for leg in raw.legs), notches=tuple(notches), holes=raw.holes, crosses=raw.points,
        grain=grain, error=max(2.0 * sigma, LEAST_BAND),
    )  # fmt: skip


def _places(presses: Sequence[Press]) -> list[_Place]:
    """The places in turn; corners that were pressed several times as one, also at the end where the outline began."""
    found: list[list[Press]] = []
    for press in presses:
        if found and _is_again(found[-1][-1], press):
            found[-1].append(press)
        else:
            found.append([press])
    if len(found) > LEAST and _is_again(found[0][0], found[-1][-1]):
        found[0] += found.pop()
    return [_Place(np.mean([(one.x, one.y) for one in these], axis=0), these[0].deed, len(these)) for these in found]


def _is_again(one: Press, two: Press) -> bool:
    return one.deed == two.deed == "corner" and math.dist((one.x, one.y), (two.x, two.y)) <= AGAIN


def _few(places: Array) -> Array:
    """Places of an edge, of thousands that a device sends by itself the means of neighbours."""
    if len(places) <= MOST_ON_EDGE:
        return places
    return np.stack([part.mean(axis=0) for part in np.array_split(places, MOST_ON_EDGE)])


def _outline(places: Sequence[_Place]) -> tuple[Path, float]:
    """The closed outline, and how far a press strays, mm. Between corners what was pressed as line is straight, as curve a
    smooth line."""
    first = next((k for k, place in enumerate(places) if place.deed == "corner"), 0)
    ring = [*places[first:], *places[:first]]
    at = np.stack([place.at for place in ring])
    begins = [0, *(k for k, place in enumerate(ring) if k and place.deed == "corner")]
    stretches = [
        PressedEdge(_few(at[start + 1 : stop]), all(place.deed == "line" for place in ring[start + 1 : stop]))
        for start, stop in itertools.pairwise([*begins, len(ring)])
    ]
    counts = np.array([float(ring[k].count) for k in begins])
    chains, sigma = adjusted(at[begins], counts, stretches)
    return Path(np.concatenate(chains)), sigma
