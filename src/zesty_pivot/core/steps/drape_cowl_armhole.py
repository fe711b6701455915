"""drape.cowl_armhole: a cowl that hangs from the shoulder under the arm, front and back in one piece at the side."""

import math
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry.angles import between, unit
from zesty_pivot.core.moves.grain import grain_along
from zesty_pivot.core.moves.turned_back import COWL
from zesty_pivot.core.piece import Joined, Pattern, Piece, TurnedBack
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.armhole_cowls import DrawnArmholeCowl, drawn_armhole_cowl
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import FrontAndBackStep

LEAST_FACING, MOST_FACING = 10.0, 200.0  # mm. Common practice, no source
# Between the shoulder and the edge: a facing folded out there needs room for twice as much, and two allowances. Our own choice
LEAST_TURN = math.radians(15.0)
USUAL_END = 40.0  # mm of the facing along the shoulder. Common practice, no source


class ArmholeCowl(FrontAndBackStep):
    """Both ends of its edge are sewn in at one shoulder, so it hangs as deep as half of it is long."""

    title: ClassVar[str] = "Armhole cowl"
    summary: ClassVar[str] = "Folds under the arm: front and back in one piece at the side, straight from shoulder to shoulder."

    do: Literal["drape.cowl_armhole"] = "drape.cowl_armhole"
    depth: Length | None = Field(
        default=None,
        title="How far it hangs below the shoulder",
        description="how far it hangs below the shoulder; half way down the side when none is given",
    )
    inwards: Length = Field(
        default="0 cm", title="It begins in on the shoulder by", description="how far in on the shoulder it begins"
    )
    darts: Literal["front", "all", "none"] = Field(
        default="front", title="Darts that go into it", description="of which piece; those in its way always do"
    )
    grain: Literal["straight", "bias"] = Field(
        default="straight", description="straight along the front's centre, or on the bias under the arm"
    )
    facing: Length = Field(
        default="8 cm", title="Facing cut in one, deep", description="depth of the facing in the middle; 0 for none"
    )

    def words(self) -> str:
        """`armhole cowl`, `armhole cowl, 25 cm deep`."""
        return "armhole cowl" if self.depth is None else f"armhole cowl, {self.depth} deep"

    def _drawn(self, pattern: Pattern, context: Context) -> DrawnArmholeCowl:
        if not self.other:
            raise StepError("an armhole cowl is front and back in one", where=self.on, advice="Name its partner.")
        inwards = length_mm(self.inwards, context.scope)
        long = None if self.depth is None else length_mm(self.depth, context.scope)
        return drawn_armhole_cowl(pattern, (self.on, self.other), inwards, long, self.darts, context)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the one piece. Raises StepError, with what works, for one that cannot be."""
        drawn, unit_ = self._drawn(pattern, context), context.scope.unit
        piece, unfaced = self._faced(drawn.pattern.piece(drawn.name), context)
        if self.grain == "bias":
            piece = _on_bias(piece)
        long = sum(drawn.long_mm)
        text = (
            f"the edge is {format_length(long, unit_)} from shoulder to shoulder: both ends are sewn in at one, so it hangs "
            f"{format_length(0.5 * long, unit_)} below it"
        )
        notes = [Note(text, drawn.name, 0.5 * long)]
        text = f"{words(self.on)} and {words(self.other)} are one piece, {math.degrees(drawn.angle):.1f}° let in at the side"
        notes.append(Note(text, drawn.name))
        for name, entry in drawn.fed:
            text = f"{math.degrees(entry.angle):.1f}° of the {entry.called} dart of the {words(name)} go into the cowl"
            notes.append(Note(text, drawn.name))
        notes += unfaced
        made = drawn.pattern.with_piece(piece)
        parts = (pattern.piece(self.on), pattern.piece(self.other))
        record = Joined((piece,), parts, pattern.seams, pattern.lines, self)
        return Outcome(replace(made, joins=(*made.joins, record)), tuple(notes))

    def joined(self, pattern: Pattern, context: Context) -> Outcome:
        """The same once more, on front and back that were taken apart for a while. Raises as `apply` does."""
        return self.apply(pattern, context)

    def _faced(self, piece: Piece, context: Context) -> tuple[Piece, list[Note]]:
        deep, unit_ = length_mm(self.facing, context.scope), context.scope.unit
        if deep == 0.0:
            return piece, []
        if not LEAST_FACING <= deep <= MOST_FACING:
            advice = f"Enter {format_length(LEAST_FACING, unit_)} to {format_length(MOST_FACING, unit_)}, or 0 for none."
            raise StepError(f"a facing {format_length(deep, unit_)} deep", where=piece.name, advice=advice)
        at = cowl_run(piece)
        edge, before, after = (piece.runs[k % len(piece.runs)].path for k in (at, at - 1, at + 2))
        turns = between(before.end_direction, edge.start_direction), between(edge.end_direction, after.start_direction)
        if min(turns) < LEAST_TURN:
            text = "the edge runs almost straight on into a shoulder, so no facing can be cut in one: bind it, or face it"
            return piece, [Note(text, piece.name)]
        end = min(USUAL_END, 0.9 * before.length, 0.9 * after.length)
        return replace(piece, turned_back=(TurnedBack(piece.runs[at].edge, deep, end),)), []

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Shut the darts into the side, lay both together, draw across; the same in both ways."""
        drawn, unit_ = self._drawn(pattern, context), context.scope.unit
        figures = {"on": words(self.on), "other": words(self.other), "up": format_length(drawn.up_mm, unit_)}
        lines = [
            line("cowl_arm_dart", "Shut the {dart} dart of the {on}: slash from its point to the side, and let that open.",
                 on=words(name), dart=entry.called)
            for name, entry in drawn.fed
        ]  # fmt: skip
        text = (
            "Draw an upright line. Lay the {on} to its left and the {other} turned over to its right, the lower ends of their "
            "side seams together on the line, {up} below a level line, so that the shoulder point of each lies on that level "
            "line: {front} and {back} from the upright."
        )
        longs = {key: format_length(mm, unit_) for key, mm in zip(("front", "back"), drawn.long_mm, strict=True)}
        lines.append(line("cowl_arm_lay", text, **figures, **longs))
        text = "Tape both to the paper between them. The level line is the new edge, all in one piece with no seam at the side."
        lines.append(line("cowl_arm_edge", text))
        return tuple(lines)


def cowl_run(piece: Piece) -> int:
    """The first of both stretches of the edge: where the front's half of it lies on the ring."""
    return next(k for k, run in enumerate(piece.runs) if run.source.edge.endswith(COWL) and piece.role(run.edge) == "armhole")


def _on_bias(piece: Piece) -> Piece:
    """The piece with its grain at 45 degrees to its edge."""
    along = unit(piece.runs[cowl_run(piece)].path.end_direction)
    down = np.array([-along[1], along[0]])
    return replace(piece, grain=grain_along(piece, np.asarray(unit(along + down))))


STEP = ArmholeCowl
