"""Random sessions at the real window: everything a user can click, type and drag, in any order, undone and redone."""

from __future__ import annotations

import gc
import hashlib
import os
import random
import re
import shutil
import sys
from collections.abc import Callable
from functools import lru_cache
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PyQt6.QtCore import QEvent, QEventLoop, Qt, QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QComboBox, QLineEdit, QWidget

from tests.conftest import Answers
from tests.torture.blocks import COUNT, block
from tests.torture.recipes import Caught, any_finish, read
from tests.torture.steps import any_step
from zesty_pivot.core.faults import LOGGER
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.recipe.evaluation import KEPT_STATES
from zesty_pivot.desk.history import KEPT_ENTRIES
from zesty_pivot.desk.start import application
from zesty_pivot.desk.window import Window

SEEN_EACH = 25  # every so many edits the style is saved, opened again, and worked out anew
MOST_STEPS = 12  # a longer recipe is cut down, so that a session does not slow down
GROWTH = 1.02  # what is kept may grow by so much from one round of undo and redo to the next
TYPED = (
    "3", "13,5", "0", "-2", "", " ", "abc", "½", "5 1/4 in", "1e9", "waist/4 1/2", "½½", "bust/12", "1,000", "nan", "99 cm",
    "前", "(", "1/0", "50%", "-1 in", "12 mm", "a" * 300, "Łódź",
)  # fmt: skip

# What opens a dialog of its own, leaves the program, or puts something into the user's clipboard.
LEFT_OUT = {"file.quit", "help.about", "help.commands", "step.underlay", "file.settings", "help.guide", "edit.copy_picture"}


def _turn(msec: int = 0) -> None:
    """Lets the event loop run, as it does for a user: only then goes what was to be deleted."""
    loop = QEventLoop()
    QTimer.singleShot(msec, loop.quit)
    loop.exec()


def _settle() -> None:
    """Lets all that was begun come to its end."""
    for _ in range(3):
        _turn(20)
        gc.collect()


@lru_cache(maxsize=1)
def _app() -> QApplication:
    """The one application of this process, kept for as long as it runs."""
    return application()


def digest(style: Style) -> str:
    """What a style's file holds, in a few characters."""
    return hashlib.sha256(style_file.dump(style)).hexdigest()[:16]


def window_on(style: Style) -> Window:
    """The window on a style, with prepared answers to its questions."""
    _app()
    window = Window(style)
    window.ask = Answers()  # type: ignore[assignment]
    window.show_file = window.ask.shown.append  # type: ignore[method-assign, attr-defined]
    window.resize(1280, 800)
    window.show()
    return window


class Session:
    """One window with a random user; `wrong` is what did not hold."""

    def __init__(self, seed: int, folder: Path) -> None:
        self.chance, self.folder = random.Random(seed), folder
        base = block(self.chance.randrange(COUNT))
        self.window = window_on(Style(name="Any", block=base, steps=(), units=self.chance.choice(["cm", "in", "mm"])))
        self.model = self.window.model
        self.ids = [id for id in self.window.qt_actions.known if id not in LEFT_OUT and not id.startswith(("export.", "file."))]
        self.wrong: list[str] = []
        self.made: dict[int, tuple[Style, str]] = {}
        self.model.document_changed.connect(self._remember)
        self._remember()

    def _remember(self) -> None:
        style = self.model.style
        known = self.made.setdefault(id(style), (style, digest(style)))
        if known[1] != digest(style):
            self.wrong.append(f"a document is another one than when it was made: {self.model.history.undo_title}")
        if len(self.made) > 3 * KEPT_ENTRIES:
            self.made = {id(style): (style, self.made.get(id(style), (style, digest(style)))[1]) for style in self.values}

    @property
    def values(self) -> list[Style]:
        """The documents that the history keeps."""
        return self.model.history.values

    def edit(self, count: int) -> None:
        """So many turns of the user."""
        ways: list[tuple[int, Callable[[], object]]] = [
            (6, self._action), (5, self._step), (4, self._drag), (4, self._type), (2, self._pick), (1, self._finish),
            (2, self._look), (2, self._back_and_forth), (1, self._mend),
        ]  # fmt: skip
        for turn in range(1, count + 1):
            (way,) = self.chance.choices([way for _w, way in ways], [weight for weight, _way in ways])
            way()
            self._cut_down()
            _turn()
            if len(self.model.derived.derivation.states) != len(self.model.style.steps) + 1 and not self.model.is_previewing:
                self.wrong.append(f"turn {turn}, {way.__name__}: not a state for every step")
            if turn % SEEN_EACH == 0:
                self._seen(turn)

    # What a user does.

    def _action(self) -> None:
        self.window.run(self.chance.choice(self.ids))

    def _step(self) -> None:
        step = read(any_step(self.chance, self.model.pattern))
        if step is not None:
            self.model.recipe.add_step(step, step.said())

    def _drag(self) -> None:
        control, ring = self.window.table.control, self.window.table.ring()
        darts = [dart for piece in self.model.pattern.pieces for dart in piece.darts]
        if darts and self.chance.random() < 0.5:
            piece = self.chance.choice([piece for piece in self.model.pattern.pieces if piece.darts])
            dart = self.chance.choice(piece.darts)
            self.model.choose_pivot((piece.name, dart.pivot), dart.id)
            ring = self.window.table.ring()
        if ring is None or not ring.beads:
            return
        control.pick_up(self.chance.choice(ring.beads).dart)
        for _ in range(self.chance.randint(1, 3)):
            control.point(self.chance.uniform(-3.2, 3.2))
            if self.chance.random() < 0.4:
                control.set_share(self.chance.random())
        self.chance.choice([control.drop, control.drop, control.drop, control.let_go])()

    def _fields(self, kind: type[QWidget]) -> list[QWidget]:
        within = self.window.views.finish if self.model.view == "finish" else self.window.side
        return [field for field in within.findChildren(kind) if field.isVisible() and field.isEnabled()]

    def _type(self) -> None:
        fields = self._fields(QLineEdit)
        if not fields:
            return
        field = self.chance.choice(fields)
        assert isinstance(field, QLineEdit)
        field.setFocus()
        field.selectAll()
        field.insert(self.chance.choice(TYPED))
        QTest.keyClick(field, self.chance.choice([Qt.Key.Key_Return, Qt.Key.Key_Tab, Qt.Key.Key_Escape]))

    def _pick(self) -> None:
        boxes = self._fields(QComboBox)
        if not boxes:
            return
        box = self.chance.choice(boxes)
        assert isinstance(box, QComboBox)
        if box.count():
            at = self.chance.randrange(box.count())
            box.setCurrentIndex(at)
            box.activated.emit(at)

    def _finish(self) -> None:
        finish = any_finish(self.chance, self.model.derived.derivation.block)
        self.model.edit(self.model.style.model_copy(update={"finish": finish}), "finish")

    def _look(self) -> None:
        self.model.choose_step(self.chance.randrange(-1, len(self.model.style.steps) + 1))

    def _back_and_forth(self) -> None:
        for _ in range(self.chance.randint(1, 6)):
            self.chance.choice([self.model.undo, self.model.undo, self.model.redo])()

    def _mend(self) -> None:
        mends = [finding.mend for finding in self.model.findings if finding.mend is not None]
        if mends:
            self.model.recipe.mend(self.chance.choice(mends))

    def _cut_down(self) -> None:
        steps = self.model.style.steps
        if len(steps) > MOST_STEPS:
            kept = sorted(self.chance.sample(range(len(steps)), MOST_STEPS // 2))
            self.model.edit(self.model.style.with_steps(tuple(steps[at] for at in kept)), "fewer steps")

    # What must hold.

    def _seen(self, turn: int) -> None:
        """What is shown is what a program that has just been started would show, and what is saved can be opened."""
        path, style = self.folder / "seen.zpiv", self.model.style
        style_file.save(style, path)
        again = style_file.read(path)
        if again != style:
            self.wrong.append(f"turn {turn}: another style when it is opened again")
        if self.model.is_previewing:
            return
        fresh = derive(again)
        if fresh.pattern != self.model.derived.pattern:
            self.wrong.append(f"turn {turn}: the pattern shown is not the one that the file gives")
        if [finding.message for finding in fresh.findings] != [finding.message for finding in self.model.derived.findings]:
            self.wrong.append(f"turn {turn}: the findings shown are not those that the file gives")

    def there_and_back(self) -> None:
        """All is undone and redone; each document is the one that was made, and the last one is the one there was."""
        self.window.table.control.let_go()
        while self.model.history.redo_title:
            self.model.redo()
        last, kept = digest(self.model.style), len(self.values)
        seen = [last]
        while self.model.history.undo_title:
            self.model.undo()
            _turn()
            seen.append(digest(self.model.style))
        back = [seen[-1]]
        while self.model.history.redo_title:
            self.model.redo()
            _turn()
            back.append(digest(self.model.style))
        if seen != back[::-1] or back[-1] != last or len(back) != kept:
            self.wrong.append("undo and redo of all do not lead through the same documents")

    def grows(self) -> None:
        """Going through it all again keeps nothing more: objects, widgets, states, entries."""
        counts = []
        for _ in range(4):  # what is kept of the last so many has filled up by the third
            self.there_and_back()
            _settle()
            self.window.views.in_sizes.close()  # while another thread makes a tuple, asking for all objects breaks it (CPython)
            counts.append((len(gc.get_objects()), len(QApplication.allWidgets()), round(memory_mb())))
        for what, first, then in zip(("objects", "widgets", "MB"), counts[2], counts[3], strict=True):
            if then > GROWTH * first:
                self.wrong.append(f"{first} {what} became {then} by undoing and redoing once more")
        if len(self.model._evaluator._states) > KEPT_STATES or len(self.values) > KEPT_ENTRIES:
            self.wrong.append("more states or entries are kept than should be")

    def close(self) -> None:
        """Closes the window as a user who wants to keep nothing."""
        self.window.ask.keep = "discard"  # type: ignore[attr-defined]
        self.window.close()
        self.window.deleteLater()
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def memory_mb() -> float:
    """What this process holds of the machine's memory now, MB."""
    told = re.search(r"VmRSS:\s+(\d+) kB", Path("/proc/self/status").read_text())
    return int(told[1]) / 1024.0 if told else 0.0


def tried(seed: int, folder: Path, edits: int = 100) -> str | None:
    """What did not hold in a session of so many turns; None when all did."""
    caught, hook = Caught(), sys.excepthook
    LOGGER.addHandler(caught)
    sys.excepthook = lambda kind, fault, _trace: caught.said.append(f"a slot raised {kind.__name__}: {fault}")
    work = folder / f"desk-{seed}"
    work.mkdir()
    try:
        session = Session(seed, work)
        try:
            session.edit(edits)
            session.there_and_back()
            session.grows()
        finally:
            session.close()
        said = [*caught.said, *session.wrong]
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        said = [f"raised {type(fault).__name__}: {fault}", *caught.said]
    finally:
        sys.excepthook = hook
        LOGGER.removeHandler(caught)
        shutil.rmtree(work, ignore_errors=True)
    return f"session {seed}: {said[0]}" if said else None
