"""A person with paper, slashing: to a hinge, wedges folded out, several slashes marked first."""

from __future__ import annotations

import math

import numpy as np

from tests.strips import Strip, mm


class Slashing:
    """What `Paper` does for slashes; it has the strips, and turns them."""

    # Slashes to a hinge, and wedges folded out.

    def slash_here(self, f) -> None:
        assert self.place is not None
        self.slash = self.place

    def mark_slash(self, f) -> None:
        for name, edge, start, at in (("A", "edge", "start", "at"), ("H", "hinge", "begin", "there")):
            self._along(f[edge], f[start], length=mm(f[at]))
            index, away = self.place
            strip = self.strips[index]
            spot = [np.interp(away, strip.ticks, strip.points[:, k]) for k in (0, 1)]
            strip.marks[name + f["number"]] = np.array(spot)

    def spread_marked(self, f) -> None:
        self.at_mark({"mark": "A" + f["number"]})
        self.slash = self.place
        self.at_mark({"mark": "H" + f["number"]})
        self.spread(f)

    def spread(self, f) -> None:
        pin = self._spot(*self.place)
        self._joint(*self.place, keeps=self.slash)
        self._joint(*self.slash)
        start = self._ending(self.slash_at)
        angle = 2.0 * math.asin(mm(f["chord"]) / (2.0 * math.dist(self.strips[start].points[-1], pin)))
        moving, sense = self._without_centre(start, self._ending(pin))
        self._rotate(moving, pin, sense * angle)
        bridge = np.vstack([self.strips[start].points[-1], self.strips[(start + 1) % len(self.strips)].points[0]])
        self.strips.insert(start + 1, Strip(f["edge"], bridge))

    def fold_out(self, f) -> None:
        pin = self._spot(*self.place)
        index, at = self.slash
        self._joint(*self.place, keeps=self.slash)
        index, at = self.slash
        one, two = (self._spot(index, along) - pin for along in (at, at + mm(f["by"])))
        angle = abs(math.atan2(one[0] * two[1] - one[1] * two[0], one @ two))
        self._take_out(index, at, mm(f["by"]))
        moving, sense = self._without_centre(index, self._ending(pin))
        self._rotate(moving, pin, -sense * angle)

    def _without_centre(self, opens: int, hinge: int) -> tuple[list[int], float]:
        """The strips of the part with less of the centre, and 1 where it opens clockwise, -1 where it does not."""
        parts = self._arc(opens + 1, hinge), self._arc(hinge + 1, opens)
        weights = [
            (
                sum(self.strips[k].length for k in part if self.strips[k].edge == "centre"),
                sum(self.strips[k].length for k in part),
            )
            for part in parts
        ]
        return (parts[1], -1.0) if weights[0] >= weights[1] else (parts[0], 1.0)

    def wedge_out(self, f) -> None:
        index, at = self.place
        self._take_out(index, at, mm(f["by"]))
        self.strips[index].mouth = "wedge"
        self.mouth_place = f["dart"]
        self._turn({**f, "dart": "wedge"}, 0.0)
        self.strips[index].mouth = ""

    def _take_out(self, index: int, at: float, by: float) -> None:
        """Cuts a stretch out of a strip: it ends at the one place, the next begins at the other."""
        kept, rest = self.strips[index].cut(at)
        _gone, after = rest.cut(by)
        self.strips[index : index + 1] = [kept, after]

    def _spot(self, index: int, at: float) -> np.ndarray:
        strip = self.strips[index]
        return np.array([np.interp(at, strip.ticks, strip.points[:, k]) for k in (0, 1)])

    def _joint(self, index: int, at: float, keeps: tuple[int, float] | None = None) -> None:
        """A joint at a place; `keeps` is another place that must still be found."""
        self.slash_at = self._spot(*(keeps or (index, at)))
        if 1e-6 < at < self.strips[index].length - 1e-6:
            self.strips[index : index + 1] = self.strips[index].cut(at)
            if keeps is not None and keeps[0] >= index:
                other = keeps[0] + 1, keeps[1] - (at if keeps[0] == index else 0.0)
                self.slash = other if keeps[0] > index or keeps[1] > at else keeps

    def _ending(self, spot: np.ndarray) -> int:
        return min(range(len(self.strips)), key=lambda k: math.dist(self.strips[k].points[-1], spot))

    def _arc(self, first: int, last: int) -> list[int]:
        count = len(self.strips)
        return [(first + k) % count for k in range((last - first) % count + 1)]
