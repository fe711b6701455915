"""A chart of four sizes, and what tests ask of the sizes view."""

from __future__ import annotations

from tests.samples import move

STEPS = [move("shoulder", "waist"), move("waist", "french")]
# Two pleats that the shoulder of small sizes has no room for, beside the dart that lies in it.
PLEATS = {"do": "fullness.pleat", "on": "front", "edge": "shoulder", "count": 2, "depth": "3 mm", "spacing": "1 cm"}
FEW = ("regular · 36", "regular · 40", "regular · 44", "regular · 48")


def worked_out(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    sizes, view = window.views.in_sizes.sizes, window.views.in_sizes.view
    qtbot.waitUntil(lambda: not sizes.is_at_work and not view._soon.isActive(), timeout=60_000)
    view.refresh()


def states(view) -> dict[str, str]:  # type: ignore[no-untyped-def]
    return {title: row.text(1) for title, row in view.list._rows.items() if row.text(1)}


def waist_of(sizes, title: str) -> float:  # type: ignore[no-untyped-def]
    return float(sizes.sized(title).pattern.piece("front").edge("waist").sewn_length)
