"""The title block of a style: what stands on its labels and sheets beside the pattern."""

from __future__ import annotations

from PyQt6.QtCore import QDate
from PyQt6.QtWidgets import QDialog, QDialogButtonBox, QFormLayout, QLineEdit, QPlainTextEdit, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.quantity import share_of
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel

FIELDS = (
    ("season", "Season", "such as winter concert", 40), ("client", "Client or size", "who it is made for", 80),
    ("size", "Size", "printed as “size …”", 40), ("cloth", "Cloth", "self", 40), ("date", "Date", "nothing when empty", 40),
)  # fmt: skip


class TitlePage(QDialog):
    """Fields that are put into the style together, as one change."""

    def __init__(self, model: DeskModel, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Title block")
        self.resize(460, 520)
        self._model = model
        style, finish = model.style, model.style.finish
        self.name = QLineEdit(style.name)
        self.name.setMaxLength(200)
        self.fields: dict[str, QLineEdit] = {}
        form = QFormLayout()
        form.addRow("Style", self.name)
        for key, title, hint, most in FIELDS:
            edit = QLineEdit(getattr(finish, key))
            edit.setMaxLength(most)
            edit.setPlaceholderText(hint)
            edit.setAccessibleName(title)
            self.fields[key] = edit
            form.addRow(title, edit)
        today = QPushButton("Today")
        today.clicked.connect(lambda: self.fields["date"].setText(QDate.currentDate().toString("yyyy-MM-dd")))
        form.addRow("", today)
        self.stretch = CalcField(lambda text: f"= {100 * share_of(text):.4g} %", "How far the neckline's edge can be pulled")
        self.stretch.set_text(str(finish.stretch))
        form.addRow("Stretch", self.stretch)
        self.notes = QPlainTextEdit(style.notes)
        self.notes.setTabChangesFocus(True)
        self.notes.setAccessibleName("Notes")
        form.addRow("Notes", self.notes)
        self.told = label("", "fault")
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        buttons.accepted.connect(self.take)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(18, 16, 18, 14)
        layout.addWidget(label("On every label and sheet of this style", "heading"))
        layout.addLayout(form)
        layout.addWidget(self.told)
        layout.addWidget(buttons)
        self.name.setFocus()
        self.name.selectAll()

    def take(self) -> None:
        """Puts it all into the style; what cannot be is said, and the page stays."""
        fault = self.stretch.fault()
        name = self.name.text().strip()
        if not name:
            fault = "The style needs a name. Write one, such as Descant bodice."
        if fault:
            self.told.setText(fault)
            return
        change = {key: edit.text().strip() for key, edit in self.fields.items()} | {"stretch": self.stretch.edit.text().strip()}
        model = self._model
        try:
            style = model.style.with_finish(change)
        except ValueError:
            self.told.setText("A line holds what cannot be printed. Take it out.")
            return
        if model.edit(style.model_copy(update={"name": name, "notes": self.notes.toPlainText()}), "title block"):
            self.accept()
