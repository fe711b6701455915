"""People one after the other, from what spreadsheets and programs write: read right, or one sentence each."""

from __future__ import annotations

import csv
import json
import random
import tracemalloc
from pathlib import Path

import pytest

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.sizes.bodies import BodyRow, of_file, of_sizes
from zesty_pivot.data.sizes import shipped_chart


def read(tmp_path: Path, text: str | bytes, name: str = "people.csv") -> list[BodyRow]:
    path = tmp_path / name
    path.write_bytes(text if isinstance(text, bytes) else text.encode())
    return list(of_file(path))


ADA = {"bust": 925.0, "waist": 760.0}


@pytest.mark.parametrize(
    "text",
    [
        "name,bust,waist\nAda,92.5,76\n",
        "\ufeffname;bust;waist\r\nAda;92,5;76\r\n",
        "name\tbust (mm)\twaist\tshoe size\nAda\t925\t76\t39\n",
        "Name,Full bust,Waist girth\n\n\"Ada\",92.5 cm,760 mm\n",
        "name;bust;waist;unit\nAda;925;760;mm\n",
        "client,bust,waist,notes\nAda,92.5,76,\"a note\nof two lines\"\n",
        "name;bust;waist\nAda;36 53/127 in;29 117/127 in\n",
    ],
)  # fmt: skip
def test_what_spreadsheets_write(tmp_path: Path, text: str) -> None:
    (row,) = read(tmp_path, text)
    assert (row.name, row.fault) == ("Ada", "")
    assert row.lengths == pytest.approx(ADA, abs=0.6)


def test_letters_of_older_spreadsheets(tmp_path: Path) -> None:
    (row,) = read(tmp_path, "name;bust\nZoé;92\n".encode("cp1252"))
    assert row.name == "Zoé" and row.lengths == {"bust": 920.0}


def test_a_bad_row_is_named_by_row_and_column_and_the_rest_is_read(tmp_path: Path) -> None:
    rows = read(tmp_path, "name,bust,waist\nAda,92.5,76\nBea,=A1,76\nCleo,,\nDora,92,-4\nEva,90,abc\nFay,88,70\n")
    assert [(row.number, row.name, bool(row.fault)) for row in rows] == [
        (2, "Ada", False), (3, "Bea", True), (4, "", True), (5, "Dora", True), (6, "Eva", True), (7, "Fay", False),
    ]  # fmt: skip
    assert "row 3, full bust" in rows[1].fault and "spreadsheet's formula" in rows[1].fault
    assert "row 4: there are no measurements" in rows[2].fault and "row 5, waist" in rows[3].fault
    for row in rows:
        assert "\n" not in row.fault


def test_json_lines(tmp_path: Path) -> None:
    lines = [
        json.dumps({"name": "Ada", "measures": {"bust": "92.5 cm", "waist": "bust - 16.5 cm"}}),
        "",
        json.dumps({"name": "Wren", "child": True, "measures": {"bust": 60}}),
        "{not json",
        json.dumps(["Ada"]),
        json.dumps({"name": "Bea", "measures": {"bust": "nothing"}}),
        json.dumps({"name": "Cleo", "shoe": 39}),
    ]
    rows = read(tmp_path, "\n".join(lines) + "\n", "people.jsonl")
    assert rows[0].lengths == pytest.approx(ADA) and rows[1].is_child and rows[1].lengths == {"bust": 600.0}
    assert [row.number for row in rows] == [1, 3, 4, 5, 6, 7]
    for row in rows[2:]:
        assert row.fault and "\n" not in row.fault
    assert "line 4" in rows[2].fault and "nothing" in rows[4].fault


@pytest.mark.parametrize(
    ("content", "said"),
    [(b"", "empty"), (b"\n \n", "empty"), (b"PK\x00\x01", "no text"), (b"a,b\n1,2\n", "no measurements")],
)
def test_what_is_no_table_is_one_line(tmp_path: Path, content: bytes, said: str) -> None:
    with pytest.raises(FileError, match=said) as fault:
        read(tmp_path, content)
    assert "\n" not in str(fault.value) and "people.csv" in str(fault.value)
    with pytest.raises(FileError):
        list(of_file(tmp_path / "none.csv"))


def test_a_column_a_person(tmp_path: Path) -> None:
    rows = read(tmp_path, "measurement,Ada,Bea\nbust,92.5,100\nwaist,76,80\n")
    assert [row.name for row in rows] == ["Ada", "Bea"] and rows[0].lengths == pytest.approx(ADA)


def test_ten_megabytes_are_read_with_one_row_held(tmp_path: Path) -> None:
    path = tmp_path / "many.csv"
    with path.open("w", newline="") as stream:
        out = csv.writer(stream)
        out.writerow(["name", "bust", "waist", "notes"])
        for number in range(3_000):
            out.writerow([f"Person {number}", 80 + number % 40, 64 + number % 40, "n" * 3_400])
    assert path.stat().st_size > 10_000_000
    tracemalloc.start()
    count = sum(not row.fault for row in of_file(path))
    peak = tracemalloc.get_traced_memory()[1]
    tracemalloc.stop()
    assert count == 3_000 and peak < 2_000_000


@pytest.mark.parametrize("seed", range(3))
def test_no_mangled_table_does_more_than_be_refused(tmp_path: Path, seed: int) -> None:
    chance = random.Random(seed)
    good = b"name;bust;waist\r\nAda;92,5;76\r\nBea;100;80\r\n"
    for _turn in range(60):
        content = bytearray(good)
        for _change in range(chance.randint(1, 6)):
            at = chance.randrange(len(content))
            content[at : at + chance.randint(0, 3)] = chance.randbytes(chance.randint(0, 4))
        try:
            for row in read(tmp_path, bytes(content)):
                assert "\n" not in row.fault
        except ZestyError as fault:
            assert "\n" not in str(fault)


def test_sizes_are_bodies_too() -> None:
    chart = shipped_chart()
    rows = list(of_sizes(chart, chart.of_group("children")))
    assert [row.name for row in rows] == ["children · 104", "children · 116", "children · 128", "children · 140"]
    assert all(row.is_child and row.lengths["bust"] < 700.0 for row in rows)
