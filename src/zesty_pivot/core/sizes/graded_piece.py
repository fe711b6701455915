"""A piece graded: its points by the rules, its lines with their character, its darts kept or grown.

It is graded with the darts of a pivot shut but the one at the waist, as it was drafted, and opened again; so an outer part that
was swung lies where the rules speak of. Between two points whose shifts are known a line goes by an affine map of each
coordinate: what was level stays level, and grading back gives it back.
"""

from __future__ import annotations

import itertools
import math

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.formats.block_file import MATCH, BlockDart, BlockEdge, BlockFishEye, BlockPiece
from zesty_pivot.core.geometry import Motion, Path, between, svgpath
from zesty_pivot.core.piece import Body
from zesty_pivot.core.piece.names import ends_of
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.rules import DartRule, RuleTable, SizeDifferences, point_rule

# By which coordinate of a place on an edge of a role its shift across and its shift down are told: an armhole, a side and a
# centre run down, a shoulder, a waist and a hem run across, a neckline does both, and so does an armhole below its middle.
BY: dict[str, tuple[int, int]] = {
    "armhole": (1, 1), "side_seam": (1, 1), "centre": (1, 1), "neckline": (0, 1), "shoulder": (0, 0), "waist": (0, 0),
    "hem": (0, 0),
}  # fmt: skip
LEAST = 4.0  # mm that a waist or hem falls, for a mouth in it to be told by that

Points = NDArray[np.float64]
Spot = tuple[float, float]


@record(eq=False)
class _Line:
    """A stretch between two mouths or corners: its edge, its path in the flat, and how it came there."""

    edge: str
    path: Path
    shut: Motion
    mouth: str | None  # the dart that opens at its end
    turns: tuple[tuple[str, float], ...]  # by pivot, how far it was turned there, radians


class PieceGrading:
    """One piece on its way."""

    def __init__(
        self, piece: BlockPiece, differences: SizeDifferences, table: RuleTable, darts: DartRule, lower: float = 0.0
    ) -> None:
        """`lower` is how much further down the side seam ends than the rules say, mm."""
        self._piece, self._by, self._table, self._lower = piece, differences, table, lower
        self._darts = {dart.id: dart for dart in piece.darts}
        self._angles = {dart.id: _angle(dart, piece) for dart in piece.darts}
        self._home = self._homes()
        self._lines = self._flat()
        self._wider = self._width(darts)
        self._levels = {name: self._level(name) for name in piece.levels}

    # The flat.

    def _homes(self) -> dict[str, str]:
        """The dart of each pivot that stays open in the flat: the one at the waist, else the last one round."""
        found: dict[str, str] = {}
        roles = {edge.id: edge.role for edge in self._piece.edges}
        for dart in self._piece.darts:
            known = found.get(dart.pivot)
            if known is None or roles.get(self._darts[known].edge) not in ("waist", "hem"):
                found[dart.pivot] = dart.id
        return found

    def _flat(self) -> list[_Line]:
        """The lines in ring order, from the neckline on, with all darts shut that are not at home."""
        # By pivot: how far (radians) what comes next is turned. Before the dart at home back by each that was passed, behind it
        # forth by those that are still to come, so that both ends of the ring lie as they are.
        turns, found = dict.fromkeys(self._home, 0.0), list[_Line]()
        after = {pivot: self._after_home(pivot) for pivot in self._home}
        for edge in self._piece.edges:
            paths = svgpath.read(edge.path)
            for number, path in enumerate(paths):
                mouth = self._mouth(edge.id, path.end, paths[number + 1].start) if number + 1 < len(paths) else None
                shut = Motion.shift(np.zeros(2))
                for pivot, angle in turns.items():
                    if angle:
                        shut = shut.then(Motion.turn(shut(np.array(self._piece.landmarks[pivot])), angle))
                found.append(_Line(edge.id, path.moved(shut), shut, mouth, tuple(turns.items())))
                if mouth is not None:
                    pivot = self._darts[mouth].pivot
                    turns[pivot] = after[pivot] if self._home[pivot] == mouth else turns[pivot] - self._angles[mouth]
        return found

    def _after_home(self, pivot: str) -> float:
        """The angles together of a pivot's darts that come after the one at home, as the ring goes."""
        places = {edge.id: n for n, edge in enumerate(self._piece.edges)}
        start = {edge.id: svgpath.read(edge.path)[0].start for edge in self._piece.edges}

        def place(dart: BlockDart) -> tuple[int, float]:
            return places[dart.edge], min(float(np.hypot(*(np.array(at) - start[dart.edge]))) for at in dart.mouth)

        home = place(self._darts[self._home[pivot]])
        return sum(self._angles[dart.id] for dart in self._piece.darts if dart.pivot == pivot and place(dart) > home)

    def _mouth(self, edge: str, end: Points, start: Points) -> str | None:
        for dart in self._piece.darts:
            ends = np.array(dart.mouth)
            off = min(float(np.abs(order - np.array([end, start])).max()) for order in (ends, ends[::-1]))
            if dart.edge == edge and off < MATCH:
                return dart.id
        return None

    # What is asked.

    def _shift(self, point: str) -> Points | None:
        rule = point_rule(self._table, point, self._piece.body)
        return None if rule is None else np.array([self._by.of(rule.x), self._by.of(rule.y)])

    def _level(self, name: str) -> float:
        rule = next((one for one in self._table.level if one.name == name and one.on in ("", self._piece.body.value)), None)
        return 0.0 if rule is None else self._by.of(rule.y)

    def _width(self, rule: DartRule) -> dict[str, float]:
        """How much wider (mm) the darts of each pivot are together, at the waist."""
        return {
            pivot: next((self._by.of(one.intake) for one in self._table.dart if (one.pivot, one.rule) == (pivot, rule)), 0.0)
            for pivot in self._home
        }

    def _corner(self, point: str) -> Points:
        """How far a corner goes; one at the waist further out by what the darts before it grow."""
        shift = self._shift(point)
        if shift is None:
            shift = self._inside(np.array(self._piece.landmarks[point]))
        if point in ("side_waist", "side_hem"):
            roles = {edge.id: edge.role for edge in self._piece.edges}
            at_waist = (
                mm for pivot, mm in self._wider.items() if roles[self._darts[self._home[pivot]].edge] in ("waist", "hem")
            )
            shift = np.array([shift[0] + sum(at_waist), shift[1] + self._lower])
        return shift

    def _inside(self, at: Points) -> Points:
        """How far a place inside goes that no rule speaks of: across as the underarm does by its share, down as the levels."""
        known = sorted([(0.0, 0.0), *((self._piece.levels[name], mm) for name, mm in self._levels.items())])
        heights, downs = zip(*known, strict=True)
        under = self._shift("underarm")
        wide = self._piece.landmarks.get("underarm", (1.0, 0.0))[0]
        across = 0.0 if under is None else float(under[0]) * float(at[0]) / max(abs(wide), 1.0)
        return np.array([across, float(np.interp(at[1], heights, downs))])

    # The lines.

    def _knots(self, line: _Line, first: Points, last: Points) -> list[tuple[Points, Points]]:
        """Places of a line in the flat whose shifts are known, from its beginning to its end."""
        found = [(line.path.start, first), (line.path.end, last)]
        joints = line.path.cubics[1:, 0]
        role = next(edge.role for edge in self._piece.edges if edge.id == line.edge)
        if role == "armhole" and len(joints):
            shift = self._shift("armhole_middle")
            if shift is not None:
                middle = (line.path.start[1] + line.path.end[1]) / 2.0
                found.insert(1, (joints[np.abs(joints[:, 1] - middle).argmin()], shift))
        return found

    def _graded_lines(self) -> list[Path]:
        """The lines in the flat, graded."""
        ends = ends_of(edge.role for edge in self._piece.edges)
        found = []
        for edge in self._piece.edges:
            mine = [line for line in self._lines if line.edge == edge.id]
            first, last = (self._corner(point) for point in ends[edge.role])
            shifts = self._along(mine, first, last, edge.role)
            for line, (one, two) in zip(mine, shifts, strict=True):
                found.append(_carried(line.path, self._knots(line, one, two), edge.role))
        return found

    def _along(self, lines: list[_Line], first: Points, last: Points, role: str) -> list[tuple[Points, Points]]:
        """The shifts at both ends of each line of an edge: at a mouth that is open in the flat as its pivot goes across, wider
        by what it grows; where a dart was shut as the edge goes there."""
        ends = lines[0].path.start, lines[-1].path.end
        found, before = list[tuple[Points, Points]](), first
        for line, after in zip(lines, (*lines[1:], None), strict=True):
            if after is None or line.mouth is None:
                found.append((before, last))
                break
            at = [_between(spot, ends, first, last, role) for spot in (line.path.end, after.path.start)]
            dart = self._darts[line.mouth]
            if self._home[dart.pivot] == line.mouth and role not in ("waist", "hem"):
                # Both ends of the mouth alike, by the part of the sewn edge that lies before it.
                parts = [np.abs(one.path.end - one.path.start)[BY[role][0]] for one in lines]
                at = [first + (last - first) * sum(parts[: lines.index(line) + 1]) / sum(parts)] * 2
            elif self._home[dart.pivot] == line.mouth:
                at = self._mouth_shifts(dart.pivot, line.path.end, after.path.start, last)
            found.append((before, at[0]))
            before = at[1]
        return found

    def _mouth_shifts(self, pivot: str, one: Points, other: Points, centre: Points) -> list[Points]:
        """How far both ends of a mouth at the waist go: the dart turns about its pivot as it was, as much longer as the centre
        goes further down than the pivot, as much wider as is asked; its legs stay in their proportion."""
        pin, moved = np.array(self._piece.landmarks[pivot]), self._pin(pivot)
        legs = [spot - pin for spot in (one, other)]
        longs = [float(np.hypot(*leg)) for leg in legs]
        half = between(legs[0], legs[1]) / 2.0
        height = sum(longs) / 2.0 * math.cos(half)
        down = height + float(centre[1]) - float(moved[1] - pin[1])
        now = math.copysign(math.atan((height * math.tan(abs(half)) + self._wider[pivot] / 2.0) / down), half)
        grown = down / math.cos(now) / (height / math.cos(half))
        turns = [Motion.turn(np.zeros(2), angle) for angle in (half - now, now - half)]
        return [moved + turn(leg) * grown - spot for turn, leg, spot in zip(turns, legs, (one, other), strict=True)]

    # The whole.

    def made(self) -> BlockPiece:
        """The piece graded."""
        paths = self._graded_lines()
        pins = {pivot: self._pin(pivot) for pivot in self._home}
        share = {pivot: self._growth(pivot, paths) for pivot in self._home}
        opened = [self._opened(line, path, pins, share) for line, path in zip(self._lines, paths, strict=True)]
        edges, landmarks = [], {}
        ends = ends_of(edge.role for edge in self._piece.edges)
        for edge in self._piece.edges:
            mine = [path for line, path in zip(self._lines, opened, strict=True) if line.edge == edge.id]
            edges.append(BlockEdge(id=edge.id, role=edge.role, path=svgpath.write(mine)))
            landmarks[ends[edge.role][0]] = _spot(mine[0].start)
        for point, at in self._piece.landmarks.items():
            if point not in landmarks:
                shift = self._shift(point)
                landmarks[point] = _spot(np.array(at) + (self._inside(np.array(at)) if shift is None else shift))
        return self._piece.model_copy(
            update={
                "edges": tuple(edges), "landmarks": {point: landmarks[point] for point in self._piece.landmarks},
                "levels": {name: round(y + self._levels[name], 6) for name, y in self._piece.levels.items()},
                "darts": tuple(self._dart(dart, opened, landmarks) for dart in self._piece.darts),
                "fisheyes": tuple(self._fisheye(eye) for eye in self._piece.fisheyes),
                "grain": None if self._piece.grain is None else tuple(self._moved(at) for at in self._piece.grain),
            }
        )  # fmt: skip

    def _pin(self, pivot: str) -> Points:
        at = np.array(self._piece.landmarks[pivot])
        shift = self._shift(pivot)
        return np.asarray(at + (self._inside(at) if shift is None else shift))

    def _growth(self, pivot: str, paths: list[Path]) -> float:
        """By how much the angles of a pivot's darts are more than they were: as those of the whole fullness at the waist."""
        home = self._home[pivot]
        total = sum(self._angles[dart.id] for dart in self._piece.darts if dart.pivot == pivot)
        where = next((n for n, line in enumerate(self._lines) if line.mouth == home), None)
        if where is None or where + 1 >= len(paths):
            return 1.0
        pin = self._pin(pivot)
        now = abs(between(paths[where].end - pin, paths[where + 1].start - pin))
        return now / total if len([dart for dart in self._piece.darts if dart.pivot == pivot]) > 1 else 1.0

    def _opened(self, line: _Line, path: Path, pins: dict[str, Points], share: dict[str, float]) -> Path:
        """A line of the flat swung out again by the darts that were shut."""
        motion = Motion.shift(np.zeros(2))
        for pivot, angle in line.turns:
            motion = Motion.turn(pins[pivot], -angle * share[pivot]).then(motion)
        return path.moved(motion)

    def _dart(self, dart: BlockDart, opened: list[Path], landmarks: dict[str, Spot]) -> BlockDart:
        where = next(n for n, line in enumerate(self._lines) if line.mouth == dart.id)
        ends = _spot(opened[where].end), _spot(opened[where + 1].start)
        line = self._lines[where]
        is_turned = np.abs(np.array(dart.mouth[0]) - line.shut.undone(line.path.end)).max() > MATCH
        pin = np.array(self._piece.landmarks[dart.pivot])
        off = np.array(dart.point) - pin
        way = np.mean(np.array(ends), axis=0) - landmarks[dart.pivot]
        old = np.mean(np.array(dart.mouth), axis=0) - pin
        back = Motion.turn(np.zeros(2), between(old, way))(off)  # the sewn point as far from its pivot as it was
        point = _spot(np.array(landmarks[dart.pivot]) + back)
        return dart.model_copy(update={"mouth": ends[::-1] if is_turned else ends, "point": point})

    def _fisheye(self, eye: BlockFishEye) -> BlockFishEye:
        """A fish-eye goes along with its place, as wide as it is."""
        middle = np.mean(np.array(eye.waist), axis=0)
        over = self._shift("bust_point" if self._piece.body is Body.FRONT else "waist_tip")
        across = float(self._inside(middle)[0]) if over is None else float(over[0])

        def moved(at: Spot) -> Spot:
            return _spot(np.array([at[0] + across, at[1] + self._inside(np.array(at))[1]]))

        return eye.model_copy(
            update={"top": moved(eye.top), "waist": tuple(moved(at) for at in eye.waist), "bottom": moved(eye.bottom),
                    "point": None if eye.point is None else moved(eye.point)}
        )  # fmt: skip

    def _moved(self, at: Spot) -> Spot:
        return _spot(np.array(at) + self._inside(np.array(at)))


def _angle(dart: BlockDart, piece: BlockPiece) -> float:
    """How far a dart opens, radians, as the ring goes round it: positive."""
    pin = np.array(piece.landmarks[dart.pivot])
    one, two = (np.array(at) - pin for at in dart.mouth)
    return abs(between(one, two))


def _spot(at: Points) -> Spot:
    return round(float(at[0]), 6), round(float(at[1]), 6)


def _between(spot: Points, ends: tuple[Points, Points], first: Points, last: Points, role: str) -> Points:
    """The shift of a place on an edge of a role between the shifts of its ends."""
    (start, end), found = ends, np.empty(2)
    way = end - start
    for axis, by in enumerate(BY[role]):
        told = axis if role in ("waist", "hem") and abs(way[axis]) > LEAST else by
        found[axis] = first[axis] + (last[axis] - first[axis]) * (spot[told] - start[told]) / way[told]
    return found


def _carried(path: Path, knots: list[tuple[Points, Points]], role: str) -> Path:
    """A line that goes by its knots' shifts: each stretch between two of them by an affine map of each coordinate."""
    cubics, at = path.cubics.copy(), 0
    for number, ((start, first), (end, last)) in enumerate(itertools.pairwise(knots)):
        stop = len(cubics) if end is knots[-1][0] else int(np.abs(cubics[:, 3] - end).sum(axis=1).argmin()) + 1
        way, part = end - start, cubics[at:stop].copy()
        for axis, by in enumerate(BY["neckline" if role == "armhole" and number else role]):
            share = (part[..., by] - start[by]) / way[by]
            cubics[at:stop, :, axis] += first[axis] + (last[axis] - first[axis]) * share
        at = stop
    return Path(cubics)
