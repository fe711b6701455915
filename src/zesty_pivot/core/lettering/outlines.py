"""Words as lines: the outlines of the shipped letters, for what has a pen and no type."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

import numpy as np
import uharfbuzz as hb
from numpy.typing import NDArray

from zesty_pivot.core.lettering.runs import visual_runs

Line = NDArray[np.float64]
STEPS = 2  # chords of a curve of a letter: words are small, and a pen draws every one of them


@lru_cache(maxsize=32)
def _font(file: str) -> tuple[hb.Font, float]:
    """A font with how many of its units are the height of a line of it."""
    face = hb.Face((files("zesty_pivot.data") / "fonts" / file).read_bytes())
    return hb.Font(face), float(face.upem)


def outlines(text: str, *, bold: bool = False) -> tuple[list[Line], float]:
    """The closed outlines (n, 2) of a line of text, in heights of its letters, y down, from 0 on with its foot at 0; and how
    wide it is."""
    found: list[Line] = []
    at = 0.0
    for run in visual_runs(text):
        font, unit = _font(run.face.file(bold=bold))
        buffer = hb.Buffer()
        buffer.add_str(run.text)
        buffer.guess_segment_properties()
        buffer.direction = "rtl" if run.is_rtl else "ltr"
        hb.shape(font, buffer)
        for info, place in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
            shift = np.array([at + place.x_offset / unit, -place.y_offset / unit])
            found += [line * (1.0 / unit, -1.0 / unit) + shift for line in _glyph(run.face.file(bold=bold), info.codepoint)]
            at += place.x_advance / unit
    return found, at


@lru_cache(maxsize=4096)
def _glyph(file: str, number: int) -> tuple[Line, ...]:
    font, _unit = _font(file)
    pen = _Pen()
    funcs = hb.DrawFuncs()
    funcs.set_move_to_func(lambda x, y, pen: pen.begin(x, y))
    funcs.set_line_to_func(lambda x, y, pen: pen.line(x, y))
    funcs.set_quadratic_to_func(lambda cx, cy, x, y, pen: pen.curve((cx, cy), (cx, cy), (x, y), 2))
    funcs.set_cubic_to_func(lambda ax, ay, bx, by, x, y, pen: pen.curve((ax, ay), (bx, by), (x, y), 3))
    funcs.set_close_path_func(lambda pen: pen.close())
    font.draw_glyph(number, funcs, pen)
    return tuple(np.array(line) for line in pen.lines if len(line) > 1)


class _Pen:
    """Gathers the outline of a glyph as lines, in the font's units."""

    def __init__(self) -> None:
        self.lines: list[list[tuple[float, float]]] = []

    def begin(self, x: float, y: float) -> None:
        self.lines.append([(x, y)])

    def line(self, x: float, y: float) -> None:
        self.lines[-1].append((x, y))

    def curve(self, a: tuple[float, float], b: tuple[float, float], end: tuple[float, float], degree: int) -> None:
        x0, y0 = self.lines[-1][-1]
        for step in range(1, STEPS + 1):
            t = step / STEPS
            s = 1.0 - t
            if degree == 2:
                x, y = (s * s * p + 2 * s * t * q + t * t * r for p, q, r in ((x0, a[0], end[0]), (y0, a[1], end[1])))
            else:
                x, y = (
                    s**3 * p + 3 * s * s * t * q + 3 * s * t * t * r + t**3 * u
                    for p, q, r, u in ((x0, a[0], b[0], end[0]), (y0, a[1], b[1], end[1]))
                )
            self.lines[-1].append((x, y))

    def close(self) -> None:
        if self.lines and self.lines[-1][0] != self.lines[-1][-1]:
            self.lines[-1].append(self.lines[-1][0])
