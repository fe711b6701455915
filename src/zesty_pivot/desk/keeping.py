"""Keeping the work: the journal of what is not saved, written off the interface's thread; settings likewise."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.journal import Journal
from zesty_pivot.core.formats.leftovers import Leftover, Leftovers, forget, leftovers
from zesty_pivot.desk import settings as kept
from zesty_pivot.desk.contained import tried
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.settings import Settings
from zesty_pivot.desk.writer import Writer


class Keeper(QObject):
    """Follows a model and writes its unsaved document down after every change; keeps the settings."""

    failed = pyqtSignal(str)  # a sentence, from the writer's thread
    settings_changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self._told = ""
        self.settings, self.settings_told = kept.load_or_set_aside()
        self.writer = Writer(lambda fault: self.failed.emit(str(fault)))
        self.failed.connect(self._tell)
        self._journal: Journal | None = None
        try:
            self._journal = Journal(kept.journal_folder())
        except ZestyError as fault:
            self._tell(str(fault))
        model.document_changed.connect(self.note)
        model.file.saving.connect(self.write_now)

    @property
    def trouble(self) -> str:
        """What stands in the way of keeping the work, or nothing."""
        return self._told

    def _tell(self, text: str) -> None:
        """Says once that the work cannot be written down, not after every edit."""
        if text != self._told:
            self._told = text
            self._model.say(text, fault=True)

    def note(self) -> None:
        """Writes down what is unsaved now, or that nothing is."""
        journal, model = self._journal, self._model
        if journal is None:
            return
        style, path, base = model.style, model.file.path, model.file.stamp
        if model.file.is_dirty:
            self.writer.put("journal", lambda: journal.write(style, path, base))
        else:
            self.writer.put("journal", journal.clear)

    def write_now(self) -> None:
        """Writes down what is about to be saved, before it is: a program that ends in between leaves no older state behind
        than the file has. Waits for the disk, as saving does."""
        if self._journal is not None and self._model.file.is_dirty:
            self.note()
            self.writer.flush()

    def leftovers(self) -> Leftovers:
        """What an earlier run left unsaved."""
        return tried(lambda: leftovers(kept.journal_folder()), Leftovers(), "the look for unsaved work")

    def bring_back(self, left: Leftover) -> None:
        """Opens a leftover as unsaved work. Its journal goes only when this program's own holds the work.

        Raises a ZestyError, and keeps everything, when the work cannot be worked out.
        """
        # What is older than its file comes back as a style of its own, so that saving it cannot take the newer one's place.
        self._model.file.recover(left.style, None if left.is_older else left.document)
        self.note()
        self.writer.put(f"forget {left.path}", lambda: forget(left))

    def put_aside(self, left: Leftover) -> None:
        """Lets a leftover go."""
        self.writer.put(f"forget {left.path}", lambda: forget(left))

    def change(self, change: Callable[[Settings], Settings]) -> None:
        """Other settings from now on, written off this thread."""
        settings = change(self.settings)
        if settings != self.settings:
            self.settings = settings
            self.writer.put("settings", lambda: kept.save(settings))
            self.settings_changed.emit()

    def leave(self) -> None:
        """Ends in a hurry: what is unsaved stays in the journal, for the next start."""
        self.writer.stop()
        if self._journal is not None:
            self._journal.close()
            self._journal = None

    def close(self) -> None:
        """Ends orderly: what was discarded is no leftover."""
        journal = self._journal
        if journal is not None:
            self.writer.put("journal", journal.clear)
        self.writer.stop()
        if journal is not None:
            journal.close()
            self._journal = None
