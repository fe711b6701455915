"""The simulated plotter at the end of a line: a pseudo-terminal that programs open as a serial port, a socket, or the program
itself."""

from __future__ import annotations

import contextlib
import os
import socket
import tty
from abc import ABC, abstractmethod

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.plotter.simulator import SimulatedPlotter, Trouble

_AT_ONCE = 4096  # bytes


class _Served(ABC):
    """Moves bytes between a line and the plotter, which draws meanwhile. A line that `waits` holds what finds no room, as a
    network does; on any other it is lost."""

    waits = False

    def __init__(self, plotter: SimulatedPlotter) -> None:
        self.plotter = plotter

    def pump(self, seconds: float) -> None:
        """What came, what is answered, and so much time of drawing. Once it has said stop, it takes no more than it has room
        for: what lies on the line waits there, as a terminal holds more than a wire."""
        if self.plotter.trouble is not Trouble.OFF:
            most = min(_AT_ONCE, self.plotter.room) if self.waits or self.plotter.is_full else _AT_ONCE
            if most:
                self.plotter.take(self._read(most))
            self.plotter.run(seconds)
            said = self.plotter.answers()
            if said:
                self._write(said)

    @abstractmethod
    def _read(self, most: int) -> bytes:
        """What came on the line, at most so many bytes; nothing where nothing came."""

    @abstractmethod
    def _write(self, content: bytes) -> None:
        """Sends an answer; one that nobody takes is lost."""


class PtyPlotter(_Served):
    """On a pseudo-terminal; `name` is what a program opens as its serial port."""

    def __init__(self, plotter: SimulatedPlotter) -> None:
        super().__init__(plotter)
        self._own, self._theirs = os.openpty()
        tty.setraw(self._theirs)
        os.set_blocking(self._own, False)
        self.name = os.ttyname(self._theirs)

    def _read(self, most: int) -> bytes:
        try:
            return os.read(self._own, most)
        except OSError:
            return b""

    def _write(self, content: bytes) -> None:
        with contextlib.suppress(OSError):
            os.write(self._own, content)

    def close(self) -> None:
        """Takes the terminal away."""
        for end in (self._own, self._theirs):
            with contextlib.suppress(OSError):
                os.close(end)


class SocketPlotter(_Served):
    """In the network, one program at a time; `name` is what is opened (`socket://host:port`)."""

    waits = True

    def __init__(self, plotter: SimulatedPlotter, port: int = 0, host: str = "127.0.0.1") -> None:
        """`port` 0 takes any that is free. Raises FileError where it cannot listen there."""
        super().__init__(plotter)
        taken = FileError("nothing can listen there", where=f"{host}:{port}", advice="Take another port, or 0 for a free one.")
        if not 0 <= port <= 65535:
            raise taken
        try:
            self._listener = socket.create_server((host, port))
        except OSError as fault:
            raise taken from fault
        self._listener.setblocking(False)
        self.name = f"socket://{host}:{self._listener.getsockname()[1]}"
        self._guest: socket.socket | None = None

    def _read(self, most: int) -> bytes:
        if self._guest is None:
            try:
                self._guest, _address = self._listener.accept()
                self._guest.setblocking(False)
            except OSError:
                return b""
        try:
            content = self._guest.recv(most)
        except BlockingIOError:
            return b""
        except OSError:
            content = b""
        if not content:
            self._leave()
        return content

    def _write(self, content: bytes) -> None:
        if self._guest is not None:
            try:
                self._guest.sendall(content)
            except OSError:
                self._leave()

    def _leave(self) -> None:
        if self._guest is not None:
            self._guest.close()
            self._guest = None

    def close(self) -> None:
        """Listens no more."""
        self._leave()
        self._listener.close()


class DirectLine:
    """A line from the sender to a simulated plotter in the same program."""

    def __init__(self, plotter: SimulatedPlotter) -> None:
        self._plotter = plotter

    def read(self) -> bytes:
        """What the plotter said."""
        if self._plotter.trouble is Trouble.OFF:
            raise FileError("the plotter is gone", where="simulated", advice="Switch it on and begin the plot again.")
        return self._plotter.answers()

    def write(self, content: bytes) -> int:
        """Sends to it."""
        if self._plotter.trouble is Trouble.OFF:
            raise FileError("the plotter is gone", where="simulated", advice="Switch it on and begin the plot again.")
        self._plotter.take(content)
        return len(content)

    def close(self) -> None:
        """There is nothing to let go of."""
