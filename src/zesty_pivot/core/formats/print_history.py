"""What was printed and when, and in what today's pattern differs from the one on the table."""

from __future__ import annotations

import hashlib
from datetime import datetime, timedelta

import numpy as np

from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.print_models import MOST_PRINTS, Printed
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.ledger.seams import finished_length
from zesty_pivot.core.piece import EdgeRef
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

LEAST = 0.5  # mm: a smaller change is none on the table
HOWS = {"pdf": "saved as PDF", "printer": "printed", "plotter": "plotted", "svg": "saved as SVG", "dxf": "saved as DXF"}
DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


def edge_lengths(derived: Derived) -> dict[str, float]:
    """How long every edge is once sewn, mm, by `piece.edge`."""
    pieces = derived.pattern.with_extras
    return {str(EdgeRef(p.name, edge)): round(finished_length(p, edge), 3) for p in pieces for edge, _role in p.roles}


def outline_stamps(derived: Derived) -> dict[str, str]:
    """What tells the cut line of each piece from itself after a change, within a tenth of a mm."""
    rings = {piece.name: np.round(piece.ring, 1) + 0.0 for piece in derived.sheet_pieces}
    return {name: hashlib.sha1(ring.tobytes(), usedforsecurity=False).hexdigest()[:12] for name, ring in rings.items()}


def with_print(style: Style, derived: Derived, how: str, on: str, at: datetime) -> Style:
    """The style with one print more; the oldest are forgotten where there are too many."""
    told = {
        "at": at.isoformat(timespec="minutes"), "how": how, "on": on, "variant": style.variant,
        "lengths": edge_lengths(derived), "outlines": outline_stamps(derived),
    }  # fmt: skip
    return style.model_copy(update={"printed": (*style.printed, Printed.model_validate(told))[-MOST_PRINTS:]})


def last_print(style: Style) -> Printed | None:
    """The last print of the variant on the table."""
    return next((one for one in reversed(style.printed) if one.variant == style.variant), None)


def print_words(one: Printed, now: datetime) -> str:
    """When and how, as it is said: `printed on Tuesday at 14:05, A4`."""
    return f"{HOWS[one.how]} {when(one.at, now)}{f', {one.on}' if one.on else ''}"


def when(at: str, now: datetime) -> str:
    """A time as it is said now: today, yesterday, the weekday within the last six days, else the date."""
    try:
        then = datetime.fromisoformat(at)
    except ValueError:
        return at
    if (then.tzinfo is None) != (now.tzinfo is None):
        then, now = then.replace(tzinfo=None), now.replace(tzinfo=None)
    days = (now.date() - then.date()).days
    hour = f"{then.hour}:{then.minute:02d}"
    if days in (0, 1):
        return f"{'today' if days == 0 else 'yesterday'} at {hour}"
    if timedelta(0) < now - then < timedelta(days=7):
        return f"on {DAYS[then.weekday()]} at {hour}"
    return f"on {then.date().isoformat()}"


def changes_since(derived: Derived, printed: Printed) -> tuple[str, ...]:
    """In what the pattern differs from the printed one, the largest first: `armhole of the front + 4 mm`; pieces that are new
    or gone first of all, those with the same lengths and another outline last."""
    now, unit = edge_lengths(derived), derived.style.units
    pieces = {EdgeRef.read(key).piece for key in now}
    before = {EdgeRef.read(key).piece for key in printed.lengths}
    found = [f"the {words(name)} is new" for name in sorted(pieces - before)]
    found += [f"the {words(name)} is gone" for name in sorted(before - pieces)]
    both = [key for key in now if key in printed.lengths and abs(now[key] - printed.lengths[key]) >= LEAST]
    for key in sorted(both, key=lambda key: -abs(now[key] - printed.lengths[key])):
        ref, by = EdgeRef.read(key), now[key] - printed.lengths[key]
        found.append(
            f"{words(ref.edge)} of the {words(ref.piece)} {'+' if by > 0 else '−'} {format_length(abs(by), unit, fine=True)}"
        )
    told = {EdgeRef.read(key).piece for key in both}
    now_drawn = outline_stamps(derived)
    other = [name for name, stamp in now_drawn.items() if name in printed.outlines and printed.outlines[name] != stamp]
    found += [f"the {words(name)} is drawn otherwise" for name in other if name not in told and name in before]
    return tuple(found)
