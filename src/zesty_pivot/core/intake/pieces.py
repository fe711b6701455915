"""From a drawing to its pieces: which lines are outlines, which allowance, which marks, and what belongs to which piece."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence

import numpy as np
import shapely

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.bezier import are_straight
from zesty_pivot.core.intake.drawing import Dot, Drawing, DrawnLine
from zesty_pivot.core.intake.loops import JoinedLines, join
from zesty_pivot.core.intake.meaning import Kind, meaning, size_word, without_doubles
from zesty_pivot.core.intake.traced import Array, Point, TracedPaper, TracedPiece
from zesty_pivot.core.record import record, replace

# All our own choices, for paper at true size.
SMALLEST = 0.04  # of the largest outline's area that a piece must have: less is a mark or a fish-eye
LEAST_AREA = 500.0  # mm²; a piece for a doll's dress at a quarter of its size
SHORT = 14.0  # mm; a line so short that touches an outline is a notch
NEAR = 3.0  # mm from the outline that a notch begins
HOLE = 6.0  # mm, the largest radius of a drill hole's sign
MOST_ALLOWANCE = 60.0  # mm from the seam line that a cut line may lie
GRAIN_LEAST = 0.2  # of a piece's longer side that its grain line is long
MOST_PIECES = 60
WIDEST_MOUTH = 80.0  # mm; the trade splits a dart with an intake over 8 cm


@record(eq=False)
class _Found:
    """An outline with what its lines were called."""

    path: Path
    group: str
    layer: str
    size: str


def traced(drawing: Drawing, size: str = "") -> TracedPaper:
    """The pieces of a drawing in millimetres. Of several sizes one is taken: the one named, else the middle one.

    Raises FileError when no line of it closes to an outline.
    """
    layers = without_doubles(frozenset(line.layer for line in drawing.lines))
    lines = [line for line in drawing.lines if line.layer in layers]
    notes = list(drawing.notes)
    outlines, rest, gaps = _outlines(lines)
    if not outlines:
        raise FileError(
            "no line closes to an outline", advice="Draw each piece's outline as one closed line, or as lines that meet."
        )
    if gaps:
        notes.append(f"Closed {len(gaps)} gap{'s' if len(gaps) > 1 else ''} of up to {max(gaps):.1f} mm between ends of lines.")
    sizes = _sizes(outlines)
    if sizes:
        chosen = size.upper() if size.upper() in sizes else sizes[len(sizes) // 2]
        if size and chosen != size.upper():
            raise FileError(f"there is no size {size!r}", advice=f"Choose one of: {', '.join(sizes)}.")
        outlines = [one for one in outlines if one.size in ("", chosen)]
        lines = [line for line in lines if _size_of(line) in ("", chosen)]
        if not size:
            notes.append(f"Of the sizes {', '.join(sizes)} this is {chosen}.")
    before = len(notes)
    pieces = _without_allowance(outlines, notes)
    kinds = {_kind(line) for line in lines}
    if len(notes) == before and {Kind.CUT, Kind.SEAM} <= kinds:
        notes.append("The cut line was left aside: the file names the seam line.")
    made = tuple(_marked(piece, drawing, lines, rest) for piece in pieces[:MOST_PIECES])
    return TracedPaper(tuple(sorted(made, key=lambda piece: float(piece.ring[:, 0].min()))), tuple(notes), sizes)


def _kind(line: DrawnLine) -> Kind:
    own = meaning(line.layer)
    return own if own is not Kind.UNKNOWN else meaning(line.group)


def _size_of(line: DrawnLine) -> str:
    return size_word(line.layer) or size_word(line.group)


def _outlines(lines: Sequence[DrawnLine]) -> tuple[list[_Found], list[Path], list[float]]:
    """Closed outlines; the lines left over inside; and the gaps that were closed. Seam lines are taken where the file names
    them, else cut lines, else what it does not name."""
    found: list[_Found] = []
    rest: list[Path] = []
    gaps: list[float] = []

    def key(line: DrawnLine) -> tuple[str, str]:
        return (line.group if meaning(line.group) is Kind.UNKNOWN else "", _size_of(line))

    for (group, size), mine in _by(lines, key):
        by_kind = {kind: [line for line in mine if _kind(line) is kind] for kind in Kind}
        closing = [*by_kind[Kind.FOLD], *by_kind[Kind.LEG]]
        for kind in (Kind.SEAM, Kind.CUT, Kind.UNKNOWN):
            asked = by_kind[kind]
            if not asked:
                continue
            joined, unused = _joined(asked, closing)
            areas = [_area(loop) for loop in joined.loops]
            if not any(area > LEAST_AREA for area in areas):
                rest += joined.rest
                continue
            found += [_Found(loop, group, "", size) for loop in joined.loops]
            rest += joined.rest
            gaps += joined.gaps
            if kind is Kind.SEAM:
                found += [_Found(one.path, group, "cut", size) for one in _whole(by_kind[Kind.CUT], group, size)]
            rest += [line.path for line in unused]
            rest += [line.path for line in mine if _kind(line) in (Kind.INNER, Kind.UNKNOWN) and line not in asked]
            break
        else:
            rest += [line.path for line in mine if _kind(line) in (Kind.INNER, Kind.LEG, Kind.UNKNOWN)]
    largest = max((_area(one.path) for one in found), default=0.0)
    kept = [one for one in found if _area(one.path) >= max(LEAST_AREA, SMALLEST * largest)]
    rest += [one.path for one in found if one not in kept]
    return kept, rest, gaps


def _whole(lines: Sequence[DrawnLine], group: str, size: str) -> list[_Found]:
    return [_Found(loop, group, "cut", size) for loop in join([line.path for line in lines]).loops]


def _joined(asked: Sequence[DrawnLine], closing: Sequence[DrawnLine]) -> tuple[JoinedLines, Sequence[DrawnLine]]:
    """Lines joined, with fold lines and dart legs where they do not close without; and the legs that were not needed."""
    first = join([line.path for line in asked])
    if not first.rest or not closing:
        return first, [line for line in closing if _kind(line) is Kind.LEG]
    whole = join([*first.rest, *(line.path for line in closing)])
    folds = {id(line.path) for line in closing if _kind(line) is Kind.FOLD}
    rest = tuple(path for path in whole.rest if id(path) not in folds)
    return JoinedLines((*first.loops, *whole.loops), rest, (*first.gaps, *whole.gaps)), ()


def _by(lines: Sequence[DrawnLine], key: object) -> Iterable[tuple[tuple[str, str], list[DrawnLine]]]:
    groups: dict[tuple[str, str], list[DrawnLine]] = {}
    for line in lines:
        groups.setdefault(key(line), []).append(line)  # type: ignore[operator]
    return groups.items()


def _area(path: Path) -> float:
    line = path.outline
    return abs(float((line[:-1, 0] * line[1:, 1] - line[1:, 0] * line[:-1, 1]).sum())) / 2.0


def _sizes(outlines: Sequence[_Found]) -> tuple[str, ...]:
    """The sizes that a file holds of one piece, in order; none where its names do not tell sizes apart."""
    named = sorted({one.size for one in outlines if one.size}, key=lambda text: (text.isdigit(), len(text), text))
    return tuple(sorted(named, key=_size_order)) if len(named) > 1 else ()


def _size_order(text: str) -> tuple[int, float]:
    if text.isdigit():
        return (1, float(text))
    if text in ("S", "SMALL", "M", "MEDIUM", "L", "LARGE"):
        return (0, {"S": -1.0, "M": 0.0, "L": 1.0}[text[0]])
    return (0, -1.0 - text.count("X") if text.endswith("S") else 1.0 + text.count("X"))


def _without_allowance(outlines: Sequence[_Found], notes: list[str]) -> list[TracedPiece]:
    """Of an outline that lies all round inside another the outer one is the cut line: it is left aside, and told."""
    regions = [shapely.Polygon(one.path.outline) for one in outlines]
    order = sorted(range(len(outlines)), key=lambda index: -regions[index].area)
    gone: set[int] = set()
    taken: dict[int, float] = {}
    for outer, inner in itertools.permutations(order, 2):
        if outer in gone or inner in gone or regions[outer].area <= regions[inner].area:
            continue
        wide = _allowance(regions[outer], regions[inner], is_named=outlines[outer].layer == "cut")
        if wide is not None:
            gone.add(outer)
            taken[inner] = wide
    if taken:
        notes.append(f"The seam allowance of {_range(taken.values())} was taken off: the inner line is the seam line.")
    kept = [index for index in range(len(outlines)) if index not in gone and outlines[index].layer != "cut"]
    kept = kept or [index for index in range(len(outlines)) if index not in gone]
    return [
        TracedPiece(outlines[index].path, outlines[index].group, outlines[index].size, allowance=taken.get(index, 0.0))
        for index in kept
        if not any(_is_inside(regions[index], regions[other]) for other in kept if other != index)
    ]


def _range(values: Iterable[float]) -> str:
    low, high = min(values := list(values)), max(values)
    return f"{low / 10.0:.1f} cm" if high - low < 0.5 else f"{low / 10.0:.1f} to {high / 10.0:.1f} cm"


def _is_inside(one: shapely.Polygon, other: shapely.Polygon) -> bool:
    if other.area <= one.area or not other.contains(one.representative_point()):
        return False
    return bool(shapely.intersection(other.buffer(0), one.buffer(0)).area > 0.98 * one.area)


def _allowance(outer: shapely.Polygon, inner: shapely.Polygon, *, is_named: bool) -> float | None:
    """How far an outline lies outside another all round (the usual width, mm), or None where it is no cut line of it."""
    if inner.area < 0.45 * outer.area:
        return None
    filled = _filled(inner)
    around = filled.exterior
    places = shapely.line_interpolate_point(around, np.linspace(0.0, around.length, 160, endpoint=False))
    distances = shapely.distance(places, outer.exterior)
    if float(distances.max()) > MOST_ALLOWANCE or not shapely.covers(outer.buffer(0.5), inner):
        return None
    out = distances[distances > 1.5]
    if len(out) < (0.2 if is_named else 0.5) * len(distances):
        return None
    return float(np.median(out))


def _marked(piece: TracedPiece, drawing: Drawing, lines: Sequence[DrawnLine], rest: Sequence[Path]) -> TracedPiece:
    """A piece with everything that lies in it or on its edge."""
    region = piece.region.buffer(0)
    filled = _filled(region)
    wide = region.buffer(NEAR + piece.allowance + 8.0)
    edge = piece.region.exterior
    shapely.prepare(wide)
    inner, notches, crosses = [], [], []
    for path in rest:
        middle = path.point_at(path.length / 2.0)
        if not wide.contains(shapely.Point(middle)) or _is_ring_of(path, drawing.dots):
            continue
        if path.length <= SHORT and _touches(path, edge, NEAR):
            notches.append(_nearest(edge, middle))
        elif path.length > SHORT or not _is_straight(path):
            inner.append(path)
        else:
            crosses.append(path)
    for line in lines:
        kind = _kind(line)
        if kind is Kind.NOTCH and wide.contains(shapely.Point(line.path.start)):
            notches.append(_nearest(edge, line.path.point_at(line.path.length / 2.0)))
        elif kind is Kind.CROSS and wide.contains(shapely.Point(line.path.start)):
            crosses.append(line.path)
    holes = []
    for dot in drawing.dots:
        kind, at = meaning(dot.layer), shapely.Point(dot.at)
        if kind is Kind.NOTCH and wide.contains(at):
            notches.append(_nearest(edge, np.array(dot.at)))
        elif kind not in (Kind.ASIDE, Kind.SEAM, Kind.CUT) and dot.radius <= HOLE and filled.contains(at):
            holes.append(dot.at)
    words = tuple(one.text for one in drawing.words if region.contains(shapely.Point(one.at)))
    grain, inner = _grain(piece, lines, inner, region)
    return replace(
        piece, inner=tuple(inner), notches=tuple(_apart(notches)), holes=tuple(_apart(holes)),
        crosses=tuple(_crossings(crosses)), words=words, grain=grain, fold=_fold(lines, region),
    )  # fmt: skip


def _filled(region: shapely.Polygon) -> shapely.Polygon:
    """A piece with the mouths of its darts filled, in which drill holes lie."""
    reach = WIDEST_MOUTH / 2.0
    filled = region.buffer(reach).buffer(-reach).union(region.buffer(0))
    return max(shapely.get_parts(filled), key=lambda part: part.area)


def _is_ring_of(path: Path, dots: Sequence[Dot]) -> bool:
    """Whether a line is the circle of a drill hole's sign, which the drawing has as a dot as well."""
    return math.dist(path.start, path.end) <= 0.01 and any(
        0.0 < dot.radius <= HOLE and abs(math.dist(dot.at, path.start) - dot.radius) <= 0.01 for dot in dots
    )


def _touches(path: Path, edge: shapely.LinearRing, within: float) -> bool:
    return bool(min(edge.distance(shapely.Point(path.start)), edge.distance(shapely.Point(path.end))) <= within)


def _nearest(edge: shapely.LinearRing, at: Array) -> Point:
    where = edge.interpolate(edge.project(shapely.Point(at)))
    return float(where.x), float(where.y)


def _apart(points: Sequence[Point]) -> list[Point]:
    """The points without those that lie within a millimetre of one before."""
    found: list[Point] = []
    for point in points:
        if all(math.dist(point, other) > 1.0 for other in found):
            found.append(point)
    return found


def _is_straight(path: Path) -> bool:
    return bool(path.length - math.dist(path.start, path.end) <= 0.01 * path.length) or bool(are_straight(path.cubics).all())


def _crossings(paths: Sequence[Path]) -> list[Point]:
    """Where two short lines cross: the sign of a point."""
    found = []
    for one, two in itertools.combinations(paths, 2):
        middles = one.point_at(one.length / 2.0), two.point_at(two.length / 2.0)
        if math.dist(*middles) <= 1.0:
            found.append((float(middles[0][0] + middles[1][0]) / 2.0, float(middles[0][1] + middles[1][1]) / 2.0))
    return _apart(found)


def _grain(
    piece: TracedPiece, lines: Sequence[DrawnLine], inner: list[Path], region: shapely.Polygon
) -> tuple[tuple[Point, Point] | None, list[Path]]:
    """The grain line, as the file names it, or the longest straight line that stands free in the piece; and the other lines."""
    low, high = piece.ring.min(axis=0), piece.ring.max(axis=0)
    least = GRAIN_LEAST * float(max(high - low))
    named = [
        line.path
        for line in lines
        if _kind(line) is Kind.GRAIN and region.contains(shapely.Point(line.path.point_at(line.path.length / 2.0)))
    ]
    straight = [path for path in named if len(path.cubics) == 1] or named
    if straight:
        best = max(straight, key=lambda path: math.dist(path.start, path.end))
        if math.dist(best.start, best.end) >= least / 4.0:
            return (_point(best.start), _point(best.end)), inner
    return free_line(inner, region, least)


def free_line(
    inner: Sequence[Path], region: shapely.Polygon, least: float
) -> tuple[tuple[Point, Point] | None, list[Path]]:  # fmt: skip
    """The longest straight line of at least a length (mm) that stands free in a piece, which is its grain line; and the
    others."""
    edge = region.boundary
    free = [
        path for path in inner
        if len(path.cubics) == 1 and path.length >= least and _is_straight(path) and not _touches_any(path, inner)
        and min(edge.distance(shapely.Point(path.start)), edge.distance(shapely.Point(path.end))) > NEAR
    ]  # fmt: skip
    if not free:
        return None, list(inner)
    best = max(free, key=lambda path: path.length)
    return (_point(best.start), _point(best.end)), [path for path in inner if path is not best]


def _touches_any(path: Path, others: Sequence[Path]) -> bool:
    """Whether a long line begins where one of these ends, as a leg does; heads of arrows are short."""
    ends = (path.start, path.end)
    return any(
        math.dist(end, other_end) <= 1.0
        for other in others
        if other is not path and other.length > 0.3 * path.length
        for end in ends
        for other_end in (other.start, other.end)
    )


def _fold(lines: Sequence[DrawnLine], region: shapely.Polygon) -> tuple[Point, Point] | None:
    near = region.buffer(1.0)
    folds = [
        line.path
        for line in lines
        if _kind(line) is Kind.FOLD and near.contains(shapely.Point(line.path.point_at(line.path.length / 2.0)))
    ]
    if not folds:
        return None
    best = max(folds, key=lambda path: path.length)
    return _point(best.start), _point(best.end)


def _point(at: Array) -> Point:
    return float(at[0]), float(at[1])
