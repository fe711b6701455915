"""neck.gape: what is taken out of an edge goes into the dart."""

from __future__ import annotations

import pytest

from tests.core.steps.after_steps import sound, worked
from tests.core.steps.necks import BLOCKS, made
from tests.samples import real_pattern
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.necklines.gape import suggested
from zesty_pivot.core.piece.region import crosses_itself

V = {"do": "neck.shape", "on": "front", "shape": "v"}


@pytest.mark.parametrize("block", BLOCKS)
@pytest.mark.parametrize("amount", [5.0, 10.0, 15.0])
def test_gape_goes_out_of_the_edge_into_the_dart(amount: float, block: str) -> None:
    """0.5 to 1.5 cm out of the edge, pivoted into the bust dart: common practice, no source."""
    before = sound(V, block=BLOCKS[block])
    step = {"do": "neck.gape", "on": "front", "amount": f"{amount} mm", "at": {"edge": "neckline", "at": "45%"}}
    after = sound(V, step, block=BLOCKS[block])
    one, two = before.piece("front"), after.piece("front")
    assert one.edge("neckline").sewn_length - two.edge("neckline").sewn_length == pytest.approx(amount, abs=1e-5)
    gained = sum(two.angle(d.id) for d in two.darts) - sum(one.angle(d.id) for d in one.darts)
    assert gained > 0.0 and dict(two.added)["bust_point"] == pytest.approx(gained, abs=1e-9)
    assert all(account.is_whole for account in accounts(after, BLOCKS[block])) and not crosses_itself(two)
    for edge in ("shoulder", "armhole", "side_seam"):
        if edge in dict(one.roles):
            assert two.edge(edge).sewn_length == pytest.approx(one.edge(edge).sewn_length, abs=1e-6)
    assert after.measured[0].mm == pytest.approx(before.measured[0].mm - 2.0 * amount, abs=1e-6)


def test_the_suggestion_grows_with_depth_and_width() -> None:
    block = real_pattern()
    drafted = block.piece("front")

    def wanted(**more: object) -> float:
        return suggested(made(block, **more).piece("front"), drafted)  # type: ignore[arg-type]

    assert suggested(drafted, drafted) == 0.0 and wanted(shape="round") < 8.0
    depths = [wanted(shape="v", depth=f"{cm} cm") for cm in (14, 18, 22)]
    assert depths[0] < depths[1] < depths[2] and 5.0 <= depths[1] <= 15.0
    assert wanted(shape="canoe") > wanted(shape="round")


REFUSED = [
    ({"amount": "0"}, "0.0 cm of gape", "3.0 cm"),
    ({"amount": "9 cm"}, "9.0 cm of gape", "3.0 cm"),
    ({"amount": "1 cm", "at": {"edge": "waist", "at": "50%"}}, "neckline or armhole", "on one"),
    ({"amount": "1 cm", "at": {"edge": "neckline", "at": "1%"}}, "no room for it", "middle"),
    ({"amount": "1 cm", "into": "shulder"}, "no dart", "shoulder"),
]


@pytest.mark.parametrize(("more", "what", "advice"), REFUSED)
def test_impossible_gape_is_refused(more: dict, what: str, advice: str) -> None:  # type: ignore[type-arg]
    ((_number, fault),) = worked(V, {"do": "neck.gape", "on": "front", **more}).broken
    assert what in str(fault) and advice in str(fault)


def test_a_high_neck_does_not_gape() -> None:
    ((_number, fault),) = worked({"do": "neck.gape", "on": "front"}).broken
    assert "unlikely to gape" in str(fault)
