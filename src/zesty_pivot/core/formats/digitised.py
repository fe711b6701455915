"""A trace of a digitiser that a block comes in: what its line sent, kept as it came."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.formats import digitiser_file
from zesty_pivot.core.formats.brought_in import BroughtIn
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.digitiser import stream, traces
from zesty_pivot.core.intake.digitiser.device import Device
from zesty_pivot.core.intake.digitiser.stream import Press
from zesty_pivot.core.intake.traced import TracedPaper
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record

ALONG = ("corner", "curve", "line", "leg")
SUFFIX = ".ztrace"  # plain text: the lines as the digitiser sent them


@record(eq=False)
class DigitisedSource(BroughtIn):
    """Places as they were pressed, mm, with what was told of the line."""

    name: str
    presses: tuple[Press, ...]
    told: tuple[str, ...] = ()

    @cached_property
    def paper(self) -> TracedPaper:
        """The pieces that were pressed. Raises FileError where none has an outline."""
        return traces.traced(self.presses, self.told)

    def lines(self, _unit: str | None = None) -> tuple[Path, ...]:
        """The lines from place to place, as they were pressed."""
        paths: list[Path] = []
        run: list[tuple[float, float]] = []
        for press in (*stream.standing(self.presses), None):
            if press is not None and press.deed in ALONG:
                if not run or run[-1] != (press.x, press.y):
                    run.append((press.x, press.y))
                continue
            if len(run) > 1:
                paths.append(Path.straight(*run, *(run[:1] if press is not None and press.deed == "close" else ())))
            run = []
        return tuple(paths)

    def traced(self, _unit: str | None = None, _size: str = "") -> TracedPaper:
        """The pieces; raises FileError like `paper`."""
        return self.paper


def from_bytes(name: str, content: bytes, devices: Sequence[Device]) -> DigitisedSource:
    """A kept stream, read as that of the device it looks like. Raises FileError for what is the stream of none of them."""
    taken = stream.read(content, digitiser_file.likeliest(content, tuple(devices)))
    return DigitisedSource(name, tuple(taken.presses), stream.notes(taken.told, taken.skipped))


def is_stream(content: bytes, devices: Sequence[Device]) -> bool:
    """Whether a file's beginning reads as what one of the devices sends."""
    return digitiser_file.is_known(content, tuple(devices))
