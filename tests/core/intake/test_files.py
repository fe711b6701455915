"""What files hold besides plain outlines: allowances, layers of exchange files, sizes, darts drawn inside, arcs, transforms,
gaps, junk."""

from __future__ import annotations

import io
import math
import random
import re
import subprocess
from pathlib import Path as FilePath

import ezdxf
import numpy as np
import pytest
import svgelements
from scipy.spatial import cKDTree

from tests import paper_files
from tests.core.intake.comparing import apart
from tests.paper_blocks import Lay, PaperPiece, pieces_of
from tests.samples import hip_block, real_block
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import imported
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake import dxf, hpgl, svg
from zesty_pivot.core.intake.loops import join
from zesty_pivot.core.intake.meaning import Kind, meaning, size_word


def paper(block: BlockFile | None = None) -> list[PaperPiece]:
    return pieces_of(block or real_block(), Lay())


def came_back(content: bytes, name: str = "x.svg", unit: str | None = None, size: str = "") -> BlockFile:
    return block_of(imported.tagged_file(imported.from_bytes(name, content), unit=unit, size=size))


def ring(piece: PaperPiece, out: float) -> list[tuple[float, float]]:
    """A cut line round a piece with its mouths filled, by Shapely."""
    import shapely

    whole = shapely.Polygon(piece.outline.flatten(0.05)[:-1]).buffer(45.0).buffer(-45.0)
    cut = whole.buffer(out, join_style="mitre")
    return [(float(x), float(y)) for x, y in cut.exterior.coords]


def test_an_allowance_is_found_by_its_offset() -> None:
    pieces = paper()
    lines = [[*paper_files.lines_of(piece), Path.straight(*ring(piece, 10.0))] for piece in pieces]
    source = imported.from_bytes("x.svg", paper_files.svg(lines))
    traced = source.traced()
    assert any("The seam allowance of 1.0 cm was taken off" in note for note in traced.notes)
    assert len(traced.pieces) == 2
    off = apart(real_block(), block_of(imported.tagged_file(source)))
    assert off.seam < 0.001


def exchange(sizes: tuple[str, ...] = ("",)) -> bytes:
    """An exchange file in the manner of D6673, as remembered, by ezdxf: a block a piece and size, cut line on 1, sew line on
    14, notches on 4, grain on 7, drills on 13, words on 15, and turn points on 2."""
    document = ezdxf.new("R12")
    space = document.modelspace()
    for number, size in enumerate(sizes):
        scale = 1.0 + 0.04 * number
        for piece in paper():
            home = document.blocks.new(f"{piece.name}{'-' if size else ''}{size}")

            def flat(points: np.ndarray, by: float = scale) -> list[tuple[float, float]]:
                return [(float(x) * by, -float(y) * by) for x, y in points]

            home.add_polyline2d(flat(piece.outline.flatten(0.01)), dxfattribs={"layer": "14"})
            home.add_polyline2d(flat(np.array(ring(piece, 10.0))), close=True, dxfattribs={"layer": "1"})
            for x, y in flat(piece.outline.cubics[:, 0]):
                home.add_point((x, y), dxfattribs={"layer": "2"})
            at = flat(np.array([[40.0, 150.0], [40.0, 350.0], [60.0, 200.0]]) + piece.lay.shift)
            home.add_line(at[0], at[1], dxfattribs={"layer": "7"})
            home.add_point(at[2], dxfattribs={"layer": "13"})
            home.add_text(f"Piece Name: {piece.name}", dxfattribs={"layer": "15", "insert": at[2]})
            space.add_blockref(home.name, (0, 0))
    space.add_text("Units: METRIC", dxfattribs={"layer": "15"})
    text = io.StringIO()
    document.write(text)
    return text.getvalue().encode()


def test_an_exchange_file_by_its_layers() -> None:
    source = imported.from_bytes("rail.dxf", exchange())
    tagging = imported.tagged_file(source)
    off = apart(real_block(), block_of(tagging))
    assert off.seam < 0.1
    assert off.dart < 0.05
    assert {piece.seen.traced.name for piece in tagging.pieces.values()} == {"front", "back"}
    for piece in tagging.pieces.values():
        assert {guess.what: guess.sure for guess in piece.guesses}["body"] == "said"
        assert piece.seen.traced.grain is not None
        assert len(piece.seen.traced.holes) == 1


def test_sizes_as_blocks() -> None:
    source = imported.from_bytes("rail.dxf", exchange(("36", "38", "40")))
    traced = source.traced()
    assert traced.sizes == ("36", "38", "40")
    assert any("Of the sizes 36, 38, 40 this is 38" in note for note in traced.notes)
    lengths = [max(piece.outline.length for piece in source.traced(size=size).pieces) for size in traced.sizes]
    assert lengths[1] / lengths[0] == pytest.approx(1.04, abs=1e-3)
    with pytest.raises(FileError, match="there is no size '50'"):
        source.traced(size="50")
    off = apart(real_block(), came_back(exchange(("36", "38", "40")), "x.dxf", size="36"))
    assert off.seam < 0.1


def test_darts_drawn_inside_are_cut_open() -> None:
    """The outline runs straight across the mouths, the legs stand inside it as lines of their own."""
    groups = []
    for piece in paper():
        lines: list[Path] = []
        cubics = list(piece.outline.cubics)
        for first, last, point in piece.darts.values():
            at = next(
                k for k, cubic in enumerate(cubics) if math.dist(cubic[0], first) < 1e-6 and math.dist(cubic[3], point) < 1e-6
            )
            cubics[at : at + 2] = [Path.straight(first, last).cubics[0]]
            lines += [Path.straight(first, point), Path.straight(last, point)]
        groups.append([Path(np.stack(cubics)), *lines])
    off = apart(real_block(), came_back(paper_files.svg(groups)))
    assert off.seam < 0.001
    assert off.dart < 0.001


def test_a_dart_told_by_notches_and_a_hole_is_proposed_and_not_sure() -> None:
    piece = paper()[1]
    first, last, point = piece.darts["waist"]
    cubics = list(piece.outline.cubics)
    at = next(k for k, cubic in enumerate(cubics) if math.dist(cubic[0], first) < 1e-6)
    cubics[at : at + 2] = [Path.straight(first, last).cubics[0]]
    down = np.array([0.0, 4.0])
    hole = point + (0.5 * (first + last) - point) * 12.0 / math.dist(0.5 * (first + last), point)
    lines = [Path(np.stack(cubics)), Path.straight(first, first - down), Path.straight(last, last - down)]
    content = paper_files.svg([lines]).replace(b"</svg>", f'<circle cx="{hole[0]}" cy="{hole[1]}" r="1.5"/></svg>'.encode())
    tagging = imported.tagged_file(imported.from_bytes("x.svg", content))
    back = tagging.pieces[0]
    assert {dart.id for dart in back.darts} == {"shoulder", "waist"}
    assert {guess.what: guess.sure for guess in back.guesses}["dart waist"] == "unsure"


def test_notches_cut_into_the_outline_are_filled() -> None:
    """A slit and a V, as cutters cut them: no corners of the piece."""
    piece = paper()[1]
    cubics: list[np.ndarray] = []
    whole = math.dist(piece.corners["underarm"], piece.corners["side_waist"])
    for cubic in piece.outline.cubics:
        path = Path(cubic[None])
        if path.length > 150.0 and math.dist(path.start, piece.corners["underarm"]) < 1e-6:  # the side seam
            one, two = path.split_at(80.0)
            tip = one.end + np.array([-5.0, 0.5])
            cut = two.split_at(3.0)[1]
            cubics += [*one.cubics, *Path.straight(one.end, tip, cut.start).cubics, *cut.cubics]
        else:
            cubics.append(cubic)
    content = paper_files.svg([[Path(np.stack(cubics))]])
    tagging = imported.tagged_file(imported.from_bytes("x.svg", content))
    back = tagging.pieces[0]
    assert len(back.seen.parts.notches) == 1
    assert back.seen.edges["side_seam"].length == pytest.approx(whole, abs=0.3)


def test_gaps_between_ends_are_closed_and_told() -> None:
    chance = random.Random(3)
    groups = []
    for piece in paper():
        lines = [
            Path(cubic[None] + np.array([chance.uniform(-0.4, 0.4), chance.uniform(-0.4, 0.4)]))
            for cubic in piece.outline.cubics
        ]
        groups.append(lines)
    source = imported.from_bytes("x.svg", paper_files.svg(groups))
    assert any("gap" in note for note in source.traced().notes)
    off = apart(real_block(), block_of(imported.tagged_file(source)))
    assert off.seam < 1.2


def test_arcs_of_every_file_are_circles() -> None:
    """A circle of 100 units: circumference 2 pi r, by the definition; svgelements and ezdxf measure it as well."""
    text = b'<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 300 300">'
    text += b'<path d="M 50 150 A 100 100 0 0 1 250 150 A 100 100 0 0 1 50 150 Z"/></svg>'
    drawn = svg.read(text)
    assert sum(line.path.length for line in drawn.lines) == pytest.approx(200.0 * math.pi, abs=1e-3)
    assert svgelements.Path("M 50 150 A 100 100 0 0 1 250 150 A 100 100 0 0 1 50 150 Z").length() == pytest.approx(
        200.0 * math.pi, abs=1e-3
    )
    document = ezdxf.new("R2010")
    document.modelspace().add_lwpolyline([(0, 0, 1.0), (200, 0, 1.0)], format="xyb", close=True)
    document.modelspace().add_arc((0, 0), 100, 0, 90)
    document.modelspace().add_ellipse((0, 0), (100, 0), 0.5)
    out = io.StringIO()
    document.write(out)
    lengths = sorted(line.path.length for line in dxf.read(out.getvalue().encode()).lines)
    assert lengths[0] == pytest.approx(50.0 * math.pi, abs=1e-3)
    assert lengths[1] == pytest.approx(
        484.4224, abs=0.01
    )  # the ellipse's circumference: 4 a E(3/4), tables of elliptic integrals
    assert lengths[2] == pytest.approx(200.0 * math.pi, abs=1e-3)
    plotted = hpgl.read(b"IN;SP1;PU4000,0;PD;AA0,0,360;PU;SP0;")
    assert plotted.in_mm(1 / 40).lines[0].path.length == pytest.approx(200.0 * math.pi, abs=1e-3)


def test_hpgl_relative_scaled_packed_and_curved() -> None:
    """The same square of 10 cm four ways; the packed form is that of the HP-GL/2 reference, encoded here by hand."""

    def packed(value: int) -> bytes:
        number, out = (abs(value) << 1) | (value < 0), b""
        while number >= 64:
            out += bytes([63 + number % 64])
            number //= 64
        return out + bytes([191 + number])

    corners = [(0, 0), (4000, 0), (0, 4000), (-4000, 0), (0, -4000)]
    ways = [
        b"IN;SP1;PU0,0;PD4000,0,4000,4000,0,4000,0,0;",
        b"IN;SP1;PU0,0;PR;PD4000,0,0,4000,-4000,0,0,-4000;",
        b"IN;IP0,0,8000,8000;SC0,2,0,2;SP1;PU0,0;PD1,0,1,1,0,1,0,0;",
        b"IN;SP1;PE<" + b"".join(packed(x) + packed(y) for x, y in corners) + b";",
        b"IN;SP1;PU0,0;PD;BZ1000,0,3000,0,4000,0;BR0,1000,0,3000,0,4000;PR;PD-4000,0,0,-4000;",
        b"\x1b.(;IN;SP1;EA4000,4000;LBsquare\x03;PU;",
    ]
    for way in ways:
        drawing = hpgl.read(way).in_mm(1 / 40)
        joined = join([line.path for line in drawing.lines])
        assert len(joined.loops) == 1, way
        assert joined.loops[0].length == pytest.approx(400.0, abs=1e-6), way
        low, high = joined.loops[0].box()
        assert np.allclose(low, [0.0, -100.0]) and np.allclose(high, [100.0, 0.0]), way


def test_transforms_of_an_svg_are_followed() -> None:
    """Groups turned, scaled, mirrored and skewed back: by svgelements, which reads the file on its own as well."""
    piece = paper()[0]
    plain = paper_files.svg([[piece.outline]])
    turned = plain.replace(
        b'<g id="p0">', b'<g transform="scale(-1 1)"><g id="p0" transform="rotate(30 12 7) translate(-3,40)">'
    )
    turned = turned.replace(b"</g>\n</svg>", b"</g></g>\n</svg>")
    one, two = svg.read(plain), svg.read(turned)
    assert sum(line.path.length for line in two.lines) == pytest.approx(sum(line.path.length for line in one.lines), rel=1e-6)
    assert (
        apart(
            block_of(imported.tagged_file(imported.from_bytes("a.svg", plain))),
            block_of(imported.tagged_file(imported.from_bytes("b.svg", turned))),
        ).seam
        < 0.001
    )


def test_a_hip_length_block_keeps_its_fish_eyes() -> None:
    pieces = paper(hip_block())
    lines = [paper_files.lines_of(piece, random.Random(1)) for piece in pieces]
    tagging = imported.tagged_file(imported.from_bytes("x.svg", paper_files.svg(lines)))
    block = block_of(tagging)
    assert apart(hip_block(), block).seam < 0.001
    for model, original in zip(block.pieces, hip_block().pieces, strict=True):
        assert model.levels["waist"] == pytest.approx(original.levels["waist"], abs=0.01)


@pytest.mark.parametrize(
    ("layer", "kind"),
    [
        ("14", Kind.SEAM), ("1", Kind.CUT), ("4", Kind.NOTCH), ("7", Kind.GRAIN), ("13", Kind.DRILL), ("2", Kind.ASIDE),
        ("Sew line", Kind.SEAM), ("cut_line", Kind.CUT), ("Notches", Kind.NOTCH), ("layer1", Kind.UNKNOWN),
        ("dart-legs", Kind.LEG), ("CF fold", Kind.FOLD), ("drill holes", Kind.DRILL), ("0", Kind.UNKNOWN),
    ],
)  # fmt: skip
def test_what_a_layer_says(layer: str, kind: Kind) -> None:
    assert meaning(layer) is kind


@pytest.mark.parametrize(
    ("name", "size"),
    [("front_38", "38"), ("Size 12", "12"), ("back XL", "XL"), ("front", ""), ("14", ""), ("0", ""), ("notch 4", "")],
)
def test_the_size_in_a_name(name: str, size: str) -> None:
    assert size_word(name) == size


@pytest.mark.parametrize(
    ("name", "content", "says"),
    [
        ("a.svg", b"<svg xmlns='http://www.w3.org/2000/svg'></svg>", "draws no line"),
        ("a.svg", b"<svg><!DOCTYPE x [<!ENTITY a 'b'>]></svg>", "entities"),
        ("a.svg", b"<svg><path d='M 0 0 L 10", "cannot be read as SVG"),
        ("a.dxf", b"0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n", "draws no line"),
        ("a.dxf", b"0\nSECTION\n2\n\xff\xff", "cannot be read|draws no line"),
        ("a.plt", b"IN;SP1;PU0,0;", "no pen is put down"),
        ("a.xyz", b"hello", "not known here"),
        ("a.svg", b"", "is no SVG"),
        ("a.svg", b"<svg width='10mm' height='10mm' viewBox='0 0 1 1'><path d='M0 0 L1 1'/></svg>", "no line closes"),
    ],
)
def test_broken_files_are_refused_in_a_sentence(name: str, content: bytes, says: str) -> None:
    with pytest.raises(FileError, match=says) as told:
        imported.from_bytes(name, content).traced("mm")
    assert told.value.where.startswith(name) and told.value.advice


def test_a_plotter_file_lies_where_hp2xx_draws_it(tmp_path: FilePath) -> None:
    """hp2xx, an independent reader, turns the same file into an SVG of 72 dots an inch: all points within a hundredth of a
    mm."""
    lines = [paper_files.lines_of(piece) for piece in pieces_of(real_block(), Lay())]
    (tmp_path / "a.plt").write_bytes(paper_files.hpgl(lines))
    subprocess.run(
        ["hp2xx", "-q", "-t", "-m", "svg", "-f", tmp_path / "a.svg", tmp_path / "a.plt"], check=True, capture_output=True
    )
    theirs = re.findall(r"[ML] ([-\d.]+), ([-\d.]+)", (tmp_path / "a.svg").read_text())
    points = np.array(theirs, dtype=float) * 25.4 / 72.0
    mine = np.concatenate(
        [
            line.path.cubics[:, [0, 3]].reshape(-1, 2)
            for line in hpgl.read((tmp_path / "a.plt").read_bytes()).in_mm(1 / 40).lines
        ]
    )
    points, mine = points - points.min(axis=0), mine - mine.min(axis=0)
    off = cKDTree(points).query(mine)[0]
    assert len(mine) > 200
    assert float(np.max(off)) < 0.02


def test_an_svg_whose_first_element_draws_nothing_is_refused() -> None:
    """`<svg` stands in it, but what holds it is no drawing: it raised a TypeError."""
    for content in (b"<g>5</g><svg></svg>", b"<title><svg/></title>", b"<a><svg width='3mm'/></a>"):
        with pytest.raises(FileError):
            svg.read(content)
