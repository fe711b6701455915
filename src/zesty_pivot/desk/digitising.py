"""A block being traced with a digitiser: which one, what its line sent, what was pressed. The line is looked at by a timer
that runs only while one is open."""

from __future__ import annotations

import time
from pathlib import Path

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import digitiser_file
from zesty_pivot.core.formats.digitised import SUFFIX, DigitisedSource
from zesty_pivot.core.intake.digitiser import stream
from zesty_pivot.core.intake.digitiser.device import Device
from zesty_pivot.core.intake.digitiser.port import PortLine, Replay, SerialLine
from zesty_pivot.core.intake.digitiser.stream import Press, Stream
from zesty_pivot.core.record import record
from zesty_pivot.data.demo import TRACE, demo_trace
from zesty_pivot.data.digitisers import shipped
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.history import History
from zesty_pivot.desk.kept_work import KeptWork
from zesty_pivot.desk.model import DIGITISER, DeskModel

LOOK_MS = 40  # how often the line is looked at
KEPT_S = 0.5  # and how often what it sent is kept


@record(eq=False)
class Taken:
    """What the line sent so far, by which device, and what it is called."""

    device: Device
    raw: bytes = b""
    name: str = "Traced block"


class Digitising(QObject):
    """The trace on the table; what was pressed is worked out from what was sent."""

    changed = pyqtSignal()  # which digitiser, whether it runs, what was begun again
    came = pyqtSignal()  # places

    def __init__(self, model: DeskModel, kept: KeptWork) -> None:
        """`kept` holds the trace as it was left."""
        super().__init__()
        self._model, self._kept = model, kept
        self.devices: list[Device] = list(shipped())
        self.history: History[Taken] = History([self._left()])
        self.stream = stream.read(self.taken.raw, self.device)
        self._source: PortLine | None = None
        self._timer = QTimer(self)
        self._timer.setInterval(LOOK_MS)
        self._timer.timeout.connect(self.look)
        self._looked = 0.0
        self._kept_at = time.monotonic()

    def _left(self) -> Taken:
        """The trace as it was left, with how its digitiser talks; an empty one where nothing can be read of it."""
        device, _line, raw = self._kept.read().partition(b"\n")
        try:
            left = Taken(digitiser_file.from_text(device.decode("utf-8", "replace"), "the trace that was left"), raw)
        except FileError:
            return Taken(self.devices[0])
        if left.device not in self.devices:
            self.devices = [one for one in self.devices if one.id != left.device.id] + [left.device]
        return left

    def _keep(self) -> None:
        """Keeps the trace, with how its digitiser talks in a line before it."""
        self._kept.write(self.device.model_dump_json().encode() + b"\n" + self.taken.raw)
        self._kept_at = time.monotonic()

    # What is so.

    @property
    def taken(self) -> Taken:
        """What was sent."""
        return self.history.value

    @property
    def device(self) -> Device:
        """How the digitiser talks."""
        return self.taken.device

    @property
    def presses(self) -> list[Press]:
        """What was pressed."""
        return self.stream.presses

    @property
    def told(self) -> tuple[str, ...]:
        """What was wrong with the line, in sentences."""
        return stream.notes(self.stream.told, self.stream.skipped)

    @property
    def is_running(self) -> bool:
        """Whether a line is open."""
        return self._source is not None

    @property
    def replay(self) -> Replay | None:
        """The trace that is played."""
        return self._source if isinstance(self._source, Replay) else None

    # The line.

    def play_demo(self) -> None:
        """The simulated digitiser: a hand that traces the demo's block."""
        self.play(TRACE, demo_trace())

    def play(self, name: str, content: bytes) -> None:
        """A kept stream from its beginning, as fast as its line gave it. Raises FileError for one of no known device."""
        device = digitiser_file.likeliest(content, tuple(self.devices))
        self.stop()
        self._push(Taken(device, name=Path(name).stem), "the replay")
        self._run(Replay(content, device.speed))

    def open(self, port: str) -> None:
        """A serial port; what was traced before stays. Raises FileError where it cannot be opened."""
        self.stop()
        line = SerialLine(port, self.device)
        if self.taken.raw and not self.taken.raw.endswith(b"\n"):  # what was cut off is a line of its own
            self._take(b"\n")
        self._run(line)

    def _run(self, source: PortLine) -> None:
        self._source = source
        self._looked = time.monotonic()
        self._timer.start()
        self._model.set_view(DIGITISER)
        self.changed.emit()

    def stop(self) -> None:
        """Lets go of the line; what was pressed stays."""
        self._timer.stop()
        source, self._source = self._source, None
        if source is not None:
            source.close()
            self.stream.end()  # what waits is a last line, as when it is read again
            self._keep()
            self.changed.emit()

    @contained("the digitiser")
    def look(self) -> None:
        """Takes what has come on the line."""
        source, now = self._source, time.monotonic()
        if source is None:
            return
        try:
            self._take(source.read(now - self._looked))
        except ZestyError as lost:
            self.stop()
            self._model.say(str(lost), fault=True)
            return
        self._looked = now
        if source.is_over:
            self._end()

    def to_end(self) -> None:
        """The rest of a replay, at once."""
        replay = self.replay
        if replay is not None:
            self._take(replay.rest())
            self._end()

    def _take(self, portion: bytes) -> None:
        if portion:
            taken = self.taken
            self.history.values[self.history.at] = Taken(taken.device, taken.raw + portion, taken.name)
            self.stream.take(portion)
            if time.monotonic() - self._kept_at > KEPT_S:
                self._keep()
            self.came.emit()

    def _end(self) -> None:
        self.stop()
        self.came.emit()

    # What is said.

    def set_device(self, id: str) -> None:
        """Which digitiser; what was sent is read again as its."""
        device = next(one for one in self.devices if one.id == id)
        if device is not self.device:
            self.stop()
            self._push(Taken(device, self.taken.raw, self.taken.name), "the digitiser")

    def add_device(self, path: Path) -> None:
        """A digitiser from its file, chosen at once. Raises FileError."""
        device = digitiser_file.read(path)
        self.devices = [one for one in self.devices if one.id != device.id] + [device]
        self.set_device(device.id)

    def back(self) -> None:
        """Takes the last place that stands away: its line is taken out of what was sent."""
        lines = self.taken.raw.splitlines(keepends=True)
        stand: list[int] = []  # the lines of the places that stand; a press that takes one back may be the device's own
        for number, line in enumerate(lines):
            for press in stream.read(line, self.device).presses:
                if press.deed != "back":
                    stand.append(number)
                elif stand:
                    stand.pop()
        if stand:
            left = lines[: stand[-1]] + lines[stand[-1] + 1 :]
            self._push(Taken(self.device, b"".join(left), self.taken.name), "the last place")

    def begin_again(self) -> None:
        """An empty table."""
        self.stop()
        self._push(Taken(self.device), "what was traced")

    def undo(self, by: int) -> None:
        """Back or forth."""
        self.stop()
        if self.history.step(by):
            self._read_again()

    def _push(self, taken: Taken, title: str) -> None:
        self.history.push(taken, title)
        self._read_again()

    def _read_again(self) -> None:
        self._keep()
        self.stream = Stream(self.device)
        self.stream.take(self.taken.raw)
        if not self.is_running:
            self.stream.end()
        self.changed.emit()

    # What comes of it.

    def source(self) -> DigitisedSource:
        """What was pressed, to be tagged. Raises FileError where there is no outline yet."""
        found = DigitisedSource(f"{self.taken.name}{SUFFIX}", tuple(self.presses), self.told)
        found.traced()
        return found
