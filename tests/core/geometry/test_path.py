"""Paths as values, SVG path data, motions."""

import copy
import pickle

import numpy as np
import pytest
import svgelements
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import cubics
from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Motion, Path, svgpath


def test_a_path_cannot_be_written() -> None:
    path = Path.straight((0, 0), (10, 0))
    with pytest.raises(ValueError, match="read-only"):
        path.cubics[0, 0, 0] = 5.0
    with pytest.raises(AttributeError, match="frozen"):
        path.cubics = path.cubics + 1.0
    moved = path.moved(Motion.shift(np.array([1.0, 0.0])))
    with pytest.raises(ValueError, match="read-only"):
        moved.cubics[0, 0, 0] = 5.0


def test_paths_are_equal_by_their_points() -> None:
    one, two = Path.straight((0, 0), (10, 0)), Path.straight((0, 0), (10, 0))
    assert one == two and hash(one) == hash(two)
    assert one != Path.straight((0, 0), (10, 1))


@pytest.mark.parametrize(
    "points",
    [np.zeros((1, 3, 2)), np.zeros((0, 4, 2)), np.full((1, 4, 2), np.nan), np.array([np.zeros((4, 2)), np.ones((4, 2))])],
)
def test_no_path_from_wrong_points(points: np.ndarray) -> None:
    with pytest.raises(GeometryError):
        Path(points)


@given(cubics, st.floats(-3.0, 3.0))
def test_a_turn_keeps_length_and_turning_back_is_nothing(cubic: np.ndarray, angle: float) -> None:
    path, pin = Path(cubic[None]), np.array([94.0, 268.0])
    there = path.moved(Motion.turn(pin, angle))
    assert Path(there.cubics).length == pytest.approx(path.length, abs=1e-8)
    assert there.moved(Motion.turn(pin, -angle)).cubics == pytest.approx(path.cubics, abs=1e-11)


def test_a_positive_turn_is_clockwise_on_the_paper() -> None:
    assert Motion.turn(np.zeros(2), np.pi / 2)(np.array([1.0, 0.0])) == pytest.approx([0.0, 1.0])


def test_laying_one_line_on_another() -> None:
    motion = Motion.lay((np.array([1.0, 1.0]), np.array([2.0, 1.0])), (np.array([5.0, 5.0]), np.array([5.0, 9.0])))
    assert motion(np.array([2.0, 1.0])) == pytest.approx([5.0, 6.0])


def test_a_mirror_twice_is_nothing() -> None:
    mirror = Motion.reflect(np.array([3.0, 4.0]), np.array([1.0, 2.0]))
    points = np.array([[10.0, -3.0], [0.0, 7.0]])
    assert mirror(mirror(points)) == pytest.approx(points)


@given(st.lists(cubics, min_size=1, max_size=4))
def test_path_data_against_svgelements(shapes: list[np.ndarray]) -> None:
    paths = [Path(shape[None]) for shape in shapes]
    text = svgpath.write(paths)
    theirs = [s for s in svgelements.Path(text) if not isinstance(s, svgelements.Move)]
    for path, segment in zip(paths, theirs, strict=True):
        assert (segment.end.x, segment.end.y) == pytest.approx(tuple(path.end), abs=1e-5)
    again = svgpath.read(text)
    assert len(again) == len(paths)
    for path, other in zip(paths, again, strict=True):
        assert other.cubics == pytest.approx(path.cubics, abs=1e-6)


def test_relative_and_short_commands() -> None:
    (path,) = svgpath.read("m 10 10 l 5 0 h 5 v 5 c 0 5 -5 5 -5 0 L 1 1 z")
    assert path.start == pytest.approx([10, 10]) and path.end == pytest.approx([10, 10])
    assert len(path.cubics) == 6


@pytest.mark.parametrize(
    "text", ["", "L 1 1", "M 0 0", "M 0 0 Q 1 1 2 2", "M 0 0 L 1", "M 0 0 L x 1", "1 2 3", "M 0 0 L 1 1 M 4 4"]
)
def test_path_data_that_is_refused(text: str) -> None:
    with pytest.raises(GeometryError):
        svgpath.read(text)


@given(cubics)
def test_a_stretch_lies_between_its_lengths(cubic: np.ndarray) -> None:
    path = Path(cubic[None])
    if path.length < 20.0:
        return
    part = path.between(path.length * 0.2, path.length * 0.7)
    assert Path(part.cubics).length == pytest.approx(path.length * 0.5, abs=1e-5)
    assert part.start == pytest.approx(path.point_at(path.length * 0.2), abs=1e-6)


def test_a_split_that_leaves_nothing_is_refused() -> None:
    with pytest.raises(GeometryError, match="leaves nothing"):
        Path.straight((0, 0), (10, 0)).split_at(0.0)


@given(cubics, st.floats(-3.0, 3.0), st.floats(-3.0, 3.0))
def test_motions_one_after_the_other_and_taken_back(cubic: np.ndarray, one: float, two: float) -> None:
    first, second = Motion.turn(np.array([30.0, -5.0]), one), Motion.turn(np.array([-400.0, 70.0]), two)
    both = first.then(second)
    assert both(cubic) == pytest.approx(second(first(cubic)), abs=1e-9)
    assert both.undone(both(cubic)) == pytest.approx(cubic, abs=1e-9)
    assert first.undone.then(first)(cubic) == pytest.approx(cubic, abs=1e-9)


@given(cubics, st.floats(-3.0, 3.0))
def test_lengths_hang_on_nothing_that_was_asked_before(cubic: np.ndarray, angle: float) -> None:
    """Once they went along where they were known and were measured anew where not: the last digits of a report differed."""
    known, fresh, turn = Path(cubic[None]), Path(cubic[None].copy()), Motion.turn(np.array([300.0, 40.0]), angle)
    assert known.length >= 0.0
    assert (known.moved(turn).lengths == fresh.moved(turn).lengths).all()
    known, fresh = Path(cubic[None]), Path(cubic[None].copy())
    assert known.length >= 0.0
    assert (known.reversed().lengths == fresh.reversed().lengths).all()


def test_copied_and_sent_it_stays_read_only() -> None:
    path = Path.polyline(np.array([[0.0, 0.0], [30.0, 40.0], [30.0, 50.0]]))
    assert path.length == pytest.approx(60.0)
    for other in (pickle.loads(pickle.dumps(path)), copy.deepcopy(path), pickle.loads(pickle.dumps(Path(path.cubics)))):
        assert other == path and other.length == path.length and not other.cubics.flags.writeable
