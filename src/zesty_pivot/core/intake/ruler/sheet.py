"""What a ruler measures on a piece of paper: which points there are, and from where each is measured."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import field
from typing import Literal

from zesty_pivot.core.intake.roles import LANDMARKS
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import record

Item = Literal["dart", "point"]  # on an edge: a dart that opens there, or a point that a curve passes through
NECK, WAIST = "centre_neck", "centre_waist"  # the ends of the centre: every other point may be measured from both
# By edge in the order of the outline: the corner that it runs to. The centre is the line that all is measured from.
RUNS_TO = {
    "neckline": "neck_point", "shoulder": "shoulder_tip", "armhole": "underarm", "side_seam": "side_waist",
    "waist": "centre_waist",
}  # fmt: skip


@record
class RulerPoint:
    """A point to be measured: its id, the edge it lies on, its name, and the points that it may be measured from."""

    id: str
    edge: str
    name: str
    sources: tuple[str, ...]


@record
class RulerPiece:
    """The measures of half a front or back, mm. `items` are by edge what lies on it, in order from the centre neck round the
    piece; `distances` by point and by the point that it is measured from, straight; `along` by edge with a tape along it,
    the mouths of darts left out."""

    body: Body
    items: Mapping[str, tuple[Item, ...]] = field(default_factory=dict)
    distances: Mapping[tuple[str, str], float] = field(default_factory=dict)
    along: Mapping[str, float] = field(default_factory=dict)


def points_of(items: Mapping[str, tuple[Item, ...]]) -> list[RulerPoint]:
    """All points but the centre neck, in order round the piece; the tip of a dart after its mouth."""
    found: list[RulerPoint] = []
    before = NECK
    for edge, corner in RUNS_TO.items():
        for id, kind in _on(edge, items):
            if kind == "tip":
                first, second = id.replace("tip", "a"), id.replace("tip", "b")
                found.append(RulerPoint(id, edge, point_words(id), (NECK, WAIST, first, second)))
                continue
            found.append(RulerPoint(id, edge, point_words(id), _apart(NECK, WAIST, before)))
            before = id
        sources = (NECK, before) if corner == WAIST else _apart(NECK, WAIST, before)
        found.append(RulerPoint(corner, edge, point_words(corner), sources))
        before = corner
    return found


def on_edge(edge: str, items: Mapping[str, tuple[Item, ...]]) -> list[str]:
    """The points on an edge in order, from corner to corner, the tips of darts between their mouths' ends."""
    corners = list(LANDMARKS)
    start = corners[list(RUNS_TO).index(edge)]
    found = [start]
    for id, kind in _on(edge, items):
        if kind == "tip":
            found.insert(-1, id)
        else:
            found.append(id)
    return [*found, RUNS_TO[edge]]


def item_words(edge: str, item: Item, number: int) -> str:
    """What lies on an edge, in words: the n-th dart or point of it."""
    return (
        point_words(f"{edge}:p{number}") if item == "point" else point_words(f"{edge}:{number}tip").removeprefix("tip of the ")
    )


def is_tip(id: str) -> bool:
    """Whether a point is the tip of a dart."""
    return ":" in id and id.endswith("tip")


def _on(edge: str, items: Mapping[str, tuple[Item, ...]]) -> Iterator[tuple[str, str]]:
    counts = {"dart": 0, "point": 0}
    for item in items.get(edge, ()):
        counts[item] += 1
        number = counts[item]
        if item == "point":
            yield f"{edge}:p{number}", "point"
        else:
            yield from ((f"{edge}:{number}a", "mouth"), (f"{edge}:{number}b", "mouth"), (f"{edge}:{number}tip", "tip"))


def _apart(*names: str) -> tuple[str, ...]:
    return tuple(dict.fromkeys(names))


def edge_words(edge: str) -> str:
    """An edge's name in words."""
    return edge.replace("_", " ")


def point_words(id: str) -> str:
    """A point's name in words."""
    edge, _colon, item = id.partition(":")
    if not item:
        return id.replace("_", " ")
    name = edge_words(edge)
    number = item.strip("pabti")
    which = "" if number == "1" else f" {number}"
    if is_tip(id):
        return f"tip of the {name} dart{which}"
    if item[-1] in "ab":
        return f"{name} dart{which}, {'first' if item[-1] == 'a' else 'second'} end"
    return f"point{which} on the {name}"
