"""Questions to the user, in one place so that tests can answer them."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QFileDialog, QInputDialog, QMessageBox, QWidget

if TYPE_CHECKING:
    from PyQt6.QtPrintSupport import QPrinter


class Asker:
    """Asks with dialogs."""

    def __init__(self, parent: QWidget, folder: Callable[[], Path], used: Callable[[Path], None]) -> None:
        """`folder` is where file dialogs begin, `used` is told the folder of what was chosen."""
        self._parent, self._folder, self._used = parent, folder, used

    def _chosen(self, name: str) -> Path | None:
        if not name:
            return None
        path = Path(name)
        self._used(path if path.is_dir() else path.parent)
        return path

    def open_file(self, title: str, kinds: str) -> Path | None:
        """A file to open, or None."""
        name, _kind = QFileDialog.getOpenFileName(self._parent, title, str(self._folder()), kinds)
        return self._chosen(name)

    def save_file(self, title: str, start: str, kinds: str) -> Path | None:
        """A file to write, or None."""
        name, _kind = QFileDialog.getSaveFileName(self._parent, title, str(self._folder() / start), kinds)
        return self._chosen(name)

    def folder(self, title: str) -> Path | None:
        """A folder, or None."""
        return self._chosen(QFileDialog.getExistingDirectory(self._parent, title, str(self._folder())))

    def keep_changes(self, name: str) -> str:
        """`save`, `discard` or `cancel` for a changed style that is about to be left."""
        buttons = QMessageBox.StandardButton
        found = QMessageBox.question(
            self._parent, "Unsaved changes", f"{name} has changes that are not saved.",
            buttons.Save | buttons.Discard | buttons.Cancel, buttons.Save,
        )  # fmt: skip
        return {buttons.Save: "save", buttons.Discard: "discard"}.get(found, "cancel")

    def changed_on_disk(self, name: str) -> str:
        """`over`, `other` or `cancel` for a file that something else has changed and that is about to be saved."""
        box = QMessageBox(self._parent)
        box.setWindowTitle("Changed on disk")
        box.setText(f"Something else has changed {name} since it was opened.")
        over = box.addButton("Save over it", QMessageBox.ButtonRole.DestructiveRole)
        other = box.addButton("Save under another name", QMessageBox.ButtonRole.AcceptRole)
        box.addButton(QMessageBox.StandardButton.Cancel)
        box.setDefaultButton(other)
        box.exec()
        clicked = box.clickedButton()
        return "over" if clicked is over else "other" if clicked is other else "cancel"

    def printer(self) -> QPrinter | None:
        """A printer with its paper, or None."""
        from PyQt6.QtPrintSupport import QPrintDialog, QPrinter

        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        dialog = QPrintDialog(printer, self._parent)
        dialog.setWindowTitle("Print the pages")
        return printer if dialog.exec() else None

    def text(self, title: str, name: str, start: str) -> str | None:
        """A line of text, or None."""
        found, ok = QInputDialog.getText(self._parent, title, name, text=start)
        return found if ok else None
