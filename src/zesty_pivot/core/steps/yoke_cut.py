"""yoke.cut: a yoke or a midriff cut off across a piece; the darts in it are shut into its seam."""

from __future__ import annotations

import itertools
from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.style_lines import bowed
from zesty_pivot.core.piece import Body, Pattern, Piece, Place, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.heights import edges_at
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.line_cutting import Cutting, cut_along
from zesty_pivot.core.procedures.yoke_fullness import SeamDarts, opened_in_seam
from zesty_pivot.core.procedures.yoke_taper import Begun, cut_with_taper, meeting
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length, NamesDart
from zesty_pivot.core.steps.base import Step

# A front yoke leaves the armhole a third of the way down, a back one at the blade. Common practice, no source.
THIRD, BLADE = 1.0 / 3.0, 0.45

MIDRIFF = 70.0  # mm above the waist at the side. Common practice, no source.

BELOW_NECK = 20.0  # mm at the centre that a yoke's seam stays below the neckline at least. Our own choice.


class YokeCut(Step):
    """The line runs from the centre to the armhole, or to the side seam; the part without it keeps the piece's name."""

    title: ClassVar[str] = "Yoke"
    summary: ClassVar[str] = "Cut off a yoke above or a midriff at the waist; darts in it are shut into its seam."
    half_by_half: ClassVar[bool] = True

    do: Literal["yoke.cut"] = "yoke.cut"
    kind: Literal["yoke", "midriff"] = Field(default="yoke", description="above, or round the waist")
    at: Length | None = Field(
        default=None, description="down the armhole from the shoulder tip; a midriff's up the side seam from the waist"
    )
    centre: Length | None = Field(
        default=None, description="how much lower it meets the centre; negative higher; level when none"
    )
    shape: Literal["straight", "curved", "pointed", "scalloped"] = Field(default="straight", description="how the seam runs")
    depth: Length = Field(default="3 cm", description="how far a curve, a point or scallops hang down")
    arcs: int = Field(default=3, ge=1, le=7, description="how many scallops on this half")
    back_dart: Literal["taper", "stay"] = Field(
        default="taper", description="a back's shoulder dart: a taper of the seam at the armhole, or as it is"
    )
    led: Annotated[str | None, NamesDart()] = Field(
        default=None, description="a dart led to the seam, in the part that keeps the piece's name: the bust dart say"
    )
    seam_darts: SeamDarts = Field(default="sewn", description="what darts that open in the seam are used as")

    def words(self) -> str:
        """`curved yoke`."""
        shape = "" if self.shape == "straight" else f"{self.shape} "
        return f"{shape}{self.kind}"

    # Where it runs.

    def _outer(self, piece: Piece, context: Context) -> Spot:
        """Where the seam leaves the outer edge."""
        edge = self._edge(piece)
        total = piece.edge(edge).sewn_length
        if self.at is not None:
            away = length_mm(self.at, context.scope)
            if not 0.0 < away < total:
                most = format_length(total, context.scope.unit)
                raise StepError("the seam ends off the edge", where=self.on, advice=f"Enter more than 0 and less than {most}.")
        elif self.kind == "yoke":
            away = self._start(piece, total, context)
        else:
            away = min(MIDRIFF, 0.6 * total)
        return Spot(edge=edge, at=f"{away if self.kind == 'yoke' else total - away - self._below(piece)!r} mm")

    @staticmethod
    def _below(piece: Piece) -> float:
        """How much of the side seam lies below the waist line."""
        if not piece.is_hip_length or "waist" not in piece.levels:
            return 0.0
        found = edges_at(piece, "side_seam", piece.levels["waist"])
        edge = next(id for id, role in piece.roles if role == "side_seam")
        return piece.edge(edge).sewn_length - places.sewn_distance(piece, found[0][0]) if found else 0.0

    def _start(self, piece: Piece, total: float, context: Context) -> float:
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

    @property
    def role(self) -> str:
        """The role of the edge that the seam ends on."""
        return "armhole" if self.kind == "yoke" else "side_seam"

    @property
    def hangs(self) -> bool:
        """Whether the seam is lowest at the centre."""
        return self.shape in ("curved", "pointed")

    def _edge(self, piece: Piece) -> str:
        role = self.role
        edge = next((id for id, its in piece.roles if its == role), None)
        if edge is None or "centre" not in dict(piece.roles).values():
            what = f"a {self.kind} needs a half with centre and {words(role)}"
            raise StepError(what, where=self.on, advice="Choose such a half, or cut a style line.")
        return edge

    def away(self, piece: Piece, spot: Spot, context: Context) -> float:
        """What `at` is (mm) for a seam that ends at a place of its outer edge. Raises PlaceError."""
        edge = self._edge(piece)
        along = places.sewn_distance(piece, resolve(spot, piece, context.block.drafted(piece), context.scope, ""))
        return along if self.kind == "yoke" else piece.edge(edge).sewn_length - along - self._below(piece)

    def lower(self, piece: Piece, context: Context) -> float:
        """What `centre` is (mm): how much lower than its outer end the seam meets the centre, apart from what it hangs down.
        Raises as `apply` does."""
        y = float(places.point(piece, self._inner(piece, context))[1])
        hangs = length_mm(self.depth, context.scope) if self.hangs else 0.0
        return y - hangs - float(places.point(piece, self._asked(piece, context))[1])

    def _inner(self, piece: Piece, context: Context) -> Place:
        """Where the seam meets the centre: level with its outer end, as the block was drafted, and lower by what is asked."""
        self._edge(piece)
        block = context.block.drafted(piece)
        whole = block if self.role in dict(block.roles).values() else piece
        y = float(places.point(whole, self._asked(whole, context))[1])
        y += 0.0 if self.centre is None else length_mm(self.centre, context.scope)
        y += length_mm(self.depth, context.scope) if self.hangs else 0.0
        ends = [float(p[1]) for run in piece.runs if piece.role(run.edge) == "centre" for p in (run.path.start, run.path.end)]
        if self.centre is None:
            y = min(max(y, min(ends) + BELOW_NECK), max(ends) - BELOW_NECK)
        found = edges_at(piece, "centre", y)
        if not found:
            asked = 0.0 if self.centre is None else length_mm(self.centre, context.scope)
            low, high = (format_length(asked + end - y, context.scope.unit) for end in (min(ends), max(ends)))
            raise StepError(
                "the seam misses the centre", where=self.on, advice=f"Enter {low} to {high} lower than its outer end."
            )
        return found[-1][0]

    def _place(self, piece: Piece, context: Context) -> Place:
        """Where the seam ends: as asked; else level with where it meets the centre, as the piece lies, so that it leaves the
        centre square."""
        if self.at is None and self.centre is None and not self.hangs:
            y = float(places.point(piece, self._inner(piece, context))[1])
            level = edges_at(piece, self.role, y)
            if level:
                return level[0][0]
        return self._asked(piece, context)

    def _asked(self, piece: Piece, context: Context) -> Place:
        outer = self._outer(piece, context)
        return places.along(piece, outer.edge or "", length_mm(outer.at or 0, context.scope))

    def _run(self, start: Vector, stop: Vector, context: Context) -> Path:
        """The seam from the centre outwards."""
        way = stop - start
        if self.shape == "curved":  # lowest at the centre, which it leaves square, and straight to its outer end
            bend = start + np.array([way[0] * 0.6, 0.0])
            return Path(np.array([[start, start + (bend - start) * 2.0 / 3.0, stop + (bend - stop) * 2.0 / 3.0, stop]]))
        if self.shape == "scalloped":
            deep = length_mm(self.depth, context.scope)
            points = [start + way * share for share in np.linspace(0.0, 1.0, self.arcs + 1)]
            return Path.chain([bowed(one, two, deep, 0.5) for one, two in itertools.pairwise(points)])
        return Path.straight(start, stop)

    def _cutting(self, context: Context) -> Cutting:
        def named(one: Piece, two: Piece, _line: Path) -> tuple[Piece, Piece]:
            upper = min((one, two), key=lambda part: float(np.mean([run.path.start[1] for run in part.runs])))
            lower = two if upper is one else one
            return (lower, upper) if self.kind == "yoke" else (upper, lower)

        return Cutting(
            self.on, f"{self.on}_{self.kind}",
            lambda piece: (self._inner(piece, context), self._place(piece, context)),
            lambda piece, start, stop: self._run(places.point(piece, start), places.point(piece, stop), context),
            named, "yoke",
        )  # fmt: skip

    def _tapering(self, piece: Piece, context: Context) -> str | None:
        """The shoulder dart of a back that goes into the seam: the one whose point lies near it."""
        if self.back_dart != "taper" or self.kind != "yoke" or piece.body is not Body.BACK:
            return None
        drawn = self._cutting(context).drawn(piece)
        for dart in piece.darts:
            role = piece.role(piece.dart_edge(dart.id))
            if dart.use is Use.DART and role in ("shoulder", "neckline") and meeting(piece, dart.id, drawn) is not None:
                return dart.id
        return None

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the yoke as a piece of its own. Raises StepError, PlaceError or GeometryError when it cannot be."""
        asked, piece = self._cutting(context), pattern.piece(self.on)
        dart = self._tapering(piece, context)
        if dart is None:
            return self._opened(cut_along(pattern, asked, context), context)

        def run(drawn: Path, at: float) -> Begun:
            """Scallops end at the dart's point, level with their beginning; any other seam goes as it was drawn."""
            if self.shape == "scalloped":
                way = unit(drawn.end - drawn.start)
                return self._run(drawn.start, drawn.start + way * float((drawn.point_at(at) - drawn.start) @ way), context), way
            first = drawn.split_at(at)[0]
            return first, first.end_direction

        return self._opened(cut_with_taper(pattern, asked, dart, run, context), context)

    def _opened(self, made: Outcome, context: Context) -> Outcome:
        """With what opens in the seam as it is asked for."""
        seam = made.pattern.lines[-1].id
        return made.then(opened_in_seam(made.pattern, self.on, seam, self.led, self.seam_darts, context))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Fold darts shut, mark, draw, notch, cut; the same in both ways."""
        made = self.apply(pattern, context)
        yoke, unit = made.pattern.piece(f"{self.on}_{self.kind}"), context.scope.unit
        found = {role: sum(yoke.edge(id).sewn_length for id, its in yoke.roles if its == role)
                 for role in (self.role, "centre", "style_line")}  # fmt: skip
        ends = ("from the shoulder tip down", "from the neckline down") if self.kind == "yoke" else ("up", "up")
        text = (
            "On the {on}, fold the darts that the seam meets shut. Mark {at} along the {edge}, {outer}, and {middle} along the "
            "{centre}, {inner}; draw the {shape} seam from mark to mark. Notch it and cut along it: it is {long} long."
        )
        figures = {"at": found[self.role], "middle": found["centre"], "long": found["style_line"]}
        names = {"on": words(self.on), "edge": words(self.role), "centre": centre_words(self.on), "shape": self.shape}
        told = {key: format_length(mm, unit) for key, mm in figures.items()}
        return (line("yoke", text, outer=ends[0], inner=ends[1], **names, **told), *self._seam_by_hand(pattern))

    def _seam_by_hand(self, pattern: Pattern) -> list[Line]:
        """What is done with the darts of the seam."""
        found, piece = [], pattern.piece(self.on)
        if self.led is not None:
            text = "Slash the {on} from the seam to the {pivot}, and shut the {dart} dart: the slash opens."
            pivot = words(piece.dart(self.led).pivot)
            found.append(line("led", text, on=words(self.on), pivot=pivot, dart=dart_words(piece, self.led)))
        if self.seam_darts != "sewn":
            text = "Notch the seam where the {use} lie, and draw it across the mouth."
            found.append(line("seam_darts", text, use=self.seam_darts))
        return found


STEP = YokeCut
