"""The language of methods: reading, units, refusals; the operations against arithmetic by hand and SciPy."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.optimize import fsolve

from zesty_pivot.core.drafting.evaluate import Surroundings, number, worth
from zesty_pivot.core.drafting.expression import names_in, parsed, statement
from zesty_pivot.core.drafting.operations import OPERATIONS
from zesty_pivot.core.drafting.values import Inked, Number, Point, kind_of
from zesty_pivot.core.errors import FormulaError, GeometryError, ZestyError

NAMES = {
    "bust": Number(965.2, 1), "half": Number(0.5), "front.A": Point.of(0.0, 0.0), "front.B": Point.of(30.0, 40.0),
    "front.C": Point.of(60.0, 0.0), "back.A": Point.of(7.0, 8.0), "school": "mid",
}  # fmt: skip
AROUND = Surroundings(NAMES, "front")


def point(text: str) -> tuple[float, float]:
    found = worth(parsed(text), AROUND)
    assert isinstance(found, Point), found
    return found.x, found.y


def length(text: str) -> float:
    return number(parsed(text), AROUND)


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("bust/6 + 1 1/2 in", 965.2 / 6 + 38.1), ("3/4 in", 19.05), ("2 cm - 5 mm", 15.0), ("-(1 in)", -25.4),
        ("bust*half", 482.6),
        ("max(1 cm, 3 mm; 2 mm)", 10.0), ("min(bust, 1 in)", 25.4), ("abs(0 - 1 cm)", 10.0), ("dist(A, B)", 50.0),
        ("B.x", 30.0),
        ("back.A.y", 8.0), ("x_at(A, B, 20 mm)", 15.0), ("if(school == 'mid', 1 cm, 2 cm)", 10.0),
        ("if(bust > 1 m or bust < 2 cm, 1 cm, 2 cm)".replace("1 m", "99 cm"), 20.0), ("length(line(A, B, C))", 100.0),
        ("if(has(waist), 1 cm, 3 cm)", 30.0), ("if(not has(waist) and bust >= 2 cm, 4 cm, 3 cm)", 40.0),
    ],
)  # fmt: skip
def test_lengths_by_hand(text: str, mm: float) -> None:
    assert length(text) == pytest.approx(mm)


@pytest.mark.parametrize(
    ("text", "x", "y"),
    [
        ("at(1 cm, 2 cm)", 10, 20), ("down(A, 5 mm)", 0, 5), ("up(B, 5 mm)", 30, 35), ("out(A, 5 mm)", 5, 0),
        ("in(B, 5 mm)", 25, 40),
        ("mid(A, B)", 15, 20), ("share(A, B, 0.25)", 7.5, 10), ("on(A, B, 10 mm)", 6, 8), ("on(A, B, -(10 mm))", -6, -8),
        ("on(A, B, 10 cm)", 60, 80), ("perp(A, C, C, 10 mm)", 60, 10), ("cross(A, B, C, at(60 mm, 1 mm))", 60, 80),
        ("arcs(A, 50 mm; C, 50 mm; near B)", 30, 40), ("arcs(A, 50 mm; C, 50 mm; near at(0 cm, -(9 cm)))", 30, -40),
        ("turn(C, A, 2*atan(1))", 0, 60),  # a quarter turn, clockwise: x turns towards y
        ("level(A; B, C)", 50, 0),
    ],
)  # fmt: skip
def test_points_by_hand(text: str, x: float, y: float) -> None:
    assert point(text) == pytest.approx((x, y), abs=1e-9)


@given(st.floats(10, 300), st.floats(10, 300), st.floats(-200, 200), st.floats(-200, 200))
def test_arcs_are_what_a_solver_finds(r: float, s: float, x: float, y: float) -> None:
    """scipy.optimize.fsolve as an independent way to the crossing; circles that do not meet are refused."""
    names = {
        "P": Point.of(0.0, 0.0),
        "Q": Point.of(x, y),
        "R": Point.of(x + 50.0, y - 80.0),
        "r": Number(r, 1),
        "s": Number(s, 1),
    }
    apart = math.hypot(x, y)
    if not abs(r - s) + 0.5 < apart < r + s - 0.5:
        return
    found = worth(parsed("arcs(P, r; Q, s; near R)"), Surroundings(names))
    assert isinstance(found, Point)

    def off(at: np.ndarray) -> list[float]:
        return [at[0] ** 2 + at[1] ** 2 - r * r, (at[0] - x) ** 2 + (at[1] - y) ** 2 - s * s]

    solved = fsolve(off, found.at + 0.01)
    assert math.dist(solved, found.at) < 1e-5
    mirrored = 2.0 * (found.at @ np.array([x, y])) / apart**2 * np.array([x, y]) - found.at
    assert math.dist(found.at, (x + 50.0, y - 80.0)) <= math.dist(mirrored, (x + 50.0, y - 80.0)) + 1e-6


def test_curves_leave_and_arrive_as_they_are_told() -> None:
    """Length of the quarter ellipse by scipy.integrate.quad over |B'|."""
    found = worth(parsed("blend(at(0 cm, 5 cm), outwards; at(3 cm, 0 cm), upwards; 0.5523)"), AROUND)
    assert isinstance(found, Inked)
    cubic = found.path.cubics[0]
    assert cubic[1] == pytest.approx([0.5523 * 30, 50]) and cubic[2] == pytest.approx([30, 0.5523 * 50])

    def speed(t: float) -> float:
        d = 3 * ((1 - t) ** 2 * (cubic[1] - cubic[0]) + 2 * t * (1 - t) * (cubic[2] - cubic[1]) + t * t * (cubic[3] - cubic[2]))
        return float(np.hypot(*d))

    assert found.path.length == pytest.approx(quad(speed, 0, 1)[0], abs=1e-6)
    curve = worth(parsed("curve(A, way(A, C), 1 cm; B, downwards, 2 cm)"), AROUND)
    assert isinstance(curve, Inked)
    assert curve.path.cubics[0][1] == pytest.approx([10, 0]) and curve.path.cubics[0][2] == pytest.approx([30, 20])
    turned = worth(parsed("turn(line(A, C), A, 2*atan(1))"), AROUND)
    assert isinstance(turned, Inked) and turned.path.end == pytest.approx([0, 60], abs=1e-9)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("bust + 2", "length \\+ number"), ("arcs(A, 1 mm; C, 1 mm; near B)", "do not meet"),
        ("arcs(A, 5 mm; A, 5 mm; near B)", "do not meet"),
        ("cross(A, B, A, B)", "side by side"), ("bsut/4", "no name 'bsut'"), ("nab(A, B)", "no operation 'nab'"),
        ("dist(A)", "takes 2 arg"),
        ("dist(A, bust)", "length where a point"), ("bust/(1 - 1)", "division by zero"), ("way(A, A)", "lie on each other"),
        ("asin(2)", "no arc sine"), ("(bust", "closing bracket"), ("bust bust", "does not go on"), ("at(1 cm,", "not finished"),
        ("", "nothing is written"), ("bust $ 2", "cannot be read"), ("if(bust, 1 cm, 2 cm)", "where a condition"),
        ("-A", "minus before a point"),
        ("blend(A, outwards; C, inwards; 0.5)", "lead towards each other"), ("x_at(A, C, 1 cm)", "level line"),
        ("sin(bust)", "length where a number"),
        ("max(bust, 2)", "beside a plain number"), ("(" * 60 + "bust", "too many"),
        ("bust + " * 80 + "bust", "characters"), ("if(1 > 0)", "takes 3"),
        ("'mid' + 1 cm", "cannot be worked out"), ("arcs(A, -(5 mm); C, 5 mm; near B)", "an arc of -5"),
    ],
)  # fmt: skip
def test_what_does_not_fit_is_said_in_a_sentence(text: str, says: str) -> None:
    with pytest.raises(ZestyError, match=says):
        worth(parsed(text), AROUND)


@given(st.text(alphabet="abABC.0123 ,;()+-*/<>='\"inmcorndtax_", max_size=60))
def test_any_text_is_read_or_refused(text: str) -> None:
    try:
        found = worth(parsed(text), AROUND)
    except (FormulaError, GeometryError):
        return
    assert kind_of(found)


def test_every_operation_is_listed_with_what_it_takes_and_gives() -> None:
    for name, operation in OPERATIONS.items():
        assert name.islower() and operation.takes and operation.gives and operation.summary, name


def test_a_statement_has_a_name_and_tells_what_it_asks_for() -> None:
    name, node = statement("tip = on(NP, back.tip, dist(A, B) + half_shoulder.x)")
    assert name == "tip" and list(names_in(node)) == ["NP", "back.tip", "A", "B", "half_shoulder"]
    with pytest.raises(FormulaError, match="names nothing"):
        statement("on(NP, tip, 3 cm)")
