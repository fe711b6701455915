"""A draft on paper: drawn at 1:1, 1:2 or 1:4, and as a numbered instruction to draw by hand, with the fraction table."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

import numpy as np

from zesty_pivot.core.drafting.draft import CENTRES, Draft
from zesty_pivot.core.drafting.layout import Item, laid_out
from zesty_pivot.core.finish.marks import Circle, Text
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke
from zesty_pivot.core.finish.sheet import Laid, Sheet
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.measure.fractions import PARTS, fraction_table, told
from zesty_pivot.core.procedures.hand import Line
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.recipe.hand import Section

SCALES: Mapping[str, float] = {"1:1": 1.0, "1:2": 0.5, "1:4": 0.25}
DOT, NUMBER = 0.8, 3.0  # mm: a point's circle and its number, at every scale
MARGIN = 12.0  # mm round the draft


def draft_sheet(drawn: Draft, scale: float = 1.0) -> Sheet:
    """The whole draft on one sheet at a scale: guides thin, seams and dart legs as seams, points with their numbers."""
    layout = laid_out(drawn)
    shift = np.array([layout.left, layout.top])

    def path(item: Item) -> tuple[Path, ...]:
        return () if item.path is None else (Path((item.path.cubics + shift) * scale),)

    lines = [item for item in layout.items if item.path is not None]
    strokes = tuple(Stroke("marks", _look(item), item.done.name, path(item)) for item in lines)
    points = [(item, (item.at + shift) * scale) for item in layout.items if item.at is not None]
    circles = tuple(Circle((float(at[0]), float(at[1])), DOT, item.done.name) for item, at in points)
    texts = tuple(_numbers([(item.label, (float(at[0]), float(at[1]))) for item, at in points if item.label]))
    wide, high = layout.width * scale, layout.height * scale
    ring = np.array([[0.0, 0.0], [wide, 0.0], [wide, high], [0.0, high]])
    piece = FinishedPiece(drawn.method.title, "", strokes, circles, texts, (), (), ring)
    return Sheet(wide + 2 * MARGIN, high + 2 * MARGIN, (Laid(piece, MARGIN, MARGIN),))


def _numbers(points: list[tuple[str, tuple[float, float]]]) -> Iterator[Text]:
    """The numbers beside their points, each where no other stands; the later points are the ones that stay."""
    taken: list[tuple[float, float, float]] = []  # middle and half width, mm
    for label, (x, y) in reversed(points):
        half = 0.3 * NUMBER * len(label)
        aside, down = half + 1.6, NUMBER
        for dx, dy in ((aside, -0.5), (-aside, -0.5), (aside, down), (-aside, down)):
            at = (x + dx, y + dy)
            if all(abs(at[0] - ox) > half + wide or abs(at[1] - oy) > NUMBER for ox, oy, wide in taken):
                taken.append((*at, half))
                yield Text(at, label, NUMBER)
                break


def _look(item: Item) -> str:
    return "cut" if item.is_seam else "thin" if item.done.operation.kind == "guide" else "seam"


def instruction(drawn: Draft, unit: Unit) -> tuple[Section, ...]:
    """The draft as sections of a hand sheet: fractions first, then all sums, then what is drawn, in the order of the method."""
    found = [Section(0, "Measurements and their fractions", tuple(_fractions(drawn, unit)))]
    for number, (title, piece, lines) in enumerate(_groups(drawn, unit), 1):
        found.append(Section(number, title if not piece else f"{title}, from {CENTRES[piece]}", tuple(lines)))
    return tuple(found)


def _fractions(drawn: Draft, unit: Unit) -> list[Line]:
    names = (*drawn.method.needs, *drawn.method.uses)
    known = {name: mm for name, mm in drawn.measures.items() if name in names}
    rows = []
    for row in fraction_table(known):
        whole, *parts = told(row, unit)
        share = ", ".join(f"1/{part} {mm.removesuffix(f' {unit}')}" for part, mm in zip(PARTS, parts, strict=True))
        rows.append(Line("measure", f"{MEASUREMENTS[row.name].partition(',')[0]} {whole}: {share}", {}))
    return rows


def _groups(drawn: Draft, unit: Unit) -> list[tuple[str, str, list[Line]]]:
    """The operations in runs of one piece, each line with its number on the paper."""
    groups: list[tuple[str, str, list[Line]]] = []
    for done in drawn.shown:
        title = {"": "Sums", "back": "Back", "front": "Front"}[done.piece]
        if not groups or groups[-1][0] != title:
            groups.append((title, done.piece, []))
        number = drawn.label(done)
        groups[-1][2].append(
            Line("draft", f"{number}  {drawn.instruction(done, unit)}" if number else drawn.instruction(done, unit), {})
        )
    return groups
