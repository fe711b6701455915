"""dart.move: a dart, or a share of it, goes to another place round its pivot."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import ClassVar, Literal, Protocol, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.cut import slit
from zesty_pivot.core.moves.join import SHUT, shut
from zesty_pivot.core.moves.swing import moving_part, swing
from zesty_pivot.core.piece import Dart, Pattern, Piece, Place, Run
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.quantity import Unit, format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.base import Context, Note, Outcome, Step
from zesty_pivot.core.steps.hand import Line, Way, arc_figures, edges_of, line, place_line, preparing_line, still_words

# A place nearer than this (mm, along the seam) to an open mouth means that dart: two mouths this close cannot
# be cut apart with scissors. Common practice, no source.
MERGE_WITHIN = 1.0

_SLIT = "*"  # the new mouth's name while it opens; file ids cannot clash with it for long, it is renamed at once


class MoveDart(Step):
    """Swings a share of a dart to another place; a dart that is there already takes it in."""

    title: ClassVar[str] = "Move a dart"
    summary: ClassVar[str] = "Close a dart, or a share of it, and open it at another place round its pivot."

    do: Literal["dart.move"] = "dart.move"
    dart: str = Field(description="the dart to close", min_length=1)
    to: Spot = Field(description="where it opens")
    share: Share = Field(default="100%", description="how much of the dart's angle goes")
    mouth: Length | None = Field(default=None, description="or: how wide the new mouth becomes")
    as_: str | None = Field(
        default=None, alias="as", max_length=60, pattern=r"^[^*]", description="id of the new dart when a share goes"
    )

    @model_validator(mode="after")
    def _one_amount(self) -> Self:
        if self.mouth is not None and "share" in self.model_fields_set and self.share != "100%":
            raise ValueError("give either a share or a mouth, not both")
        return self

    def words(self) -> str:
        """`50% of the waist dart to mid armhole`."""
        if self.mouth is not None:
            return f"{words(self.dart)} dart to {self.to.words()}, mouth {self.mouth}"
        share = "" if share_of(self.share) == 1.0 else f"{round(100.0 * share_of(self.share), 1):g}% of the "
        return f"{share}{words(self.dart)} dart to {self.to.words()}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the dart moved. Raises StepError, PlaceError or GeometryError when it cannot be."""
        piece = pattern.piece(self.on)
        dart = piece.dart(self.dart)
        place, target = goal(self.to, piece, dart.pivot, context)
        if target == self.dart:
            # On another block the same recipe may well move it: no fault, but it is said.
            return Outcome(pattern, (Note(f"the {words(self.dart)} dart is there already, nothing was moved", self.on),))
        angle = self._angle(piece, place, target, context)
        whole = piece.angle(self.dart) - angle <= SHUT
        if target is None:
            moved = self._opened(piece, place, angle, whole)
        else:
            moved = swing(piece, self.dart, target, angle)
            moved = _taken_in(shut(moved, self.dart), target, dart) if whole else moved
        return Outcome(pattern.with_piece(moved), self._notes(piece, moved))

    def marks_by_hand(self, pattern: Pattern, context: Context) -> tuple[Line, ...]:
        """The mark for a place that the block decides."""
        piece = pattern.piece(self.on)
        block = context.block.drafted(piece)
        found = preparing_line(self.to, piece, block, context.scope, piece.dart(self.dart).pivot)
        return (found,) if found else ()

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark the place, swing (or cut and close), read the new mouth off as a check."""
        piece = pattern.piece(self.on)
        after = self.apply(pattern, context).pattern.piece(self.on)
        pivot, pin = piece.dart(self.dart).pivot, words(piece.dart(self.dart).pivot)
        place, target = goal(self.to, piece, pivot, context)
        found = [place_line(self.to, piece, context.scope, pivot)]
        if target == self.dart:
            return (*found, line("nothing", "The {dart} dart is there already: nothing is moved.", dart=words(self.dart)))
        angle = self._angle(piece, place, target, context)
        left = piece.angle(self.dart) - angle
        names = {"pin": pin, "dart": words(self.dart)}
        stop = self._stop(names, left, context)
        # A slit where nothing opens yet tells which part moves; a mouth that is there already does as well.
        parted = piece if target else slit(piece, place, pivot, _SLIT)
        moving, _turn = moving_part(parted, parted.mouth_run(self.dart), parted.mouth_run(target or _SLIT))
        still = [index for index in range(len(parted.runs)) if index not in moving]
        parts = {"still": still_words(parted, still, moving), "moving": edges_of(parted, moving)}
        if way == "pivot":
            found += _pivot_lines(names, parts, stop)
        else:
            found += _slash_lines(names, parts, stop, is_cut=target is None)
        return (*found, self._mouth_line(piece, after, target, context))

    def _stop(self, names: dict[str, str], left: float, context: Context) -> Line:
        if left <= SHUT:
            return line("shut", "until the legs of the {dart} dart meet", **names)
        figures = {**names, **arc_figures(left, context.scope.unit)}
        text = "until the {dart} dart is left with {chord}, measured between its legs {radius} from the pin"
        return line("leave", text, **figures)

    def _mouth_line(self, piece: Piece, after: Piece, target: str | None, context: Context) -> Line:
        made = target or next((d.id for d in after.darts if not piece.has_dart(d.id)), self.dart)
        figures = {"new": words(made), "mouth": format_length(after.intake(made), context.scope.unit)}
        text = (
            "The mouth of the {new} dart now measures {mouth}. Redraw its legs from the ends of the mouth to the pin"
            ", and write “{new} dart” beside it."
        )
        return line("mouth", text, **figures)

    def _angle(self, piece: Piece, place: Place, target: str | None, context: Context) -> float:
        """The angle (radians) to move: a share of the dart, or what the asked mouth needs."""
        held = piece.angle(self.dart)
        if self.mouth is None:
            share = share_of(self.share)
            if share == 0.0:
                raise StepError("a share of 0% moves nothing", where=self.on, advice="Give a share over 0%.")
            return held * share
        mouth = length_mm(self.mouth, context.scope)
        leg = leg_at(piece, piece.dart(self.dart).pivot, place, target)
        return min(held, mouth_angle(self, self.to, mouth, held, leg, context.scope.unit))

    def _opened(self, piece: Piece, place: Place, angle: float, whole: bool) -> Piece:
        """The piece with a new mouth at the place. A dart that goes whole keeps its id."""
        pivot = piece.dart(self.dart).pivot
        swung = swing(slit(piece, place, pivot, _SLIT), self.dart, _SLIT, angle)
        if whole:
            return _renamed(shut(swung, self.dart), _SLIT, self.dart, like=piece)
        return _renamed(swung, _SLIT, self._new_id(piece, place), like=piece)

    def _new_id(self, piece: Piece, place: Place) -> str:
        if self.as_ is not None:
            if piece.has_dart(self.as_):
                raise StepError(f"there is a dart {self.as_!r} already", where=self.on, advice="Give another id.")
            return self.as_
        base = self.to.station or piece.runs[place.run].edge
        number, id = 2, base
        while piece.has_dart(id):
            number, id = number + 1, f"{base}-{number}"
        return id

    def _notes(self, before: Piece, after: Piece) -> tuple[Note, ...]:
        notes: list[Note] = []
        short = before.dart(self.dart).extended_mm
        if short > 0.0:
            text = f"the {words(self.dart)} dart stopped short of the {words(before.dart(self.dart).pivot)} and was led to it"
            notes.append(Note(text, self.on, short))
        opened = centre_opened(after)
        if opened and not centre_opened(before):
            parts = [run.path.length for run in after.runs if after.role(run.edge) == "centre"]
            keeps = format_length(max(parts), "cm")
            notes.append(Note(f"the dart opens the centre: a seam is needed there, {keeps} stays on the grain", self.on))
        return tuple(notes)


def _pivot_lines(names: dict[str, str], parts: dict[str, str], stop: Line) -> list[Line]:
    """Pin, trace, swing, trace."""
    text = "Pin at the {pin}. Trace what stays: the part with {still}, from the place to the {dart} dart."
    found = [line("pin", text, **names, still=parts["still"])]
    text = f"Swing about the pin {stop.text}. The part with {{moving}} moves."
    found.append(Line(stop.do, text.format(**parts), {**stop.figures, "moving": parts["moving"]}))
    found.append(line("trace", "Trace the part that has moved, from the {dart} dart to the place.", **names))
    return found


def _slash_lines(names: dict[str, str], parts: dict[str, str], stop: Line, *, is_cut: bool) -> list[Line]:
    """Cut to the pivot, close, tape."""
    text = "Cut from the place to the {pin}, but not through it." if is_cut else "The mouth is open already: cut nothing."
    found = [line("cut", text, pin=names["pin"])] if is_cut else [line("open", text)]
    text = f"Hold the part with {{still}} still and turn the part with {{moving}} {stop.text}. Tape it."
    found.append(Line(stop.do, text.format(**parts), {**stop.figures, **parts}))
    return found


class _OneDart(Protocol):
    """A step about one dart of one piece."""

    @property
    def on(self) -> str: ...
    @property
    def dart(self) -> str: ...


def mouth_angle(step: _OneDart, to: Spot, mouth: float, held: float, leg: tuple[float, float], unit: Unit) -> float:
    """The angle (radians) that must come to a place for its mouth to be `mouth` mm: 2 asin(mouth / 2 r) less what is open
    there. `held` is what the dart has to give, `leg` the leg's length in mm and the angle open there.

    Raises StepError when the mouth is wider than the dart can open it, or no wider than it is.
    """
    length, there = leg
    most = 2.0 * length * math.sin(min(held + there, math.pi) / 2.0)
    least = 2.0 * length * math.sin(there / 2.0)
    if not least < mouth <= most + 1e-9:
        raise StepError(
            f"the {words(step.dart)} dart cannot open a mouth of {format_length(mouth, unit)} at {to.words()}",
            where=step.on,
            advice=f"It can be up to {format_length(most, unit)}"
            + (f", and over {format_length(least, unit)}." if least else "."),
        )
    return 2.0 * math.asin(min(1.0, mouth / (2.0 * length))) - there


def leg_at(piece: Piece, pivot: str, place: Place, target: str | None) -> tuple[float, float]:
    """The leg length (mm) of a dart that opens at a place, and the angle (radians) that the dart there has already."""
    if target is not None:
        return piece.legs(target)[0], piece.angle(target)
    return math.dist(places.point(piece, place), piece.pivot(pivot)), 0.0


def goal(spot: Spot, piece: Piece, pivot: str, context: Context) -> tuple[Place, str | None]:
    """Where a spot lies on a piece, and the dart that opens there if one does. Raises PlaceError or FormulaError."""
    place = resolve(spot, piece, context.block.drafted(piece), context.scope, pivot)
    return place, places.mouth_at(piece, place) or _near_mouth(piece, place)


def centre_opened(piece: Piece) -> bool:
    """Whether a dart opens inside the centre line, so that it can no longer lie on the fold."""
    return any(
        run.mouth is not None
        and piece.role(run.edge) == "centre"
        and piece.role(piece.runs[piece.after(index)].edge) == "centre"
        for index, run in enumerate(piece.runs)
    )


def _near_mouth(piece: Piece, place: Place) -> str | None:
    """The dart whose mouth lies within MERGE_WITHIN of a place along the seam."""
    run = piece.runs[place.run]
    if run.mouth is not None and run.path.length - place.at < MERGE_WITHIN:
        return run.mouth
    before = piece.runs[place.run - 1]
    return before.mouth if before.mouth is not None and place.at < MERGE_WITHIN else None


def _renamed(piece: Piece, old: str, new: str, like: Piece) -> Piece:
    """A dart under another id, keeping its use and its place in the list when it was there before."""
    known = {dart.id: dart for dart in like.darts}
    made = replace(known[new], extended_mm=0.0) if new in known else replace(piece.dart(old), id=new)
    order = {dart.id: number for number, dart in enumerate(like.darts)}
    darts = sorted((made if dart.id == old else dart for dart in piece.darts), key=lambda dart: order.get(dart.id, len(order)))
    runs = tuple(Run(run.edge, run.path, run.source, new) if run.mouth == old else run for run in piece.runs)
    return replace(piece, darts=tuple(darts), runs=runs)


def _taken_in(piece: Piece, host: str, guest: Dart) -> Piece:
    """What was put away in a dart stays put away in the one that takes it in."""
    if not guest.parked:
        return piece
    held = tuple(replace(d, parked=d.parked + guest.parked) if d.id == host else d for d in piece.darts)
    return replace(piece, darts=held)


STEP = MoveDart
