"""A photograph read, its marks found, and the table in it laid flat: a picture from straight above, so many pixels to a
millimetre."""

from __future__ import annotations

import math
import struct
from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.intake.photo.camera import FEW, Camera, solved
from zesty_pivot.core.intake.photo.mat import Mat, mat_of
from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.record import record

Pixels = NDArray[np.uint8]

MOST_PIXELS = 60_000_000  # of a picture; a telephone has 12 to 50 million
FINEST, COARSEST = 4.0, 1.5  # pixels to a millimetre of the flat picture
MOST_FLAT = 10_000_000  # pixels of it: a frame at its finest; more would take over 1 GB to work on
LENS = 1.2  # mm that a lens may do where it could not be taken out; up to 1.9, as trials showed
NO_LENS = "With fewer than six marks the lens cannot be taken out: expect errors of up to 2 mm. Take a picture of all twelve."
HOW_TO_GET_IT = "Photographs need OpenCV: pip install 'zesty-pivot[photo]'."


@record(eq=False)
class Flat:
    """The table from above: `pixels` (h, w, 3) blue, green, red; `fine` pixels to a millimetre; `seen` (h, w) where a picture
    shows it. `window` is where the table is looked at (left, top, right, bottom, mm), within the frame of marks where there is
    one. `off` is how well the marks fit (mm), `blur` how wide a pixel of the photograph is on the table (mm), `untold` what is
    not told by them, such as the lens (mm); `notes` say so."""

    pixels: Pixels
    fine: float
    seen: NDArray[np.bool_]
    window: tuple[float, float, float, float]
    off: float
    blur: float
    untold: float = 0.0
    marks: int = 0
    notes: tuple[str, ...] = ()


def opencv() -> Any:
    """The library that pictures are worked on with. Raises FileError, with the way to get it, where it is not there."""
    try:
        import cv2
    except ImportError:
        raise FileError("photographs cannot be read here", advice=HOW_TO_GET_IT) from None
    return cv2


def read(content: bytes) -> Pixels:
    """A PNG or JPEG as blue, green and red. Raises FileError for what is neither, broken, or too large."""
    width, height = size_of(content)
    if width * height > MOST_PIXELS:
        raise FileError(f"the picture has {width * height / 1e6:.0f} million pixels", advice="Save it with at most 60 million.")
    if min(width, height) < 200:
        raise FileError(f"the picture is only {width} x {height} pixels", advice="Take one of at least 2 million pixels.")
    cv2 = opencv()
    try:
        found = cv2.imdecode(np.frombuffer(content, np.uint8), cv2.IMREAD_COLOR)
    except cv2.error:
        found = None
    if found is None:
        raise FileError("the picture cannot be read", advice="Save it again as JPEG or PNG.")
    return np.asarray(found, dtype=np.uint8)


def size_of(content: bytes) -> tuple[int, int]:
    """Width and height of a PNG or JPEG by its header, before anything is unpacked. Raises FileError for anything else."""
    if content.startswith(b"\x89PNG\r\n\x1a\n") and len(content) >= 24:
        width, height = struct.unpack(">II", content[16:24])
        return int(width), int(height)
    if content.startswith(b"\xff\xd8"):
        at = 2
        while at + 9 <= len(content):
            if content[at] != 0xFF:
                at += 1
                continue
            kind = content[at + 1]
            if kind in (0xFF, 0x01) or 0xD0 <= kind <= 0xD9:
                at += 1 if kind == 0xFF else 2
                continue
            if 0xC0 <= kind <= 0xCF and kind not in (0xC4, 0xC8, 0xCC):
                height, width = struct.unpack(">HH", content[at + 5 : at + 9])
                return int(width), int(height)
            at += 2 + struct.unpack(">H", content[at + 2 : at + 4])[0]
    raise FileError("it is neither PNG nor JPEG", advice="Save the picture as JPEG or PNG.")


def marks_in(pixels: Pixels) -> dict[int, Array]:
    """The marks that a picture shows: by number their corners clockwise from the mark's own upper left, (4, 2) px."""
    cv2 = opencv()
    grey = cv2.cvtColor(pixels, cv2.COLOR_BGR2GRAY)
    settings = cv2.aruco.DetectorParameters()
    settings.cornerRefinementMethod = cv2.aruco.CORNER_REFINE_NONE
    settings.adaptiveThreshWinSizeMax = 53
    settings.minMarkerPerimeterRate = 0.01
    known = cv2.aruco.getPredefinedDictionary(cv2.aruco.DICT_4X4_50)
    corners, numbers, _others = cv2.aruco.ArucoDetector(known, settings).detectMarkers(grey)
    found: dict[int, Array] = {}
    for number, four in zip([] if numbers is None else numbers.ravel().tolist(), corners, strict=True):
        points = np.asarray(four, dtype=np.float32).reshape(-1, 1, 2)
        side = float(np.hypot(*(points[0, 0] - points[1, 0])))
        reach = int(np.clip(side / 6.0 * 0.45, 2, 12))
        finer = cv2.cornerSubPix(grey, points.copy(), (reach, reach), (-1, -1), (3, 60, 0.002))
        found[int(number)] = np.asarray(finer, dtype=np.float64).reshape(4, 2)
    return found


def flat(pictures: Sequence[Pixels]) -> Flat:
    """The table from above, put together from one picture or several that each show at least four marks of one frame.

    Raises FileError where a picture shows too few, or another frame.
    """
    cameras: list[Camera] = []
    frame: Mat | None = None
    counts = []
    for number, pixels in enumerate(pictures, 1):
        which = f"picture {number}: " if len(pictures) > 1 else ""
        marks = marks_in(pixels)
        own = mat_of(set(marks))
        if own is None:
            raise FileError(
                f"{which}no mark of a printed frame is seen in it",
                advice="Print the frame of marks and lay the block within it.",
            )
        if frame is not None and own != frame:
            raise FileError(f"{which}it shows another frame than the first", advice="Take all pictures within one frame.")
        frame = own
        known = {mark.number: corners for mark in own.marks if (corners := marks.get(mark.number)) is not None}
        places = np.concatenate([own.mark(number).corners for number in known])  # type: ignore[union-attr]
        if len(known) < 4:
            said = f"{which}only {len(known)} of the frame's marks {'is' if len(known) == 1 else 'are'} seen"
            raise FileError(said, advice="Take it so that at least four marks are whole, twelve for the best.")
        cameras.append(solved(places, np.concatenate(list(known.values())), (pixels.shape[1], pixels.shape[0])))
        counts.append(len(known))
    assert frame is not None
    fewest = min(counts)
    has_lens = fewest * 4 >= FEW
    notes = (f"{fewest} marks are seen.", *(() if has_lens else (NO_LENS,)))
    box = (frame.width, frame.height)
    off = max(camera.off for camera in cameras)
    return laid_flat(pictures, cameras, box, frame.window, off, 0.0 if has_lens else LENS, fewest, notes)


def laid_flat(
    pictures: Sequence[Pixels], cameras: Sequence[Camera], box: tuple[float, float], window: tuple[float, float, float, float],
    off: float, untold: float, marks: int, notes: tuple[str, ...],
) -> Flat:  # fmt: skip
    """The table (width and height, mm) put together from pictures by their cameras; each place by the picture that shows it
    best."""
    cv2 = opencv()
    middle = np.array([box[0] / 2.0, box[1] / 2.0])
    fine = float(np.clip(1.25 * max(camera.scale(middle) for camera in cameras), COARSEST, FINEST))
    fine = min(fine, math.sqrt(MOST_FLAT / (box[0] * box[1])))
    size = (round(box[0] * fine), round(box[1] * fine))
    best: Pixels | None = None
    weight = np.zeros((size[1], size[0]), np.float32)
    for camera, pixels in zip(cameras, pictures, strict=True):
        maps = _maps(camera, size, fine)
        laid = cv2.remap(pixels, maps[..., 0], maps[..., 1], cv2.INTER_CUBIC, borderMode=cv2.BORDER_CONSTANT)
        mine = _weight(maps, pixels.shape[1], pixels.shape[0])
        if best is None:
            best = laid
        else:
            best[mine > weight] = laid[mine > weight]
        weight = np.maximum(weight, mine)
    assert best is not None
    blur = 1.0 / min(camera.scale(middle) for camera in cameras)
    return Flat(best, fine, weight > 0.0, window, off, blur, untold, marks, notes)


def _maps(camera: Camera, size: tuple[int, int], fine: float) -> NDArray[np.float32]:
    """Where in a picture each pixel of the flat one comes from, (h, w, 2) px; worked out on a coarse grid and drawn out."""
    cv2 = opencv()
    step = 8
    xs, ys = np.arange(0, size[0] + step, step), np.arange(0, size[1] + step, step)
    places = np.stack(np.meshgrid(xs / fine, ys / fine), axis=-1)
    coarse = camera.picture(places).astype(np.float32)
    grid_x, grid_y = np.meshgrid(np.arange(size[0], dtype=np.float32) / step, np.arange(size[1], dtype=np.float32) / step)
    return np.asarray(cv2.remap(coarse, grid_x, grid_y, cv2.INTER_LINEAR), dtype=np.float32)


def _weight(maps: NDArray[np.float32], width: int, height: int) -> NDArray[np.float32]:
    """How good a picture is for each pixel: nothing outside it, more towards its middle, where lenses are sharp."""
    inside = np.minimum(np.minimum(maps[..., 0], width - 1 - maps[..., 0]), np.minimum(maps[..., 1], height - 1 - maps[..., 1]))
    return np.asarray(np.maximum(inside, 0.0), dtype=np.float32)
