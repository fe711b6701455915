"""A pattern piece: a closed ring of runs with darts opening into it, and named points inside."""

from __future__ import annotations

import itertools
import math
from collections.abc import Mapping
from dataclasses import field

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import PlaceError, one_of
from zesty_pivot.core.geometry import between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.piece.dart import Dart, LetIn
from zesty_pivot.core.piece.edge import Edge, Notch, Run
from zesty_pivot.core.piece.fisheye import FishEye
from zesty_pivot.core.piece.fullness import Fullness
from zesty_pivot.core.piece.hanging import Hang, TurnedBack
from zesty_pivot.core.piece.mark import Mark
from zesty_pivot.core.piece.names import ends_of
from zesty_pivot.core.piece.sides import HALF, Body, Sides
from zesty_pivot.core.record import record

Point = tuple[float, float]


@record
class Piece:
    """A closed ring of runs, clockwise on the paper from the centre neck.

    `roles` are (edge id, role) pairs; `landmarks` the named points inside the outline (pivots), mm;
    the corners are not stored, they are where edges begin. `levels` are heights (y, mm) of the block's
    construction lines. `fold` is the edge that lies on the fold, or None.
    `of` is the block's piece that a panel was cut from, `notches` the marks made for its seams.
    `taken` are widths (mm, of this half) taken in along an edge, by level.
    `body` is the half of the body it covers, `sides` what on an unfolded piece is left and what right as worn.
    `added` is the fullness that steps put in on purpose: pivots with angles in radians, negative for what was taken out;
    `let_in` what lies open in the cloth across a line that was cut. `fullness` is let in along slashes: the runs are those of
    the piece with it taken up. `sewn_as` are edges, as they are called on a half, that are not sewn plainly, how, and how
    much wider (mm) their allowance is for it.
    `marks` are drawn on a part of its own. `turned_back` are facings cut in one with an edge, `hangs` the folds of a cowl.
    """

    name: str
    fold: str | None
    runs: tuple[Run, ...]
    roles: tuple[tuple[str, str], ...]
    darts: tuple[Dart, ...] = ()
    landmarks: Mapping[str, Point] = field(default_factory=dict)
    levels: Mapping[str, float] = field(default_factory=dict)
    grain: tuple[Point, Point] | None = None
    added: tuple[tuple[str, float], ...] = ()
    fisheyes: tuple[FishEye, ...] = ()
    of: str = ""
    taken: tuple[tuple[str, float], ...] = ()
    notches: tuple[Notch, ...] = ()
    body: Body = Body.NONE
    sides: Sides = HALF
    let_in: tuple[LetIn, ...] = ()
    fullness: tuple[Fullness, ...] = ()
    sewn_as: tuple[tuple[str, str, float], ...] = ()
    marks: tuple[Mark, ...] = ()
    turned_back: tuple[TurnedBack, ...] = ()
    hangs: tuple[Hang, ...] = ()

    @cached_property
    def edges(self) -> tuple[Edge, ...]:
        """The edges in loop order."""
        return tuple(Edge(id, role, tuple(run for run in self.runs if run.edge == id)) for id, role in self.roles)

    @cached_property
    def is_unfolded(self) -> bool:
        """Whether it is a half opened to the whole, with a left and a right as worn."""
        return any(self.sides.of(edge) for edge, _role in self.roles)

    @property
    def times(self) -> float:
        """How often what is measured on it counts for the body: a half twice, a piece that has both sides once."""
        return 1.0 if self.is_unfolded else 2.0

    @cached_property
    def ends(self) -> Mapping[str, tuple[str, str]]:
        """The landmarks where edges begin and end, by role: a hip-length piece has a hem instead of a waist."""
        return ends_of(role for _id, role in self.roles)

    @cached_property
    def is_hip_length(self) -> bool:
        """Whether it ends in a hem below its waist line."""
        return any(role == "hem" for _id, role in self.roles)

    @cached_property
    def _roles(self) -> dict[str, str]:
        return dict(self.roles)

    def edge(self, id: str) -> Edge:
        """An edge by its id. Raises PlaceError with the near name."""
        for edge in self.edges:
            if edge.id == id:
                return edge
        what, advice = one_of("edge", id, (name for name, _role in self.roles))
        raise PlaceError(what, where=self.name, advice=advice)

    def role(self, id: str) -> str:
        """The role of an edge. Raises PlaceError with the near name."""
        found = self._roles.get(id)
        return found if found is not None else self.edge(id).role

    def dart(self, id: str) -> Dart:
        """A dart by its id. Raises PlaceError with the near name."""
        for dart in self.darts:
            if dart.id == id:
                return dart
        what, advice = one_of("dart", id, (dart.id for dart in self.darts))
        raise PlaceError(what, where=self.name, advice=advice)

    def family(self, name: str) -> tuple[Dart, ...]:
        """All darts that were made of one: by the id of any of them or the name of their group. Raises PlaceError."""
        found = [dart.group or dart.id for dart in self.darts if dart.id == name]
        group = found[0] if found else name
        members = tuple(dart for dart in self.darts if dart.id == group or dart.group == group)
        return members or (self.dart(name),)

    def has_dart(self, id: str) -> bool:
        """Whether a dart of this id is there."""
        return any(dart.id == id for dart in self.darts)

    def pivot(self, name: str) -> Vector:
        """A named point inside the outline, (2,) mm. Raises PlaceError with the near name."""
        found = self._pins.get(name)
        if found is None:
            what, advice = one_of("pivot", name, self.landmarks)
            raise PlaceError(what, where=self.name, advice=advice)
        return found

    @cached_property
    def _pins(self) -> dict[str, Vector]:
        pins = {name: np.array(at) for name, at in self.landmarks.items()}
        for pin in pins.values():
            pin.flags.writeable = False
        return pins

    def corner(self, name: str) -> Vector:
        """A corner of the outline by its landmark: the start of the edge that begins there, (2,) mm."""
        if name in self._corners:
            return self._corners[name]
        what, advice = one_of("landmark", name, (self.ends[r][0] for _id, r in self.roles if r in self.ends))
        raise PlaceError(what, where=self.name, advice=advice)

    @cached_property
    def _corners(self) -> dict[str, Vector]:
        found: dict[str, Vector] = {}
        for run in self.runs:
            found.setdefault(self.ends.get(self.role(run.edge), ("", ""))[0], run.path.start)
        found.pop("", None)
        return found

    def after(self, index: int) -> int:
        """The index of the run that follows a run round the ring."""
        return (index + 1) % len(self.runs)

    def mouth_run(self, dart: str) -> int:
        """The index of the run at whose end a dart's mouth opens."""
        found = self._mouths.get(dart)
        if found is None:
            raise PlaceError(f"dart {dart!r} has no mouth", where=self.name)
        return found

    @cached_property
    def _mouths(self) -> dict[str, int]:
        return {run.mouth: index for index, run in enumerate(self.runs) if run.mouth is not None}

    def mouth(self, dart: str) -> tuple[Vector, Vector]:
        """The mouth's two ends in loop order, (2,) mm each."""
        index = self.mouth_run(dart)
        return self.runs[index].path.end, self.runs[self.after(index)].path.start

    def angle(self, dart: str) -> float:
        """A dart's angle at its pivot in radians, positive when open."""
        pin = self.pivot(self.dart(dart).pivot)
        first, second = self.mouth(dart)
        return between(first - pin, second - pin)

    def legs(self, dart: str) -> tuple[float, float]:
        """The lengths of a dart's legs from the mouth's ends to the pivot, mm, in loop order."""
        pin = self.pivot(self.dart(dart).pivot)
        first, second = self.mouth(dart)
        return math.dist(first, pin), math.dist(second, pin)

    def intake(self, dart: str) -> float:
        """The width of a dart's mouth, mm."""
        first, second = self.mouth(dart)
        return math.dist(first, second)

    def dart_edge(self, dart: str) -> str:
        """The edge whose run ends where the dart opens; at a corner, the edge before the corner."""
        return self.runs[self.mouth_run(dart)].edge

    @cached_property
    def area(self) -> float:
        """The enclosed area with the darts cut out, mm2: exact over the cubics (Green's theorem)."""
        total = 0.0
        for index, run in enumerate(self.runs):
            total += _swept(run.path.cubics)
            after = self.runs[self.after(index)].path.start
            stops = [run.path.end, after]
            if run.mouth is not None:
                stops.insert(1, self.pivot(self.dart(run.mouth).pivot))
            for a, b in itertools.pairwise(stops):
                total += float(a[0] * b[1] - a[1] * b[0]) / 2.0
        return total


def well_begun(runs: tuple[Run, ...], roles: Mapping[str, str]) -> tuple[Run, ...]:
    """A ring of runs turned so that it does not begin in the middle of an edge; at the neckline if it has one. `roles` are
    those of its edges."""
    starts = [k for k in range(len(runs)) if runs[k - 1].edge != runs[k].edge]
    if not starts:
        return runs
    first = next((k for k in starts if roles.get(runs[k].edge) == "neckline"), starts[0])
    return runs[first:] + runs[:first]


def _swept(cubics: NDArray[np.float64]) -> float:
    """Half the integral of x dy - y dx along cubics (n, 4, 2): exact, by the Bernstein products."""
    a, b, c, d = (cubics[:, k] for k in range(4))

    def cross(p: NDArray[np.float64], q: NDArray[np.float64]) -> NDArray[np.float64]:
        product: NDArray[np.float64] = p[:, 0] * q[:, 1] - p[:, 1] * q[:, 0]
        return product

    terms = 6.0 * cross(a, b) + 3.0 * cross(a, c) + cross(a, d) + 3.0 * cross(b, c) + 3.0 * cross(b, d) + 6.0 * cross(c, d)
    return float(terms.sum()) / 20.0


def corner_of(piece: Piece, name: str) -> Vector | None:
    """A corner of a piece by its landmark, (2,) mm; None where no edge begins there."""
    return piece._corners.get(name)
