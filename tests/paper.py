"""A person with paper: follows a hand sheet from its printed figures alone. Knows nothing of the program's moves.

The paper is a ring of polylines sampled from the block; all that is done to it is measuring along it, cutting, turning
about a pin and drawing a curve by halving. Names and numbers come only from the lines' figures.
"""

from __future__ import annotations

import math

import numpy as np
import shapely

from tests.paper_slash import Slashing
from tests.strips import Strip, mm
from zesty_pivot.core.piece import Piece, dart_words

FINE = 400  # points on each cubic of the traced block


class Paper(Slashing):
    """One piece of paper, traced from a block's piece."""

    def __init__(self, block: Piece) -> None:
        self.levels = block.levels
        self.pins = {name.replace("_", " "): np.array(at) for name, at in block.landmarks.items()}
        t = np.linspace(0.0, 1.0, FINE)[:, None]
        self.strips: list[Strip] = []
        for run in block.runs:
            curves = [
                a * (1 - t) ** 3 + 3 * b * t * (1 - t) ** 2 + 3 * c * t**2 * (1 - t) + d * t**3
                for a, b, c, d in run.path.cubics
            ]
            mouth = dart_words(block, run.mouth) if run.mouth else ""
            self.strips.append(Strip(run.edge.replace("_", " "), np.vstack(curves), mouth))
        self.place: tuple[int, float] | None = None
        self.mouth_place = ""

    def do(self, line) -> None:
        """One line of the sheet."""
        getattr(self, line.do)(line.figures)

    # Preparing.

    def mark_level(self, f) -> None:
        y = self.levels[f["level"].replace(" ", "_")]
        for strip in (s for s in self.strips if s.edge == f["edge"]):
            low, high = strip.points[:, 1].min(), strip.points[:, 1].max()
            if low <= y <= high:
                self._mark(strip, f["mark"], int(np.argmin(abs(strip.points[:, 1] - y))), y, 1)
                return

    def mark_plumb(self, f) -> None:
        x = self.pins[f["pin"]][0]
        for strip in (s for s in self.strips if s.edge == "waist"):
            if strip.points[:, 0].min() <= x <= strip.points[:, 0].max():
                self._mark(strip, f["mark"], int(np.argmin(abs(strip.points[:, 0] - x))), x, 0)
                return

    def _mark(self, strip: Strip, name: str, near: int, value: float, axis: int) -> None:
        a = strip.points[near]
        b = strip.points[near + 1 if near + 1 < len(strip.points) else near - 1]
        if (strip.points[near - 1][axis] - value) * (a[axis] - value) < 0 and near:
            b = strip.points[near - 1]
        share = (value - a[axis]) / (b[axis] - a[axis]) if b[axis] != a[axis] else 0.0
        strip.marks[name] = a + (b - a) * min(max(share, 0.0), 1.0)

    def mark_dart(self, f) -> None:
        index = self._mouth(f["dart"])
        self.strips[index].marks[f["mark"]] = self.strips[index].points[-1]

    # Places.

    def at_share(self, f) -> None:
        self._along(f["edge"], f["start"], share=float(f["share"].rstrip("%")) / 100.0)

    def at_length(self, f) -> None:
        self._along(f["edge"], f["start"], length=mm(f["at"]))

    def at_mark(self, f) -> None:
        for index, strip in enumerate(self.strips):
            if f["mark"] in strip.marks:
                self._settle(index, strip.where(strip.marks[f["mark"]]))
                return
        raise AssertionError(f"no mark {f['mark']}")

    def at_dart(self, f) -> None:
        self.place, self.mouth_place = None, f["dart"]

    def at_far(self, f) -> None:
        x = self.pins[f["through"]][0] if not f["dart"] else 0.0  # the centre is the line x = 0
        if f["dart"]:
            joint = self._mouth(f["dart"])
            x = min(self.strips[joint].points[-1][0], self.strips[(joint + 1) % len(self.strips)].points[0][0])
        assert abs(x - mm(f["far"])) < 1.0
        for index, strip in enumerate(self.strips):
            across = strip.points[:, 0]
            if strip.edge == f["edge"] and across.min() <= x <= across.max():
                at = int(np.flatnonzero(np.diff(np.sign(across - x)) != 0)[0])
                share = (x - across[at]) / (across[at + 1] - across[at])
                point = strip.points[at] + (strip.points[at + 1] - strip.points[at]) * share
                return self._settle(index, strip.where(point))
        raise AssertionError(f"{f['edge']} is nowhere {f['far']} from the centre")

    def mark_mouth(self, f) -> None:
        index = self._mouth(f["dart"])
        self.strips[index].marks[f["mark"]] = self.strips[index].points[-1]

    def beside_dart(self, f) -> None:
        index, away = self._mouth(f["dart"]), mm(f["away"])
        at = index
        if f["side"] == "clockwise":
            at = (index + 1) % len(self.strips)
            while away > self.strips[at].length + 1e-6:
                away -= self.strips[at].length
                at = (at + 1) % len(self.strips)
            return self._settle(at, away)
        while away > self.strips[at].length + 1e-6:
            away -= self.strips[at].length
            at -= 1
        return self._settle(at % len(self.strips), self.strips[at].length - away)

    ENDS = {"neckline": "centre neck", "shoulder": "neck point", "armhole": "shoulder tip", "side seam": "underarm",
            "waist": "side waist", "centre": "centre waist"}  # fmt: skip

    def _along(self, edge: str, start: str, share: float = 0.0, length: float | None = None) -> None:
        mine = [k for k, strip in enumerate(self.strips) if strip.edge == edge]
        total = sum(self.strips[k].length for k in mine)
        away = share * total if length is None else length
        away = away if start == self.ENDS[edge] else total - away
        for k in mine:
            size = self.strips[k].length
            if away <= size + 1e-6 or k == mine[-1]:
                return self._settle(k, min(away, size))
            away -= size
        return None

    def _settle(self, index: int, at: float) -> None:
        """Keeps the place; a mouth within a millimetre is that mouth."""
        strip, before = self.strips[index], self.strips[index - 1]
        self.place, self.mouth_place = (index, at), ""
        if strip.length - at < 1.0 and strip.mouth:
            self.mouth_place = strip.mouth
        elif at < 1.0 and before.mouth:
            self.mouth_place = before.mouth

    # Moving.

    def pin(self, f) -> None:
        self._open()

    def cut(self, f) -> None:
        self._open()

    def _open(self) -> None:
        if self.mouth_place:
            return
        assert self.place is not None
        index, at = self.place
        if 1e-6 < at < self.strips[index].length - 1e-6:
            self.strips[index : index + 1] = self.strips[index].cut(at)
        elif at <= 1e-6:
            index -= 1
        self.strips[index % len(self.strips)].mouth = "new"
        self.mouth_place = "new"

    def open(self, f) -> None:
        assert self.mouth_place

    def trace(self, f) -> None:
        assert f["dart"]

    def nothing(self, f) -> None:
        pass

    def shut(self, f) -> None:
        self._turn(f, 0.0)
        self.strips[self._mouth(f["dart"])].mouth = ""

    def leave(self, f) -> None:
        pin, opens = self.pins[f["pin"]], self._mouth(self.mouth_place)
        ends = self.strips[opens].points[-1], self.strips[(opens + 1) % len(self.strips)].points[0]
        legs = [math.dist(end, pin) for end in ends]
        # The mouth is the third side of a triangle with both legs (law of cosines).
        wide = mm(f["wide"])
        whole = math.acos((legs[0] ** 2 + legs[1] ** 2 - wide**2) / (2.0 * legs[0] * legs[1]))
        self._turn(f, self._angle(self._mouth(f["dart"]), pin) - (whole - self._angle(opens, pin)))

    def _mouth(self, dart: str) -> int:
        return next(k for k, strip in enumerate(self.strips) if strip.mouth == dart)

    def _angle(self, index: int, pin: np.ndarray) -> float:
        a, b = self.strips[index].points[-1] - pin, self.strips[(index + 1) % len(self.strips)].points[0] - pin
        return math.atan2(a[0] * b[1] - a[1] * b[0], a @ b)

    def _turn(self, f, left: float) -> None:
        """Turns the part without the longer centre until the dart is left with an angle."""
        pin, count = self.pins[f["pin"]], len(self.strips)
        closes, opens = self._mouth(f["dart"]), self._mouth(self.mouth_place)
        angle = self._angle(closes, pin) - left
        after = [(closes + 1 + k) % count for k in range((opens - closes) % count)]
        before = [k for k in range(count) if k not in after]
        centre = [sum(self.strips[k].length for k in part if self.strips[k].edge == "centre") for part in (before, after)]
        whole = [sum(self.strips[k].length for k in part) for part in (before, after)]
        stays_before = (centre[0], whole[0]) >= (centre[1], whole[1])
        self._rotate(after if stays_before else before, pin, -angle if stays_before else angle)

    def _rotate(self, indices: list[int], pin: np.ndarray, angle: float) -> None:
        c, s = math.cos(angle), math.sin(angle)
        turn = np.array([[c, -s], [s, c]])
        part = shapely.Polygon(np.vstack([*(self.strips[k].points for k in indices), pin])).buffer(0.0)
        for name, at in self.pins.items():  # what is drawn on the part goes along
            if math.dist(at, pin) > 1e-9 and part.contains(shapely.Point(at)):
                self.pins[name] = turn @ (at - pin) + pin
        for k in indices:
            strip = self.strips[k]
            strip.points = (strip.points - pin) @ turn.T + pin
            strip.marks = {name: turn @ (point - pin) + pin for name, point in strip.marks.items()}

    def mouth(self, f) -> None:
        index = self._mouth(self.mouth_place)
        first, second = self.strips[index].points[-1], self.strips[(index + 1) % len(self.strips)].points[0]
        # The printed mouth is there to check the work by; a person would look again at two millimetres.
        assert abs(math.dist(first, second) - mm(f["mouth"])) < 2.0, f
        self.strips[index].mouth = f["new"]

    def rename(self, f) -> None:
        self.strips[self._mouth(f["dart"])].mouth = f["new"]

    def mark_use(self, f) -> None:
        """Marks and words only: nothing of the outline changes."""
        assert f["dart"]

    # Truing.

    def straighten(self, f) -> None:
        mine = [k for k, strip in enumerate(self.strips) if strip.edge == f["edge"]]
        ends = np.linspace(self.strips[mine[0]].points[0], self.strips[mine[-1]].points[-1], 200)
        self.strips[mine[0] : mine[-1] + 1] = [Strip(f["edge"], ends, self.strips[mine[-1]].mouth)]

    def fold(self, f) -> None:
        """Folded along the legs from the mouth's ends to the sewn point, set back on the line to the middle of the mouth."""
        self.joint, self.fold_dart = self._mouth(f["dart"]), f["dart"]
        pin = self.pins[f["pin"]]
        ends = self.strips[self.joint].points[-1], self.strips[(self.joint + 1) % len(self.strips)].points[0]
        out = (ends[0] + ends[1]) / 2.0 - pin
        self.about = pin + out / math.hypot(*out) * (mm(f["setback"]) if "setback" in f else 0.0)

    def corner(self, f) -> None:
        mine = [k for k, strip in enumerate(self.strips) if strip.edge == f["edge"]]
        ends = np.cumsum([self.strips[k].length for k in mine])[:-1]
        self.joint, self.fold_dart = mine[int(np.argmin(abs(ends - mm(f["at"]))))], ""

    def points(self, f) -> None:
        pin = self.about if self.fold_dart else np.zeros(2)
        count, edge = len(self.strips), f["edge"]
        self.angle = self._angle(self.joint, pin) if self.fold_dart else 0.0
        self.about = pin
        first = self._chain(self.joint, -1)
        second = self._chain((self.joint + 1) % count, 1)
        assert all(self.strips[k].edge == edge for k in (*first, *second))
        tail = np.vstack([self.strips[k].points for k in reversed(first)])
        head = _turned(np.vstack([self.strips[k].points for k in second]), pin, -self.angle)
        self.kept, k, along_k = _leave(tail[::-1], mm(f["back"]))
        self.rest, last, along_l = _leave(head, mm(f["ahead"]))
        # A ruler that runs along the seam at both ends and passes P: a cubic whose middle lies there.
        way = -(along_k + along_l)
        long, size = math.dist(k, last) / 3.0, float(np.hypot(*way))
        handle = long if size < 0.02 else min(mm(f["rise"]) / (0.375 * size), 2.0 * long)
        self.frame = (k, k - along_k * handle, last - along_l * handle, last)
        self.first, self.second = first, second

    def _chain(self, index: int, by: int) -> list[int]:
        """The strips from one on without a mouth or corner of the piece in between."""
        found, edge = [index], self.strips[index].edge
        while True:
            following = (found[-1] + by) % len(self.strips)
            joint = found[-1] if by > 0 else following
            if self.strips[following].edge != edge or self.strips[joint].mouth:
                return found
            a = self.strips[joint].points[-1] - self.strips[joint].points[-2]
            b = self.strips[(joint + 1) % len(self.strips)].points[1] - self.strips[(joint + 1) % len(self.strips)].points[0]
            if abs(math.atan2(a[0] * b[1] - a[1] * b[0], a @ b)) > 0.002:
                return found  # a corner that has its own turn
            found.append(following)

    def curve(self, f) -> None:
        a, b, c, d = self.frame
        t = np.linspace(0.0, 1.0, 500)[:, None]
        self.drawn = a * (1 - t) ** 3 + 3 * b * t * (1 - t) ** 2 + 3 * c * t**2 * (1 - t) + d * t**3

    def open_out(self, f) -> None:
        edge = self.strips[self.joint].edge
        mouth_after = self.strips[self.second[-1]].mouth
        marks = {n: p for k in (*self.first, *self.second) for n, p in self.strips[k].marks.items()}
        if self.fold_dart:
            leg = self.strips[self.joint].points[-1] - self.about
            side = (self.drawn - self.about) @ np.array([-leg[1], leg[0]])
            at = int(np.flatnonzero(np.diff(np.sign(side)) != 0)[0])
            share = side[at] / (side[at] - side[at + 1])
            cross = self.drawn[at] + (self.drawn[at + 1] - self.drawn[at]) * share
            left, right = np.vstack([self.drawn[: at + 1], cross]), np.vstack([cross, self.drawn[at + 1 :]])
            right = np.vstack([right, self.rest])
        else:
            left, right = np.vstack([self.drawn[:250]]), np.vstack([self.drawn[249:], self.rest])
        one = Strip(edge, np.vstack([self.kept[::-1], left]), self.fold_dart)
        two = Strip(edge, right, mouth_after)
        one.marks = {n: p for n, p in marks.items() if math.dist(p, one.points[-1]) < 20.0}
        start = min(self.first[-1], self.second[-1])
        assert self.first[-1] <= self.second[-1]
        self.strips[start : self.second[-1] + 1] = [one, two]
        if self.fold_dart:
            two.points = _turned(two.points, self.about, self.angle)
        one.marks.update(dict.fromkeys(one.marks, one.points[-1]))


def _turned(points: np.ndarray, pin: np.ndarray, angle: float) -> np.ndarray:
    c, s = math.cos(angle), math.sin(angle)
    return (points - pin) @ np.array([[c, -s], [s, c]]).T + pin


def _leave(points: np.ndarray, distance: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """A line walked from its start: what is left beyond a distance, the point there, and the direction on."""
    steps = np.hypot(*np.diff(points, axis=0).T)
    keep = np.concatenate([[True], steps > 1e-12])
    points = points[keep]
    ticks = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    spot = np.array([np.interp(distance, ticks, points[:, k]) for k in (0, 1)])
    index = int(np.searchsorted(ticks, distance))
    index = min(max(index, 1), len(points) - 1)
    along = points[index] - points[index - 1]
    rest = points[ticks > distance + 1e-9]
    return np.vstack([spot, rest]), spot, along / np.hypot(*along)
