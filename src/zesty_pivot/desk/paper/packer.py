"""The search for fewer pages: how long it goes on."""

from __future__ import annotations

import time
from collections.abc import Iterator
from threading import Event

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.nest.paged import PageSetup
from zesty_pivot.core.nest.pages import searched
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.core.record import record

SOON_S = 2.5  # how long it is looked for without being asked: most of what can be won is won by then
IDLE_S = 60.0  # and where it was asked for, how long after the last plan that was better


@record(eq=False)
class Search:
    """One search: what is packed, and whether it goes on until it is stopped."""

    pieces: tuple[FinishedPiece, ...]
    setup: PageSetup
    apart: bool
    goes_on: bool

    def plans(self, stop: Event) -> Iterator[PagePlan]:
        """Better and better plans, until it is stopped or long enough."""
        begun = time.monotonic()
        best: PagePlan | None = None
        for plan in searched(self.pieces, self.setup, apart=self.apart):
            now = time.monotonic()
            if plan is not best:
                best = plan
                begun = now if self.goes_on else begun
                plan.pages, plan.laid  # noqa: B018 - worked out here, not where it is drawn
                yield plan
            if stop.is_set() or now - begun > (IDLE_S if self.goes_on else SOON_S):
                return
