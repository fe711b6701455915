"""The neck panel: front and back matched at the shoulder, and the opening against the head."""

from __future__ import annotations

from pydantic import ValidationError
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.matched import Matched, matched
from zesty_pivot.core.ledger.opening import OpenedNeck, opened
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.neck_shape import ShapeNeck
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import Figures, label
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.panels.matched_view import MatchedView
from zesty_pivot.desk.widening import wider

NOTHING = "–"  # where there is no figure
SMOOTH = 0.5  # degrees
LINES = 2  # that advice and hint have room for


class NeckPanel(QWidget):
    """Shows what the neckline is, and what lets the head through."""

    def __init__(self, model: DeskModel, lay: Lay) -> None:
        super().__init__()
        self._model, self._lay = model, lay
        inside = Column()
        rows = inside.rows
        rows.setSpacing(6)
        self.matched = MatchedView()
        self.figures = Figures(2)
        self.advice = label("", "quiet")
        self.ways = QWidget()
        ways = QHBoxLayout(self.ways)
        ways.setContentsMargins(0, 0, 0, 0)
        ways.setSpacing(4)
        self.buttons: dict[str, QPushButton] = {}
        for kind, title, tip in (
            ("zip", "Zip", "A zip in a seam at the centre back"),
            ("slit", "Slit", "A slit at the centre back, with button and loop"),
            ("wider", "Wider", "The same shape, as wide as the head needs"),
        ):
            button = QPushButton(title)
            button.setToolTip(tip)
            button.clicked.connect(lambda _on=False, kind=kind: self._open(kind))
            self.buttons[kind] = button
            ways.addWidget(button)
        for widget in (
            label("Matched at the shoulder", "heading"), self.matched, self.figures, self.advice, self.ways,
        ):  # fmt: skip
            rows.addWidget(widget)
        rows.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(inside.scrolled())
        # While shapes are looked at nothing above them may grow or shrink, or they would run away from under the hand.
        self.advice.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.advice.setMinimumHeight(LINES * self.advice.fontMetrics().lineSpacing() + 4)
        model.pace.followed.connect(self.refresh)
        lay.panel_changed.connect(self.refresh)
        self.refresh()

    # What is shown.

    @contained("the neck panel")
    def refresh(self) -> None:
        """Shows the model, when this panel is the one that is seen."""
        if self._lay.panel != "neck":
            return
        pattern = self._model.pattern
        context = self._model.derived.context
        laid = matched(pattern, context)
        self.matched.show_matched(laid)
        found = opened(pattern, self._model.style.scope().measures, self._model.style.finish.stretch)
        self._show_figures(laid, found)
        self._show_advice(found)

    def _show_figures(self, laid: Matched | None, found: OpenedNeck | None) -> None:
        length = self._model.length
        necks = shoulders = across = opening = NOTHING
        if laid is not None:
            necks = f"{length(laid.front.neck_mm)}, {length(laid.back.neck_mm)}"
            shoulders = f"{length(laid.front.shoulder_mm)}, {length(laid.back.shoulder_mm)}"
            across = "smooth" if abs(laid.corner_deg) < SMOOTH else f"corner {abs(laid.corner_deg):.1f}°"
        if found is not None:
            opening = f"{length(found.whole_mm)}, {length(found.head_mm)}"
        head = "measured head" if found is not None and found.is_measured else "usual head"
        self.figures.show_rows(
            [
                ("Half of front, back", necks), ("Shoulder left", shoulders), ("Across the shoulder", across),
                (f"Opening, {head}", opening),
            ]
        )  # fmt: skip

    def _show_advice(self, found: OpenedNeck | None) -> None:
        lacks = found is not None and found.short_mm > 0.0
        if found is None:
            text = "This edge doesn't have to pass over the head."
        elif lacks:
            short = self._model.length(found.short_mm)
            text = f"The neck opening is {short} too small for the head. Add an opening, or make it wider."
        else:
            text = "The head fits through."
        self.advice.setText(text)
        self.ways.setEnabled(lacks)

    # Mending.

    def _at(self) -> int | None:
        """The neckline step that a choice changes: the chosen one, else the last of the recipe."""
        steps = self._model.style.steps
        if self._model.step is not None and isinstance(steps[self._model.step], ShapeNeck):
            return self._model.step
        return next((at for at in reversed(range(len(steps))) if isinstance(steps[at], ShapeNeck)), None)

    def _open(self, kind: str) -> None:
        """Does what lets the head through; what cannot be is said."""
        found = opened(self._model.pattern, self._model.style.scope().measures, self._model.style.finish.stretch)
        if found is None:
            return
        if kind == "wider":
            self._widen(found.head_mm)
            return
        value = {"do": "neck.opening", "on": "back", "kind": kind, "length": f"{found.zip_mm:.0f} mm"}
        try:
            self._model.choose_step(None)
            self._model.recipe.add_step(registry.read(value), f"{kind} at the back")
        except (ZestyError, ValidationError) as fault:
            self._model.say(str(fault), fault=True)

    def _widen(self, head_mm: float) -> None:
        at = self._at()
        old = self._model.style.steps[at] if at is not None else None
        before = self._model.derived.derivation.states[at].pattern if at is not None else self._model.pattern
        first = old if isinstance(old, ShapeNeck) else ShapeNeck(shape="round")
        try:
            step = wider(first, before, self._model.derived.derivation.block, self._model.style, head_mm)
        except ZestyError as fault:
            self._model.say(str(fault), fault=True)
            return
        if at is None:
            self._model.recipe.add_step(step, "wider neckline")
        else:
            self._model.recipe.replace_step(at, step, "wider neckline")
