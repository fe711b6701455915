"""The plotter on the command line: one process is a plotter, another sends it a plot."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest

from tests.cli.calling import zesty
from tests.samples import move, written

COMMAND = [sys.executable, "-m", "zesty_pivot"]


@pytest.mark.parametrize("where", [pytest.param([], marks=pytest.mark.whole), ["--socket", "0"]])
def test_a_plot_is_derived_sent_and_drawn(tmp_path: Path, where: list[str]) -> None:
    style = written([move("shoulder", "french")], tmp_path)
    found = zesty("derive", style, "--out", tmp_path / "out", "--format", "plot")
    assert found.returncode == 0 and {p.name for p in (tmp_path / "out").iterdir()} == {"pattern.plt", "report.json"}
    plot = tmp_path / "out" / "pattern.plt"
    whole = plot.read_bytes()
    plot.write_bytes(whole[: whole.index(b";", 6_000) + 1] + b"PU;SP0;PG;\n")  # its beginning is enough
    plotter = subprocess.Popen(
        [*COMMAND, "plotter", "--simulate", *where, "--speed", "50000", "--once", "--out", str(tmp_path / "drawn.svg")],
        stdout=subprocess.PIPE, text=True,
    )  # fmt: skip
    try:
        assert plotter.stdout is not None
        name = plotter.stdout.readline().strip()
        assert name.startswith("socket://127.0.0.1:" if where else "/dev/pts/")
        sent = zesty("plotter", "--send", plot, "--to", name)
        assert sent.returncode == 0, sent.stderr
        assert sent.stdout.startswith("sent ")
        assert plotter.wait(timeout=30) == 0
    finally:
        plotter.kill()
        plotter.wait()
        if plotter.stdout is not None:
            plotter.stdout.close()
    assert (tmp_path / "drawn.svg").read_text().count("<polyline") > 5


def test_what_cannot_be_is_one_line(tmp_path: Path) -> None:
    plot = tmp_path / "p.plt"
    plot.write_bytes(b"IN;")
    for args, code in (
        (["plotter"], 2), (["plotter", "--simulate", "--send", plot], 2), (["plotter", "--send", plot], 2),
        (["plotter", "--send", plot, "--to", "/dev/none"], 1), (["plotter", "--send", tmp_path / "gone.plt", "--to", "x"], 1),
    ):  # fmt: skip
        found = zesty(*args)
        assert found.returncode == code and found.stderr.count("\n") == 1 and found.stderr.startswith("zesty-pivot: ")
