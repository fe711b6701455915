"""DXF, read back by ezdxf and by libdxflib (Debian 3.26, a C++ reader that had no part in writing it). Layers of ASTM D6673 as
remembered: no copy of the standard was at hand."""

from __future__ import annotations

import io
import json
import logging
import subprocess
from collections.abc import Iterator
from pathlib import Path

import ezdxf
import numpy as np
import pytest
from ezdxf import path as dxf_path

from tests.core.intake.comparing import apart
from tests.samples import hip_block, real_block, style
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats import imported
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.dxf_names import block_names
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.style_file import from_block
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.data.demo import _read

VERSIONS = ("R12", "R2000", "R2010")
STYLES = ("canticle", "antiphon", "aria", "carol")
READER = Path(__file__).parents[2] / "readers" / "dxf_lines.cpp"


def written(derived: Derived, version: str, *, each: bool = False) -> dict[str, bytes]:
    found = outputs(derived, ("dxf",), Printing(dxf=version, dxf_each=each))  # type: ignore[arg-type]
    return {name: content for name, content in found.items() if name.endswith(".dxf")}


@pytest.fixture(scope="module")
def lister(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The reader by libdxflib, compiled."""
    made = tmp_path_factory.mktemp("dxf") / "dxf_lines"
    subprocess.run(["g++", "-O1", "-o", str(made), str(READER), "-ldxflib"], check=True, capture_output=True)
    return made


def entities(lister: Path, path: Path) -> Iterator[tuple[str, str, str, list[str]]]:
    """Kind, block, layer and the words of each entity, by libdxflib."""
    out = subprocess.run([str(lister), str(path)], check=True, capture_output=True).stdout.decode("latin-1")
    for line in out.splitlines():
        if line.count("|") >= 3:
            kind, block, layer, rest = line.split("|", 3)
            yield kind, block, layer, rest.split()


def places(words: list[str]) -> np.ndarray:
    return np.array([[float(x) for x in word.split(",")] for word in words if "," in word])


def wanted(derived: Derived) -> dict[str, dict[str, float]]:
    """By block: how long the sewing lines of each piece are, from the finished pieces."""
    names = block_names([piece.name for piece in derived.sheet_pieces], derived.style.finish.size)
    sewn = {}
    for piece, name in zip(derived.sheet_pieces, names, strict=True):
        sewn[name] = {
            "14": sum(path.length for s in piece.strokes if s.kind in ("seam", "leg") for path in s.paths),
            "1": float(np.hypot(*np.diff(np.vstack([piece.ring, piece.ring[:1]]), axis=0).T).sum()),
        }
    return sewn


@pytest.mark.parametrize("name", STYLES)
@pytest.mark.parametrize("version", VERSIONS)
def test_every_line_has_its_length_in_two_readers(name: str, version: str, lister: Path, tmp_path: Path, caplog) -> None:  # type: ignore[no-untyped-def]
    derived = derive(_read(f"{name}.zpiv"))
    with caplog.at_level(logging.WARNING):
        content = written(derived, version)["pattern.dxf"]
    assert not caplog.records  # the library has nothing to complain of
    document = ezdxf.read(io.StringIO(content.decode("cp1252" if version != "R2010" else "utf-8")))
    assert not document.audit().errors and not document.audit().fixes
    path = tmp_path / "p.dxf"
    path.write_bytes(content)
    read: dict[tuple[str, str], float] = {}
    for kind, block, layer, words in entities(lister, path):
        if kind == "POLYLINE":
            line = places(words)
            closed = words[0] == "1"
            line = np.vstack([line, line[:1]]) if closed else line
            read[block, layer] = read.get((block, layer), 0.0) + float(np.hypot(*np.diff(line, axis=0).T).sum())
    for block, lengths in wanted(derived).items():
        runs = sum(1 for entity in document.blocks.get(block) if entity.dxf.layer == "14")
        for layer, length in lengths.items():
            assert read[block, layer] == pytest.approx(length, abs=0.03 * max(1, runs)), (block, layer)
        for layer in lengths:
            own = [e for e in document.blocks.get(block) if e.dxf.layer == layer and e.dxftype() == "POLYLINE"]
            by_ezdxf = [np.array([(v.x, v.y) for v in dxf_path.make_path(e).flattening(0.001)]) for e in own]
            assert sum(float(np.hypot(*np.diff(line, axis=0).T).sum()) for line in by_ezdxf) == pytest.approx(
                read[block, layer], abs=1e-6
            )


@pytest.mark.parametrize("version", ["R2000", "R2010"])
def test_curves_are_exact(version: str, lister: Path, tmp_path: Path) -> None:
    """The control points of every spline are those of the seam; each edge alone is as long as its polyline within 0.03 mm."""
    derived = derive(_read("canticle.zpiv"))
    path = tmp_path / "p.dxf"
    path.write_bytes(written(derived, version)["pattern.dxf"])
    splines = [
        (block, places(words)) for kind, block, layer, words in entities(lister, path) if kind == "SPLINE" and layer == "85"
    ]
    lines = [
        (block, places(words)) for kind, block, layer, words in entities(lister, path) if kind == "POLYLINE" and layer == "14"
    ]
    names = block_names([piece.name for piece in derived.sheet_pieces], derived.style.finish.size)
    told = [
        (name, path_) for piece, name in zip(derived.sheet_pieces, names, strict=True)
        for stroke in piece.strokes if stroke.kind in ("seam", "leg") for path_ in stroke.paths
    ]  # fmt: skip
    assert len(splines) == len(lines) == len(told) > 20
    for (block, points), (other, line), (name, one) in zip(splines, lines, told, strict=True):
        assert block == other == name
        own = np.concatenate([one.cubics[0][:1], *(cubic[1:] for cubic in one.cubics)])
        assert np.allclose(points, own * (1.0, -1.0), atol=1e-9)
        assert float(np.hypot(*np.diff(line, axis=0).T).sum()) == pytest.approx(one.length, abs=0.03)


def test_everything_lies_on_its_layer(lister: Path, tmp_path: Path) -> None:
    derived = derive(style([]).with_finish({"size": "14", "cloth": "wool"}))
    path = tmp_path / "p.dxf"
    path.write_bytes(written(derived, "R12")["pattern.dxf"])
    found = list(entities(lister, path))
    assert {word for kind, _b, _l, words in found if kind == "INSERT" for word in words[:1]} == {"FRONT_14", "BACK_14"}
    for piece in derived.sheet_pieces:
        own = [(kind, layer, words) for kind, block, layer, words in found if block == f"{piece.name.upper()}_14"]
        notches = [places(words)[0] for kind, layer, words in own if kind == "POINT" and layer == "4"]
        strokes = [path.start for s in piece.strokes if s.kind == "notch" for path in s.paths]
        assert np.allclose(sorted(map(tuple, notches)), sorted((x, -y) for x, y in strokes), atol=1e-6)
        holes = [places(words)[0] for kind, layer, words in own if kind == "POINT" and layer == "13"]
        assert np.allclose(sorted(map(tuple, holes)), sorted((c.at[0], -c.at[1]) for c in piece.circles), atol=1e-6)
        (grain,) = [places(words) for kind, layer, words in own if layer == "7"]
        assert len(grain) == 2 and grain[0][0] == pytest.approx(grain[1][0], abs=1e-6)  # along CF
        (fold,) = [places(words) for kind, layer, words in own if layer == "6"]
        assert np.ptp(fold[:, 0]) == pytest.approx(0.0, abs=0.01) and np.ptp(fold[:, 1]) > 300.0
        said = " / ".join(" ".join(words) for kind, layer, words in own if kind == "TEXT" and layer == "15")
        assert f"Piece Name: {piece.name}" in said and "Size: 14" in said and "Quantity: cut 1 on the fold" in said
        assert "Material: wool" in said and piece.name in said
        # Every vertex of the cut line is a turn point or a curve point; the corners are turn points.
        (ring,) = [places(words) for kind, layer, words in own if layer == "1"]
        points = {
            layer: [tuple(places(words)[0]) for kind, at, words in own if kind == "POINT" and at == layer] for layer in "23"
        }
        assert len(ring) == len(points["2"]) + len(points["3"]) and 4 <= len(points["2"]) < len(points["3"])
    top = " / ".join(" ".join(words) for kind, block, layer, words in found if kind == "TEXT" and block == "-")
    assert "Units: METRIC" in top and "Style Name: Test" in top


@pytest.mark.parametrize("version", VERSIONS)
@pytest.mark.parametrize("block", [real_block, hip_block])
def test_it_comes_back_as_the_block(version: str, block) -> None:  # type: ignore[no-untyped-def]
    """With allowances, notches and holes on it: read as a block again, seams within 0.05 mm, darts within 0.05 degrees."""
    content = written(derive(from_block(block())), version)["pattern.dxf"]
    tagging = imported.tagged_file(imported.from_bytes("pattern.dxf", content))
    off = apart(block(), block_of(tagging))
    assert off.seam <= 0.05 and off.dart <= 0.05


def test_each_piece_in_a_file_of_its_own_and_twice_the_same() -> None:
    derived = derive(_read("antiphon.zpiv"))
    one, two = (written(derived, "R2000", each=True) for _ in range(2))
    assert one == two
    assert (
        set(one) == {"pattern.dxf", *(f"{p.name.replace(' ', '-').replace('.', '-')}.dxf" for p in derived.sheet_pieces)}
        or len(one) == 5
    )
    for name, content in one.items():
        document = ezdxf.read(io.StringIO(content.decode("cp1252")))
        assert len(document.modelspace().query("INSERT")) == (len(derived.sheet_pieces) if name == "pattern.dxf" else 1)
    assert document.header["$INSUNITS"] == 4  # DXF reference: 4 is millimetres
    assert json.loads(outputs(derived, ("dxf",), Printing())["report.json"])["pieces"]


def test_names_of_blocks_are_such_that_every_reader_takes() -> None:
    assert block_names(["front", "front", "Łódź*", "前", "x" * 60, "x" * 60], "38") == [
        "FRONT_38", "FRONT_38_2", "ODZ_38", "38", "X" * 31, "X" * 29 + "_2",
    ]  # fmt: skip
    assert block_names(["前"], "") == ["PIECE"]
