"""Rendered photographs of the demo's block: seams within 0.5 mm, notches within 1 mm, with twelve marks. `make torture`
takes many."""

from __future__ import annotations

import math
import subprocess
from pathlib import Path

import cv2
import numpy as np
import pytest
import shapely

from tests.core.intake.comparing import apart, length
from tests.core.intake.photo.scenes import scene
from tests.photographed import DRAWN, OnTable, Shot, photograph, placed, random_shot, table
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, imported, photographed
from zesty_pivot.core.formats.pdf_mat import mat_pdf
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.intake.photo import camera, picture
from zesty_pivot.core.intake.photo.mat import BITS, PAGES, SIZE, mat, mat_of
from zesty_pivot.core.intake.photo.sized import Known, flat_by
from zesty_pivot.core.intake.tagging import tagged
from zesty_pivot.core.nest.paged import EDGE, OVERLAP, PAPERS
from zesty_pivot.core.record import replace
from zesty_pivot.data.demo import demo_style

SEAM, NOTCH, DRAWN_SEAM = (
    0.5,
    1.0,
    0.9,
)  # mm; the acceptance, and what was reached with darts that are drawn at 3 million pixels
FRAME = mat("A4")


def encoded(pixels: np.ndarray) -> bytes:
    return cv2.imencode(".png", pixels)[1].tobytes()


def compare(source: photographed.PhotoSource, on_table) -> tuple[float, float]:  # type: ignore[no-untyped-def]
    """The worst seam and the worst notch, mm."""
    tagging = tagged(source.paper)
    made = block_file.pattern(block_of(tagging))
    block = block_file.pattern(demo_style().block)
    seams, notches = [], []
    for piece, drawn in on_table:
        number = next(n for n, one in tagging.pieces.items() if one.body.value == piece.name)
        found = tagging.pieces[number]
        marks = [np.array(at) for at in source.paper.pieces[number].notches]
        notches += [min(math.dist(at, mark) for mark in marks) for at, _way in drawn.notches]
        for id, _role in block.piece(piece.name).roles:
            sizes = [
                sum(length(cubic) for run in its.piece(piece.name).runs if run.edge == id for cubic in run.path.cubics)
                for its in (block, made)
            ]
            seams.append(abs(sizes[0] - sizes[1]))
        assert {dart.id for dart in found.darts} == set(piece.darts)
    return max(seams), max(notches)


@pytest.mark.parametrize(("seed", "megapixels", "drawn"), [(0, 3.0, False), (7, 3.0, True)])
def test_a_photograph_of_the_demos_block(seed: int, megapixels: float, drawn: bool) -> None:
    """The darts cut out; or drawn, where a shoulder in two parts is told by two pen lines of half a millimetre across its
    edge."""
    chance = np.random.default_rng(seed)
    on_table = scene(demo_style().block, drawn=drawn)
    pixels = photograph(table(FRAME, [one for _piece, one in on_table], chance), FRAME, random_shot(chance, megapixels), chance)
    source = photographed.from_bytes("photo.png", encoded(pixels))
    assert source.flat.marks == 12 and source.flat.off < 0.2
    seam, notch = compare(source, on_table)
    assert seam <= (DRAWN_SEAM if drawn else SEAM)
    assert notch <= NOTCH
    assert all(piece.grain is not None for piece in source.paper.pieces)


def test_the_camera_is_that_of_opencvs_calibration() -> None:
    """A grid of known places through a lens: the same projection as cv2.calibrateCamera finds from the same corners."""
    chance = np.random.default_rng(2)
    size, focal, k1 = (2000, 1500), 1700.0, -0.08
    matrix = np.array([[focal, 0.0, 999.5], [0.0, focal, 749.5], [0.0, 0.0, 1.0]])
    xs, ys = np.meshgrid(np.linspace(0, 700, 12), np.linspace(0, 800, 14))
    places = np.stack([xs.ravel(), ys.ravel(), np.zeros(xs.size)], axis=1)
    turn, shift = np.array([0.25, -0.2, 0.1]), np.array([-350.0, -400.0, 1300.0])
    pixels = cv2.projectPoints(places, turn, shift, matrix, np.array([k1, 0.0, 0.0, 0.0]))[0].reshape(-1, 2)
    found = camera.solved(places[:, :2], pixels + chance.normal(0.0, 0.05, pixels.shape), size)
    off = np.hypot(*(found.picture(places[:, :2]) - pixels).T)
    assert off.max() < 0.1
    assert found.bend == pytest.approx(k1 / focal**2, rel=0.05)
    views, corners = [], []
    for lean in (turn, -turn, np.array([0.1, 0.35, 0.0])):
        seen = cv2.projectPoints(places, lean, shift, matrix, np.array([k1, 0.0, 0.0, 0.0]))[0]
        views.append(places.astype(np.float32))
        corners.append(seen.astype(np.float32))
    flags = cv2.CALIB_ZERO_TANGENT_DIST | cv2.CALIB_FIX_K2 | cv2.CALIB_FIX_K3 | cv2.CALIB_FIX_PRINCIPAL_POINT
    _off, theirs, bent, _turns, _shifts = cv2.calibrateCamera(
        views, corners, size, matrix.copy(), np.zeros(5), flags=flags | cv2.CALIB_USE_INTRINSIC_GUESS
    )
    assert found.bend == pytest.approx(float(bent.ravel()[0]) / float(theirs[0, 0]) ** 2, rel=0.05)


def test_with_few_marks_worse_is_told() -> None:
    chance = np.random.default_rng(4)
    on_table = scene(demo_style().block)
    drawn = table(FRAME, [one for _piece, one in on_table], chance)
    for mark in FRAME.marks[1:3] + FRAME.marks[4:]:  # a hand lies on all but four of them
        if mark.number in (0, 3, 4, 7):
            continue
        x, y = (int((value + 60.0) * DRAWN) for value in (mark.x, mark.y))
        drawn[y - 20 : y + 220, x - 20 : x + 220] = 120
    pixels = photograph(drawn, FRAME, random_shot(chance, 3.0), chance)
    source = photographed.from_bytes("photo.png", encoded(pixels))
    assert source.flat.marks == 4 and source.flat.untold > 1.0
    assert any("cannot be taken out" in note for note in source.paper.notes)
    assert source.paper.pieces[0].error > 1.2


def test_two_photographs_of_one_table() -> None:
    """Each from near, of one half of the frame; together they show all of it."""
    chance = np.random.default_rng(6)
    on_table = scene(demo_style().block)
    drawn = table(FRAME, [one for _piece, one in on_table], chance)
    shots = [
        Shot(2000, 1500, 4.0, towards, 90.0, -0.04, nearer=1.12, shift=(0.0, shift))
        for towards, shift in ((30.0, -80.0), (200.0, 80.0))
    ]
    first, second = (encoded(photograph(drawn, FRAME, shot, chance)) for shot in shots)
    source = photographed.from_bytes("one.png", first).with_another("two.png", second)
    assert source.name == "one.png and 1 more" and source.flat.seen.mean() > 0.98
    seam, notch = compare(source, on_table)
    assert seam <= SEAM and notch <= NOTCH


@pytest.mark.parametrize("paper", PAGES)
def test_the_frame_is_printed_as_it_is_known(paper: str, tmp_path: Path) -> None:
    """Its pages read by poppler and laid edge over edge: OpenCV finds the marks where the program says they are."""
    wide, high, right, down, columns, rows, _first = PAGES[paper]
    page = PAPERS[paper]
    assert (wide, high) == pytest.approx((page[0] - 2 * EDGE, page[1] - 2 * EDGE), abs=1e-6)
    assert (right, down) == pytest.approx((wide - OVERLAP, high - OVERLAP), abs=1e-6)
    frame = mat(paper)
    (tmp_path / "f.pdf").write_bytes(mat_pdf(paper))
    subprocess.run(["pdftoppm", "-r", "127", "-gray", "-png", tmp_path / "f.pdf", tmp_path / "p"], check=True)
    dots = 127.0 / 25.4
    whole = np.full((round(frame.height * dots) + 4, round(frame.width * dots) + 4), 255, np.uint8)
    for number, path in enumerate(sorted(tmp_path.glob("p-*.png"))):
        row, column = divmod(number, columns)
        part = cv2.imread(str(path), cv2.IMREAD_GRAYSCALE)
        edge = round(EDGE * dots)
        field = part[edge + 2 : edge + round(high * dots) - 2, edge + 2 : edge + round(wide * dots) - 2]
        y, x = round(row * down * dots) + 2, round(column * right * dots) + 2
        target = whole[y : y + field.shape[0], x : x + field.shape[1]]
        target[:] = np.minimum(target, field[: target.shape[0], : target.shape[1]])
    assert number + 1 == columns * rows
    found = picture.marks_in(cv2.cvtColor(whole, cv2.COLOR_GRAY2BGR))
    assert set(found) == {mark.number for mark in frame.marks} and mat_of(set(found)) == frame
    for mark in frame.marks:
        assert np.abs(found[mark.number] / dots - mark.corners).max() < 0.35, mark


def test_the_marks_are_the_dictionarys_and_no_two_touch() -> None:
    known = cv2.aruco.getPredefinedDictionary(cv2.aruco.DICT_4X4_50)
    for number, bits in enumerate(BITS):
        square = cv2.aruco.generateImageMarker(known, number, 6, borderBits=1)[1:5, 1:5]
        assert bits == int("".join("1" if value else "0" for value in square.ravel()), 2)
    for paper in PAGES:
        boxes = [shapely.Polygon(mark.corners) for mark in mat(paper).marks]
        assert len(boxes) == 12
        assert min(a.distance(b) for k, a in enumerate(boxes) for b in boxes[:k]) > SIZE / 4.0


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"\x89PNG\r\n\x1a\n" + b"\0" * 8 + b"\0\0\xff\xff\0\0\xff\xff", "million pixels"),
        (b"\x89PNG\r\n\x1a\n" + b"\0" * 8 + b"\0\0\x04\0\0\0\x04\0" + b"junk", "cannot be read"),
        (b"\xff\xd8\xff\xe0\x00\x10JFIF", "neither PNG nor JPEG"),
        (encoded(np.full((60, 80, 3), 128, np.uint8)), "only 80 x 60"),
    ],
)
def test_what_is_no_photograph_of_a_block_is_told(content: bytes, says: str, tmp_path: Path) -> None:
    path = tmp_path / "p.png"
    path.write_bytes(content)
    with pytest.raises(FileError, match=says) as told:
        imported.read(path)
    assert told.value.where.startswith("p.png") and told.value.advice


def test_without_opencv_it_says_how_to_get_it(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setitem(__import__("sys").modules, "cv2", None)
    with pytest.raises(FileError, match="photographs cannot be read here") as told:
        photographed.from_bytes("p.png", b"\x89PNG\r\n\x1a\n" + b"\0" * 8 + b"\0\0\x04\0\0\0\x04\0" + b"junk")
    assert "pip install" in told.value.advice


def test_a_photograph_without_marks_is_sized_by_a_sheet_in_it() -> None:
    """An A4 sheet beside the block, its corners pointed at to a pixel, the camera leaning and with a telephone's lens: each end
    of a seam within what is told; by the sheet's long side alone, from nearly above, within what is told of that."""
    wide = replace(FRAME, marks=(), width=960.0)
    chance = np.random.default_rng(8)
    sheet = np.array([(700.0, 120.0), (910.0, 120.0), (910.0, 417.0), (700.0, 417.0)])
    on_table = scene(demo_style().block)
    drawn = table(wide, [*(one for _piece, one in on_table), OnTable(sheet)], chance)

    def taken(lean: float) -> tuple[photographed.BarePhoto, tuple[tuple[float, float], ...]]:
        shot = Shot(2400, 1800, lean=lean, towards=60.0, turn=0.0, k1=-0.008)
        photo = photographed.from_bytes("bare.png", encoded(photograph(drawn, wide, shot, chance)))
        assert isinstance(photo, photographed.BarePhoto)
        seen = placed(wide, shot).seen_at(list(sheet)) + chance.uniform(-1.0, 1.0, (4, 2))
        return photo, tuple((float(x), float(y)) for x, y in seen)

    photo, points = taken(7.0)
    with pytest.raises(FileError, match="no mark of a printed frame"):
        photo.traced()
    source = photo.sized(Known("sheet", points, 210.0, 297.0))
    told = source.paper.pieces[0].error
    assert 2.0 < told < 8.0 and worst_seam(source) < 2.0 * told
    assert "far from the sheet" in source.paper.notes[0]
    photo, points = taken(2.0)
    by_length = photo.sized(Known("ruler", points[1:3], 297.0))
    told = by_length.paper.pieces[0].error
    assert told > 12.0 and worst_seam(by_length) < 2.0 * told
    assert "straight above" in by_length.paper.notes[0]


def worst_seam(source: photographed.PhotoSource) -> float:
    """The worst of the demo's seams, mm."""
    return apart(demo_style().block, block_of(tagged(source.paper))).seam


@pytest.mark.whole
def test_from_straight_above_a_ruler_is_enough() -> None:
    bare = replace(FRAME, marks=())
    chance = np.random.default_rng(9)
    on_table = scene(demo_style().block)
    shot = Shot(2400, 1800, lean=0.0, towards=0.0, turn=90.0, k1=0.0)
    pixels = photograph(table(bare, [one for _piece, one in on_table], chance), bare, shot, chance)
    ends = placed(bare, shot).seen_at([np.array([100.0, 650.0]), np.array([400.0, 650.0])])
    photo = photographed.BarePhoto("above.png", pixels)
    source = photo.sized(Known("ruler", tuple((float(x), float(y)) for x, y in ends), 300.0))
    assert worst_seam(source) < 0.6


@pytest.mark.parametrize(
    ("known", "says"),
    [
        (Known("sheet", ((0.0, 0.0), (100.0, 0.0), (100.0, 100.0)), 210.0, 297.0), "4 points"),
        (Known("sheet", ((0.0, 0.0), (0.0, 100.0), (100.0, 100.0), (100.0, 0.0)), 210.0, 297.0), "in turn"),
        (Known("sheet", ((0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)), 210.0, 297.0), "too near"),
        (Known("sheet", ((0.0, 0.0), (100.0, 0.0), (100.0, 100.0), (0.0, 100.0)), 2.0, 297.0), "1 cm to 3 m"),
        (Known("ruler", ((5.0, 5.0), (5.0, 5.0)), 300.0), "too near"),
        (Known("ruler", ((5.0, 5.0), (float("nan"), 5.0)), 300.0), "2 points"),
    ],
)
def test_what_makes_no_sheet_is_told(known: Known, says: str) -> None:
    with pytest.raises(FileError, match=says):
        flat_by(np.full((600, 800, 3), 128, np.uint8), known)


def test_any_points_at_all_give_a_table_or_a_sentence() -> None:
    """A steep look, the horizon in the picture, a sheet at the border: no size beyond bounds, nothing but a refusal."""
    chance = np.random.default_rng(3)
    pixels = np.full((300, 400, 3), 128, np.uint8)
    made = 0
    for _round in range(24):
        middle, reach = chance.uniform(50, 250, 2), chance.uniform(45, 160)
        square = np.array([(-1, -1), (1, -1), (1, 1), (-1, 1)]) * reach / 2 + chance.normal(0, 25, (4, 2)) + middle
        try:
            flat = flat_by(pixels, Known("sheet", tuple((float(x), float(y)) for x, y in square), 210.0, 297.0))
        except FileError:
            continue
        made += 1
        assert flat.pixels.shape[0] * flat.pixels.shape[1] < 11_000_000 and flat.seen.any()
    assert made > 8
