"""`derive` for sizes and for many people: what is written, what is said, a kill in the middle, wrong usage."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from tests.cli.calling import call
from tests.samples import move, real_block, written
from zesty_pivot.cli.bodies import several
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.core.sizes import chart as charts
from zesty_pivot.core.sizes.batch import LEDGER
from zesty_pivot.core.sizes.graded import graded
from zesty_pivot.data.sizes import shipped_chart

STEPS = [move("shoulder", "waist"), move("waist", "french")]
PEOPLE = "name;bust;waist;hip;shoulder;fwl;bwl\n" + "".join(
    f"Person {n};{84 + n};{68 + n};{92 + n};39;44;41\n" for n in range(4)
)


def contents(folder: Path) -> dict[str, bytes]:
    return {str(path.relative_to(folder)): path.read_bytes() for path in folder.rglob("*") if path.is_file()}


def test_sizes_of_the_shipped_and_of_an_own_chart(tmp_path: Path) -> None:
    style = written(STEPS, tmp_path)
    made = call("derive", style, "--size", "regular · 36", "--size", "tall · 44", "--out", tmp_path / "a", "--format", "svg")
    assert made.code == 0 and "2 of 2 written" in made.out and "2 of them sound" in made.out
    told = [json.loads(line) for line in (tmp_path / "a" / LEDGER).read_text().splitlines()]
    assert [one["name"] for one in told] == ["regular · 36", "tall · 44"]
    for one in told:
        report = json.loads((tmp_path / "a" / one["where"] / "report.json").read_text())
        assert report["girths"]["bust"] > 850.0
    chart = shipped_chart()
    own = tmp_path / "own.zsizes"
    own.write_bytes(charts.dump(chart.model_copy(update={"sizes": chart.sizes[:2], "base": ""})))
    made = call("derive", style, "--all-sizes", "--chart", own, "--out", tmp_path / "b", "--zip", "--format", "json")
    assert made.code == 0 and sorted(path.name for path in (tmp_path / "b").iterdir()) == [
        "0001-regular-34.zip", "0002-regular-36.zip", LEDGER,
    ]  # fmt: skip


def test_nested_and_with_blocks_of_their_own(tmp_path: Path) -> None:
    style, blocks = written(STEPS, tmp_path), tmp_path / "blocks"
    blocks.mkdir()
    chart = shipped_chart()
    for name in ("36", "38"):
        size = chart.size(f"regular · {name}")
        made = graded(real_block(), style_file.read(style).body(), chart.lengths(size), name=f"own {name}")
        (blocks / f"{name}.zblock").write_bytes(block_file.dump(made))
    asked = [part for name in ("36", "38", "40") for part in ("--size", f"regular · {name}")]
    out = tmp_path / "out"
    made = call("derive", style, *asked, "--blocks", blocks, "--nested", "--out", out, "--format", "json")
    assert made.code == 1 and "regular · 40: there is no block for it" in made.err  # the others are written
    assert "2 of 3 written" in made.out
    girths = [json.loads((out / name / "report.json").read_text())["girths"] for name in ("0001-regular-36", "0002-regular-38")]
    assert girths[1]["bust"] - girths[0]["bust"] == pytest.approx(40.0, abs=1.0)
    assert {path.name for path in (out / "nested").iterdir()} >= {"nested.svg", "nested.pdf", "growth.csv"}
    assert (out / "nested" / "nested.svg").read_text().count('<g id="size-') == 2 * 1 + 2 * 4
    # Wrong usage in one line.
    for wrong in (["--blocks", tmp_path / "nowhere", "--all-sizes"], ["--nested"], ["--blocks", "grade"]):
        made = call("derive", style, *wrong, "--out", tmp_path / "no", "--format", "json")
        assert made.code in (1, 2) and made.err.count("\n") == 1


def test_people_of_a_table_with_a_bad_row(tmp_path: Path) -> None:
    style, people = written(STEPS, tmp_path), tmp_path / "people.csv"
    people.write_text(PEOPLE.replace("85;69", "85;wide"))
    made = call("derive", style, "--measures", people, "--out", tmp_path / "all", "--format", "json")
    assert made.code == 1 and "3 of 4 written" in made.out
    assert made.err.splitlines() == [line for line in made.err.splitlines() if line.startswith("zesty-pivot: ")]
    assert "Person 1" in made.err and "row 3, waist" in made.err
    assert len([path for path in (tmp_path / "all").iterdir() if path.is_dir()]) == 3
    # One of them, as before.
    one = call("derive", style, "--measures", people, "--person", "Person 2", "--out", tmp_path / "one", "--format", "json")
    assert one.code == 0 and (tmp_path / "one" / "report.json").exists()


@pytest.mark.parametrize(
    ("rows", "count"),
    [("Ada;92\nAda;93\nBea;95\n", 3), (";92\n;95\n", 2), ("Ada;92\n", 0)],
    ids=["one twice, then another", "without names", "one"],
)  # fmt: skip
def test_who_is_several(tmp_path: Path, rows: str, count: int) -> None:
    people = tmp_path / "people.csv"
    people.write_text("name;bust\n" + rows)
    found = several(people, "cm")
    assert (0 if found is None else len(list(found))) == count


@pytest.mark.parametrize("number", [signal.SIGKILL, pytest.param(signal.SIGTERM, marks=pytest.mark.whole)])
def test_ended_in_the_middle_and_gone_on_with(tmp_path: Path, number: int) -> None:
    style, people = written(STEPS, tmp_path), tmp_path / "people.csv"
    people.write_text("name;bust;waist;hip;shoulder;fwl;bwl\n" + "".join(f"P{n};{84 + n};68;92;39;44;41\n" for n in range(14)))

    def begun(out: Path) -> subprocess.Popen[bytes]:
        asked = ["derive", str(style), "--measures", str(people), "--out", str(out), "--format", "svg", "--jobs", "1"]
        return subprocess.Popen([sys.executable, "-m", "zesty_pivot", *asked], stdout=subprocess.PIPE, stderr=subprocess.PIPE)

    whole = begun(tmp_path / "whole")
    whole.communicate()
    assert whole.returncode == 0
    broken, ledger = begun(tmp_path / "broken"), tmp_path / "broken" / LEDGER
    until = time.monotonic() + 60.0
    while time.monotonic() < until and (not ledger.exists() or ledger.read_bytes().count(b"\n") < 3):
        time.sleep(0.005)
    os.kill(broken.pid, number)
    _out, err = broken.communicate()
    assert broken.returncode == (-number if number == signal.SIGKILL else 128 + number)
    if number == signal.SIGTERM:
        assert b"the same command goes on from there" in err and b"Traceback" not in err
    assert 3 <= ledger.read_bytes().count(b"\n") < 14
    again = begun(tmp_path / "broken")
    again.communicate()
    assert again.returncode == 0
    assert contents(tmp_path / "broken") == contents(tmp_path / "whole")


@pytest.mark.parametrize(
    ("asked", "said"),
    [
        (["--size", "99"], "no size '99'"),
        (["--size", "40"], "2 sizes are called '40'"),
        (["--size", "regular · 40", "--all-sizes"], "do not go together"),
        (["--size", "regular · 40", "--person", "Ada"], "either sizes or measurements"),
        (["--chart", "own.zsizes"], "needs --size"),
        (["--all-sizes", "--chart", "none.zsizes"], "none.zsizes"),
        (["--all-sizes", "--all-variants"], "one body only"),
    ],
)
def test_wrong_usage_is_one_line(tmp_path: Path, asked: list[str], said: str) -> None:
    made = call("derive", written(STEPS, tmp_path), *asked, "--out", tmp_path / "out")
    assert made.code != 0 and said in made.err and "Traceback" not in made.err
    assert not (tmp_path / "out").exists()
