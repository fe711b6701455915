"""Parked darts: out of the way, visible in the account, and back where they were."""

import numpy as np
import pytest

from tests.core.steps.whole import whole
from tests.samples import move, real_pattern, worked
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Use
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def park(*darts: str, to: str = "side_waist", on: str = "front") -> dict:  # type: ignore[type-arg]
    return {"do": "dart.park", "on": on, "darts": list(darts), "to": {"station": to}}


BACK = {"do": "dart.return", "on": "front"}


@pytest.mark.parametrize("to", ["side_waist", "centre_bust", "side_bust", "mid_armhole"])
@pytest.mark.parametrize("darts", [("shoulder",), ("waist",), ("shoulder", "waist"), ("waist", "shoulder")])
def test_out_and_back_restores_the_piece(to: str, darts: tuple[str, ...]) -> None:
    found = worked([park(*darts, to=to), BACK])
    away, after, before = found.states[1].pattern, found.pattern.piece("front"), found.block.piece("front")
    whole(away, found.block)
    rows = accounts(away, found.block)[0].placed
    assert sum(row.deg for row in rows if row.use == "parked") == pytest.approx(
        sum(np.degrees(before.angle(dart)) for dart in darts), abs=1e-9
    )
    for dart in before.darts:
        assert np.allclose(after.mouth(dart.id), before.mouth(dart.id), atol=1e-8)
        assert not after.dart(dart.id).parked
    whole(found.pattern, found.block)


def test_parked_into_a_dart_that_is_there_and_other_work_between() -> None:
    """The shoulder dart waits in the waist dart while a fifth of the waist dart itself is still counted as sewn."""
    found = worked([park("shoulder", to="waist"), BACK])
    uses = {row.use: row.deg for row in accounts(found.states[1].pattern, found.block)[0].placed}
    assert set(uses) == {"parked", "dart"}
    block = found.block.piece("front")
    assert uses["dart"] == pytest.approx(np.degrees(block.angle("waist")))
    between = worked([park("shoulder", to="waist"), {"do": "piece.true", "on": "front", "edge": "neckline"}, BACK])
    assert between.pattern.piece("front").angle("shoulder") == pytest.approx(block.angle("shoulder"), abs=1e-12)


def test_a_use_is_kept_while_parked() -> None:
    gathers = {"do": "dart.use", "on": "front", "dart": "shoulder", "as": "gathers", "over": "6 cm"}
    found = worked([gathers, park("shoulder"), BACK])
    dart = found.pattern.piece("front").dart("shoulder")
    assert dart.use is Use.GATHERS and dart.hold.before_mm + dart.hold.after_mm == pytest.approx(60.0)


def test_what_is_parked_moves_along_with_the_dart_that_holds_it() -> None:
    found = worked([park("shoulder", to="waist"), move("waist", "french"), BACK])
    piece = found.pattern.piece("front")
    assert piece.angle("shoulder") == pytest.approx(found.block.piece("front").angle("shoulder"), abs=1e-12)
    assert {row.where for row in accounts(found.pattern, found.block)[0].placed} >= {"french"}


@pytest.mark.parametrize(
    ("steps", "says"),
    [
        ([BACK], "nothing is parked.*Park a dart first"),
        ([park("waist", to="waist")], "lies at waist already"),
        ([park("shoulder", to="waist"), move("waist", "french", "90%"), BACK], "moved since"),
        ([park("shoulder"), {**BACK, "darts": ["wiast"]}], "no parked dart 'wiast'"),
    ],
)
def test_what_cannot_be_is_refused(steps: list[dict], says: str) -> None:  # type: ignore[type-arg]
    import re

    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm"))
    fault = found.broken[-1][1]
    assert re.search(says, str(fault)), str(fault)


def test_what_is_put_away_goes_along_when_its_host_is_taken_in() -> None:
    """The parked shoulder dart lies in the side; that is merged into the waist dart, and comes back all the same."""
    found = worked([park("shoulder"), {"do": "dart.merge", "on": "front", "darts": ["waist", "shoulder"]}])
    (host,) = found.pattern.piece("front").darts
    assert [entry.id for entry in host.parked] == ["shoulder"]
    back = worked([park("shoulder"), {"do": "dart.merge", "on": "front", "darts": ["waist", "shoulder"]}, BACK])
    after, before = back.pattern.piece("front"), back.block.piece("front")
    assert after.dart_edge("shoulder") == "shoulder" and after.dart_edge("waist") == "waist"
    assert after.angle("shoulder") == pytest.approx(before.angle("shoulder"), abs=1e-12)
