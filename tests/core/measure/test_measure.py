"""Measurements: what is odd, what may stand for a missing one, fractions. Sources beside each."""

from __future__ import annotations

import re

import pytest
from hypothesis import given

from tests.bodies import CHILD, IN, PERSON, bodies
from zesty_pivot.core.measure import CHART, MEASUREMENTS
from zesty_pivot.core.measure.estimates import estimates
from zesty_pivot.core.measure.fractions import PARTS, fraction_table, told
from zesty_pivot.core.measure.plausible import again, oddities

# A published kind of size table for women, mm, as remembered (EN 13402-like steps of 4 cm): bust, waist, hip, back length.
TABLE = [
    (800, 640, 880, 404), (840, 680, 920, 408), (880, 720, 960, 412), (920, 760, 1000, 416), (960, 800, 1040, 420),
         (1000, 840, 1080, 424), (1040, 880, 1110, 428), (1100, 940, 1160, 432), (1160, 1000, 1210, 436),
         (1220, 1060, 1270, 440),
]  # fmt: skip

# Terms of ISO 8559-1, from memory.
ISO = {
    "bust": "bust girth", "waist": "waist girth", "hip": "hip girth", "under_bust": "under-bust girth", "head": "head girth",
    "neck": "neck base girth", "shoulder": "shoulder width", "armhole": "armscye girth", "bwl": "back waist length",
}  # fmt: skip


def test_the_chart_says_where_the_tape_goes_and_what_the_standard_calls_it() -> None:
    assert [each.name for each in CHART] == list(MEASUREMENTS)
    for each in CHART:
        assert each.tape.endswith(".") and each.likely[0] < each.likely[1], each.name
    assert {each.name: each.iso for each in CHART if each.name in ISO} == ISO


@pytest.mark.parametrize(("bust", "waist", "hip", "bwl"), TABLE)
def test_a_size_table_is_plausible_and_estimates_come_near_it(bust: float, waist: float, hip: float, bwl: float) -> None:
    assert oddities({"bust": bust, "waist": waist, "hip": hip, "bwl": bwl}, "cm") == []
    guessed = estimates({"bust": bust})
    assert guessed["waist"].mm == pytest.approx(waist, abs=1) and guessed["hip"].mm == pytest.approx(hip, abs=45)
    assert guessed["bwl"].mm == pytest.approx(bwl, abs=10)
    everything = {"bust": bust} | {name: guess.mm for name, guess in guessed.items()}
    assert set(everything) == set(MEASUREMENTS)
    assert oddities(everything, "cm") == []


def test_an_estimate_says_why_and_a_measured_one_goes_before() -> None:
    found = estimates({"bust": 900.0, "fwl": 450.0})
    assert found["bwl"].mm == pytest.approx(450 - 900 / 24) and found["bwl"].why == "front waist length less a 24th of the bust"
    assert found["across_chest"].why == "shoulder width less 5.5 cm, itself estimated"
    assert "fwl" not in found and "bust" not in found
    assert estimates({"across_back": 350.0})["shoulder"].mm == pytest.approx(385.0)
    child = estimates({"bust": 600.0}, is_child=True)
    assert child["shoulder"].mm == pytest.approx(252.0) and "span" not in child


@pytest.mark.parametrize(
    ("change", "names", "says"),
    [
        ({"bwl": 18 * IN}, ("fwl", "bwl"), r"front less back waist length is -0 1/2|-1/2 in; it is never under 0 in"),
        ({"fwl": 21.5 * IN}, ("fwl", "bwl"), "5 1/2 in; nobody has over 5 in"),
        ({"fwl": 20 * IN}, ("fwl", "bwl", "bust"), "4 in; 1 to 2 in are usual"),
        ({"waist": 45 * IN}, ("waist", "bust"), "the waist is 45 in; with this bust it is rarely over 43 11/16 in"),
        ({"under_bust": 39 * IN}, ("under_bust", "bust"), "more than the full bust of 38 in"),
        ({"shoulder": 20.4 * IN}, ("shoulder", "bust"), "leaves room for an armhole only under"),
        ({"span": 11 * IN}, ("span", "bust"), "the bust span is 11 in; with this bust it is rarely over 9 7/8 in"),
        ({"armhole": 22 * IN}, ("armhole", "bust"), "half the armhole round is 11 in; rarely over"),
        ({"across_chest": 16 * IN}, ("across_chest", "shoulder"), "across chest is 16 in"),
        ({"sh_bp": 15.6 * IN}, ("sh_bp", "fwl"), "the bust point lies 15 5/8 in down"),
        ({"bust": 38 * 10.0}, ("bust",), "38 cm or 38 in"),  # inches read as cm
        ({"waist": 76 * 25.4}, ("waist",), "over"),
    ],
)  # fmt: skip
def test_what_is_odd_is_said_with_value_limit_and_what_to_measure_again(change: dict, names: tuple, says: str) -> None:
    """METHODS, plausibility: relations between lengths, front minus back 0 to 5 in, room for the armhole, spans."""
    body = {**PERSON, **change}
    if "sh_bp" in change:
        del body["sh_under_bust"]
    found = oddities(body, "in")
    told_ = [odd for odd in found if odd.names == names]
    assert told_ and any(re.search(says, odd.says) for odd in told_), found
    for odd in told_:
        assert all(MEASUREMENTS[name].partition(",")[0] in again(odd) for name in names)


def test_a_slip_of_the_unit_does_not_make_everything_odd() -> None:
    assert len(oddities({**PERSON, "bust": 380.0}, "cm")) == 1


@given(bodies())
def test_plausible_bodies_have_no_slip(body: dict[str, float]) -> None:
    assert [
        odd
        for odd in oddities(body, "cm")
        if odd.is_likely_slip and "bust point" not in odd.says and "under-bust" not in odd.says
    ] == []


def test_children_have_limits_of_their_own() -> None:
    assert oddities(CHILD, "in", is_child=True) == []
    assert oddities(CHILD, "in")  # as a grown-up they would be odd
    found = oddities({**CHILD, "waist": 20 * IN}, "in", is_child=True)
    assert "a block without a dart wants it over" in found[0].says


def test_the_fraction_table_by_hand() -> None:
    """1/2, 1/4, 1/6, 1/8, 1/12 of 38 in: 19, 9 1/2, 6 5/16 (6.333), 4 3/4, 3 3/16 (3.1667)."""
    rows = fraction_table(PERSON)
    assert PARTS == (2, 4, 6, 8, 12) and [row.name for row in rows] == [name for name in MEASUREMENTS if name in PERSON]
    assert told(rows[0], "in") == ["38 in", "19 in", "9 1/2 in", "6 5/16 in", "4 3/4 in", "3 3/16 in"]
    assert told(rows[0], "cm") == ["96.5 cm", "48.3 cm", "24.1 cm", "16.1 cm", "12.1 cm", "8.0 cm"]
