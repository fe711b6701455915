"""What steps share that cut a strip off a piece along its side and tape it to another."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.moves import join
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.mirror import flip
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece, Place, Run, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.clearing import cleared
from zesty_pivot.core.procedures.parking import bring_home
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace

SIDE = "side_seam"
NEW = "*side"  # the new seam's id while the old one is there too

# Side seams that differ by more than this (mm) cannot be taped. Common practice, no source (a pencil line).
TAPED = 0.5

# Where side darts wait while the seam moves: away from its ends, which move with it.
AWAY = ("waist", "mid_shoulder", "mid_armhole", "mid_neck")

Homes = dict[str, dict[str, Spot]]  # by piece, the darts of its side seam and where they were


def sewn_at_the_side(pattern: Pattern, one: str, two: str) -> None:
    """Raises StepError when two pieces are not sewn to each other at the side, PlaceError when there is no such piece."""
    pattern.piece(one), pattern.piece(two)
    if not pattern.are_sewn(one, two, SIDE):
        what = f"{words(one)} and {words(two)} are not sewn to each other at the side"
        raise StepError(what, where=one, advice="Do this before a side panel or an unfolded front.")


def darts_away(pattern: Pattern, names: Sequence[str], context: Context) -> tuple[Outcome, Homes]:
    """Darts that open in the side seams of pieces put aside, with where they were as a share of it. Raises StepError."""
    homes: Homes = {}
    made = Outcome(pattern)
    for name in names:
        homes[name] = _homes(pattern.piece(name))
        away = cleared(made.pattern, name, context, stations=AWAY, roles=(SIDE,))
        made = made.then(Outcome(away.pattern, away.notes))
    return made, homes


def _homes(piece: Piece) -> dict[str, Spot]:
    """The darts that open in a side seam, each with its share of it."""
    found: dict[str, Spot] = {}
    length = piece.edge(SIDE).sewn_length
    for dart in piece.darts:
        index = piece.mouth_run(dart.id)
        ends = piece.runs[index].edge, piece.runs[piece.after(index)].edge
        if SIDE in ends and ends != (SIDE, SIDE):
            what = f"the {dart_words(piece, dart.id)} dart opens at the end of the side seam"
            raise StepError(what, where=piece.name, advice="Move it along the side seam, or elsewhere, first.")
        if ends == (SIDE, SIDE):
            at = places.sewn_distance(piece, Place(index, piece.runs[index].path.length))
            found[dart.id] = Spot(edge=SIDE, at=at / length)
    return found


def darts_back(pattern: Pattern, homes: Homes, context: Context) -> Pattern:
    """The darts that were put aside, at the same share of the side seam as it is now."""
    for name, spots in homes.items():
        if spots:
            pattern = bring_home(pattern, name, tuple(spots), context, spots).pattern
    return pattern


def misfit(pattern: Pattern, one: str, two: str) -> tuple[Note, ...]:
    """What there is to say where two side seams are not quite equal: the difference is taken up where the strip begins."""
    gap = abs(pattern.edge_length(EdgeRef(one, SIDE)) - pattern.edge_length(EdgeRef(two, SIDE)))
    if gap <= 0.01:
        return ()
    text = f"the side seams differed by {format_length(gap, 'mm', fine=True)}, taken up at the end of the strip"
    return (Note(text, one, gap),)


def fits(piece: Piece, at: float, below: float, context: Context) -> None:
    """Raises StepError when a strip `at` mm wide at the armhole and `below` mm at the waist does not fit on a piece."""
    if not any(run.edge == "waist" for run in piece.runs):
        what = "a hip-length piece has no waist seam for the new side seam to end in"
        raise StepError(what, where=piece.name, advice="Move the side seam on a waist-length block.")
    rooms = [_room(piece, "armhole", from_end=True), _room(piece, "waist", from_end=False)]
    for asked, room, where in ((at, rooms[0], "armhole"), (below, rooms[1], "waist")):
        if not 0.0 < asked < room:
            unit = context.scope.unit
            what = f"a shift of {format_length(asked, unit)} at the {where} does not fit"
            raise StepError(what, where=piece.name, advice=f"More than 0 and less than {format_length(room, unit)}.")


def _room(piece: Piece, edge: str, *, from_end: bool) -> float:
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


def cut_strip(piece: Piece, at: float, below: float) -> tuple[Piece, Piece]:
    """A piece without its strip, and the strip, whose new line has the id NEW. That line is the old side seam, laid from mark
    to mark."""
    start = places.along(piece, "armhole", piece.edge("armhole").sewn_length - at)
    stop = places.along(piece, "waist", below)
    old = piece.edge(SIDE).runs[0].path
    new = _laid_between(old, places.point(piece, start), places.point(piece, stop))
    kept, strip = across(piece, start, stop, new, NEW, SIDE, (piece.name, "strip"))
    source = f"{piece.name}.{SIDE}"
    return renamed(kept, SIDE, source), renamed(strip, NEW, source)


def taped(taker: Piece, strip: Piece, name: str, context: Context) -> Piece:
    """A strip turned over and taped to another piece along their old side seams. Raises StepError when those differ."""
    one, two = taker.edge(SIDE).runs[0].path, strip.edge(SIDE).runs[0].path
    if abs(one.length - two.length) > TAPED:
        gap = format_length(abs(one.length - two.length), context.scope.unit, fine=True)
        raise StepError(f"the side seams differ by {gap}", where=taker.name, advice="Make front and back equal first.")
    turned = flip(strip, two.start, two.end - two.start)
    # Side seams of other curves lie over each other by a little inside the new piece; only their ends count.
    chord = [replace(p, runs=tuple(_straight(r) if r.edge == SIDE else r for r in p.runs)) for p in (taker, turned)]
    return join.pieces(chord[0], _fitted(chord[1], chord[0]), (SIDE, SIDE), name)


def one_side(piece: Piece, edge: str = SIDE) -> Piece:
    """The piece with its side seam (or another edge) as one run. Raises StepError for a gap in it."""
    runs = piece.edge(edge).runs
    if not runs:
        raise PlaceError(f"there is no {words(edge)}", where=piece.name, advice="Choose a piece that has one.")
    if any(run.mouth for run in runs[:-1]):
        raise StepError(f"a dart opens in the {words(edge)}", where=piece.name, advice="Move it away first.")
    if len(runs) == 1:
        return piece
    for first, second in itertools.pairwise(runs):
        if np.abs(second.path.start - first.path.end).max() > 1e-4:
            raise StepError(f"the {words(edge)} has a step in it", where=piece.name, advice=f"True the {words(edge)} first.")
    source = replace(runs[0].source, u1=runs[-1].source.u1)
    whole = Run(edge, Path.chain([run.path for run in runs]), source, runs[-1].mouth)
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


def renamed(piece: Piece, edge: str, source: str) -> Piece:
    """The piece with the new line under another id and with its provenance."""

    def run_of(run: Run) -> Run:
        if run.edge != NEW:
            return run
        return replace(run, edge=edge, source=replace(run.source, edge=source))

    return replace(
        piece,
        runs=tuple(run_of(run) for run in piece.runs),
        roles=tuple((edge if known == NEW else known, role) for known, role in piece.roles),
    )
