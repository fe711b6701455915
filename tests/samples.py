"""Blocks, recipes and hypothesis strategies that tests share."""

from __future__ import annotations

import copy
import functools
import json
import re
from importlib.resources import files
from pathlib import Path
from typing import Any

import numpy as np
from hypothesis import strategies as st

from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.spot import ALL_STATIONS
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation, Evaluator
from zesty_pivot.core.steps import registry

DATA = Path(__file__).parent / "data"
REAL_BLOCK = DATA / "two-dart-93.zblock"
FRONT_STATIONS = ALL_STATIONS


@functools.lru_cache(maxsize=1)
def _real_text() -> str:
    return REAL_BLOCK.read_text(encoding="utf-8")


def real_value() -> dict[str, Any]:
    """The real block's JSON, to change at will."""
    value: dict[str, Any] = json.loads(_real_text())
    return value


@functools.lru_cache(maxsize=1)
def real_block() -> BlockFile:
    """The real block."""
    return block_file.from_value(real_value(), "two-dart-93.zblock")


@functools.lru_cache(maxsize=1)
def _hip_text() -> str:
    return (files("zesty_pivot.data.demo") / "quillmere-hip.zblock").read_text(encoding="utf-8")


def hip_value() -> dict[str, Any]:
    """The demo's hip-length block as JSON, to change at will."""
    value: dict[str, Any] = json.loads(_hip_text())
    return value


@functools.lru_cache(maxsize=1)
def hip_block() -> BlockFile:
    """The demo's hip-length block."""
    return block_file.from_value(hip_value(), "hip")


def hip_pattern() -> Pattern:
    """Its pattern."""
    return block_file.pattern(hip_block())


def real_pattern() -> Pattern:
    """The real block's pattern."""
    return block_file.pattern(real_block())


def scaled_value(x: float, y: float) -> dict[str, Any]:
    """The real block stretched by x and y, rounded as files are."""
    return stretched_value(copy.deepcopy(real_value()), x, y)


def stretched_value(value: dict[str, Any], x: float, y: float) -> dict[str, Any]:
    """A block's JSON stretched by x and y; the value itself is changed."""

    def at(point: list[float]) -> list[float]:
        return [round(point[0] * x, 6), round(point[1] * y, 6)]

    for piece in value["pieces"]:
        piece["landmarks"] = {name: at(point) for name, point in piece["landmarks"].items()}
        piece["levels"] = {name: level * y for name, level in piece["levels"].items()}
        piece["grain"] = [at(point) for point in piece["grain"]]
        for edge in piece["edges"]:
            numbers = iter(range(10_000))
            edge["path"] = re.sub(
                r"-?\d+(?:\.\d+)?",
                lambda m, n=numbers: f"{float(m[0]) * (x if next(n) % 2 == 0 else y):.6f}",
                edge["path"],
            )
        for dart in piece["darts"]:
            dart["mouth"], dart["point"] = [at(point) for point in dart["mouth"]], at(dart["point"])
    return value


def scaled(x: float, y: float) -> Pattern:
    """The pattern of the stretched block."""
    return block_file.pattern(block_file.from_value(scaled_value(x, y), "scaled"))


def style(steps: list[dict[str, Any]], block: BlockFile | None = None, **more: Any) -> Style:
    """A style over the real block."""
    return Style(name="Test", block=block or real_block(), steps=tuple(registry.read(step) for step in steps), **more)


def worked(steps: list[dict[str, Any]], block: Pattern | None = None) -> Derivation:
    """A recipe worked out over a block; broken steps fail the test that asked."""
    found = Evaluator().evaluate(
        block or real_pattern(), [registry.read(step) for step in steps], Scope("cm", real_block().measurements)
    )
    assert not found.broken, found.broken
    return found


def move(dart: str, station: str, share: str = "100%", on: str = "front") -> dict[str, Any]:
    """A dart.move to a station."""
    return {"do": "dart.move", "on": on, "dart": dart, "to": {"station": station}, "share": share}


def written(steps: list[dict[str, Any]], folder: Path, **more: Any) -> Path:
    """A style file over the real block."""
    path = folder / "style.zpiv"
    path.write_bytes(style_file.dump(style(steps, **more)))
    return path


def walked(piece: Piece, count: int = 40, edges: tuple[str, ...] | None = None) -> np.ndarray:
    """Points along the runs of a piece in order, `count` on each edge's sewn length, (n, 2) mm."""
    points = []
    for edge in piece.edges if edges is None else [piece.edge(id) for id in edges]:
        for share in np.linspace(0.0, 1.0, count):
            distance = share * edge.sewn_length
            for run in edge.runs:
                if distance <= run.path.length + 1e-7 or run is edge.runs[-1]:
                    points.append(run.path.point_at(distance))
                    break
                distance -= run.path.length
    return np.array(points)


finite = st.floats(-500.0, 500.0, allow_nan=False, allow_infinity=False, width=64)
cubics = st.lists(st.tuples(finite, finite), min_size=4, max_size=4).map(lambda points: np.array(points, dtype=float))
stretches = st.tuples(st.floats(0.75, 1.4), st.floats(0.75, 1.4))

# Places on a front that a slash from the bust point reaches on every stretched block.
spots = st.one_of(
    st.sampled_from(["centre_bust", "mid_neck", "mid_shoulder", "side_bust", "french", "mid_armhole"]).map(
        lambda name: {"station": name}
    ),
    st.tuples(st.sampled_from(["shoulder", "side_seam", "neckline"]), st.integers(5, 95)).map(
        lambda pair: {"edge": pair[0], "at": f"{pair[1]}%"}
    ),
)
chains = st.lists(st.tuples(spots, st.integers(5, 100), st.integers(0, 99)), min_size=12, max_size=12)
