"""The cloths of the style on the table, and the lay on the one that is seen."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.kept_lay import changed_since, cloth_of, cut_for, keep, laid, laid_from, stamp
from zesty_pivot.core.formats.lay_models import WIDTHS, LayFile
from zesty_pivot.core.formats.matching import matchable
from zesty_pivot.core.nest.lay import LayPlan, OnCloth
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import replace
from zesty_pivot.desk.beside import Beside
from zesty_pivot.desk.model import DeskModel

COMPARED_S = 1  # seconds of search for each width that is compared


class Cloths(QObject):
    """Everything that is decided stands in the style; a search goes on beside it."""

    changed = pyqtSignal()
    dragged = pyqtSignal()  # a piece is elsewhere while it is dragged; nothing else is otherwise

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.search = Beside("laying the pieces on the cloth")
        self._number = 0
        self.plan: LayPlan | None = None
        self.fault = ""
        self.matchable: tuple[str, ...] = ()  # the notches that stripes can meet at, by their ids; none without stripes
        self.chosen = ""  # the key of a piece
        self.compared: list[tuple[str, float, float]] = []  # width, length in mm, cost
        self._compares: tuple[LayFile, ...] = ()  # what is still to be compared, the first of them searched for
        self._found: LayPlan | None = None  # of the search that goes on
        self._one_by_one: tuple[str, LayPlan | None] = ("", None)  # the last lay that nobody asked for
        self._is_asked = False  # whether somebody asked for that search
        self._looked_at: tuple[Derived, str] | None = None  # the style and the lay that are shown
        self.search.improved.connect(self._improve)
        self.search.ended.connect(self._end)

    # What is so.

    @property
    def lays(self) -> tuple[LayFile, ...]:
        """The lays of the style; one on cloth of the usual width where it has none yet."""
        return self._model.style.lays or (LayFile(),)

    @property
    def number(self) -> int:
        """Which of them is seen; the last where an undo has taken it away."""
        return min(self._number, len(self.lays) - 1)

    @property
    def lay(self) -> LayFile:
        """The lay that is seen."""
        return self.lays[self.number]

    @property
    def lay_of_now(self) -> LayPlan | None:
        """The lay that is seen, where it is of the pattern as it is now."""
        return self.plan if self._looked_at is not None and self._looked_at[0] is self._model.derived else None

    @property
    def changed_since(self) -> str:
        """Which pieces are no longer what they were when the lay was made, in words."""
        try:
            return ", ".join(words(name) for name in changed_since(self._model.derived, self.lay))
        except ZestyError:
            return ""

    def place(self, key: str) -> OnCloth | None:
        """Where a piece lies."""
        if self.plan is None:
            return None
        return next((place for place in self.plan.places if place.key == key), None)

    # Following the style.

    def look(self) -> None:
        """Shows the lay as it is kept; one by one where nothing is kept, or it no longer fits."""
        before, now = self._looked_at, (self._model.derived, self.lay.model_dump_json())
        if before is not None and before[0] is now[0] and before[1] == now[1]:
            self.changed.emit()
            return
        self._stop()
        self._looked_at = now
        self.fault, self.plan, self.compared, self.matchable = "", None, [], ()
        try:
            cloth = cloth_of(self.lay, self._model.style.scope())
            if cloth.repeat[0]:
                self.matchable = matchable(self._model.derived, cut_for(self._model.derived, self.lay))
            self.plan = laid_from(self._model.derived, self.lay)
            if self.plan is None:
                key, plan = self._one_by_one
                self.plan = plan if key == self._key() else None
            if self.plan is None:
                self._begin(self.lay, 0)
        except ZestyError as fault:
            self.fault = str(fault)
        self.changed.emit()

    def _key(self) -> str:
        """What a lay one by one depends on: the cloth, and the pieces as they are."""
        stamps = [stamp(piece) for piece in cut_for(self._model.derived, self.lay)]
        return self.lay.model_copy(update={"places": (), "stamps": {}}).model_dump_json() + "".join(stamps)

    def choose(self, number: int) -> None:
        """Another lay."""
        self._number, self.chosen = number, ""
        self.look()

    # Changing.

    def add(self, cloth: str) -> None:
        """Another lay, on another cloth."""
        self._put((*self.lays, LayFile(cloth=cloth)), "another cloth")
        self.choose(len(self.lays) - 1)

    def remove(self) -> None:
        """Takes the lay that is seen away; the last one is laid afresh."""
        left = tuple(one for n, one in enumerate(self.lays) if n != self.number)
        self._put(left, "a cloth taken away")
        self.choose(max(0, self.number - 1))

    def change(self, title: str, **told: object) -> None:
        """Another cloth or another way to lay: what lay on it is taken up. What is none is said, and the cloth stays."""
        lay = self.lay.model_copy(update={**told, "places": (), "stamps": {}})
        try:
            cloth_of(lay, self._model.style.scope())
        except ZestyError as fault:
            self._model.say(str(fault), fault=True)
            self.changed.emit()
            return
        self._keep(lay, title)
        self.look()

    def _keep(self, lay: LayFile, title: str) -> None:
        self._put(tuple(lay if n == self.number else one for n, one in enumerate(self.lays)), title)

    def _put(self, lays: tuple[LayFile, ...], title: str) -> None:
        self._model.edit(self._model.style.model_copy(update={"lays": lays}), title)

    # Laying.

    def find(self) -> None:
        """Looks for a shorter lay, or stops and keeps what was found."""
        if self.search.is_at_work and self.plan is not None:
            self._stop()
            self._keep_found()
        else:
            self._begin(self.lay, None)
            self._is_asked = True
        self.changed.emit()

    def compare(self) -> None:
        """The same pieces on cloth of the usual widths, one after the other."""
        self.compared = []
        plain = self.lay.model_copy(update={"places": (), "stamps": {}})
        self._compare(tuple(plain.model_copy(update={"width": width}) for width in WIDTHS))

    def _compare(self, lays: tuple[LayFile, ...]) -> None:
        if lays:
            self._begin(lays[0], COMPARED_S)
        elif self.plan is None and not self.fault:
            self._begin(self.lay, 0)  # comparing has stopped the lay that was to be shown
        self._compares = lays
        self.changed.emit()

    def _begin(self, lay: LayFile, seconds: int | None) -> None:
        derived = self._model.derived
        self._stop()
        self._found, self._is_asked = None, False
        self.search.begin(lay, lambda stop: _worked_out(laid(derived, lay, seconds=seconds, stop=stop)))

    def _stop(self) -> None:
        self.search.stop()
        self._compares = ()

    def _improve(self, _asked: LayFile, plan: LayPlan) -> None:
        self._found = plan
        if not self._compares:
            if self.plan is None or self.plan.clashes or plan.length < self.plan.length:
                self.plan = plan
            self.changed.emit()

    def _end(self, asked: LayFile, fault: str) -> None:
        if self._compares:
            found = None if fault else self._found
            self.compared.append((str(asked.width), *((found.bought, found.cost) if found is not None else (0.0, 0.0))))
            self._compare(self._compares[1:])
            return
        if fault:
            self.fault = fault
        else:
            if not self._is_asked and self.plan is not None:
                self._one_by_one = self._key(), self.plan
            self._keep_found()
        self.changed.emit()

    def _keep_found(self) -> None:
        """Keeps the lay that is shown, where a search found it: nothing is kept of pieces only laid one by one."""
        if self._is_asked and self.plan is not None and self.plan is self._found:
            self._keep_plan(self.plan, "the lay")

    def _keep_plan(self, plan: LayPlan, title: str) -> None:
        """Keeps a lay as it is shown: it need not be looked at again, unless the pattern has become another meanwhile."""
        is_of_now = self._looked_at is not None and self._looked_at[0] is self._model.derived
        lay = keep(self.lay, plan)
        if lay != self.lay:
            self._keep(lay, title)
        if is_of_now:
            self._looked_at = (self._model.derived, self.lay.model_dump_json())

    # By hand.

    def put(self, key: str, x: float, y: float) -> None:
        """A piece moved to another place of the cloth (its frame's origin, mm)."""
        self._replace(key, "a piece moved on the cloth", x=x, y=y)

    def shown_at(self, key: str, x: float, y: float) -> None:
        """A piece that is being dragged: seen there, not kept."""
        if self.plan is not None:
            self.plan = replace(self.plan, places=self._with(key, x=x, y=y))
            self.dragged.emit()

    def nudge(self, dx: float, dy: float) -> None:
        """Moves the chosen piece."""
        place = self.place(self.chosen)
        if place is not None:
            self.put(place.key, place.x + dx, place.y + dy)

    def turn(self) -> None:
        """Turns the chosen piece by the half round, about its middle."""
        place = self.place(self.chosen)
        if place is None or self.plan is None:
            return
        number = next(n for n, piece in enumerate(self.plan.pieces) if piece.key == place.key)
        if self.plan.cloth.nap == "one_way":
            self._model.say("The cloth has a nap: pieces lie one way up.", fault=True)
            return
        if self.plan.pieces[number].is_at_fold:
            self._model.say("It lies on the fold and cannot be turned.", fault=True)
            return
        left, low, right, high = self.plan.shapes[number].bounds
        self._replace(
            place.key,
            "a piece turned on the cloth",
            turn=(place.turn + 180.0) % 360.0,
            x=left + right - place.x,
            y=low + high - place.y,
        )

    def lock(self) -> None:
        """Keeps the chosen piece where it lies, whatever is searched for; or lets it go."""
        place = self.place(self.chosen)
        if place is not None:
            self._replace(
                place.key, "a piece locked" if not place.is_locked else "a piece let go", is_locked=not place.is_locked
            )

    def _replace(self, key: str, title: str, **told: Any) -> None:
        if self.plan is None:
            return
        self._stop()
        self.plan = replace(self.plan, places=self._with(key, **told))
        self._keep_plan(self.plan, title)
        self.changed.emit()

    def _with(self, key: str, **told: Any) -> tuple[OnCloth, ...]:
        assert self.plan is not None
        return tuple(replace(place, **told) if place.key == key else place for place in self.plan.places)

    def close(self) -> None:
        """Ends what goes on beside."""
        self.search.close()


def _worked_out(plans: Iterator[LayPlan]) -> Iterator[LayPlan]:
    """Plans with all that is drawn of them worked out where they were found."""
    for plan in plans:
        plan.shapes, plan.clashes, plan.laid  # noqa: B018
        yield plan
