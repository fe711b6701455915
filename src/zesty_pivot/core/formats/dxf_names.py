"""Names of blocks in a DXF: what every reader takes, R12's too."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Sequence

LONGEST = 31  # characters of a name, R12


def block_names(pieces: Sequence[str], size: str) -> list[str]:
    """A name for each piece, with its size: capitals, digits and underscores, no two alike."""
    found: list[str] = []
    for piece in pieces:
        stem = _plain(f"{piece} {size}" if size else piece) or "PIECE"
        name, number = stem[:LONGEST], 2
        while name in found:
            name = f"{stem[: LONGEST - len(str(number)) - 1]}_{number}"
            number += 1
        found.append(name)
    return found


def _plain(text: str) -> str:
    """Latin letters without accents; what no reader knows is left out."""
    flat = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    return re.sub(r"[^A-Z0-9]+", "_", flat.upper()).strip("_")
