"""HP-GL files, as plotters are sent them: pens, arcs, curves, labels. 40 units are a millimetre (the HP-GL reference)."""

from __future__ import annotations

import itertools
import math
import re
from collections.abc import Callable, Iterator
from functools import partial

import numpy as np

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.intake.drawing import LARGEST, Array, Collector, Drawing, arc

UNIT = 1.0 / 40.0  # mm
_NUMBER = re.compile(rb"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_MOST_INSTRUCTIONS = 400_000
_ESCAPE = re.compile(rb"\x1b(?:\.[@-Z](?:[^\x1b:;A-Za-z]*:?)|[%&*()][^A-Z@]*[A-Z@])")
# Pens, speeds, page set-ups and fills: they change how it looks, not where it lies.
_LOOKS = frozenset(
    b"AC AS BP CF CS CM CO CP CR DI DL DR DV EC ES FI FN FP FR FS FT IM IR IW LA LM LO LT MC MG NP OP OI OE OS OW OH OD OA OC"
    b" OF PB PC PG PM PS PT PW QL RF RO RP SA SB SD SI SL SM SR SS ST SV TD TL TR UC UL VS WU XT YT NR".split()
)


def read(content: bytes) -> Drawing:
    """The pen's lines and labels of an HP-GL file, y turned down, in millimetres.

    Raises FileError when no pen is put down in it.
    """
    plain = _ESCAPE.sub(b" ", content)
    plotter = _Plotter()
    for count, (name, text) in enumerate(_instructions(plain, plotter)):
        if count > _MOST_INSTRUCTIONS:
            raise FileError("it holds more instructions than a pattern has", advice="Plot only the block's pieces to it.")
        plotter.do(name, text)
    plotter.lift()
    if not plotter.collector.lines:
        raise FileError("no pen is put down in it", advice="Save it as HP-GL.")
    return plotter.collector.made(UNIT, "plotter units")


def _instructions(content: bytes, plotter: _Plotter) -> Iterator[tuple[bytes, bytes]]:
    """Two-letter instructions with what follows; labels run to their terminator."""
    at, end = 0, len(content)
    while at < end:
        name = content[at : at + 2].upper()
        if not name.isalpha() or len(name) < 2:
            at += 1
            continue
        at += 2
        if name == b"LB":
            stop = content.find(plotter.terminator, at)
            stop = end if stop < 0 else stop
            yield name, content[at:stop]
            at = stop + 1
        elif name == b"DT":
            if at < end and content[at : at + 1] not in (b";", b"\n", b"\r"):
                plotter.terminator = content[at : at + 1]
                at += 1
        elif name == b"PE":
            stop = content.find(b";", at)
            stop = end if stop < 0 else stop
            yield name, content[at:stop]
            at = stop + 1
        else:
            stop = at
            while stop < end and not content[stop : stop + 1].isalpha() and content[stop : stop + 1] != b";":
                stop += 1
                if content[stop - 1 : stop + 1] in (b".E", b".e") or (
                    content[stop : stop + 1] in (b"e", b"E")
                    and content[stop - 1 : stop].isdigit()
                    and content[stop + 1 : stop + 2] in b"+-"
                ):
                    stop += 1
            yield name, content[at:stop]
            at = stop


class _Plotter:
    """Where the pen is, whether it is down, and what it has drawn."""

    def __init__(self) -> None:
        self.collector = Collector()
        self.terminator = b"\x03"
        self._at = np.zeros(2)
        self._is_down, self._is_absolute = False, True
        self._pen = ""
        self._chain: list[Array] = []
        self._scale: tuple[float, float, float, float] | None = None
        self._corners = np.array([0.0, 0.0, 10_000.0, 10_000.0])
        self._deeds: dict[bytes, Callable[[list[float]], None]] = {
            b"PU": self._up, b"PD": self._down, b"PA": self._absolute, b"PR": self._relative, b"SP": self._select,
            b"AA": partial(self._arc, is_absolute=True), b"AR": partial(self._arc, is_absolute=False), b"CI": self._circle,
            b"SC": self._scaled, b"IP": self._set_corners, b"IN": self._begin, b"DF": self._begin,
            b"BZ": partial(self._curve, is_absolute=True), b"BR": partial(self._curve, is_absolute=False),
            b"EA": partial(self._box, is_absolute=True), b"ER": partial(self._box, is_absolute=False),
        }  # fmt: skip

    def do(self, name: bytes, text: bytes) -> None:
        """One instruction. What is not known is passed over and counted."""
        if name == b"LB":
            self.collector.text(self._drawn(self._at), text.decode("latin-1"), self._pen)
            return
        if name == b"PE":
            self._encoded(text)
            return
        deed = self._deeds.get(name)
        if deed is None:
            if name not in _LOOKS:
                self.collector.note(f"the instruction {name.decode('ascii', 'replace')}")
            return
        numbers = [float(number) for number in _NUMBER.findall(text)]
        if any(abs(number) > LARGEST for number in numbers):
            self.collector.note("an instruction with a number larger than any plotter takes")
            return
        deed(numbers)

    def lift(self) -> None:
        """Ends the line that is being drawn."""
        if self._chain:
            self.collector.line(np.stack(self._chain), self._pen)
            self._chain = []

    def _drawn(self, at: Array) -> tuple[float, float]:
        x, y = self._plotted(at)
        return float(x), -float(y)

    def _plotted(self, at: Array) -> Array:
        """User units as plotter units."""
        if self._scale is None:
            return at
        left, right, low, high = self._scale
        x1, y1, x2, y2 = self._corners
        return np.array([x1 + (at[0] - left) / (right - left) * (x2 - x1), y1 + (at[1] - low) / (high - low) * (y2 - y1)])

    def _begin(self, _numbers: list[float]) -> None:
        self.lift()
        self._is_down, self._is_absolute, self._scale, self._at = False, True, None, np.zeros(2)

    def _select(self, numbers: list[float]) -> None:
        self.lift()
        self._pen = f"pen {numbers[0]:.0f}" if numbers and math.isfinite(numbers[0]) else ""

    def _up(self, numbers: list[float]) -> None:
        self.lift()
        self._is_down = False
        self._moves(numbers)

    def _down(self, numbers: list[float]) -> None:
        self._is_down = True
        self._moves(numbers)

    def _absolute(self, numbers: list[float]) -> None:
        self._is_absolute = True
        self._moves(numbers)

    def _relative(self, numbers: list[float]) -> None:
        self._is_absolute = False
        self._moves(numbers)

    def _scaled(self, numbers: list[float]) -> None:
        is_whole = len(numbers) >= 4 and abs(numbers[1] - numbers[0]) > 1e-9 and abs(numbers[3] - numbers[2]) > 1e-9
        self.lift()
        self._scale = (numbers[0], numbers[1], numbers[2], numbers[3]) if is_whole else None

    def _set_corners(self, numbers: list[float]) -> None:
        if len(numbers) >= 4:
            self._corners = np.array(numbers[:4])

    def _moves(self, numbers: list[float]) -> None:
        for x, y in zip(numbers[::2], numbers[1::2], strict=False):
            to = np.array([x, y])
            self._go(to if self._is_absolute else self._at + to)

    def _go(self, to: Array) -> None:
        if self._is_down:
            self._draw(bezier.line(self._plotted(self._at), self._plotted(to)))
        self._at = to

    def _draw(self, cubic: Array) -> None:
        self._chain.append(cubic * np.array([1.0, -1.0]))

    def _arc(self, numbers: list[float], *, is_absolute: bool) -> None:
        if len(numbers) < 3 or not math.isfinite(numbers[2]):
            return
        centre = np.array(numbers[:2]) if is_absolute else self._at + np.array(numbers[:2])
        turn = math.radians(max(-360.0, min(360.0, numbers[2])))
        cubics = arc(centre, self._at, turn)
        if self._is_down:
            for cubic in cubics:
                self._draw(np.stack([self._plotted(point) for point in cubic]))
        self._at = cubics[-1, 3]

    def _circle(self, numbers: list[float]) -> None:
        if not numbers or not math.isfinite(numbers[0]) or numbers[0] == 0.0:
            return
        self.lift()
        radius = abs(numbers[0])
        edge = self._plotted(self._at + np.array([radius, 0.0]))
        x, y = self._drawn(self._at)
        self.collector.dot((x, y), self._pen, radius=float(np.hypot(*(edge - self._plotted(self._at)))))
        for cubic in arc(self._at, self._at + np.array([radius, 0.0]), 2.0 * math.pi):
            self._draw(np.stack([self._plotted(point) for point in cubic]))
        self.lift()

    def _curve(self, numbers: list[float], *, is_absolute: bool) -> None:
        for start in range(0, len(numbers) - 5, 6):
            points = np.array(numbers[start : start + 6]).reshape(3, 2)
            points = points if is_absolute else points + self._at
            if self._is_down:
                self._draw(np.stack([self._plotted(point) for point in (self._at, *points)]))
            self._at = points[2]

    def _box(self, numbers: list[float], *, is_absolute: bool) -> None:
        if len(numbers) < 2:
            return
        self.lift()
        here, other = self._at, np.array(numbers[:2]) if is_absolute else self._at + np.array(numbers[:2])
        corners = [here, np.array([other[0], here[1]]), other, np.array([here[0], other[1]]), here]
        for first, last in itertools.pairwise(corners):
            self._draw(bezier.line(self._plotted(first), self._plotted(last)))
        self.lift()

    def _encoded(self, text: bytes) -> None:
        """Polylines in the packed form of HP-GL/2: relative, unless a flag says otherwise."""
        fraction, is_up, is_absolute = 0, False, False
        pair: list[float] = []
        for kind, number in _unpacked(text):
            if kind == b"<":
                is_up = True
            elif kind == b"=":
                is_absolute = True
            elif kind == b">":
                fraction = max(0, min(26, number))
            elif kind == b":":
                self._select([float(number)])
            else:
                pair.append(number / 2.0**fraction)
            if len(pair) == 2:
                if is_up:
                    self.lift()
                self._is_down = not is_up
                to = np.array(pair)
                self._go(to if is_absolute else self._at + to)
                pair, is_up, is_absolute = [], False, False


def _unpacked(text: bytes) -> Iterator[tuple[bytes, int]]:
    """Flags and numbers of the packed form: digits to the base 64 (or 32 after the flag 7), the last of a number marked, the
    lowest bit its sign."""
    is_short = False
    waiting = b""
    value, shift = 0, 0
    for byte in text:
        flag = bytes([byte])
        if flag == b"7":
            is_short = True
        elif flag in (b"<", b"="):
            yield flag, 0
        elif flag in (b":", b">"):
            waiting = flag
        else:
            code = (byte & 0x7F if is_short else byte) - 63
            bits = 5 if is_short else 6
            last = 32 if is_short else 128
            if not (0 <= code < 2**bits or last <= code < last + 2**bits) or shift > 60:
                continue
            is_last = code >= last
            value += (code - last if is_last else code) << shift
            shift += bits
            if is_last:
                yield waiting, (-1 if value & 1 else 1) * (value >> 1)
                waiting, value, shift = b"", 0, 0
