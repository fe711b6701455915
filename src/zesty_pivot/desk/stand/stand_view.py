"""The stand view: the figure, what it wears, on whose form and beside what, and what it tells."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QProgressBar, QPushButton, QWidget

from zesty_pivot.core.checks.base import Mend
from zesty_pivot.core.stand.cloth_kinds import KINDS
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.finish_view import WIDTH
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.stand.figures import LOOKS
from zesty_pivot.desk.stand.saying import nothing_told, said
from zesty_pivot.desk.stand.stand_canvas import StandCanvas
from zesty_pivot.desk.stand.stand_card import StandCards
from zesty_pivot.desk.stand.trying_on import PAPER, TryingOn

KNOWS = (
    "On this form: it has no arms and does not move, and cloth pulls alike in every direction. The guide says what else it "
    "does not know."
)


class StandView(QWidget):
    """Canvas and choices; it tries on when it is seen."""

    def __init__(self, model: DeskModel, trying: TryingOn, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._trying, self._run = model, trying, run
        self.canvas = StandCanvas(model, trying)
        self.look, self.kind, self.on, self.beside = (
            Choice("What is shown"), Choice("Cloth"), Choice("On whose form"), Choice("Beside it"),
        )  # fmt: skip
        self.tapes = QCheckBox("Tapes on the form")
        self.bar, self.state = QProgressBar(), label("", "quiet")
        self.told = StandCards()
        abreast(self, self.canvas, self._beside(), widest=0)
        self._connect()

    def _beside(self) -> QWidget:
        side = SideColumn("right", 4)
        side.setFixedWidth(WIDTH)
        rows = side.rows
        rows.addWidget(label("Stand", "heading"))
        titled(rows, "What is shown", self.look)
        titled(rows, "Cloth", self.kind)
        titled(rows, "On the form of", self.on)
        titled(rows, "Beside it", self.beside)
        rows.addWidget(self.tapes)
        self.bar.setRange(0, 100)
        self.bar.setTextVisible(False)
        self.bar.setFixedHeight(6)
        self.bar.setAccessibleName("How far the cloth is settled")
        rows.addWidget(self.bar)
        rows.addWidget(self.state)
        rows.addSpacing(6)
        rows.addWidget(label("What it tells", "heading"))
        rows.addWidget(self.told)
        rows.addSpacing(4)
        rows.addWidget(label(KNOWS, "quiet"))
        sides = QHBoxLayout()
        for id, text in (("stand.front", "Front"), ("stand.left", "Side"), ("stand.back", "Back")):
            button = QPushButton(text)
            button.clicked.connect(lambda _on=False, id=id: self._run(id))
            sides.addWidget(button)
        side.foot.addLayout(sides)
        self.stop = QPushButton("Stop")
        self.stop.clicked.connect(lambda _on=False: self._run("stand.stop"))
        side.foot.addWidget(self.stop)
        return side

    def _connect(self) -> None:
        self.look.picked.connect(self.canvas.show_look)
        self.kind.picked.connect(lambda kind: self._trying.choose(kind=kind))
        self.on.picked.connect(lambda on: self._trying.choose(on=on))
        self.beside.picked.connect(lambda beside: self._trying.choose(beside=beside))
        self.tapes.clicked.connect(self._show_tapes)
        self.told.looked.connect(lambda told: self.canvas.face_place(told.place))
        self.told.mended.connect(self._mend)
        self._trying.changed.connect(self.show_all)
        self._model.pace.followed.connect(self._follow)
        self._model.chosen_changed.connect(self._follow)

    def _show_tapes(self, on: bool) -> None:
        self.canvas.has_tapes = on
        self.canvas.update()

    def _follow(self) -> None:
        if self._model.view == "stand":
            self._trying.follow()

    def begin(self) -> None:
        """It is looked at: what is not known yet is tried on."""
        self._trying.look()

    @contained("the stand")
    def show_all(self) -> None:
        """Shows what is so."""
        trying = self._trying
        self.look.show_choices(list(LOOKS), self.canvas.look)
        self.kind.show_choices([(kind.id, kind.title) for kind in KINDS], trying.kind)
        self.on.show_choices(trying.bodies, trying.on)
        self.beside.show_choices(trying.companions, trying.beside)
        self.tapes.setChecked(self.canvas.has_tapes)
        is_paper = trying.on == PAPER
        for choice in (self.look, self.kind):
            choice.setEnabled(not is_paper)
        self.tapes.setEnabled(not is_paper)
        self.bar.setValue(round(100 * trying.done))
        self.bar.setVisible(trying.work.is_at_work)
        self.stop.setEnabled(trying.work.is_at_work)
        self.state.setText(said(trying, self._model.length))
        self.told.show_told(trying.told, nothing_told(trying))

    def _mend(self, mend: Mend) -> None:
        self._model.recipe.mend(mend)
        self.canvas.setFocus()
