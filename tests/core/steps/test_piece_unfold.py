"""The unfolded front: left and right as worn, asymmetric darts, a dart whose fullness crosses CF."""

import numpy as np
import pytest

from tests.samples import move, real_pattern, scaled, style, worked
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import ALL_STATIONS, Spot, resolve
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry

UNFOLD = {"do": "piece.unfold", "on": "front"}


def to(dart: str, station: str, side: str | None = None, share: str = "100%") -> dict:  # type: ignore[type-arg]
    place = {"station": station, **({"side": side} if side else {})}
    return {"do": "dart.move", "on": "front", "dart": dart, "to": place, "share": share}


def sewn(pattern: Pattern, side: str = "") -> dict[str, float]:
    found = {edge.id: edge.sewn_length for edge in pattern.piece("front").edges}
    return {id.removesuffix(side): length for id, length in found.items() if id.endswith(side)}


@pytest.mark.parametrize("size", [(1.0, 1.0), (0.8, 0.9), (1.35, 1.2)])
def test_both_halves_are_the_half(size: tuple[float, float]) -> None:
    block = scaled(*size)
    whole = worked([UNFOLD], block).pattern
    half = {id: length for id, length in sewn(block).items() if id != "centre"}
    for side in (".left", ".right"):
        assert sewn(whole, side) == pytest.approx(half)
    assert whole.piece("front").area == pytest.approx(2.0 * block.piece("front").area, rel=1e-9)
    fronts = [account for account in accounts(whole, block) if account.piece == "front"]
    assert [account.pivot for account in fronts] == ["bust_point.left", "bust_point.right"]
    assert all(account.is_whole for account in fronts)
    ends = {(str(seam.a), str(seam.b)) for seam in whole.seams}
    assert ends >= {(f"front.shoulder{side}", "back.shoulder") for side in (".left", ".right")}


@pytest.mark.parametrize("station", [name for name in ALL_STATIONS if name not in ("centre_bust", "centre_waist")])
def test_stations_of_both_sides_mirror_each_other(station: str) -> None:
    """The wearer's left lies to the right of CF (x > 0) with the front right side up."""
    found = worked([UNFOLD])
    piece, block = found.pattern.piece("front"), found.block.piece("front")
    points = []
    for side in ("left", "right"):
        place = resolve(Spot(station=station, side=side), piece, block, Scope(), f"bust_point.{side}")  # type: ignore[arg-type]
        points.append(places.point(piece, place))
        own = resolve(Spot(station=station), piece, block, Scope(), f"bust_point.{side}")
        assert own == place  # the pivot's side when none is said
    if station == "waist":  # in a mouth, either of its ends
        assert points[0][0] > 0 > points[1][0]
    else:
        assert points[0] == pytest.approx(points[1] * [-1.0, 1.0], abs=1e-6)
        assert points[0][0] >= -1e-9


def test_only_the_named_side_changes() -> None:
    found = worked([UNFOLD, to("shoulder.left", "french"), to("waist.left", "mid_armhole", share="40%")])
    before, after = worked([UNFOLD]).pattern.piece("front"), found.pattern.piece("front")
    for run, other in zip(
        [r for r in before.runs if r.edge.endswith(".right")], [r for r in after.runs if r.edge.endswith(".right")], strict=True
    ):
        assert other.path.length == pytest.approx(run.path.length, abs=1e-9)
    for dart in ("shoulder.right", "waist.right"):
        assert after.angle(dart) == pytest.approx(before.angle(dart), abs=1e-12)
    assert after.angle("waist.left") == pytest.approx(0.6 * before.angle("waist.left"), abs=1e-12)
    assert all(account.is_whole for account in accounts(found.pattern, found.block))


def test_both_sides_fullness_to_one_side() -> None:
    """The right dart crosses CF and opens in the left shoulder, whose own dart has gone to the left side."""
    found = worked([UNFOLD, to("shoulder.left", "french"), to("shoulder.right", "mid_shoulder", "left")])
    piece = found.pattern.piece("front")
    assert piece.dart("shoulder.right").pivot == "bust_point.right" and piece.dart_edge("shoulder.right") == "shoulder.left"
    assert piece.dart_edge("shoulder.left") == "side_seam.left"
    half = {id: length for id, length in sewn(found.block).items() if id != "centre"}
    for side in (".left", ".right"):
        assert sewn(found.pattern, side) == pytest.approx(half)
    assert all(account.is_whole for account in accounts(found.pattern, found.block))
    blocked = Evaluator().evaluate(
        real_pattern(), [registry.read(s) for s in (UNFOLD, to("shoulder.right", "mid_armhole", "left"))], Scope("cm")
    )
    assert "crosses" in str(blocked.broken[0][1])


def test_finished_right_side_up_with_its_sides_named() -> None:
    found = derive(style([UNFOLD, to("waist.right", "french")]))
    front = next(piece for piece in found.pieces if piece.name == "front")
    assert front.cut_words == "cut 1, right side up"
    words = {text.text: text.at for text in front.texts}
    assert words["left as worn"][0] > 0 > words["right as worn"][0]
    girths, plain = found.girths, derive(style([])).girths
    assert girths.waist == pytest.approx(plain.waist) and girths.neck_opening == pytest.approx(plain.neck_opening)
    wrong = derive(style([UNFOLD], finish={"cut": {"front": "pair"}}))
    (finding,) = [f for f in wrong.findings if f.check == "labels" and "right side up" in f.message]
    assert finding.mend is not None and finding.mend.finish == {"cut": {"front": "up"}}


def test_bent_darts_and_gathers_mirror_too() -> None:
    steps = [
        move("shoulder", "french"), {"do": "dart.shape", "on": "front", "dart": "shoulder", "bend": "1 cm"},
        {"do": "dart.use", "on": "front", "dart": "waist", "as": "gathers", "over": "6 cm"}, UNFOLD,
    ]  # fmt: skip
    piece = worked(steps).pattern.piece("front")
    finished = finish_piece(piece, Finish(), Scope("cm"), "t")
    legs = {dart.dart: dart.legs for dart in finished.darts}
    for one, two in zip(legs["shoulder.left"], reversed(legs["shoulder.right"]), strict=True):
        assert np.allclose(one.cubics * [-1.0, 1.0], two.cubics, atol=1e-6)
    opened = {o.dart.id: o for o in finished.opened}
    assert opened["waist.left"].start == pytest.approx(opened["waist.right"].stop * [-1.0, 1.0], abs=1e-6)


@pytest.mark.parametrize(
    ("steps", "says"),
    [
        ([UNFOLD, UNFOLD], "unfolded already"),
        ([move("waist", "centre_bust", "50%"), UNFOLD], "opened by a dart"),
        ([UNFOLD, to("waist.left", "centre_bust")], "centre"),
        ([UNFOLD, move("waist", "french")], "no dart 'waist'"),
    ],
)
def test_what_cannot_be_is_refused(steps: list[dict], says: str) -> None:  # type: ignore[type-arg]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm"))
    fault = found.broken[-1][1]
    assert says in str(fault) and "\n" not in str(fault), str(fault)
