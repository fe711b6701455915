"""How much a low or wide neckline is likely to stand off the body."""

from __future__ import annotations

from zesty_pivot.core.piece import Piece

# 0.5 to 1.5 cm are taken out: common practice, no source. How it grows with depth and width is our own choice.
LEAST, MOST = 5.0, 15.0
FROM = 0.3  # share of the way to the bust line, or of the shoulder, from which an edge gapes
WIDTH_COUNTS = 0.8


def lowest(piece: Piece) -> float | None:
    """The height (y, mm) of the lowest point of the neckline, on the part that lies with the centre: beyond an open mouth the
    paper has been swung away."""
    found: float | None = None
    for run in piece.runs:
        if piece.role(run.edge) != "neckline":
            continue
        low = float(run.path.outline[:, 1].max())
        found = low if found is None else max(found, low)
        if run.mouth is not None and not piece.is_unfolded:
            break
    return found


def taken(piece: Piece, drafted: Piece) -> float | None:
    """How much of the block's shoulder a neckline takes, as a share of its sewn length; None where the shoulder is not the
    block's any more."""
    known = next((run.source.edge for run in drafted.runs if drafted.role(run.edge) == "shoulder"), None)
    runs = [run for run in piece.runs if piece.role(run.edge) == "shoulder"]
    if known is None or not runs or any(run.source.edge != known for run in runs):
        return None
    return min(min(run.source.u0, run.source.u1) for run in runs)


def shares(piece: Piece, drafted: Piece) -> tuple[float, float]:
    """How far a neckline goes down, as a share of the way from the block's to the bust line, and out, as a share of the
    block's shoulder; 0 where it cannot be told."""
    low, nape = lowest(piece), lowest(drafted)
    if low is None or nape is None or "bust" not in drafted.levels:
        return 0.0, 0.0
    return (low - nape) / max(drafted.levels["bust"] - nape, 1.0), taken(piece, drafted) or 0.0


def suggested(piece: Piece, drafted: Piece) -> float:
    """How much (mm) to take out of a half's neckline; nothing for a high and narrow one."""
    down, out = shares(piece, drafted)
    share = max(down, out * WIDTH_COUNTS)
    if share < FROM:
        return 0.0
    return LEAST + (MOST - LEAST) * min(1.0, (share - FROM) / (1.0 - FROM))
