"""Lines moved aside: through every amount, monotone between them, smooth where a corner was."""

import gc
import math
import weakref

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.interpolate import PchipInterpolator

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.kept import Kept, kept_with
from zesty_pivot.core.moves.shaping import displaced, ended_at, fair_slopes, rounding_at

LEG = Path.straight((0.0, 0.0), (0.0, 200.0))
OTHER = Path.straight((0.0, 200.0), (60.0, 380.0))


@given(st.lists(st.tuples(st.floats(1.0, 80.0), st.floats(-40.0, 40.0)), min_size=2, max_size=7))
def test_slopes_are_those_of_scipy(parts: list[tuple[float, float]]) -> None:
    # Outside: SciPy's PchipInterpolator, written by others after the same paper.
    at = np.cumsum([step for step, _value in parts]).tolist()
    values = [value for _step, value in parts]
    theirs = PchipInterpolator(at, values).derivative()(at)
    assert fair_slopes(at, values) == pytest.approx(theirs.tolist(), abs=1e-9)


def test_the_line_goes_by_every_amount_and_not_beyond() -> None:
    amounts = [(0.0, 5.0), (60.0, 12.0), (120.0, 0.0), (200.0, 8.0)]
    (made,) = displaced([LEG], [(s, np.array([mm, 0.0])) for s, mm in amounts])
    for s, mm in amounts:
        nearest = min(made.flatten(1e-3), key=lambda point, s=s: abs(point[1] - s))
        assert nearest[0] == pytest.approx(mm, abs=0.01)
    xs = made.flatten(1e-3)[:, 0]
    assert xs.min() > -1e-9 and xs.max() < 12.0 + 1e-9
    steps = np.diff(made.flatten(1e-3), axis=0)
    assert np.abs(np.diff(np.unwrap(np.arctan2(steps[:, 1], steps[:, 0])))).max() < math.radians(3.0)


def test_a_corner_is_rounded_through_its_point() -> None:
    first, second = displaced([LEG, OTHER], [(0.0, np.zeros(2)), (1.0e3, np.zeros(2))], 60.0)
    assert np.allclose(first.end, (0.0, 200.0)) and np.allclose(second.start, (0.0, 200.0))
    assert first.end_direction == pytest.approx(second.start_direction, abs=1e-12)
    mean = LEG.end_direction + OTHER.start_direction
    assert first.end_direction == pytest.approx(mean / np.hypot(*mean), abs=1e-12)
    assert np.allclose(first.point_at(94.0), LEG.point_at(94.0)) and np.allclose(second.end, OTHER.end)
    assert rounding_at([LEG, OTHER], 60.0, 200.0) == pytest.approx([0.0, 0.0])
    assert np.hypot(*rounding_at([LEG, OTHER], 60.0, 180.0)) > 0.5
    assert np.hypot(*rounding_at([LEG, OTHER], 60.0, 120.0)) < 0.15 * np.hypot(*rounding_at([LEG, OTHER], 60.0, 180.0))
    assert rounding_at([LEG, OTHER], 60.0, 94.0) == pytest.approx([0.0, 0.0])


def test_an_end_is_put_elsewhere_and_the_other_keeps_its_direction() -> None:
    curve = Path(np.array([[[0.0, 0.0], [30.0, -10.0], [60.0, 5.0], [100.0, 0.0]]]))
    made = ended_at(curve, end=np.array([104.0, 6.0]))
    assert np.allclose(made.end, (104.0, 6.0)) and np.allclose(made.start, curve.start)
    assert made.start_direction == pytest.approx(curve.start_direction, abs=1e-9)
    back = ended_at(curve, start=np.array([-3.0, 2.0]))
    assert back.end_direction == pytest.approx(curve.end_direction, abs=1e-9) and np.allclose(back.start, (-3.0, 2.0))


def test_nothing_asked_for_changes_nothing() -> None:
    (made,) = displaced([OTHER], [(0.0, np.zeros(2)), (OTHER.length, np.zeros(2))])
    assert np.allclose(made.cubics, OTHER.cubics)


def test_two_amounts_at_one_place_are_refused() -> None:
    with pytest.raises(GeometryError, match="at one place"):
        displaced([LEG], [(50.0, np.zeros(2)), (50.0, np.array([1.0, 0.0]))])


def test_work_is_kept_while_its_values_are_the_same() -> None:
    kept: Kept[list[int]] = Kept()
    one, two, done = object(), object(), []

    def work() -> list[int]:
        done.append(1)
        return [len(done)]

    assert kept.get((one,), ("a",), work) is kept.get((one,), ("a",), work) and len(done) == 1
    assert kept.get((two,), ("a",), work) == [2] and kept.get((one,), ("b",), work) == [3]
    for number in range(40):
        kept.get((one,), (number,), work)
    assert kept.get((two,), ("a",), work) == [44]  # the oldest have gone


def test_what_is_kept_with_a_value_goes_with_it() -> None:
    class Thing:
        pass

    done: list[object] = []

    @kept_with
    def work(value: Thing, *key: int) -> int:
        done.append(key)
        return len(done)

    one, two = Thing(), Thing()
    assert work(one) == 1 and work(one) == 1 and work(one, 3) == 2 and work(two, 3) == 3 and work(one, 3) == 2
    for _ in range(200):  # a new thing may get the place in memory of one that has gone, but not its result
        assert work(Thing(), 7) == len(done)


def test_a_result_that_holds_its_value_keeps_nothing_alive() -> None:
    """Found by torture: kept in a table beside the values, every piece that was opened up stayed for ever."""

    class Thing:
        pass

    itself = kept_with(lambda thing: (thing,))
    thing = Thing()
    assert itself(thing) is itself(thing)
    gone = weakref.ref(thing)
    del thing
    gc.collect()
    assert gone() is None
