"""The calculator of the number fields."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zesty_pivot.core.errors import FormulaError
from zesty_pivot.core.quantity import Scope, Unit, format_length, inch_fraction, length_mm, share_of, with_unit
from zesty_pivot.core.quantity.formula import readable

SCOPE = Scope("cm", {"bust": 928.0, "shoulder": 396.0, "waist": 742.0})


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("13", 130.0),
        (13, 130.0),
        ("13 cm", 130.0),
        ("13cm", 130.0),
        ("13,5 cm", 135.0),
        ("7 mm", 7.0),
        ("5 1/4 in", 133.35),  # 1 in = 25.4 mm: international inch, 1959
        ('5 1/4"', 133.35),
        ("5 ¼ in", 133.35),
        ("1/4 in", 6.35),
        ("½ in", 12.7),
        ("2.5 inches", 63.5),
        ("bust/12", 928.0 / 12),
        ("shoulder/2 - 1 in", 198.0 - 25.4),
        ("(bust + waist)/8", (928.0 + 742.0) / 8),
        ("2 * 3 cm", 60.0),
        ("-2 cm", -20.0),
        ("bust/waist * 1 cm", 10.0 * 928 / 742),
        ("10 - 2 - 3", 50.0),
        ("3½", 35.0),
        ("3 ½", 35.0),
        (",5 cm", 5.0),
        ("0,25 in", 6.35),
        ("waist/4 + 1/2 in", 742.0 / 4 + 12.7),
        ("waist/(4 1/2)", 742.0 / 4.5),
        ("12 / 2 / 3", 20.0),
    ],
)
def test_lengths(text: str | float, mm: float) -> None:
    assert length_mm(text, SCOPE) == pytest.approx(mm, abs=1e-9)


def test_a_bare_number_has_the_scopes_unit() -> None:
    assert length_mm("2", Scope("in")) == pytest.approx(50.8)
    assert length_mm("5 1/4", Scope("in")) == pytest.approx(133.35)
    assert length_mm(2, Scope("mm")) == 2.0


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "nothing is entered"),
        ("abc", "no measurement 'abc'"),
        ("bsut/12", "Did you mean 'bust'"),
        ("__import__('os').system('true')", "cannot be read"),
        ("bust.__class__", "cannot be read"),
        ("eval(1)", "no measurement 'eval'"),
        ("bust(1)", "does not go on"),
        ("1; 2", "cannot be read"),
        ("bust + 2", "adds a length to a plain number"),
        ("bust * waist", "is an area"),
        ("bust / waist", "is a ratio"),
        ("1/0 in", "divides by zero"),
        ("2 cm / 0", "divides by zero"),
        ("(2 cm", "is missing a closing bracket"),
        ("2 cm +", "is not finished"),
        ("2 cm 3", "does not go on"),
        ("½½", "does not go on with '½'"),
        ("½ 1/2", "does not go on with '1'"),
        ("waist/4 1/2", "may mean two things at '4 1/2'"),
        ("waist/4 ½", "may mean two things at '4 ½'"),
        ("3 / 4 in", "Write a fraction without spaces, such as 3/4 in"),
        ("1,000", "may be a decimal number or thousands"),
        ("1,234.5 mm", "may be a decimal number or thousands"),
        ("1e9", "does not go on"),
        ("99999999 cm", "over 100 m"),
        ("9" * 300, "characters"),
        ("(" * 60 + "1" + ")" * 60, "too many"),
        (math.nan, "not a finite number"),
        (math.inf, "not a finite number"),
        (True, "not a length"),
        (None, "not a length"),
    ],
)
def test_faults_say_what_is_wrong(text: str, said: str) -> None:
    with pytest.raises(FormulaError, match=said.replace("(", r"\(")):
        length_mm(text, SCOPE)


@pytest.mark.parametrize(
    ("text", "with_cm"),
    [
        ("3", "3 cm"),
        ("1/2", "1/2 cm"),
        ("5 1/4", "5 1/4 cm"),
        ("3½", "3½ cm"),
        ("3+2", "3 cm + 2 cm"),
        ("7−2", "7 cm - 2 cm"),
        ("(1+1)/2", "(1 cm + 1 cm)/2"),
        ("3 / 4", "3/4 cm"),
        ("3*2", "3 cm*2"),
        ("12/2/3", "12/2 cm/3"),
        ("2*(3+1)", "2 cm*(3 + 1)"),
        ("1/(2+3)", "1 cm/(2 + 3)"),
        ("-(1/2+3/4)", "-(1/2 cm + 3/4 cm)"),
        ("-2", "-2 cm"),
        ("2 in", "2 in"),
        ("bust/12", "bust/12"),
        (3.5, "3.5 cm"),
        (1e-07, "0.000000100000 cm"),
    ],
)
def test_a_bare_length_is_given_its_unit_and_means_the_same(text: str | float, with_cm: str) -> None:
    assert with_unit(text, "cm") == with_cm
    assert length_mm(with_cm, Scope("in", SCOPE.measures)) == pytest.approx(length_mm(text, SCOPE), abs=1e-9)


NUMBERS = st.one_of(
    st.integers(1, 99).map(str),
    st.sampled_from(["2,5", "1.5", "½", "3½", "5 1/4", "1/2", "7/8", ".5", "0"]),
    st.sampled_from(["2 in", "3 cm", "4 mm", "bust", "waist/2"]),
)
FORMULAS = st.recursive(
    NUMBERS,
    lambda inner: st.one_of(
        st.tuples(inner, st.sampled_from(["+", "-", "*", "/", " + ", " - ", "−", "×", "÷"]), inner).map("".join),
        inner.map(lambda text: f"({text})"),
        inner.map(lambda text: f"-{text}"),
    ),
    max_leaves=8,
)


@given(FORMULAS, st.sampled_from(["cm", "mm", "in"]), st.sampled_from(["cm", "mm", "in"]))
def test_whatever_the_calculator_takes_means_the_same_in_another_unit(text: str, old: Unit, new: Unit) -> None:
    try:
        before = length_mm(text, Scope(old, SCOPE.measures))
        made = with_unit(text, old)
    except FormulaError:
        return
    assert length_mm(made, Scope(new, SCOPE.measures)) == pytest.approx(before, rel=1e-12, abs=1e-9)


@pytest.mark.parametrize(("text", "share"), [("55%", 0.55), (0.55, 0.55), ("1/2", 0.5), ("50 %", 0.5), ("100%", 1.0), (0, 0.0)])
def test_shares(text: str | float, share: float) -> None:
    assert share_of(text) == pytest.approx(share)


@pytest.mark.parametrize("text", ["120%", "-5%", "2 cm", "half", 1.5, math.nan, True])
def test_shares_that_are_none(text: str | float) -> None:
    with pytest.raises(FormulaError):
        share_of(text)


@given(st.integers(-2000, 2000))
def test_inches_go_out_and_in_to_the_sixteenth(sixteenths: int) -> None:
    mm = sixteenths * 25.4 / 16
    text = inch_fraction(mm)
    sign = -1 if text.startswith("-") else 1
    assert sign * length_mm(f"{text.lstrip('-')} in", SCOPE) == pytest.approx(mm, abs=1e-9)


@given(st.floats(-3000.0, 3000.0))
def test_written_lengths_are_near(mm: float) -> None:
    assert abs(length_mm(format_length(mm, "cm", fine=True), SCOPE) - mm) <= 0.0501
    assert abs(length_mm(format_length(mm, "mm", fine=True), SCOPE) - mm) <= 0.0501


def test_words_of_lengths() -> None:
    assert format_length(130.0, "cm") == "13.0 cm"
    assert format_length(133.35, "in") == "5 1/4 in"
    assert format_length(-0.001, "cm") == "0.0 cm"
    assert format_length(12.34, "mm") == "12 mm"
    assert inch_fraction(25.4) == "1"


@given(st.text(max_size=60))
def test_no_text_does_more_than_be_refused(text: str) -> None:
    try:
        mm = length_mm(text, SCOPE)
    except FormulaError as fault:
        assert "\n" not in str(fault)
    else:
        assert math.isfinite(mm)


def test_readable_takes_unknown_measurements_but_no_code() -> None:
    assert readable("nape_to_hem/3") == "nape_to_hem/3"
    with pytest.raises(FormulaError):
        readable("open('x')")
