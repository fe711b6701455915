"""A block traced with a digitiser in the real window: the simulated one, a kept stream, a line that breaks, a port that is
not there."""

from __future__ import annotations

import os
import time
from pathlib import Path

import pytest
from PyQt6.QtTest import QTest

from tests.core.intake.comparing import apart
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import digitised, library, ruled
from zesty_pivot.core.intake.digitiser import stream
from zesty_pivot.core.intake.digitiser.port import FoundPort, Replay
from zesty_pivot.data.demo import demo_style, demo_trace
from zesty_pivot.data.digitisers import shipped
from zesty_pivot.desk import digitiser_view
from zesty_pivot.desk import digitising as digitising_module
from zesty_pivot.desk import window as endings
from zesty_pivot.desk.model import DIGITISER, IMPORT


@pytest.fixture
def window(open_desk):  # type: ignore[no-untyped-def]
    found = open_desk()
    found.run("digitiser.show")
    assert found.model.view == DIGITISER
    return found


def until(is_so, seconds: float = 5.0) -> None:  # type: ignore[no-untyped-def]
    end = time.monotonic() + seconds
    while not is_so():
        assert time.monotonic() < end
        QTest.qWait(10)


def test_the_simulated_digitiser_traces_the_demos_block(window) -> None:  # type: ignore[no-untyped-def]
    """Places come one after the other, as fast as its line; the rest at once; then it is a block like any that comes in."""
    digitising, view = window.views.intake.digitising, window.views.intake.digitiser_view
    view.start.click()
    until(lambda: len(digitising.presses) > 30)
    assert digitising.is_running and view.progress.isVisible() and view.start.text() == "Stop"
    assert len(digitising.presses) < 500 and not view.device.isEnabled()
    view.buttons["digitiser.to_end"].click()
    assert not digitising.is_running and digitising.told == ()
    assert dict(view.counts.rows)["Notches"] == "2"
    view.buttons["digitiser.finish"].click()
    assert window.model.view == IMPORT
    off = apart(demo_style().block, window.views.intake.incoming.block)
    assert off.seam < 0.5 and off.dart < 0.3
    assert window.views.intake.incoming.name == "paper-block"
    assert max(far.mm for far in window.views.intake.incoming.far.values()) < 1.0  # the hand's own straying
    assert all(0.1 <= piece.error < 0.6 for piece in window.views.intake.incoming.outcome.paper.pieces)


def test_undo_and_the_last_place(window) -> None:  # type: ignore[no-untyped-def]
    digitising = window.views.intake.digitising
    digitising.play_demo()
    digitising.to_end()
    presses = list(digitising.presses)
    window.run("digitiser.back")
    assert digitising.presses == presses[:-1]
    window.run("digitiser.back")
    assert digitising.presses == presses[:-2]
    window.run("digitiser.begin_again")
    assert digitising.presses == [] and not window.qt_action("digitiser.finish").isEnabled()
    for _step in range(3):
        window.run("edit.undo")
    assert digitising.presses == presses
    window.run("edit.redo")
    assert digitising.presses == presses[:-1]


def test_another_digitiser_reads_the_same_lines(window) -> None:  # type: ignore[no-untyped-def]
    """The wrong one understands none of them, and says so; the right one all."""
    digitising = window.views.intake.digitising
    digitising.play_demo()
    digitising.to_end()
    count = len(digitising.presses)
    digitising.set_device("inches")
    assert digitising.presses == [] and "nothing that this digitiser says" in window.views.intake.digitiser_view.told.text()
    digitising.set_device("tenths")
    assert len(digitising.presses) == count


def test_a_trace_is_kept_and_replayed_and_dropped(window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    digitising = window.views.intake.digitising
    digitising.play_demo()
    digitising.to_end()
    path = tmp_path / "mine.ztrace"
    monkeypatch.setattr(window.ask, "save_file", lambda *_asked: path)
    window.run("digitiser.save")
    assert path.read_bytes() == demo_trace()
    monkeypatch.setattr(window.ask, "open_file", lambda *_asked: path)
    window.run("digitiser.replay")
    assert digitising.is_running and digitising.taken.name == "mine"
    assert window.views.intake.digitiser_view.line.currentText().startswith("Simulated")
    digitising.to_end()
    window.take(path)
    until(lambda: window.model.view == IMPORT)
    assert window.views.intake.incoming.name == "mine"
    path.write_text("this is\na letter\nto nobody\n")
    window.model.set_view(DIGITISER)
    window.run("digitiser.replay")
    assert "no stream of a digitiser" in window.message.text() and len(digitising.presses) > 500


def test_a_digitiser_of_ones_own(window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "ours.zdigit"
    path.write_text(shipped()[0].model_copy(update={"id": "ours", "title": "Ours", "mm": 0.2}).model_dump_json())
    monkeypatch.setattr(window.ask, "open_file", lambda *_asked: path)
    window.run("digitiser.device")
    assert window.views.intake.digitiser_view.device.currentText() == "Ours"
    path.write_text("{}")
    window.run("digitiser.device")
    assert "ours.zdigit" in window.message.text() and window.views.intake.digitising.device.title == "Ours"


def test_a_port(window, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    """A terminal pair stands in for a digitiser on a serial port: it is offered, opened, pressed, and pulled out."""
    ours, theirs = os.openpty()
    name = os.ttyname(theirs)
    monkeypatch.setattr(digitiser_view, "ports", lambda: [FoundPort(name, f"{name} pair")])
    view, digitising = window.views.intake.digitiser_view, window.views.intake.digitising
    view.refresh()
    view.line.setCurrentIndex(1)
    view.start.click()
    assert digitising.is_running and digitising.replay is None
    os.write(ours, b"100,200,1\r\n300,2")
    until(lambda: len(digitising.presses) == 1)
    os.write(ours, b"00,1\r\n")
    until(lambda: len(digitising.presses) == 2)
    os.close(ours)
    os.close(theirs)
    until(lambda: not digitising.is_running)
    assert "the digitiser is gone" in window.message.text() and len(digitising.presses) == 2
    view.start.click()  # it is not there any longer
    assert not digitising.is_running and name in window.message.text()


def test_nothing_that_closes_is_told(window) -> None:  # type: ignore[no-untyped-def]
    digitising = window.views.intake.digitising
    digitising.play_demo()
    digitising.stop()
    digitising.undo(-1)
    with pytest.raises(FileError, match="no outline was pressed"):
        digitising.source()


def test_a_last_line_without_an_end_counts_once(window, open_desk) -> None:  # type: ignore[no-untyped-def]
    """Stopped in the middle of a line, before its end, in the middle of its numbers: the same when it is read again."""
    digitising = window.views.intake.digitising
    for cut in (len(demo_trace()) // 2 + k for k in range(0, 16, 3)):
        digitising.begin_again()
        digitising.play("cut.ztrace", demo_trace()[:cut])
        digitising._take(digitising.replay.rest())
        digitising.stop()
        window.keeper.writer.flush()
        assert open_desk().views.intake.digitising.presses == digitising.presses
        window.run("edit.undo")
        window.run("edit.redo")
        assert digitising.presses == stream.read(demo_trace()[:cut], digitising.device).presses


def test_a_trace_is_there_again(window, open_desk) -> None:  # type: ignore[no-untyped-def]
    """What the line sent is kept as it comes: after a kill it lies on the table again."""
    digitising = window.views.intake.digitising
    digitising.play_demo()
    until(lambda: len(digitising.presses) > 40)
    digitising.stop()
    window.keeper.writer.flush()
    again = open_desk().views.intake.digitising
    assert again.presses == digitising.presses and again.device.id == "tenths"


def test_a_trace_of_ones_own_digitiser_is_there_again(window, open_desk, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """With how it talks: its file need not be found again."""
    digitising = window.views.intake.digitising
    digitising.play_demo()
    digitising.to_end()
    path = tmp_path / "ours.zdigit"
    path.write_text(shipped()[0].model_copy(update={"id": "ours", "mm": 0.2}).model_dump_json())
    digitising.add_device(path)
    window.keeper.writer.flush()
    again = open_desk().views.intake.digitising
    assert again.device.id == "ours" and again.presses == digitising.presses and again.device in again.devices


def test_a_line_cut_off_is_no_part_of_the_next(window, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    """Pulled out in the middle of a line and opened again: undo and redo read the same."""
    digitising = window.views.intake.digitising
    monkeypatch.setattr(digitising_module, "SerialLine", lambda _name, _device: Replay(b"", 9600.0))
    digitising.open("a port")
    digitising._take(b"100,200,1\r\n300,4")
    digitising.open("a port")
    digitising._take(b"500,600,2\r\n")
    digitising.stop()
    wanted = [(10.0, -20.0), (50.0, -60.0)]
    assert [(press.x, press.y) for press in digitising.presses] == wanted
    digitising.begin_again()
    window.run("edit.undo")
    assert [(press.x, press.y) for press in digitising.presses] == wanted


def test_the_last_place_that_stands_is_taken_back(window) -> None:  # type: ignore[no-untyped-def]
    """Not one that the device itself took back, nor its taking back."""
    digitising = window.views.intake.digitising
    digitising._take(b"10,10,1\r\n20,20,1\r\n30,30,1\r\n0,0,*\r\n")
    digitising.back()
    assert [press.x for press in stream.standing(digitising.presses)] == [1.0]
    digitising.back()
    digitising.back()
    assert stream.standing(digitising.presses) == []


def test_the_windows_endings_are_those_of_the_formats() -> None:
    """They stand there once more, so that a start does not load the formats."""
    assert endings.TRACE == digitised.SUFFIX
    assert endings.RULER_SHEET == ruled.SUFFIX
    assert endings.RAIL == library.WHOLE_SUFFIX
