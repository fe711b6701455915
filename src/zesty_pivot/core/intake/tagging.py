"""From traced pieces to tagged ones: which is front and back, landmarks, edges, darts with their pivots, levels, grain,
fold. Each is proposed with how sure it is and why; what a person says goes before."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.intake import bodies, placing
from zesty_pivot.core.intake.corners import CorneredOutline, shaped
from zesty_pivot.core.intake.guesses import Guess, Sure
from zesty_pivot.core.intake.hints import Hints, PieceHints
from zesty_pivot.core.intake.inside import Inside, opened
from zesty_pivot.core.intake.parts import Parts, taken_apart
from zesty_pivot.core.intake.pinned import with_corners, without_darts
from zesty_pivot.core.intake.placing import Tagged
from zesty_pivot.core.intake.roles import LANDMARKS, OutlineReading, readings
from zesty_pivot.core.intake.seen import Seen, laid
from zesty_pivot.core.intake.traced import TracedPaper, TracedPiece
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import record

# Log likelihoods, our own choice, tried on drafts of random people and on pieces that are none.
SURE_AHEAD, LIKELY_AHEAD = 9.0, 3.0  # that the best reading is ahead of the next
PASSED = math.radians(30.0)  # a corner that the reading passes over and that turns by more makes it less than sure
LEAST_HEIGHT = 0.1  # mm from the centre waist to the neck
LEAST_SCORE = -60.0  # below it a piece is no bodice half
SURE_SCORE = -25.0
WEAK = math.radians(9.0)  # the least corner that is looked for where there are too few
SAME = 8.0  # mm: readings whose corners lie this near are one


@record(eq=False)
class Untagged:
    """A piece that was not tagged, and why."""

    piece: TracedPiece
    why: str


@record(eq=False)
class Tagging:
    """All pieces of an import: tagged (by number), or not, with the reason."""

    pieces: dict[int, Tagged]
    others: dict[int, Untagged]
    notes: tuple[str, ...]

    @property
    def guesses(self) -> list[tuple[int, Guess]]:
        """Everything that is proposed, with the number of its piece."""
        return [(number, guess) for number, piece in self.pieces.items() for guess in piece.guesses]


@record(eq=False)
class _Looked:
    """A piece looked at by itself."""

    number: int
    inside: Inside
    parts: Parts
    reading: OutlineReading
    guess: Guess
    seen: Seen


def tagged(traced: TracedPaper, hints: Hints | None = None) -> Tagging:
    """Tags the pieces of an import. Raises FileError where none is a bodice half."""
    hints = hints or Hints()
    looked: list[_Looked] = []
    others: dict[int, Untagged] = {}
    for number, piece in enumerate(traced.pieces):
        mine = hints.of(number)
        if mine.is_left_out:
            others[number] = Untagged(piece, "you left it out")
            continue
        found = _looked(number, piece, mine)
        if isinstance(found, str):
            others[number] = Untagged(piece, found)
        else:
            looked.append(found)
    looked = _the_block(looked, hints, others)
    if not looked:
        raise FileError(
            "no outline in it looks like half of a bodice",
            advice="Tell which corners are which, or choose a file with a front or back.",
        )
    said = [hints.of(one.number).body for one in looked]
    words = [bodies.told((one.inside.piece.name, *one.inside.piece.words)) for one in looked]
    decided = bodies.decided([one.seen for one in looked], said, words)
    made = {
        one.number: placing.placed(one.seen, one.inside, body, hints.of(one.number), (guess, one.guess))
        for one, (body, guess) in zip(looked, decided, strict=True)
    }
    return Tagging(placing.matched(made), others, traced.notes)


def _looked(number: int, piece: TracedPiece, hints: PieceHints) -> _Looked | str:
    """One piece with its likeliest reading, or why it has none."""
    inside = opened(piece)
    shape, parts = _parts(inside.piece, hints)
    if len(parts.corners) < len(LANDMARKS):  # noise, or a round corner, may hide one
        shape, parts = _parts(inside.piece, hints, WEAK)
    found = readings(parts, hints.corners)
    if not found:
        return "it has not the six corners of half a bodice" + (" where you put them" if hints.corners else "")
    best = found[0]
    if best.score < LEAST_SCORE and not hints.corners:
        return "it does not look like half of a bodice"
    error = shape.error + 2.0 * shape.sigma + piece.error
    seen = laid(inside.piece, parts, best, error)
    if not seen.height > LEAST_HEIGHT:
        return "it has no height from its waist to its neck"
    return _Looked(number, inside, parts, best, _guess(found, parts, hints), seen)


def _parts(piece: TracedPiece, hints: PieceHints, least: float | None = None) -> tuple[CorneredOutline, Parts]:
    """An outline taken apart, with the corners that a person put and without the darts that are none."""
    shape = shaped(piece.outline, piece.strays or None, least)
    if hints.corners:
        shape = with_corners(shape, [np.array(at) for at in hints.corners.values()])
    parts = taken_apart(shape)
    if hints.no_darts:
        parts = without_darts(parts, [np.array(at) for at in hints.no_darts])
    return shape, parts


def _guess(found: Sequence[OutlineReading], parts: Parts, hints: PieceHints) -> Guess:
    """How sure the best reading is: by how far it is ahead of the next that differs."""
    best = found[0]
    places = _places(best, parts)
    ahead = math.inf
    for other in found[1:60]:
        theirs = _places(other, parts)
        if max(math.dist(one, two) for one, two in zip(places, theirs, strict=True)) > SAME:
            ahead = best.score - other.score
            break
    if len(hints.corners) == len(LANDMARKS):
        return Guess("corners", "", Sure.SAID, "you said so")
    if best.score < SURE_SCORE:
        return Guess("corners", "", Sure.UNSURE, "it looks unlike the bodices that are known here")
    seen = parts.mirrored() if best.is_mirrored else parts
    passed = max((corner.turn for k, corner in enumerate(seen.corners) if k not in best.corners), default=0.0)
    if passed > PASSED:
        return Guess("corners", "", Sure.LIKELY, "it has another corner that might be one of the six")
    if ahead >= SURE_AHEAD:
        return Guess("corners", "", Sure.SURE, "no other way to read the outline comes near")
    if ahead >= LIKELY_AHEAD:
        return Guess("corners", "", Sure.LIKELY, "another way to read the outline is possible")
    return Guess("corners", "", Sure.UNSURE, "the outline can be read in two ways")


def _places(reading: OutlineReading, parts: Parts) -> list[np.ndarray]:
    seen = parts.mirrored() if reading.is_mirrored else parts
    glass = np.array([-1.0, 1.0]) if reading.is_mirrored else np.ones(2)
    return [seen.corners[index].at * glass for index in reading.corners]


def _the_block(looked: list[_Looked], hints: Hints, others: dict[int, Untagged]) -> list[_Looked]:
    """Of more than two pieces the two that are most like halves of a bodice and fit each other; the rest is told."""
    said = [one for one in looked if hints.of(one.number).body in (Body.FRONT, Body.BACK)]
    if len(looked) <= 2:
        return looked
    open_ = sorted((one for one in looked if one not in said), key=lambda one: -one.reading.score)
    chosen = [*said, *open_][:2]
    if len(said) < 2 and len(open_) > 1:
        first = chosen[0]
        rest = [one for one in looked if one is not first]
        second = max(rest, key=lambda one: one.reading.score - _misfit(first.seen, one.seen))
        chosen = [first, second]
    for one in looked:
        if one not in chosen:
            others[one.number] = Untagged(one.inside.piece, "another two pieces fit each other better")
    return [one for one in looked if one in chosen]


def _misfit(one: Seen, two: Seen) -> float:
    """How badly two pieces fit at shoulder and side, as a log likelihood."""
    return sum(
        min(20.0, abs(math.log(max(one.edges[role].length, 1.0) / max(two.edges[role].length, 1.0))) * 60.0)
        for role in ("shoulder", "side_seam")
    )  # fmt: skip
