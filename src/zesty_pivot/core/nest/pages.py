"""A plan of pages for finished pieces: as they lie side by side, or searched for; one plan for all, or a set for each piece."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.finish.sheet import MARGIN, lay
from zesty_pivot.core.nest.outline import INK, taken
from zesty_pivot.core.nest.packing import PagePacker, Put
from zesty_pivot.core.nest.paged import PageSetup
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.core.record import replace

ROUNDS = 12  # of the search where nobody waits and sees: most of what can be won is won by then


def side_by_side(pieces: tuple[FinishedPiece, ...], setup: PageSetup) -> PagePlan:
    """The pieces as they lie on the sheet, on upright paper or across, whichever takes fewer pages."""
    puts = tuple(
        Put(n, 0, laid.dx - MARGIN + 2.0 * INK, laid.dy - MARGIN + 2.0 * INK) for n, laid in enumerate(lay(pieces).laid)
    )
    upright, across = PagePlan(setup, pieces, puts), PagePlan(setup.across, pieces, puts)
    return across if len(across.pages) < len(upright.pages) else upright


def searched(pieces: tuple[FinishedPiece, ...], setup: PageSetup, *, apart: bool = False) -> Iterator[PagePlan]:
    """Better and better plans, one after every round of the search; never one of more pages than side by side. `apart` gives
    every piece pages of its own. The same pieces give the same plans. Without an end."""
    if not pieces:
        yield PagePlan(setup, (), ())
        return
    if apart:
        yield from _sets(pieces, setup)
        return
    best: PagePlan | None = None
    least, found = float("inf"), side_by_side(pieces, setup)
    for cost, puts in PagePacker([taken(piece) for piece in pieces], setup).search():
        if cost < least:
            least, packed = cost, PagePlan(setup, pieces, puts)
            if best is None or _rank(packed) < _rank(best):
                best = min(packed, found, key=_rank)
        assert best is not None
        yield best


def plan_of(pieces: tuple[FinishedPiece, ...], setup: PageSetup, *, apart: bool = False, rounds: int = ROUNDS) -> PagePlan:
    """The plan after so many rounds."""
    *_, last = islice(searched(pieces, setup, apart=apart), max(1, rounds))
    return last


def _rank(plan: PagePlan) -> tuple[float, int]:
    """Fewer pages first, those that show little counted as one and a half; then fewer joins."""
    sparse = sum(plan.fullness(page) < 0.05 for page in plan.pages)
    return len(plan.pages) + 0.5 * sparse, plan.joins


def _sets(pieces: tuple[FinishedPiece, ...], setup: PageSetup) -> Iterator[PagePlan]:
    """Each piece packed by itself, and the sets laid below each other on whole pages, with a row between that is not needed."""
    searches = [PagePacker([taken(piece)], setup).search() for piece in pieces]
    best: dict[int, tuple[float, PagePlan]] = {}
    whole: PagePlan | None = None
    while True:
        for number, (piece, search) in enumerate(zip(pieces, searches, strict=True)):
            cost, puts = next(search)
            if number not in best or cost < best[number][0]:
                best[number], whole = (cost, PagePlan(setup, (piece,), puts)), None
        whole = whole or _below_each_other([plan for _cost, plan in best.values()], pieces, setup)
        yield whole


def _below_each_other(plans: list[PagePlan], pieces: tuple[FinishedPiece, ...], setup: PageSetup) -> PagePlan:
    found, row = list[Put](), 0
    for number, plan in enumerate(plans):
        put = plan.puts[0]
        found.append(replace(put, piece=number, y=put.y + (row - plan.first[1]) * setup.step[1]))
        row += plan.rows + 1
    return PagePlan(setup, pieces, tuple(found))
