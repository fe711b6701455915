"""The line to a plotter: a serial port, one over USB, or a place in the network. Reading and writing never wait long."""

from __future__ import annotations

import select
from typing import Protocol

import serial

from zesty_pivot.core.errors import FileError

LOST = (OSError, serial.SerialException)


class PlotterLine(Protocol):
    """Both ways of a line."""

    def read(self) -> bytes:
        """What the plotter said since it was asked last. Raises FileError when it is gone."""
        ...

    def write(self, content: bytes) -> int:
        """Sends; how many bytes the line took. Raises FileError when it is gone."""
        ...

    def close(self) -> None:
        """Lets go of the line."""
        ...


class SerialPlotterLine:
    """A port by its name (`/dev/ttyUSB0`), or a place in the network as `socket://host:9100`."""

    def __init__(self, name: str, speed: int = 9600) -> None:
        """`speed` in bits a second. Raises FileError where it cannot be opened."""
        self._name = name
        try:
            self._port = serial.serial_for_url(name, baudrate=speed, timeout=0, write_timeout=0)
        except (*LOST, ValueError) as fault:
            raise FileError(
                "no plotter answers there: it is off, or something else uses it, or you may not use it", where=name,
                advice="Switch it on, or ask for the right to use the port.",
            ) from fault  # fmt: skip

    def read(self) -> bytes:
        try:
            return bytes(self._port.read(4096))
        except (*LOST, ValueError) as fault:
            raise self._gone() from fault

    def write(self, content: bytes) -> int:
        try:
            # A full line is tried again later. It is asked first: the library would write to it for ever.
            if not select.select([], [self._port.fileno()], [], 0.0)[1]:
                return 0
            return int(self._port.write(content) or 0)
        except (*LOST, ValueError) as fault:
            raise self._gone() from fault

    def _gone(self) -> FileError:
        return FileError("the plotter is gone", where=self._name, advice="Switch it on and begin the plot again.")

    def close(self) -> None:
        self._port.close()
