"""Bodies one after the other: the people of a CSV, of JSON lines or of a measurement file, sizes of a chart. However many there
are, one at a time is held."""

from __future__ import annotations

import codecs
import csv
import json
from collections.abc import Iterable, Iterator, Mapping
from pathlib import Path as FilePath

from pydantic import ValidationError

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import files, measures_csv, measures_file
from zesty_pivot.core.formats.measures_file import Person
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sizes.chart import BodySize, SizeChart

LINES = (".jsonl", ".ndjson")
CHUNK = 1 << 16  # bytes read at once
LONGEST = 1 << 20  # characters of a line; a person has some hundred


@record(eq=False)
class BodyRow:
    """One body: its number in what it comes from, what it is called, its measurements in mm; or a sentence that says why there
    are none. `group` are the sizes that it is one of."""

    number: int
    name: str
    is_child: bool
    lengths: Mapping[str, float]
    fault: str = ""
    group: str = ""


def of_sizes(chart: SizeChart, sizes: Iterable[BodySize]) -> Iterator[BodyRow]:
    """Sizes of a chart, numbered as they come."""
    for number, size in enumerate(sizes, 1):
        yield replace(_worked(number, size.person(), chart.units, size.title), group=size.group)


def of_file(path: FilePath, unit: Unit = "cm") -> Iterator[BodyRow]:
    """Everybody in a .csv, .jsonl or .zmeas file; bare numbers are in `unit` where the file says nothing else.

    Raises FileError where nothing can be read out of it; what is wrong with one body is said by that one.
    """
    suffix = path.suffix.lower()
    if suffix == ".csv":
        return _of_csv(path, unit)
    if suffix in LINES:
        return _of_lines(path, unit)
    book = measures_file.read_all(path)
    return (_worked(number, person, book.units) for number, person in enumerate(book.people, 1))


def _of_csv(path: FilePath, unit: Unit) -> Iterator[BodyRow]:
    where, lines = files.shown(path), _text_lines(path)
    head = next((line for line in lines if line.strip()), "")
    if not head:
        raise FileError("the file is empty", where=where, advice="Give a first row with titles such as name, bust, waist.")
    delimiter = measures_csv.delimiter_of(head)
    titles = next(csv.reader([head], delimiter=delimiter))
    if not measures_csv.is_by_person(titles):  # a column a person, which only the whole of it tells
        found = measures_csv.read(files.read_bytes(path), where, unit)
        return (_worked(number, person, unit) for number, person in enumerate(found.people, 1))
    return _rows(csv.reader(_with(head, lines), delimiter=delimiter), unit, where)


def _rows(rows: Iterator[list[str]], unit: Unit, where: str) -> Iterator[BodyRow]:
    reading, number = measures_csv.rows_by_person(rows, unit), 1
    while True:
        try:
            row = next(reading, None)
        except csv.Error as fault:
            yield BodyRow(number + 1, "", False, {}, f"row {number + 1}: this is no CSV: {fault}")
            return
        if row is None:
            return
        number = row.number
        name = row.person.name if row.person is not None else ""
        if row.faults or row.person is None:
            yield BodyRow(number, name, False, {}, f"{where}: {'; '.join(row.faults)}")
        else:
            yield _worked(number, row.person, unit)


def _of_lines(path: FilePath, unit: Unit) -> Iterator[BodyRow]:
    where = files.shown(path)
    for number, line in enumerate(_text_lines(path), 1):
        if not line.strip():
            continue
        try:
            value = json.loads(line)
            if not isinstance(value, dict):
                raise ValueError("a line is an object with name and measures")
            person = Person.model_validate({"is_child": value.pop("child", False), **value})
        except ValidationError as fault:
            yield BodyRow(number, "", False, {}, f"{where}, line {number}: {files.faults(fault, 'line')}")
        except (ValueError, RecursionError) as fault:
            yield BodyRow(number, "", False, {}, f"{where}, line {number}: this is no JSON object: {fault}")
        else:
            yield _worked(number, person, unit)


def _worked(number: int, person: Person, unit: Unit, name: str = "") -> BodyRow:
    try:
        return BodyRow(number, name or person.name, person.is_child, person.lengths(unit))
    except ZestyError as fault:
        return BodyRow(number, name or person.name, person.is_child, {}, str(fault))


def _with(first: str, rest: Iterator[str]) -> Iterator[str]:
    yield first
    yield from rest


def _text_lines(path: FilePath) -> Iterator[str]:
    """The lines of a text file, read as they are asked for: UTF-8, or what older spreadsheets write. Raises FileError."""
    where = files.shown(path)
    try:
        if not path.is_file():
            raise FileError("this is no file", where=where, advice="Choose a .csv, .jsonl or .zmeas file.")
        encoding = "utf-8-sig" if _is_utf8(path, where) else "cp1252"
        with path.open(encoding=encoding, errors="replace", newline="") as stream:
            while line := stream.readline(LONGEST):
                if len(line) == LONGEST:
                    raise FileError("a line is longer than a million characters", where=where, advice="Save it as CSV (UTF-8).")
                yield line
    except OSError as fault:
        raise FileError(f"the file cannot be read: {fault.strerror}", where=where, advice="Choose another one.") from None


def _is_utf8(path: FilePath, where: str) -> bool:
    """Whether all of it is UTF-8, looked at piece by piece. Raises FileError where it is no text."""
    decoder = codecs.getincrementaldecoder("utf-8")()
    with path.open("rb") as stream:
        while chunk := stream.read(CHUNK):
            if b"\x00" in chunk:
                raise FileError("it holds bytes that are no text", where=where, advice="Save it as CSV (UTF-8).")
            try:
                decoder.decode(chunk)
            except UnicodeDecodeError:
                return False
    try:
        decoder.decode(b"", final=True)
    except UnicodeDecodeError:
        return False
    return True
