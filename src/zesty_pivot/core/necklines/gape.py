"""How much a low or wide neckline is likely to stand off the body."""

from __future__ import annotations

from zesty_pivot.core.piece import Piece

# 0.5 to 1.5 cm are taken out: common practice, no source. How it grows with depth and width is our own choice.
LEAST, MOST = 5.0, 15.0
FROM = 0.3  # share of the way to the bust line, or of the shoulder, from which an edge gapes
WIDTH_COUNTS = 0.8


def shares(piece: Piece, drafted: Piece) -> tuple[float, float]:
    """How far a half's neckline goes down, as a share of the way from the block's to the bust line, and out, as a share of the
    block's shoulder; 0 where it cannot be told."""
    necks = [run for run in piece.runs if piece.role(run.edge) == "neckline"]
    block = [run for run in drafted.runs if drafted.role(run.edge) == "neckline"]
    tips = [run for run in drafted.runs if drafted.role(run.edge) == "shoulder"]
    if not necks or not block or not tips or "bust" not in drafted.levels:
        return 0.0, 0.0
    nape, lowest = float(block[0].path.start[1]), max(float(run.path.outline[:, 1].max()) for run in necks)
    down = (lowest - nape) / max(drafted.levels["bust"] - nape, 1.0)
    out = max(float(abs(run.path.outline[:, 0]).max()) for run in necks)
    inner, tip = float(block[-1].path.end[0]), float(tips[-1].path.end[0])
    return down, (out - inner) / max(tip - inner, 1.0)


def suggested(piece: Piece, drafted: Piece) -> float:
    """How much (mm) to take out of a half's neckline; nothing for a high and narrow one."""
    down, out = shares(piece, drafted)
    share = max(down, out * WIDTH_COUNTS)
    if share < FROM:
        return 0.0
    return LEAST + (MOST - LEAST) * min(1.0, (share - FROM) / (1.0 - FROM))
