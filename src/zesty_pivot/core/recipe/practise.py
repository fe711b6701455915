"""Practise: questions about what a dart move would do, asked before the pattern opens."""

from __future__ import annotations

import random
from typing import Literal

from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.piece import Pattern, Use, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import STATION_WORDS
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import station_of
from zesty_pivot.core.procedures.dart_moves import DartMove, move_dart
from zesty_pivot.core.quantity import format_length, share_of
from zesty_pivot.core.recipe.attempt import contained
from zesty_pivot.core.record import record

QuestionKind = Literal["whole", "share", "where"]
KINDS: dict[QuestionKind, str] = {
    "whole": "the new mouth of a whole dart",
    "share": "the new mouth of a share",
    "where": "where the fullness went",
}

# A guess is right within a tenth of the mouth, or half a centimetre where that is more: what the eye can learn.
WITHIN_SHARE, WITHIN_MM = 0.10, 5.0

CHOICES = 4
_STATIONS = (
    "centre_bust", "centre_neck", "mid_neck", "mid_shoulder", "mid_armhole", "side_bust", "french", "waist", "centre_waist",
)  # fmt: skip
_SHARES = ("30%", "50%", "70%")
_TELLS_APART = 1.25  # mouths of two choices differ by this factor at least, so that the question has one answer
_TRIES = 60


@record
class Question:
    """A move that has not been shown yet. `mouth_mm` is the new mouth; `choices` are stations to choose from, empty when a
    mouth is asked; `answer` is the right station."""

    kind: QuestionKind
    move: DartMove
    text: str
    mouth_mm: float
    choices: tuple[str, ...] = ()
    answer: str = ""

    def is_right(self, guess: float | str) -> bool:
        """Whether a guess, a mouth in mm or a station, is near enough."""
        if isinstance(guess, str):
            return guess == self.answer
        return abs(guess - self.mouth_mm) <= max(WITHIN_SHARE * self.mouth_mm, WITHIN_MM)


def question(kind: QuestionKind, pattern: Pattern, context: Context, chance: random.Random) -> Question:
    """A question of a kind about the pattern. Raises StepError when its darts give none."""
    darts = [(piece.name, dart.id) for piece in pattern.pieces for dart in piece.darts if dart.use is Use.DART]
    for _ in range(_TRIES if darts else 0):
        on, dart = chance.choice(darts)
        share = chance.choice(_SHARES) if kind == "share" else "100%"
        if kind == "where":
            found = _where(pattern, context, on, dart, chance)
        else:
            found = _mouth(pattern, context, on, dart, chance.choice(_STATIONS), share, kind)
        if found is not None:
            return found
    raise StepError("there is no dart to practise with", where="practise", advice="Open a style whose block has darts.")


def _moved(pattern: Pattern, context: Context, on: str, dart: str, station: str, share: str) -> tuple[DartMove, float] | None:
    """The move and its new mouth in mm; None where it cannot be done or opens no mouth of its own."""
    move = DartMove(on, dart, station_of(station), share_of(share))
    before = pattern.piece(on)
    try:
        after = contained("Practise", lambda: move_dart(move, pattern, context), pattern).pattern.piece(on)
    except ZestyError:
        return None
    if after == before or len(after.darts) < len(before.darts):
        return None  # it is there already, or another dart took it in
    made = next((d.id for d in after.darts if not before.has_dart(d.id)), dart)
    if share != "100%" and made == dart:
        return None
    return move, after.intake(made)


def _mouth(
    pattern: Pattern, context: Context, on: str, dart: str, station: str, share: str, kind: QuestionKind
) -> Question | None:
    found = _moved(pattern, context, on, dart, station, share)
    if found is None:
        return None
    move, mouth = found
    wide = format_length(pattern.piece(on).intake(dart), context.scope.unit)
    much = "The whole" if share == "100%" else f"{share} of the"
    place = STATION_WORDS[station]
    named = dart_words(pattern.piece(on), dart)
    text = f"{much} {named} dart of the {words(on)}, {wide} wide now, goes to: {place}. How wide is the new mouth?"
    return Question(kind, move, text, mouth)


def _where(pattern: Pattern, context: Context, on: str, dart: str, chance: random.Random) -> Question | None:
    found = {station: _moved(pattern, context, on, dart, station, "100%") for station in _STATIONS}
    known = {station: made for station, made in found.items() if made is not None}
    order = list(known)
    chance.shuffle(order)
    chosen: list[str] = []
    for station in order:
        mouth = known[station][1]
        if all(max(mouth, known[o][1]) > _TELLS_APART * min(mouth, known[o][1]) for o in chosen):
            chosen.append(station)
    chosen = chosen[:CHOICES]
    if len(chosen) < 2:
        return None
    answer = chance.choice(chosen)
    move, mouth = known[answer]
    unit = context.scope.unit
    wide = format_length(pattern.piece(on).intake(dart), unit)
    named = dart_words(pattern.piece(on), dart)
    text = (
        f"The whole {named} dart of the {words(on)}, {wide} wide now, has been moved; its mouth measures "
        f"{format_length(mouth, unit)}. Where did the fullness go?"
    )
    choices = tuple(sorted(chosen, key=_STATIONS.index))
    return Question("where", move, text, mouth, choices, answer)
