"""Necklines on a piece: what lies above a new edge cut away, an edge raised, an opening cut into the centre."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

import numpy as np
import shapely

from zesty_pivot.core.errors import GeometryError, PlaceError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, between
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.cut import across, part_run
from zesty_pivot.core.moves.shaping import displaced
from zesty_pivot.core.moves.style_lines import refuse_unclear
from zesty_pivot.core.piece import Notch, Piece, Place, Run, Side, Source
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.record import replace

_NEW = "*neck"  # the new edge's id while the old ones are there too

Parts = Sequence[tuple[Path, str]]  # stretches of the new edge, each with its role


def neck_source(piece: Piece, shape: str, *, pointed: bool) -> Source:
    """The provenance of a new edge."""
    return Source(f"{piece.of or piece.name}.neckline.{shape}", 0.0, 1.0, is_pointed=pointed)


def cut_away(piece: Piece, start: Place, stop: Place, parts: Parts, source: Source) -> tuple[Piece, Piece]:
    """The piece under a new edge that runs from a place of the centre outwards to another, and what is cut away above it.

    Raises GeometryError when the edge leaves the piece or crosses a dart.
    """
    whole = Path.chain([path for path, _role in parts])
    refuse_unclear(piece, whole, neck_hole(piece))
    kept, gone = across(piece, start, stop, whole, _NEW, "neckline", (piece.name, "cut away"))
    ids = _ids(piece)
    runs: list[Run] = []
    for run in kept.runs:
        runs += _parted(parts, ids, source) if run.edge == _NEW else [run]
    known = dict(piece.roles)
    roles = {ids.get(role, role): role for _path, role in parts}
    made = well_begun(tuple(runs), {**known, **roles})
    named = tuple((edge, roles.get(edge, known.get(edge, ""))) for edge in dict.fromkeys(run.edge for run in made))
    return replace(kept, runs=made, roles=named, grain=kept.grain or piece.grain), gone


def neck_hole(piece: Piece) -> shapely.Geometry:
    """What lies between the neckline and the lines straight up from the centre and across to the neck point: there paper is
    taped on where a new neckline runs above the old one, as from the block's own neck point."""
    runs = [run for run in piece.runs if piece.role(run.edge) == "neckline"]
    holes: list[shapely.Polygon] = []
    for side in (None, *Side):
        mine = [run.path for run in runs if piece.sides.of(run.edge) is side]
        if not mine:
            continue
        points = np.concatenate([path.outline for path in mine])
        inner, outer = sorted((points[0], points[-1]), key=lambda end: abs(float(end[0])))
        holes.append(shapely.Polygon([*points, (inner[0], outer[1])]).buffer(0.0))
    return shapely.union_all(holes)


def _ids(piece: Piece) -> dict[str, str]:
    """The edge of each role; a role that has none gets its own name."""
    return {role: edge for edge, role in reversed(piece.roles)}


def _parted(parts: Parts, ids: dict[str, str], source: Source) -> list[Run]:
    """The new edge in one run for each of its parts; where one edge has several, u goes on along it."""
    found: list[Run] = []
    for role in dict.fromkeys(role for _path, role in parts):
        paths = [path for path, its in parts if its == role]
        ends = np.cumsum([0.0, *(path.length for path in paths)]) / sum(path.length for path in paths)
        its_source = source if role == "neckline" else Source(f"{source.edge}.{role}", 0.0, 1.0)
        for path, low, high in zip(paths, ends, ends[1:], strict=False):
            found.append(Run(ids.get(role, role), path, replace(its_source, u0=float(low), u1=float(high))))
    return found


def raised(piece: Piece, edge: Path, seam: Path, inset: float, source: Source) -> Piece:
    """The piece with its neckline raised: the centre goes on straight up to the new edge, `seam` runs down from the edge's end
    to the shoulder, `inset` mm (of its sewn length) from the neck point.

    Raises GeometryError when a dart opens where cloth is added, the shoulder is too short or on another piece.
    """
    ids = _ids(piece)
    if not {"neckline", "shoulder"} <= ids.keys():
        what = "the neckline and the shoulder are not on one piece"
        raise GeometryError(what, where=piece.name, advice="Raise the neckline before the line that parts them.")
    place = places.along(piece, ids["shoulder"], inset)
    if places.mouth_at(piece, place):
        raise GeometryError("a dart opens where the raised seam ends", where=piece.name, advice="Choose another place.")
    parted, last = part_run(piece, place)
    first = next(index for index, run in enumerate(parted.runs) if parted.role(run.edge) == "neckline")
    gone = [(first + step) % len(parted.runs) for step in range((last - first) % len(parted.runs) + 1)]
    if any(parted.runs[index].mouth for index in gone):
        raise GeometryError("a dart opens in the neckline", where=piece.name, advice="Move it away first.")
    below = parted.runs[first - 1]
    if parted.role(below.edge) != "centre" or np.abs(below.path.end - parted.runs[first].path.start).max() > JOIN_TOL:
        raise GeometryError("the neckline does not begin at the centre", where=piece.name, advice="Choose a half.")
    kept = list(parted.runs)
    up = Path.chain([below.path, Path.straight(below.path.end, edge.start)])
    kept[first - 1] = replace(below, path=up)
    new = [
        Run(ids["neckline"], edge, source),
        Run(ids["shoulder"], seam, Source(f"{source.edge}.stand", 0.0, 1.0)),
    ]
    runs: list[Run] = []
    for index, run in enumerate(kept):
        if index == first:
            runs += new
        if index not in gone:
            runs.append(run)
    return replace(piece, runs=tuple(runs))


def holed(piece: Piece, upper: Place, lower: Place, path: Path, source: Source, pointed: bool) -> Piece:
    """The piece with an opening cut into its centre: `path` runs from the lower place to the upper one. The new edge has the
    role `opening`.

    Raises GeometryError when the opening leaves the piece or crosses a dart.
    """
    refuse_unclear(piece, path)
    kept, _gone = across(piece, lower, upper, path, "keyhole", "opening", (piece.name, "cut away"))

    def named(run: Run) -> Run:
        return replace(run, source=replace(run.source, edge=f"{source.edge}.keyhole", is_pointed=pointed))

    runs = tuple(named(run) if run.edge == "keyhole" else run for run in kept.runs)
    return replace(kept, runs=runs, grain=kept.grain or piece.grain)


def hole(upper: Vector, lower: Vector, width: float, widest: float, *, end: str) -> Path:
    """Half a keyhole from its lower end to its upper one, `width` mm out where it is widest, `widest` mm below its beginning.
    It ends in a curve (`round`), a `point` or a sweetheart (`heart`). Proportions: our own choice."""
    way = lower - upper
    height = float(np.hypot(*way))
    along = way / height
    out = np.array([along[1], -along[0]])

    def at(across_: float, below: float) -> Vector:
        return upper + out * across_ + along * below

    side = at(width, widest)
    rest = height - widest
    if end == "point":
        low = [lower, lower + (side - lower) * 0.33, side + along * rest * 0.45, side]
    elif end == "heart":
        low = [lower, lower + out * width * 0.1 - along * rest * 0.6, side - out * width * 0.4 + along * rest * 0.1, side]
    else:
        low = [lower, lower + out * width * 0.55, side + along * rest * 0.55, side]
    top = [side, side - along * widest * 0.5, upper + out * width * 0.42 + along * widest * 0.08, upper]
    return Path(np.array([low, top]))


def let_out(piece: Piece, widen: float, flare: float, inside: tuple[tuple[float, float], ...] = ()) -> Piece:
    """The side seam brought out square to it, by `widen` mm at the underarm and `flare` at its lower end, and `inside` it
    at distances down the seam by so much. The edges beside it
    follow and turn with it, so their corners at the seam stay as they were. A dart that opens in the seam, or at either end of
    it, goes along: it is drawn with the dart shut, so both ends of its mouth move alike and its angle stays.
    """
    indices = [index for index, run in enumerate(piece.runs) if piece.role(run.edge) == "side_seam"]
    if not indices or not any((widen, flare, *(mm for _down, mm in inside))):
        return piece
    runs = list(piece.runs)
    before, after = (indices[0] - 1) % len(runs), piece.after(indices[-1])
    shuts = _shutting(piece, (before, *indices, after))
    stretches = [runs[index].path.moved(shuts[index]) for index in indices]
    total = sum(path.length for path in stretches)
    way = unit(stretches[-1].end - stretches[0].start)
    out = np.array([way[1], -way[0]])
    knots = [(0.0, out * widen), *((down, out * mm) for down, mm in inside), (total, out * flare)]
    moved = list(displaced(stretches, knots))
    for number, index in enumerate(indices[:-1]):
        if runs[index].mouth is not None:
            moved[number + 1] = _same_angle(piece, index, shuts, moved[number], moved[number + 1])
    turns = [
        between(stretches[0].start_direction, moved[0].start_direction),
        between(stretches[-1].end_direction, moved[-1].end_direction),
    ]
    upper, lower = runs[before].path.moved(shuts[before]), runs[after].path.moved(shuts[after])
    arm = _led(upper.reversed(), upper.end + out * widen, turns[0]).reversed()
    led = {before: arm, after: _led(lower, lower.start + out * flare, turns[1]), **dict(zip(indices, moved, strict=True))}
    for index, path in led.items():
        runs[index] = replace(runs[index], path=path.moved(shuts[index].undone))
    return replace(piece, runs=tuple(runs))


def _shutting(piece: Piece, indices: tuple[int, ...]) -> dict[int, Motion]:
    """For each of some runs in a row the motion that brings it to the first as it lies when the darts between them are shut."""
    found = {indices[0]: Motion.shift(np.zeros(2))}
    for one, two in itertools.pairwise(indices):
        mouth = piece.runs[one].mouth
        if mouth is None:
            found[two] = found[one]
        else:
            pin = piece.pivot(piece.dart(mouth).pivot)
            found[two] = Motion.turn(pin, -piece.angle(mouth)).then(found[one])
    return found


def _same_angle(piece: Piece, index: int, shuts: dict[int, Motion], one: Path, two: Path) -> Path:
    """The stretch behind a mouth with its beginning put where the dart keeps its angle. With equal legs it is there already;
    the longer leg of an unequal pair must move by as much more."""
    pin = shuts[index](piece.pivot(piece.dart(piece.runs[index].mouth or "").pivot))
    first, second = piece.legs(piece.runs[index].mouth or "")
    wanted = pin + (one.end - pin) * (second / first)
    if np.abs(wanted - two.start).max() <= JOIN_TOL:
        return two
    (made,) = displaced([two], [(0.0, wanted - two.start), (two.length, np.zeros(2))], held=(True, True))
    return made


def _led(path: Path, start: Vector, turn: float) -> Path:
    """A line that begins at another point, its direction there turned (radians); its other end stays as it is."""
    (made,) = displaced([path], [(0.0, start - path.start), (path.length, np.zeros(2))], held=(True, True))
    cubics = made.cubics.copy()
    cubics[0, 0], cubics[-1, 3] = start, path.end
    cubics[0, 1] = Motion.turn(start, turn)(cubics[0, 1])
    return Path(cubics)


def opened_down(piece: Piece, kind: str, length: float) -> Piece:
    """The piece with a notch on its centre, so far (mm) below its upper end, where a slit or zip ends. Raises PlaceError where
    it has no such centre."""
    index = _upper_centre(piece)
    run = piece.runs[index]
    end = places.origin_of(piece, Place(index, run.path.length - length))
    return replace(piece, notches=(*piece.notches, Notch(f"{kind}.end", "end", end)))


def upper_centre_length(piece: Piece) -> float:
    """The length (mm) of the centre from its upper end down to the next opening or joint. Raises PlaceError."""
    return piece.runs[_upper_centre(piece)].path.length


def _upper_centre(piece: Piece) -> int:
    for index, run in enumerate(piece.runs):
        if piece.role(run.edge) == "centre" and piece.role(piece.runs[piece.after(index)].edge) == "neckline":
            return index
    raise PlaceError("the neckline does not begin at the centre", where=piece.name, advice="Choose the front or the back.")
