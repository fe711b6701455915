"""Split, merge, equalise: nothing is lost, mouths come out as asked, at every station and on every block."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.steps.whole import whole
from tests.samples import move, real_pattern, scaled, stretches, style, worked
from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.formats.unit_change import with_units
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.spot import ALL_STATIONS
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry

DARTS = [("front", "shoulder"), ("front", "waist"), ("back", "shoulder"), ("back", "waist")]


def split(dart: str, *parts: dict, on: str = "front", **more) -> dict:  # type: ignore[no-untyped-def, type-arg]
    return {"do": "dart.split", "on": on, "dart": dart, "parts": list(parts), **more}


def at(station: str, **amount: str) -> dict:  # type: ignore[type-arg]
    return {"to": {"station": station}, **amount}


def mouths(piece: Piece, *darts: str) -> list[float]:
    return [piece.intake(dart) for dart in darts]


@pytest.mark.parametrize(("on", "dart"), DARTS)
@pytest.mark.parametrize("station", ALL_STATIONS)
def test_thirty_to_seventy_at_every_station(on: str, dart: str, station: str) -> None:
    """30 % stays, 70 % goes: for all stations that this dart's pivot reaches; the others are refused in one sentence."""
    block = real_pattern()
    step = registry.read(split(dart, at(station, share="70%"), on=on))
    try:
        after = step.apply(block, Context(block, Scope("cm"))).pattern
    except ZestyError as fault:
        assert str(fault).count("\n") == 0 and len(str(fault)) > 20
        return
    whole(after, block)
    piece, before = after.piece(on), block.piece(on)
    if piece.angle(dart) != pytest.approx(before.angle(dart)):  # else it is there already
        assert piece.angle(dart) == pytest.approx(0.3 * before.angle(dart), abs=1e-12)


def test_shares_and_the_rest() -> None:
    found = worked([split("waist", at("mid_armhole", share="40%"), at("french", share="25%"), at("mid_neck"))])
    piece, before = found.pattern.piece("front"), found.block.piece("front")
    whole(found.pattern, found.block)
    held = before.angle("waist")
    assert piece.angle("mid_armhole") == pytest.approx(0.4 * held) and piece.angle("french") == pytest.approx(0.25 * held)
    assert piece.angle("waist") == pytest.approx(0.35 * held)  # the last part keeps the dart's id
    assert {row.where for row in accounts(found.pattern, found.block)[0].placed} >= {"mid_armhole", "french", "mid_neck"}


def test_four_centimetres_here_and_the_rest_there() -> None:
    """Mouth = 2 r sin(angle / 2), the chord formula; r is the leg at the new place."""
    found = worked([split("waist", at("mid_armhole", mouth="2 cm"), at("side_bust"))])
    piece = found.pattern.piece("front")
    assert piece.intake("mid_armhole") == pytest.approx(20.0, abs=1e-9)
    r = piece.legs("mid_armhole")[0]
    assert 2.0 * r * math.sin(piece.angle("mid_armhole") / 2.0) == pytest.approx(20.0, abs=1e-9)
    assert piece.angle("waist") == pytest.approx(found.block.piece("front").angle("waist") - piece.angle("mid_armhole"))
    whole(found.pattern, found.block)


def test_equal_mouths_also_where_it_is() -> None:
    """The classic pair: CF neck and waist with the same mouth. The waist is where the dart is already."""
    found = worked([split("waist", at("centre_neck"), at("waist"), equal=True)])
    piece = found.pattern.piece("front")
    assert mouths(piece, "centre_neck")[0] == pytest.approx(mouths(piece, "waist")[0], abs=1e-6)
    whole(found.pattern, found.block)
    three = worked([split("waist", at("mid_armhole"), at("french"), at("mid_neck"), equal=True)]).pattern.piece("front")
    assert len({round(width, 8) for width in mouths(three, "mid_armhole", "french", "waist")}) == 1


def test_a_split_into_a_dart_that_is_there_counts_what_is_open() -> None:
    found = worked([split("waist", {"to": {"dart": "shoulder"}, "mouth": "10 cm"}, at("side_bust"))])
    # The block's two legs differ by 1e-7 mm, the noise of six decimals in its file.
    assert found.pattern.piece("front").intake("shoulder") == pytest.approx(100.0, abs=1e-6)
    whole(found.pattern, found.block)


@pytest.mark.parametrize(
    ("step", "says"),
    [
        (split("waist", at("french", share="80%"), at("mid_neck", share="50%")), r"130%.*ogether they may take up to 100%"),
        (split("waist", at("french", mouth="20 cm"), at("mid_neck")), r"cannot open a mouth of 20\.0 cm.*up to"),
        (split("waist", at("french", mouth="4 cm"), at("mid_armhole", mouth="3 cm")), "ogether they may take up to 100%"),
        (split("waist", {"to": {"dart": "shoulder"}}, at("centre_bust"), equal=True), "already wider"),
        ({"do": "dart.merge", "on": "back", "darts": ["shoulder", "waist"]}, "different pivots.*one point"),
        ({"do": "dart.equalise", "on": "back", "darts": ["shoulder", "waist"]}, "different pivots"),
        (split("wiast", at("french")), "did you mean 'waist'"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_in_one_sentence(step: dict, says: str) -> None:  # type: ignore[type-arg]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step)], Scope("cm"))
    (fault,) = [error for _number, error in found.broken]
    assert isinstance(fault, StepError)
    import re

    assert re.search(says, str(fault), re.I), str(fault)


@pytest.mark.parametrize(
    "value",
    [
        split("waist"),
        split("waist", at("french"), at("mid_neck")),
        split("waist", at("french", share="50%"), equal=True),
        split("waist", at("french", share="50%", mouth="3 cm")),
        {"do": "dart.merge", "on": "front", "darts": ["waist"]},
        {"do": "dart.merge", "on": "front", "darts": ["waist", "waist"]},
        {"do": "dart.equalise", "on": "front", "darts": ["waist", "waist"]},
    ],
)
def test_what_makes_no_sense_is_not_read(value: dict) -> None:  # type: ignore[type-arg]
    with pytest.raises(ValueError):
        registry.read(value)


@pytest.mark.parametrize(
    "to", [None, *({"station": name} for name in ("mid_armhole", "waist", "shoulder_tip", "side_bust", "french"))]
)
def test_merge_gives_one_dart_with_all_of_it(to: dict | None) -> None:  # type: ignore[type-arg]
    step = {"do": "dart.merge", "on": "front", "darts": ["shoulder", "waist"], **({"to": to} if to else {})}
    found = worked([step])
    piece, before = found.pattern.piece("front"), found.block.piece("front")
    (dart,) = piece.darts
    assert piece.angle(dart.id) == pytest.approx(before.angle("shoulder") + before.angle("waist"), abs=1e-12)
    whole(found.pattern, found.block)


def test_split_and_merged_again_is_the_block() -> None:
    steps = [
        split("waist", at("mid_armhole", share="30%"), at("mid_neck", share="30%")),
        {"do": "dart.merge", "on": "front", "darts": ["waist", "mid_armhole", "mid_neck"]},
    ]
    found = worked(steps)
    piece, before = found.pattern.piece("front"), found.block.piece("front")
    assert piece.angle("waist") == pytest.approx(before.angle("waist"), abs=1e-9)
    for name in ("waist", "shoulder"):
        for one, two in zip(piece.mouth(name), before.mouth(name), strict=True):
            assert math.dist(one, two) < 1e-9


def test_equalised_darts_have_one_width_and_the_same_sum() -> None:
    steps = [split("waist", at("mid_armhole", share="20%"), at("french", share="10%"))]
    equal = {"do": "dart.equalise", "on": "front", "darts": ["shoulder", "waist", "mid_armhole", "french"]}
    found = worked([*steps, equal])
    piece = found.pattern.piece("front")
    assert len({round(width, 6) for width in mouths(piece, *equal["darts"])}) == 1
    whole(found.pattern, found.block)
    again = worked([*steps, equal, equal]).pattern.piece("front")
    assert mouths(again, *equal["darts"]) == pytest.approx(mouths(piece, *equal["darts"]), abs=1e-6)


def test_units_of_parts_keep_their_meaning() -> None:
    value = split("waist", at("mid_armhole", mouth="2"), {"to": {"edge": "side_seam", "from": "underarm", "at": "5"}})
    one = style([value])
    two = with_units(one, "in")
    assert two.steps[0].parts[0].mouth == "2 cm" and two.steps[0].parts[1].to.at == "5 cm"
    first, second = (Evaluator().evaluate(real_pattern(), s.steps, s.scope()).pattern for s in (one, two))
    assert first.piece("front").intake("mid_armhole") == pytest.approx(second.piece("front").intake("mid_armhole"))


@settings(max_examples=25)
@given(stretches, st.lists(st.integers(1, 33), min_size=1, max_size=3), st.booleans())
def test_on_any_block(stretch: tuple[float, float], shares: list[int], equal: bool) -> None:
    """Split, equalise and merge on stretched blocks, in a row: whole after each, one dart at the end."""
    block = scaled(*stretch)
    stations = ["mid_armhole", "side_bust", "mid_neck"][: len(shares)]
    parts = [at(name) if equal else at(name, share=f"{share}%") for name, share in zip(stations, shares, strict=True)]
    first = split("waist", *parts, equal=True) if equal else split("waist", *parts)
    steps = [registry.read(first)]
    found = Evaluator().evaluate(block, steps, Scope("cm"))
    assert not found.broken, found.broken
    whole(found.pattern, block)
    names = [dart.id for dart in found.pattern.piece("front").darts if dart.id != "shoulder"]
    if len(names) > 1:
        steps.append(registry.read({"do": "dart.equalise", "on": "front", "darts": names}))
        found = Evaluator().evaluate(block, steps, Scope("cm"))
        assert not found.broken
        whole(found.pattern, block)
    merge = {"do": "dart.merge", "on": "front", "darts": ["shoulder", *names], "to": {"station": "french"}}
    found = Evaluator().evaluate(block, [*steps, registry.read(merge)], Scope("cm"))
    assert not found.broken and len(found.pattern.piece("front").darts) == 1
    whole(found.pattern, block)


def test_the_input_is_not_changed() -> None:
    block = real_pattern()
    before = block.piece("front")
    registry.read(split("waist", at("french", share="50%"))).apply(block, Context(block, Scope("cm")))
    assert block.piece("front") is before and before.angle("waist") == real_pattern().piece("front").angle("waist")
    assert registry.read(move("waist", "french")).words() == "waist dart to French dart position"
