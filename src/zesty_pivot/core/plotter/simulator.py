"""A plotter that is none: it takes bytes into a small buffer, draws them as fast as a pen goes, tells how much room it has,
and can be made to jam, to run out of paper and to be slow."""

from __future__ import annotations

import re
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

BUFFER = 1024  # bytes, as small plotters have
SPEED = 400.0  # mm a second, the pen down
UP_SPEED = 600.0  # mm a second, the pen up
APART = 10.0  # mm of paper that it leaves free after a frame
UNITS = 40.0  # plotter units in a millimetre (HP-GL reference)
XON, XOFF = b"\x11", b"\x13"
# When XOFF is sent, with so much room left: what is on the line by then still finds place; and XON again.
NEARLY_FULL, HALF_EMPTY = 256, 640
# ESC.O of the plotter language, extended status, from memory: 8 the buffer is empty, 16 the operator paused it, 32 no paper.
EMPTY, PAUSED, NO_PAPER = 8, 16, 32

_WORD = re.compile(rb"([A-Za-z]{2})([^;A-Za-z]*);?")
_MOST_WORD = 4096
_NUMBER = re.compile(rb"[+-]?\d+(\.\d*)?")
_FARTHEST = 1e8  # units from the corner of the paper: farther it is no place

Line = NDArray[np.float64]


class Trouble(StrEnum):
    """What stands in its way."""

    NONE = ""
    JAM = "jammed"
    PAPER = "out of paper"
    PAUSED = "paused"
    OFF = "off"


class SimulatedPlotter:
    """Takes bytes by `take`, answers by `answers`, draws by `run`. All drawing is in mm, x along the roll, y up."""

    def __init__(self, *, speed: float = SPEED, buffer: int = BUFFER, jams_after: float = 0.0, paper: float = 0.0) -> None:
        """`jams_after` and `paper` are mm of drawing after which it jams or its roll ends; 0: never."""
        self.speed, self.size = speed, buffer
        self.jams_after, self.paper = jams_after, paper
        self.trouble = Trouble.NONE
        self.lines: list[tuple[int, list[tuple[float, float]]]] = []
        self.lost = 0  # bytes that came while there was no room
        self.errors = 0  # words that it does not know
        self.drawn = 0.0  # mm
        self._buffer = bytearray()
        self._answers = bytearray()
        self._escape = bytearray()
        self._is_full = False
        self._at = np.zeros(2)
        self._origin = 0.0  # where the frame begins along the roll
        self._farthest = 0.0
        self._pen, self._down = 0, False
        self._ahead: list[tuple[bool, NDArray[np.float64]]] = []

    # The line.

    @property
    def room(self) -> int:
        """Bytes that it still takes."""
        return max(0, self.size - len(self._buffer))

    @property
    def is_full(self) -> bool:
        """Whether it has said stop, and not yet to go on."""
        return self._is_full

    @property
    def is_idle(self) -> bool:
        """Whether all that it was sent is drawn."""
        return not self._buffer and not self._ahead

    def take(self, content: bytes) -> None:
        """What comes on the line. What finds no room is lost, as it is in a real one."""
        if self.trouble is Trouble.OFF:
            return
        for number in range(len(content)):
            byte = content[number : number + 1]
            if self._escape or byte == b"\x1b":
                self._escape += byte
                self._command()
            elif self.room:
                self._buffer += byte
            else:
                self.lost += 1
        if self.room < NEARLY_FULL and not self._is_full:
            self._is_full = True
            self._answers += XOFF

    def answers(self) -> bytes:
        """What it says since it was asked last: XON, XOFF, and answers to escapes."""
        said = bytes(self._answers)
        self._answers.clear()
        return b"" if self.trouble is Trouble.OFF else said

    def _command(self) -> None:
        if len(self._escape) < 3:
            return
        kind = self._escape[2:3]
        self._escape.clear()
        if kind == b"B":
            self._answers += b"%d\r" % self.room
        elif kind == b"O":
            self._answers += b"%d\r" % self.status
        elif kind == b"K":
            self._buffer.clear()
            self._ahead.clear()
            self._down = False

    @property
    def status(self) -> int:
        """The answer to ESC.O."""
        found = EMPTY if self.is_idle else 0
        if self.trouble is Trouble.PAUSED:
            found |= PAUSED
        return found | (NO_PAPER if self.trouble is Trouble.PAPER else 0)

    # The hand at its keys.

    def jam(self) -> None:
        """The paper jams: it draws no more until it is freed."""
        self.trouble = Trouble.JAM

    def pause(self) -> None:
        """Somebody pauses it."""
        self.trouble = Trouble.PAUSED

    def end_paper(self) -> None:
        """The roll ends."""
        self.trouble = Trouble.PAPER

    def power_off(self) -> None:
        """The power is lost: what was in the buffer is gone, it answers nothing."""
        self.trouble = Trouble.OFF
        self._buffer.clear()
        self._ahead.clear()

    def free(self) -> None:
        """Whatever stood in the way is seen to."""
        if self.trouble is Trouble.JAM:
            self.jams_after = 0.0
        if self.trouble is Trouble.PAPER:
            self.paper = 0.0
        self.trouble = Trouble.NONE

    # The drawing.

    def run(self, seconds: float) -> None:
        """Draws for so long."""
        left = seconds
        while left > 0.0 and self.trouble is Trouble.NONE:
            if not self._ahead and not self._next_word():
                break
            if not self._ahead:
                continue
            down, goal = self._ahead[0]
            way = float(np.hypot(*(goal - self._at)))
            most = left * (self.speed if down else UP_SPEED)
            if way > most:
                goal = self._at + (goal - self._at) * (most / way)
                self._move(down, goal, most)
                break
            self._move(down, goal, way)
            left -= way / (self.speed if down else UP_SPEED)
            if self.trouble is Trouble.NONE:
                self._ahead.pop(0)
        if self._is_full and self.room > HALF_EMPTY:
            self._is_full = False
            self._answers += XON

    def _move(self, down: bool, goal: NDArray[np.float64], way: float) -> None:
        for limit, trouble in ((self.jams_after, Trouble.JAM), (self.paper, Trouble.PAPER)):
            if down and limit and self.drawn + way > limit:
                share = max(0.0, (limit - self.drawn) / way)
                goal, way = self._at + (goal - self._at) * share, way * share
                self.trouble = trouble
        if down:
            self.lines[-1][1].append((float(goal[0]), float(goal[1])))
            self.drawn += way
        self._at = goal
        self._farthest = max(self._farthest, float(goal[0]))

    def _next_word(self) -> bool:
        """Takes an instruction from the buffer; False where none is whole yet."""
        content = bytes(self._buffer)
        if not content.strip(b" ;\r\n"):
            self._buffer.clear()
            return False
        found = _WORD.search(content)
        if found is None or (found.end() == len(content) and not found[0].endswith(b";") and len(content) < _MOST_WORD):
            return False
        del self._buffer[: found.end()]
        self._do(found[1].upper(), found[2])
        return True

    def _do(self, name: bytes, text: bytes) -> None:
        parts = [part for part in text.replace(b" ", b",").split(b",") if part]
        if not all(_NUMBER.fullmatch(part) for part in parts):
            self.errors += 1  # what came is no instruction: it is passed over
            return
        places = [min(max(float(part), -_FARTHEST), _FARTHEST) / UNITS for part in parts]
        if name == b"SP":
            self._pen = int(float(parts[0])) if parts else 0
        elif name in (b"PU", b"PD", b"PA"):
            self._down = name == b"PD" or (name == b"PA" and self._down)
            if self._down:
                self.lines.append((self._pen, [(float(self._at[0]), float(self._at[1]))]))
            for x, y in zip(places[::2], places[1::2], strict=False):
                self._ahead.append((self._down, np.array([x + self._origin, y])))
        elif name == b"PG":
            self._origin = self._farthest + APART
        elif name == b"IN":
            self._down = False
        else:
            self.errors += 1
