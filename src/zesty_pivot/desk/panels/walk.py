"""Walk: which seam, from which end, how far; the notches that meet or miss, and where the difference lies."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QCheckBox, QSlider, QVBoxLayout, QWidget

from zesty_pivot.core.finish.walk import NotchPair, Walk
from zesty_pivot.core.piece import Seam
from zesty_pivot.core.piece.names import words
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import Figures, label
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.panels.trace import signed

TICKS = 1000  # of the scrubber


EASED = 0.5  # mm of ease that is worth telling beside a notch


class WalkPanel(QWidget):
    """Rolls one seam along the other."""

    def __init__(self, model: DeskModel, lay: Lay) -> None:
        super().__init__()
        self._model, self._lay = model, lay
        inside = Column()
        rows = inside.rows
        rows.setSpacing(6)
        self.seam = Choice("Seam")
        self.from_end = QCheckBox()
        self.scrubber = QSlider(Qt.Orientation.Horizontal)
        self.scrubber.setRange(0, TICKS)
        self.scrubber.setAccessibleName("How far the seam has been walked")
        self.scrubber.setToolTip("Roll the one seam along the other. Left and right on the table do the same.")
        self.where, self.verdict = label("", "quiet"), label("", "figure")
        self.stretches, self.notches = Figures(4), Figures(2)
        self._heads = label("Stretches", "heading"), label("Notches", "heading")
        rows.addWidget(label("Walk the seam", "heading"))
        for widget in (
            self.seam, self.from_end, self.scrubber, self.where, self.verdict, self._heads[0], self.stretches, self._heads[1],
            self.notches,
        ):  # fmt: skip
            rows.addWidget(widget)
        rows.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(inside.scrolled())
        self.seam.picked.connect(lambda value: lay.choose_seam(int(value)))
        self.from_end.toggled.connect(self._turn)
        self.scrubber.valueChanged.connect(lambda value: lay.walk_to(value / TICKS))
        lay.changed.connect(self.refresh)
        model.pace.followed.connect(self.refresh)
        self.refresh()

    def _turn(self, from_end: bool) -> None:
        if from_end != self._lay.is_from_end:
            self._lay.walk_from_end(from_end)

    @contained("the walk panel")
    def refresh(self) -> None:
        """Shows the lay, when this panel is the one that is seen."""
        if self._lay.panel != "walk":
            return
        found = self._lay.walked
        seams = self._lay.seams
        shown = (self.seam, self.from_end, self.scrubber, *self._heads, self.stretches, self.notches)
        for widget in shown:
            widget.setVisible(found is not None)
        if found is None:
            self.where.setText("")
            self.verdict.setText("This pattern has no seam with a partner to walk.")
            return
        self.seam.show_choices(
            [(str(k), seam_words(seam)) for k, seam in enumerate(seams)], str(min(self._lay.seam, len(seams) - 1))
        )
        self.from_end.setText(f"From the {found.ends[0] if self._lay.is_from_end else found.ends[1]}")
        for widget, value in ((self.from_end, self._lay.is_from_end), (self.scrubber, round(self._lay.at * TICKS))):
            widget.blockSignals(True)
            if isinstance(widget, QSlider):
                widget.setValue(int(value))
            else:
                widget.setChecked(bool(value))
            widget.blockSignals(False)
        self._show_figures(found)

    def _show_figures(self, found: Walk) -> None:
        length = self._model.length
        at = self._lay.at * found.length
        self.where.setText(
            f"{length(at)} walked from the {found.ends[0]}, of {length(found.a.length)} and {length(found.b.length)}."
        )
        self.verdict.setText(self._verdict(found))
        one, two = words(found.a.piece.name), words(found.b.piece.name)
        self.stretches.show_rows(
            [
                (
                    f"{stretch.start} to {stretch.stop}", length(stretch.a_mm), length(stretch.b_mm),
                    signed(stretch.difference_mm, length(abs(stretch.difference_mm), fine=True), 0.05),
                )
                for stretch in found.stretches
            ],
            head=("", one, two, ""),
        )  # fmt: skip
        self._heads[1].setVisible(bool(found.notches))
        self.notches.setVisible(bool(found.notches))
        self.notches.show_rows([(notch.title, self._notch(found, notch)) for notch in found.notches])

    def _verdict(self, found: Walk) -> str:
        difference = found.difference_mm
        if abs(difference) < 0.05:
            return "Both sides are equally long."
        longer = words((found.b if difference > 0 else found.a).piece.name).capitalize()
        return f"{longer} is longer by {self._model.length(abs(difference), fine=True)} in all."

    def _notch(self, found: Walk, notch: NotchPair) -> str:
        if notch.difference_mm is None:
            return "no partner"
        if notch.meets:
            eased = abs(notch.difference_mm)
            return f"meet, {self._model.length(eased, fine=True)} eased" if eased >= EASED else "meet"
        return f"miss by {self._model.length(abs(notch.missed_mm), fine=True)}"


def seam_words(seam: Seam) -> str:
    """A seam as it is read aloud: `side seam, front and back`."""
    one, two = seam.a.parts[0], seam.b.parts[0]
    if one.edge == two.edge:
        return f"{words(one.edge)}, {words(one.piece)} and {words(two.piece)}"
    return f"{words(one.piece)} {words(one.edge)} and {words(two.piece)} {words(two.edge)}"
