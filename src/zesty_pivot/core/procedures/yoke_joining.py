"""Yokes joined at the shoulder, and taken apart again while an edge is drawn that runs over the shoulders."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, Protocol

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Joined, Origin, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.forward_shoulder import moved_forward, straightened
from zesty_pivot.core.procedures.taping import seam_between, taped
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

# Shoulders that differ by more than this (mm) are trued before they are joined; the back's is usually eased in by some 3 to 5
# mm, which a joined yoke cannot be. Common practice, no source.
MOST_APART = 12.0

YOKE = "yoke"  # what the joined piece is called


@record
class JoinAsked:
    """Two pieces whose shoulders are joined: the seam moved `forward` (mm) before (None: not), one piece or the seam `kept`,
    and whose centre lies on the grain and on the fold."""

    on: str
    other: str
    forward: float | None = None
    kept: bool = False
    grain: Literal["back", "front"] = "back"

    def joined(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with them joined. Raises as `join_yokes` does."""
        return join_yokes(self, pattern, context)


def join_yokes(asked: JoinAsked, pattern: Pattern, context: Context) -> Outcome:
    """The pattern with the yokes joined; it remembers how they were. Raises StepError or GeometryError when they cannot be."""
    before, unit, notes = pattern, context.scope.unit, []
    pair = (asked.on, asked.other)
    edges = seam_between(pattern, *pair, role="shoulder")
    for name, edge in zip(pair, edges, strict=True):
        flat, off = straightened(pattern.piece(name), edge)
        if off > 0.0:
            pattern = pattern.with_piece(flat)
            text = f"the step in the shoulder of the {words(name)} is trued, {format_length(off, unit, fine=True)}"
            notes.append(Note(text, name, off))
    longs = [pattern.piece(name).edge(edge).sewn_length for name, edge in zip(pair, edges, strict=True)]
    apart, by = longs[0] - longs[1], asked.forward or 0.0
    if by < 0.0 or (asked.kept and by == 0.0):
        what = "the shoulder seam moves forward by more than 0"
        raise StepError(what, where=asked.on, advice="Enter a length such as 2 cm.")
    if abs(apart) > MOST_APART:
        gap = format_length(abs(apart), unit, fine=True)
        raise StepError(f"the shoulders differ by {gap}", where=asked.on, advice="True the shoulders first.")
    if abs(apart) > 0.01:
        which = asked.other if by > 0.0 or asked.grain == "front" else asked.on
        text = f"the shoulder of the {words(which)} is made as long as the other, {format_length(abs(apart), unit, fine=True)}"
        notes.append(Note(text, which, abs(apart)))
    if by > 0.0:
        area = pattern.piece(asked.on).area
        pattern = moved_forward(pattern, *pair, edges, by, unit)
        moved = (area - pattern.piece(asked.on).area) / 100.0
        text = f"the shoulder seam is {format_length(by, unit)} forward: the back gains {moved:.0f} cm² of the front"
        notes.append(Note(text, asked.on, by))
    made: tuple[str, ...] = pair
    if not asked.kept:
        turned = asked.grain == "back"
        first, second = reversed(pair) if turned else pair
        name = YOKE if not pattern.has(YOKE) and "yoke" in asked.on else first
        joined = taped(pattern, first, second, (edges[1], edges[0]) if turned else edges, name, unit, MOST_APART)
        pattern, made = joined.pattern, (name,)
        text = f"taped along {joined.words}: the {asked.grain}'s centre lies on the grain, the other's is a seam or opening"
        notes.append(Note(text, name, joined.long_mm))
    record = Joined(
        tuple(pattern.piece(name) for name in made),
        tuple(before.piece(name) for name in pair),
        before.seams,
        before.lines,
        asked,
    )
    return Outcome(replace(pattern, joins=(*pattern.joins, record)), tuple(notes))


class Joining(Protocol):
    """What was asked for when pieces were joined: it can be done again."""

    def joined(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with them joined."""
        ...


def apart(pattern: Pattern) -> tuple[Pattern, tuple[Joining, ...]]:
    """The pattern with pieces as they were before they were joined, the last first, and how each was joined; one that has been
    reshaped since stays as it is."""
    asked: list[Joining] = []
    for joined in reversed(pattern.joins):
        now = [pattern.piece(piece.name) if pattern.has(piece.name) else None for piece in joined.made]
        if any(one is None or _shape(one) != _shape(then) for one, then in zip(now, joined.made, strict=True)):
            continue
        pattern = _parted(pattern, joined)
        asked.append(joined.asked)
    return pattern, tuple(reversed(asked))


def with_yokes_apart(work: Callable[[Pattern], Outcome], pattern: Pattern, context: Context) -> Outcome:
    """What comes of some work on a pattern whose joined yokes are taken apart for it and joined again. Raises as `work` does,
    and as `join_yokes` where they cannot be joined any more."""
    parted, joins = apart(pattern)
    made = work(parted)
    for asked in joins:
        made = Outcome(asked.joined(made.pattern, context).pattern, made.notes)
    return made


def _shape(piece: Piece) -> tuple[object, ...]:
    return piece.runs, piece.darts, piece.fullness, piece.fisheyes


def _parted(pattern: Pattern, record: Joined) -> Pattern:
    """A join taken back; notches made since on the joined piece go with the part that has their place."""
    gone, parts = {piece.name for piece in record.made}, [piece.name for piece in record.parts]
    marks = [mark for piece in record.made for mark in pattern.piece(piece.name).notches if mark not in piece.notches]
    back = [replace(part, notches=(*part.notches, *(mark for mark in marks if _has(part, mark.at)))) for part in record.parts]
    at = next(k for k, piece in enumerate(pattern.pieces) if piece.name in gone)
    rest = [piece for piece in pattern.pieces if piece.name not in gone]
    pieces = (*rest[:at], *back, *rest[at:])
    known = {(piece.name, edge) for piece in pieces for edge, _role in piece.roles}
    seams = [seam for seam in pattern.seams if not {part.piece for part in seam.parts} & {*gone, *parts}]
    seams += [
        seam
        for seam in record.seams
        if {part.piece for part in seam.parts} & set(parts) and all((part.piece, part.edge) in known for part in seam.parts)
    ]
    lines = [line for line in pattern.lines if not set(line.panels) & {*gone, *parts}]
    lines += [line for line in record.lines if set(line.panels) & set(parts)]
    joins = tuple(join for join in pattern.joins if join is not record)
    return replace(pattern, pieces=pieces, seams=tuple(seams), lines=tuple(lines), joins=joins)


def _has(piece: Piece, at: Origin) -> bool:
    return any(run.source.line == (at.line, at.is_mirrored) for run in piece.runs)
