"""The table of actions as Qt has it: menus, shortcuts, tooltips, and when each can be done."""

from __future__ import annotations

from functools import partial

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMenu, QMenuBar, QWidget

from zesty_pivot.desk import body_actions
from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.actions import actions
from zesty_pivot.desk.contained import tried
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.table.style_table import StyleTable


class QtActions:
    """Every action once, by its id."""

    def __init__(self, desk: Desk, bar: QMenuBar | None, parent: QWidget) -> None:
        self._desk, self._parent = desk, parent
        self.table: StyleTable | None = None  # what is in the hand there is let go before anything else is done
        self.known: dict[str, tuple[Action, QAction]] = {}
        menus: dict[str, QMenu | None] = {}
        for action in actions():
            found = QAction(action.title, parent)
            if action.shortcut:
                found.setShortcut(QKeySequence(action.shortcut))
            keys = f" ({action.shortcut})" if action.shortcut else ""
            found.setToolTip(f"{action.tip or action.title.rstrip('…')}{keys}")
            found.triggered.connect(lambda _checked=False, action=action: self._do(action))
            if bar is not None:
                if action.menu not in menus:
                    menus[action.menu] = self._menu(bar, action.menu)
                menu = menus[action.menu]
                if menu is not None:
                    menu.addAction(found)
            self.known[action.id] = (action, found)
        self.restyle()

    def _menu(self, bar: QMenuBar, title: str) -> QMenu | None:
        menu = bar.addMenu(title)
        if menu is not None:
            menu.aboutToShow.connect(partial(self.ask, title))
            menu.aboutToHide.connect(self.refresh)
        return menu

    def _do(self, action: Action) -> None:
        """Runs an action; what is in the hand is let go first, unless only the view changes."""
        if action.menu != "View" and self.table is not None:
            self.table.control.let_go()
        action.run(self._desk)

    def titles(self) -> dict[str, str]:
        """What each action is called, by its id."""
        return {id: action.title for id, (action, _found) in self.known.items()}

    def of(self, id: str) -> QAction:
        """The Qt action of an id."""
        return self.known[id][1]

    def run(self, id: str) -> None:
        """Runs an action by its id, if it can be done now."""
        self.of(id).trigger()

    def menu_of(self, ids: tuple[str, ...]) -> QMenu:
        """A menu of some actions."""
        menu = QMenu(self._parent)
        menu.addActions([self.of(id) for id in ids])
        menu.aboutToHide.connect(menu.deleteLater)
        return menu

    def ask(self, menu: str = "") -> None:
        """Shows which of a menu (of all where none is given) can be done now, those that are asked late as well."""
        for action, found in self.known.values():
            if menu in ("", action.menu):
                found.setEnabled(self._can(action))

    def refresh(self) -> None:
        """Shows which can be done now, and what undo and redo would do."""
        for action, found in self.known.values():
            found.setEnabled(action.is_late or self._can(action))
        for id, title in (("edit.undo", body_actions.undone(self._desk)), ("edit.redo", body_actions.redone(self._desk))):
            self.of(id).setText(f"{id.removeprefix('edit.').capitalize()} {title}".strip())

    def _can(self, action: Action) -> bool:
        return tried(lambda: action.enabled(self._desk), False, f"whether “{action.title}” can be done")

    def restyle(self) -> None:
        """Draws the icons, in the colours of the theme."""
        for action, found in self.known.values():
            if action.icon:
                found.setIcon(icon(action.icon))
