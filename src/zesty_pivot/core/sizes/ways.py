"""The ways to the block of a size beside each other: drafted, graded, its own; in figures."""

from __future__ import annotations

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sizes.graded import Arrow, arrows
from zesty_pivot.core.sizes.sized import Wearer
from zesty_pivot.core.sizes.under import Under, Way

WAYS: dict[Way, str] = {"draft": "drafted", "grade": "graded", "own": "its own"}


@record
class WayRow:
    """The sewn length of an edge of the block, mm, by each way that there is, in the order of `Ways.known`."""

    piece: str
    edge: str
    mm: tuple[float, ...]

    @property
    def apart(self) -> float:
        """How far the ways lie apart, mm."""
        return max(self.mm) - min(self.mm)


@record(eq=False)
class Ways:
    """The ways that there are to a size's block, why there are no others, and the lengths by each."""

    known: tuple[Way, ...]
    faults: tuple[tuple[Way, str], ...]
    rows: tuple[WayRow, ...]
    blocks: tuple[BlockFile, ...]


def compared(style: Style, under: Under, wearer: Wearer) -> Ways:
    """All ways to the block of a size or person."""
    found, faults = dict[Way, BlockFile](), list[tuple[Way, str]]()
    for way in WAYS:
        if way == "own" and not under.blocks:
            continue
        try:
            one = replace(under, way=way)
            found[way] = one.styled(style, wearer.title, dict(wearer.lengths), is_child=wearer.is_child).block
        except ZestyError as fault:
            faults.append((way, str(fault)))
    return Ways(tuple(found), tuple(faults), _rows(tuple(found.values())), tuple(found.values()))


def _rows(blocks: tuple[BlockFile, ...]) -> tuple[WayRow, ...]:
    patterns = [block_file.pattern(block) for block in blocks]
    lengths = [{(p.name, e.id): e.sewn_length for p in pattern.pieces for e in p.edges} for pattern in patterns]
    return tuple(
        WayRow(*key, tuple(known[key] for known in lengths))
        for key in (lengths[0] if lengths else {}) if all(key in known for known in lengths)
    )  # fmt: skip


def arrows_to(style: Style, under: Under, wearer: Wearer) -> tuple[Arrow, ...]:
    """Where grading takes the points of the style's block. Raises ZestyError where it cannot."""
    return arrows(style.block, style.body(), dict(wearer.lengths), darts=under.darts, is_child=wearer.is_child)
