"""The style in its sizes, and on people beside them: which, where their blocks come from, and what came of each.

The chosen one is worked out with every change of the style, at once; the others in processes, their findings last.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.sizes.crew import Crew, SizeFound
from zesty_pivot.core.sizes.nested import SeamGrowth, growth, points_of
from zesty_pivot.core.sizes.rules import DartRule
from zesty_pivot.core.sizes.sized import Sized, Sizer, Wearer
from zesty_pivot.core.sizes.under import Under, Way, blocks_in
from zesty_pivot.core.sizes.verdict import Verdict
from zesty_pivot.data.methods import method_of
from zesty_pivot.desk.beside import Beside, rest_timer
from zesty_pivot.desk.contained import contained, tried
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.settings import methods_folder
from zesty_pivot.desk.sizes.charts import Charts
from zesty_pivot.desk.sizes.who import Who
from zesty_pivot.desk.table.shapes import shapes_of

REST_MS = 60  # after an edit, until the others are worked out: what was edited and its findings come first
STATIONS = {"chart": "Chart", "nested": "Nested", "growth": "Growth", "grading": "Grading", "write": "Write all"}


class Sizes(QObject):
    """What is asked stands here; what is found of it is kept as long as the style and the bodies are the same."""

    changed = pyqtSignal()
    moved = pyqtSignal()  # the chosen one alone
    rested = pyqtSignal()  # what can be done may be otherwise

    def __init__(self, model: DeskModel, who: Who, charts: Charts) -> None:
        super().__init__()
        self._model, self.who, self.charts = model, who, charts
        self.way: Way | None = None
        self.darts: DartRule = "grow"
        self.point, self.station = "neck_point", "nested"
        self.own_blocks: Mapping[str, BlockFile] = {}
        self.chosen = ""  # the title of the one that is looked at
        self.fault = ""
        self.work = Beside("working out the sizes")
        self._found: dict[Wearer, Sized] = {}
        self._verdicts: dict[Wearer, Verdict] = {}
        self._of: Style | None = None  # the style that was worked out, and the way to its blocks
        self._way: Under | None = None
        self._followed: Style | None = None  # the style that the chosen one was worked out for
        self._ways: tuple[object, Under] | None = None
        self._mine, self._crew = Sizer(), Crew()
        self._grown: Kept[tuple[SeamGrowth, ...]] = Kept(2)
        self._rest = rest_timer(self, REST_MS, self.look)
        self.work.improved.connect(self._improve)
        self.work.ended.connect(self._end)
        model.changed.connect(self._at_once)
        model.pace.followed.connect(self.follow)
        charts.changed.connect(self.follow)

    # What came of it.

    @property
    def sizes(self) -> tuple[Sized, ...]:
        """All that is known by now, in their order."""
        return tuple(self._found[one] for one in self.who.shown if one in self._found)

    def sized(self, title: str) -> Sized | None:
        """One by its title, where it is known."""
        wearer = self.who.one(title)
        return None if wearer is None else self._found.get(wearer)

    def verdict(self, wearer: Wearer) -> Verdict | None:
        """What came of it, when its findings are known."""
        return self._verdicts.get(wearer)

    @property
    def note(self) -> str:
        """What is said where some are not shown."""
        shown, asked = len(self.who.shown), len(self.who.asked)
        return f"{shown} of {asked} are shown; more lines cannot be told apart. Write all takes all." if shown < asked else ""

    @property
    def done(self) -> float:
        """The share of the work that is done."""
        shown = self.who.shown
        return len([one for one in shown if one in self._verdicts]) / len(shown) if shown else 1.0

    @property
    def growth(self) -> tuple[SeamGrowth, ...]:
        """How the seams grow over those that are known."""
        found = self.sizes
        return self._grown.get(found, (), lambda: growth(found))

    @property
    def points(self) -> tuple[str, ...]:
        """What they may be laid on each other at."""
        return points_of(self.sizes)

    def under(self) -> Under:
        """Where the blocks come from; the same one as long as that is asked."""
        block = self._model.style.block
        key = (self.way, self.darts, block.method, id(self.own_blocks))
        if self._ways is None or self._ways[0] != key:
            method = method_of(block.method, methods_folder()) if block.method is not None else None
            self._ways = key, Under(self.way, method, self.darts, self.own_blocks)
        return self._ways[1]

    # Asking.

    def choose(self, title: str) -> None:
        """The one that is looked at."""
        if title != self.chosen:
            self.chosen = title
            self.changed.emit()
            self.rested.emit()

    def turn(self, station: str) -> None:
        """Another of STATIONS."""
        self.station = station
        self.changed.emit()
        self.rested.emit()

    def ask(self, **asked: object) -> None:
        """Another `way` to the blocks, rule for `darts`, or `point` that they are laid on."""
        for name, value in asked.items():
            setattr(self, name, value)
        self.look()

    def take_blocks(self, folder: Path) -> None:
        """The blocks of the sizes are the files of a folder. Raises FileError."""
        self.own_blocks = blocks_in(folder)
        self.ask(way="own")

    def make_in(self, titles: Sequence[str]) -> None:
        """The sizes that the style is made in; kept in its file, undone with its edits."""
        asked = tuple(one.title for one in self.who.fitting if one.title in titles)
        kept = tuple(title for title in self._model.style.sizes if title not in {one.title for one in self.who.fitting})
        if not asked:
            self._model.say("A style is made in one size at least.", fault=True)
            self.changed.emit()
            return
        self._model.edit(self._model.style.model_copy(update={"sizes": (*kept, *asked)}), "the sizes it is made in")

    def show_person(self, title: str, shown: bool) -> None:
        """Puts a person beside the sizes, or takes them away; a guest goes."""
        self.who.guests = tuple(one for one in self.who.guests if shown or one.title != title)
        self.who.people = self.who.people | {title} if shown else self.who.people - {title}
        self.look()

    def look_at(self, guest: Wearer) -> None:
        """Somebody who is neither in the chart nor among the people."""
        self.who.guests, self.chosen = (guest,), guest.title
        self.look()

    # Working.

    @property
    def _is_seen(self) -> bool:
        return self._model.view == "sizes"

    @contained("the sizes")
    def _at_once(self) -> None:
        """The chosen one with every move of a hand."""
        if not self._is_seen:
            return
        wearer = self.who.one(self.chosen)
        style = self._model.derived.style
        if wearer is None or style is self._followed:
            return
        self._followed = style
        if self._mine.knows(style, self.under(), wearer):
            self._found[wearer] = self._mine.sized(style, self.under(), wearer)
            self._verdicts.pop(wearer, None)
            self.moved.emit()

    def follow(self) -> None:
        """Something is otherwise: all are worked out again, when they are looked at, once what was edited is painted."""
        if self._is_seen:
            self._rest.start()

    @property
    def is_at_work(self) -> bool:
        """Whether there is something to come."""
        return self.work.is_at_work or self._rest.isActive()

    @contained("the sizes")
    def look(self) -> None:
        """Works out what is not known of the style as it is."""
        self._rest.stop()
        style, under, shown = self._model.derived.style, self.under(), self.who.shown
        if not any(one.title == self.chosen for one in shown):
            self.chosen = shown[self.who.base].title if shown else ""
        self.fault = "" if shown else "No size of the chart fits this style: bring in a chart, or choose people."
        asked = (id(style), id(under), shown, self._model.is_previewing)
        self._found = {one: found for one, found in self._found.items() if one in shown}
        self._verdicts = {one: verdict for one, verdict in self._verdicts.items() if one in self._found}
        self._mine.keep_only(shown)
        if style is not self._of or under is not self._way:
            self._verdicts.clear()
            self._of, self._way = style, under
        if self.work.asked != asked and any(one not in self._verdicts for one in shown):
            at_rest = not self._model.is_previewing
            self.work.begin(asked, lambda stop: _drawn(self._crew.work(style, under, shown, stop, is_checked=at_rest)))
        self.changed.emit()
        self.rested.emit()

    def close(self) -> None:
        """Stops, and waits for the thread and the processes."""
        self._rest.stop()
        self.work.close()
        self._crew.close()

    def _improve(self, _asked: object, found: object) -> None:
        if isinstance(found, SizeFound):
            wearer = found.sized.wearer
            self._found[wearer] = found.sized
            if found.verdict is not None:
                self._verdicts[wearer] = found.verdict
            if found.sized.derived is not None and self._of is not None and self._way is not None:
                self._mine.take(self._of, self._way, wearer, found.sized.derived.style.block)
            self.changed.emit()

    def _end(self, _asked: object, fault: str) -> None:
        self.fault = fault
        self.changed.emit()
        self.rested.emit()


def _drawn(found: Iterator[SizeFound]) -> Iterator[SizeFound]:
    """Those that are found, their lines drawn already: the interface would take as long, in one go."""
    for one in found:
        if one.verdict is None and one.sized.pattern is not None:
            tried(partial(_draw, one.sized.pattern), None, "drawing the sizes")
        yield one


def _draw(pattern: Pattern) -> None:
    for piece in pattern.with_extras:
        shapes_of(piece)
