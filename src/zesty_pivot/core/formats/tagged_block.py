"""Tagged pieces as a block file."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

import numpy as np
from pydantic import ValidationError

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, files
from zesty_pivot.core.formats.block_file import BlockDart, BlockEdge, BlockFile, BlockFishEye, BlockPiece
from zesty_pivot.core.geometry import Path, svgpath
from zesty_pivot.core.intake.placing import Tagged
from zesty_pivot.core.intake.roles import ROLES
from zesty_pivot.core.intake.tagging import Tagging
from zesty_pivot.core.piece.names import EDGE_ENDS, HIP_ENDS

Coordinate = tuple[float, float]


def block_of(tagging: Tagging, name: str = "", measurements: Mapping[str, float] | None = None) -> BlockFile:
    """The block of an import's pieces, the front first; `measurements` in mm.

    Raises FileError where they make no sound block, with what is wrong and where.
    """
    pieces = sorted(tagging.pieces.values(), key=lambda piece: piece.name != "front")
    if len({piece.name for piece in pieces}) < len(pieces):
        other = "back" if pieces[0].name == "front" else "front"
        raise FileError(f"both pieces are taken for the {pieces[0].name}", advice=f"Say which of them is the {other}.")
    try:
        block = BlockFile(
            name=(name or "Imported block")[:200],
            measurements=dict(measurements or {}),
            pieces=tuple(_piece(piece) for piece in pieces),
        )
    except ValidationError as fault:
        raise FileError(f"it makes no block: {files.faults(fault)}", advice="Look at the unit and the corners.") from None
    block_file.pattern(block)
    return block


def _piece(tagged: Tagged) -> BlockPiece:
    ends = HIP_ENDS if tagged.is_hip else EDGE_ENDS

    def called(role: str) -> str:
        return "hem" if role == "waist" and tagged.is_hip else role

    edges = tagged.seen.edges
    return BlockPiece(
        name=tagged.name, body=tagged.body, fold="centre" if tagged.is_on_fold else None,
        landmarks={**{ends[called(role)][0]: _at(edges[role].runs[0].start) for role in ROLES}, **tagged.inside},
        levels={name: round(mm, 6) for name, mm in tagged.levels.items()},
        edges=tuple(BlockEdge(id=called(role), role=called(role), path=_path_data(edges[role].runs)) for role in ROLES),
        darts=tuple(
            BlockDart(
                id=dart.id, edge=called(dart.role), mouth=(_at(dart.cut.mouth[0]), _at(dart.cut.mouth[1])),
                point=_at(dart.cut.point), pivot=dart.pivot,
            )
            for dart in tagged.darts
        ),
        fisheyes=tuple(_eye(number, eye.corners) for number, eye in enumerate(tagged.eyes)), grain=tagged.grain,
    )  # fmt: skip


def _eye(number: int, corners: Iterable[np.ndarray]) -> BlockFishEye:
    """A fish-eye: its ends are the corners first and third, the higher one its top."""
    a, right, b, left = corners
    top, bottom = (a, b) if a[1] < b[1] else (b, a)
    id = "waist" if number == 0 else f"waist-{number + 1}"
    return BlockFishEye(id=id, top=_at(top), waist=(_at(left), _at(right)), bottom=_at(bottom))


def _path_data(runs: Iterable[Path]) -> str:
    return svgpath.write(runs)


def _at(point: np.ndarray) -> Coordinate:
    return round(float(point[0]), 6) + 0.0, round(float(point[1]), 6) + 0.0
