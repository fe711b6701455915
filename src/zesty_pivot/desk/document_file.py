"""The file of the document on the desk: opened, saved, changed by others."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.desk import opening
from zesty_pivot.desk.document import Document
from zesty_pivot.desk.opening import OpenDocument


class DocumentFile(QObject):
    """Where the document came from and what of it is saved. `show` puts another document on the desk."""

    saving = pyqtSignal()  # the document is about to be written to its file

    def __init__(self, document: Document, opened: OpenDocument, show: Callable[[OpenDocument], None]) -> None:
        super().__init__()
        self._document, self._show = document, show
        self._note(opened)

    def _note(self, opened: OpenDocument) -> None:
        self.path = opened.path
        self.stamp = opened.stamp  # what tells the content of the file as it was opened or saved last
        self._saved: Style | None = opened.derived.style

    @property
    def is_dirty(self) -> bool:
        """Whether closing now would lose something."""
        return self._document.style is not self._saved

    def open(self, path: Path) -> None:
        """Opens a style, or a new style over a block. Raises a ZestyError and keeps everything when it cannot."""
        self.adopt(opening.read(path))

    def adopt(self, opened: OpenDocument) -> None:
        """Shows a document that is ready, with a history of its own."""
        self._note(opened)
        self._show(opened)

    def replace(self, style: Style, path: Path | None) -> None:
        """Another document, with a history of its own. Raises a ZestyError and keeps everything when it is not sound."""
        self.adopt(opening.ready(style, path))

    def recover(self, style: Style, path: Path | None) -> None:
        """Unsaved work that comes back: the document of `path`, or of none, and not what is saved there."""
        opened = opening.ready(style, path)
        self._note(opened)
        self._saved = None
        self._show(opened)

    def save(self, path: Path) -> None:
        """Saves atomically. Raises FileError and keeps everything when it cannot."""
        self.saving.emit()
        style_file.save(self._document.style, path)
        self.path, self._saved, self.stamp = path, self._document.style, files.stamp(path)
        self._tell()

    @property
    def is_changed_on_disk(self) -> bool:
        """Whether the file is another one than was opened or saved here: something else wrote it, or took it away."""
        return self.path is not None and files.stamp(self.path) != self.stamp

    def keep_mine(self) -> None:
        """Takes note of the file as it is on disk now, and counts the document as not saved."""
        if self.path is not None:
            self.stamp, self._saved = files.stamp(self.path), None
            self._tell()

    def _tell(self) -> None:
        self._document.document_changed.emit()
        self._document.changed.emit()
