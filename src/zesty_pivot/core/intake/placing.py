"""A piece that is read as a front or a back: its darts with their pivots, landmarks, levels, fold and grain, as a block has
them."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np

from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.geometry.angles import between, unit
from zesty_pivot.core.intake.guesses import Guess, Sure
from zesty_pivot.core.intake.hints import PieceHints
from zesty_pivot.core.intake.inside import Eye, Inside
from zesty_pivot.core.intake.parts import CutDart
from zesty_pivot.core.intake.pivots import axis_of, axis_of_eye, bust_point, turns_about
from zesty_pivot.core.intake.seen import Seen
from zesty_pivot.core.intake.traced import Array, Point
from zesty_pivot.core.piece import Body
from zesty_pivot.core.piece.names import UPPER
from zesty_pivot.core.record import record, replace

UNDER_BUST = 77.0  # mm below the bust line: 7.5 to 8 cm, common practice, no source
TAKEN_IN = 0.03  # of its length that the side of a hip-length piece bows in at the waist

# What a dart is called by the edge that it opens on.
CALLED = {
    "shoulder": "shoulder",
    "neckline": "neck",
    "armhole": "armhole",
    "side_seam": "side",
    "waist": "waist",
    "centre": "centre",
}


@record(eq=False)
class TaggedDart:
    """A dart: its id, the edge's role, mouth in loop order, drawn point, and the landmark it turns about."""

    id: str
    role: str
    cut: CutDart
    pivot: str


@record(eq=False)
class Tagged:
    """A piece laid as a block lies, with everything that a block has. `motion` lays the paper on it. `guesses` say how sure
    each thing is."""

    seen: Seen
    body: Body
    is_hip: bool
    darts: tuple[TaggedDart, ...]
    eyes: tuple[Eye, ...]
    inside: Mapping[str, Point]
    levels: Mapping[str, float]
    is_on_fold: bool
    grain: tuple[Point, Point]
    guesses: tuple[Guess, ...]

    @property
    def motion(self) -> Motion:
        """What lays the traced paper on the block."""
        return self.seen.motion

    @property
    def name(self) -> str:
        """What the piece is called in the block."""
        return self.body.value


def placed(seen: Seen, inside: Inside, body: Body, hints: PieceHints, guesses: Sequence[Guess]) -> Tagged:
    """A reading of a piece as the front or back of a block."""
    told = list(guesses)
    lay = seen.motion
    eyes = tuple(_laid_eye(eye, lay) for eye in inside.eyes)
    is_hip = _is_hip(seen, eyes, hints, told)
    marks = [lay(np.array(at)) for at in seen.traced.crosses]
    cuts = [(role, dart) for role, mine in seen.darts.items() for dart in mine]
    said = None if hints.bust_point is None else lay(np.array(hints.bust_point))
    pins: dict[str, Point] = {}
    apex: Array | None = None
    if body is Body.FRONT:
        axes = [axis_of(dart) for _role, dart in cuts] + [axis_of_eye(eye) for eye in eyes]
        # Lone marks beside no dart may be anything on a block without darts.
        found = bust_point(axes, marks, said) if axes or said is not None else None
        if found is not None:
            apex, guess = found
            pins["bust_point"] = _point(apex)
            told.append(replace(guess, worth=_where(apex)))
    darts = _named(cuts, body, apex, pins, [(lay(np.array(a)), lay(np.array(b))) for a, b in hints.pivots], told)
    by_hole = [lay(np.array(at)) for at in inside.by_hole]
    for dart in darts:
        if any(math.dist(dart.cut.point, at) <= 1.0 for at in by_hole):
            why = "told by two notches and a drill hole; its point lies about 1 cm beyond the hole"
            told.append(Guess(f"dart {dart.id}", "", Sure.UNSURE, why))
        else:
            told.append(Guess(f"dart {dart.id}", "", Sure.SURE, "its legs are drawn"))
    levels = _levels(seen, darts, eyes, apex, is_hip, pins, None if hints.waist is None else lay(np.array(hints.waist)), told)
    fold = _fold(seen, body, hints, told)
    grain = _grain(seen, hints, told)
    return Tagged(seen, body, is_hip, tuple(darts), eyes, pins, levels, fold, grain, tuple(told))


def matched(pieces: Mapping[int, Tagged]) -> dict[int, Tagged]:
    """The pieces with what one tells of the other: the bust line of the back is that of the front. Both hang from one top
    line."""
    found = dict(pieces)
    front = next((one for one in found.values() if one.body is Body.FRONT), None)
    for number, one in pieces.items():
        if one.body is Body.BACK and front is not None and "bust" in front.levels:
            found[number] = replace(one, levels={**one.levels, "bust": front.levels["bust"]})
    return found


def _laid_eye(eye: Eye, lay: Motion) -> Eye:
    a, b, c, d = (lay(corner) for corner in eye.corners)
    return Eye((a, b, c, d))


def _is_hip(seen: Seen, eyes: Sequence[Eye], hints: PieceHints, told: list[Guess]) -> bool:
    """Whether the lower edge is a hem below the waist."""
    if hints.is_hip is not None:
        told.append(Guess("length", "to the hip" if hints.is_hip else "to the waist", Sure.SAID, "you said so"))
        return hints.is_hip
    if eyes:
        told.append(Guess("length", "to the hip", Sure.SURE, "a fish-eye dart lies in it"))
        return True
    if seen.darts.get("waist"):
        told.append(Guess("length", "to the waist", Sure.SURE, "a dart opens at its lower edge"))
        return False
    is_hip = seen.edges["side_seam"].bows[0] > TAKEN_IN
    sure = Sure.LIKELY if is_hip == seen.reading.kind.endswith("hip") else Sure.UNSURE
    told.append(
        Guess(
            "length",
            "to the hip" if is_hip else "to the waist",
            sure,
            "the side is taken in above" if is_hip else "the side is not taken in",
        )
    )
    return is_hip


def _named(
    cuts: Sequence[tuple[str, CutDart]], body: Body, apex: Array | None, pins: dict[str, Point],
    said: Sequence[tuple[Array, Array]], told: list[Guess],
) -> list[TaggedDart]:  # fmt: skip
    """The darts with names and pivots. Those of a front turn about the bust point where their axes pass it; others about
    their own drawn points."""
    found: list[TaggedDart] = []
    for role, cut in cuts:
        own = [at for point, at in said if math.dist(point, cut.point) <= 5.0]
        base = CALLED[role]
        id = next(name for name in (base, *(f"{base}-{n}" for n in range(2, 50))) if all(one.id != name for one in found))
        if own:
            pin = _pin(id, own[0], pins)
        elif apex is not None and turns_about(axis_of(cut), apex):
            pin = "bust_point"
        else:
            name = (
                "bust_point"
                if body is Body.FRONT
                else "blade_point"
                if role in UPPER
                else "waist_tip"
                if role == "waist"
                else f"{id}_tip"
            )
            pin = _pin(f"{id}_tip" if name in pins else name, cut.point, pins)
            if apex is not None:
                why = "its axis does not pass the bust point"
                told.append(Guess(f"pivot {id}", "", Sure.UNSURE, why))
        found.append(TaggedDart(id, role, cut, pin))
    return found


def _pin(name: str, at: Array, pins: dict[str, Point]) -> str:
    """The name of a pivot at a place: that of one which lies there already, or a new one."""
    for known, other in pins.items():
        if math.dist(other, at) <= 1.0:
            return known
    pins[name] = _point(at)
    return name


def _levels(
    seen: Seen, darts: Sequence[TaggedDart], eyes: Sequence[Eye], apex: Array | None, is_hip: bool, pins: Mapping[str, Point],
    said: Array | None, told: list[Guess],
) -> dict[str, float]:  # fmt: skip
    """Chest, bust, under-bust, waist and hip: y in mm."""
    levels = {"chest": float(_shut(seen.corners["underarm"], darts, pins)[1])}
    if apex is not None:
        levels |= {"bust": float(apex[1]), "under_bust": float(apex[1]) + UNDER_BUST}
        told.append(Guess("under_bust", "", Sure.LIKELY, "7.7 cm below the bust line, as is usual"))
    bottom = float(seen.corners["centre_waist"][1])
    if not is_hip:
        return {**levels, "waist": bottom}
    if said is not None:
        waist, guess = float(said[1]), Guess("waist", "", Sure.SAID, "you put it there")
    elif eyes:
        waist = float(np.mean([corner[1] for eye in eyes for corner in (eye.corners[1], eye.corners[3])]))
        guess = Guess("waist", "", Sure.SURE, "the fish-eye is widest there")
    else:
        points = seen.edges["side_seam"].closed
        at = points[int(np.argmin(points[:, 0]))]
        is_taken_in = float(at[1]) - levels["chest"] > 20.0 and float(at[1]) < bottom - 20.0
        waist = float(at[1]) if is_taken_in else bottom - 200.0
        why = "the side is taken in most there" if is_taken_in else "20 cm above the hem: nothing tells"
        guess = Guess("waist", "", Sure.LIKELY if is_taken_in else Sure.UNSURE, why)
    told.append(guess)
    return {**levels, "waist": waist, "hip": bottom}


def _shut(at: Array, darts: Sequence[TaggedDart], pins: Mapping[str, Point]) -> Array:
    """Where the underarm lies with the darts above it shut: an open one swings it down and out."""
    for dart in reversed([one for one in darts if one.role in UPPER]):
        pin = np.array(pins[dart.pivot])
        turn = between(dart.cut.mouth[1] - pin, dart.cut.mouth[0] - pin)
        at = Motion.turn(pin, turn)(at)
    return at


def _fold(seen: Seen, body: Body, hints: PieceHints, told: list[Guess]) -> bool:
    """Whether the centre lies on a fold."""
    if hints.is_on_fold is not None:
        is_on, sure, why = hints.is_on_fold, Sure.SAID, "you said so"
    elif not seen.is_centre_straight:
        is_on, sure, why = False, Sure.SURE, "the centre is not straight"
    elif seen.traced.fold is not None:
        is_on, sure, why = True, Sure.SAID, "the file marks it"
    elif any("fold" in words.lower() for words in seen.traced.words):
        is_on, sure, why = True, Sure.SAID, "it is written in the piece"
    else:
        is_on = True
        sure, why = (Sure.LIKELY, "a front's straight centre") if body is Body.FRONT else (Sure.UNSURE, "a back may have a zip")
    told.append(Guess("fold", "on the fold" if is_on else "a seam at the centre", sure, why))
    return is_on


# Where the grain line stands where none is drawn: as on a drafted block.
GRAIN_OUT, GRAIN_FROM, GRAIN_TO = 0.16, 0.3, 0.85


def _grain(seen: Seen, hints: PieceHints, told: list[Guess]) -> tuple[Point, Point]:
    """The grain line: as it is marked, or along the centre."""
    marked = hints.grain or seen.traced.grain
    if marked is not None:
        first, last = (seen.motion(np.array(at)) for at in marked)
        first, last = sorted((first, last), key=lambda at: float(at[1]))
        lean = math.degrees(abs(between(unit(last - first), np.array([0.0, 1.0]))))
        sure = Sure.SAID if lean < 1.0 or hints.grain else Sure.LIKELY
        told.append(
            Guess("grain", "", sure, "it is drawn" if lean < 1.0 else f"it is drawn, {lean:.0f} degrees off the centre")
        )
        return _point(first), _point(last)
    told.append(Guess("grain", "", Sure.LIKELY, "along the centre"))
    out = round(GRAIN_OUT * float(seen.corners["underarm"][0]), 6)
    top, foot = float(seen.corners["centre_neck"][1]), float(seen.corners["centre_waist"][1])
    return (out, top + (foot - top) * GRAIN_FROM), (out, top + (foot - top) * GRAIN_TO)


def _where(at: Array) -> str:
    return f"{at[0] / 10.0:.1f} cm from the centre, {at[1] / 10.0:.1f} cm down"


def _point(at: Array) -> Point:
    return round(float(at[0]), 6) + 0.0, round(float(at[1]), 6) + 0.0
