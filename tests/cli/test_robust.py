"""The command line against what scripts and disks do to it: pipes, devices, Ctrl+C, full outputs, two at once."""

import json
import os
import random
import signal
import subprocess
import sys
import time
from pathlib import Path
from types import ModuleType

import pytest

from tests.cli.calling import zesty
from tests.samples import REAL_BLOCK, move, real_value, style, written
from zesty_pivot.cli import entry
from zesty_pivot.core.formats import block_file, folder, style_file

COMMAND = [sys.executable, "-m", "zesty_pivot"]


def one_line(found: subprocess.CompletedProcess[str], code: int = 1) -> str:
    assert found.returncode == code, (found.returncode, found.stderr)
    (line,) = found.stderr.strip().splitlines()
    assert line.startswith("zesty-pivot: ") and "Traceback" not in line
    return line


@pytest.mark.parametrize("what", ["pipe", "folder", "/dev/zero", "/dev/full", "/proc/self/mem", "link to itself"])
def test_only_regular_files_are_read(what: str, tmp_path: Path) -> None:
    """A pipe that nobody writes to would hang for ever, a device might never end."""
    path = tmp_path / "odd.zpiv"
    if what == "pipe":
        os.mkfifo(path)
    elif what == "folder":
        path.mkdir()
    else:
        path.symlink_to(path if what == "link to itself" else what)
    begun = time.monotonic()
    one_line(zesty("check", path))
    if what in ("pipe", "folder"):  # all read through one door
        one_line(zesty("derive", path, "--out", tmp_path / "out"))
        one_line(zesty(path))
        one_line(zesty("check", written([], tmp_path), "--block", path))
        one_line(zesty("derive", written([], tmp_path), "--measures", path, "--out", tmp_path / "out"))
    assert time.monotonic() - begun < 30.0 and not (tmp_path / "out").exists()


@pytest.mark.parametrize("folder", ["", "  "])
def test_an_empty_folder_name_is_refused(folder: str, tmp_path: Path) -> None:
    for args in (["derive", written([], tmp_path)], ["demo-sheets"]):
        assert "give the folder" in one_line(zesty(*args, "--out", folder), 2)


def test_a_date_that_cannot_be_printed_is_refused(tmp_path: Path) -> None:
    assert "--date" in one_line(zesty("derive", written([], tmp_path), "--out", tmp_path / "o", "--date", "a\x07"), 2)


def test_a_full_or_closed_output_is_one_line(tmp_path: Path) -> None:
    path = written([], tmp_path)
    with Path("/dev/full").open("w") as full:
        for args in (["steps"], ["check", str(path)], ["schema", "style"]):
            found = subprocess.run([*COMMAND, *args], stdout=full, stderr=subprocess.PIPE, text=True, check=False)
            assert "No space left" in one_line(found)
    with subprocess.Popen([*COMMAND, "steps", "--json"], stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True) as pipe:
        assert pipe.stdout is not None and pipe.stderr is not None
        pipe.stdout.close()
        said = pipe.stderr.read()
    assert pipe.returncode == 1 and said.count("\n") == 1 and "closed" in said


def test_a_name_that_no_character_set_knows(tmp_path: Path) -> None:
    path = Path(os.fsdecode(os.fsencode(tmp_path) + b"/odd\xff\x1b.zpiv"))
    path.write_bytes(style_file.dump(style([])))
    assert zesty("check", path).returncode == 0
    path.write_bytes(b"{")
    line = one_line(zesty("check", path))
    assert line.isprintable() and "odd" in line


def _begun(job: subprocess.Popen[str]) -> None:
    """Waits until the command itself runs: before that the interpreter answers a signal, and only the command heeds SIGTERM."""
    heeded, ends = 0, time.monotonic() + 20.0
    while not heeded >> (signal.SIGTERM - 1) & 1 and time.monotonic() < ends:
        time.sleep(0.005)
        (told,) = (row for row in Path(f"/proc/{job.pid}/status").read_text().splitlines() if row.startswith("SigCgt:"))
        heeded = int(told.split()[1], 16)


def test_ctrl_c_while_the_writer_is_still_being_loaded(monkeypatch: pytest.MonkeyPatch) -> None:
    ended: list[int] = []
    monkeypatch.setattr(os, "_exit", ended.append)
    monkeypatch.setitem(sys.modules, folder.__name__, ModuleType(folder.__name__))  # begun, and still empty
    entry._end(signal.SIGINT, None)
    assert ended == [130]


@pytest.mark.parametrize("seed", [0, *(pytest.param(n, marks=pytest.mark.whole) for n in (1, 2))])
def test_ctrl_c_at_any_moment_ends_quietly(seed: int, tmp_path: Path) -> None:
    """130 and not a word; what was written before is whole."""
    chance = random.Random(seed)
    path, out = written([move("waist", "french")], tmp_path), tmp_path / "out"
    codes = set()
    for _ in range(8):
        with subprocess.Popen(
            [*COMMAND, "derive", str(path), "--out", str(out)],
            stdout=subprocess.DEVNULL,
            stderr=subprocess.PIPE,
            text=True,
            # Heeded even when the tests themselves run in the background of a shell, which ignores it and hands that on.
            preexec_fn=lambda: signal.signal(signal.SIGINT, signal.SIG_DFL),
        ) as job:
            _begun(job)
            time.sleep(chance.uniform(0.0, 1.0))
            job.send_signal(signal.SIGINT)
            assert job.stderr is not None
            said = job.stderr.read()
        codes.add(job.returncode)
        assert said == "" and job.returncode in (0, 130)
        names = {p.name for p in out.iterdir()} if out.exists() else set()
        assert names in (set(), {"sheet.svg", "front.svg", "back.svg", "tiles-A4.pdf", "full.pdf", "report.json"})
    assert 130 in codes


def test_two_at_once_never_mix(tmp_path: Path) -> None:
    """Two styles written to one folder over and over: what is there in the end is all of one of them."""
    out = tmp_path / "out"
    paths = []
    for name, steps in (("one", [move("waist", "french")]), ("two", [{"do": "line.princess", "on": "front"}])):
        (tmp_path / name).mkdir()
        path = tmp_path / name / "s.zpiv"
        path.write_bytes(style_file.dump(style(steps).model_copy(update={"name": name})))
        paths.append(path)
    for _ in range(3):
        args = [[*COMMAND, "derive", str(path), "--out", str(out), "--format", "svg"] for path in paths]
        with (
            subprocess.Popen(args[0], stdout=subprocess.DEVNULL) as one,
            subprocess.Popen(args[1], stdout=subprocess.DEVNULL) as two,
        ):
            assert one.wait(60) == 0 and two.wait(60) == 0
        report = json.loads((out / "report.json").read_text())
        assert {p.name for p in out.iterdir()} == {"sheet.svg", "report.json", *(row["svg"] for row in report["pieces"])}
        assert f"<title>{report['style']}</title>" in (out / "sheet.svg").read_text()


def test_pieces_of_one_name_in_letters_have_files_of_their_own(tmp_path: Path) -> None:
    value = real_value()
    for piece, name in zip(value["pieces"], ("前", "後"), strict=True):
        piece["name"] = name
    path = tmp_path / "s.zpiv"
    path.write_bytes(style_file.dump(style([], block_file.from_value(value, "b"))))
    assert zesty("derive", path, "--out", tmp_path / "out", "--format", "svg").returncode in (0, 1)
    assert {"前.svg", "後.svg", "sheet.svg"} <= {p.name for p in (tmp_path / "out").iterdir()}


def test_without_a_home_and_with_a_settings_folder_that_is_a_file(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("x")
    env = {key: value for key, value in os.environ.items() if key != "HOME"} | {"XDG_STATE_HOME": str(tmp_path / "file")}
    found = subprocess.run([*COMMAND, "check", str(REAL_BLOCK)], capture_output=True, text=True, env=env, check=False)
    assert "Choose a style file" in one_line(found)


def test_a_fault_of_the_program_is_one_line_and_a_log(tmp_path: Path) -> None:
    code = (
        "import sys\nfrom zesty_pivot.cli import main\nfrom zesty_pivot.core.formats import report\n"
        "def fails(*_args): raise RuntimeError('planted')\nreport.report = fails\nmain.run(sys.argv[1:])\n"
    )
    env = {**os.environ, "XDG_STATE_HOME": str(tmp_path / "state")}
    args = ["derive", str(written([move("waist", "french")], tmp_path)), "--out", str(tmp_path / "out")]
    found = subprocess.run([sys.executable, "-c", code, *args], capture_output=True, text=True, env=env, check=False)
    line = one_line(found)
    assert "fault of the program" in line and "faults.log" in line and not (tmp_path / "out").exists()
    log = (tmp_path / "state" / "zesty-pivot" / "faults.log").read_text()
    assert "RuntimeError: planted" in log and '"do": "dart.move"' in log
