"""Gape, openings and armholes."""

from __future__ import annotations

import math

import pytest

from tests.core.steps.test_neck_shape import BLOCKS, made
from tests.samples import real_block, real_pattern, style
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.ledger.opening import HEAD, opened
from zesty_pivot.core.moves.redraw import corner
from zesty_pivot.core.necklines.gape import suggested
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.region import crosses_itself
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation, Evaluator
from zesty_pivot.core.steps import registry

V = {"do": "neck.shape", "on": "front", "shape": "v"}


def worked(*steps: dict, block: Pattern | None = None) -> Derivation:  # type: ignore[type-arg]
    return Evaluator().evaluate(
        block or real_pattern(), [registry.read(step) for step in steps], Scope("cm", real_block().measurements)
    )


def sound(*steps: dict, block: Pattern | None = None) -> Pattern:  # type: ignore[type-arg]
    derivation = worked(*steps, block=block)
    assert not derivation.broken, derivation.broken
    return derivation.pattern


# Gape.


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


# Openings.


def test_the_opening_counts_the_edge_and_both_sides_of_a_slit() -> None:
    """56 to 58 cm for women, the middle taken: from memory of size tables, common practice, no source."""
    plain = opened(real_pattern(), {}, 0.0)
    assert plain is not None and not plain.is_measured and plain.head_mm == HEAD == 570.0
    whole = 2.0 * sum(piece.edge("neckline").sewn_length for piece in real_pattern().pieces)
    assert plain.whole_mm == pytest.approx(whole) and plain.short_mm == pytest.approx(570.0 - whole)
    slit = opened(sound({"do": "neck.opening", "on": "back", "kind": "slit", "length": "10 cm"}), {"head": 560.0}, 0.0)
    assert slit is not None and slit.is_measured and slit.stretched_mm == pytest.approx(whole + 200.0) and slit.short_mm < 0.0
    knit = opened(real_pattern(), {}, "50%")
    assert knit is not None and knit.stretched_mm == pytest.approx(1.5 * whole) and knit.short_mm < 0.0


def test_an_opening_is_counted_from_the_neckline_as_it_is() -> None:
    slit = {"do": "neck.opening", "on": "back", "kind": "slit", "length": "12 cm"}
    deeper = {"do": "neck.shape", "on": "front", "shape": "round", "back_depth": "7 cm"}
    counts = []
    for steps in ((slit,), (slit, deeper)):
        found = opened(sound(*steps), {}, 0.0)
        assert found is not None
        counts.append(found.opens_mm)
    assert counts[0] == pytest.approx(240.0) and counts[1] == pytest.approx(240.0 - 2.0 * (70.0 - 22.0), abs=1e-6)
    gone = opened(sound(slit, {**deeper, "back_depth": "16 cm"}), {}, 0.0)
    assert gone is not None and gone.opens_mm == 0.0


def test_a_slit_neckline_is_marked_where_it_ends() -> None:
    front = sound({"do": "neck.shape", "on": "front", "shape": "slit", "slit": "18 cm"}).piece("front")
    (mark,) = [mark for mark in front.notches if mark.id == "slit.end"]
    place = places.by_origin(front, mark.at)
    assert places.point(front, place)[1] == pytest.approx(180.0, abs=1e-6)


def test_a_slit_is_a_cut_line_on_the_sheet() -> None:
    for steps, name, long in (
        ([{"do": "neck.opening", "on": "back", "kind": "slit", "length": "9 cm"}], "back", 90.0),
        ([{"do": "neck.shape", "on": "front", "shape": "slit", "depth": "9 cm", "slit": "17 cm"}], "front", 80.0),
    ):
        piece = next(found for found in derive(style(steps)).pieces if found.name == name)
        (slit,) = [stroke for stroke in piece.strokes if stroke.id == "slit"]
        assert slit.layer == "cut" and sum(path.length for path in slit.paths) == pytest.approx(long, abs=1e-6)


def test_the_shortest_zip_lets_the_head_through() -> None:
    found = opened(real_pattern(), {"head": 700.0}, 0.0)
    assert found is not None and found.zip_mm % 5.0 == 0.0
    after = opened(sound({"do": "neck.opening", "on": "back", "length": f"{found.zip_mm} mm"}), {"head": 700.0}, 0.0)
    assert after is not None and -10.0 <= after.short_mm <= 0.0


@pytest.mark.parametrize("shape", ["wrap", "strapless", "camisole", "off_shoulder"])
def test_what_goes_round_no_neck_needs_no_opening(shape: str) -> None:
    assert opened(made(real_pattern(), shape), {}, 0.0) is None


def test_a_zip_makes_the_centre_a_seam_and_a_slit_keeps_the_fold() -> None:
    zipped = sound({"do": "neck.opening", "on": "back"})
    assert zipped.piece("back").fold is None and zipped.openings[0].length_mm == pytest.approx(180.0) and not zipped.extras
    slit = sound({"do": "neck.opening", "on": "front", "kind": "slit", "length": "9 cm"})
    assert slit.piece("front").fold == "centre" and [extra.kind for extra in slit.extras] == ["facing"]
    assert any(mark.id == "slit.end" for mark in slit.piece("front").notches)


def test_openings_that_cannot_be_are_refused() -> None:
    for more, what in (({"length": "80 cm"}, "80.0 cm"), ({"length": "5 mm"}, "0.5 cm"), ({"on": "side"}, "no piece")):
        ((_number, fault),) = worked({"do": "neck.opening", "on": "back", **more}).broken
        assert what in str(fault)
    twice = worked({"do": "neck.opening", "on": "back"}, {"do": "neck.opening", "on": "back", "kind": "slit"})
    assert "already has an opening" in str(twice.broken[0][1])


# Armholes.


def armhole(piece: Piece) -> float:
    return sum(run.path.length for run in piece.runs if piece.role(run.edge) == "armhole")


def underarm(piece: Piece) -> int:
    return next(
        k for k, run in enumerate(piece.runs)
        if piece.role(run.edge) == "armhole" and piece.role(piece.runs[piece.after(k)].edge) == "side_seam"
    )  # fmt: skip


@pytest.mark.parametrize("block", BLOCKS)
@pytest.mark.parametrize("more", [{}, {"lower": "-1 cm"}, {"shoulder_in": "2 cm"}, {"widen": "-5 mm", "lower": "2 cm"}])
def test_armholes_are_drawn_anew_on_both(more: dict, block: str) -> None:  # type: ignore[type-arg]
    before = BLOCKS[block]
    derivation = worked({"do": "trim.armhole", "on": "front", **more}, block=before)
    assert not derivation.broken, derivation.broken
    pattern = derivation.pattern
    was = before.edge_length(EdgeRef.read("front.side_seam")) - before.edge_length(EdgeRef.read("back.side_seam"))
    now = pattern.edge_length(EdgeRef.read("front.side_seam")) - pattern.edge_length(EdgeRef.read("back.side_seam"))
    assert now == pytest.approx(was, abs=0.5)
    told = {note.piece: note.amount_mm for note in derivation.states[1].notes if "armhole measures" in note.text}
    for piece in pattern.pieces:
        assert not crosses_itself(piece) and told[piece.name] == pytest.approx(armhole(piece), abs=1e-6)
    assert all(account.is_whole for account in accounts(pattern, before))
    lower = {"lower": "1/2 in", **more}["lower"]
    if "widen" not in more:
        goal = {"1/2 in": -12.7, "-1 cm": 10.0, "2 cm": -20.0}[lower]
        front = pattern.piece("front")
        assert front.edge("side_seam").sewn_length - before.piece("front").edge("side_seam").sewn_length == pytest.approx(
            goal, abs=0.01
        )
    if "shoulder_in" in more:
        for name in ("front", "back"):
            cut = before.piece(name).edge("shoulder").sewn_length - pattern.piece(name).edge("shoulder").sewn_length
            assert cut == pytest.approx(20.0, abs=1e-5)


def test_a_lowered_armhole_keeps_its_corners() -> None:
    before, after = real_pattern(), sound({"do": "trim.armhole", "on": "front", "lower": "2 cm"})
    for name in ("front", "back"):
        one, two = (math.degrees(corner(p.piece(name), underarm(p.piece(name)))) for p in (before, after))
        assert one == pytest.approx(two, abs=0.5)


@pytest.mark.parametrize("block", ["real", "hip", "random 0", "random 9"])
def test_a_razor_back_is_narrow_at_the_chest_line(block: str) -> None:
    """2 in from CB at the chest line: common practice, no source."""
    pattern = sound(
        {"do": "trim.armhole", "on": "front", "shoulder_in": "3 cm", "back": "razor", "lower": "2 cm"}, block=BLOCKS[block]
    )
    back = pattern.piece("back")
    points = [point for run in back.runs if back.role(run.edge) == "armhole" for point in run.path.outline]
    assert min(point[0] for point in points) == pytest.approx(50.8, abs=0.01)
    assert not crosses_itself(back) and all(account.is_whole for account in accounts(pattern, BLOCKS[block]))


def test_armholes_that_cannot_be_are_refused() -> None:
    for more, what in (
        ({"shoulder_in": "30 cm"}, "cut in by 30.0 cm"), ({"lower": "50 cm"}, "lowered by 50.0 cm"),
        ({"widen": "20 cm"}, "moved by 20.0 cm"), ({"back": "razor", "razor": "40 cm"}, "razor back of 40.0 cm"),
    ):  # fmt: skip
        ((_number, fault),) = worked({"do": "trim.armhole", "on": "front", **more}).broken
        assert what in str(fault) and "Enter" in str(fault)
