"""The reading panel: the chosen step, the account, the figures, the findings with what mends them."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from zesty_pivot.core import faults
from zesty_pivot.core.ledger import girths as girths_of
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import STATION_WORDS
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.forms.base import StepForm
from zesty_pivot.desk.forms.registry import all_forms
from zesty_pivot.desk.labels import empty, label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.panels.dart_sewing import DartSewing
from zesty_pivot.desk.panels.findings import Findings


class ReadingPanel(QWidget):
    """The first panel at the right of the table."""

    def __init__(self, model: DeskModel, after_mending: Callable[[], None]) -> None:
        super().__init__()
        self._after_mending = after_mending
        self._model = model
        inside = Column()
        self._column = inside.rows
        self._column.setSpacing(6)
        self.step_title = label("", "heading")
        self.step_fault = label("", "fault")
        self.step_notes = label("", "quiet")
        self._shown: tuple[object, ...] | None = None  # what of the model was shown last
        self._forms: dict[str, StepForm] = {}  # made when a step of their kind is first looked at
        for head in (self.step_title, self.step_fault, self.step_notes):
            self._column.addWidget(head)
        self._form_place = self._column.count()
        self._column.addSpacing(4)
        self._account_title = label("Account", "heading")
        self._account = QWidget()
        self._account_rows = QGridLayout(self._account)
        self._account_rows.setContentsMargins(0, 0, 0, 0)
        self._account_rows.setHorizontalSpacing(10)
        self._account_rows.setVerticalSpacing(3)
        self._account_rows.setColumnStretch(0, 1)
        self.findings = Findings(model, after_mending)
        self.sewing = DartSewing(model)
        self._figures_title = label("Figures", "heading")
        self.figures = label("", "quiet")
        for widget in (
            self.sewing, self.findings, self._account_title, self._account, self._figures_title, self.figures,
        ):  # fmt: skip
            self._column.addWidget(widget)
        self._column.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(inside.scrolled())
        model.pace.followed.connect(self.refresh)
        model.chosen_changed.connect(self.refresh)
        self.refresh()

    def restyle(self) -> None:
        """Draws what holds colours of its own anew."""
        self._shown = None
        self.findings.restyle()

    def put_in(self, widget: QWidget) -> None:
        """Another widget below the findings."""
        self._column.insertWidget(self._column.indexOf(self._account_title), widget)

    def edit_fields(self) -> None:
        """Puts the hand into the first field of the chosen step."""
        form = next((form for form in self._forms.values() if form.isVisibleTo(self)), None)
        if form is not None:
            form.edit_first()

    def form(self, do: str) -> StepForm:
        """The form of a kind of step."""
        if do not in self._forms:
            self._forms[do] = all_forms()[do].make(self._model)
            self._forms[do].done.connect(self._after_mending)
            self._column.insertWidget(self._form_place, self._forms[do])
        return self._forms[do]

    def refresh(self) -> None:
        """Shows the model, once however many signals tell of the same change."""
        model = self._model
        shown = (model.derived, model.step, model.state_index, model.pivot, model.dart, model.is_previewing)
        if self._shown is not None and shown[0] is self._shown[0] and shown[1:] == self._shown[1:]:
            return
        self._shown = shown
        self._show_step()
        self.sewing.refresh()
        self._show_account()
        self.findings.refresh()
        self._show_figures()

    def _show_step(self) -> None:
        at = self._model.step
        steps = self._model.derived.style.steps
        step = steps[at] if at is not None and at < len(steps) else None
        for do, own in self._forms.items():
            own.setVisible(step is not None and step.do == do)
        for widget in (self.step_title, self.step_fault, self.step_notes):
            widget.setVisible(step is not None)
        if step is None or at is None:
            return
        states = self._model.derived.derivation.states
        state = states[at + 1]
        self.step_title.setText(f"{at + 1}  {step.name or step.title}")
        self.step_fault.setText(str(state.error) if state.error else "")
        self.step_fault.setVisible(state.error is not None)
        notes = "\n".join(note.text[:1].upper() + note.text[1:] + "." for note in state.notes)
        self.step_notes.setText("Switched off." if step.off else notes)
        self.step_notes.setVisible(bool(self.step_notes.text()))
        if step.do in all_forms():
            self._show_form(at, step, states[at].pattern)

    def _show_form(self, at: int, step: Step, before: Pattern) -> None:
        try:
            form = self.form(step.do)
            form.show_step(at, step.with_ids(before), before)
            form.show()
        except Exception as fault:  # noqa: BLE001 - the boundary of a form: the step stays, only its fields cannot be shown
            reference = faults.caught(fault, f"the fields of “{step.title}”")
            if step.do in self._forms:
                self._forms[step.do].hide()
            self.step_fault.setText(f"{faults.sentence('The fields of this step', reference)}. The step itself is untouched.")
            self.step_fault.show()

    @contained("the account")
    def _show_account(self) -> None:
        account = self._model.account
        empty(self._account_rows)
        self._account_title.setVisible(account is not None)
        if account is None:
            return
        self._account_title.setText(f"Account of the {words(account.pivot)}")
        rows = [(f"{words(account.piece).capitalize()}, in the block", f"{account.block_deg:.1f}°", "")]
        for entry in account.placed:
            where = STATION_WORDS.get(entry.where, entry.where)
            where += "" if entry.use == "dart" else f", {entry.use}"
            # What was let in across a cut lies open in the cloth: it has no mouth any more.
            piece = self._model.pattern.piece(entry.piece) if entry.piece else None
            mouth = self._model.length(piece.intake(entry.dart)) if piece is not None and piece.has_dart(entry.dart) else ""
            rows.append((where, f"{entry.deg:.1f}°", mouth))
        if account.added_deg:
            rows.insert(1, ("added by steps", f"{account.added_deg:+.1f}°", ""))
        for number, (title, degrees, mouth) in enumerate(rows):
            for column, text in enumerate((title, degrees, mouth)):
                cell = label(text, "quiet" if number == 0 else "figure" if column else "", wraps=column == 0)
                if column:
                    cell.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
                self._account_rows.addWidget(cell, number, column)
        missing = account.missing_deg
        text = "All placed." if account.is_whole else f"{abs(missing):.3f}° {'missing' if missing > 0 else 'too much'}."
        self._account_rows.addWidget(label(text, "quiet" if account.is_whole else "fault"), len(rows), 0, 1, 3)

    @contained("the figures")
    def _show_figures(self) -> None:
        girths = girths_of(self._model.pattern, self._model.derived.derivation.block)
        lines = [
            f"{title}: {self._model.length(value)}"
            for title, value in (
                ("Finished bust", girths.bust), ("Finished waist", girths.waist), ("Finished hip", girths.hip),
                ("Neck opening", girths.neck_opening),
            )
            if value is not None
        ]  # fmt: skip
        for seam in self._model.look.seams:
            a, b = self._model.length(seam.a_mm), self._model.length(seam.b_mm)
            lines.append(f"{seam.a.words().capitalize()} {a}, {seam.b.words()} {b}")
        broken = [number for number, _fault in self._model.derived.derivation.broken]
        if broken:
            lines.append("Broken steps: " + ", ".join(str(number) for number in broken))
        total = sum(account.block_deg + account.added_deg for account in self._model.look.accounts)
        lines.append(f"Fullness of all pivots: {total:.1f}°")
        self.figures.setText("\n".join(lines))
