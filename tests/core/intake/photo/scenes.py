"""The demo's block on a table, to be photographed: darts cut out, or their legs drawn; notches, a grain line."""

from __future__ import annotations

import math

import numpy as np

from tests.paper_blocks import Lay, PaperPiece, on_paper
from tests.photographed import OnTable
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.geometry import Path

NOTCHED = {"side_seam": 0.45, "armhole": 0.55}  # by edge: where it is notched


def scene(
    block: BlockFile, *, drawn: bool = False, notched: tuple[str, ...] = ("side_seam",)
) -> list[tuple[PaperPiece, OnTable]]:
    """Front and back side by side within the frame. `drawn` leaves the paper in the darts' mouths and draws their legs."""
    found = []
    for number, (model, piece) in enumerate(zip(block.pieces, block_file.pattern(block).pieces, strict=True)):
        laid = on_paper(model, piece, Lay(np.eye(2), np.array([75.0 + (300.0 if number == 0 else 5.0), 100.0])))
        outline = laid.outline
        at = laid.corners["centre_neck"]
        lines = [(at + np.array([30.0, 60.0]), at + np.array([30.0, 300.0]))]
        if drawn:
            cubics = list(outline.cubics)
            for first, last, point in laid.darts.values():
                here = next(
                    k for k, one in enumerate(cubics) if math.dist(one[0], first) < 1e-6 and math.dist(one[3], point) < 1e-6
                )
                cubics[here : here + 2] = [Path.straight(first, last).cubics[0]]
                lines += [(first, point), (last, point)]
            outline = Path(np.stack(cubics))
        notches = []
        for edge in notched:
            run = next(run for run in piece.runs if run.edge == edge).path
            where = run.length * NOTCHED[edge]
            along = run.direction_at(where)
            notches.append((laid.lay(run.point_at(where)), np.array([-along[1], along[0]])))
        found.append((laid, OnTable(outline.flatten(0.02)[:-1], tuple(lines), tuple(notches))))
    return found
