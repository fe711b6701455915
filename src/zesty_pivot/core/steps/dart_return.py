"""dart.return: parked darts come back to where they were on the cloth."""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import PlaceError, StepError, one_of
from zesty_pivot.core.piece import Dart, Parked, Pattern, Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.steps.base import Context, Outcome
from zesty_pivot.core.steps.dart_chain import DartChain
from zesty_pivot.core.steps.dart_move import MoveDart
from zesty_pivot.core.steps.dart_park import home_mark
from zesty_pivot.core.steps.hand import Line, line

_SLACK = 1e-9  # radians: what is parked may be this much more than what is there, the noise of float64


class ReturnDarts(DartChain):
    """Moves every parked dart back, with the use that it had."""

    title: ClassVar[str] = "Bring darts back"
    summary: ClassVar[str] = "Take parked darts back to the place on the cloth that they came from."

    do: Literal["dart.return"] = "dart.return"
    darts: tuple[str, ...] = Field(default=(), description="the parked darts to bring back; all when not given", max_length=12)

    def words(self) -> str:
        """`bring the shoulder dart back`."""
        names = " and ".join(words(dart) for dart in self.darts)
        return f"bring the {names} dart{'s' if len(self.darts) > 1 else ''} back" if names else "bring the parked darts back"

    def moves(self, pattern: Pattern, context: Context) -> tuple[MoveDart, ...]:
        """Each entry's angle to its place. Raises StepError when nothing is parked or something of it has gone."""
        piece = pattern.piece(self.on)
        found: list[MoveDart] = []
        for host in piece.darts:
            left = piece.angle(host.id)
            for entry in self._entries(piece, host):
                if entry.angle > left + _SLACK:
                    what = f"some of the {words(entry.id)} dart has been moved on since it was parked"
                    raise StepError(what, where=self.on, advice="Bring it back before that step, or move it by a share.")
                whole = left - entry.angle <= _SLACK
                values = {"on": self.on, "dart": host.id, "to": self._home(piece, entry)}
                if not whole:
                    values |= {"share": entry.angle / left, "as": entry.id}
                found.append(MoveDart.model_validate(values))
                left -= entry.angle
        if not found:
            advice = f"Bring back {' or '.join(self._known(piece))}." if self._known(piece) else "Park a dart first."
            raise StepError("nothing is parked" if not self.darts else "no such dart is parked", where=self.on, advice=advice)
        return tuple(found)

    def _known(self, piece: Piece) -> list[str]:
        return [entry.id for host in piece.darts for entry in host.parked]

    def _entries(self, piece: Piece, host: Dart) -> list[Parked]:
        """What comes back out of a dart: guests first, the dart itself last."""
        known = self._known(piece)
        for name in self.darts:
            if known and name not in known:
                what, advice = one_of("parked dart", name, known)
                raise StepError(what, where=self.on, advice=advice)
        chosen = [entry for entry in host.parked if not self.darts or entry.id in self.darts]
        return sorted(chosen, key=lambda entry: entry.id == host.id)

    def _home(self, piece: Piece, entry: Parked) -> Spot:
        try:
            place = places.by_source(piece, entry.edge, entry.u)
        except PlaceError as fault:
            what = f"the place that the {words(entry.id)} dart came from has been cut away"
            raise StepError(what, where=self.on, advice="Move it to another place instead.") from fault
        edge = piece.runs[place.run].edge
        return Spot(edge=edge, at=f"{places.sewn_distance(piece, place)!r} mm")

    def place_by_hand(self, piece: Piece, move: MoveDart, context: Context) -> Line | None:
        """The mark that was made when the dart was parked."""
        held = next((entry for host in piece.darts for entry in host.parked if host.id == move.dart), None)
        name = move.as_ or (held.id if held is not None else move.dart)
        mark = home_mark(name)
        return line("at_mark", "On the {on}: the place is your mark “{mark}”.", on=words(self.on), mark=mark)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the darts back. Raises StepError for what cannot be."""
        before = pattern.piece(self.on)
        back = {entry.id: entry for host in before.darts for entry in self._entries(before, host)}
        outcome = self.after(self.moves(pattern, context), pattern, context)

        def home(dart: Dart) -> Dart:
            rest = tuple(entry for entry in dart.parked if entry.id not in back)
            entry = back.get(dart.id)
            if entry is None:
                return replace(dart, parked=rest)
            return replace(dart, parked=rest, use=entry.use, hold=entry.hold)

        piece = outcome.pattern.piece(self.on)
        return replace(outcome, pattern=outcome.pattern.with_piece(replace(piece, darts=tuple(home(d) for d in piece.darts))))


STEP = ReturnDarts
