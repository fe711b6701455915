"""The measurement file (.zmeas): people, each with a date and body measurements by name."""

from collections.abc import Mapping
from pathlib import Path as FilePath
from typing import Any, ClassVar, Literal

from pydantic import Field, field_validator

from zesty_pivot.core.errors import FileError, FormulaError, one_of
from zesty_pivot.core.formats import files, migrations
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.quantity import Scope, Unit, length_mm
from zesty_pivot.core.quantity.fields import Length, Model

KIND = "measures"
SUFFIX = ".zmeas"
MAX_PEOPLE = 2000


class Person(Model):
    """One person at one date: what was measured, as it was written down. A formula may hang on the other measurements."""

    lines: ClassVar[frozenset[str]] = frozenset({"notes"})

    name: str = Field(default="", max_length=200)
    date: str = Field(default="", max_length=40)
    is_child: bool = False
    measures: dict[str, Length] = Field(default_factory=dict, description="by name: " + ", ".join(MEASUREMENTS))
    notes: str = Field(default="", max_length=10_000)

    def lengths(self, units: Unit) -> dict[str, float]:
        """The measurements in mm; bare numbers are in `units`. Raises FormulaError for one that is no length, not greater than
        0, or hangs on itself."""
        found, faults = self.worked(units)
        if faults:
            raise next(iter(faults.values()))
        return found

    def worked(self, units: Unit) -> tuple[dict[str, float], dict[str, FormulaError]]:
        """The measurements in mm that can be worked out, and what is wrong with the others, by name."""
        found: dict[str, float] = {}
        left = dict(self.measures)
        faults: dict[str, FormulaError] = {}
        while left:
            faults, before = {}, len(left)
            for name, text in list(left.items()):
                try:
                    mm = length_mm(text, Scope(units, found))
                    if mm <= 0.0:
                        raise FormulaError(f"{text} is not greater than 0", where=_title(name), advice="Measure again.")
                    found[name] = mm
                    del left[name]
                except FormulaError as fault:
                    faults[name] = _waits(name, text, left, fault)
            if len(left) == before:
                break
        return found, faults


def _waits(name: str, text: str | float, left: Mapping[str, object], fault: FormulaError) -> FormulaError:
    """The fault of a measurement; one that waits for another that cannot be worked out either says so."""
    asked = next((other for other in left if f"no measurement {other!r}" in fault.what), "")
    if asked:
        what = f"{text!r} hangs on {_title(asked)}, which has no length" if asked != name else f"{text!r} hangs on itself"
        return FormulaError(what, where=_title(name), advice="Write a length in one of them.")
    return FormulaError(fault.what, where=_title(name), advice=fault.advice)


def _title(name: str) -> str:
    return MEASUREMENTS.get(name, name)


class Measures(Model):
    """People and what was measured of them; one person may stand there several times, with other dates."""

    format: Literal["zesty-pivot/measures"] = "zesty-pivot/measures"
    version: Literal[2] = 2
    name: str = Field(default="", max_length=200)
    units: Unit = "cm"
    people: tuple[Person, ...] = Field(default=(), max_length=MAX_PEOPLE)

    @field_validator("people")
    @classmethod
    def _apart(cls, value: tuple[Person, ...]) -> tuple[Person, ...]:
        seen: set[tuple[str, str]] = set()
        for person in value:
            if (person.name, person.date) in seen:
                raise ValueError(f"{person.name or 'a person without a name'} stands there twice with the date {person.date!r}")
            seen.add((person.name, person.date))
        return value

    def person(self, name: str = "") -> Person:
        """A person by name, the latest date of several; without a name the only one there is. Raises FileError otherwise."""
        found = [person for person in self.people if not name or person.name == name]
        names = list(dict.fromkeys(person.name for person in self.people))
        if not found:
            what, advice = one_of("person", name, names) if name else ("nobody is in the file", "Measure somebody.")
            raise FileError(what, advice=advice)
        if not name and len(names) > 1:
            raise FileError(f"{len(names)} people are in the file", advice=f"Choose one of: {', '.join(sorted(names)[:12])}.")
        return max(found, key=lambda person: person.date)


def read_all(path: FilePath) -> Measures:
    """All people of a file. Raises FileError when it is not sound."""
    return from_value(files.read_json(path, KIND), files.shown(path))


def from_value(value: dict[str, Any], where: str) -> Measures:
    """People from plain JSON of any version; raises FileError."""
    return files.validated(Measures, migrations.measures(files.header(value, KIND, where)), where)


def read(path: FilePath, person: str = "") -> dict[str, str]:
    """The measurements of one person of a file as lengths with their unit (`"928 mm"`), ready for a style.

    Raises FileError when the file is not sound or has not that person, FormulaError for a measurement that is no length.
    """
    return written(lengths_of(read_all(path), person, files.shown(path)))


def lengths_of(measures: Measures, person: str, where: str) -> dict[str, float]:
    """The measurements (mm) of one of several people; `where` is said in a fault. Raises as `read` does."""
    try:
        return measures.person(person).lengths(measures.units)
    except (FileError, FormulaError) as fault:
        place = ", ".join(filter(None, (where, fault.where)))
        raise type(fault)(fault.what, where=place, advice=fault.advice) from None


def written(lengths: Mapping[str, float]) -> dict[str, str]:
    """Lengths in mm as a style's file has them."""
    return {name: f"{mm:.6f} mm" for name, mm in lengths.items()}


def dump(measures: Measures) -> bytes:
    """The file's bytes."""
    return (measures.model_dump_json(indent=1) + "\n").encode()
