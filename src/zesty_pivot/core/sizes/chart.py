"""The size chart (.zsizes): body measurements by size, in groups whose sizes follow each other."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path as FilePath
from typing import Any, Literal

from pydantic import Field, field_validator, model_validator

from zesty_pivot.core.errors import FileError, FormulaError, one_of
from zesty_pivot.core.formats import files, measures_csv
from zesty_pivot.core.formats.measures_file import Measures, Person
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.quantity.fields import Length, Model

KIND = "sizes"
SUFFIX = ".zsizes"
MOST_SIZES = 200
APART = " · "  # between group and size where both are said


class BodySize(Model):
    """One size: its measurements as they were written, lengths or formulas of the others."""

    name: str = Field(min_length=1, max_length=60)
    group: str = Field(default="", max_length=100, description="sizes of one group follow each other: `regular`, `tall`")
    is_child: bool = False
    measures: dict[str, Length] = Field(default_factory=dict, description="by name: " + ", ".join(MEASUREMENTS))

    @property
    def title(self) -> str:
        """`tall · 40`."""
        return f"{self.group}{APART}{self.name}" if self.group else self.name

    def person(self) -> Person:
        """The same as somebody who was measured."""
        return Person(name=self.title, is_child=self.is_child, measures=self.measures)


class SizeChart(Model):
    """Sizes in their order. `base` is the title of the size that others are graded from."""

    format: Literal["zesty-pivot/sizes"] = "zesty-pivot/sizes"
    version: Literal[1] = 1
    name: str = Field(default="", max_length=200)
    units: Unit = "cm"
    base: str = Field(default="", max_length=180)
    sizes: tuple[BodySize, ...] = Field(min_length=1, max_length=MOST_SIZES)

    @field_validator("sizes")
    @classmethod
    def _apart(cls, value: tuple[BodySize, ...]) -> tuple[BodySize, ...]:
        seen: set[str] = set()
        for size in value:
            if size.title in seen:
                raise ValueError(f"the size {size.title!r} stands there twice")
            seen.add(size.title)
        return value

    @model_validator(mode="after")
    def _has_base(self) -> SizeChart:
        if self.base and self.base not in self.titles:
            raise ValueError(f"the base {self.base!r} is none of the sizes")
        return self

    @property
    def titles(self) -> tuple[str, ...]:
        """Of all sizes, in their order."""
        return tuple(size.title for size in self.sizes)

    @property
    def groups(self) -> tuple[str, ...]:
        """In their order."""
        return tuple(dict.fromkeys(size.group for size in self.sizes))

    def of_group(self, group: str) -> tuple[BodySize, ...]:
        """The sizes of a group in their order."""
        return tuple(size for size in self.sizes if size.group == group)

    def size(self, title: str) -> BodySize:
        """A size by its title, or by its name where only one has it. Raises FileError."""
        found = [size for size in self.sizes if size.title == title] or [one for one in self.sizes if one.name == title]
        if len(found) == 1:
            return found[0]
        if found:
            listed = ", ".join(size.title for size in found)
            raise FileError(f"{len(found)} sizes are called {title!r}", where="sizes", advice=f"Choose one of: {listed}.")
        what, advice = one_of("size", title, self.titles)
        raise FileError(what, where="sizes", advice=advice)

    def lengths(self, size: BodySize) -> dict[str, float]:
        """The measurements of a size, mm. Raises FormulaError with the size in its place."""
        try:
            return size.person().lengths(self.units)
        except FormulaError as fault:
            place = ", ".join(filter(None, (f"size {size.title}", fault.where)))
            raise FormulaError(fault.what, where=place, advice=fault.advice) from None


def read(path: FilePath) -> SizeChart:
    """A chart from a .zsizes or a .csv file; raises FileError in one line."""
    if path.suffix.lower() == ".csv":
        return from_csv(files.read_bytes(path), files.shown(path))[0]
    return from_value(files.read_json(path, KIND), files.shown(path))


def from_value(value: dict[str, Any], where: str) -> SizeChart:
    """A chart from plain JSON; raises FileError."""
    chart = files.validated(SizeChart, files.header(value, KIND, where), where)
    for size in chart.sizes:
        unknown = [name for name in size.measures if name not in MEASUREMENTS]
        if unknown:
            what, advice = one_of("measurement", unknown[0], MEASUREMENTS)
            raise FileError(what, where=f"{where}, size {size.title}", advice=advice)
    return chart


def from_csv(content: bytes, where: str, unit: Unit = "cm") -> tuple[SizeChart, list[str]]:
    """A chart from a CSV with a row or a column a size, and what was left out. A title `tall · 40` says the group as well.
    Raises FileError."""
    found = measures_csv.read(content, where, unit)
    try:
        chart = SizeChart(units=unit, sizes=tuple(_size(person) for person in found.people))
    except ValueError as fault:
        raise FileError(str(fault).partition("\n")[0], where=where, advice="Give every size a name of its own.") from None
    return chart, found.told


def _size(person: Person) -> BodySize:
    group, apart, name = person.name.rpartition(APART.strip())
    return BodySize(
        name=(name.strip() or "size") if apart else (person.name or "size"), group=group.strip() if apart else "",
        is_child=person.is_child, measures=person.measures,
    )  # fmt: skip


def write_csv(chart: SizeChart, unit: Unit) -> bytes:
    """A row a size, worked-out lengths in a unit."""
    return measures_csv.write(as_people(chart), unit)


def as_people(chart: SizeChart, sizes: Iterable[BodySize] | None = None) -> Measures:
    """Sizes as people."""
    chosen = chart.sizes if sizes is None else tuple(sizes)
    return Measures(name=chart.name, units=chart.units, people=tuple(size.person() for size in chosen))


def dump(chart: SizeChart) -> bytes:
    """The file's bytes."""
    return (chart.model_dump_json(indent=1) + "\n").encode()
