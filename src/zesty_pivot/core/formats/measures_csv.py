"""Measurements as CSV, in and out: a row a person, or a row a measurement.

Read: comma, semicolon or tab; a byte order mark; decimal commas; titles as in files (`bust`) or in words (`Full bust`), with a
unit in brackets where there is one (`bust (cm)`). What is not known is told and left out. Written: worked-out lengths only,
and no text that a spreadsheet would take for a formula.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from pathlib import Path

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import files, measures_file
from zesty_pivot.core.formats.measures_file import MAX_PEOPLE, Measures, Person
from zesty_pivot.core.measure import CHART, MEASUREMENTS
from zesty_pivot.core.quantity import MM_PER, Scope, Unit, length_mm
from zesty_pivot.core.quantity.units import inch_fraction

MAX_CELL = 10_000  # characters of one cell; more is no measurement and no note
MAX_TOLD = 20  # lines that are told; the rest are counted
_NAME, _DATE, _CHILD, _NOTES, _UNIT, _WHAT, _VALUE = "name", "date", "child", "notes", "unit", "measurement", "value"
_WORDS = {
    "name": _NAME, "person": _NAME, "client": _NAME, "date": _DATE, "measured": _DATE, "child": _CHILD, "notes": _NOTES,
    "note": _NOTES, "unit": _UNIT, "units": _UNIT, "measurement": _WHAT, "measure": _WHAT, "value": _VALUE, "length": _VALUE,
}  # fmt: skip
_FORMULA = ("=", "+", "-", "@", "\t", "\r")  # what a spreadsheet would work out
_UNIT_IN_TITLE = re.compile(r"[\[(]\s*(mm|cm|in|inch|inches|\")\s*[\])]")


@dataclass
class Read:
    """What was read of a CSV: the people, and what was left out, a line each."""

    people: list[Person] = field(default_factory=list)
    told: list[str] = field(default_factory=list)

    def tell(self, line: str) -> None:
        """Another line; after the first twenty they are counted."""
        if len(self.told) < MAX_TOLD:
            self.told.append(line)
            self._more = 0
        else:
            self._more += 1
            self.told[MAX_TOLD:] = [f"and {self._more} more"]

    _more: int = 0


def read(content: bytes, where: str, unit: Unit = "cm") -> Read:
    """People from a CSV's bytes; bare numbers are in `unit` where neither title nor row says another.

    Raises FileError where nothing can be read out of it.
    """
    rows = _rows(content, where)
    found = Read()
    titles = [_title(cell) for cell in rows[0]] if rows else []
    kinds = [title[0] for title in titles]
    if _WHAT in kinds or not any(kind in MEASUREMENTS for kind in kinds):
        _by_measurement(rows, titles, unit, found)
    else:
        _by_person(rows, titles, unit, found)
    if not found.people:
        told = f" ({found.told[0]})" if found.told else ""
        what = f"no measurements were found{told}"
        raise FileError(what, where=where, advice="Give a first row with titles such as name, bust, waist.")
    return found


@dataclass(frozen=True)
class RowRead:
    """A row of people, read by itself: its number in the file, the person, and what of it cannot be read, a sentence each."""

    number: int
    person: Person | None
    faults: tuple[str, ...]


def is_by_person(titles: Sequence[str]) -> bool:
    """Whether a file whose first row is this has a row a person, so that it can be read row by row."""
    kinds = [_title(cell)[0] for cell in titles]
    return _WHAT not in kinds and any(kind in MEASUREMENTS for kind in kinds)


def rows_by_person(rows: Iterator[list[str]], unit: Unit) -> Iterator[RowRead]:
    """People row by row, however many there are; the first row has the titles. Rows without anything are passed over."""
    titles = [_title(cell) for cell in next(rows)]
    for number, row in enumerate(rows, 2):
        if not any(cell.strip() for cell in row):
            continue
        one = Read()
        known, values = _cells(titles, row, unit)
        _add(one, known, values, f"row {number}")
        told = tuple(one.told) if one.people or one.told else (f"row {number}: there are no measurements in it",)
        yield RowRead(number, one.people[0] if one.people else None, told)


def delimiter_of(head: str) -> str:
    """What stands between the cells of a file, by its first line."""
    return max(";\t,", key=head.count)


def read_people(path: Path, unit: Unit = "cm") -> tuple[Measures, list[str]]:
    """People from a .zmeas or a .csv file, and what was left out. Raises FileError."""
    if path.suffix.lower() != ".csv":
        return measures_file.read_all(path), []
    found = read(files.read_bytes(path), files.shown(path), unit)
    return Measures(units=unit, people=tuple(found.people)), found.told


def write(measures: Measures, unit: Unit) -> bytes:
    """Everybody as CSV, a row each, with a byte order mark so that spreadsheets read the letters right. Lengths are decimals in
    the unit, which the titles tell; what cannot be worked out is left empty."""
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\r\n")
    writer.writerow(["name", "date", "child", *(f"{name} ({unit})" for name in MEASUREMENTS), "notes"])
    for person in measures.people:
        lengths, _faults = person.worked(measures.units)
        cells = [
            f"{lengths[name] / MM_PER[unit]:.4f}".rstrip("0").rstrip(".") if name in lengths else "" for name in MEASUREMENTS
        ]
        child = "yes" if person.is_child else "no"
        writer.writerow([_plain(person.name), _plain(person.date), child, *cells, _plain(person.notes)])
    return text.getvalue().encode("utf-8-sig")


def write_table(rows: Iterable[Sequence[str]]) -> bytes:
    """Rows of text as CSV."""
    text = io.StringIO()
    csv.writer(text, lineterminator="\r\n").writerows([[_plain(cell) for cell in row] for row in rows])
    return text.getvalue().encode("utf-8-sig")


def _plain(text: str) -> str:
    return f"'{text}" if text.startswith(_FORMULA) else text


def _rows(content: bytes, where: str) -> list[list[str]]:
    if b"\x00" in content:
        raise FileError("this is no CSV: it holds bytes that are no text", where=where, advice="Save it as CSV (UTF-8).")
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = content.decode("cp1252", errors="replace")  # what older spreadsheets write
    delimiter = delimiter_of(text.lstrip().partition("\n")[0])
    try:
        rows = [
            row for row in csv.reader(io.StringIO(text, newline=""), delimiter=delimiter) if any(cell.strip() for cell in row)
        ]
    except csv.Error as fault:
        raise FileError(f"this is no CSV: {fault}", where=where, advice="Save it as CSV (UTF-8).") from None
    if len(rows) < 2:
        raise FileError("the file has no row below its titles", where=where, advice="Give a row for each person.")
    return rows


def _title(cell: str) -> tuple[str, Unit | None]:
    """What a column holds, and its unit where the title says one."""
    text = cell.strip().lower()
    found = _UNIT_IN_TITLE.search(text)
    unit: Unit | None = None
    if found:
        unit = "in" if found[1] in ("in", "inch", "inches", '"') else "mm" if found[1] == "mm" else "cm"
        text = text.replace(found[0], "").strip()
    return _WORDS.get(text) or _KNOWN.get(text.replace("_", " ").replace("-", " "), text), unit


def _known() -> dict[str, str]:
    found: dict[str, str] = {}
    for each in CHART:
        for words in (each.name, each.title, each.short, each.iso, f"{each.name} girth"):
            if words:
                found.setdefault(words.lower().replace("_", " ").replace("-", " "), each.name)
    return found


_KNOWN = _known()


def _by_person(rows: list[list[str]], titles: list[tuple[str, Unit | None]], unit: Unit, found: Read) -> None:
    for cell, (kind, _own) in zip(rows[0], titles, strict=True):
        if kind not in MEASUREMENTS and kind not in (_NAME, _DATE, _CHILD, _NOTES, _UNIT) and cell.strip():
            found.tell(f"column {_brief(cell)} is no measurement: left out")
    for number, row in enumerate(rows[1:], 2):
        known, values = _cells(titles, row, unit)
        _add(found, known, values, f"row {number}")


def _cells(
    titles: list[tuple[str, Unit | None]], row: list[str], unit: Unit
) -> tuple[dict[str, str], list[tuple[str, str, Unit]]]:
    """What a row says of a person by title, and its measurements with their units."""
    known = {kind: cell.strip() for (kind, _own), cell in zip(titles, row, strict=False)}
    units = [own or _unit(known.get(_UNIT, "")) or unit for _kind, own in titles]
    values = [
        (kind, cell.strip(), own) for (kind, _u), cell, own in zip(titles, row, units, strict=False) if kind in MEASUREMENTS
    ]
    return known, values


def _by_measurement(rows: list[list[str]], titles: list[tuple[str, Unit | None]], unit: Unit, found: Read) -> None:
    """The first column holds names of measurements, the others a person each."""
    kinds = [kind for kind, _own in titles]
    names = kinds.index(_WHAT) if _WHAT in kinds else 0
    with_unit = kinds.index(_UNIT) if _UNIT in kinds else None
    others = [k for k in range(len(titles)) if k not in (names, with_unit)]
    values: dict[int, list[tuple[str, str, Unit]]] = {k: [] for k in others}
    facts: dict[int, dict[str, str]] = {k: {_NAME: "" if kinds[k] == _VALUE else rows[0][k].strip()} for k in others}
    for number, row in enumerate(rows[1:], 2):
        kind, own = _title(row[names]) if names < len(row) else ("", None)
        if kind not in MEASUREMENTS and kind not in (_DATE, _CHILD, _NOTES):
            found.tell(f"row {number}: {_brief(row[names] if names < len(row) else '')} is no measurement: left out")
            continue
        said = _unit(row[with_unit]) if with_unit is not None and with_unit < len(row) else None
        for k in others:
            if k < len(row) and kind in MEASUREMENTS:
                values[k].append((kind, row[k].strip(), titles[k][1] or said or own or unit))
            elif k < len(row):
                facts[k][kind] = row[k].strip()
    for k in others:
        if values[k]:
            _add(found, facts[k], values[k], f"column {_brief(rows[0][k])}")


def _unit(text: str) -> Unit | None:
    text = text.strip().lower()
    return {"mm": "mm", "cm": "cm", "in": "in", "inch": "in", "inches": "in", '"': "in"}.get(text)  # type: ignore[return-value]


def _add(found: Read, facts: dict[str, str], values: list[tuple[str, str, Unit]], where: str) -> None:
    """A person with what can be read of the cells; the rest is told."""
    measures: dict[str, str | float] = {}
    for name, text, unit in values:
        if not text:
            continue
        try:
            measures[name] = _length(text, unit)
        except ZestyError as fault:
            found.tell(f"{where}, {MEASUREMENTS[name]}: {fault}")
    if not measures:
        return
    if len(found.people) >= MAX_PEOPLE:
        raise FileError(f"over {MAX_PEOPLE} people in one file", advice="Part it into several.")
    name, date = _text(facts.get(_NAME, ""), 180), _text(facts.get(_DATE, ""), 40)
    taken = {(person.name, person.date) for person in found.people}
    called, number = name, 2
    while (called, date) in taken:
        called, number = f"{name or 'Person'} {number}", number + 1
    is_child = facts.get(_CHILD, "").lower() in ("yes", "true", "1", "x", "child")
    notes = _text(facts.get(_NOTES, ""), MAX_CELL)
    found.people.append(Person(name=called, date=date, is_child=is_child, measures=measures, notes=notes))


def _length(text: str, unit: Unit) -> str:
    """A cell as a length with its unit. Raises FileError or FormulaError for one that is none."""
    if text.startswith("="):
        raise FileError(f"{_brief(text)} is a spreadsheet's formula", advice="Save the sheet with its values.")
    mm = length_mm(text.removeprefix("'"), Scope(unit))
    if mm <= 0.0:
        raise FileError(f"{_brief(text)} is not greater than 0", advice="Measure again.")
    bare = re.fullmatch(r"\d+(?:[.,]\d+)?", text)
    if unit == "in" and not bare:
        return f"{inch_fraction(mm)} in" if abs(mm - _sixteenth(mm)) < 1e-6 else f"{mm / MM_PER['in']:.4f} in"
    return f"{text.replace(',', '.')} {unit}" if bare else f"{mm:.4f} mm".replace(".0000 ", " ")


def _sixteenth(mm: float) -> float:
    return round(mm / MM_PER["in"] * 16) / 16 * MM_PER["in"]


def _text(cell: str, most: int) -> str:
    """A cell as a name or note: without what cannot be printed, and without the apostrophe that was written before a sign."""
    text = cell[1:] if cell.startswith("'") and cell[1:].startswith(_FORMULA) else cell
    return "".join(c if c.isprintable() else " " for c in text).strip()[:most]


def _brief(cell: str) -> str:
    return files.shown_text(cell.strip(), 40)
