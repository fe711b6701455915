"""Long work: beside the interface, with progress, stopped by a button; the interface answers meanwhile."""

import threading
import time
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtTest import QTest

from tests.samples import move, style, written
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.desk.work import Progress, Stopped, Worker
from zesty_pivot.desk.writer import Writer


@pytest.fixture
def heard() -> dict:
    return {"done": [], "faults": []}


def run(worker: Worker, job, heard: dict) -> None:  # type: ignore[no-untyped-def]
    worker.run("Testing", job, heard["done"].append, heard["faults"].append)


def test_short_work_is_done_at_once(qtbot, heard: dict) -> None:  # type: ignore[no-untyped-def]
    worker = Worker()
    run(worker, lambda _told: 42, heard)
    assert heard["done"] == [42] and not worker.is_busy


def test_long_work_leaves_the_interface_free(qtbot, heard: dict) -> None:  # type: ignore[no-untyped-def]
    """The work ends only once the event loop has gone round six times beside it; how smoothly is for the bench."""
    worker, turns, free = Worker(), [], threading.Event()

    def turn() -> None:
        turns.append(worker.is_busy)
        if len(turns) == 6:
            free.set()

    timer = QTimer()
    timer.timeout.connect(turn)
    timer.start(10)

    def job(told) -> str:  # type: ignore[no-untyped-def]
        end = time.monotonic() + 30.0
        while not free.is_set() and time.monotonic() < end:
            sum(range(2000))
            told(1, 2)
        return "made" if free.is_set() else "never let go"

    run(worker, job, heard)
    qtbot.waitUntil(lambda: bool(heard["done"]), timeout=40_000)
    timer.stop()
    assert heard["done"] == ["made"] and turns[:6].count(True) >= 5


def test_progress_is_told_a_few_times_a_second_and_at_its_end() -> None:
    """Telling every part filled the interface's queue: 2 turns of its timer in a second instead of 100."""
    told: list[tuple[int, int]] = []
    progress = Progress(lambda done, total: told.append((done, total)))
    for part in range(50_001):
        progress(part, 50_000)
    assert told[0] == (0, 50_000) and told[-1] == (50_000, 50_000) and len(told) < 1000


def test_it_can_be_stopped(open_desk, qtbot, heard: dict) -> None:  # type: ignore[no-untyped-def]
    window = open_desk()
    window.worker.patience = 0.01
    ran = threading.Event()

    def job(told) -> None:  # type: ignore[no-untyped-def]
        for part in range(10_000):
            told(part, 10_000)
            ran.set()
            time.sleep(0.005)

    run(window.worker, job, heard)
    assert window.worker.is_busy and not window.qt_action("export.pdf").isEnabled()
    run(window.worker, lambda _told: None, heard)  # a second piece of work is refused in a sentence
    assert "still at work" in str(heard["faults"][0])
    qtbot.waitUntil(lambda: window.progress.isVisible() and window.progress.bar.value() > 0, timeout=3000)
    QTest.mouseClick(window.progress.cancel, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=3000)
    assert isinstance(heard["faults"][1], Stopped) and not window.progress.isVisible()
    assert window.qt_action("export.pdf").isEnabled() and ran.is_set()


def test_faults_come_back(qtbot, heard: dict) -> None:  # type: ignore[no-untyped-def]
    def job(_told) -> None:  # type: ignore[no-untyped-def]
        raise ZestyError("no such thing", advice="Try another.")

    run(Worker(), job, heard)
    assert [str(fault) for fault in heard["faults"]] == ["no such thing. Try another."]


def test_an_export_that_is_stopped_writes_nothing(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = open_desk()
    window.worker.patience = 0.0
    window.ask.path = tmp_path / "out.pdf"
    window.run("export.pdf")
    window.worker.stop()
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=10_000)
    if "stopped" in window.message.text():
        assert not (tmp_path / "out.pdf").exists()
    else:
        assert (tmp_path / "out.pdf").read_bytes().startswith(b"%PDF")
    assert not list(tmp_path.glob("*.part"))


def test_progress_counts_every_file() -> None:
    told: list[tuple[int, int]] = []
    found = outputs(
        derive(style([move("shoulder", "french")])),
        ("svg", "pdf", "json"),
        Printing(packing="kept"),
        lambda *at: told.append(at),
    )
    assert told == [(k, len(found)) for k in range(len(found) + 1)]

    def stop(done: int, _total: int) -> None:
        if done == 2:
            raise Stopped("stopped")

    with pytest.raises(Stopped):
        outputs(derive(style([])), ("svg", "json"), Printing(packing="kept"), stop)


def test_opening_a_long_recipe_can_be_stopped(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    path = written([move("shoulder", "french"), move("shoulder", "mid_shoulder")] * 150, tmp_path)
    window = open_desk()
    first = window.model.style
    window.worker.patience = 0.0
    window.docs.open_path(path)
    window.worker.stop()
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=10_000)
    assert window.model.style is first and "stopped" in window.message.text()
    window.docs.open_path(path)
    qtbot.waitUntil(lambda: len(window.model.style.steps) == 300, timeout=20_000)
    assert window.model.file.path == path


@pytest.mark.plants_faults
def test_the_writer_keeps_only_the_last_of_a_key() -> None:
    faults: list[ZestyError] = []
    writer, done, gate = Writer(faults.append), [], threading.Event()
    writer.put("a", gate.wait)
    for number in range(50):
        writer.put("b", lambda number=number: done.append(number))

    def failing() -> None:
        raise ZestyError("full")

    writer.put("c", failing)
    gate.set()
    assert writer.flush() and done == [49] and str(faults[0]) == "full"
    writer.put("odd", lambda: [].pop())  # no fault of ours; the writer goes on all the same
    writer.put("d", lambda: done.append("last"))
    writer.stop()
    assert "writing your work down could not be done" in str(faults[1]) and "fault of the program" in str(faults[1])
    assert done == [49, "last"]
