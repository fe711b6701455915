"""line.contour: the centre back drawn in at the waist, so that a zip does not bulge; the fold becomes a seam."""

from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.moves.give_back import widened
from zesty_pivot.core.moves.neckline import let_out
from zesty_pivot.core.piece import Pattern, Piece, Run
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.heights import crossings
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import by_level
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

# The contour goes in by at most this (mm). Common practice (1/2 to 1 in), no source; more is a dart.
MOST = 40.0

_KEPT: Kept[tuple[Piece, float, float]] = Kept()


class Contour(Step):
    """Draws the centre in by an amount at the waist, tapering to nothing above; below the waist it runs on upright."""

    title: ClassVar[str] = "Contour the centre"
    summary: ClassVar[str] = "Take the centre in at the waist and taper it out above; the fold becomes a seam for a zip."
    half_by_half: ClassVar[bool] = True

    do: Literal["line.contour"] = "line.contour"
    on: str = Field(default="back", description="the piece", min_length=1)
    # 1/2 to 1 in at the waist, to the chest line or mid armhole: common practice, no source.
    by: Length = Field(default="3/4 in", description="how far in at the waist")
    to: Literal["chest", "armhole"] = Field(
        default="chest", description="where it has come to nothing: the line or mid armhole"
    )

    give_back: Literal["none", "side"] = Field(default="none", description="where the width that it takes is given back")

    def words(self) -> str:
        """`centre in by 3/4 in at the waist`."""
        return f"centre in by {self.by} at the waist"

    def _made(self, pattern: Pattern, context: Context) -> tuple[Piece, float, float]:
        """The piece with its new centre, how far it goes in and how far up the taper ends (mm above the waist)."""
        piece = pattern.piece(self.on)
        key = (self, *context.scope.key())
        return _KEPT.get((piece, context.block), key, lambda: self._worked(piece, context))

    def _worked(self, piece: Piece, context: Context) -> tuple[Piece, float, float]:
        by, unit = length_mm(self.by, context.scope), context.scope.unit
        if not 0.0 < by <= MOST:
            what = f"the centre cannot be taken in by {format_length(by, unit)}"
            raise StepError(what, where=self.on, advice=f"Enter more than 0 and up to {format_length(MOST, unit)}.")
        if piece.is_unfolded or "centre" not in dict(piece.roles):
            raise StepError("there is no centre to contour", where=self.on, advice="Choose the half with the centre.")
        runs = piece.edge("centre").runs
        first = piece.runs.index(runs[0])
        if any(run.mouth for run in runs) or piece.runs[first - 1].mouth:
            raise StepError("a dart opens on the centre", where=self.on, advice="Move it away first.")
        line = np.concatenate([run.path.cubics.reshape(-1, 2) for run in runs])
        if len(runs) > 1 or np.abs(line[:, 0] - line[0, 0]).max() > 1e-6:
            raise StepError("the centre is no longer one straight line", where=self.on, advice="Do this step earlier.")
        whole, x = runs[0], float(line[0, 0])
        top = self._height(piece, context)
        waist = piece.levels["waist"] if piece.is_hip_length else float(whole.path.start[1])
        if not float(whole.path.end[1]) + 20.0 < top < waist - 20.0:
            raise StepError("there is no room for the taper", where=self.on, advice="Let it end at the chest line.")
        below = piece.runs[first - 1]
        if below.path.length <= by + 1.0:
            raise StepError("the waist is too short for that", where=self.on, advice="Take less.")
        size = below.path.length
        kept, _gone = below.path.split_at(size - by)
        start, waist_at, up = kept.end, np.array([x + by, waist]), np.array([0.0, -1.0])
        tapered = waist - top
        handle = tapered / 3.0
        end = np.array([x, top])
        way = Path(np.array([[waist_at, waist_at + up * handle, end - up * handle, end]]))
        parts = [way, Path.straight(end, whole.path.end)]
        if piece.is_hip_length:
            start = np.array([x + by, float(kept.end[1])])
            parts.insert(0, Path.straight(start, waist_at))
        else:
            cubics = way.cubics.copy()
            cubics[0, 0] = start
            parts[0] = Path(cubics)
        cubics = kept.cubics.copy()
        cubics[-1, 3] = start
        made = list(piece.runs)
        made[first - 1] = replace(below, path=Path(cubics), source=below.source.parted(1.0 - by / size)[0])
        made[first] = Run("centre", Path.chain(parts), whole.source)
        taken = [(name, _inset(made[first].path, x, y)) for name, y in piece.levels.items()]
        return replace(piece, runs=tuple(made), fold=None, taken=(*piece.taken, *taken)), by, tapered

    def _height(self, piece: Piece, context: Context) -> float:
        """Where the taper ends, y in mm."""
        block = context.block.drafted(piece)
        if self.to == "chest":
            return float(places.point(piece, by_level(piece, block, "centre", "chest"))[1])
        runs = piece.edge("armhole").runs if "armhole" in dict(piece.roles) else ()
        if not runs:
            raise StepError("there is no armhole to go by", where=self.on, advice="Let it end at the chest line.")
        middle = places.along(piece, "armhole", piece.edge("armhole").sewn_length / 2.0)
        y = float(places.point(piece, middle)[1])
        centre = piece.edge("centre").runs[0].path
        if not crossings((centre,), y):
            raise StepError("mid armhole lies above the centre", where=self.on, advice="Let it end at the chest line.")
        return y

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the contoured piece. Raises StepError or PlaceError when it cannot be."""
        made, by, _tapered = self._made(pattern, context)
        amount = format_length(by, context.scope.unit, fine=True)
        centre = centre_words(pattern.piece(self.on).of or self.on)
        lost = (
            f"{amount} less at the waist of this half" if self.give_back == "none" else f"{amount} given back at the side seam"
        )
        after = pattern.with_piece(made)
        if self.give_back == "side":
            after = self._let_out(after, by, context)
        return Outcome(after, (Note(f"{lost}; the {centre} is a seam now, cut a pair", self.on, by),))

    def _let_out(self, pattern: Pattern, by: float, context: Context) -> Pattern:
        """The side seam brought out at its lower end by what the centre went in there, to nothing at the underarm. Raises
        StepError where the half has no side seam."""
        parts = [pattern.piece(self.on), *pattern.come_from(pattern.piece(self.on).of or self.on)]
        side = next((part for part in parts if "side_seam" in dict(part.roles).values()), None)
        if side is None:
            raise StepError("there is no side seam to give it back at", where=self.on, advice="Give nothing back.")
        out = let_out(side, 0.0, by)
        gained = widened(side, out, context.block.drafted(side).levels)
        return pattern.with_piece(replace(out, taken=(*out.taken, *((name, -mm) for name, mm in gained.items()))))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark, draw, re-lay the zip allowance; the same in both ways."""
        _made, by, tapered = self._made(pattern, context)
        unit = context.scope.unit
        text = (
            "On the {on}, mark {by} in from the {centre} at the waist, and on the {centre} {up} above the waist. Draw a smooth "
            "curve from mark to mark. Lay the zip allowance parallel to the new line, and measure all widths from it."
        )
        figures = {"by": format_length(by, unit), "up": format_length(tapered, unit)}
        found = [line("contour", text, on=words(self.on), centre=centre_words(pattern.piece(self.on).of or self.on), **figures)]
        if self.give_back == "side":
            text = "Mark {by} outside the side seam at its lower end, and draw it from there to the underarm."
            found.append(line("give_back", text, by=figures["by"]))
        return tuple(found)


def _inset(path: Path, x: float, y: float) -> float:
    """How far (mm) the new centre lies inside the old at a height."""
    return max((abs(there - x) for _along, there in crossings((path,), y)), default=0.0)


STEP = Contour
