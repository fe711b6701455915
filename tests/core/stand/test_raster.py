"""The picture: what is in front is seen, from the side that is asked for, in the colour of its value."""

from __future__ import annotations

import numpy as np
import pytest

from tests.bodies import PERSON
from tests.fitted import worn_demo
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.maps import GAPS
from zesty_pivot.core.stand.raster import Skin, Viewpoint, drawn, is_seen, normals_of
from zesty_pivot.core.stand.scene import LOOKS, Palette, cloth_skin, form_skin, grain, seams, tapes

RED, BLUE = (200.0, 20.0, 20.0), (20.0, 20.0, 200.0)


def wall(y: float, color: tuple[float, float, float], half: float = 50.0) -> Skin:
    """A square across the view at a depth."""
    points = np.array([[-half, y, -half], [half, y, -half], [half, y, half], [-half, y, half]])
    triangles = np.array([[0, 1, 2], [0, 2, 3]])
    return Skin(points, triangles, normals_of(points, triangles), np.array([color]))


def view(turn: float = 0.0, tilt: float = 0.0, scale: float = 1.0, size: tuple[int, int] = (160, 160)) -> Viewpoint:
    return Viewpoint(turn, tilt, scale, (0.0, 0.0), size)


def test_the_nearest_is_seen() -> None:
    for skins in ((wall(-20.0, RED), wall(20.0, BLUE)), (wall(20.0, BLUE), wall(-20.0, RED))):
        front = drawn(skins, view()).pixels[80, 80]
        assert front[2] > front[0]  # y to the front: the blue one
        behind = drawn(skins, view(turn=np.pi)).pixels[80, 80]
        assert behind[0] > behind[2]


def test_size_and_place() -> None:
    picture = drawn((wall(0.0, RED),), view())
    rows, columns = np.nonzero(picture.pixels[..., 3])
    assert (columns.min(), columns.max(), rows.min(), rows.max()) == (30, 129, 30, 129)  # 100 mm at 1 pixel a mm
    assert picture.pixels[0, 0].tolist() == [0, 0, 0, 0]
    assert np.isneginf(picture.near[0, 0])
    twice = drawn((wall(0.0, RED),), view(scale=0.5))
    assert (twice.pixels[..., 3] > 0).sum() == pytest.approx(2500, abs=60)


def test_left_as_worn_lies_at_the_right_and_up_is_up() -> None:
    seen = view().seen(np.array([[30.0, 0.0, 10.0], [0.0, 0.0, 0.0]]))
    assert seen[0, 0] > seen[1, 0]
    assert seen[0, 1] < seen[1, 1]
    # From the wearer's left the front lies at the left of the picture; from above what is before lies lower.
    side = view(turn=np.pi / 2.0).seen(np.array([[0.0, 30.0, 0.0], [50.0, 0.0, 0.0], [-50.0, 0.0, 0.0]]))
    assert side[0, 0] < 80.0
    assert side[1, 2] > side[2, 2]
    assert view(tilt=0.5).seen(np.array([[0.0, 30.0, 0.0]]))[0, 1] > 80.0


def test_bands() -> None:
    skin = wall(0.0, RED)
    values = Skin(skin.points, skin.triangles, skin.normals, np.array([RED, BLUE]), np.array([0.0, 10.0, 10.0, 0.0]), (5.0,))
    row = drawn((values,), view()).pixels[80]
    assert row[50, 0] > row[50, 2]
    assert row[110, 2] > row[110, 0]
    change = np.flatnonzero(np.diff((row[30:130, 0] > row[30:130, 2]).astype(int)))
    assert len(change) == 1
    assert change[0] + 30 == pytest.approx(79, abs=1)  # half way


def test_lines_behind_are_not_seen() -> None:
    picture = drawn((wall(0.0, RED),), view())
    spots = view().seen(np.array([[0.0, 5.0, 0.0], [0.0, -5.0, 0.0], [70.0, -5.0, 0.0], [200.0, 0.0, 0.0]]))
    assert is_seen(picture, spots, 1.0).tolist() == [True, False, True, False]


def test_a_triangle_beyond_the_edge_does_no_harm() -> None:
    picture = drawn((wall(0.0, RED, half=5000.0),), view(size=(40, 30)))
    assert picture.pixels.shape == (30, 40, 4)
    assert (picture.pixels[..., 3] == 255).all()
    assert not drawn((wall(0.0, RED),), Viewpoint(0.0, 0.0, 1.0, (900.0, 0.0), (40, 30))).pixels.any()


def test_the_scene_of_a_bodice() -> None:
    fitting, palette = worn_demo("Descant"), Palette()
    eye = Viewpoint(0.4, 0.1, 0.6, (0.0, 150.0), (300, 320))
    form = drawn((form_skin(fitting.form, palette, -250.0),), eye)
    assert 0.15 < (form.pixels[..., 3] > 0).mean() < 0.8
    seen = set()
    for look in LOOKS:
        picture = drawn((form_skin(fitting.form, palette, -250.0), cloth_skin(fitting, look, palette)), eye)
        changed = (picture.pixels != form.pixels).any(axis=2).mean()
        assert changed > 0.1, look
        seen.add(picture.pixels.tobytes())
        assert (
            drawn((form_skin(fitting.form, palette, -250.0), cloth_skin(fitting, look, palette)), eye).pixels.tobytes() in seen
        )
    assert len(seen) == len(LOOKS) - 1  # grain is cloth with lines on it
    # Both halves: the cloth is as wide on the left as on the right.
    front = drawn((cloth_skin(fitting, "cloth", palette),), Viewpoint(0.0, 0.0, 0.6, (0.0, 150.0), (300, 320)))
    columns = np.nonzero(front.pixels[..., 3].any(axis=0))[0]
    assert columns.min() + columns.max() == pytest.approx(299, abs=2)


def test_bands_are_told_apart_by_lightness() -> None:
    bands = np.array(Palette().bands, dtype=float) / 255.0
    assert len(bands) == len(GAPS) + 1
    linear = np.where(bands <= 0.04045, bands / 12.92, ((bands + 0.055) / 1.055) ** 2.4)  # IEC 61966-2-1
    light = linear @ (0.2126, 0.7152, 0.0722)
    ratio = (light[:-1] + 0.05) / (light[1:] + 0.05)
    assert (ratio > 1.2).all()


def test_lines_on_the_body() -> None:
    fitting = worn_demo("Descant")
    kinds = {line.kind for line in seams(fitting)}
    assert {"seam", "dart", "edge", "fold"} <= kinds
    for line in (*seams(fitting), *grain(fitting)):
        assert np.isfinite(line.points).all()
    shoulders = [line for line in seams(fitting) if line.kind == "seam" and line.points[:, 2].min() > 300.0]
    assert shoulders
    assert len(seams(fitting)) % 2 == 0  # both sides
    form = form_of(PERSON)
    rings = [line for line in tapes(form) if line.kind == "tape"]
    assert len(rings) == 5
    waist = next(line for line in rings if abs(line.points[0, 2]) < 1e-9)
    assert np.linalg.norm(np.diff(waist.points, axis=0), axis=1).sum() == pytest.approx(PERSON["waist"], rel=0.002)
