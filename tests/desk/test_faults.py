"""A fault of the program anywhere leaves the window usable, the work saved, and one sentence on the screen."""

import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.core.formats.work_left import left_behind
from tests.samples import move, style
from zesty_pivot.core.checks import corners
from zesty_pivot.core.finish import whole
from zesty_pivot.core.formats import leftovers as formats_leftovers
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.piece_true import TruePiece
from zesty_pivot.desk import settings, start, thumbs
from zesty_pivot.desk.crashes import CrashFile, crashes
from zesty_pivot.desk.forms.piece_true import TruePieceForm
from zesty_pivot.desk.panels.findings import Findings
from zesty_pivot.desk.settings import journal_folder
from zesty_pivot.desk.table.style_table import StyleTable

STEPS = [move("waist", "french"), {"do": "piece.true", "on": "front", "edge": "waist"}]
OTHER = move("shoulder", "mid_armhole", "50%")


def fails(*_args: object, **_more: object) -> None:
    raise RuntimeError("planted")


PLANTS: dict[str, Callable[[pytest.MonkeyPatch], None]] = {
    "a step": lambda plant: plant.setattr(TruePiece, "apply", fails),
    "its words": lambda plant: plant.setattr(TruePiece, "words", fails),
    "a check": lambda plant: plant.setattr(corners, "jog", fails),
    "the finish": lambda plant: plant.setattr(whole, "finish_piece", fails),
    "a thumbnail": lambda plant: plant.setattr(thumbs, "_drawn", fails),
    "a form": lambda plant: plant.setattr(TruePieceForm, "show_step", fails),
    "a panel": lambda plant: plant.setattr(Findings, "_limit", fails),
    "what can be done": lambda plant: plant.setattr("zesty_pivot.desk.step_actions.can_true", fails),
    "the journal reader": lambda plant: plant.setattr(formats_leftovers, "_read", fails),
    "the settings reader": lambda plant: plant.setattr(settings.Settings, "model_validate", staticmethod(fails)),
}


@pytest.mark.plants_faults
@pytest.mark.parametrize("where", PLANTS)
def test_a_fault_anywhere(where: str, open_desk, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """The window opens, shows every view, edits, undoes, redoes, saves; what it saved opens again without the fault."""
    left_behind(journal_folder())
    settings.save(settings.Settings(has_started=True))
    with monkeypatch.context() as plant:
        PLANTS[where](plant)
        window = open_desk(style(STEPS))
        window.begin(with_start_page=False)
        window.model.set_view("style")
        window.model.choose_step(1)
        QTest.qWait(50)
        for view in ("finish", "paper", "start", "style"):
            window.model.set_view(view)
        before = window.model.style
        window.model.recipe.add_step(registry.read(OTHER), "move")
        QTest.qWait(50)
        after = window.model.style
        assert len(after.steps) == 3
        window.run("edit.undo")
        assert window.model.style == before
        window.run("edit.redo")
        assert window.model.style == after
        window.ask.path = tmp_path / "work.zpiv"
        window.run("file.save")
        assert style_file.read(tmp_path / "work.zpiv") == after and not window.model.file.is_dirty
        while window.notice.key not in ("", "fault"):  # what was set aside is told as well
            QTest.mouseClick(window.notice.buttons[-1], Qt.MouseButton.LeftButton)
        assert window.notice.isVisible() and window.notice.key == "fault"
        text = window.notice.words.text()
        assert "fault of the program" in text and "Your work is safe" in text and "\n" not in text and "Traceback" not in text
        window.ask.path = tmp_path / "report.txt"
        QTest.mouseClick(window.notice.buttons[0], Qt.MouseButton.LeftButton)
        told = (tmp_path / "report.txt").read_text()
        assert "RuntimeError: planted" in told and '"do": "piece.true"' in told and str(tmp_path) not in told
        reference = told.split("reference ")[1].split()[0]  # the times before it may be a second apart
        assert f"reference {reference}  in " in settings.fault_log().read_text().splitlines()[0]
        window.docs.open_path(tmp_path / "work.zpiv")
        assert window.model.style == after


@pytest.mark.plants_faults
def test_a_picture_that_fails_says_so_where_it_would_be(open_desk, monkeypatch: pytest.MonkeyPatch, qtlog) -> None:
    window = open_desk(style(STEPS))
    with monkeypatch.context() as plant, qtlog.disabled():
        plant.setattr(StyleTable, "paint_still", fails)
        window.table.zoom(1.1)  # so that what keeps still is drawn anew
        window.table.update()
        QTest.qWait(50)
    assert "fault of the program" in window.notice.words.text()
    window.table.update()
    QTest.qWait(50)
    window.run("edit.copy_picture")


@pytest.mark.plants_faults
def test_an_edit_that_cannot_be_worked_out_is_taken_back_and_undo_always_works(
    open_desk, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = open_desk(style(STEPS))
    window.model.recipe.add_step(registry.read(OTHER), "move")
    work = window.model.style
    with monkeypatch.context() as plant:
        plant.setattr(Evaluator, "evaluate", fails)
        window.model.recipe.remove_step(0)
        assert window.model.style == work and "Left as it was" in window.message.text()
        assert window.model.derived.derivation.broken  # nothing can be worked out now, and that is shown
        window.run("edit.undo")
        assert window.model.style == style(STEPS) and len(window.model.derived.derivation.states) == 3
    window.run("edit.redo")
    assert window.model.style == work and not window.model.derived.derivation.broken


def test_what_could_not_be_opened_again_is_not_taken(open_desk) -> None:
    """Four hundred steps are all that a style may have, and names have no control characters: edits beyond are left."""
    window = open_desk(style(STEPS))
    many = tuple(registry.read({**step, "off": True}) for step in STEPS) * 200
    window.model.edit(window.model.style.with_steps(many), "many")
    assert len(window.model.style.steps) == 400
    window.model.recipe.duplicate_step(0)
    assert len(window.model.style.steps) == 400 and "Left as it was" in window.message.text()
    before = window.model.style
    window.ask.typed = "bell\x07"
    window.run("file.rename")
    assert window.model.style is before and "control character" in window.message.text()
    window.strip._rename(1, "bell\x07")
    assert window.model.style is before and "control character" in window.message.text()


@pytest.mark.plants_faults
def test_a_fault_that_no_boundary_caught_is_told_as_well(open_desk, tmp_path: Path) -> None:
    window = open_desk(style(STEPS))
    try:
        fails()
    except RuntimeError as fault:
        start._caught(type(fault), fault, fault.__traceback__)
    assert "fault of the program" in window.notice.words.text()
    QTest.mouseClick(window.notice.buttons[-1], Qt.MouseButton.LeftButton)
    assert window.notice.isHidden()


def test_a_crash_is_offered_as_a_report_at_the_next_start(open_desk, tmp_path: Path) -> None:
    """A crash below Python: a process of its own writes where it was, and the next start finds it with the work's steps."""
    folder = settings.crash_folder()
    code = (
        "import sys, ctypes; from pathlib import Path; from zesty_pivot.desk.crashes import CrashFile\n"
        "crash = CrashFile(Path(sys.argv[1]))\nctypes.string_at(0)"
    )
    subprocess.run([sys.executable, "-c", code, str(folder)], check=False, capture_output=True)
    (left,) = folder.iterdir()
    assert b"Segmentation fault" in left.read_bytes()
    left_behind(journal_folder())
    window = open_desk()
    window.begin(with_start_page=False)
    assert "stopped in the middle" in window.notice.words.text() and not list(folder.iterdir())
    window.ask.path = tmp_path / "report"
    QTest.mouseClick(window.notice.buttons[0], Qt.MouseButton.LeftButton)
    told = (tmp_path / "report.txt").read_text()
    assert "Segmentation fault" in told and '"dart": "shoulder"' in told and str(Path(sys.prefix)) not in told


def test_a_process_that_ends_orderly_leaves_no_crash(tmp_path: Path) -> None:
    crash = CrashFile(tmp_path)
    assert len(list(tmp_path.iterdir())) == 1 and crashes(tmp_path) == ""
    crash.close()
    assert not list(tmp_path.iterdir())
    (tmp_path / "4194999.crash").write_bytes(b"")
    assert crashes(tmp_path) == "" and not list(tmp_path.iterdir())
    CrashFile(tmp_path / "no" / "\0").close()


@pytest.mark.parametrize("asked", [signal.SIGINT, signal.SIGTERM])
def test_a_window_that_is_asked_to_end_ends_quietly_and_keeps_the_work(asked: int, tmp_path: Path) -> None:
    env = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    code = (
        "import sys; from PyQt6.QtCore import QTimer\nfrom zesty_pivot.desk import start as s\n"
        "from tests.desk.test_faults import edited\n"
        "made = s.open_window\n"
        "def opened(path):\n    window = made(path)\n    QTimer.singleShot(100, lambda: edited(window))\n    return window\n"
        "s.open_window = opened\nsys.argv = ['zesty-pivot', 'demo']\nfrom zesty_pivot.cli.entry import main\nmain()\n"
    )
    with subprocess.Popen(
        [sys.executable, "-c", code], env=env, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
    ) as window:
        assert window.stdout is not None and window.stdout.readline() == "edited\n"
        window.send_signal(asked)
        begun = time.monotonic()
        out, err = window.communicate(timeout=20)
    assert window.returncode == 128 + asked and err == "" and out == "" and time.monotonic() - begun < 10.0
    (left,) = formats_leftovers.leftovers(journal_folder()).offered
    assert left.style.notes == "edited"
    assert not list(settings.crash_folder().iterdir())


def edited(window) -> None:  # type: ignore[no-untyped-def]
    """An edit in the process that is asked to end."""
    window.model.edit(window.model.style.model_copy(update={"notes": "edited"}), "note")
    sys.stdout.write("edited\n")
    sys.stdout.flush()
