"""Stickers for the pieces: what each is, and a code that a telephone or a scanner reads."""

from __future__ import annotations

import hashlib

import segno

from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.pdf_paper import INK, MM, Paper
from zesty_pivot.core.formats.print_history import outline_stamps
from zesty_pivot.core.formats.sketch import add_sketch, sketched
from zesty_pivot.core.making.flat_sketch import SketchView
from zesty_pivot.core.nest.cut_pieces import count_of
from zesty_pivot.core.nest.paged import EDGE, PAPERS
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.record import record

ACROSS, TALL = 3, 37.0  # stickers side by side; mm of one: as sheets of 24 are sold for A4. Common practice, no source
QUIET = 3.0  # mm of white round a code: four of its dots, as ISO/IEC 18004 asks
LEAST_SKETCH = 5.0  # mm high: smaller it shows nothing
MOST_TEXT = 60  # characters of a name in the code


@record
class Sticker:
    """One sticker: the lines written on it, the first bold, and what its code says."""

    lines: tuple[str, ...]
    code: str


def version_of_pattern(derived: Derived) -> str:
    """What tells this pattern from itself after a change: six letters and digits, the same for the same pattern."""
    told = "\n".join(f"{name} {stamp}" for name, stamp in sorted(outline_stamps(derived).items()))
    return hashlib.sha1(told.encode(), usedforsecurity=False).hexdigest()[:6]


def stickers(derived: Derived) -> tuple[Sticker, ...]:
    """One for every piece of cloth: of a pair two."""
    style, finish, version = derived.style.title, derived.style.finish, version_of_pattern(derived)
    found = []
    for piece in derived.sheet_pieces:
        count, name = count_of(piece.cut), capital(words(piece.name))
        for number in range(count):
            of = f"{number + 1} of {count}" if count > 1 else ""
            size = " ".join(part for part in (f"size {finish.size}" if finish.size else "", finish.client) if part)
            lines = (name, style, f"{piece.cut_words}{f', {of}' if of else ''}", size, f"{finish.date} {version}".strip())
            parts = {"style": style, "piece": piece.name, "size": finish.size, "version": version}
            code = ";".join(f"{key}={value.replace(';', ' ')[:MOST_TEXT]}" for key, value in parts.items() if value)
            found.append(Sticker(tuple(line for line in lines if line), code))
    return tuple(found)


def stickers_pdf(derived: Derived, size: str = "A4") -> bytes:
    """Pages of stickers, three side by side."""
    paper, (width, height) = Paper(f"{derived.style.title}: stickers"), PAPERS[size]
    rows = int((height - 2.0 * EDGE) // TALL)
    wide = (width - 2.0 * EDGE) / ACROSS
    made, views = stickers(derived), sketched(derived)
    for first in range(0, max(len(made), 1), ACROSS * rows):
        paper.page(width, height)
        for number, one in enumerate(made[first : first + ACROSS * rows]):
            row, column = divmod(number, ACROSS)
            _sticker(paper, one, views, (EDGE + column * wide, EDGE + row * TALL, wide))
        paper.canvas.showPage()
    return paper.done()


def _sticker(paper: Paper, one: Sticker, views: tuple[SketchView, ...], place: tuple[float, float, float]) -> None:
    x, y, wide = place
    paper.look(0.1, (1.0, 1.0), faint=True)
    paper.rect(x, y, wide, TALL)
    side = TALL - 2.0 * QUIET - 6.0
    _code(paper, one.code, x + QUIET, y + QUIET, side)
    room = wide - side - 3.0 * QUIET
    below = y + QUIET + 3.5
    for number, line in enumerate(one.lines):
        size = 3.4 if number == 0 else 2.7
        for text in paper.wrapped(line, size, room, bold=number == 0)[:2]:
            paper.text(x + side + 2.0 * QUIET, below, text, size, bold=number == 0, centred=False)
            below += 1.35 * size
    left = y + TALL - below - 1.0
    if left >= LEAST_SKETCH:
        add_sketch(paper, views, (x + side + 2.0 * QUIET, below - 1.0, room, left), 0.5)


def _code(paper: Paper, text: str, x: float, y: float, side: float) -> None:
    """A QR code (ISO/IEC 18004) in a square, with a quarter of it to spare for dirt."""
    rows = [list(row) for row in segno.make_qr(text, error="q", boost_error=False).matrix]
    dot = side / len(rows)
    paper.canvas.setFillColor(INK)
    for down, row in enumerate(rows):
        across = 0
        while across < len(row):
            run = 1
            while across + run < len(row) and row[across + run] == row[across]:
                run += 1
            if row[across]:
                left, low = paper.point(x + across * dot, y + (down + 1) * dot)
                paper.canvas.rect(left, low, run * dot * MM, dot * MM, stroke=0, fill=1)
            across += run
