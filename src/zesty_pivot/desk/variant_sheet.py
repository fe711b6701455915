"""The variants of a style side by side: a sheet of pictures with figures, one click from the table."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QSize, Qt, QTimer
from PyQt6.QtWidgets import QDialog, QFrame, QGridLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.thumbs import thumbnail

PICTURE = QSize(250, 170)
COLUMNS = 3


def figures_of(derived: Derived) -> str:
    """What is compared between variants: girths, the neck, what stands open."""
    unit = derived.style.units
    girths = derived.girths
    known = (("bust", girths.bust), ("waist", girths.waist), ("hip", girths.hip), ("neck opening", girths.neck_opening))
    told = [f"{name} {format_length(mm, unit)}" for name, mm in known if mm is not None]
    told += [f"{tape.name} {format_length(tape.mm, unit)}" for tape in derived.pattern.tapes]
    count = sum(not finding.accepted for finding in derived.findings)
    told.append("nothing to mend" if not count else f"{count} finding{'s' if count > 1 else ''}")
    return ", ".join(told)


class VariantSheet(QDialog):
    """A card for each variant, worked out one after the other."""

    def __init__(self, model: DeskModel, run: Callable[[str], None], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(f"Variants of {model.style.name}")
        self.resize(880, 640)
        self._model, self._evaluator = model, Evaluator()
        self._styles = model.style.every_variant
        self._waiting = list(self._styles)
        self.derived: dict[str, Derived] = {}
        self.cards: dict[str, QFrame] = {}
        self._pictures: dict[str, QLabel] = {}
        self._figures: dict[str, QLabel] = {}
        inside = Column()
        grid = QGridLayout()
        grid.setSpacing(10)
        for number, name in enumerate(self._styles):
            self.cards[name] = self._card(name)
            grid.addWidget(self.cards[name], *divmod(number, COLUMNS))
        grid.setColumnStretch(COLUMNS, 1)
        inside.rows.addLayout(grid)
        inside.rows.addStretch(1)
        self.save = QPushButton("Save every variant to a folder…")
        self.save.clicked.connect(lambda: run("variant.export"))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 12)
        layout.addWidget(inside.scrolled(), 1)
        layout.addWidget(self.save, 0, Qt.AlignmentFlag.AlignHCenter)
        self._later = QTimer(self)
        self._later.setInterval(0)
        self._later.timeout.connect(self._next)
        self._later.start()

    def _card(self, name: str) -> QFrame:
        card = QFrame()
        card.setObjectName("card")
        card.setProperty("chosen", name == self._model.variants.shown)
        card.setFixedWidth(PICTURE.width() + 20)
        self._pictures[name], self._figures[name] = QLabel(), label("", "quiet")
        self._pictures[name].setFixedSize(PICTURE)
        self._figures[name].setMinimumHeight(3 * self.fontMetrics().lineSpacing())
        self._figures[name].setAlignment(Qt.AlignmentFlag.AlignTop)
        show = QPushButton("On the table")
        show.setEnabled(name != self._model.variants.shown)
        show.clicked.connect(lambda _on=False: self._show(name))
        column = QVBoxLayout(card)
        column.setContentsMargins(10, 8, 10, 8)
        column.addWidget(label(name, "figure"))
        column.addWidget(self._pictures[name])
        column.addWidget(self._figures[name])
        column.addWidget(show, 0, Qt.AlignmentFlag.AlignLeft)
        return card

    def _show(self, name: str) -> None:
        self._model.variants.show(name)
        self.accept()

    @contained("the sheet of variants")
    def _next(self) -> None:
        if not self._waiting:
            self._later.stop()
            return
        name = self._waiting.pop(0)
        derived = derive(self._styles[name], self._evaluator)
        self.derived[name] = derived
        block = derived.derivation.block
        self._pictures[name].setPixmap(
            thumbnail(derived.pattern, block, PICTURE, self.devicePixelRatioF(), derived.style.table.left)
        )
        self._figures[name].setText(figures_of(derived))

    def finish(self) -> None:
        """Works out what is still waiting at once."""
        while self._waiting:
            self._next()
