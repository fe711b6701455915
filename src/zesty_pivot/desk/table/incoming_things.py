"""What can be pointed at on an import: corners, darts, pivots, whole pieces, and places on an outline; and what may be said
of each."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

import numpy as np
from PyQt6.QtCore import QRectF

from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.intake.guesses import Sure
from zesty_pivot.core.intake.placing import Tagged
from zesty_pivot.core.intake.roles import LANDMARKS
from zesty_pivot.core.intake.seen import Seen
from zesty_pivot.core.intake.traced import Array, TracedPiece
from zesty_pivot.core.piece import Body
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record
from zesty_pivot.desk.incoming import Incoming

APART = 130.0  # mm between the pieces on the table: room for the names of corners
CALLED = {"centre_waist": "centre waist", "side_waist": "side waist"}


@record(eq=False)
class LaidPiece:
    """A piece on the table: its number, the motion from the paper onto the table, its tagging where it has one, its box, mm."""

    number: int
    traced: TracedPiece
    motion: Motion
    tagged: Tagged | None
    box: QRectF
    why: str = ""

    def on_paper(self, x: float, y: float) -> tuple[float, float]:
        """A place on the table as the place on the paper, mm."""
        back = self.motion.undone(np.array([x, y]))
        return float(back[0]), float(back[1])

    @property
    def shift(self) -> Motion:
        """What moves the laid piece of the tagging to where it lies on the table."""
        if self.tagged is None:
            return self.motion
        at = self.motion(np.zeros(2)) - self.tagged.motion(np.zeros(2))
        return Motion.shift(at)


@record
class IncomingThing:
    """Something that is marked: of which piece, what of it as guesses name it, its place on the table (mm), its name, how
    sure."""

    number: int
    what: str
    at: tuple[float, float]
    name: str
    sure: Sure


def laid_pieces(incoming: Incoming) -> list[LaidPiece]:
    """The pieces side by side: the back at the left of the front, what is no part of the block below them."""
    tagging, paper = incoming.outcome.tagging, incoming.outcome.paper
    if paper is None:
        return []
    found: list[LaidPiece] = []
    tagged = dict(tagging.pieces) if tagging is not None else {}
    order = sorted(tagged, key=lambda number: tagged[number].body is Body.FRONT)
    rest = [number for number in range(len(paper.pieces)) if number not in tagged]
    at, below = 0.0, 0.0
    for number in (*order, *rest):
        piece = tagged.get(number)
        if number in rest and number == rest[0] and order:  # what is no part of it lies in a row below
            at, below = 0.0, max(laid.box.bottom() for laid in found) + APART
        motion = piece.motion if piece is not None else Motion.shift(np.zeros(2))
        ring = motion(paper.pieces[number].ring)
        low, high = ring.min(axis=0), ring.max(axis=0)
        down = below - float(low[1]) if piece is None else 0.0
        motion = motion.then(Motion.shift(np.array([at - float(low[0]), down])))
        box = QRectF(at, float(low[1]) + down, float(high[0] - low[0]), float(high[1] - low[1]))
        why = tagging.others[number].why if tagging is not None and number in tagging.others else ""
        found.append(LaidPiece(number, paper.pieces[number], motion, piece, box, why))
        at += box.width() + APART
    return found


def things_of(laid: LaidPiece) -> list[IncomingThing]:
    """The things of a tagged piece, in the order of its outline, darts and pivots after the corners."""
    return list(_things(laid)) if laid.tagged is not None else []


def _things(laid: LaidPiece) -> Iterator[IncomingThing]:
    tagged = laid.tagged
    assert tagged is not None
    sures = {guess.what: guess.sure for guess in tagged.guesses}
    lay = laid.shift

    def place(at: Array) -> tuple[float, float]:
        moved = lay(np.asarray(at, dtype=float))
        return float(moved[0]), float(moved[1])

    for name, at in tagged.seen.corners.items():
        yield IncomingThing(
            laid.number, f"corner {name}", place(at), corner_words(name, tagged), sures.get("corners", Sure.SURE)
        )
    for dart in tagged.darts:
        sure = sures.get(f"dart {dart.id}", Sure.SURE)
        yield IncomingThing(laid.number, f"dart {dart.id}", place(dart.cut.point), f"{dart.id} dart", sure)
    for name, at_point in tagged.inside.items():
        yield IncomingThing(laid.number, name, place(np.array(at_point)), words(name), sures.get(name, Sure.SURE))


def corner_words(name: str, tagged: Tagged) -> str:
    """What a corner is called; a hip-length piece ends in a hem."""
    return words(name.replace("waist", "hem")) if tagged.is_hip else words(name)


def nearest_on_outline(laid: LaidPiece, at: Array) -> tuple[float, tuple[float, float]]:
    """How far a place on the table lies from a piece's outline, and the nearest place of it, mm on the table."""
    ring = laid.motion(laid.traced.ring)
    starts, ends = ring, np.roll(ring, -1, axis=0)
    steps = ends - starts
    sizes = np.maximum((steps**2).sum(axis=1), 1e-18)
    share = np.clip(((at - starts) * steps).sum(axis=1) / sizes, 0.0, 1.0)
    places = starts + share[:, None] * steps
    off = np.hypot(*(places - at).T)
    best = int(off.argmin())
    return float(off[best]), (float(places[best, 0]), float(places[best, 1]))


def edge_at(laid: LaidPiece, at: tuple[float, float]) -> str:
    """The role of the edge of a tagged piece that runs by a place on the table."""
    if laid.tagged is None:
        return ""
    seen: Seen = laid.tagged.seen
    here = laid.shift.undone(np.array(at))

    def off(role: str) -> float:
        points = np.concatenate([run.flatten(0.3) for run in seen.edges[role].runs])
        return min(math.dist(here, point) for point in _dense(points))

    return min(seen.edges, key=off)


def _dense(points: Array) -> Array:
    parts = [points[:1]]
    for one, two in itertools.pairwise(points):
        count = max(1, int(math.dist(one, two) // 3.0))
        parts.append(one + (two - one) * (np.arange(1, count + 1) / count)[:, None])
    return np.concatenate(parts)


__all__ = ["LANDMARKS", "IncomingThing", "LaidPiece", "edge_at", "laid_pieces", "nearest_on_outline", "things_of"]
