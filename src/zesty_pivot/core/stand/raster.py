"""A picture of surfaces by a depth buffer in NumPy: smooth shading, colours by band, and which lines are seen.

Seen from afar (parallel projection), turned about the upright and tilted.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.record import record
from zesty_pivot.core.stand.cloth import added

MOST = 1_000_000  # places of triangles that are looked at in one go
LIGHT = np.array([-0.35, 0.45, 0.82])  # from the left above, towards the picture: x right, y up, z towards the eye

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]


@record
class Viewpoint:
    """From where it is looked at: `turn` radians about the upright (0 from the front, a quarter turn from the wearer's left),
    `tilt` radians from above, `scale` pixels a mm, `middle` (x, y) the place of the picture's middle in mm, right and up of the
    form's axis at the waist."""

    turn: float
    tilt: float
    scale: float
    middle: tuple[float, float]
    size: tuple[int, int]

    def seen(self, points: Points) -> Points:
        """Points (n, 3) mm as seen: x and y in pixels, y down, and how near in pixels."""
        turned = self.turned(points)
        wide, tall = self.size
        x = (turned[:, 0] - self.middle[0]) * self.scale + wide / 2.0
        y = tall / 2.0 - (turned[:, 1] - self.middle[1]) * self.scale
        return np.stack([x, y, turned[:, 2] * self.scale], axis=1)

    def turned(self, ways: Points) -> Points:
        """Directions or points (n, 3) as seen: right, up, towards the eye."""
        cos, sin = np.cos(self.turn), np.sin(self.turn)
        # From the front one looks at the wearer: the left side (x > 0) lies at the right.
        right = ways[:, 0] * cos - ways[:, 1] * sin
        near = ways[:, 0] * sin + ways[:, 1] * cos
        up, away = np.cos(self.tilt), np.sin(self.tilt)
        return np.stack([right, ways[:, 2] * up - near * away, ways[:, 2] * away + near * up], axis=1)


@record(eq=False)
class Skin:
    """A surface to be drawn: `points` (n, 3) mm, `triangles` (t, 3), `normals` (n, 3); `values` (n,) what is shown of it in
    bands, or none; `colors` of the bands from the least on (k, 3), 0 to 255, one colour without values; `limits` (k - 1,)
    between the bands. Of one that `is_closed` only what faces the eye is drawn."""

    points: Points
    triangles: Numbers
    normals: Points
    colors: Points
    values: Points | None = None
    limits: tuple[float, ...] = ()
    is_closed: bool = False


@record(eq=False)
class Picture:
    """`pixels` (tall, wide, 4) red, green, blue, covered, 0 to 255; `near` (tall, wide) how near what is seen there is, pixels,
    minus infinity where nothing is."""

    pixels: NDArray[np.uint8]
    near: Points


def normals_of(points: Points, triangles: Numbers) -> Points:
    """Normals (n, 3) of length one at the points of a surface, by the triangles round them."""
    corners = points[triangles]
    across = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    found = np.stack([added(triangles.ravel(), np.repeat(across[:, k], 3), len(points)) for k in range(3)], axis=1)
    return np.asarray(found / np.maximum(np.linalg.norm(found, axis=1), 1e-12)[:, None])


def drawn(skins: tuple[Skin, ...], eye: Viewpoint) -> Picture:
    """The skins as they are seen, the nearest in front. Colours are worked out for what is seen only."""
    wide, tall = eye.size
    near = np.full(wide * tall, -np.inf)
    whose = np.full(wide * tall, -1, dtype=np.int8)
    which, two = np.zeros(wide * tall, dtype=np.int64), np.zeros((2, wide * tall))
    for number, skin in enumerate(skins):
        seen = eye.seen(skin.points)
        there = np.flatnonzero(_faces(seen, skin))
        for pixel, triangle, shares, depth in _places(seen[skin.triangles[there]], wide, tall):
            np.maximum.at(near, pixel, depth)
            front = np.flatnonzero(depth >= near[pixel])
            pixel = pixel[front]
            whose[pixel], which[pixel], two[:, pixel] = number, there[triangle[front]], shares[:, front]
    color = np.zeros((wide * tall, 4), dtype=np.uint8)
    for number, skin in enumerate(skins):
        mine = np.flatnonzero(whose == number)
        corners, shares = skin.triangles[which[mine]], np.stack([1.0 - two[0, mine] - two[1, mine], two[0, mine], two[1, mine]])
        color[mine, :3] = _shaded(skin, eye.turned(skin.normals), corners, shares)
        color[mine, 3] = 255
    return Picture(color.reshape(tall, wide, 4), near.reshape(tall, wide))


def _shaded(skin: Skin, facing: Points, corners: Numbers, shares: Points) -> Points:
    """Colours (n, 3) of places in triangles: corners (n, 3) and their shares (3, n)."""
    light = LIGHT / np.linalg.norm(LIGHT)
    normal = sum(facing[corners[:, k]] * shares[k][:, None] for k in range(3))
    normal = np.asarray(normal) / np.maximum(np.linalg.norm(normal, axis=1), 1e-9)[:, None]
    bright = 0.52 + 0.48 * np.abs(normal @ light) - 0.10 * (1.0 - np.abs(normal[:, 2]))
    if skin.values is None:
        colors = skin.colors[:1]
    else:
        value = sum(skin.values[corners[:, k]] * shares[k] for k in range(3))
        colors = skin.colors[np.searchsorted(np.array(skin.limits), np.asarray(value))]
    return np.asarray(np.clip(colors * bright[:, None], 0.0, 255.0))


def _faces(seen: Points, skin: Skin) -> NDArray[np.bool_]:
    """The triangles that can be seen: of a closed surface those that face the eye."""
    if not skin.is_closed:
        return np.ones(len(skin.triangles), dtype=bool)
    a, b, c = (seen[skin.triangles[:, k], :2] for k in range(3))
    return np.asarray((b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0]) < 0.0)


def is_seen(picture: Picture, seen: Points, within: float) -> NDArray[np.bool_]:
    """Which points as seen (n, 3) are not behind what is drawn by more than `within` pixels."""
    tall, wide = picture.near.shape
    column, row = np.floor(seen[:, 0]).astype(np.int64), np.floor(seen[:, 1]).astype(np.int64)
    is_in = (column >= 0) & (column < wide) & (row >= 0) & (row < tall)
    there = picture.near[np.clip(row, 0, tall - 1), np.clip(column, 0, wide - 1)]
    return np.asarray(is_in & (seen[:, 2] >= there - within))


def _places(corners: Points, wide: int, tall: int) -> Iterator[tuple[Numbers, Numbers, Points, Points]]:
    """Pixels that triangles (t, 3, 3) as seen cover, in portions: their numbers, the triangle of each, the shares (2, n) of its
    second and third corner, and how near it is (n,)."""
    low = np.clip(np.ceil(corners[:, :, :2].min(axis=1) - 0.5), 0, [wide, tall]).astype(np.int64)  # middles of pixels
    high = np.clip(np.floor(corners[:, :, :2].max(axis=1) - 0.5) + 1.0, 0, [wide, tall]).astype(np.int64)
    sizes = np.maximum(high - low, 0)
    planes, near = _planes(corners)
    counts = sizes.prod(axis=1)
    there = np.flatnonzero(counts)
    low, sizes, planes, near, counts = low[there], sizes[there], planes[:, there], near[:, there], counts[there]
    whole = np.concatenate([[0], np.cumsum(counts)])
    start = 0
    while start < len(counts):
        stop = max(int(np.searchsorted(whole, whole[start] + MOST, side="right")) - 1, start + 1)
        count = counts[start:stop]
        triangle = np.repeat(np.arange(start, stop, dtype=np.int32), count)
        inside = np.arange(len(triangle), dtype=np.int32) - np.repeat(
            (whole[start:stop] - whole[start]).astype(np.int32), count
        )
        down = inside // np.repeat(sizes[start:stop, 0].astype(np.int32), count)
        across = inside - down * np.repeat(sizes[start:stop, 0].astype(np.int32), count)
        x = across + np.repeat(low[start:stop, 0].astype(np.int32), count)
        y = down + np.repeat(low[start:stop, 1].astype(np.int32), count)
        of = planes[:, start:stop]
        second = np.repeat(of[0], count) * x + np.repeat(of[1], count) * y + np.repeat(of[2], count)
        third = np.repeat(of[3], count) * x + np.repeat(of[4], count) * y + np.repeat(of[5], count)
        is_in = np.flatnonzero((second >= -1e-6) & (third >= -1e-6) & (second + third <= 1.0 + 1e-6))
        triangle, shares = triangle[is_in], np.stack([second[is_in], third[is_in]])
        depth = near[0, triangle] + shares[0] * near[1, triangle] + shares[1] * near[2, triangle]
        yield y[is_in].astype(np.int64) * wide + x[is_in], there[triangle], shares, depth
        start = stop


def _planes(corners: Points) -> tuple[Points, Points]:
    """Of each triangle the shares of its second and third corner over the middles of pixels, as x, y and constant (6, t); how
    near its first corner is, and by how much nearer the others are (3, t)."""
    a, b, c = corners[:, 0], corners[:, 1], corners[:, 2]
    twice = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0])
    twice = np.where(np.abs(twice) < 1e-9, 1e-9, twice)
    second = [(c[:, 1] - a[:, 1]) / twice, -(c[:, 0] - a[:, 0]) / twice]
    third = [-(b[:, 1] - a[:, 1]) / twice, (b[:, 0] - a[:, 0]) / twice]
    rows = []
    for along, down in (second, third):
        rows += [along, down, -(a[:, 0] - 0.5) * along - (a[:, 1] - 0.5) * down]
    return np.stack(rows), np.stack([a[:, 2], b[:, 2] - a[:, 2], c[:, 2] - a[:, 2]])
