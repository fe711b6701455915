"""SVG path data, M L H V C Z and their relatives, to paths and back. Absolute on the way out."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.geometry.path import Path

Array = NDArray[np.float64]

_TOKEN = re.compile(r"[\s,]*(?:(?P<command>[A-Za-z])|(?P<number>[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?))")
_TAKES = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "Z": 0}


def read(text: str) -> list[Path]:
    """The subpaths of SVG path data in mm.

    Raises GeometryError for an unknown command, a missing number, or a subpath without a segment.
    """
    subpaths: list[list[Array]] = []
    here = begin = np.zeros(2)
    for command, numbers in _commands(text):
        kind, relative = command.upper(), command.islower()
        base = here if relative else np.zeros(2)
        if kind == "M":
            subpaths.append([])
            here = begin = base + numbers
            continue
        if not subpaths:
            raise GeometryError("path data that does not begin with M")
        if kind == "Z":
            if np.abs(here - begin).max() > 0.0:
                subpaths[-1].append(bezier.line(here, begin))
            here = begin
            continue
        cubic = _segment(kind, numbers, here, base)
        subpaths[-1].append(cubic)
        here = cubic[3]
    if not subpaths or any(not parts for parts in subpaths):
        raise GeometryError("path data with a subpath that draws nothing")
    return [Path(np.stack(parts)) for parts in subpaths]


def _segment(kind: str, numbers: Array, here: Array, base: Array) -> Array:
    if kind == "L":
        return bezier.line(here, base + numbers)
    if kind == "H":
        return bezier.line(here, np.array([base[0] + numbers[0], here[1]]))
    if kind == "V":
        return bezier.line(here, np.array([here[0], base[1] + numbers[0]]))
    return np.vstack([here, base + numbers.reshape(3, 2)])


def _commands(text: str) -> Iterable[tuple[str, Array]]:
    found: list[tuple[str, list[float]]] = []
    at = 0
    end = len(text.rstrip(" \t\r\n,"))
    while at < end:
        match = _TOKEN.match(text, at)
        if match is None:
            raise GeometryError(f"path data that cannot be read at {text[at:].strip()[:12]!r}")
        at = match.end()
        if match["command"]:
            if match["command"].upper() not in _TAKES:
                raise GeometryError(f"path command {match['command']!r}", advice="Use M, L, H, V, C and Z.")
            found.append((match["command"], []))
        elif found:
            value = float(match["number"])
            if not math.isfinite(value):
                raise GeometryError(f"path data with the number {match['number']}", advice="Every number must be finite.")
            found[-1][1].append(value)
        else:
            raise GeometryError("path data that does not begin with M")
    for command, numbers in found:
        yield from _repeated(command, numbers)


def _repeated(command: str, numbers: list[float]) -> Iterable[tuple[str, Array]]:
    """Numbers beyond the first set repeat the command; after M they are lines."""
    takes = _TAKES[command.upper()]
    if takes == 0 and not numbers:
        yield command, np.zeros(0)
        return
    if takes == 0 or not numbers or len(numbers) % takes:
        raise GeometryError(f"path command {command!r} with {len(numbers)} numbers, not a multiple of {takes}")
    for start in range(0, len(numbers), takes):
        yield command, np.array(numbers[start : start + takes])
        if command in "Mm":
            command = "L" if command == "M" else "l"


def write(paths: Iterable[Path], decimals: int = 6) -> str:
    """Absolute SVG path data in mm, a subpath for each path; plain lines as L, curves as C."""
    return " ".join(_written(path, decimals) for path in paths)


def _written(path: Path, decimals: int) -> str:
    words = [f"M {_point(path.start.tolist(), decimals)}"]
    for cubic, straight in zip(path.cubics.tolist(), bezier.are_straight(path.cubics).tolist(), strict=True):
        if straight:
            words.append(f"L {_point(cubic[3], decimals)}")
        else:
            words.append("C " + " ".join(_point(point, decimals) for point in cubic[1:]))
    return " ".join(words)


def _point(point: list[float], decimals: int) -> str:
    return f"{_number(point[0], decimals)} {_number(point[1], decimals)}"


def _number(value: float, decimals: int) -> str:
    text = f"{value:.{decimals}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text
