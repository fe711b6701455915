"""The library view: the blocks on the rail as pictures with their girths; the chosen one with its notes, versions and
styles."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QLineEdit, QPlainTextEdit, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.library import KeptBlock, girths_of
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.quantity import format_length
from zesty_pivot.desk.column import Column, SideColumn, abreast
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import Figures, empty, label, repolish
from zesty_pivot.desk.model import LIBRARY, DeskModel
from zesty_pivot.desk.rail import Rail
from zesty_pivot.desk.start_page import PICTURE, StyleCard
from zesty_pivot.desk.thumbs import thumbnail

RIGHT, NARROW_RIGHT, NARROW = 340, 270, 1000
LARGE = QSize(300, 190)
ASKED = (
    ("import.new_style", "New style over this block"), ("import.put_under", "Put it under this style"),
    ("library.version", "This style's block as a version…"), ("import.save", "Save the block…"),
    ("library.take_out", "Take it off the rail"),
)  # fmt: skip


class LibraryView(QWidget):
    """Shows the rail; every change goes to it."""

    def __init__(self, model: DeskModel, rail: Rail, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._rail, self._run = model, rail, run
        self.search = QLineEdit()
        self.told, self.none = label("", "warning"), label("", "quiet")
        self.grid = QGridLayout()
        self.cards: dict[str, StyleCard] = {}
        self.name, self.notes = QLineEdit(), QPlainTextEdit()
        self.picture = QLabel()
        self.figures, self.versions = Figures(3), Figures(2)
        self.origin, self.styles = label("", "quiet"), label("", "")
        self.buttons: dict[str, QPushButton] = {}
        self._laid: tuple[int, list[str]] = (0, [])
        abreast(self, self._middle(), self._right(), widest=0)
        rail.changed.connect(self.refresh)
        rail.chosen_changed.connect(self.show_chosen)
        model.view_changed.connect(self.refresh)
        self.refresh()

    # Building.

    def _middle(self) -> QWidget:
        found = QWidget()
        column = QVBoxLayout(found)
        column.setContentsMargins(24, 18, 24, 0)
        head = QHBoxLayout()
        head.addWidget(label("Blocks on the rail", "title"))
        head.addStretch(1)
        for id, text in (("import.open", "Bring in a block…"), ("library.keep", "This style's block")):
            button = QPushButton(text)
            button.clicked.connect(lambda _checked=False, id=id: self._run(id))
            head.addWidget(button)
        column.addLayout(head)
        self.search.setPlaceholderText("Search: a name, a note, a girth such as bust 92")
        self.search.setAccessibleName("Search the library")
        self.search.setClearButtonEnabled(True)
        self.search.textChanged.connect(self._rail.search)
        column.addWidget(self.search)
        column.addWidget(self.told)
        column.addWidget(self.none)
        inside = Column()
        inside.rows.setContentsMargins(0, 10, 0, 14)
        self.grid.setSpacing(12)
        inside.rows.addLayout(self.grid)
        inside.rows.addStretch(1)
        column.addWidget(inside.scrolled(), 1)
        return found

    def _right(self) -> QWidget:
        self.right = SideColumn("right", 6)
        rows = self.right.rows
        self.name.setAccessibleName("Name of the block")
        self.name.editingFinished.connect(self._rename)
        self.notes.setAccessibleName("Notes about the block")
        self.notes.setPlaceholderText("Notes: whom it fits, what was altered")
        self.notes.setTabChangesFocus(True)
        self.notes.setFixedHeight(84)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.picture.setFixedHeight(LARGE.height())
        for widget in (
            self.name, self.picture, self.figures, self.origin, self.notes, label("Versions", "heading"), self.versions,
            label("Styles over it", "heading"), self.styles,
        ):  # fmt: skip
            rows.addWidget(widget)
        self.buttons = self.right.ask(ASKED, self._leave_notes)
        return self.right

    def resizeEvent(self, event: object) -> None:
        self.right.setFixedWidth(NARROW_RIGHT if self.width() < NARROW else RIGHT)
        self._lay_cards()

    # Showing.

    @contained("the library")
    def refresh(self) -> None:
        """Shows the rail, when this view is the one that is seen."""
        if self._model.view != LIBRARY:
            return
        rail = self._rail
        self.told.setText(" ".join(rail.told[:3]))
        self.told.setVisible(bool(rail.told))
        self.none.setText(
            "" if rail.shown else "No block fits that." if rail.blocks else "Nothing hangs here yet. Bring in a block."
        )
        self.none.setVisible(not rail.shown)
        if self.search.text() != rail.asked:
            self.search.setText(rail.asked)
        self._lay_cards(again=True)
        self.show_chosen()

    def _lay_cards(self, *, again: bool = False) -> None:
        shown = self._rail.shown if self._model.view == LIBRARY else []
        columns = max(1, (self.width() - self.right.width() - 60) // (PICTURE.width() + 36))
        key = (columns, [kept.id for kept in shown])
        if key == self._laid and not again:
            return
        self._laid = key
        empty(self.grid)
        self.cards = {}
        for number, kept in enumerate(shown):
            card = StyleCard(kept.name, self._girth_words(kept))
            card.clicked.connect(partial(self._rail.choose, kept.id))
            self._draw(card.picture, kept.block, PICTURE)
            self.cards[kept.id] = card
            self.grid.addWidget(card, number // columns, number % columns, Qt.AlignmentFlag.AlignTop)
        self.grid.setColumnStretch(columns, 1)
        self._mark()

    def _mark(self) -> None:
        """The card of the chosen block stands out."""
        kept = self._rail.chosen
        for id, card in self.cards.items():
            is_chosen = kept is not None and id == kept.id
            if card.frame.property("marked") != is_chosen:
                card.frame.setProperty("marked", is_chosen)
                repolish(card.frame)

    def _girth_words(self, kept: KeptBlock) -> str:
        unit = self._model.style.units
        found = girths_of(kept.block)
        told = [
            f"{name} {format_length(mm, unit)}"
            for name in ("bust", "waist", "hip")
            if (mm := kept.block.measurements.get(name) or (getattr(found, name) if found is not None else None)) is not None
        ]
        return ", ".join(told) or "no girths known"

    def _draw(self, picture: QLabel, block: BlockFile, size: QSize) -> None:
        try:
            pattern = block_file.pattern(block)
        except ZestyError:
            return
        picture.setPixmap(thumbnail(pattern, pattern, size, picture.devicePixelRatioF()))

    @contained("the chosen block")
    def show_chosen(self) -> None:
        """Shows the block that is chosen."""
        kept = self._rail.chosen
        self._mark()
        for widget in (self.name, self.notes, self.picture, *self.buttons.values()):
            widget.setEnabled(kept is not None)
        if kept is None:
            self.name.setText("")
            self.notes.setPlainText("")
            self.picture.clear()
            for figures in (self.figures, self.versions):
                figures.show_rows([])
            self.origin.setText("")
            self.styles.setText("")
            return
        unit = self._model.style.units
        self.name.setText(kept.name)
        if self.notes.toPlainText() != kept.notes:
            self.notes.setPlainText(kept.notes)
        self._draw(self.picture, kept.block, LARGE)
        found = girths_of(kept.block)
        rows = []
        for name in ("bust", "waist", "hip"):
            body, on_block = kept.block.measurements.get(name), getattr(found, name) if found is not None else None
            if body is not None or on_block is not None:
                rows.append(
                    (name.capitalize(), *(format_length(mm, unit) if mm is not None else "" for mm in (body, on_block)))
                )
        self.figures.show_rows(rows, head=("", "body", "block"))
        self.origin.setText(f"It {kept.origin}." if kept.origin.startswith("came") else capital(kept.origin))
        self.versions.show_rows([(one.note or one.block.name, one.date) for one in reversed(kept.versions)])
        self.styles.setText(", ".join(self._rail.used_by(kept)) or "None of those that are known here.")

    # Saying.

    def _rename(self) -> None:
        kept, name = self._rail.chosen, self.name.text().strip()
        if kept is not None and name and name != kept.name:
            self._model.tried(lambda: self._rail.change(kept, name=name))

    def keep_notes(self) -> None:
        """What was written in the notes is kept."""
        kept, notes = self._rail.chosen, self.notes.toPlainText()
        if kept is not None and notes != kept.notes:
            self._model.tried(lambda: self._rail.change(kept, notes=notes))

    def _leave_notes(self, id: str) -> None:
        self.keep_notes()
        self._run(id)

    def focusOutEvent(self, event: object) -> None:
        self.keep_notes()
