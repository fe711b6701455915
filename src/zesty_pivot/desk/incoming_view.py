"""The import view: what came in, what is proposed of it and how sure, front and back walked, and what to do with the block."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QAction, QResizeEvent
from PyQt6.QtWidgets import QLineEdit, QMenu, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.intake.guesses import Guess, Sure
from zesty_pivot.core.quantity import format_length
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast, side
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.incoming import Incoming
from zesty_pivot.desk.incoming_saying import Saying, of_piece, sayings
from zesty_pivot.desk.labels import empty, label, repolish
from zesty_pivot.desk.model import IMPORT, DeskModel
from zesty_pivot.desk.table.incoming_table import IncomingTable
from zesty_pivot.desk.table.incoming_things import IncomingThing, LaidPiece
from zesty_pivot.desk.tabs import Tabs

LEFT, RIGHT = 264, 316
NARROW, NARROW_LEFT, NARROW_RIGHT = 1000, 220, 258  # px: a window narrower than that has smaller sides
SHORT = 26  # characters that stand on a button beside what they are the worth of
MARKS = {Sure.SAID: "✓", Sure.SURE: "✓", Sure.LIKELY: "○", Sure.UNSURE: "?"}
HOW_SURE = {Sure.SAID: "said", Sure.SURE: "sure", Sure.LIKELY: "likely", Sure.UNSURE: "not sure"}
ASKED = (
    ("import.new_style", "New style over this block"), ("import.keep", "Hang it in the library"),
    ("import.put_under", "Put it under this style"), ("import.save", "Save the block…"),
)  # fmt: skip


class IncomingView(QWidget):
    """Shows the import; every change goes to it."""

    def __init__(
        self, model: DeskModel, incoming: Incoming, run: Callable[[str], None], action: Callable[[str], QAction]
    ) -> None:
        super().__init__()
        self._model, self._incoming, self._run = model, incoming, run
        self.canvas = IncomingTable(model, incoming)
        self.name = QLineEdit()
        self.unit, self.sizes = Choice("Unit of the file"), Choice("Size")
        self.source, self.fault, self.notes = label("", "figure"), label("", "warning"), label("", "quiet")
        self.pieces, self.guesses, self.check, self.compared = QVBoxLayout(), QVBoxLayout(), QVBoxLayout(), QVBoxLayout()
        self.bodies: dict[int, Choice] = {}
        self.buttons: dict[str, QPushButton] = {}
        self.tabs = Tabs()
        self.menu: QMenu | None = None
        self._rows: dict[tuple[int, str], QPushButton] = {}
        self._action = action
        abreast(self, self._left(), self.canvas, self._right(), widest=1)
        self.fit_width(1280)
        self.canvas.asked.connect(self.ask)
        incoming.changed.connect(self.refresh)
        incoming.chosen_changed.connect(self._light)
        model.view_changed.connect(self.refresh)
        self.refresh()

    # Building.

    def _left(self) -> QWidget:
        self.left = SideColumn("left")
        rows = self.left.rows
        rows.addWidget(label("A block that comes in", "heading"))
        rows.addWidget(self.source)
        rows.addWidget(self.fault)
        self.name.setAccessibleName("Name of the block")
        self.name.setPlaceholderText("Name of the block")
        self.name.editingFinished.connect(lambda: self._incoming.set_name(self.name.text()))
        rows.addWidget(self.name)
        self.unit_title, self.size_title = label("One unit of the file is", "quiet"), label("Size", "quiet")
        for widget in (self.unit_title, self.unit, self.size_title, self.sizes):
            rows.addWidget(widget)
        self.unit.picked.connect(self._incoming.set_unit)
        self.sizes.picked.connect(self._incoming.set_size)
        rows.addWidget(label("Pieces", "heading"))
        rows.addLayout(self.pieces)
        rows.addWidget(self.notes)
        asked = (*ASKED, ("import.open", "Another file…"))
        self.buttons = self.left.ask(asked, self._run, lambda id: self._action(id).toolTip())
        return self.left

    def _right(self) -> QWidget:
        self.right = side("right")
        around = QVBoxLayout(self.right)
        around.setContentsMargins(0, 0, 0, 0)
        around.addWidget(self.tabs)
        for id, title, tip, layout in (
            ("guesses", "What it is", "What is proposed, how sure it is, and why", self.guesses),
            ("check", "Walk", "Front and back walked at shoulder, side and armhole, with mends", self.check),
            ("paper", "Paper", "The block laid on what it came from", self.compared),
        ):  # fmt: skip
            page = self.tabs.add(id, title, tip).rows
            page.addLayout(layout)
            page.addStretch(1)
        return self.right

    def fit_width(self, width: int) -> None:
        """Smaller sides where the window is narrow."""
        is_narrow = width < NARROW
        self.left.setFixedWidth(NARROW_LEFT if is_narrow else LEFT)
        self.right.setFixedWidth(NARROW_RIGHT if is_narrow else RIGHT)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.fit_width(self.width())

    # Showing.

    @contained("the import view")
    def refresh(self) -> None:
        """Shows the import, when this view is the one that is seen."""
        if self._model.view != IMPORT:
            return
        incoming, outcome = self._incoming, self._incoming.outcome
        came = incoming.came
        self.source.setText(came.name if came is not None else "Nothing has come in yet: drop a file here, or choose one.")
        self.fault.setText(outcome.fault)
        self.fault.setVisible(bool(outcome.fault))
        if self.name.text() != incoming.name:
            self.name.setText(incoming.name)
        self._show_unit()
        sizes = outcome.paper.sizes if outcome.paper is not None else ()
        for widget in (self.size_title, self.sizes):
            widget.setVisible(bool(sizes))
        if sizes:
            middle = sizes[len(sizes) // 2]
            self.sizes.show_choices([(size, size) for size in sizes], incoming.told.size or middle)
        self.notes.setText("\n".join(outcome.paper.notes) if outcome.paper is not None else "")
        self._show_pieces()
        self._show_guesses()
        self._show_check()
        self._show_compared()
        for id, _text in ASKED:
            self.buttons[id].setEnabled(outcome.block is not None)

    def _show_unit(self) -> None:
        came = self._incoming.came
        units = came.units if came is not None else []
        for widget in (self.unit_title, self.unit):
            widget.setVisible(bool(units))
        if units:
            unit = self._model.style.units
            choices = [
                (one.name, f"{one.name}: it is {format_length(one.wide, unit)} x {format_length(one.high, unit)}")
                for one in units
            ]
            self.unit.show_choices(choices, self._incoming.told.unit)

    def _show_pieces(self) -> None:
        """A row for each piece: front, back, or no part of the block."""
        empty(self.pieces)
        self.bodies = {}
        tagging = self._incoming.outcome.tagging
        for laid in self.canvas.laid:
            choice = Choice(f"Piece {laid.number + 1}")
            now = laid.tagged.body.value if laid.tagged is not None else "none"
            words = f"{laid.number + 1} ({laid.traced.name})" if laid.traced.name else f"{laid.number + 1}"
            choices = [("front", f"{words}: front"), ("back", f"{words}: back"), ("none", f"{words}: no part of it")]
            choice.show_choices(choices, now)
            choice.picked.connect(partial(self._pick_body, laid))
            self.bodies[laid.number] = choice
            self.pieces.addWidget(choice)
            if tagging is not None and laid.number in tagging.others:
                self.pieces.addWidget(label(tagging.others[laid.number].why.capitalize(), "quiet"))

    def _pick_body(self, laid: LaidPiece, value: str) -> None:
        wanted = {"front": "This is the front", "back": "This is the back", "none": "It is no part of the block"}[value]
        for saying in of_piece(self._incoming, laid):
            if saying.title == wanted:
                saying.say()
                return

    def _show_guesses(self) -> None:
        empty(self.guesses)
        self._rows = {}
        tagging = self._incoming.outcome.tagging
        if tagging is None:
            return
        unsure = len(self._incoming.unsure)
        head = f"{unsure} thing{'s' if unsure != 1 else ''} to look at" if unsure else "Nothing is left to ask."
        self.guesses.addWidget(label(head, "warning" if unsure else "quiet"))
        for laid in self.canvas.laid:
            if laid.tagged is None:
                continue
            self.guesses.addWidget(label(laid.tagged.name.capitalize(), "heading"))
            order = list(Sure)[::-1]
            for guess in sorted(laid.tagged.guesses, key=lambda one: order.index(one.sure)):
                self._show_guess(laid, guess)
        self._light()

    def _show_guess(self, laid: LaidPiece, guess: Guess) -> None:
        words = guess.words
        worth = f": {guess.worth}" if guess.worth else ""
        short = worth if len(worth) < SHORT else ""
        button = QPushButton(f"{MARKS[guess.sure]}  {words.removeprefix('the ').capitalize()}{short}")
        button.setObjectName("unsure" if guess.sure is Sure.UNSURE else "guess")
        button.setToolTip(f"{HOW_SURE[guess.sure].capitalize()}: {guess.why}.")
        button.setAccessibleName(f"{words}{worth}, {HOW_SURE[guess.sure]}: {guess.why}")
        button.clicked.connect(partial(self._pick_guess, laid, guess.what))
        self._rows[laid.number, guess.what] = button
        self.guesses.addWidget(button)
        told = "" if short or not guess.worth else f"{guess.worth}. "
        self.guesses.addWidget(label(f"{told}{HOW_SURE[guess.sure].capitalize()}: {guess.why}.", "quiet"))

    def _pick_guess(self, laid: LaidPiece, what: str, _checked: bool = False) -> None:
        """Lights it, and asks what it is."""
        self._incoming.choose((laid.number, what))
        thing = self.canvas.chosen
        at = QPointF(*thing.at) if thing is not None else laid.box.center()
        self.ask(thing, laid, at)

    def _light(self) -> None:
        for key, button in self._rows.items():
            is_lit = key == self._incoming.chosen
            if button.property("lit") != is_lit:
                button.setProperty("lit", is_lit)
                repolish(button)

    def _show_check(self) -> None:
        empty(self.check)
        for line in self._incoming.outcome.walked:
            mark = "✓" if line.is_right else "●"
            self.check.addWidget(label(f"{mark}  {line.title}: {line.says}", "" if line.is_right else "warning"))
            if line.advice:
                self.check.addWidget(label(line.advice, "quiet"))
            if line.mend is not None:
                button = QPushButton(line.mend.title)
                button.clicked.connect(partial(lambda mended, _checked=False: self._incoming.mend(mended), line))
                self.check.addWidget(button)

    def _show_compared(self) -> None:
        empty(self.compared)
        button = QPushButton("Take the tracing paper away" if self.canvas.shows_paper else "Lay the tracing paper on it")
        button.clicked.connect(self._turn_paper)
        self.compared.addWidget(button)
        unit = self._model.style.units
        for laid in self.canvas.laid:
            far = self._incoming.far.get(laid.number)
            if laid.tagged is None or far is None:
                continue
            self.compared.addWidget(label(laid.tagged.name.capitalize(), "heading"))
            says = (
                "lies on the paper" if far.mm < 0.02 else f"lies at most {format_length(far.mm, unit, fine=True)} off the paper"
            )
            self.compared.addWidget(label(f"The block {says}.", ""))
            if laid.traced.error > 0.0:
                band = format_length(laid.traced.error, unit, fine=True)
                self.compared.addWidget(label(f"The paper itself is known within {band}.", "quiet"))

    def _turn_paper(self, _checked: bool = False) -> None:
        self.canvas.shows_paper = not self.canvas.shows_paper
        self.canvas.update()
        self._show_compared()

    # Asking.

    @contained("what may be said of an import")
    def ask(self, thing: IncomingThing | None, laid: LaidPiece | None, at: QPointF) -> None:
        """A menu of what may be said of a thing, or of a place of a piece (mm on the table)."""
        if laid is None or (thing is not None and thing.number != laid.number):
            laid = next((one for one in self.canvas.laid if thing is not None and one.number == thing.number), laid)
        found = sayings(self._incoming, thing, laid, (at.x(), at.y()))
        if not found:
            return
        menu = QMenu(self)
        for saying in found:
            self._add(menu, saying)
        self.menu = menu
        place = self.canvas.to_px(at.x(), at.y())
        menu.popup(self.canvas.mapToGlobal(place.toPoint()))

    def _add(self, menu: QMenu, saying: Saying) -> None:
        entry = menu.addAction(saying.title)
        if entry is not None:
            entry.setCheckable(saying.is_so)
            entry.setChecked(saying.is_so)
            entry.triggered.connect(lambda _checked=False: saying.say())
