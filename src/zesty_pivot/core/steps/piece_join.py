"""piece.join: two pieces taped along the seam between them, where both edges are the same line."""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal

import shapely
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.moves import join
from zesty_pivot.core.moves.mirror import flip
from zesty_pivot.core.piece import EdgeRef, Origin, Pattern, Piece, SeamSide
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.side_seam import TAPED, one_side
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.steps.base import Step


class JoinPieces(Step):
    """The first piece keeps its name; the seam between the two is gone."""

    title: ClassVar[str] = "Join pieces"
    summary: ClassVar[str] = "Tape two pieces along the seam between them: panels put together another way, a seam left out."

    do: Literal["piece.join"] = "piece.join"
    other: str = Field(description="the piece that is taped to it", min_length=1)
    seam: str | None = Field(
        default=None, description="the edge of the first piece; the longest seam between the two otherwise"
    )

    def words(self) -> str:
        """`join front side and back side`."""
        return f"join {words(self.on)} and {words(self.other)}"

    def _seam(self, pattern: Pattern) -> tuple[str, str]:
        """The edges of the seam between the two. Raises StepError when there is none."""
        mine = pattern.piece(self.on)
        pattern.piece(self.other)
        known: list[tuple[str, str]] = []
        for one, two in (seam.pair for seam in pattern.seams if seam.pair is not None):
            if (one.piece, two.piece) == (self.on, self.other):
                known.append((one.edge, two.edge))
            elif (two.piece, one.piece) == (self.on, self.other):
                known.append((two.edge, one.edge))
        found = [pair for pair in known if self.seam in (None, pair[0])]
        if found:
            return max(found, key=lambda pair: mine.edge(pair[0]).sewn_length)
        what = f"{words(self.on)} and {words(self.other)} are not sewn to each other along one seam"
        raise StepError(what, where=self.on, advice="Choose two pieces that share a whole seam.")

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the one piece. Raises StepError or GeometryError when they do not lie flat together."""
        if self.on == self.other:
            raise StepError("a piece cannot be joined to itself", where=self.on, advice="Name another piece.")
        edges = self._seam(pattern)
        whole = [name for name in (self.on, self.other) if pattern.piece(name).is_unfolded]
        if len(whole) == 1:
            what = f"the {words(whole[0])} is unfolded and the other is a half"
            raise StepError(what, where=self.on, advice="Join them before it is unfolded, or unfold both.")
        one, two = (one_side(pattern.piece(name), edge) for name, edge in zip((self.on, self.other), edges, strict=True))
        here, there = one.edge(edges[0]).runs[0], two.edge(edges[1]).runs[0]
        if one.role(edges[0]) != "style_line":  # drawn alike on both, so one is turned over
            two = flip(two, there.path.start, there.path.end - there.path.start)
            there = two.edge(edges[1]).runs[0]
        apart = _apart(here.path, there.path)
        if apart > TAPED:
            gap = format_length(apart, context.scope.unit, fine=True)
            raise StepError(f"the two do not lie flat together: their lines are {gap} apart", where=self.on,
                            advice="A shaped seam has to stay a seam; join the pieces before it is shaped.")  # fmt: skip
        clash = {dart.id for dart in one.darts} & {dart.id for dart in two.darts}
        if clash:
            what = f"both pieces have a dart called {words(sorted(clash)[0])}"
            raise StepError(what, where=self.on, advice="Move one of them away before they are joined.")
        two, renamed = _own_names(_fitted(two, edges[1], here.path), one, edges)
        made = join.pieces(one, two, edges, self.on)
        made = replace(made, notches=tuple(mark for mark in (*one.notches, *two.notches) if not _on(mark.at, edges, one, two)))
        long = format_length(here.path.length, context.scope.unit)
        after = _without(pattern, made, self.other, renamed)
        return Outcome(after, (Note(f"taped along {long}; the seam is gone", self.on, here.path.length),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Lay together, tape; the same in both ways."""
        self.apply(pattern, context)
        edges = self._seam(pattern)
        long = format_length(pattern.piece(self.on).edge(edges[0]).sewn_length, context.scope.unit)
        turned = "" if pattern.piece(self.on).role(edges[0]) == "style_line" else ", turned over,"
        text = "Lay the {other}{turned} to the {on} so that both lines of {long} meet, and tape them. Write a grain line on it."
        names = {"on": words(self.on), "other": words(self.other), "turned": turned, "long": long}
        return (line("join", text, **names),)


def _apart(here: Path, there: Path) -> float:
    """How far two lines lie from each other when the second is laid end to end to the first, mm."""
    laid = there.moved(Motion.lay((there.end, there.start), (here.start, here.end)))
    return float(shapely.LineString(here.outline).hausdorff_distance(shapely.LineString(laid.outline)))


def _fitted(piece: Piece, edge: str, like: Path) -> Piece:
    """The piece with its edge's end put where the other line ends: files keep six decimals, and pencil lines are wider."""
    index = next(k for k, run in enumerate(piece.runs) if run.edge == edge)
    run = piece.runs[index]
    motion = Motion.lay((like.start, like.end), (run.path.end, run.path.start))
    mine = like.moved(motion).reversed()
    after = piece.after(index)
    runs = list(piece.runs)
    runs[index] = replace(run, path=mine)
    before = (index - 1) % len(runs)
    for neighbour, at_start, point in ((before, False, mine.start), (after, True, mine.end)):
        cubics = runs[neighbour].path.cubics.copy()
        cubics[(0, 0) if at_start else (-1, 3)] = point
        runs[neighbour] = replace(runs[neighbour], path=Path(cubics))
    return replace(piece, runs=tuple(runs))


def _own_names(two: Piece, one: Piece, edges: tuple[str, str]) -> tuple[Piece, dict[str, str]]:
    """The second piece with other names for edges that the first has too, and the new names by the old; those beside the joined
    edge run on across it and keep theirs."""
    index = next(k for k, run in enumerate(two.runs) if run.edge == edges[1])
    beside = {two.runs[index - 1].edge, two.runs[two.after(index)].edge}
    taken = {edge for edge, _role in one.roles}
    renamed = {
        edge: f"{edge}_{two.of or two.name}" for edge, _role in two.roles if edge in taken and edge not in {*beside, edges[1]}
    }
    runs = tuple(replace(run, edge=renamed.get(run.edge, run.edge)) for run in two.runs)
    return replace(two, runs=runs, roles=tuple((renamed.get(edge, edge), role) for edge, role in two.roles)), renamed


def _on(at: Origin, edges: tuple[str, str], one: Piece, two: Piece) -> bool:
    """Whether a notch's line is the seam that is gone."""
    gone = {run.source.line for piece, edge in ((one, edges[0]), (two, edges[1])) for run in piece.edge(edge).runs}
    return (at.line, at.is_mirrored) in gone


def _without(pattern: Pattern, made: Piece, gone: str, renamed: dict[str, str]) -> Pattern:
    """The pattern with the joined piece, its seams led to it, the seam between the two left out."""

    def led(side: SeamSide) -> SeamSide:
        parts = (EdgeRef(made.name, renamed.get(at.edge, at.edge)) if at.piece == gone else at for at in side.parts)
        return SeamSide(tuple(dict.fromkeys(parts)))

    pieces = tuple(made if piece.name == made.name else piece for piece in pattern.pieces if piece.name != gone)
    known = dict(made.roles)
    seams = []
    for old in pattern.seams:
        seam = replace(old, a=led(old.a), b=led(old.b))
        lost = any(part.piece == made.name and part.edge not in known for part in seam.parts)
        if not lost and {part.piece for part in seam.parts} != {made.name}:
            seams.append(seam)
    lines = tuple(line for line in pattern.lines if line.angles or gone not in line.panels)
    return replace(pattern, pieces=pieces, seams=tuple(seams), lines=lines)


STEP = JoinPieces
