"""Questions to the user, in one place so that tests can answer them."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QMessageBox, QWidget


class Asker:
    """Asks with dialogs."""

    def __init__(self, parent: QWidget) -> None:
        self._parent = parent

    def open_file(self, title: str, kinds: str) -> Path | None:
        """A file to open, or None."""
        name, _kind = QFileDialog.getOpenFileName(self._parent, title, "", kinds)
        return Path(name) if name else None

    def save_file(self, title: str, start: str, kinds: str) -> Path | None:
        """A file to write, or None."""
        name, _kind = QFileDialog.getSaveFileName(self._parent, title, start, kinds)
        return Path(name) if name else None

    def folder(self, title: str) -> Path | None:
        """A folder, or None."""
        name = QFileDialog.getExistingDirectory(self._parent, title)
        return Path(name) if name else None

    def keep_changes(self, name: str) -> str:
        """`save`, `discard` or `cancel` for a changed style that is about to be left."""
        buttons = QMessageBox.StandardButton
        found = QMessageBox.question(
            self._parent, "Unsaved changes", f"{name} has changes that are not saved.",
            buttons.Save | buttons.Discard | buttons.Cancel, buttons.Save,
        )  # fmt: skip
        return {buttons.Save: "save", buttons.Discard: "discard"}.get(found, "cancel")
