"""The outlines of the pieces on a flat picture of the table, to a part of a pixel, and what is drawn in them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.loops import clockwise
from zesty_pivot.core.intake.photo.notches import WIDEST, notches_in, without_notches
from zesty_pivot.core.intake.photo.picture import Flat, opencv
from zesty_pivot.core.intake.photo.strokes import AT_POINT, points_of_darts, strokes_in, turning
from zesty_pivot.core.intake.pieces import GRAIN_LEAST, free_line
from zesty_pivot.core.intake.traced import Array, Point, TracedPaper, TracedPiece
from zesty_pivot.core.record import record

Floats = NDArray[np.float32]
Mask = NDArray[np.uint8]

# All our own choices, tried on rendered photographs.
BORDER = 14.0  # mm inside the frame where only the table is seen
LEAST_PIECE = 60.0  # cm²; less is a scrap or a shadow
EVERY = 0.5  # mm between the places where the edge is sought
LOOK = 3.0  # mm to both sides of it
PEN_WIDE = 1.4  # mm; what is narrower and open to the edge is a line, no cut
STRAYS = 0.1  # mm that the places found on an edge stray
AT_HOLE = 9.0  # mm from a notch that a hole is: nearer, it is the notch
AT_NOTCH = 4.0  # mm to both sides of a notch where the edge is not looked at
AT_PEN = 2.5  # mm to both sides of a pen's line that runs out over the edge where the edge is not looked at
RUNS_OUT = 6.0  # mm from a line's end to the edge that it runs out over
LEAST_CONTRAST = 0.25  # of the usual difference between piece and table; where there is less, the edge is not seen


@record(eq=False)
class _Scene:
    """How much each pixel differs from the table, in units of the table's own unevenness; the pieces' mask; and what is
    narrowly cut into or drawn on their edges."""

    differs: Floats
    mask: Mask
    limit: float
    gaps: Mask


def traced(flat: Flat) -> TracedPaper:
    """The pieces that lie within the frame. Raises FileError where none is seen."""
    scene = _scene(flat)
    rings = _rings(scene, flat)
    if not rings:
        raise FileError(
            "no piece is seen within the frame", advice="Lay the block on a cloth or card of another colour, in even light."
        )
    notes = list(flat.notes)
    band = error_of(flat)
    pieces = []
    for ring, is_cut in rings:
        if is_cut:
            notes.append("A piece reaches the edge of what is looked at: what lies beyond is not seen.")
        plain, cut_in = without_notches(_evenly(ring, EVERY))
        cut_in = _apart((*cut_in, *notches_in(scene.gaps, plain, flat.fine)))  # what the outline tells is the truer
        points = points_of_darts(_smoothed(plain, 1))
        cut_in = tuple(at for at in cut_in if not len(points) or float(np.hypot(*(points - at).T).min()) > AT_POINT)
        outline = _sharpened(plain, scene, flat, cut_in)
        cut_in = tuple(_on(outline, at) for at in cut_in)
        inner, drawn, holes, crosses = strokes_in(flat, outline)
        outline = _without_pens(outline, inner)
        size = float(np.max(outline.max(axis=0) - outline.min(axis=0)))
        grain, lines = free_line(inner, shapely.Polygon(outline).buffer(0), GRAIN_LEAST * size)
        holes = tuple(hole for hole in holes if all(math.dist(hole, at) > AT_HOLE for at in cut_in))
        notches = (*cut_in, *(at for at in drawn if all(math.dist(at, other) > 4.0 for other in cut_in)))
        pieces.append(
            TracedPiece(
                clockwise(Path.polyline(np.concatenate([outline, outline[:1]]))), inner=tuple(lines), notches=notches,
                holes=holes, crosses=crosses, error=band, strays=STRAYS, grain=grain,
            )
        )  # fmt: skip
    return TracedPaper(tuple(pieces), tuple(notes))


def error_of(flat: Flat) -> float:
    """How far an outline may lie from the true one, mm: twice what the marks are off, a third of a pixel, the paper's own
    edge, and what the marks do not tell."""
    return 2.0 * flat.off + 0.35 * flat.blur + 0.1 + flat.untold


def _scene(flat: Flat) -> _Scene:
    """Tells the table by its colours along the frame's inner edge, with the light that changes over it."""
    cv2 = opencv()
    left, top, right, bottom = (round(value * flat.fine) for value in flat.window)
    lab = cv2.cvtColor(flat.pixels, cv2.COLOR_BGR2Lab).astype(np.float32)
    lab = cv2.GaussianBlur(lab, (0, 0), 0.35 * flat.fine)
    height, width = lab.shape[:2]
    inside = np.zeros((height, width), np.uint8)
    inside[top:bottom, left:right] = 1
    inside[~flat.seen] = 0
    edge = 2 * round(BORDER * flat.fine) + 1
    kernel = np.ones((edge, edge), np.uint8)
    band = inside & ~cv2.erode(inside, kernel, borderType=cv2.BORDER_CONSTANT, borderValue=0) & 1
    differs = _differences(lab, band, inside)
    # Once more, with the light told from all of the table that is seen.
    rough = (differs < _threshold(differs, inside)) & (inside > 0)
    if rough.mean() > 0.05:
        differs = _differences(lab, cv2.erode(rough.astype(np.uint8), np.ones((9, 9), np.uint8)) | band, inside)
    limit = _threshold(differs, inside)
    mask = ((differs > limit) & (inside > 0)).astype(np.uint8)
    # A pen's line from the edge inwards is no slit in the paper.
    filled = cv2.morphologyEx(mask, cv2.MORPH_CLOSE, _round(WIDEST * flat.fine))
    plain = cv2.morphologyEx(mask, cv2.MORPH_CLOSE, _round(PEN_WIDE * flat.fine))
    return _Scene(differs, cv2.morphologyEx(plain, cv2.MORPH_OPEN, _round(3)), limit, filled & ~mask & 1)


def _round(size: float) -> Any:
    """A disc to brush over a mask with, so many pixels wide."""
    cv2, wide = opencv(), max(3, round(size) | 1)
    return cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (wide, wide))


def _differences(lab: Floats, where: Mask, inside: Mask) -> Floats:
    """How far each pixel is from the table's colour, a surface of the second degree through what is seen of it, in units of its
    unevenness; nothing outside. Channel by channel: a picture has ten million pixels."""
    height, width = lab.shape[:2]
    ys, xs = np.nonzero(where)
    if len(xs) < 500:
        raise FileError(
            "too little of the table is seen round the piece", advice="Leave some of the table free within the frame."
        )
    some = np.random.default_rng(1).choice(len(xs), min(len(xs), 20_000), replace=False)
    x, y = xs[some] / width - 0.5, ys[some] / height - 0.5
    basis = np.stack([np.ones_like(x), x, y, x * y, x * x, y * y], axis=-1)
    colours = lab[ys[some], xs[some]]
    kept = np.ones(len(some), bool)
    solved = np.zeros((6, 3))
    for _round in range(4):  # what is no table is left out step by step
        solved, *_ = np.linalg.lstsq(basis[kept], colours[kept], rcond=None)
        off = np.abs(colours - basis @ solved).max(axis=1)
        kept = off <= max(3.0 * float(np.median(off[kept])) * 1.5, 3.0)
    spread = np.maximum(1.4826 * np.median(np.abs(colours[kept] - basis[kept] @ solved), axis=0), 1.0)
    gx = (np.arange(width, dtype=np.float32) / width - np.float32(0.5))[None, :]
    gy = (np.arange(height, dtype=np.float32) / height - np.float32(0.5))[:, None]
    found = np.zeros((height, width), np.float32)
    for channel, c in enumerate(solved.T.astype(np.float32)):
        off = lab[..., channel] - (c[0] + c[1] * gx + c[4] * gx * gx + (c[2] + c[3] * gx) * gy + c[5] * gy * gy)
        off /= np.float32(spread[channel])
        off *= off
        found += off
    np.sqrt(found, out=found)
    found[inside == 0] = 0.0
    return found


def _threshold(differs: Floats, inside: Mask) -> float:
    """Between table and pieces: Otsu's threshold on the differences, from memory (Otsu 1979)."""
    cv2 = opencv()
    values = differs[inside > 0]
    top = float(np.percentile(values, 99.0)) or 1.0
    eight = np.clip(values / top * 255.0, 0, 255).astype(np.uint8).reshape(-1, 1)
    limit, _ = cv2.threshold(eight, 0, 255, cv2.THRESH_BINARY + cv2.THRESH_OTSU)
    return max(float(limit) / 255.0 * top, 4.0)


def _rings(scene: _Scene, flat: Flat) -> list[tuple[Array, bool]]:
    """The pieces' outlines to a pixel, mm, and whether they reach the frame."""
    cv2 = opencv()
    contours, _tree = cv2.findContours(scene.mask, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    left, top, right, bottom = flat.window
    found = []
    for contour in contours:
        if cv2.contourArea(contour) < LEAST_PIECE * 100.0 * flat.fine**2:
            continue
        ring = contour[:, 0, :].astype(float) / flat.fine
        low, high = ring.min(axis=0), ring.max(axis=0)
        is_cut = bool((low - [left, top]).min() < 1.0 or ([right, bottom] - high).min() < 1.0)
        found.append((ring, is_cut))
    return sorted(found, key=lambda one: float(one[0][:, 0].min()))


def _sharpened(ring: Array, scene: _Scene, flat: Flat, notches: tuple[Point, ...]) -> Array:
    """The outline where the picture is half way between piece and table, every EVERY mm. Where the outline turns sharply
    it stays to the pixel: corners are told by the lines beside them. Across a notch nothing is told."""
    even = _evenly(ring, EVERY)
    smooth = _smoothed(even, 2)
    way = np.roll(smooth, -2, axis=0) - np.roll(smooth, 2, axis=0)
    size = np.maximum(np.hypot(way[:, 0], way[:, 1]), 1e-9)
    normal = np.stack([-way[:, 1], way[:, 0]], axis=1) / size[:, None]
    reach = np.arange(-LOOK, LOOK + 1e-9, 0.1)
    places = smooth[:, None, :] + reach[None, :, None] * normal[:, None, :]
    values = _sampled(scene.differs, places * flat.fine)
    low, high = values[:, :10].mean(axis=1), values[:, -10:].mean(axis=1)
    usual = float(np.median(np.abs(high - low)))
    half = (low + high) / 2.0
    side = np.sign(high - low)
    above = (values - half[:, None]) * side[:, None] > 0.0
    crossing = above[:, 1:] & ~above[:, :-1]
    cost = np.where(crossing, np.abs(reach[None, 1:] - 0.05), np.inf)
    at = cost.argmin(axis=1)
    rows = np.arange(len(at))
    one, two = values[rows, at], values[rows, at + 1]
    share = np.clip((half - one) / np.where(np.abs(two - one) > 1e-9, two - one, 1.0), 0.0, 1.0)
    moved = smooth + (reach[at] + 0.1 * share)[:, None] * normal
    turn = turning(smooth)
    is_seen = np.isfinite(cost[rows, at]) & (np.abs(high - low) > LEAST_CONTRAST * usual) & (turn < math.radians(25.0))
    found = np.where(is_seen[:, None], moved, even)
    for at in notches:
        clear = np.hypot(*(even - at).T) > AT_NOTCH
        found, even = found[clear], even[clear]
    return found


def _without_pens(outline: Array, lines: Sequence[Path]) -> Array:
    """The outline without its places where a drawn line runs out over the edge: there the pen's dark reads as the table."""
    edge = shapely.LinearRing(outline)
    for line in lines:
        for end, other in ((line.start, line.end), (line.end, line.start)):
            way = (end - other) / max(line.length, 1e-9)
            out = shapely.LineString([end - way * AT_PEN, end + way * RUNS_OUT])
            for at in shapely.get_coordinates(edge.intersection(out)):
                clear = np.hypot(*(outline - at).T) > AT_PEN
                outline = outline[clear] if clear.sum() > 50 else outline
    return outline


def _on(outline: Array, at: Point) -> Point:
    """The place of a closed outline nearest to another."""
    edge = shapely.LinearRing(outline)
    where = edge.interpolate(edge.project(shapely.Point(at)))
    return float(where.x), float(where.y)


def _apart(places: tuple[Point, ...]) -> tuple[Point, ...]:
    """Places without those that lie within 4 mm of one before."""
    found: list[Point] = []
    for at in places:
        if all(math.dist(at, other) > 4.0 for other in found):
            found.append(at)
    return tuple(found)


def _evenly(ring: Array, every: float) -> Array:
    closed = np.concatenate([ring, ring[:1]])
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(closed, axis=0).T))])
    at = np.arange(0.0, along[-1], every)
    return np.stack([np.interp(at, along, closed[:, axis]) for axis in (0, 1)], axis=1)


def _smoothed(points: Array, reach: int) -> Array:
    return np.asarray(np.mean([np.roll(points, shift, axis=0) for shift in range(-reach, reach + 1)], axis=0))


def _sampled(values: Floats, at: Array) -> NDArray[np.float64]:
    """A picture's values at places (..., 2) px, between the pixels."""
    cv2: Any = opencv()
    flat_at = at.reshape(-1, at.shape[-2], 2).astype(np.float32)
    parts = [
        cv2.remap(values, part[..., 0], part[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
        for part in np.array_split(flat_at, max(1, len(flat_at) // 8000 + 1))
    ]
    found: NDArray[np.float64] = np.concatenate(parts).reshape(at.shape[:-1]).astype(np.float64)
    return found
