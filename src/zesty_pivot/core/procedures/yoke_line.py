"""How the seam of a yoke, a midriff or a hip yoke runs on a half: from the centre to the armhole or the side seam."""

from __future__ import annotations

import itertools
from typing import Literal

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.style_lines import bowed
from zesty_pivot.core.piece import Body, Pattern, Piece, Place, Side
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.heights import edges_at
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.line_across import shut_under
from zesty_pivot.core.procedures.line_cutting import Cutting
from zesty_pivot.core.quantity import distance_mm, format_length
from zesty_pivot.core.record import record, replace

Kind = Literal["yoke", "midriff", "hip"]
Shape = Literal["straight", "curved", "pointed", "scalloped"]

# A front yoke leaves the armhole a third of the way down, a back one at the blade. Common practice, no source.
THIRD, BLADE = 1.0 / 3.0, 0.45

MIDRIFF = 70.0  # mm above the waist at the side. Common practice, no source.

BELOW_NECK = 20.0  # mm at the centre that a yoke's seam stays below the neckline at least. Our own choice.

CLEAR_OF_NECK = 5.0  # mm; one that is not even may come nearer. Our own choice.

HIP = 80.0  # mm below the waist at the side, that a hip yoke ends. Common practice, no source.


@record
class YokeLine:
    """A seam as it is asked for: `at` down the armhole from the shoulder tip, up the side seam from the waist, or down it from
    there, a length or a share of all there is (None: as usual); in mm how much lower it meets the `centre` (None: level) and
    how far it hangs down by its `depth`. `other` is what `at` is on the other side of the body, where the two are not alike.
    """

    on: str
    kind: Kind
    shape: Shape
    at: str | float | None
    centre: float | None
    depth: float
    arcs: int
    other: str | float | None = None

    @property
    def role(self) -> str:
        """The role of the edge that the seam ends on."""
        return "armhole" if self.kind == "yoke" else "side_seam"

    @property
    def hangs(self) -> bool:
        """Whether the seam is lowest at the centre."""
        return self.shape in ("curved", "pointed")

    def edge(self, piece: Piece) -> str:
        """The edge that it ends on. Raises StepError for a piece that has none, or no centre."""
        edge = next((id for id, its in piece.roles if its == self.role), None)
        if edge is None or "centre" not in dict(piece.roles).values():
            what = f"a {self.kind} needs a half with centre and {words(self.role)}"
            raise StepError(what, where=self.on, advice="Choose such a half, or cut a style line.")
        return edge

    def along(self, piece: Piece, away: float) -> float:
        """How far (mm) along its outer edge the seam ends for what `at` is."""
        if self.kind == "yoke":
            return away
        above = _above_waist(piece, self.edge(piece))
        return above - away if self.kind == "midriff" else above + away

    def away(self, piece: Piece, spot: Spot, context: Context) -> tuple[float, float]:
        """What `at` is for a seam that ends at a place of its outer edge, in mm and as a share. Raises PlaceError."""
        place = resolve(spot, piece, context.block.drafted(piece), context.scope, "")
        along, edge = places.sewn_distance(piece, place), piece.runs[place.run].edge
        if piece.sides.of(edge) is Side.RIGHT:  # walked the other way
            along = piece.edge(edge).sewn_length - along
        mm = along if self.kind == "yoke" else abs(along - _above_waist(piece, edge))
        return mm, mm / self._most(piece)

    def _most(self, piece: Piece) -> float:
        edge = self.edge(piece)
        total, above = piece.edge(edge).sewn_length, _above_waist(piece, edge)
        return {"yoke": total, "midriff": above, "hip": total - above}[self.kind]

    def usual(self, piece: Piece, context: Context) -> float:
        """What `at` is (mm) where it is left to the program."""
        most = self._most(piece)
        if self.kind == "yoke":
            return self._down(piece, most, context)
        return min(MIDRIFF if self.kind == "midriff" else HIP, 0.6 * most)

    def _down(self, piece: Piece, total: float, context: Context) -> float:
        """A place on the armhole to begin with: on the back as high as the blade."""
        if piece.body is not Body.BACK:
            return THIRD * total
        block = context.block.drafted(piece)
        blade = block.landmarks.get("blade_point")
        hits = [] if blade is None else edges_at(block, "armhole", blade[1])
        if not hits:
            return BLADE * total
        there = places.sewn_distance(block, hits[0][0])
        return there if 0.2 * total < there < 0.8 * total else BLADE * total

    def outer(self, piece: Piece, context: Context) -> Place:
        """Where the seam is asked to leave the outer edge. Raises StepError for a place off it."""
        most = self._most(piece)
        away = self.usual(piece, context) if self.at is None else distance_mm(self.at, most, context.scope)
        if not 0.0 < away < most:
            told = format_length(most, context.scope.unit)
            raise StepError("the seam ends off the edge", where=self.on, advice=f"Enter more than 0 and less than {told}.")
        return places.along(piece, self.edge(piece), self.along(piece, away))

    def _on_block(self, piece: Piece, context: Context) -> Piece:
        """The piece as it was drafted, where that has the outer edge."""
        block = context.block.drafted(piece)
        return block if self.role in dict(block.roles).values() else piece

    def slope(self, piece: Piece, context: Context) -> float:
        """How steeply the seam crosses the centre, down over across: that of the straight line from one side to the other."""
        if self.other is None:
            return 0.0
        here, there = self._both_ends(self._on_block(piece, context), context)
        return float((here[1] - there[1]) / (here[0] + there[0]))

    def _both_ends(self, piece: Piece, context: Context) -> tuple[Vector, Vector]:
        """Its outer ends on this side and on the other (mirrored), from the top of the centre, (2,) mm each."""
        on = _centre(piece)
        one, two = (places.point(piece, line.outer(piece, context)) - on for line in (self, replace(self, at=self.other)))
        return one, two

    def joined(self, pattern: Pattern, context: Context) -> YokeLine:
        """A seam that is not even with where it meets the centre: on the straight line from side to side, as the piece lies
        with the darts shut that either side meets; and lower by what is asked. `pattern` has this side's half. Raises as
        `inner`."""
        most = self._most(pattern.piece(self.on))
        for at in sorted(distance_mm(at or 0.0, most, context.scope) for at in (self.at, self.other)):  # in one order
            level = replace(self, at=f"{at!r} mm", other=None, centre=None)
            pattern = shut_under(pattern, self.on, level.cutting("", context).drawn, context)[0]
        piece = pattern.piece(self.on)
        here, there = self._both_ends(piece, context)
        y = float(here[1] - here[0] * (here[1] - there[1]) / (here[0] + there[0]) + _centre(piece)[1]) + (self.centre or 0.0)
        ends = [float(p[1]) for run in piece.runs if piece.role(run.edge) == "centre" for p in (run.path.start, run.path.end)]
        y = min(max(y, min(ends) + CLEAR_OF_NECK), max(ends) - CLEAR_OF_NECK)
        whole = self._on_block(piece, context)
        return replace(self, centre=y - float(places.point(whole, self.outer(whole, context))[1]))

    def lower(self, piece: Piece, context: Context) -> float:
        """What `centre` is (mm): how much lower than its outer end the seam meets the centre, apart from what it hangs down.
        Raises as `inner` does."""
        y = float(places.point(piece, self.inner(piece, context))[1])
        return y - (self.depth if self.hangs else 0.0) - float(places.point(piece, self.outer(piece, context))[1])

    def inner(self, piece: Piece, context: Context) -> Place:
        """Where the seam meets the centre: level with its outer end, as the block was drafted, and lower by what is asked.
        Raises StepError where it misses the centre."""
        whole = self._on_block(piece, context)
        self.edge(piece)
        y = float(places.point(whole, self.outer(whole, context))[1])
        y += (self.centre or 0.0) + (self.depth if self.hangs else 0.0)
        ends = [float(p[1]) for run in piece.runs if piece.role(run.edge) == "centre" for p in (run.path.start, run.path.end)]
        if self.centre is None:
            y = min(max(y, min(ends) + BELOW_NECK), max(ends) - BELOW_NECK)
        found = edges_at(piece, "centre", y)
        if not found:
            low, high = (format_length((self.centre or 0.0) + end - y, context.scope.unit) for end in (min(ends), max(ends)))
            raise StepError(
                "the seam misses the centre", where=self.on, advice=f"Enter {low} to {high} lower than its outer end."
            )
        return found[-1][0]

    def place(self, piece: Piece, context: Context) -> Place:
        """Where the seam ends: as asked; else level with where it meets the centre, as the piece lies, so that it leaves the
        centre square."""
        if self.at is None and self.centre is None and not self.hangs and self.other is None:
            y = float(places.point(piece, self.inner(piece, context))[1])
            level = edges_at(piece, self.role, y)
            if level:
                return level[0][0]
        return self.outer(piece, context)

    def run(self, start: Vector, stop: Vector, slope: float) -> Path:
        """The seam from the centre outwards; a curve leaves the centre along a slope."""
        way = stop - start
        if self.shape == "curved":  # lowest at the centre, which it leaves square, and straight to its outer end
            bend = start + np.array([1.0, slope]) * way[0] * 0.6
            return Path(np.array([[start, start + (bend - start) * 2.0 / 3.0, stop + (bend - stop) * 2.0 / 3.0, stop]]))
        if self.shape == "scalloped":
            points = [start + way * share for share in np.linspace(0.0, 1.0, self.arcs + 1)]
            return Path.chain([bowed(one, two, self.depth, 0.5) for one, two in itertools.pairwise(points)])
        return Path.straight(start, stop)

    def cutting(self, made: str, context: Context) -> Cutting:
        """How it is cut; below a yoke, and above a midriff and a hip yoke, is the part that keeps the name."""

        def named(one: Piece, two: Piece, _line: Path) -> tuple[Piece, Piece]:
            upper = min((one, two), key=lambda part: float(np.mean([run.path.start[1] for run in part.runs])))
            lower = two if upper is one else one
            return (lower, upper) if self.kind == "yoke" else (upper, lower)

        return Cutting(
            self.on,
            made,
            lambda piece: (self.inner(piece, context), self.place(piece, context)),
            lambda piece, start, stop: self.run(
                places.point(piece, start), places.point(piece, stop), self.slope(piece, context)
            ),
            named,
            "yoke",
        )


def _above_waist(piece: Piece, edge: str) -> float:
    """How much (mm) of the side seam lies above the waist line: all of a piece that ends there."""
    if not piece.is_hip_length or "waist" not in piece.levels:
        return piece.edge(edge).sewn_length
    found = edges_at(piece, "side_seam", piece.levels["waist"])
    if not found or piece.runs[found[0][0].run].edge != edge:  # it begins at the waist
        return 0.0
    return places.sewn_distance(piece, found[0][0])


def _centre(piece: Piece) -> Vector:
    return next(run.path.start for run in piece.runs if piece.role(run.edge) == "centre")
