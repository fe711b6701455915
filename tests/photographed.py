"""Photographs of a block on a table within the printed frame, rendered: a camera above it, a lens, light from one side,
paper and noise.

The camera is OpenCV's model (projectPoints: a rotation, a shift, a focal length, radial coefficients). No code of the
program draws.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np
import shapely
from numpy.typing import NDArray

Array = NDArray[np.float64]
Pixels = NDArray[np.uint8]

DRAWN = 5.0  # pixels to a millimetre of the table as it is drawn

cv2.setNumThreads(1)  # tests run side by side; one that takes every core starves the others
NOTCH_DEEP, NOTCH_WIDE = 5.0, 2.4  # mm, a notch that is cut in
PEN = (60, 55, 50)


@dataclass(frozen=True)
class OnTable:
    """A piece on the table, mm within the frame: its outline (m, 2), lines drawn on it, notches (place and the way inwards)."""

    outline: Array
    lines: tuple[tuple[Array, Array], ...] = ()
    notches: tuple[tuple[Array, Array], ...] = ()
    holes: tuple[Array, ...] = ()


def table(mat, pieces: Sequence[OnTable], chance: np.random.Generator, *, colour=(70, 90, 60), paper=(235, 240, 242)) -> Pixels:  # type: ignore[no-untyped-def]
    """The table from straight above, blue green red, DRAWN pixels to a millimetre, 60 mm of table round the frame."""
    margin = 60.0
    high, wide = (int((value + 2 * margin) * DRAWN) for value in (mat.height, mat.width))
    picture = np.empty((high, wide, 3), np.uint8)

    def px(points: Array) -> NDArray[np.int32]:
        return np.round((np.asarray(points) + margin) * DRAWN * 16).astype(np.int32)

    def fill(on: NDArray, points: Array, colour) -> None:  # type: ignore[no-untyped-def, type-arg]
        """Fills a shape; OpenCV fills half a pixel more all round, which is taken off first."""
        inner = shapely.Polygon(np.asarray(points)).buffer(-0.5 / DRAWN, join_style="mitre")
        for part in shapely.get_parts(inner):
            cv2.fillPoly(on, [px(np.array(part.exterior.coords))], colour, cv2.LINE_AA, 4)

    def unevenness(coarse: int, deep: float) -> NDArray[np.float32]:
        noise = (chance.standard_normal((high // coarse, wide // coarse), np.float32) * deep).astype(np.float32)
        return np.asarray(cv2.resize(noise, (wide, high)))

    cloth, grain = unevenness(6, 4.0), unevenness(3, 2.5)
    for channel, value in enumerate(colour):
        picture[..., channel] = np.clip(cloth + value, 0, 255)
    ground = picture.copy()
    left, top, right, bottom = mat.window
    if mat.marks:
        fill(picture, np.array([(0, 0), (mat.width, 0), (mat.width, mat.height), (0, mat.height)]), (248, 249, 250))
    a, b = ((np.array([(left, top), (right, bottom)]) + margin) * DRAWN).astype(int)
    picture[a[1] : b[1], a[0] : b[0]] = ground[a[1] : b[1], a[0] : b[0]]
    for mark in mat.marks:
        fill(picture, mark.corners, (18, 18, 18))
        for x, y, side in mark.fields:
            fill(picture, np.array([(x, y), (x + side, y), (x + side, y + side), (x, y + side)]), (248, 249, 250))
    for piece in pieces:
        mask = np.zeros((high, wide), np.uint8)
        fill(mask, piece.outline, 255)
        for at, inwards in piece.notches:
            side = np.array([-inwards[1], inwards[0]]) * NOTCH_WIDE / 2.0
            fill(mask, np.array([at - inwards * 2.0 + side, at + inwards * NOTCH_DEEP, at - inwards * 2.0 - side]), 0)
        ink = np.zeros_like(mask)
        for start, end in piece.lines:
            cv2.line(ink, px(start), px(end), 255, round(0.5 * DRAWN), cv2.LINE_AA, 4)
        for hole in piece.holes:
            cv2.circle(ink, px(hole), round(1.2 * DRAWN * 16), 255, -1, cv2.LINE_AA, 4)
        x, y, w, h = cv2.boundingRect(mask)
        here = np.s_[y : y + h, x : x + w]
        share, inked = (part[here].astype(np.float32)[..., None] / 255.0 for part in (mask, ink))
        sheet = (np.array(paper, np.float32) + grain[here][..., None]) * (1.0 - inked) + np.array(PEN, np.float32) * inked
        picture[here] = np.clip(picture[here] * (1.0 - share) + sheet * share, 0, 255)
    return picture


@dataclass(frozen=True)
class Shot:
    """How a picture is taken: its size in pixels, how far the camera leans (degrees), how it is turned, its lens."""

    width: int
    height: int
    lean: float
    towards: float
    turn: float
    k1: float
    k2: float = 0.0
    light: float = 0.25
    noise: float = 3.0
    blur: float = 0.8
    shift: tuple[float, float] = (0.0, 0.0)
    nearer: float = 1.0


def random_shot(chance: np.random.Generator, megapixels: float) -> Shot:
    """A hand that holds a telephone over the table."""
    width = round(math.sqrt(megapixels * 1e6 * 4.0 / 3.0))
    return Shot(
        width, round(width * 0.75), lean=chance.uniform(0.0, 22.0), towards=chance.uniform(0.0, 360.0),
        turn=chance.choice([0.0, 90.0, 180.0, 270.0]) + chance.uniform(-6.0, 6.0), k1=chance.uniform(-0.10, 0.06),
        k2=chance.uniform(-0.01, 0.01), light=chance.uniform(0.05, 0.35), noise=chance.uniform(1.0, 5.0),
        blur=chance.uniform(0.5, 1.1), shift=(chance.uniform(-15.0, 15.0), chance.uniform(-15.0, 15.0)),
    )  # fmt: skip


@dataclass(frozen=True)
class Placed:
    """A camera where a shot has it: its matrix, lens, turn, shift, and how far off it is (mm)."""

    matrix: Array
    bend: Array
    rotation: Array
    shift: Array
    far: float

    def seen_at(self, places: Sequence[Array]) -> Array:
        """Where places of the table (mm) are seen, px."""
        flat = np.array([(x, y, 0.0) for x, y in places])
        return np.asarray(
            cv2.projectPoints(flat, cv2.Rodrigues(self.rotation)[0], self.shift, self.matrix, self.bend)[0].reshape(-1, 2)
        )


def placed(mat, shot: Shot) -> Placed:  # type: ignore[no-untyped-def]
    """The camera moved away until the whole frame is in view."""
    focal = 0.85 * shot.width
    matrix = np.array([[focal, 0.0, shot.width / 2.0 - 0.5], [0.0, focal, shot.height / 2.0 - 0.5], [0.0, 0.0, 1.0]])
    bend = np.array([shot.k1, shot.k2, 0.0, 0.0, 0.0])
    lean, towards, turn = (math.radians(value) for value in (shot.lean, shot.towards, shot.turn))
    axis = np.array([math.cos(towards), math.sin(towards), 0.0]) * lean
    rotation = cv2.Rodrigues(axis)[0] @ cv2.Rodrigues(np.array([0.0, 0.0, turn]))[0]
    middle = np.array([mat.width / 2.0 + shot.shift[0], mat.height / 2.0 + shot.shift[1], 0.0])
    corners = [(0, 0), (mat.width, 0), (mat.width, mat.height), (0, mat.height)]
    far = 900.0
    for _step in range(60):
        seen = Placed(matrix, bend, rotation, -rotation @ middle + np.array([0.0, 0.0, far]), far).seen_at(corners)  # type: ignore[arg-type]
        if seen.min() > 12 and (seen[:, 0] < shot.width - 12).all() and (seen[:, 1] < shot.height - 12).all():
            break
        far *= 1.03
    far /= shot.nearer
    return Placed(matrix, bend, rotation, -rotation @ middle + np.array([0.0, 0.0, far]), far)


def photograph(drawn: Pixels, mat, shot: Shot, chance: np.random.Generator) -> Pixels:  # type: ignore[no-untyped-def]
    """The table as a camera sees it."""
    camera = placed(mat, shot)
    matrix, rotation, shift, focal = camera.matrix, camera.rotation, camera.shift, camera.matrix[0, 0]
    # Where each pixel of the photograph looks on the table: its ray, without the lens, meets the plane.
    step = 8
    xs, ys = np.meshgrid(
        np.arange(0, shot.width + step, step, dtype=np.float64), np.arange(0, shot.height + step, step, dtype=np.float64)
    )
    bent = np.stack([xs.ravel() - matrix[0, 2], ys.ravel() - matrix[1, 2]], axis=1) / focal
    rays = bent.copy()
    for _round in range(60):
        r2 = (rays**2).sum(axis=1, keepdims=True)
        rays = bent / (1.0 + shot.k1 * r2 + shot.k2 * r2**2)
    ways = np.concatenate([rays, np.ones((len(rays), 1))], axis=1) @ rotation
    origin = -rotation.T @ shift
    places = origin[:2] + ways[:, :2] * (-origin[2] / ways[:, 2])[:, None]
    grid = ((places + 60.0) * DRAWN - 0.5).reshape(*xs.shape, 2).astype(np.float32)
    gx, gy = np.meshgrid(np.arange(shot.width, dtype=np.float32) / step, np.arange(shot.height, dtype=np.float32) / step)
    maps = cv2.remap(grid, gx, gy, cv2.INTER_LINEAR)
    # The table is drawn finer than the camera sees it: it is softened to the camera's pixels first.
    per_pixel = DRAWN * camera.far / focal
    soft = cv2.GaussianBlur(drawn, (0, 0), max(0.1, shot.blur * per_pixel * 0.6))
    found = cv2.remap(
        soft, maps[..., 0], maps[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT, borderValue=(40, 45, 50)
    ).astype(np.float32)
    lx, ly = (
        np.linspace(-1, 1, shot.width, dtype=np.float32)[None, :],
        np.linspace(-1, 1, shot.height, dtype=np.float32)[:, None],
    )
    light = 1.0 + shot.light * (0.7 * lx + 0.4 * ly) - 0.12 * (lx**2 + ly**2)
    found = found * light[..., None] * 0.9 + chance.normal(0.0, shot.noise, found.shape).astype(np.float32)
    return np.asarray(np.clip(found, 0, 255), dtype=np.uint8)
