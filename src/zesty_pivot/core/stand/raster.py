"""A picture of surfaces by a depth buffer in NumPy: smooth shading, colours by band, and which lines are seen.

Seen from afar (parallel projection), turned about the upright and tilted.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.record import record
from zesty_pivot.core.stand.cloth import added

MOST = 4_000_000  # places of triangles that are looked at in one go
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
    between the bands; `edge` the colour of the lines between bands, where there is one."""

    points: Points
    triangles: Numbers
    normals: Points
    colors: Points
    values: Points | None = None
    limits: tuple[float, ...] = ()
    edge: tuple[int, int, int] | None = None


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
    """The skins as they are seen, the nearest in front."""
    wide, tall = eye.size
    near = np.full(wide * tall, -np.inf)
    color = np.zeros((wide * tall, 4), dtype=np.uint8)
    light = LIGHT / np.linalg.norm(LIGHT)
    for skin in skins:
        seen, facing = eye.seen(skin.points), eye.turned(skin.normals)
        for pixel, triangle, shares in _places(seen[skin.triangles], wide, tall):
            corners = skin.triangles[triangle]
            depth = (seen[corners, 2] * shares).sum(axis=1)
            np.maximum.at(near, pixel, depth)
            front = depth >= near[pixel]
            pixel, corners, shares = pixel[front], corners[front], shares[front]
            normal = np.einsum("nki,nk->ni", facing[corners], shares)
            normal /= np.maximum(np.linalg.norm(normal, axis=1), 1e-9)[:, None]
            bright = 0.52 + 0.48 * np.abs(normal @ light) - 0.10 * (1.0 - np.abs(normal[:, 2]))
            color[pixel, :3] = np.clip(_colors(skin, corners, shares) * bright[:, None], 0.0, 255.0)
            color[pixel, 3] = 255
    return Picture(color.reshape(tall, wide, 4), near.reshape(tall, wide))


def is_seen(picture: Picture, seen: Points, within: float) -> NDArray[np.bool_]:
    """Which points as seen (n, 3) are not behind what is drawn by more than `within` pixels."""
    tall, wide = picture.near.shape
    column, row = np.floor(seen[:, 0]).astype(np.int64), np.floor(seen[:, 1]).astype(np.int64)
    is_in = (column >= 0) & (column < wide) & (row >= 0) & (row < tall)
    there = picture.near[np.clip(row, 0, tall - 1), np.clip(column, 0, wide - 1)]
    return np.asarray(is_in & (seen[:, 2] >= there - within))


def _places(corners: Points, wide: int, tall: int):  # type: ignore[no-untyped-def]
    """Pixels that triangles cover, in portions: their numbers, the triangle of each, the shares (n, 3) of its corners."""
    low = np.clip(np.floor(corners[:, :, :2].min(axis=1) - 0.5), 0, [wide, tall]).astype(np.int64)
    high = np.clip(np.ceil(corners[:, :, :2].max(axis=1) + 0.5), 0, [wide, tall]).astype(np.int64)
    sizes = np.maximum(high - low, 0)
    counts = sizes.prod(axis=1)
    whole = np.concatenate([[0], np.cumsum(counts)])
    start = 0
    while start < len(counts):
        stop = max(int(np.searchsorted(whole, whole[start] + MOST, side="right")) - 1, start + 1)
        count = counts[start:stop]
        triangle = np.repeat(np.arange(start, stop), count)
        inside = np.arange(len(triangle)) - np.repeat(whole[start:stop] - whole[start], count)
        across = np.maximum(sizes[triangle, 0], 1)
        x, y = low[triangle, 0] + inside % across, low[triangle, 1] + inside // across
        a, b, c = (corners[triangle, k] for k in range(3))
        twice = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0])
        twice = np.where(np.abs(twice) < 1e-9, 1e-9, twice)
        px, py = x + 0.5, y + 0.5
        second = ((px - a[:, 0]) * (c[:, 1] - a[:, 1]) - (py - a[:, 1]) * (c[:, 0] - a[:, 0])) / twice
        third = ((b[:, 0] - a[:, 0]) * (py - a[:, 1]) - (b[:, 1] - a[:, 1]) * (px - a[:, 0])) / twice
        is_in = (second >= -1e-6) & (third >= -1e-6) & (second + third <= 1.0 + 1e-6)
        shares = np.stack([1.0 - second - third, second, third], axis=1)[is_in]
        yield (y * wide + x)[is_in], triangle[is_in], shares
        start = stop


def _colors(skin: Skin, corners: Numbers, shares: Points) -> Points:
    if skin.values is None:
        return np.broadcast_to(skin.colors[0], (len(corners), 3))
    value = (skin.values[corners] * shares).sum(axis=1)
    return np.asarray(skin.colors[np.searchsorted(np.array(skin.limits), value)])
