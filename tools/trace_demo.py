"""Traces the demo's block with the simulated hand and keeps what the digitiser of tenths sends. Run: `python -m
tools.trace_demo`."""

from __future__ import annotations

from tools.make_demo import OUT
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.intake.digitiser.simulator import Hand, presses, sent
from zesty_pivot.data.demo import TRACE, demo_style
from zesty_pivot.data.digitisers import shipped


def main() -> None:
    """Front and back beside each other, a notch at each side seam, with one press too many that is taken back."""
    marks = []
    for number, piece in enumerate(block_file.pattern(demo_style().block).pieces):
        at = (120.0 + 560.0 * number, 90.0)
        traced = presses(piece, at, Hand(seed=29 + number))
        side = next(run.path for run in piece.runs if run.edge == "side_seam")
        x, y = side.point_at(0.45 * side.length)
        notch = traced[-1].__class__(float(x) + at[0], float(y) + at[1], "notch")
        wrong = traced[40].__class__(traced[40].x + 30.0, traced[40].y + 14.0, "curve")
        marks += [*traced[:40], wrong, wrong.__class__(0.0, 0.0, "back"), *traced[40:-1], notch, traced[-1]]
    (OUT / TRACE).write_bytes(sent(marks, shipped()[0]))


if __name__ == "__main__":
    main()
