"""Darts parked anywhere before a neckline is drawn, and brought back after; the half neckline is told."""

from __future__ import annotations

from typing import Any

import pytest

from tests.drafted import ROOM, room_block
from tests.samples import worked
from tests.sheets import lines
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope

STATIONS = (
    "centre_bust", "centre_neck", "centre_waist", "mid_neck", "mid_shoulder", "shoulder_tip", "mid_armhole", "side_bust",
    "french", "side_waist", "waist",
)  # fmt: skip


def pattern_of(name: str) -> Pattern:
    return block_file.pattern(room_block(name))


def upper(name: str) -> str:
    return "shoulder" if name.startswith("two") else "side"


@pytest.mark.parametrize("station", STATIONS)
@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("shape", ["scoop", "canoe"])
def test_a_dart_is_parked_anywhere_and_comes_back(name: str, station: str, shape: str) -> None:
    """One that was parked at CF was in the way of the neckline: put away once more, it could not come back."""
    block, dart = pattern_of(name), upper(name)
    if (dart, station) == ("side", "side_bust"):
        station = "mid_neck"
    steps: list[dict[str, Any]] = [
        {"do": "dart.park", "on": "front", "darts": [dart], "to": {"station": station}},
        {"do": "neck.shape", "on": "front", "shape": shape},
        {"do": "dart.return", "on": "front"},
    ]
    found = worked(steps, block)
    after, plain = found.pattern.piece("front"), worked(steps[1:2], block).pattern.piece("front")
    assert after.angle(dart) == pytest.approx(block.piece("front").angle(dart), abs=1e-9)
    assert after.dart_edge(dart) == plain.dart_edge(dart)
    assert not any(d.parked for d in after.darts)
    assert all(account.is_whole for account in accounts(found.pattern, block))
    assert after.edge("neckline").sewn_length == pytest.approx(plain.edge("neckline").sewn_length, abs=0.05)


@pytest.mark.parametrize("name", ROOM)
def test_half_the_neckline_is_told_as_it_measures_on_the_sheet(name: str) -> None:
    steps = [{"do": "dart.park", "on": "front", "darts": [upper(name)], "to": {"station": "waist"}},
             {"do": "neck.shape", "on": "front", "shape": "round"}]  # fmt: skip
    found = worked(steps, pattern_of(name))
    (told,) = [note for note in found.states[2].notes if "finished neckline" in note.text]
    halves: list[float] = []
    for on in ("front", "back"):
        read = lines(finish_piece(found.pattern.piece(on), Finish(), Scope("cm"), "T"))
        halves.append(sum(part.length(error=1e-7) for part in read["neckline"]))
    assert f"half the front {halves[0] / 10.0:.1f} cm" in told.text
    assert told.amount_mm == pytest.approx(2.0 * sum(halves), abs=0.1)
