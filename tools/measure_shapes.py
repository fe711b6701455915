"""Measures how edges and corners of bodice halves usually look, on drafts of random people, and writes core/intake/figures.py.

The people and drafts are not those that the tests look at. Run it when a drafting method is added: `python -m
tools.measure_shapes`.
"""

from __future__ import annotations

import math
import random
from pathlib import Path

import numpy as np
from tests.paper_blocks import Lay, PaperPiece, pieces_of
from tests.random_blocks import random_block

from zesty_pivot.core.intake.corners import shaped
from zesty_pivot.core.intake.parts import taken_apart
from zesty_pivot.core.intake.roles import span_figures
from zesty_pivot.core.piece.names import ends_of

COUNT, FIRST = 1800, 1_000_000
STRETCH = 0.12
# No figure is trusted more closely than this: shares of the outline and of a chord, degrees. Other rooms draft otherwise.
LEAST_SHARE, LEAST_BOW, LEAST_TURN, WIDER = 0.022, 0.03, 9.0, 1.3
TARGET = Path(__file__).parents[1] / "src/zesty_pivot/core/intake/figures.py"
LANDMARKS = ("centre_neck", "neck_point", "shoulder_tip", "underarm", "side_waist", "centre_waist")
ROLES = ("neckline", "shoulder", "armhole", "side_seam", "waist", "centre")


def kind_of(piece: PaperPiece) -> str:
    return f"{piece.name}{' to the hip' if piece.is_hip else ''}"


def figures(piece: PaperPiece) -> tuple[list[tuple[float, ...]], list[float]] | None:
    """The figures of a piece's six edges and corners, or None where its corners are not all found."""
    parts = taken_apart(shaped(piece.outline))
    names = [ends_of(piece.roles)[role][0] for role in piece.roles]
    at = [min(range(len(parts.corners)), key=lambda k: math.dist(parts.corners[k].at, piece.corners[name])) for name in names]
    if any(math.dist(parts.corners[k].at, piece.corners[name]) > 0.01 for k, name in zip(at, names, strict=True)):
        return None
    edges = [span_figures(parts.between(one, two), parts.length) for one, two in zip(at, [*at[1:], at[0]], strict=True)]
    return edges, [math.degrees(parts.corners[k].turn) for k in at]


def main() -> None:
    """Draws, measures, writes."""
    found: dict[str, list[tuple[list[tuple[float, ...]], list[float]]]] = {}
    for seed in range(FIRST, FIRST + COUNT):
        chance = random.Random(seed)
        block = random_block(seed)
        stretch = Lay(np.diag([1.0 + chance.uniform(-STRETCH, STRETCH), 1.0 + chance.uniform(-STRETCH, STRETCH)]), np.zeros(2))
        for piece in pieces_of(block, stretch, to_pivot=chance.random() < 0.3):
            told = figures(piece)
            if told is not None:
                found.setdefault(kind_of(piece), []).append(told)
    lines = [
        '"""How edges and corners of bodice halves usually look: means and spreads over drafts of random people.',
        "",
        f"Written by `python -m tools.measure_shapes` from {COUNT} drafts by the program's methods, stretched by up to",
        f"{STRETCH:.0%}. An edge: share of the outline's sewn length, how far it bows inwards and outwards in shares of its",
        "chord. A corner: its turn in degrees. No source outside.",
        '"""',
        "",
        "from __future__ import annotations",
        "",
        f"KINDS = {tuple(sorted(found))!r}".replace("'", '"'),
        "",
        "EDGES: dict[str, dict[str, tuple[tuple[float, float], ...]]] = {",
    ]
    for kind in sorted(found):
        lines.append(f'    "{kind}": {{')
        edges = np.array([edges for edges, _turns in found[kind]])
        for k, role in enumerate(ROLES):
            values = []
            for column, least in enumerate((LEAST_SHARE, LEAST_BOW, LEAST_BOW)):
                mean, spread = edges[:, k, column].mean(), max(least, WIDER * edges[:, k, column].std())
                values.append(f"({mean:.4f}, {spread:.4f})")
            lines.append(f'        "{role}": ({", ".join(values)}),')
        lines.append("    },")
    lines += ["}", "", "CORNERS: dict[str, dict[str, tuple[float, float]]] = {"]
    for kind in sorted(found):
        lines.append(f'    "{kind}": {{')
        turns = np.array([turns for _edges, turns in found[kind]])
        for k, name in enumerate(LANDMARKS):
            lines.append(f'        "{name}": ({turns[:, k].mean():.2f}, {max(LEAST_TURN, WIDER * turns[:, k].std()):.2f}),')
        lines.append("    },")
    lines += ["}", ""]
    TARGET.write_text("\n".join(lines), encoding="utf-8")
    print({kind: len(pieces) for kind, pieces in found.items()})


if __name__ == "__main__":
    main()
