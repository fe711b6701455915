"""The drawer at the left of the table: families of steps as doors, their steps as tiles, galleries, and a search."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError
from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLineEdit,
    QScrollArea,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.files import faults
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.drawer.answers import Answered
from zesty_pivot.desk.drawer.designs import Designs
from zesty_pivot.desk.drawer.door_page import DoorPage
from zesty_pivot.desk.drawer.doors import DOORS
from zesty_pivot.desk.drawer.own_pieces import OwnPieces
from zesty_pivot.desk.drawer.search import Found, search, step_of
from zesty_pivot.desk.drawer.tiles import Tiles
from zesty_pivot.desk.forms.base import StepForm
from zesty_pivot.desk.forms.line_choices import chosen
from zesty_pivot.desk.forms.number_line import NoteLine, parted, written
from zesty_pivot.desk.forms.registry import all_forms
from zesty_pivot.desk.galleries.registry import all_galleries
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.recipe_pieces import RecipePieces
from zesty_pivot.desk.trying import first_that_works

WIDE, NARROW = 216, 60
RECENT = 5  # steps added last that stand on top
HOME = "doors"


def _changed(step: Step, values: dict[str, Any]) -> Step:
    """A step with other parameters. Raises ValidationError for what it cannot have."""
    value = {**registry.dump(step), **values}
    return registry.read({key: part for key, part in value.items() if part is not None})


class Drawer(QWidget):
    """What page is open is its own; what can be added and what is chosen the model's."""

    begun = pyqtSignal()  # a step has begun: the hand goes into its fields

    def __init__(
        self, model: DeskModel, keeper: Keeper, run: Callable[[str], None], titles: Callable[[], dict[str, str]]
    ) -> None:
        super().__init__()
        self.setObjectName("left")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._model, self._keeper, self._run, self._titles = model, keeper, run, titles
        self.page = HOME
        self._is_quiet = False  # the search is emptied for another reason than that the user did
        self.is_narrow = False
        self._step: tuple[str, int | None, int] = ("", None, 0)  # the chosen step when its gallery was last opened
        self.search = QLineEdit()
        self.search.setPlaceholderText("Find a step")
        self.search.setAccessibleName("Find a step")
        self.search.setClearButtonEnabled(True)
        self.back = QToolButton()
        self.back.setIcon(icon("chevron-left"))
        self.back.setAccessibleName("Back to the families")
        self.back.setToolTip("Back to the families (Esc)")
        self.title = label("Add a step", "heading")
        self.told = label("", "quiet")
        self.told.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.told.setMinimumHeight(4 * self.told.fontMetrics().lineSpacing())
        self.stack = QStackedWidget()
        self.doors = DoorPage(self.open_door, self.add)
        self.tiles: dict[str, Tiles] = {}
        self._galleries: dict[str, Designs] = {}
        self._forms: dict[str, StepForm] = {}  # for the numbers behind a name
        self.answers = Answered(self.take, self.take_as_variant)
        self._pages: dict[str, QWidget] = {}
        self._put_together()
        self.search.textChanged.connect(self._search)
        self.search.installEventFilter(self)
        self.back.clicked.connect(self.go_back)
        model.pace.followed.connect(self.refresh)
        model.chosen_changed.connect(self.refresh)
        keeper.settings_changed.connect(self._show_recent)
        self._show_recent()
        self.open(HOME)

    def _put_together(self) -> None:
        head = QHBoxLayout()
        head.setSpacing(4)
        head.addWidget(self.back)
        head.addWidget(self.title, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 10, 8, 8)
        column.setSpacing(6)
        column.addWidget(self.search)
        column.addLayout(head)
        column.addWidget(self.stack, 1)
        column.addWidget(self.told)
        self._add_page(HOME, self.doors, scrolls=False)
        self._add_page("answers", self.answers)

    def _add_page(self, name: str, inside: QWidget, *, scrolls: bool = True) -> None:
        page = inside
        if scrolls:
            area = QScrollArea()
            inside.setObjectName("left")
            area.setWidget(inside)
            area.setWidgetResizable(True)
            area.setFrameShape(QFrame.Shape.NoFrame)
            area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
            area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            page = area
        self._pages[name] = page
        self.stack.addWidget(page)

    # Pages.

    def open(self, page: str) -> None:
        """Shows a page: the doors, a door's tiles (its id), a gallery (`gallery:` and the kind of step), or the answers."""
        self.page = page
        self.stack.setCurrentWidget(self._pages[page])
        self.back.setVisible(page != HOME)
        titles = {HOME: "Add a step", "answers": "Found", "own": "Own pieces", **{door.id: door.title for door in DOORS}}
        kind = page.partition(":")[2]
        self.title.setText(all_galleries()[kind].title if kind else titles[page])
        self.told.setText("")
        self.told.setVisible(page not in (HOME, "answers") and not kind)
        self._fit()

    def show_own(self, pieces: RecipePieces) -> None:
        """The user's own pieces of recipes behind a door of their own, where there are some."""
        self.own = OwnPieces(pieces)
        self._add_page("own", self.own)
        self.own.refilled.connect(self._show_own_door)
        self.doors.own.clicked.connect(lambda: self.open("own"))
        self._show_own_door()

    def _show_own_door(self) -> None:
        self.doors.show_own(self.own.count)
        if self.page == "own" and not self.own.count:
            self.open(HOME)

    def open_door(self, id: str) -> None:
        """The tiles of a family."""
        if id not in self.tiles:
            door = next(door for door in DOORS if door.id == id)
            self.tiles[id] = Tiles(self._model, door, self.add, self.told.setText)
            self._add_page(id, self.tiles[id])
        self.open(id)
        self.tiles[id].refresh()

    def gallery(self, do: str) -> Designs:
        """The gallery of a kind of step that has one."""
        if do not in self._galleries:
            self._galleries[do] = Designs(self._model, all_galleries()[do])
            self._add_page(f"gallery:{do}", self._galleries[do])
        return self._galleries[do]

    def go_back(self) -> None:
        """The doors again."""
        self.search.clear()
        self.open(HOME)

    @property
    def looking_at(self) -> bool:
        """Whether something of a gallery lies on the table to be looked at."""
        return any(gallery.looking_at for gallery in self._galleries.values())

    @contained("the drawer")
    def refresh(self) -> None:
        """Follows the model: the gallery of a step opens when it is added or chosen, and closes with it."""
        if self._model.is_previewing:
            return
        at = self._model.step
        steps = self._model.style.steps
        do = steps[at].do if at is not None and at < len(steps) else ""
        step = (do, at, self._model.opened)
        if do in all_galleries() and at is not None:
            before = self._model.derived.derivation.states[at].pattern
            self.gallery(do).show_step(at, steps[at], before)
            if step != self._step:
                self._forget_search()
                self.open(f"gallery:{do}")
        elif self.page.startswith("gallery:"):
            self.open(HOME)
        self._step = step
        if self.page in self.tiles:
            self.tiles[self.page].refresh()

    # Adding.

    def add(self, do: str) -> None:
        """Begins a step of a kind; why it cannot be is told."""
        self._run(f"add.{do}")

    def note(self, do: str) -> None:
        """Keeps in mind that a step of a kind was added."""
        last = (do, *(other for other in self._keeper.settings.last_steps if other != do))[:RECENT]
        if last != self._keeper.settings.last_steps:
            self._keeper.change(lambda settings: settings.model_copy(update={"last_steps": last}))

    def _show_recent(self) -> None:
        self.doors.show_recent(self._keeper.settings.last_steps)

    def _search(self, text: str) -> None:
        if self._is_quiet:
            return
        if not text.strip():
            if self.page == "answers":
                self.open(HOME)
            return
        line = parted(text)
        found = search(line.words, self._titles())
        self.answers.show_found(found)
        self.open("answers")
        self.answers.note.setText("")
        for first in found[:1]:
            if first.do:
                self._tell(first, line)
        self.answers.note.setVisible(bool(self.answers.note.text()))

    def begin_search(self) -> None:
        """The keyboard into the search."""
        self.search.setVisible(True)
        if self.is_narrow:
            self.setFixedWidth(WIDE)
        self.search.setFocus(Qt.FocusReason.ShortcutFocusReason)
        self.search.selectAll()

    def _forget_search(self) -> None:
        """An empty search, without going home for it."""
        self._is_quiet = True
        self.search.clear()
        self._is_quiet = False

    def take(self, found: Found) -> None:
        """Does what was found: a command, or a step that begins as it was asked for, with the numbers behind its name."""
        line = parted(self.search.text())
        self.go_back()
        if found.action:
            self._run(found.action)
        elif not found.design and line.is_bare:
            self.add(found.do)
        else:
            self._begin(found, line)

    def take_as_variant(self, found: Found) -> None:
        """The same in another variant, in place of the chosen step; over the bare block, and a command, as `take` does."""
        if not found.do or not self._model.style.steps:
            self.take(found)
            return
        line, at = parted(self.search.text()), self._model.state_index - 1
        self.go_back()
        self._model.choose_step(max(at - 1, -1))  # the table as it was before that step
        self._begin(found, line, instead=at)

    def _begin(self, found: Found, line: NoteLine, instead: int | None = None) -> None:
        """Adds what was found, or puts it where a step stands (-1 for the block) in another variant."""
        value: dict[str, Any] | None = all_forms()[found.do].first(self._model)
        trial = first_that_works(self._model, step_of(found, value) if value is not None else ())
        step, fault = trial.step, trial.fault
        if step is not None and not line.is_bare:
            step, fault = self._as_written(step, line)
        if step is None:
            if instead is not None:
                self._model.choose_step(instead)
            self._model.say(f"{found.title}: {fault}", fault=True)
            return
        self._model.set_view("style")
        if instead is not None and not self._model.variants.begin(instead):
            return
        if instead is None or instead < 0:
            self._model.recipe.add_step(step)
        else:
            self._model.recipe.replace_step(instead, step)
        self.note(found.do)
        self.begun.emit()

    def _as_written(self, step: Step, line: NoteLine) -> tuple[Step | None, str]:
        """A step with what is written behind its name in its fields, and words for it; else none, and what is wrong."""
        if step.do not in self._forms:
            self._forms[step.do] = form = all_forms()[step.do].make(self._model)
            form.setParent(self)
            form.hide()
        form = self._forms[step.do]
        told: list[str] = []
        taken: set[str] = set()
        try:
            for asked in line.choices:
                values, words = chosen(form, step, self._model.pattern, asked, taken)
                step, told = _changed(step, values), [*told, words]
            if line.numbers:
                values, words = written(form, step, self._model.pattern, line.numbers, self._model.style.units)
                step, told = _changed(step, values), [words, *told]
            return step, ", ".join(told)
        except ZestyError as wrong:
            return None, f"{wrong.what}. {wrong.advice}".removesuffix(" ")
        except ValidationError as wrong:
            return None, faults(wrong)

    def _tell(self, first: Found, line: NoteLine) -> None:
        """Under the answers: what Enter does with the first of them, and what the numbers are."""
        value: dict[str, Any] | None = None if line.is_bare else all_forms()[first.do].first(self._model)
        if value is None:
            self.answers.note.setText("Enter adds it, Shift+Enter in another variant. Numbers may follow: queen anne 3 7 4.")
        else:
            self.answers.note.setText(self._as_written(registry.read(step_of(first, value)[0]), line)[1])

    def restyle(self) -> None:
        """What is drawn once, in the colours of another theme."""
        grids = [*(tiles.grid for tiles in self.tiles.values()), *(gallery.grid for gallery in self._galleries.values())]
        for grid in grids:
            grid.restyle()
        for door in DOORS:
            self.doors.buttons[door.id].setIcon(icon(door.picture))
        self.back.setIcon(icon("chevron-left"))
        self._show_recent()

    # The keyboard, and narrow windows.

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """In the search Enter takes the first answer, Shift+Enter as another variant, Down goes to the answers."""
        if watched is self.search and isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            key = Qt.Key(event.key())
            if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.answers.found and self.page == "answers":
                self.answers.take(0, event.modifiers())
                return True
            if key == Qt.Key.Key_Down and self.page == "answers":
                self.answers.enter()
                return True
        return super().eventFilter(watched, event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape and self.page != HOME:
            self.go_back()
            self.doors.setFocus()
        else:
            super().keyPressEvent(event)

    def set_narrow(self, narrow: bool) -> None:
        """Doors without words where the window is narrow; an open one has its width all the same."""
        self.is_narrow = narrow
        self._fit()

    def _fit(self) -> None:
        is_slim = self.is_narrow and self.page == HOME
        self.setFixedWidth(NARROW if is_slim else WIDE)
        for widget in (self.search, self.title):
            widget.setVisible(not is_slim)
        self.doors.set_slim(is_slim)
