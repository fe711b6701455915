"""Where a digitiser's bytes come from: a serial port, or a stream that is played. Reading never waits."""

from __future__ import annotations

from typing import Protocol

import serial
from serial.tools import list_ports

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.intake.digitiser.device import Device
from zesty_pivot.core.record import record

LOST = (OSError, serial.SerialException)
BITS = 10.0  # on the line for a byte: eight, a start and a stop


class PortLine(Protocol):
    """Gives what has come since it was asked last."""

    def read(self, seconds: float) -> bytes:
        """The bytes that came; `seconds` have passed since the last time. Raises FileError when the line is lost."""
        ...

    @property
    def is_over(self) -> bool:
        """Whether nothing more can come."""
        ...

    def close(self) -> None:
        """Lets go of the line."""
        ...


class Replay:
    """A kept stream as its line gave it: so many bits a second."""

    def __init__(self, content: bytes, speed: float) -> None:
        """`speed` in bits a second."""
        self._content, self._speed = content, speed
        self._at, self._due = 0, 0.0

    def read(self, seconds: float) -> bytes:
        """What the line would have given in so many seconds."""
        self._due = min(self._due + seconds * self._speed / BITS, float(len(self._content)))
        part = self._content[self._at : int(self._due)]
        self._at = int(self._due)
        return part

    def rest(self) -> bytes:
        """All that is left, at once."""
        self._due = float(len(self._content))
        return self.read(0.0)

    @property
    def share(self) -> float:
        """How much of it has come, 0 to 1."""
        return self._at / max(len(self._content), 1)

    @property
    def is_over(self) -> bool:
        """Whether all of it has come."""
        return self._at >= len(self._content)

    def close(self) -> None:
        """There is nothing to let go of."""


@record
class FoundPort:
    """A serial port of this machine: how it is opened and what it is called."""

    name: str
    title: str


def ports() -> list[FoundPort]:
    """The serial ports that are there."""
    found = sorted(list_ports.comports(), key=lambda port: str(port.device))
    return [FoundPort(str(port.device), " ".join(f"{port.device} {port.description or ''}".split())) for port in found]


class SerialLine:
    """A serial port that is open. Eight bits, no parity, one stop bit, as digitisers are set by habit."""

    def __init__(self, name: str, device: Device) -> None:
        """Raises FileError where the port cannot be opened."""
        self._name = name
        try:
            self._port = serial.serial_for_url(name, baudrate=device.speed, timeout=0)
        except (*LOST, ValueError) as fault:
            why = "it is not there, or something else uses it, or you may not use it"
            raise FileError(why, where=name, advice="Plug it in, or ask for the right to use serial ports.") from fault

    def read(self, _seconds: float) -> bytes:
        """What waits on the line. Raises FileError when the port is gone."""
        try:
            return bytes(self._port.read(65536))
        except LOST as fault:
            raise FileError(
                "the digitiser is gone", where=self._name, advice="Plug it in and go on: what was traced is kept."
            ) from fault

    @property
    def is_over(self) -> bool:
        """A line stays open until it is let go of."""
        return False

    def close(self) -> None:
        """Lets go of the port."""
        self._port.close()
