"""Writing in a PDF, in every script that the shipped fonts have: fonts are embedded as far as they are used, and what is copied
out of the page is what was typed.

A plain line is one string. Any other is drawn run by run from left to right; where letters take other forms or stand in another
order than they are read (Arabic, Hebrew, Devanagari), each glyph is put in its place by HarfBuzz. Readers of a page expect such
runs in the order of the eye and turn them round themselves; a form that is no character of its own carries the letters it
stands for (ActualText, ISO 32000-1, 14.9.4).
"""

from __future__ import annotations

import itertools
import unicodedata
from collections.abc import Callable, Iterator
from functools import lru_cache
from importlib.resources import as_file, files
from typing import Any

from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from zesty_pivot.core.lettering import FACES, TextRun, is_plain, visual_runs
from zesty_pivot.core.record import record


@lru_cache(maxsize=32)
def _font(file: str) -> str:
    """The name under which the PDF library knows a font of ours, registered when it is first used."""
    name = f"Zesty-{file.removesuffix('.ttf')}"
    with as_file(files("zesty_pivot.data") / "fonts" / file) as path:
        pdfmetrics.registerFont(TTFont(name, str(path)))
    return name


@record
class _Glyph:
    """A glyph as the PDF library can write it: a character that stands for it, where it stands from the run's beginning, and
    how far it leads on, in points; and the number in the run of the first letter that it stands for."""

    character: str
    x: float
    y: float
    advance: float
    letter: int


def width(text: str, size: float, *, bold: bool = False) -> float:
    """How wide a line is, in points, at a size in points."""
    if is_plain(text):
        return float(pdfmetrics.stringWidth(text, _font(FACES[0].file(bold=bold)), size))
    return sum(_wide(run, size, bold) for run in visual_runs(text))


def draw(canvas: Canvas, x: float, y: float, text: str, size: float, *, bold: bool = False) -> None:
    """Writes a line from x on, its baseline at y; points, y up."""
    if is_plain(text):
        canvas.setFont(_font(FACES[0].file(bold=bold)), size)
        canvas.drawString(x, y, text)
        return
    for run in visual_runs(text):
        canvas.setFont(_font(run.face.file(bold=bold)), size)
        if run.is_shaped:
            _draw_shaped(canvas, x, y, run, _shaped(run, size, bold))
        else:
            canvas.drawString(x, y, run.text)
        x += _wide(run, size, bold)


def _draw_shaped(canvas: Canvas, x: float, y: float, run: TextRun, glyphs: list[_Glyph]) -> None:
    """The glyphs of a run, those that stand for the same letters together."""
    starts = sorted({glyph.letter for glyph in glyphs})
    ends = dict(zip(starts, [*starts[1:], len(run.text)], strict=True))
    for letter, group in itertools.groupby(glyphs, key=lambda glyph: glyph.letter):
        row, letters = list(group), run.text[letter : ends[letter]]
        # A bracket is turned round by its place on the line: as it looks it is read.
        marked = "".join(glyph.character for glyph in row) != letters and not unicodedata.mirrored(letters[0])
        if marked:
            words = ("\ufeff" + letters).encode("utf-16-be").hex()
            canvas._code.append(f"/Span <</ActualText <{words}>>> BDC")
        for glyph in row:
            canvas.drawString(x + glyph.x, y + glyph.y, glyph.character)
        if marked:
            canvas._code.append("EMC")


def wrapped(text: str, size: float, room: float, *, bold: bool = False) -> list[str]:
    """A text in lines of at most `room` points. Words that are longer are broken, as are scripts that know no spaces."""
    if is_plain(text):
        found: list[str] = simpleSplit(text, _font(FACES[0].file(bold=bold)), size, room)
        return found
    return list(_broken(text, lambda line: width(line, size, bold=bold) <= room))


def _broken(text: str, fits: Callable[[str], bool]) -> Iterator[str]:
    line = ""
    for word in text.split():
        longer = f"{line} {word}".strip()
        if fits(longer):
            line = longer
            continue
        if line:
            yield line
        line = ""
        for character in word:
            if line and not fits(line + character):
                yield line
                line = ""
            line += character
    if line:
        yield line


def _wide(run: TextRun, size: float, bold: bool) -> float:
    if run.is_shaped:
        return sum(glyph.advance for glyph in _shaped(run, size, bold))
    return float(pdfmetrics.stringWidth(run.text, _font(run.face.file(bold=bold)), size))


def _shaped(run: TextRun, size: float, bold: bool) -> list[_Glyph]:
    """The glyphs of a run from left to right, as HarfBuzz sets them."""
    import uharfbuzz  # only where letters must be shaped: most lines need none

    font: Any = pdfmetrics.getFont(_font(run.face.file(bold=bold)))
    shaper = font.hbFont(size)
    buffer = uharfbuzz.Buffer()
    buffer.add_str(run.text)
    buffer.guess_segment_properties()
    buffer.direction = "rtl" if run.is_rtl else "ltr"
    uharfbuzz.shape(shaper, buffer)
    found: list[_Glyph] = []
    x, scale = 0.0, size / 1000.0
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        known = font.face.glyphToChar.get(info.codepoint)
        # A form that no character stands for gets one of the font's own; the line's words are told beside it.
        code = (
            known[0] if known else font.hbAddPrivate(shaper.glyph_to_string(info.codepoint), info.codepoint, position.x_advance)
        )
        lead, right, up = (font.pdfScale(part) * scale for part in (position.x_advance, position.x_offset, position.y_offset))
        found.append(_Glyph(chr(code), x + right, up, lead, info.cluster))
        x += lead
    return found
