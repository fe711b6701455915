"""A drafting method as text, to be changed as a copy of one's own: every slip is told while it is typed."""

from __future__ import annotations

import re
from collections.abc import Callable

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QLabel, QPlainTextEdit, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.drafting.method import KIND, SUFFIX, Method
from zesty_pivot.core.drafting.operations import OPERATIONS
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import files, method_file
from zesty_pivot.data.methods import ORDER
from zesty_pivot.desk.drafting import Drafting
from zesty_pivot.desk.labels import label, repolish
from zesty_pivot.desk.settings import methods_folder

PAUSE = 350  # ms after the last key until the text is looked at


class MethodPage(QDialog):
    """The text of a method, what is wrong with it, and a button that keeps it when nothing is."""

    def __init__(self, drafting: Drafting, say: Callable[[str], None], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._drafting, self._say = drafting, say
        self.setWindowTitle("A drafting method of your own")
        self.resize(1040, 680)
        self.text = QPlainTextEdit()
        self.text.setAccessibleName("The method")
        self.text.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
        self.told = QLabel()
        self.told.setWordWrap(True)
        self.keep = QPushButton("Keep it among my methods")
        self.keep.setObjectName("primary")
        self.keep.clicked.connect(self._keep)
        close = QPushButton("Close")
        close.clicked.connect(self.reject)
        words = "Each line is a parameter or an operation: change a formula, a default or a title. Operations: "
        column = QVBoxLayout(self)
        column.addWidget(label(words + ", ".join(OPERATIONS) + ", if, has.", "quiet"))
        column.addWidget(self.text, 1)
        column.addWidget(self.told)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(close)
        row.addWidget(self.keep)
        column.addLayout(row)
        self._wait = QTimer(self)
        self._wait.setSingleShot(True)
        self._wait.timeout.connect(self.look)
        self.text.setPlainText(method_file.dump(_own(drafting.method)).decode())
        self.text.textChanged.connect(lambda: self._wait.start(PAUSE))
        self.look()

    def _read(self) -> Method:
        method = method_file.from_value(files.parse_json(self.text.toPlainText(), KIND, "the method"), "the method")
        if method.id in ORDER:
            raise ZestyError(f"{method.id} is one of the program's own methods", advice="Give yours another id.")
        return method

    def look(self) -> bool:
        """Tells what is wrong with the text, or that nothing is."""
        try:
            method = self._read()
            text, is_right = f"{method.title}: {len(method.operations)} operations, nothing is wrong with them.", True
        except ZestyError as fault:
            text, is_right = str(fault), False
        self.told.setText(text)
        self.told.setObjectName("quiet" if is_right else "fault")
        repolish(self.told)
        self.keep.setEnabled(is_right)
        return is_right

    def _keep(self) -> None:
        if not self.look():
            return
        try:
            method = self._read()
            files.write_atomic(methods_folder() / f"{method.id}{SUFFIX}", method_file.dump(method))
        except ZestyError as fault:
            self.told.setText(str(fault))
            return
        self._drafting.look_for_methods()
        self._drafting.choose_method(method.id)
        self._say(f"{method.title} is among the drafting methods.")
        self.accept()


def _own(method: Method) -> Method:
    """A method as a copy of one's own; one that is one's own already as it is."""
    if method.id not in ORDER:
        return method
    return method.model_copy(
        update={"id": re.sub(r"[^a-z_0-9]", "", f"my_{method.id}")[:40], "title": f"My {method.title.lower()}"}
    )
