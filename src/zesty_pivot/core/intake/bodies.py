"""Front or back: by the darts, by the pair, and a little by the neckline."""

from __future__ import annotations

import re
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.intake.guesses import Guess, Sure
from zesty_pivot.core.intake.parts import CutDart
from zesty_pivot.core.intake.seen import Seen
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import record

# Weights are log odds of front against back, our own choice: no single one but a dart to the bust makes a piece sure.
DEEP = 0.62  # neck depth in neck widths between usual backs (0.2 to 0.45) and fronts (from 0.85)
NECK_MOST = 2.5
LONG, SHORT = 0.40, 0.30  # of the centre's length that a shoulder dart is long on a front, and at most on a back
BUST_DART, BLADE_DART, WAIST_MOST = 4.0, 4.0, 1.5
LOW = 0.125  # of the centre's length below the underarm where a back's waist dart ends higher and a front's lower
CONTOUR = 2.0
SURE = 3.9
LIKELY = 1.5
APART = 0.12  # in neck depths per neck width that two pieces of a pair differ at least
PAIR_MOST = 3.0

_FRONT = re.compile(r"\b(front|c\.?\s?f\.?|centre front|center front|bust)\b", re.IGNORECASE)
_BACK = re.compile(r"\b(back|c\.?\s?b\.?|centre back|center back|blade)\b", re.IGNORECASE)


@record
class Evidence:
    """Log odds of front against back, and what speaks for it."""

    odds: float
    why: tuple[str, ...]


def told(words: Sequence[str]) -> Body | None:
    """Front or back as words say it, where they say only one of them."""
    text = " ".join(words).replace("_", " ").replace("-", " ")
    is_front, is_back = bool(_FRONT.search(text)), bool(_BACK.search(text))
    if is_front == is_back:
        return None
    return Body.FRONT if is_front else Body.BACK


def evidence(seen: Seen) -> Evidence:
    """What one piece tells of itself."""
    odds, why = 0.0, []
    ratio = seen.neck_depth / max(seen.neck_width, 1.0)
    odds += float(np.clip((ratio - DEEP) * 8.0, -NECK_MOST, NECK_MOST))
    why.append(f"the neck is {'deep' if ratio > DEEP else 'shallow'}")
    darts = [one for role, mine in seen.darts.items() for dart in mine if (one := _of_dart(role, dart, seen)) is not None]
    if darts:
        strongest = max(darts, key=lambda one: abs(one[0]))
        odds += strongest[0]
        why.insert(0, strongest[1])
    if seen.is_contoured:
        odds -= CONTOUR
        why.append("the centre is contoured at the waist")
    return Evidence(odds, tuple(why))


def _of_dart(role: str, dart: CutDart, seen: Seen) -> tuple[float, str] | None:
    long = dart.length / seen.height
    if role == "shoulder":
        if long > LONG:
            return BUST_DART, "its shoulder dart reaches to the bust"
        return (-BLADE_DART, "its shoulder dart is short, for the blade") if long < SHORT else None
    if role in ("side_seam", "centre") or (role in ("armhole", "neckline") and long > SHORT):
        return BUST_DART, f"a dart at the {'side' if role == 'side_seam' else role} is the bust's"
    if role == "waist":
        below = (seen.below_underarm(dart.point)) / seen.height
        odds = float(np.clip((below - LOW) * 18.0, -WAIST_MOST, WAIST_MOST))
        return odds, f"its waist dart ends {'well' if odds > 0 else 'little'} below the underarm"
    return None


def decided(seen: Sequence[Seen], said: Sequence[Body | None], words: Sequence[Body | None]) -> list[tuple[Body, Guess]]:
    """Front or back of each piece: as a person says, as words say, by its own evidence, and of two pieces by which of them
    is more the front."""
    own = [evidence(one) for one in seen]
    odds = [one.odds for one in own]
    whys = [list(one.why) for one in own]
    if len(seen) == 2:
        _pair(seen, odds, whys)
    found = []
    for number, known in enumerate(said):
        if known is not None:
            found.append((known, Guess("body", known.value, Sure.SAID, "you said so")))
            continue
        named = words[number]
        body = Body.FRONT if odds[number] >= 0.0 else Body.BACK
        other = said[1 - number] if len(seen) == 2 else None
        if other is not None and other is not Body.NONE:
            body = Body.BACK if other is Body.FRONT else Body.FRONT
            found.append((body, Guess("body", body.value, Sure.LIKELY, f"the other piece is the {other.value}")))
        elif named is not None:
            clash = named is not body and abs(odds[number]) >= SURE
            sure = Sure.UNSURE if clash else Sure.SAID
            why = f"the file calls it {named.value}" + (f", but {whys[number][0]}" if clash else "")
            found.append((named, Guess("body", named.value, sure, why)))
        else:
            size = abs(odds[number])
            sure = Sure.SURE if size >= SURE else Sure.LIKELY if size >= LIKELY else Sure.UNSURE
            found.append((body, Guess("body", body.value, sure, " and ".join(whys[number][:2]))))
    return found


def _pair(seen: Sequence[Seen], odds: list[float], whys: list[list[str]]) -> None:
    """Two pieces that fit each other are a front and a back: what speaks for the one speaks against the other."""
    ratio = [piece.neck_depth / max(piece.neck_width, 1.0) for piece in seen]
    lead = 0.0
    if abs(ratio[0] - ratio[1]) > APART:
        lead += float(np.clip((ratio[0] - ratio[1]) * 6.0, -PAIR_MOST, PAIR_MOST))
    angle = [sum(dart.angle for mine in piece.darts.values() for dart in mine) for piece in seen]
    lead += float(np.clip((angle[0] - angle[1]) * 6.0, -1.5, 1.5))
    whole = (odds[0] - odds[1]) / 2.0 + lead
    shallower = "of the two its neck is the {}"
    for number, sign in ((0, 1.0), (1, -1.0)):
        odds[number] = sign * whole
        if abs(ratio[0] - ratio[1]) > APART:
            deeper = ratio[number] > ratio[1 - number]
            whys[number].insert(1, shallower.format("deeper" if deeper else "shallower"))
