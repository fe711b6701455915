"""A line under the header that asks something without stopping the work."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtWidgets import QFrame, QHBoxLayout, QPushButton

from zesty_pivot.desk.labels import label

Answers = Sequence[tuple[str, Callable[[], object]]]


class Notice(QFrame):
    """Shows one notice, with buttons; each has a key, and a later one with the same key takes its place. Others wait below the
    newest and are shown when it is answered."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("notice")
        self.key = ""
        self.words = label("")
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(16, 6, 12, 6)
        self._row.setSpacing(8)
        self._row.addWidget(self.words, 1)
        self._waiting: dict[str, tuple[str, Answers]] = {}  # in the order of their coming, the one that is shown last
        self.buttons: list[QPushButton] = []
        self.hide()

    def put(self, key: str, text: str, answers: Answers) -> None:
        """Shows a notice; answering it, or `Not now`, takes it away."""
        self._waiting.pop(key, None)
        self._waiting[key] = (text, answers)
        self._show_last()

    def _show_last(self) -> None:
        self._clear()
        if not self._waiting:
            self.key = ""
            self.hide()
            return
        self.key, (text, answers) = next(reversed(self._waiting.items()))
        self.words.setText(text)
        for title, answer in (*answers, ("Not now", lambda: None)):
            button = QPushButton(title)
            button.clicked.connect(lambda _checked=False, answer=answer: self._answer(answer))
            self.buttons.append(button)
            self._row.addWidget(button)
        self.show()

    def _answer(self, answer: Callable[[], object]) -> None:
        self.drop(self.key)
        answer()

    def drop(self, key: str) -> None:
        """Takes a notice away, shown or waiting."""
        if self._waiting.pop(key, None) is not None:
            self._show_last()

    def _clear(self) -> None:
        for button in self.buttons:
            self._row.removeWidget(button)
            button.hide()
            button.deleteLater()
        self.buttons.clear()
