"""The stream of a digitiser, line by line: what can be read becomes places with their buttons; what cannot is told, and
skipped."""

from __future__ import annotations

import math
from collections.abc import Iterable

from zesty_pivot.core.intake.digitiser.device import Deed, Device
from zesty_pivot.core.record import record

LONGEST = 400  # characters of a line; what runs on without an end is noise
FARTHEST = 5_000.0  # mm: no table is larger
MOST_TOLD = 20
BLANK = " \t\0\x02\x03\x11\x13"  # what may stand round a line: blanks, and signs that steer the flow
REPEATED = ("corner", "close", "next", "back", "ignore")  # may come twice from one place
MOST_PLACES = 50_000


@record
class Press:
    """A place that was pressed, mm, x to the right and y down, and what its button means."""

    x: float
    y: float
    deed: Deed


@record
class SkippedLine:
    """What was wrong with a line: its number from 1, and why it was skipped."""

    line: int
    why: str


class Stream:
    """Takes bytes as they come, in any portions, and gives the presses they hold. Nothing that comes stops it."""

    def __init__(self, device: Device) -> None:
        self._device = device
        self._waiting = b""
        self._number = 0
        self._runs_on = False
        self._last: Press | None = None
        self.presses: list[Press] = []
        self.told: list[SkippedLine] = []
        self.skipped = 0

    def take(self, portion: bytes) -> list[Press]:
        """The presses that became whole with this portion."""
        before = len(self.presses)
        self._waiting += portion
        *lines, self._waiting = self._waiting.replace(b"\r", b"\n").split(b"\n")
        for line in lines:
            self._line(line)
        if len(self._waiting) > LONGEST:
            if not self._runs_on:
                self._tell("it runs on without an end")
            self._runs_on, self._waiting = True, b""
        return self.presses[before:]

    def end(self) -> None:
        """The stream has ended: what waits is a last line, or the half of one."""
        if self._waiting.strip():
            self._line(self._waiting)
        self._waiting = b""

    def _line(self, raw: bytes) -> None:
        if self._runs_on:  # the rest of what ran on
            self._runs_on = False
            return
        text = raw.decode("ascii", "replace").strip(BLANK)
        if not text:
            return
        self._number += 1
        found = self._device.pattern.fullmatch(text)
        if found is None:
            self._tell(f"{text[:40]!r} is nothing that this digitiser says" if text.isprintable() else "it is broken")
            return
        try:
            x, y = float(found["x"]) * self._device.mm, float(found["y"]) * self._device.mm
        except (ValueError, OverflowError):
            self._tell("its numbers cannot be read")
            return
        if not (math.isfinite(x) and math.isfinite(y)) or max(abs(x), abs(y)) > FARTHEST:
            self._tell("the place lies off any table")
            return
        deed = self._device.buttons.get(found["button"])
        if deed is None:
            self._tell(f"the button {found['button']!r} has no meaning here")
            return
        if len(self.presses) >= MOST_PLACES:
            self._tell("there are more places than a pattern has")
            return
        self._press(Press(x, -y if self._device.y_up else y, deed))

    def _press(self, press: Press) -> None:
        last = self._last
        # A hand presses a corner several times to have it better: one that is sent twice does no harm.
        is_again = last is not None and last.deed == press.deed and press.deed not in REPEATED
        if is_again and last is not None and math.dist((last.x, last.y), (press.x, press.y)) <= self._device.twice_within_mm:
            self._tell("the place was sent twice")
            return
        self._last = press
        if press.deed != "ignore":
            self.presses.append(press)

    def _tell(self, why: str) -> None:
        self.skipped += 1
        if len(self.told) < MOST_TOLD:
            self.told.append(SkippedLine(self._number, why))


def standing(presses: Iterable[Press]) -> list[Press]:
    """The presses without those that were taken back: `back` takes the last one away, whatever it was."""
    kept: list[Press] = []
    for press in presses:
        if press.deed != "back":
            kept.append(press)
        elif kept:
            kept.pop()
    return kept


def read(content: bytes, device: Device) -> Stream:
    """A whole stream that was kept in a file."""
    stream = Stream(device)
    stream.take(content)
    stream.end()
    return stream


def notes(told: Iterable[SkippedLine], skipped: int) -> tuple[str, ...]:
    """What was skipped, in sentences."""
    lines = tuple(f"Line {one.line} was skipped: {one.why}." for one in told)
    more = skipped - len(lines)
    return (*lines, f"And {more} more.") if more > 0 else lines
