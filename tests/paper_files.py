"""Paper blocks written as SVG, DXF and HP-GL by other hands than the program's: plain text, and ezdxf."""

from __future__ import annotations

import io
import random
from collections.abc import Sequence

import ezdxf
import numpy as np

from tests.paper_blocks import PaperPiece
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.bezier import are_straight


def lines_of(piece: PaperPiece, chance: random.Random | None = None) -> list[Path]:
    """The piece's lines: each segment of its outline by itself, shuffled and walked either way, and its fish-eyes."""
    outline = [Path(cubic[None]) for cubic in piece.outline.cubics]
    eyes = [Path(cubic[None]) for eye in piece.eyes for cubic in eye.cubics]
    if chance is None:
        return [piece.outline, *piece.eyes]
    found = [path.reversed() if chance.random() < 0.5 else path for path in (*outline, *eyes)]
    chance.shuffle(found)
    return found


def svg(pieces: Sequence[Sequence[Path]], unit: str = "mm", scale: float = 1.0) -> bytes:
    """An SVG; `scale` is how many mm a user unit is. Without a unit, width and height are plain numbers."""
    points = np.concatenate([path.cubics.reshape(-1, 2) for lines in pieces for path in lines]) / scale
    low, high = points.min(axis=0) - 10.0, points.max(axis=0) + 10.0
    wide, tall = high - low
    size = {"mm": (wide * scale, tall * scale), "in": (wide * scale / 25.4, tall * scale / 25.4), "": (wide, tall)}[unit]
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{size[0]:.6f}{unit}" height="{size[1]:.6f}{unit}" '
        f'viewBox="{low[0]:.6f} {low[1]:.6f} {wide:.6f} {tall:.6f}">'
    ]
    for number, lines in enumerate(pieces):
        parts.append(f'<g id="p{number}">')
        for path in lines:
            data = [f"M {path.start[0] / scale:.6f} {path.start[1] / scale:.6f}"]
            for cubic, straight in zip(path.cubics / scale, are_straight(path.cubics), strict=True):
                told = cubic[3:] if straight else cubic[1:]
                data.append(("L " if straight else "C ") + " ".join(f"{x:.6f},{y:.6f}" for x, y in told))
            parts.append(f'<path fill="none" stroke="black" d="{" ".join(data)}"/>')
        parts.append("</g>")
    parts.append("</svg>")
    return "\n".join(parts).encode()


def dxf(
    pieces: Sequence[Sequence[Path]], units: int = 4, scale: float = 1.0, version: str = "R2010", *, blocks: bool = False
) -> bytes:  # fmt: skip
    """A DXF by ezdxf, y up: straight segments as lines, curves as exact splines; each piece in a block of its own, if asked.
    `units` is $INSUNITS, 0 for none; `scale` how many mm a drawing unit is."""
    document = ezdxf.new(version)
    document.header["$INSUNITS"] = units
    space = document.modelspace()
    for number, lines in enumerate(pieces):
        home = document.blocks.new(f"PIECE{number}") if blocks else space
        for path in lines:
            for cubic, straight in zip(path.cubics / scale, are_straight(path.cubics), strict=True):
                flipped = [(float(x), -float(y)) for x, y in cubic]
                if straight:
                    home.add_line(flipped[0], flipped[3])
                else:
                    spline = home.add_open_spline(flipped, degree=3)
                    assert spline is not None
        if blocks:
            space.add_blockref(f"PIECE{number}", (0, 0))
    text = io.StringIO()
    document.write(text)
    return text.getvalue().encode()


def dxf_polylines(pieces: Sequence[Sequence[Path]], tolerance: float = 0.02) -> bytes:
    """An R12 file of polylines within a tolerance, with the line that says its unit."""
    document = ezdxf.new("R12")
    space = document.modelspace()
    for lines in pieces:
        for path in lines:
            space.add_polyline2d([(float(x), -float(y)) for x, y in path.flatten(tolerance)])
    space.add_text("Units: METRIC")
    text = io.StringIO()
    document.write(text)
    return text.getvalue().encode()


def hpgl(pieces: Sequence[Sequence[Path]], tolerance: float = 0.02) -> bytes:
    """HP-GL in plotter units of 1/40 mm, y up."""
    parts = ["IN;SP1;"]
    for lines in pieces:
        for path in lines:
            points = [(round(float(x) * 40.0), round(-float(y) * 40.0)) for x, y in path.flatten(tolerance)]
            parts.append(f"PU{points[0][0]},{points[0][1]};")
            parts.append("PD" + ",".join(f"{x},{y}" for x, y in points[1:]) + ";")
    parts.append("PU0,0;SP0;")
    return "".join(parts).encode()
