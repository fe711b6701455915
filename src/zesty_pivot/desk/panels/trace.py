"""Tracing paper: what is laid on the table, and the differences seam by seam and dart by dart."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.ledger.differences import DartDifference
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import STATION_WORDS
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import Figures, label
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel

NONE, OTHER, VARIANT = "none", "other", "variant:"


class TracePanel(QWidget):
    """Chooses the tracing paper and tells what differs."""

    def __init__(self, model: DeskModel, lay: Lay, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._lay, self._run = model, lay, run
        inside = Column()
        rows = inside.rows
        rows.setSpacing(6)
        self.sheet = Choice("Tracing paper")
        self.over = QCheckBox("Lay it over the pattern")
        self.everything = QCheckBox("Also what is the same")
        self.other = QPushButton("Another style…")
        self.summary = label("", "quiet")
        self.seams, self.darts = Figures(3), Figures(3)
        self._heads = label("Seams", "heading"), label("Darts", "heading")
        rows.addWidget(label("Tracing paper", "heading"))
        rows.addWidget(label("Lay another sheet on the table and read what differs.", "quiet"))
        row = QHBoxLayout()
        row.addWidget(self.sheet, 1)
        row.addWidget(self.other)
        rows.addLayout(row)
        for widget in (self.over, self.everything, self.summary, self._heads[0], self.seams, self._heads[1], self.darts):
            rows.addWidget(widget)
        rows.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(inside.scrolled())
        self.sheet.picked.connect(self._pick)
        self.other.clicked.connect(lambda: run("trace.other"))
        self.over.toggled.connect(self._put_over)
        self.everything.toggled.connect(self.refresh)
        lay.changed.connect(self.refresh)
        model.pace.followed.connect(self.refresh)
        self.refresh()

    def _put_over(self, over: bool) -> None:
        if over != self._lay.is_over:
            self._lay.put_over(over)

    def _pick(self, value: str) -> None:
        if value == OTHER:
            return
        if value.startswith(VARIANT):
            self._lay.trace_variant(value.removeprefix(VARIANT))
        else:
            self._lay.trace_state(None if value == NONE else int(value))

    @contained("the trace panel")
    def refresh(self) -> None:
        """Shows the lay, when this panel is the one that is seen."""
        if self._lay.panel != "trace":
            return
        traced = self._lay.traced
        steps = self._model.derived.style.steps
        choices = [(NONE, "nothing"), ("0", "the block")]
        choices += [(str(n), f"after step {n}") for n in range(1, len(steps) + 1)]
        others = [one.name for one in self._model.variants.all if one.name != self._model.variants.shown]
        choices += [(f"{VARIANT}{name}", f"variant: {name}") for name in others]
        value = NONE if traced is None else OTHER if traced.state is None else str(traced.state)
        if traced is not None and traced.variant in others:
            value = f"{VARIANT}{traced.variant}"
        elif traced is not None and traced.state is None:
            choices.append((OTHER, traced.title))
        self.sheet.show_choices(choices, value)
        self.over.blockSignals(True)
        self.over.setChecked(self._lay.is_over)
        self.over.blockSignals(False)
        self.over.setEnabled(traced is not None)
        self.everything.setVisible(traced is not None)
        self._show_figures()

    def _show_figures(self) -> None:
        figures = self._lay.figures
        for widget in (*self._heads, self.seams, self.darts):
            widget.setVisible(figures is not None)
        if figures is None or self._lay.traced is None:
            self.summary.setText("")
            return
        show_all, length = self.everything.isChecked(), self._model.length
        edges = [row for row in figures.edges if show_all or row.is_change]
        darts = [row for row in figures.darts if show_all or row.is_change]
        against = f"The pattern on the table against {self._lay.traced.title}"
        changed = [_count(edges, "seam"), _count(darts, "dart")]
        told = " and ".join(text for text in changed if text)
        verb = "differs" if len(edges) + len(darts) == 1 else "differ"
        nothing = figures.are_none
        self.summary.setText(f"{against}." if show_all else f"{against}: {'nothing differs' if nothing else f'{told} {verb}'}.")
        self.seams.show_rows(
            [
                (
                    f"{words(row.piece).capitalize()} {words(row.edge)}",
                    "none" if row.now_mm is None else length(row.now_mm),
                    signed(row.difference_mm, length(abs(row.difference_mm), fine=True)),
                )
                for row in edges
            ],
            head=("", "now", "change"),
        )
        self.darts.show_rows([self._dart(row) for row in darts], head=("", "now", "change"))
        self._heads[0].setVisible(bool(edges))
        self._heads[1].setVisible(bool(darts))
        self.seams.setVisible(bool(edges))
        self.darts.setVisible(bool(darts))

    def _dart(self, row: DartDifference) -> tuple[str, str, str]:
        now, other = row.now, row.other
        side = now or other
        title = f"{words(row.piece).capitalize()} {words(side.called if side else row.dart)} dart"
        if now is not None and other is not None and now.station != other.station:
            title += f": {_place(other.station)} → {_place(now.station)}"
        elif now is not None:
            title += f", {_place(now.station)}" + ("" if other else " (new)")
        elif other is not None:
            title += f", was at {_place(other.station)}"
        shown = "none" if now is None else f"{now.angle_deg:.1f}°\n{self._model.length(now.intake_mm)}"
        mouth = self._model.length(abs(row.intake_mm), fine=True)
        return title, shown, f"{signed(row.angle_deg, f'{abs(row.angle_deg):.1f}°', 0.05)}\n{signed(row.intake_mm, mouth)}"


def _count(rows: Sequence[object], noun: str) -> str:
    return f"{len(rows)} {noun}{'' if len(rows) == 1 else 's'}" if rows else ""


def _place(station: str) -> str:
    return STATION_WORDS.get(station, station)


def signed(value: float, text: str, least: float = 0.005) -> str:
    """A figure with its sign; what would print as nothing is an equals sign."""
    return "=" if abs(value) < least else f"{'+' if value > 0 else '−'}{text}"
