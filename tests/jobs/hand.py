"""A hand at mouse and keys of the real window, and what it does counted by the keystroke-level model.

Card, Moran, Newell 1980: a key K 0.28 s, a pointing P 1.10 s, a press or a release B 0.10 s, a change between mouse and keys
H 0.40 s, thinking M 1.35 s before each decision.
"""

from __future__ import annotations

import math
from collections import Counter
from typing import Any

from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QGuiApplication, QMouseEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QCheckBox, QComboBox, QLineEdit, QPushButton, QScrollArea, QWidget

SECONDS = {"K": 0.28, "P": 1.10, "B": 0.10, "H": 0.40, "M": 1.35}
LEFT = Qt.MouseButton.LeftButton
NEAR = 5  # presses of the tab key that take less long than pointing


class Hand:
    """Points, clicks, drags and types; nothing of the model is called."""

    def __init__(self, window: Any, block: str = "") -> None:
        self.window, self.block = window, block
        self.counted: Counter[str] = Counter()
        self.seen: dict[str, Any] = {}  # what lay on the table or stood in a panel on the way, by a name
        self._picked: set[QComboBox] = set()  # lists that letters were typed into a moment ago
        self._at_keys = False
        self._written: QLineEdit | None = None  # a field that is not ended yet
        self._clicked: QWidget = window  # has the focus where no window manager gives it

    @property
    def minutes(self) -> float:
        """How long a practised user takes, by the model."""
        return sum(SECONDS[what] * count for what, count in self.counted.items()) / 60.0

    # The five operators.

    def think(self) -> None:
        self.counted["M"] += 1
        self.look()

    def look(self) -> None:
        """Sees what the window shows a moment after the last thing done, as everybody has by the next."""
        while not self.window.model.pace.is_checked:
            QApplication.processEvents()
        QApplication.processEvents()  # what is new in a panel is shown in the turn after

    def _home(self, *, keys: bool) -> None:
        if self._at_keys is not keys:
            self.counted["H"] += 1
            self._at_keys = keys

    def click(self, widget: QWidget, at: QPoint | None = None) -> None:
        """Points at a widget and presses the button."""
        if widget is not self._written:
            self.settle()
        self.look()
        self._home(keys=False)
        self.counted.update({"P": 1, "B": 2})
        self._clicked = widget
        QTest.mouseClick(widget, LEFT, pos=widget.rect().center() if at is None else at)

    def drag(self, widget: QWidget, start: QPointF, stop: QPointF) -> None:
        """Points, presses, points elsewhere, lets go."""
        self.settle()
        self._home(keys=False)
        self.counted.update({"P": 2, "B": 2})
        for kind, at in (
            (QEvent.Type.MouseButtonPress, start), (QEvent.Type.MouseMove, (start + stop) / 2.0),
            (QEvent.Type.MouseMove, stop), (QEvent.Type.MouseButtonRelease, stop),
        ):  # fmt: skip
            moves = kind is QEvent.Type.MouseMove
            held = Qt.MouseButton.NoButton if kind is QEvent.Type.MouseButtonRelease else LEFT
            where = QPointF(widget.mapToGlobal(at.toPoint()))
            button = Qt.MouseButton.NoButton if moves else LEFT
            QApplication.sendEvent(widget, QMouseEvent(kind, at, where, button, held, Qt.KeyboardModifier.NoModifier))

    def keys(self, text: str) -> None:
        """Types into whatever has the focus."""
        self._home(keys=True)
        self.counted["K"] += len(text)
        QTest.keyClicks(self._focus(), text)

    def _focus(self) -> QWidget:
        """What gets the keys. Where no window manager gives a window the focus, under Xvfb or when a list has just been shut,
        it is what was clicked."""
        focus = QApplication.focusWidget()
        if QGuiApplication.platformName() == "xcb" or focus is None or not focus.isVisible():
            return self._clicked
        return focus

    def key(self, key: Qt.Key, modifier: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
        """One key, with a modifier two."""
        self._home(keys=True)
        self.counted["K"] += 1 if modifier is Qt.KeyboardModifier.NoModifier else 2
        QTest.keyClick(self._focus(), key, modifier)

    # What hands do with them.

    def _into_view(self, widget: QWidget) -> None:
        """Turns the wheel until a widget is seen: one pointing."""
        parent = widget.parentWidget()
        while parent is not None and not isinstance(parent, QScrollArea):
            parent = parent.parentWidget()
        if isinstance(parent, QScrollArea):
            at = widget.mapTo(parent.viewport(), widget.rect().center())
            if not parent.viewport().rect().contains(at):
                self._home(keys=False)
                self.counted["P"] += 1
                parent.ensureWidgetVisible(widget, 0, 60)
                QApplication.processEvents()

    def add(self, title: str) -> None:
        """Adds a step, or runs a command, by the search of the drawer: what its title begins with until it is the first answer,
        and Enter."""
        self.add_with(title)

    def add_with(self, name: str, numbers: str = "", *chosen: str, design: str = "", other: bool = False) -> None:
        """Adds a step by what its name begins with, until it (or a design of its gallery) is the first answer, the numbers
        behind it and, behind commas, what is chosen from its lists: `keyhole 3 4, in a`; `other` as another variant. The
        numbers stand in the order, so that there is one decision: what to do (the model's rules 0 to 2)."""
        self.shortcut("Ctrl+F")
        search = self.window.drawer.search
        self._clicked = search
        for letter in name:
            self.keys(letter)
            found = self.window.drawer.answers.found
            if found and (found[0].design == design if design else found[0].title == name):
                break
        else:
            raise AssertionError((name, self.window.drawer.answers.found))
        behind = f" {numbers}" if numbers else ""
        self.keys(behind + "".join(f", {words}" for words in chosen))
        self.key(Qt.Key.Key_Return, Qt.KeyboardModifier.ShiftModifier if other else Qt.KeyboardModifier.NoModifier)
        QApplication.processEvents()
        self.window.activateWindow()  # as after a list
        QApplication.processEvents()
        self._clicked = self.window.focusWidget() or self.window

    def on_other(self) -> None:
        """The same as the chosen step on the other piece."""
        self.shortcut("Ctrl+G")
        self.window.activateWindow()
        QApplication.processEvents()
        self._clicked = self.window.focusWidget() or self.window

    def pivot(self, piece: str, name: str) -> None:
        """Clicks a pivot on the table: its ring appears."""
        self.think()
        table = self.window.table
        at = table.layout_now()[piece].on_table(self.window.model.pattern.piece(piece).pivot(name))
        self.click(table, table.to_px(*at).toPoint())
        QApplication.processEvents()
        assert table.ring() is not None, (piece, name)

    def form(self) -> Any:
        """The form of the chosen step, as it is shown."""
        step = self.window.model.style.steps[self.window.model.step]
        return self.window.side.reading.form(step.do)

    def fill(self, key: str, text: str) -> None:
        """Writes into a number field of the chosen step's form."""
        self.write(self.form().fields[key].edit, text)

    def write(self, edit: QLineEdit, text: str) -> None:
        """Writes into a field: the one that has the hand already, one that a few tabs away lies, or else by a double click that
        takes all that is there. Enter ends it when the hand goes elsewhere."""
        self.think()
        if not self._tab_to(edit):
            self._into_view(edit)
            self.click(edit)
            self.counted["B"] += 2
        edit.selectAll()
        self._clicked = edit
        self.keys(text)
        self._written = edit

    def settle(self) -> None:
        """Ends the field that was written into last, with Enter."""
        edit, self._written = self._written, None
        if edit is not None:
            self._clicked = edit
            self.key(Qt.Key.Key_Return)
            QApplication.processEvents()

    def _tab_to(self, goal: QWidget) -> bool:
        """Goes to a field by the tab key where the hand is in the same form and the way is short."""
        here = self.window.focusWidget()
        if here is None or QGuiApplication.platformName() == "xcb":
            return False
        steps, widget = 0, here
        while widget is not goal and steps <= NEAR:
            widget = widget.nextInFocusChain()
            if widget is here:
                return False
            if widget.isVisibleTo(self.window) and widget.isEnabled() and widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
                steps += 1
        if widget is not goal:
            return False
        self._written = None
        for _step in range(steps):
            self._clicked = self.window.focusWidget() or here
            self.key(Qt.Key.Key_Tab)
            QApplication.processEvents()
        return self.window.focusWidget() is goal

    def choose(self, key: str, title: str) -> None:
        """Picks from a list of the form."""
        field = self.form().fields[key]
        self.pick(getattr(field, "choice", field), title)

    def pick(self, box: QComboBox, title: str) -> None:
        """Opens a list, types what its line begins with, and takes it."""
        self.think()
        if box in self._picked:  # a list goes on with the word that was typed into it a moment ago
            QTest.qWait(QApplication.keyboardInputInterval() + 50)
            self._picked.clear()
        self._picked.add(box)
        self._into_view(box)
        self.click(box)
        titles = [box.itemText(k) for k in range(box.count())]
        assert title in titles, (title, titles)
        QApplication.processEvents()
        known = [name.lower() for name in titles]
        mine = range(1, len(title) + 1)  # one that another begins with as well is taken when it is written out
        least = next((n for n in mine if sum(name.startswith(title.lower()[:n]) for name in known) == 1), len(title))
        self._home(keys=True)
        self.counted["K"] += least + 1
        QTest.keyClicks(box.view(), title[:least])
        QTest.keyClick(box.view(), Qt.Key.Key_Return)
        assert box.currentText() == title, (title, box.currentText())
        self.window.activateWindow()  # offscreen nothing gives the window the keys back when a list is shut
        QApplication.processEvents()

    def press(self, title: str) -> None:
        """Clicks a button by its title."""
        self.think()
        buttons = [button for button in self.window.findChildren(QPushButton) if button.text().strip() == title]
        (button,) = [button for button in buttons if button.isVisibleTo(self.window)]
        self._into_view(button)
        self.click(button)
        QApplication.processEvents()

    def pick_named(self, name: str, title: str) -> None:
        """Picks from the first list that is called so."""
        boxes = [box for box in self.window.findChildren(QComboBox) if box.accessibleName() == name]
        self.pick(next(box for box in boxes if box.isVisibleTo(self.window)), title)

    def write_named(self, name: str, text: str) -> None:
        """Writes into the first field that is called so."""
        edits = [edit for edit in self.window.findChildren(QLineEdit) if edit.accessibleName() == name]
        self.write(next(edit for edit in edits if edit.isVisibleTo(self.window)), text)

    def picture(self, do: str, name: str) -> None:
        """Clicks a picture of the gallery of the chosen step."""
        self.think()
        gallery = self.window.drawer.gallery(do)
        gallery.finish()
        choice = gallery.grid.choices[name]
        QApplication.processEvents()
        self._into_view(choice)
        self.click(choice)
        QApplication.processEvents()

    def mark(self, title: str) -> None:
        """Ticks the box of a title."""
        (box,) = [box for box in self.window.findChildren(QCheckBox) if box.text() == title and box.isVisibleTo(self.window)]
        self.tick_box(box)

    def tick(self, key: str) -> None:
        """Ticks a box of the form."""
        self.tick_box(self.form().fields[key])

    def tick_box(self, box: QCheckBox) -> None:
        """Clicks a box on its mark."""
        self.think()
        self._into_view(box)
        self.click(box, QPoint(8, box.height() // 2))
        QApplication.processEvents()

    def shortcut(self, keys: str) -> None:
        """Presses some keys at once: `Ctrl+Shift+T`."""
        self.settle()
        self.think()
        self._home(keys=True)
        parts = keys.split("+")
        self.counted["K"] += len(parts)
        modifiers = Qt.KeyboardModifier.NoModifier
        for part in parts[:-1]:
            modifiers |= {"Ctrl": Qt.KeyboardModifier.ControlModifier, "Shift": Qt.KeyboardModifier.ShiftModifier}[part]
        QTest.keyClick(self.window, Qt.Key[f"Key_{parts[-1]}"], modifiers)
        QApplication.processEvents()

    def shut(self, dialog: QWidget) -> None:
        """Shuts a sheet that lies over the window, with Escape."""
        self._home(keys=True)
        self.counted["K"] += 1
        QTest.keyClick(dialog, Qt.Key.Key_Escape)
        dialog.deleteLater()
        self.window.activateWindow()
        QApplication.processEvents()

    def see(self, name: str) -> None:
        """Remembers the written pieces as they are now; a field that was written into is ended."""
        self.settle()
        QApplication.processEvents()
        self.seen[name] = ({piece.name: piece for piece in self.window.model.derived.pieces}, self.window.model.pattern)

    def bead(self, dart: str, station: str) -> None:
        """Drags a dart's bead round the ring to a station."""
        self.think()
        table = self.window.table
        ring = table.ring()
        pin, reach = table.pin(), table.ring_size()
        radius = (reach.inner + reach.outer) / 2.0
        goal = next(target.angle for target in ring.targets if target.spot.station == station)
        start = ring.bead(dart).middle

        def on(angle: float) -> QPointF:
            return pin + QPointF(math.cos(angle), math.sin(angle)) * radius

        self.drag(table, on(start), on(goal))

    def handle(self, key: str, x: float, y: float) -> None:
        """Drags a handle of the chosen step to a place of the table, mm."""
        self.think()
        table = self.window.table
        start = table.handles.points(table.layout_now())[key]
        self.drag(table, start, table.to_px(x, y))
