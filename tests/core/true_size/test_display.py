"""True size by measured bars and by marks on a mat, against OpenCV's projections and plain arithmetic."""

from __future__ import annotations

import numpy as np
import pytest

from zesty_pivot.core.errors import GeometryError, ZestyError
from zesty_pivot.core.geometry.projective import projected, projection
from zesty_pivot.core.true_size.display import Display, first_marks, mark_places, shown_by
from zesty_pivot.core.true_size.simulated import SIZE, SimulatedProjector

MAT = (1000.0, 600.0)  # mm: a mat that a projector fills


def aimed(projector: SimulatedProjector, device: Display, noise: np.ndarray) -> Display:
    marks = projector.px_at(mark_places(device)) + noise
    return device.model_copy(update={"marks": tuple((float(x), float(y)) for x, y in marks)})


@pytest.mark.parametrize("count", [4, 6, 9])
def test_marks_without_noise_are_exact(count: int) -> None:
    projector, device = SimulatedProjector(), Display(count=count, mat=(600.0, 400.0))
    shown = shown_by(aimed(projector, device, np.zeros((count, 2))), SIZE)
    square = np.array([(-250.0, -250.0), (250.0, -250.0), (250.0, 250.0), (-250.0, 250.0)])
    on_mat = projector.on_mat(shown.to_px(square))
    assert np.abs(on_mat - square).max() < 1e-6
    assert np.abs(shown.to_mm(shown.to_px(square)) - square).max() < 1e-6
    assert shown.off is None if count == 4 else shown.off < 1e-6


def test_a_square_of_500_mm_after_marks_with_half_a_pixel_of_noise() -> None:
    """Two hundred aimings of nine marks over 1,000 by 600 mm, each off by up to half a pixel either way: sides and diagonals
    within 1 mm, wherever on the mat the square lies."""
    projector, device = SimulatedProjector(), Display(count=9, mat=MAT)
    worst, chance = 0.0, np.random.default_rng(0)
    for _ in range(200):
        shown = shown_by(aimed(projector, device, chance.uniform(-0.5, 0.5, (9, 2))), SIZE)
        for middle in (-250.0, 0.0, 250.0):
            square = np.array([(-250.0, -250.0), (250.0, -250.0), (250.0, 250.0), (-250.0, 250.0)]) + np.array((middle, 0.0))
            corners = projector.on_mat(shown.to_px(square))
            sides = np.hypot(*(corners - np.roll(corners, -1, axis=0)).T)
            across = np.hypot(*(corners[2:] - corners[:2]).T)
            worst = max(worst, np.abs(sides - 500.0).max(), np.abs(across - 500.0 * np.sqrt(2.0)).max())
        assert shown.off < 0.6
    assert worst < 1.0


def test_the_mark_that_fits_worst_is_named() -> None:
    projector, device = SimulatedProjector(), Display(count=9, mat=MAT)
    for number in range(9):
        noise = np.zeros((9, 2))
        noise[number] = (6.0, -4.0)
        shown = shown_by(aimed(projector, device, noise), SIZE)
        assert shown.worst == number and shown.off > 0.5


def test_the_projection_is_that_of_opencv() -> None:
    """cv2.getPerspectiveTransform for four points, cv2.findHomography (least squares) for nine."""
    cv2 = pytest.importorskip("cv2")
    projector = SimulatedProjector()
    square = np.array([(0.0, 0.0), (900.0, 30.0), (870.0, 700.0), (-20.0, 640.0)])
    theirs = cv2.getPerspectiveTransform(square.astype(np.float32), projector.px_at(square).astype(np.float32))
    ours = projection(square, projector.px_at(square))
    assert np.abs(ours / ours[2, 2] - theirs).max() < 1e-3
    places = mark_places(Display(count=9, mat=MAT))
    noisy = projector.px_at(places) + np.random.default_rng(3).normal(0.0, 0.4, (9, 2))
    theirs, _ = cv2.findHomography(places, noisy)
    ours = projection(places, noisy)
    assert np.abs(projected(ours, places) - projected(theirs, places)).max() < 0.05  # px: they go on to refine it


def test_bars_that_were_measured() -> None:
    """A screen of 1600 by 900 px whose bars of 1280 and 720 px measure 344 and 193.5 mm: 94.5 dots an inch."""
    shown = shown_by(Display(way="bars", bars=(344.0, 193.5)), (1600.0, 900.0))
    corner = shown.to_px(np.array([100.0, -50.0]))
    assert corner == pytest.approx((800.0 + 100.0 * 1280 / 344.0, 450.0 - 50.0 * 720 / 193.5))
    assert shown.off is None
    assert shown_by(Display(way="bars"), (1600.0, 900.0)) is None and shown_by(Display(), (1600.0, 900.0)) is None


@pytest.mark.parametrize("bars", [(0.0, 193.5), (-5.0, 100.0), (344.0, 20.0), (1e9, 1e9), (1.0, 1.0)])
def test_bars_that_no_screen_has(bars: tuple[float, float]) -> None:
    with pytest.raises(ZestyError) as fault:
        shown_by(Display(way="bars", bars=bars), (1600.0, 900.0))
    assert "easure" in fault.value.advice


@pytest.mark.parametrize("count", [4, 6, 9])
def test_marks_on_wrong_crosses_are_told(count: int) -> None:
    projector, device = SimulatedProjector(), Display(count=count, mat=(600.0, 400.0))
    marks = list(aimed(projector, device, np.zeros((count, 2))).marks)
    wrong = [[marks[1], marks[0], *marks[2:]], [marks[0]] * count, [(float(n), 5.0) for n in range(count)]]
    for each in wrong:
        with pytest.raises(ZestyError, match="crosswise"):
            shown_by(device.model_copy(update={"marks": tuple(each)}), SIZE)
    # Upside down and from behind are ways to hang a projector.
    for order in (list(reversed(marks)), [(SIZE[0] - x, y) for x, y in marks]):
        assert shown_by(device.model_copy(update={"marks": tuple(order)}), SIZE) is not None


def test_first_marks_lie_on_the_picture_in_rows() -> None:
    for count in (4, 6, 9):
        device = Display(count=count, mat=(600.0, 400.0))
        marks = np.array(first_marks(device, SIZE))
        assert len(marks) == count and (marks > 0).all() and (marks < SIZE).all()
        assert marks[0][0] < marks[1][0] and marks[0][1] < marks[-1][1]
        ratio = np.ptp(marks[:, 0]) / np.ptp(marks[:, 1])
        assert ratio == pytest.approx(1.5)


def test_points_that_tell_no_projection() -> None:
    with pytest.raises(GeometryError, match="four points"):
        projection(np.zeros((3, 2)), np.zeros((3, 2)))
    line = np.array([(float(n), 2.0 * n) for n in range(5)])
    with pytest.raises(GeometryError, match="one line"):
        projection(line, line)
