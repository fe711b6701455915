"""A slash that lets cloth in, and the edge across cloth that is folded there: trued by folding, cutting along the seam,
unfolding.

The underlay is the seam beside the slash, mirrored in the fold and laid on; so it meets the seam line once it is folded.
"""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece.fullness import Fullness, LetLine, Lies, Taking
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place, by_origin, is_joint, point
from zesty_pivot.core.piece.region import slash_fault
from zesty_pivot.core.record import record, replace

NOTHING = 1e-9  # mm by which a slash is not parted


@record
class Parting:
    """A slash on the piece as it is sewn: its line, places and points, and the motions that carry what lies behind it, whole,
    by a half and by a quarter."""

    line: LetLine
    places: tuple[Place, Place]
    ends: tuple[Vector, Vector]
    moved: Motion
    half: Motion
    quarter: Motion


def _motion(ends: tuple[Vector, Vector], by: tuple[float, float], share: float) -> Motion:
    """A share of what carries the part behind a slash: its first end by `by[0]` mm, its other by `by[1]`, to the left of the
    way from the one to the other as the paper is looked at. A turn by 2 asin((a - b) / 2 L) about the point where both sides
    would meet; a shift where both are parted alike."""
    long = math.dist(*ends)
    along = (ends[1] - ends[0]) / long
    if abs(by[0] - by[1]) < NOTHING:
        return Motion.shift(np.array([along[1], -along[0]]) * by[0] * share)
    angle = 2.0 * math.asin(min(1.0, max(-1.0, (by[0] - by[1]) / (2.0 * long))))
    return Motion.turn(ends[0] + along * (by[0] / (2.0 * math.sin(angle / 2.0))), angle * share)


def parting_of(piece: Piece, line: LetLine) -> Parting:
    """A slash where it lies on a piece. Raises PlaceError where one of its ends has been cut away, GeometryError where it has
    no length or no clear way."""
    at, to = (by_origin(piece, origin) for origin in (line.start, line.stop))
    ends = point(piece, at), point(piece, to)
    if math.dist(*ends) < 1.0:
        raise GeometryError("a slash has no length left", where=piece.name, advice="Let it in elsewhere.")
    fault = None if line.at_fold else slash_fault(piece, *ends)
    if fault is not None:
        raise GeometryError(fault, where=piece.name, advice="Move the dart away first, or choose a place with a clear way.")
    if line.at_fold and piece.fold is not None:  # a half has one of the two folds
        by = line.by[0] / 2.0, line.by[1] / 2.0
        line = replace(line, by=by, lies=Lies.AFTER if _is_centre(piece, at) else Lies.BEFORE)
    whole, half, quarter = (_motion(ends, line.by, share) for share in (1.0, 0.5, 0.25))
    return Parting(line, (at, to), ends, whole, half, quarter)


def _is_centre(piece: Piece, place: Place) -> bool:
    """Whether the centre line follows on a place."""
    return piece.role(piece.runs[piece.after(place.run)].edge) == "centre"


def lies_under(full: Fullness, lies: Lies) -> Lies:
    """The side that the folded cloth lies on: a pleat's lies under the cloth that its fold points away from, a tuck is pressed
    over the cloth that it points to."""
    return lies if full.taking is Taking.TUCKS else lies.turned


def folded_edge(piece: Piece, full: Fullness, slash: Parting, end: int, near: Motion, far: Motion) -> list[Path]:
    """The edge across the folded cloth at one end of a slash, in the ring's direction; `near` and `far` carry what lies before
    and behind the slash."""
    mirror = Motion.reflect(slash.ends[0], slash.ends[1] - slash.ends[0])
    side = lies_under(full, slash.line.lies)
    if side is Lies.MEET:
        middle = slash.half.then(near)
        back = _seam_beside(piece, full, slash, end, slash.quarter.undone, Lies.BEFORE)
        ahead = _seam_beside(piece, full, slash, end, slash.quarter, Lies.AFTER)
        parts = [
            back.moved(mirror).moved(near),
            back.moved(middle).reversed(),
            ahead.moved(middle),
            ahead.moved(mirror).moved(far).reversed(),
        ]
    elif side is Lies.BEFORE:
        beside = _seam_beside(piece, full, slash, end, slash.half.undone, side)
        parts = [beside.moved(mirror).moved(near), beside.moved(far).reversed()]
    else:
        beside = _seam_beside(piece, full, slash, end, slash.half, side)
        parts = [beside.moved(near), beside.moved(mirror).moved(far).reversed()]
    return parts if end == 0 else [part.reversed() for part in reversed(parts)]


def _seam_beside(piece: Piece, full: Fullness, slash: Parting, end: int, to: Motion, side: Lies) -> Path:
    """The stretch of the outline from a slash's end outwards that the folded cloth lies on: as far as the line that its inner
    fold comes to; round a corner it goes on along the next edge, as what is folded is cut through there. Raises GeometryError
    when it comes to the centre before, or a dart opens in it."""
    onwards = (side is Lies.AFTER) == (end == 0)
    place, on = slash.places[end], to(slash.ends[0])
    towards = unit(to(slash.ends[1]) - on)
    run = (place.run + 1) % len(piece.runs) if onwards and is_joint(piece, place) else place.run
    edge, parts, begins = piece.runs[run].edge, list[Path](), True
    named = f"the {words(full.taking.value)} on the {words(edge)}"
    while len(parts) < len(piece.runs) and (begins or piece.role(piece.runs[run].edge) != "centre"):
        path = piece.runs[run].path
        if begins and run == place.run and (onwards or place.at < path.length - JOIN_TOL):
            path = path.between(place.at, path.length) if onwards else path.between(0.0, place.at)
        path = path if onwards else path.reversed()
        hits = [path.distance_of(segment, t) for segment, t, _s in with_line(path.cubics, on, towards)]
        at = min((at for at in hits if at > 1e-7), default=None)
        if at is not None:
            parts.append(path if at >= path.length - JOIN_TOL else path.between(0.0, at))
            return _in_one(parts)
        parts.append(path)
        gap = path.end - on
        if abs(float(towards[0] * gap[1] - towards[1] * gap[0])) < JOIN_TOL:  # as far as the very end of the edge
            return _in_one(parts)
        mouth = piece.runs[run].mouth if onwards else piece.runs[run - 1].mouth
        if mouth is not None:
            what = f"{named} lie over the {words(mouth)} dart"
            raise GeometryError(what, where=piece.name, advice="Make them less deep, or move the dart.")
        run, begins = (run + (1 if onwards else -1)) % len(piece.runs), False
    if piece.fold is not None and piece.runs[run].edge == piece.fold:  # beyond the fold lies the other half
        runs = piece.edge(piece.fold).runs
        mirror = Motion.reflect(runs[0].path.start, runs[-1].path.end - runs[0].path.start)
        before = piece.runs[(run - 1) % len(piece.runs)].path.reversed() if onwards else piece.runs[piece.after(run)].path
        path = before.moved(mirror)
        hits = [path.distance_of(segment, t) for segment, t, _s in with_line(path.cubics, on, towards)]
        if hits and 1e-7 < min(hits) < path.length:
            return _in_one([*parts, path.between(0.0, min(hits))])
    raise GeometryError(f"{named} reach past the centre", where=piece.name, advice="Make them less deep, or begin further in.")


def _in_one(parts: list[Path]) -> Path:
    """Stretches of the outline as one line; files keep six decimals, so where edges meet they are brought together."""
    found = [parts[0].cubics]
    for path in parts[1:]:
        cubics = path.cubics.copy()
        cubics[0, 0] = found[-1][-1, 3]
        found.append(cubics)
    return Path(np.concatenate(found))
