"""Which corner is which: the six corners of a bodice half among all corners of an outline, by how such pieces usually look."""

from __future__ import annotations

import itertools
import math
from collections.abc import Mapping, Sequence

from zesty_pivot.core.intake.figures import CORNERS, EDGES, KINDS
from zesty_pivot.core.intake.parts import Parts, Span
from zesty_pivot.core.intake.traced import Point
from zesty_pivot.core.record import record

ROLES = ("neckline", "shoulder", "armhole", "side_seam", "waist", "centre")
LANDMARKS = ("centre_neck", "neck_point", "shoulder_tip", "underarm", "side_waist", "centre_waist")
MOST = 12  # corners looked at: the strongest
WORST = -14.0  # a single figure, however strange, counts no more than this against a reading: a log likelihood
CONVEX = math.radians(20.0)  # a landmark's corner turns outwards by at least this


@record
class OutlineReading:
    """One way to read an outline: the numbers of its corners in the order of LANDMARKS, whether it is seen from the back of the
    paper, the kind of piece that it looks most like, and its log likelihood."""

    corners: tuple[int, ...]
    is_mirrored: bool
    kind: str
    score: float


def readings(parts: Parts, said: Mapping[str, Point] | None = None) -> list[OutlineReading]:
    """All ways to read an outline as a bodice half, the likeliest first. None for one of fewer than six corners.

    `said` are places of landmarks (mm, on the paper) that a person has named: only readings that have them there count.
    """
    found: list[OutlineReading] = []
    for is_mirrored, seen in ((False, parts), (True, parts.mirrored())):
        glass = -1.0 if is_mirrored else 1.0
        fixed = {
            name: min(range(len(seen.corners)), key=lambda k: math.dist(seen.corners[k].at, (glass * at[0], at[1])))
            for name, at in (said or {}).items()
        }  # fmt: skip
        found += _readings(seen, fixed, is_mirrored=is_mirrored)
    return sorted(found, key=lambda one: -one.score)


def _readings(parts: Parts, fixed: Mapping[str, int], *, is_mirrored: bool) -> list[OutlineReading]:
    asked = set(fixed.values())
    convex = [index for index, corner in enumerate(parts.corners) if corner.turn > CONVEX or index in asked]
    if len(convex) < 6:  # noise may hide one: the next best is taken for it
        convex = sorted(range(len(parts.corners)), key=lambda index: -parts.corners[index].turn)[:7]
    if len(convex) < 6:
        return []
    strongest = sorted(convex, key=lambda index: (index not in asked, -min(parts.corners[index].turn, math.radians(100.0))))
    chosen = sorted(strongest[:MOST])
    spans: dict[tuple[int, int], tuple[float, ...]] = {}

    def figures(first: int, last: int) -> tuple[float, ...]:
        if (first, last) not in spans:
            spans[first, last] = span_figures(parts.between(first, last), parts.length)
        return spans[first, last]

    found = []
    for six in itertools.combinations(chosen, 6):
        if not asked <= set(six):
            continue
        ring = [figures(first, last) for first, last in zip(six, (*six[1:], six[0]), strict=True)]
        turns = [parts.corners[index].turn for index in six]
        # What is passed over inside the edges: corners that a reading has to explain away.
        spare = sum(_passed(parts.corners[index].turn) for index in chosen if index not in six)
        for shift in range(6):
            order = (*six[shift:], *six[:shift])
            if any(order[LANDMARKS.index(name)] != index for name, index in fixed.items()):
                continue
            edges, corners = ring[shift:] + ring[:shift], turns[shift:] + turns[:shift]
            kind, score = max(((kind, _likelihood(kind, edges, corners)) for kind in KINDS), key=lambda one: one[1])
            found.append(OutlineReading(order, is_mirrored, kind, score + spare))
    return found


def span_figures(span: Span, total: float) -> tuple[float, ...]:
    """What tells one edge from another: its share of the outline, and how far it bows in and out."""
    return (span.length / total, *span.bows)


def _passed(turn: float) -> float:
    """A corner that is no landmark's: the more it turns, the less likely."""
    return -0.5 * min((math.degrees(turn) / 20.0) ** 2, 36.0) / 2.0


def _likelihood(kind: str, edges: Sequence[Sequence[float]], corners: Sequence[float]) -> float:
    told: Mapping[str, Sequence[tuple[float, float]]] = EDGES[kind]
    total = 0.0
    for role, figures in zip(ROLES, edges, strict=True):
        total += sum(_normal(value, *usual) for value, usual in zip(figures, told[role], strict=True))
    for name, turn in zip(LANDMARKS, corners, strict=True):
        total += _normal(math.degrees(turn), *CORNERS[kind][name])
    return total


def _normal(value: float, mean: float, spread: float) -> float:
    return max(WORST, -0.5 * ((value - mean) / spread) ** 2 - math.log(spread))
