"""Packed pages as a style's file keeps them, so that the same pages come out of the printer again."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats.page_models import MOST, KeptPages, PiecePut
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.nest.packing import Put
from zesty_pivot.core.nest.pages import plan_of, side_by_side
from zesty_pivot.core.nest.plan import PagePlan

if TYPE_CHECKING:
    from zesty_pivot.core.formats.derived import Derived


def kept_of(plan: PagePlan, variant: str, printing: Printing) -> KeptPages:
    """A plan as it is kept."""
    puts = tuple(
        PiecePut(piece=plan.pieces[p.piece].name, turn=(0, 90, 180, 270)[p.quarters % 4], x=round(p.x, 3), y=round(p.y, 3))
        for p in plan.puts
    )
    across = plan.setup == printing.setup.across != printing.setup
    return KeptPages(
        variant=variant, paper=printing.paper, edge=printing.edge, overlap=printing.overlap, apart=printing.apart,
        across=across, puts=puts,
    )  # fmt: skip


def with_pages(kept: Sequence[KeptPages], new: KeptPages) -> tuple[KeptPages, ...]:
    """The plans with one more, in the place of that for the same paper; the oldest are left out where there are too many."""
    return (*(one for one in kept if one.key != new.key), new)[-MOST:]


def plan_from(kept: KeptPages, pieces: tuple[FinishedPiece, ...], printing: Printing) -> PagePlan | None:
    """The plan that is kept, for the pieces as they are now; none where they are other pieces or no longer lie apart."""
    numbers = {piece.name: number for number, piece in enumerate(pieces)}
    if sorted(put.piece for put in kept.puts) != sorted(numbers):
        return None
    puts = tuple(sorted((Put(numbers[p.piece], p.turn // 90, p.x, p.y) for p in kept.puts), key=lambda put: put.piece))
    setup = printing.setup
    plan = PagePlan(setup.across if kept.across else setup, pieces, puts)
    return plan if plan.is_apart else None


def kept_plan(derived: Derived, printing: Printing) -> PagePlan | None:
    """The plan that the style's file keeps for this paper, where it still fits."""
    key = (derived.style.variant, printing.paper, printing.edge, printing.overlap, printing.apart)
    kept = next((one for one in derived.style.pages if one.key == key), None)
    return None if kept is None else plan_from(kept, derived.sheet_pieces, printing)


@kept_with
def page_plan(derived: Derived, printing: Printing) -> PagePlan:
    """The pages of a style. Raises ZestyError where the paper is none, and where they are too many."""
    pieces = derived.sheet_pieces
    known = None if printing.packing == "none" else kept_plan(derived, printing)
    if known is not None:
        return known
    if printing.packing == "search" or printing.apart:
        return plan_of(pieces, printing.setup, apart=printing.apart)
    return side_by_side(pieces, printing.setup)
