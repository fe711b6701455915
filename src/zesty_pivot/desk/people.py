"""The people of the measure view: who was measured when, kept in the user's data folder; and the body of the style itself."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import field
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import FormulaError, ZestyError
from zesty_pivot.core.formats import files, measures_csv, measures_file
from zesty_pivot.core.formats.measures_file import Measures, Person
from zesty_pivot.core.formats.redraft import with_measures
from zesty_pivot.core.measure import BY_NAME, MEASUREMENTS
from zesty_pivot.core.measure.estimates import Estimate, estimates
from zesty_pivot.core.measure.plausible import Oddity, oddities
from zesty_pivot.core.quantity import MM_PER, Scope, Unit, length_mm, with_unit
from zesty_pivot.core.quantity.units import inch_fraction
from zesty_pivot.core.record import record
from zesty_pivot.data.demo import demo_people
from zesty_pivot.data.methods import method_of
from zesty_pivot.desk.history import History
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.own_file import own_or_shipped
from zesty_pivot.desk.settings import methods_folder, people_file

STYLE = -1  # the body of the style that is open, before the people


@record
class BodyShown:
    """One body as the views show it: what was written, what it comes to in mm, what is wrong, what may stand for the rest."""

    title: str
    name: str
    texts: Mapping[str, str]
    lengths: Mapping[str, float]
    faults: Mapping[str, FormulaError] = field(default_factory=dict)
    is_child: bool = False
    is_style: bool = False

    @property
    def estimates(self) -> dict[str, Estimate]:
        """What may stand for the measurements that are missing."""
        return estimates(self.lengths, is_child=self.is_child) if self.lengths else {}

    def oddities(self, unit: Unit) -> list[Oddity]:
        """What is odd about it, told in a unit."""
        return oddities(self.lengths, unit, is_child=self.is_child)


class People(QObject):
    """The people, with a history of their own, and which body is chosen. Every change is written down at once."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.history: History[Measures] = History([self._read()])
        self.chosen = STYLE
        model.document_changed.connect(self.changed)

    def _read(self) -> Measures:
        def say(text: str) -> None:
            self._model.say(text, fault=True)

        return own_or_shipped(people_file(), measures_file.read_all, demo_people, say, "The people begin afresh")

    @property
    def unit(self) -> Unit:
        """The unit of a number without one: the style's."""
        return self._model.style.units

    @property
    def all(self) -> tuple[Person, ...]:
        """Everybody, in the order of the file."""
        return self.history.value.people

    @property
    def person(self) -> Person | None:
        """The chosen person, or None for the style's body."""
        return self.all[self.chosen] if 0 <= self.chosen < len(self.all) else None

    def choose(self, index: int) -> None:
        """Another person, or STYLE."""
        if index != self.chosen and STYLE <= index < len(self.all):
            self.chosen = index
            self.changed.emit()

    def body(self, index: int | None = None) -> BodyShown:
        """The chosen body, or another one."""
        at = self.chosen if index is None else index
        if not 0 <= at < len(self.all):
            return self._style_body()
        person = self.all[at]
        lengths, faults = person.worked(self.history.value.units)
        texts = {name: str(text) for name, text in person.measures.items()}
        return BodyShown(title_of(person), person.name, texts, lengths, faults, person.is_child)

    def _style_body(self) -> BodyShown:
        style = self._model.style
        lengths = style.body()
        texts = {name: in_words(mm, self.unit) for name, mm in lengths.items()}
        texts |= {name: str(text) for name, text in style.measures.items() if name in MEASUREMENTS}
        is_child = style.block.method == "child"
        return BodyShown(f"This style: {style.name}", style.block.name, texts, lengths, is_child=is_child, is_style=True)

    # What can be changed.

    def set_measure(self, name: str, text: str) -> None:
        """What was measured, as it was typed; nothing takes it out. A fault is said and nothing is changed."""
        person = self.person
        try:
            written = str(with_unit(text, self.unit)) if text else ""
        except ZestyError as fault:
            self._model.say(f"{MEASUREMENTS[name]}: {fault}", fault=True)
            return
        if person is None:
            self._set_of_style(name, written)
            return
        measures = {known: held for known, held in person.measures.items() if known != name}
        if written:
            measures[name] = written
        self._replace(person.model_copy(update={"measures": measures}), f"measure {BY_NAME[name].short}")

    def _set_of_style(self, name: str, text: str) -> None:
        """Another measurement of the style's body: a drafted block follows it through the whole style."""
        style = self._model.style
        lengths = {known: mm for known, mm in style.scope().measures.items() if known != name}
        try:
            if text:
                lengths[name] = length_mm(text, Scope(self.unit, lengths))
            if style.block.method is None:
                measures = {known: held for known, held in style.measures.items() if known != name}
                made = style.model_copy(update={"measures": {**measures, **({name: text} if text else {})}})
            else:
                made = with_measures(style, lengths, method_of(style.block.method, methods_folder()))
        except ZestyError as fault:
            self._model.say(f"Left as it was: {fault}", fault=True)
            self.changed.emit()
            return
        self._model.edit(made, f"{BY_NAME[name].short} of the body")

    def add(self, person: Person) -> None:
        """Another person, or the same one at another date, who is chosen then."""
        added = _named_apart(self.all, [person])
        self._put((*self.all, *added), f"add {added[0].name}", len(self.all))

    def remove(self) -> None:
        """Takes the chosen person out."""
        person = self.person
        if person is not None:
            rest = tuple(each for each in self.all if each is not person)
            self._put(rest, f"take out {title_of(person)}", min(self.chosen, len(rest) - 1))

    def set_facts(self, **facts: object) -> None:
        """Another name, date, note, or whether it is a child. A fault is said."""
        person = self.person
        if person is None:
            return
        try:
            made = Person.model_validate({**dict(person), **facts})
            Measures.model_validate({**dict(self.history.value), "people": self._with(made)})
        except ValueError as fault:
            said = str(fault.errors()[0]["msg"]).removeprefix("Value error, ") if hasattr(fault, "errors") else str(fault)
            self._model.say(f"Left as it was: {said}.", fault=True)
            self.changed.emit()
            return
        if made != person:
            self._replace(made, f"the facts about {title_of(person)}")

    def take_in(self, path: Path) -> list[str]:
        """People of a .zmeas or .csv file, added to those that are there; what was left out, a line each. Raises FileError."""
        found, told = measures_csv.read_people(path, self.unit)
        added = _named_apart(self.all, [_with_units(person, found.units) for person in found.people])
        if added:
            self._put((*self.all, *added), f"bring in {path.name}", len(self.all) + len(added) - 1)
        return told

    def write_to(self, path: Path) -> None:
        """Everybody as a .zmeas or .csv file. Raises FileError."""
        book = self.history.value
        files.write_atomic(
            path, measures_csv.write(book, self.unit) if path.suffix.lower() == ".csv" else measures_file.dump(book)
        )

    def undo(self, by: int) -> None:
        """Takes back the last change of the people (-1), or does it again (1)."""
        title = self.history.undo_title if by < 0 else self.history.redo_title
        if self.history.step(by):
            self._kept(min(self.chosen, len(self.all) - 1))
            self._model.say(f"{'Undone' if by < 0 else 'Done again'}: {title}")

    def _with(self, person: Person) -> tuple[Person, ...]:
        return tuple(person if index == self.chosen else each for index, each in enumerate(self.all))

    def _replace(self, person: Person, title: str) -> None:
        self._put(self._with(person), title)

    def _put(self, people: tuple[Person, ...], title: str, chosen: int | None = None) -> None:
        self.history.push(self.history.value.model_copy(update={"people": people}), title)
        self._kept(self.chosen if chosen is None else chosen)

    def _kept(self, chosen: int) -> None:
        """Writes the people down, and shows them."""
        self.chosen = chosen
        try:
            files.write_atomic(people_file(), measures_file.dump(self.history.value))
        except ZestyError as fault:
            self._model.say(str(fault), fault=True)
        self.changed.emit()


def title_of(person: Person) -> str:
    """A person as listed: name and date."""
    return ", ".join(filter(None, (person.name or "Somebody", person.date)))


def in_words(mm: float, unit: Unit) -> str:
    """A length as one would type it: `96.5 cm`, `38 1/2 in`; exact where the unit's usual steps are not."""
    sixteenths = mm / MM_PER["in"] * 16
    if unit == "in" and abs(sixteenths - round(sixteenths)) < 1e-6:
        return f"{inch_fraction(mm)} in"
    return f"{mm / MM_PER[unit]:.4f}".rstrip("0").rstrip(".") + f" {unit}"


def _named_apart(there: Sequence[Person], others: Sequence[Person]) -> list[Person]:
    """Other people with names that keep them apart from those who are there, and from each other."""
    taken = {(each.name, each.date) for each in there}
    found: list[Person] = []
    for person in others:
        name, number = person.name, 2
        while (name, person.date) in taken:
            name, number = f"{person.name or 'Somebody'} {number}", number + 1
        taken.add((name, person.date))
        found.append(person.model_copy(update={"name": name}))
    return found


def _with_units(person: Person, unit: Unit) -> Person:
    """A person of another file whose bare numbers have that file's unit written to them."""
    measures = {name: with_unit(text, unit) for name, text in person.measures.items()}
    return person.model_copy(update={"measures": measures})
