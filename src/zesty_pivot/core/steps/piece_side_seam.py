"""piece.side_seam: the side seam moved forward or back: one piece gets what the other loses; a side dart follows."""

from __future__ import annotations

import itertools
import math
from dataclasses import replace
from typing import ClassVar, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from zesty_pivot.core.errors import PlaceError, StepError, ZestyError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.moves import join
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.mirror import flip
from zesty_pivot.core.piece import Pattern, Piece, Place, Run, Source
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.base import Context, Note, Outcome, Step
from zesty_pivot.core.steps.dart_move import MoveDart
from zesty_pivot.core.steps.hand import Line, Way, line

SIDE = "side_seam"
_NEW = "*side"  # the new seam's id while the old one is there too

# Side seams that differ by more than this (mm) cannot be taped. Common practice, no source (a pencil line).
_TAPED = 0.5

# Where side darts wait while the seam moves.
_AWAY = ("waist", "side_waist", "mid_shoulder", "mid_armhole", "mid_neck")


class MoveSideSeam(Step):
    """Cuts a strip off one piece along its side and tapes it to the other."""

    title: ClassVar[str] = "Move the side seam"
    summary: ClassVar[str] = "Shift the side seam forward or back: front gets what back loses; the side dart follows."
    lengths: ClassVar[tuple[str, ...]] = ("by", "at_waist")

    do: Literal["piece.side_seam"] = "piece.side_seam"
    on: str = Field(default="back", description="the piece that loses", min_length=1)
    other: str = Field(default="front", description="the piece that gets it", min_length=1)
    by: Length | None = Field(default=None, description="how far along the armhole; 2 cm when nothing is given")
    armhole: Share | None = Field(default=None, description="or: this share of the losing piece's armhole, such as 1/3")
    at_waist: Length | None = Field(default=None, description="how far at the waist; as at the armhole when not given")

    @model_validator(mode="after")
    def _one_amount(self) -> Self:
        if self.by is not None and self.armhole is not None:
            raise ValueError("give either a length or a share of the armhole, not both")
        if self.on == self.other:
            raise ValueError("one piece loses and another gets")
        return self

    def words(self) -> str:
        """`side seam 2 cm from the back to the front`."""
        much = f"{self.armhole} of the armhole" if self.armhole is not None else self.by if self.by is not None else "2 cm"
        return f"side seam {much} from the {words(self.on)} to the {words(self.other)}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the seam moved. Raises StepError or GeometryError when it cannot be."""
        loser, taker = pattern.piece(self.on), pattern.piece(self.other)
        before = {name: pattern.piece(name).edge("armhole").sewn_length for name in (self.on, self.other)}
        homes: list[tuple[str, str, float]] = []
        for piece in (loser, taker):
            cleared, found = self._cleared(pattern, piece, context)
            pattern = cleared
            homes += found
        loser, taker = (_one_side(pattern.piece(name)) for name in (self.on, self.other))
        kept, strip = self._cut(loser, context)
        made = self._taped(taker, strip, context)
        pattern = pattern.with_piece(kept).with_piece(made)
        for name, dart, share in homes:
            back = MoveDart(on=name, dart=dart, to=Spot(edge=SIDE, at=share))
            pattern = back.apply(pattern, context).pattern
        notes = [Note(self._said(pattern, name, before[name], context), name) for name in (self.on, self.other)]
        return Outcome(pattern, tuple(notes))

    def _said(self, pattern: Pattern, name: str, before: float, context: Context) -> str:
        change = pattern.piece(name).edge("armhole").sewn_length - before
        amount = format_length(abs(change), context.scope.unit, fine=True)
        return f"the armhole of the {words(name)} is {amount} {'longer' if change > 0.0 else 'shorter'}"

    def _cleared(self, pattern: Pattern, piece: Piece, context: Context) -> tuple[Pattern, list[tuple[str, str, float]]]:
        """Darts that open in the side seam put aside, with where they were as a share of it."""
        homes: list[tuple[str, str, float]] = []
        length = piece.edge(SIDE).sewn_length
        for dart in piece.darts:
            index = piece.mouth_run(dart.id)
            if piece.runs[index].edge != SIDE or piece.runs[piece.after(index)].edge != SIDE:
                continue
            homes.append(
                (piece.name, dart.id, places.sewn_distance(piece, Place(index, piece.runs[index].path.length)) / length)
            )
        for name, dart_id, _share in homes:
            pattern = self._aside(pattern, name, dart_id, context)
        return pattern, homes

    def _aside(self, pattern: Pattern, name: str, dart: str, context: Context) -> Pattern:
        for station in _AWAY:
            piece = pattern.piece(name)
            try:
                away = MoveDart(on=name, dart=dart, to=Spot(station=station)).apply(pattern, context).pattern
            except ZestyError:
                continue
            if away.piece(name).has_dart(dart) and away.piece(name).dart_edge(dart) != SIDE and away.piece(name) != piece:
                return away
        what = f"the {words(dart)} dart opens in the side seam and cannot wait elsewhere"
        raise StepError(what, where=name, advice="Move it out of the side seam first.")

    def _distances(self, piece: Piece, context: Context) -> tuple[float, float]:
        """How far (mm) the new seam lies from the old one along the armhole and along the waist."""
        armhole = piece.edge("armhole").sewn_length
        if self.armhole is not None:
            at = share_of(self.armhole) * armhole
        else:
            at = length_mm(self.by if self.by is not None else "2 cm", context.scope)
        below = length_mm(self.at_waist, context.scope) if self.at_waist is not None else at
        rooms = [self._room(piece, "armhole", from_end=True), self._room(piece, "waist", from_end=False)]
        for asked, room, where in ((at, rooms[0], "armhole"), (below, rooms[1], "waist")):
            if not 0.0 < asked < room:
                unit = context.scope.unit
                what = f"a shift of {format_length(asked, unit)} at the {where} does not fit"
                raise StepError(what, where=self.on, advice=f"More than 0 and less than {format_length(room, unit)}.")
        return at, below

    def _room(self, piece: Piece, edge: str, *, from_end: bool) -> float:
        """The clear length (mm) of an edge from the side seam to the next mouth."""
        runs = [run for run in piece.runs if run.edge == edge]
        total = 0.0
        for number, run in enumerate(reversed(runs) if from_end else runs):
            if from_end and number and run.mouth is not None:
                return total
            total += run.path.length
            if not from_end and run.mouth is not None:
                return total
        return total

    def _cut(self, piece: Piece, context: Context) -> tuple[Piece, Piece]:
        """The losing piece without its strip, and the strip. The new line is the old side seam, laid from end to end."""
        at, below = self._distances(piece, context)
        start = places.along(piece, "armhole", piece.edge("armhole").sewn_length - at)
        stop = places.along(piece, "waist", below)
        old = piece.edge(SIDE).runs[0].path
        ends = places.point(piece, start), places.point(piece, stop)
        line_ = _laid_between(old, *ends)
        kept, strip = across(piece, start, stop, line_, _NEW, SIDE, (piece.name, "strip"))
        return _renamed(kept, f"{self.on}.{SIDE}"), strip

    def _taped(self, taker: Piece, strip: Piece, context: Context) -> Piece:
        one, two = taker.edge(SIDE).runs[0].path, strip.edge(SIDE).runs[0].path
        if abs(one.length - two.length) > _TAPED:
            unit = context.scope.unit
            gap = format_length(abs(one.length - two.length), unit, fine=True)
            raise StepError(f"the side seams differ by {gap}", where=self.on, advice="Make front and back equal first.")
        turned = flip(strip, two.start, two.end - two.start)
        # Side seams of other curves lie over each other by a little inside the new piece; only their ends count.
        chord = [replace(p, runs=tuple(_straight(r) if r.edge == SIDE else r for r in p.runs)) for p in (taker, turned)]
        fit = _fitted(chord[1], chord[0])
        made = join.pieces(chord[0], fit, (SIDE, SIDE), taker.name)
        return _renamed(made, f"{self.on}.{SIDE}")

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure, cut, tape; the same in both ways."""
        self.apply(pattern, context)
        at, below = self._distances(pattern.piece(self.on), context)
        unit = context.scope.unit
        text = (
            "On the {on}, fold any side dart shut. Mark {at} along the armhole from the underarm and {below} along the waist "
            "from the side; draw the side seam between the marks and cut along it. Turn the strip over and tape it to the side "
            "seam of the {other}. Its cut edge is the new side seam; open the side dart again at the same share of it."
        )
        figures = {"at": format_length(at, unit), "below": format_length(below, unit)}
        return (line("move_side", text, on=words(self.on), other=words(self.other), **figures),)


def _one_side(piece: Piece) -> Piece:
    """The piece with its side seam as one run. Raises StepError for a gap in it."""
    runs = piece.edge(SIDE).runs
    if not runs:
        raise PlaceError("there is no side seam", where=piece.name, advice="Choose a piece that has one.")
    if len(runs) == 1:
        return piece
    for first, second in itertools.pairwise(runs):
        if np.abs(second.path.start - first.path.end).max() > 1e-4:
            raise StepError("the side seam has a step in it", where=piece.name, advice="True the side seam first.")
    source = Source(runs[0].source.edge, runs[0].source.u0, runs[-1].source.u1)
    whole = Run(SIDE, Path.chain([run.path for run in runs]), source, runs[-1].mouth)
    at = piece.runs.index(runs[0])
    return replace(piece, runs=(*piece.runs[:at], whole, *piece.runs[at + len(runs) :]))


def _laid_between(path: Path, start: np.ndarray, stop: np.ndarray) -> Path:
    """A path turned and sized so that it runs from one point to another."""
    span, goal = path.end - path.start, stop - start
    scale = float(np.hypot(*goal) / np.hypot(*span))
    turn = math.atan2(goal[1], goal[0]) - math.atan2(span[1], span[0])
    moved = Path((path.cubics - path.start) * scale).moved(Motion.turn(np.zeros(2), turn)).cubics + start
    moved[0, 0], moved[-1, 3] = start, stop
    return Path(moved)


def _straight(run: Run) -> Run:
    return replace(run, path=Path.straight(run.path.start, run.path.end))


def _fitted(moving: Piece, fixed: Piece) -> Piece:
    """The strip's old seam made exactly as long as the one that it is taped to: a file's six decimals differ by less than a
    pencil line."""
    goal, mine = (next(run for run in piece.runs if run.edge == SIDE) for piece in (fixed, moving))
    span = mine.path.end - mine.path.start
    end = mine.path.start + span * (goal.path.length / mine.path.length)
    index = moving.runs.index(mine)
    runs = list(moving.runs)
    runs[index] = replace(mine, path=Path.straight(mine.path.start, end))
    after = moving.after(index)
    cubics = runs[after].path.cubics.copy()
    cubics[0, 0] = end
    runs[after] = replace(runs[after], path=Path(cubics))
    return replace(moving, runs=tuple(runs))


def _renamed(piece: Piece, source: str) -> Piece:
    """The piece with the new line as its side seam."""

    def run_of(run: Run) -> Run:
        if run.edge != _NEW:
            return run
        return replace(run, edge=SIDE, source=replace(run.source, edge=source))

    return replace(
        piece,
        runs=tuple(run_of(run) for run in piece.runs),
        roles=tuple((SIDE if edge == _NEW else edge, role) for edge, role in piece.roles),
    )


STEP = MoveSideSeam
