"""Lines that lie in any order and direction, joined to closed outlines; what is left over lies inside them."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from zesty_pivot.core.geometry import JOIN_TOL, Path, bezier
from zesty_pivot.core.record import record

Array = NDArray[np.float64]

TOUCH = 0.25  # mm: ends nearer than this are one place; a pen's width. Our own choice
REACH = 2.0  # mm: a lone end looks this far for another lone end, and it is told. Our own choice
ONE_PLACE = 1.0  # mm: gaps nearer to each other than this are at one place. Our own choice
_LOOK_ALONG = 0.5  # mm along a line to tell in which direction it leaves: rounding turns the very beginning


@record(eq=False)
class JoinedLines:
    """Closed outlines, clockwise on the paper; the lines that are no part of one; and the gaps that were closed, mm."""

    loops: tuple[Path, ...]
    rest: tuple[Path, ...]
    gaps: tuple[float, ...] = ()


def join(paths: Sequence[Path]) -> JoinedLines:
    """Joins lines at their ends to closed outlines. Where several lines meet, the outermost way round is the outline, so that a
    line drawn across a piece stays inside it."""
    paths = _without_doubles(paths)
    loops, open_ = [], []
    for path in paths:
        if math.dist(path.start, path.end) <= TOUCH and path.length > 4.0 * TOUCH:
            loops.append(_closed([path]))
        else:
            open_.append(path)
    if not open_:
        return JoinedLines(tuple(map(clockwise, loops)), ())
    nodes = _nodes(open_)
    gaps = _bridged(open_, nodes)
    found, rest = _traced(open_, nodes)
    return JoinedLines(tuple(map(clockwise, [*loops, *found])), tuple(rest), gaps)


def _without_doubles(paths: Sequence[Path]) -> list[Path]:
    """Each line once: the same drawn twice, or twice in opposite directions, is one."""
    found: dict[tuple[tuple[float, ...], ...], Path] = {}
    for path in paths:
        ends = sorted([tuple(np.round(path.start, 2).tolist()), tuple(np.round(path.end, 2).tolist())])
        middle = tuple(np.round(path.point_at(path.length / 2.0), 1).tolist())
        found.setdefault((*ends, middle, (round(path.length, 1),)), path)
    return list(found.values())


def _nodes(paths: Sequence[Path]) -> list[int]:
    """The node that each end lies on: 2 i for the start of the i-th path, 2 i + 1 for its end. Ends that touch are one node."""
    ends = np.concatenate([[path.start, path.end] for path in paths])
    owner = list(range(len(ends)))

    def root(one: int) -> int:
        while owner[one] != one:
            owner[one] = owner[owner[one]]
            one = owner[one]
        return one

    for one, two in cKDTree(ends).query_pairs(TOUCH):
        owner[root(one)] = root(two)
    return [root(one) for one in range(len(ends))]


def _bridged(paths: Sequence[Path], nodes: list[int]) -> tuple[float, ...]:
    """Makes one node of two lone ends that are each other's nearest within reach; the gaps."""
    counts = np.bincount(nodes, minlength=len(nodes))
    lone = [end for end in range(len(nodes)) if counts[nodes[end]] == 1]
    if len(lone) < 2:
        return ()
    ends = np.array([paths[end // 2].start if end % 2 == 0 else paths[end // 2].end for end in lone])
    found = cKDTree(ends).query(ends, k=2)
    distances, nearest = np.asarray(found[0]), np.asarray(found[1])
    gaps, bridged = [], []
    for one, (distance, two) in enumerate(zip(distances[:, 1], nearest[:, 1], strict=True)):
        if one < two and distance <= REACH and nearest[two, 1] == one:
            nodes[lone[two]] = nodes[lone[one]]
            gaps.append(float(distance))
            bridged.append((ends[one] + ends[two]) / 2.0)
    _gathered(paths, nodes, bridged)
    return tuple(gaps)


def _gathered(paths: Sequence[Path], nodes: list[int], bridged: Sequence[Array]) -> None:
    """Makes one node of all ends about a gap that was closed: where the legs of several darts end at one point, there are four
    of them or more."""
    if not bridged:
        return
    ends = np.concatenate([[path.start, path.end] for path in paths])
    found: Sequence[Sequence[int]] = cKDTree(ends).query_ball_point(np.array(bridged), ONE_PLACE)  # type: ignore[assignment]
    for near in found:
        if len({nodes[end] for end in near}) > 1:
            old, new = {nodes[end] for end in near}, min(nodes[end] for end in near)
            nodes[:] = [new if node in old else node for node in nodes]


def _traced(paths: Sequence[Path], nodes: list[int]) -> tuple[list[Path], list[Path]]:
    """The outer way round of each connected part that has one, and all lines that lie on none."""
    left = set(range(len(paths)))
    rest: list[Path] = []
    loops: list[Path] = []
    while True:
        dangling = _dangling(left, nodes)
        rest += [paths[index] for index in sorted(dangling)]
        left -= dangling
        if not left:
            return loops, rest
        part = _part(left, nodes)
        ring = _outer(part, paths, nodes)
        used = {half // 2 for half in ring}
        if ring:
            loops.append(_closed([paths[half // 2] if half % 2 == 0 else paths[half // 2].reversed() for half in ring]))
        # What is in the middle of the part may hold outlines of its own only where it does not touch the outer one.
        rest += [paths[index] for index in sorted(part - used)]
        left -= part


def _dangling(left: set[int], nodes: list[int]) -> set[int]:
    """Lines with an end that meets no other, and those that only such lines meet."""
    gone: set[int] = set()
    while True:
        counts: dict[int, int] = {}
        for index in left - gone:
            for node in (nodes[2 * index], nodes[2 * index + 1]):
                counts[node] = counts.get(node, 0) + 1
        more = {index for index in left - gone if counts[nodes[2 * index]] == 1 or counts[nodes[2 * index + 1]] == 1}
        if not more:
            return gone
        gone |= more


def _part(left: set[int], nodes: list[int]) -> set[int]:
    """One connected part of the lines."""
    by_node: dict[int, list[int]] = {}
    for index in left:
        by_node.setdefault(nodes[2 * index], []).append(index)
        by_node.setdefault(nodes[2 * index + 1], []).append(index)
    todo, found = [min(left)], {min(left)}
    while todo:
        index = todo.pop()
        for node in (nodes[2 * index], nodes[2 * index + 1]):
            for other in by_node[node]:
                if other not in found:
                    found.add(other)
                    todo.append(other)
    return found


def _outer(part: set[int], paths: Sequence[Path], nodes: list[int]) -> list[int]:
    """The half lines (2 i forwards, 2 i + 1 backwards) of the outer way round, without those walked both ways."""
    leaving: dict[int, list[tuple[float, int]]] = {}
    for index in part:
        for half in (2 * index, 2 * index + 1):
            leaving.setdefault(nodes[half], []).append((_leaves(paths[index], is_back=half % 2 == 1), half))
    for halves in leaving.values():
        halves.sort()
    rings = []
    seen: set[int] = set()
    for index in sorted(part):
        for half in (2 * index, 2 * index + 1):
            if half not in seen:
                ring = _walk(half, leaving, nodes)
                seen |= set(ring)
                rings.append(ring)
    # With y down, faces inside come out with one sign and the outer way round with the other: it is the one of its own.
    outer = min(rings, key=lambda ring: _swept(ring, paths))
    both = {half for half in outer if half ^ 1 in outer}
    return _untwisted([half ^ 1 for half in reversed(outer) if half not in both], nodes)


def _walk(first: int, leaving: dict[int, list[tuple[float, int]]], nodes: list[int]) -> list[int]:
    """One face: at every node the next half line clockwise from the one that was come by."""
    ring, half = [], first
    while True:
        ring.append(half)
        arrived = half ^ 1
        around = [one for _angle, one in leaving[nodes[arrived]]]
        half = around[(around.index(arrived) - 1) % len(around)]
        if half == first:
            return ring


def _untwisted(ring: list[int], nodes: list[int]) -> list[int]:
    """The ring where both ways along a line were taken out may hang in several; the longest is kept."""
    if not ring:
        return ring
    chains: list[list[int]] = [[]]
    for half in ring:
        if chains[-1] and nodes[chains[-1][-1] ^ 1] != nodes[half]:
            chains.append([])
        chains[-1].append(half)
    if len(chains) > 1 and nodes[chains[-1][-1] ^ 1] == nodes[chains[0][0]]:
        chains[0] = chains.pop() + chains[0]
    closed = [chain for chain in chains if nodes[chain[-1] ^ 1] == nodes[chain[0]]]
    return max(closed, key=len) if closed else []


def _leaves(path: Path, *, is_back: bool) -> float:
    """The angle at which a line leaves its end."""
    reach = min(_LOOK_ALONG, path.length / 2.0)
    origin, ahead = (path.end, path.point_at(path.length - reach)) if is_back else (path.start, path.point_at(reach))
    return math.atan2(ahead[1] - origin[1], ahead[0] - origin[0])


def _swept(ring: list[int], paths: Sequence[Path]) -> float:
    total = 0.0
    for half in ring:
        line = paths[half // 2].outline
        line = line if half % 2 == 0 else line[::-1]
        total += float((line[:-1, 0] * line[1:, 1] - line[1:, 0] * line[:-1, 1]).sum()) / 2.0
    return total


def _closed(parts: Sequence[Path]) -> Path:
    """One closed path of parts that meet within a pen's width: the ends are moved to the middle between them."""
    cubics = np.concatenate([path.cubics for path in parts]).copy()
    ends = np.roll(cubics[:, 0], -1, axis=0)
    off = np.abs(ends - cubics[:, 3]).max(axis=1)
    if len(cubics) == 1:
        ends = cubics[:, 0]
        off = np.abs(ends - cubics[:, 3]).max(axis=1)
    for index in np.flatnonzero(off > 0.0):
        after = (index + 1) % len(cubics)
        if off[index] <= JOIN_TOL:
            cubics[index, 3] = cubics[after, 0]
            continue
        middle = (cubics[index, 3] + cubics[after, 0]) / 2.0
        straight, straight_after = bezier.is_straight(cubics[index]), bezier.is_straight(cubics[after])
        by, by_after = middle - cubics[index, 3], middle - cubics[after, 0]
        cubics[index, 3] = middle
        cubics[after, 0] = middle
        if straight:
            cubics[index] = bezier.line(cubics[index, 0], middle)
        else:
            cubics[index, 2] = cubics[index, 2] + by
        if straight_after:
            cubics[after] = bezier.line(middle, cubics[after, 3])
        else:
            cubics[after, 1] = cubics[after, 1] + by_after
    return Path(cubics)


def clockwise(path: Path) -> Path:
    """A closed outline walked clockwise on the paper."""
    line = path.outline
    swept = float((line[:-1, 0] * line[1:, 1] - line[1:, 0] * line[:-1, 1]).sum())
    return path if swept >= 0.0 else path.reversed()
