"""The command line in a process of its own: exit codes, one line on stderr, nothing written when refused."""

import json
import os
import subprocess
import sys
from pathlib import Path

import pypdf
import pytest

from tests.cli.calling import call, zesty
from tests.samples import REAL_BLOCK, move, real_block, written
from zesty_pivot import __version__
from zesty_pivot.core.formats.block_file import dump
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.data.demo import demo_style


def test_derive_writes_the_sheets(tmp_path: Path) -> None:
    found = zesty("derive", written([move("waist", "french")], tmp_path), "--out", tmp_path / "out")
    assert found.returncode == 0 and found.stderr == ""
    names = {path.name for path in (tmp_path / "out").iterdir()}
    assert names == {"sheet.svg", "front.svg", "back.svg", "tiles-A4.pdf", "full.pdf", "report.json"}


def test_derive_on_another_block_and_measures(tmp_path: Path) -> None:
    style = written([{**move("shoulder", "mid_armhole"), "mouth": "head/20"}], tmp_path)
    (tmp_path / "b.zblock").write_bytes(dump(demo_style().block))
    measures = {"format": "zesty-pivot/measures", "version": 1, "units": "cm", "measures": {"head": 56}}
    (tmp_path / "m.zmeas").write_text(json.dumps(measures))
    found = zesty("derive", style, "--block", tmp_path / "b.zblock", "--measures", tmp_path / "m.zmeas",
                  "--out", tmp_path / "out", "--format", "json")  # fmt: skip
    assert found.returncode == 0, found.stderr
    report = json.loads((tmp_path / "out" / "report.json").read_text())
    (dart,) = [d for d in report["pieces"][0]["darts"] if d["id"] == "mid_armhole"]
    assert dart["intake_mm"] == pytest.approx(28.0, abs=1e-6)
    assert report["accounts"][0]["block_deg"] == pytest.approx(28.0, abs=1e-4)


def test_two_exports_are_byte_equal(tmp_path: Path) -> None:
    style = written([move("waist", "french")], tmp_path)
    for name in ("a", "b"):
        assert zesty("derive", style, "--out", tmp_path / name, "--date", "2026-11-23").returncode == 0
    for path in (tmp_path / "a").iterdir():
        assert path.read_bytes() == (tmp_path / "b" / path.name).read_bytes(), path.name


def test_a_style_with_an_impossible_third_step(tmp_path: Path) -> None:
    steps = [move("waist", "french", "50%"), move("shoulder", "mid_neck"), move("side", "waist"), move("french", "side_bust")]
    found = zesty("derive", written(steps, tmp_path), "--out", tmp_path / "out")
    assert found.returncode == 1
    (line,) = found.stderr.strip().splitlines()
    assert "step 3" in line and "no dart 'side'" in line
    report = json.loads((tmp_path / "out" / "report.json").read_text())
    assert "side_bust" in {dart["station"] for dart in report["pieces"][0]["darts"]}  # the fourth step was done


def test_check(tmp_path: Path) -> None:
    fine = call("check", written([move("waist", "french")], tmp_path))
    assert fine.code == 0 and "warning: front: the waist has a corner" in fine.out
    bad = call("check", written([move("side", "french")], tmp_path))
    assert bad.code == 1 and "error:" in bad.out


def _change(name: str) -> str:
    value = json.loads(Style(block=real_block()).model_dump_json(exclude_none=True))
    value["steps"] = [move("waist", "french")]
    block = value["block"]
    if name == "wrong version":
        value["version"] = 99
    elif name == "missing edge":
        block["pieces"][0]["edges"].pop(2)
    elif name == "text in a number":
        block["pieces"][0]["levels"]["bust"] = "high"
    elif name == "NaN":
        block["pieces"][0]["levels"]["bust"] = float("nan")
    elif name == "self-crossing":
        block["pieces"][0]["edges"][3]["path"] = "M 248.352541 263.026308 L -300 300 L 232.377135 455.242716"
    elif name == "unknown step":
        value["steps"] = [{"do": "dart.fold_twice", "on": "front"}]
    elif name == "formula that is code":
        value["steps"][0]["mouth"] = "__import__('os').system('touch pwned')"
    text = json.dumps(value)
    return text[: len(text) // 2] if name == "broken JSON" else text


@pytest.mark.parametrize(
    "name",
    [
        "broken JSON",
        "wrong version",
        "missing edge",
        "text in a number",
        "NaN",
        "self-crossing",
        "unknown step",
        "formula that is code",
    ],
)
def test_refused_in_one_line_and_nothing_written(name: str, tmp_path: Path) -> None:
    path = tmp_path / "s.zpiv"
    path.write_text(_change(name))
    found = zesty("derive", path, "--out", tmp_path / "out")
    assert found.returncode == 1
    assert len(found.stderr.strip().splitlines()) == 1 and "Traceback" not in found.stderr
    assert found.stderr.startswith("zesty-pivot: s.zpiv")
    assert sorted(p.name for p in tmp_path.iterdir()) == ["s.zpiv"]


def test_a_hundred_megabyte_file(tmp_path: Path) -> None:
    path = tmp_path / "big.zpiv"
    with path.open("wb") as file:
        file.truncate(100_000_000)
    found = zesty("derive", path, "--out", tmp_path / "out")
    assert found.returncode == 1 and "over 16 MB" in found.stderr and not (tmp_path / "out").exists()


def test_a_folder_that_cannot_be_written(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("x")
    found = call("derive", written([], tmp_path), "--out", tmp_path / "file" / "out")
    assert found.code == 1 and "cannot be written" in found.err and "Traceback" not in found.err


@pytest.mark.parametrize(
    "args",
    [["derive"], ["derive", "x.zpiv"], ["schema", "sleeve"], ["derive", "x", "--out", "y", "--format", "gif"], ["--frob"]],
)
def test_wrong_usage_is_two(args: list[str]) -> None:
    found = zesty(*args)
    assert found.returncode == 2 and len(found.stderr.strip().splitlines()) == 1


def test_a_missing_file_for_the_window(tmp_path: Path) -> None:
    found = zesty(tmp_path / "none.zpiv")
    assert found.returncode == 1 and "there is no such file" in found.stderr


def test_no_display_is_said() -> None:
    bare = {k: v for k, v in os.environ.items() if k not in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")}
    found = subprocess.run(
        [sys.executable, "-m", "zesty_pivot"], capture_output=True, text=True, timeout=60, env=bare, check=False
    )
    assert found.returncode == 1 and len(found.stderr.strip().splitlines()) == 1 and "no display" in found.stderr


def test_steps_and_schemas() -> None:
    listed = json.loads(zesty("steps", "--json").stdout)
    assert {step["do"] for step in listed["steps"]} == {
        "dart.move", "dart.split", "dart.merge", "dart.equalise", "dart.fan", "dart.use", "dart.shape",
        "fullness.gather", "fullness.pleat", "fullness.tuck", "yoke.join",
        "dart.fisheye",
        "dart.park", "line.princess", "line.cut", "line.band", "line.contour", "trim.hem", "trim.strapless", "piece.join",
        "dart.return", "fullness.slash", "fullness.flare", "piece.true", "neck.shape", "neck.gape", "neck.opening",
        "trim.armhole", "piece.facing", "yoke.cut", "measure.tape",
        "piece.true_seam", "piece.square", "piece.side_seam", "piece.let_out", "piece.unfold", "piece.side_panel",
        "fullness.circle",
        "drape.cowl", "drape.cowl_armhole", "drape.fan", "drape.twist",
        *(f"trim.{name}" for name in (
            "band", "binding", "bow", "casing", "frill", "loops", "peplum", "piping", "placket", "ruffle", "stand", "strap",
            "tie", "waistband",
        )),
    }  # fmt: skip
    assert "graded" in listed["schools"]["setback"]
    share = next(s for s in listed["steps"] if s["do"] == "dart.move")["parameters"]["properties"]["share"]
    assert share["default"] == "100%" and "angle" in share["description"]
    assert "dart.move: Close a dart" in call("steps").out
    for kind in ("style", "block", "report", "measures"):
        assert json.loads(call("schema", kind).out)["properties"]
    assert __version__ in zesty("--version").stdout


def test_demo_sheets_without_a_display(tmp_path: Path) -> None:
    found = zesty("demo-sheets", "--out", tmp_path)
    assert found.returncode == 0, found.stderr
    assert {"sheet.svg", "tiles-A4.pdf", "report.json", "style.png", "ring.png", "finish.png", "paper.png"} <= {
        p.name for p in tmp_path.iterdir()
    }
    assert str(tmp_path) in found.stdout


def test_the_real_block_is_the_one_that_was_given() -> None:
    assert REAL_BLOCK.stat().st_size == 4525


def test_hand_prints_the_paper_procedure(tmp_path: Path) -> None:
    path = written([move("shoulder", "french")], tmp_path)
    done = call("hand", str(path), "--way", "slash")
    assert done.code == 0 and "Before you start" in done.out and "Cut from the place" in done.out
    broken = written([move("nothing", "french")], tmp_path)
    done = call("hand", str(broken))
    assert done.code == 1 and "cannot be done" in done.out and "Traceback" not in done.err


def test_integrate_writes_into_a_folder(tmp_path: Path) -> None:
    done = call("integrate", "--into", str(tmp_path / "data"))
    assert done.code == 0 and (tmp_path / "data" / "man" / "man1" / "zesty-pivot.1").exists()
    (tmp_path / "file").write_text("in the way")
    done = call("integrate", "--into", str(tmp_path / "file"))
    assert done.code == 1 and done.err.count("\n") == 1 and "cannot be written" in done.err


def test_the_hand_sheet_goes_along_with_the_pages(tmp_path: Path) -> None:
    """The finish asks for it; two exports are byte-equal with it as well."""
    path = written([move("shoulder", "french")], tmp_path, finish={"hand_sheet": "pivot"})
    for name in ("one", "two"):
        assert call("derive", str(path), "--out", str(tmp_path / name), "--format", "pdf").code == 0
    for name in ("tiles-A4.pdf", "full.pdf"):
        content = (tmp_path / "one" / name).read_bytes()
        assert content == (tmp_path / "two" / name).read_bytes()
        told = "".join(page.extract_text() for page in pypdf.PdfReader(tmp_path / "one" / name).pages)
        assert "Pin at the bust point" in told and "Prick a drill hole" in told


def test_every_variant_to_a_folder_of_its_own(tmp_path: Path) -> None:
    necks = [{"do": "neck.shape", "on": "front", "shape": shape} for shape in ("round", "square")]
    path = written(necks[:1], tmp_path)
    value = json.loads(path.read_text())
    value["variants"] = [{"name": "Round/1"}, {"name": "Square", "of": "Round/1", "steps": necks[1:]}]
    path.write_text(json.dumps(value))
    call("derive", path, "--out", tmp_path / "all", "--format", "svg", "--all-variants")
    assert sorted(each.name for each in (tmp_path / "all").iterdir()) == ["Round-1", "Square"]
    told = [json.loads((tmp_path / "all" / name / "report.json").read_text()) for name in ("Round-1", "Square")]
    assert [one["variant"] for one in told] == ["Round/1", "Square"]
    call("derive", path, "--out", tmp_path / "one", "--format", "svg", "--variant", "Square")
    sheets = [(tmp_path / "one" / "front.svg").read_bytes(), (tmp_path / "all" / "Square" / "front.svg").read_bytes()]
    assert sheets[0] == sheets[1] and b": Square" in sheets[0]
    lost = call("derive", path, "--out", tmp_path / "no", "--variant", "Sqare")
    assert lost.code == 1 and "Square" in lost.err and not (tmp_path / "no").exists()
