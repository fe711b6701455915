"""What a princess line did, told: the darts in the seam, the lengths mended, what was taken beyond the darts."""

from __future__ import annotations

import math
from collections.abc import Sequence

from zesty_pivot.core.moves.panel_shape import Shaped
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Note
from zesty_pivot.core.procedures.hand_panels import NOTHING, ends_mended, off_each
from zesty_pivot.core.quantity import Unit, format_length

_TOLD = 0.01  # mm that a line was lengthened; less is rounding


def panel_notes(on: str, made: Shaped, darts: Sequence[str], mended: str, unit: Unit) -> list[Note]:
    """The notes of a line through `darts`, on the piece `on`; `mended` is the end (`upper`, `lower`) where lengths were made
    equal."""
    found: list[Note] = []
    if darts:
        named = " and ".join(words(dart) for dart in darts)
        plural = "dart is" if len(darts) == 1 else "darts is"
        degrees = sum(math.degrees(angle) for _pivot, angle in made.panels.angles)
        into = f"{degrees:.1f}° from the {named} {plural} now in the seam" if made.panels.angles else f"took in the {named}"
        found.append(Note(into, on))
    off = made.extended[1] - made.extended[0]
    if abs(off) > _TOLD:
        found.append(Note(f"to make both lines meet at their {mended} end, {ends_mended(made, 'mm', fine=True)}", on, abs(off)))
    for name, mm in made.taken.items():
        if abs(mm) > NOTHING and name in made.natural:
            where = {"top": "the upper end", "bottom": "the lower end"}.get(name, f"the {words(name)} line")
            amount = format_length(abs(mm), unit, fine=True)
            each = off_each(made, name, unit, fine=True)
            text = f"{amount} {'more' if mm > 0 else 'less'} than the darts give at {where}, {each}"
            found.append(Note(text, on, abs(mm)))
    return found
