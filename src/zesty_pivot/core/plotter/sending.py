"""A plot on its way: as much as the plotter has room for, and no more; paused, cancelled, and told when nothing moves."""

from __future__ import annotations

import re
from enum import StrEnum

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.plotter.port import PlotterLine
from zesty_pivot.core.plotter.simulator import EMPTY, NO_PAPER, PAUSED, XOFF, XON

CHUNK = 256  # bytes at a time: less than any buffer
ASKED_S = 1.5  # how long an answer may take before it is asked for again
LINGER_S = 3.0  # how long the line is kept after the last that was heard or sent, where the plotter tells nothing of its end
JAM_S = 8.0  # how long nothing may move: the longest line of a pattern takes some four seconds
_ANSWER = re.compile(rb"(\d+)\r")

ESC_B, ESC_O, ESC_K = b"\x1b.B", b"\x1b.O", b"\x1b.K"  # room in the buffer; status; give up what is in it


class Handshake(StrEnum):
    """How plotter and program tell each other when to wait."""

    ASK = "ask"  # the program asks for room (ESC.B)
    XON = "xon"  # the plotter says stop and go on
    NONE = "none"  # the line is as slow as the plotter


class Stage(StrEnum):
    """Where a plot is."""

    SENDING = "sending"
    PAUSED = "paused"
    DONE = "done"
    CANCELLED = "cancelled"
    LOST = "lost"


class Sending:
    """One plot. `step` is called every some milliseconds with the time; nothing in it waits."""

    def __init__(self, content: bytes, line: PlotterLine, handshake: Handshake, *, speed: int = 9600) -> None:
        """`speed` is that of the line in bits a second: without a handshake it is the pace."""
        self._content, self._line, self._handshake, self._speed = content, line, handshake, speed
        self.sent = 0
        self.stage = Stage.SENDING
        self.trouble = ""  # a sentence, while something stands in the way
        self._room = 0
        self._asked: float | None = None
        self._asked_for = b""
        self._held = False
        self._heard = bytearray()
        self._moved: float | None = None  # when something moved last
        self._paced: float | None = None
        self._is_drawn = False

    @property
    def share(self) -> float:
        """How much of it is sent, 0 to 1."""
        return self.sent / max(1, len(self._content))

    @property
    def is_over(self) -> bool:
        """Whether nothing more happens."""
        return self.stage in (Stage.DONE, Stage.CANCELLED, Stage.LOST)

    def pause(self) -> None:
        """Sends no more until it goes on; the plotter draws what it has."""
        if self.stage is Stage.SENDING:
            self.stage = Stage.PAUSED

    def go_on(self) -> None:
        """Goes on after a pause."""
        if self.stage is Stage.PAUSED:
            self.stage, self._moved = Stage.SENDING, None

    def cancel(self) -> None:
        """Gives the plot up: the plotter is told to forget what it has, to lift its pen and put it back."""
        if not self.is_over:
            self.stage = Stage.CANCELLED
            self._tell(ESC_K + b";PU;SP0;PG;\n")
            self._line.close()

    def _tell(self, content: bytes) -> None:
        try:
            self._line.write(content)
        except FileError as fault:
            self._lose(fault)

    def _lose(self, fault: FileError) -> None:
        self.stage, self.trouble = Stage.LOST, str(fault)
        self._line.close()

    def step(self, now: float) -> None:
        """Does what can be done at once; `now` in seconds."""
        if self.is_over:
            return
        self._moved = now if self._moved is None else self._moved
        try:
            self._hear(self._line.read(), now)
            if self.stage is Stage.SENDING:
                self._send(now)
        except FileError as fault:
            self._lose(fault)
            return
        if self.stage is Stage.SENDING and now - self._moved > JAM_S and not self.trouble:
            self.trouble = "Nothing has moved for a while: look whether the plotter has jammed, is switched off or waits."

    def _hear(self, heard: bytes, now: float) -> None:
        for byte in (heard[at : at + 1] for at in range(len(heard))):
            if byte == XOFF:
                self._held = True
            elif byte == XON:
                self._held = False
                self._stir(now)
            else:
                self._heard += byte
        while answer := _ANSWER.search(self._heard):
            number = int(answer[1])  # read before what it was found in is cut
            del self._heard[: answer.end()]
            self._answered(number, now)
        del self._heard[:-32]  # noise on the line is no answer

    def _answered(self, number: int, now: float) -> None:
        asked, self._asked = self._asked_for, None
        if asked == ESC_O:
            self._is_drawn = bool(number & EMPTY)
            if not self._is_drawn and self.sent >= len(self._content):
                self._moved = now  # it is at work
            if number & NO_PAPER:
                self.trouble = "The plotter has no paper: load it and let it go on."
            elif number & PAUSED:
                self.trouble = "The plotter is paused at its own keys."
        else:
            if number > self._room:
                self._stir(now)
            self._room = number

    def _stir(self, now: float) -> None:
        """Something moved: whatever stood in the way is gone."""
        self._moved, self.trouble = now, ""

    def _send(self, now: float) -> None:
        if self.sent >= len(self._content):
            self._finish(now)
            return
        room = self._allowed(now)
        if room <= 0:
            return
        part = self._content[self.sent : self.sent + min(room, CHUNK)]
        taken = self._line.write(part)
        if taken:
            self.sent += taken
            self._room -= taken
            self._stir(now)

    def _finish(self, now: float) -> None:
        """All is sent: the line is kept until the plotter says that it has drawn it, or says nothing more. A line let go
        of too early takes along what is still on it."""
        if self._handshake is Handshake.ASK and not self._is_drawn and now - (self._moved or now) < JAM_S:
            if self._asked is None or now - self._asked > ASKED_S:
                self._asked, self._asked_for = now, ESC_O
                self._line.write(ESC_O)
            return
        if self._is_drawn or now - (self._moved or now) > LINGER_S:
            self.stage = Stage.DONE
            self._line.close()

    def _allowed(self, now: float) -> int:
        """How many bytes may be sent at once."""
        if self._handshake is Handshake.XON:
            return 0 if self._held else CHUNK // 4
        if self._handshake is Handshake.NONE:
            self._paced = now if self._paced is None else self._paced
            due = int((now - self._paced) * self._speed / 10.0)  # ten bits on the line for a byte
            self._paced = now if due else self._paced
            return due
        if self._room >= CHUNK or self._room >= len(self._content) - self.sent:
            return self._room
        if self._asked is None or now - self._asked > ASKED_S:
            # Where there has been no room for a while it is asked why, by turns with whether there is some again.
            is_stuck = self._moved is not None and now - self._moved > JAM_S / 2.0 and self._asked_for != ESC_O
            self._asked, self._asked_for = now, ESC_O if is_stuck else ESC_B
            self._line.write(self._asked_for)
        return 0
