"""trim.hem: the waist or hem raised or lowered at the centre, in a curve to nothing at the side."""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.shaping import displaced
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import Step

MOST = 80.0  # mm; more than that is another block. Common practice, no source.


class TrimHem(Step):
    """Where the front waist length exceeds the back's, the back's lower edge is trimmed by the difference at CB."""

    title: ClassVar[str] = "Trim the lower edge"
    summary: ClassVar[str] = "Raise the back's waist or hem at the centre, in a curve to nothing at the side; or lower it."

    do: Literal["trim.hem"] = "trim.hem"
    on: str = Field(default="back", description="the piece", min_length=1)
    by: Length = Field(default="1 cm", description="how much is trimmed at the centre; negative lets it down")

    def words(self) -> str:
        """`lower edge trimmed by 1 cm at the centre`."""
        return f"lower edge trimmed by {self.by} at the centre"

    def _made(self, pattern: Pattern, context: Context) -> tuple[Piece, str, float]:
        piece = pattern.piece(self.on)
        by, unit = length_mm(self.by, context.scope), context.scope.unit
        roles = dict(piece.roles)
        edge = next((edge for edge, role in roles.items() if role in ("waist", "hem")), None)
        if piece.is_unfolded or edge is None or "centre" not in roles:
            raise StepError("the piece has no lower edge at a centre", where=self.on, advice="Choose a half with its centre.")
        if by == 0.0 or abs(by) > MOST:
            what = "there is nothing to trim" if by == 0.0 else f"the edge cannot be trimmed by {format_length(by, unit)}"
            raise StepError(what, where=self.on, advice=f"Enter up to {format_length(MOST, unit)}, or a negative length.")
        indices = [index for index, run in enumerate(piece.runs) if run.edge == edge]
        if any(piece.runs[index].mouth for index in indices):
            raise StepError(
                f"a dart opens in the {words(edge)}", where=self.on, advice="Trim it before, or move the dart away."
            )
        first = piece.after(indices[-1])
        centre = piece.runs[first]
        if piece.role(centre.edge) != "centre" or centre.path.length <= by + 1.0:
            raise StepError(f"the {words(edge)} does not end at the centre", where=self.on, advice="Choose another piece.")
        path = centre.path
        if by > 0.0:
            path = path.split_at(by)[1]
            source = centre.source.parted(by / centre.path.length)[1]
        else:
            path = Path.chain([Path.straight(path.start + path.start_direction * by, path.start), path])
            source = centre.source
        stretches = [piece.runs[index].path for index in indices]
        total = sum(stretch.length for stretch in stretches)
        drawn = list(displaced(stretches, [(0.0, np.zeros(2)), (total, path.start - stretches[-1].end)], held=(True, True)))
        cubics = drawn[-1].cubics.copy()
        cubics[-1, 3] = path.start
        drawn[-1] = Path(cubics)
        runs = list(piece.runs)
        for index, stretch in zip(indices, drawn, strict=True):
            runs[index] = replace(runs[index], path=stretch)
        runs[first] = replace(centre, path=path, source=source)
        return replace(piece, runs=tuple(runs)), edge, by

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the trimmed piece. Raises StepError when it cannot be."""
        made, edge, by = self._made(pattern, context)
        change = made.edge(edge).sewn_length - pattern.piece(self.on).edge(edge).sewn_length
        unit = context.scope.unit
        way = "longer" if change >= 0.0 else "shorter"
        text = f"the {words(edge)} is {format_length(abs(change), unit, fine=True)} {way}"
        return Outcome(pattern.with_piece(made), (Note(text, self.on, abs(by)),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark, draw, cut; the same in both ways."""
        _made, edge, by = self._made(pattern, context)
        text = "On the {on}, mark {by} {where} the {edge} on the {centre}, and draw a curve from there to the side."
        names = {"on": words(self.on), "edge": words(edge), "centre": centre_words(pattern.piece(self.on).of or self.on)}
        where = "above" if by > 0.0 else "below"
        return (line("trim_hem", text, **names, where=where, by=format_length(abs(by), context.scope.unit)),)


STEP = TrimHem
