"""Measurement files: several people and dates, formulas, old versions; CSV in every dress, and fuzzed."""

from __future__ import annotations

import csv
import io
import json

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.bodies import IN, PERSON
from zesty_pivot.core.errors import FileError, FormulaError, ZestyError
from zesty_pivot.core.formats import measures_csv, measures_file
from zesty_pivot.core.formats.measures_file import Measures, Person
from zesty_pivot.core.measure import MEASUREMENTS

INA = Person(name="Ina Marlowe", date="2026-03-02", measures={"bust": "38 in", "waist": "76,2", "hip": "bust + 5 cm"})


def test_cm_and_inches_and_formulas_in_one_sitting() -> None:
    found = INA.lengths("cm")
    assert found == {"bust": pytest.approx(38 * IN), "waist": pytest.approx(762.0), "hip": pytest.approx(38 * IN + 50.0)}
    later = Person(measures={"hip": "waist + 20 cm", "waist": "bust - 5 1/16 in", "bust": 90})  # in any order
    assert later.lengths("cm")["hip"] == pytest.approx(900 - 5.0625 * IN + 200)


@pytest.mark.parametrize(
    ("measures", "says"),
    [
        ({"waist": "hip - 2 cm", "hip": "waist + 2 cm"}, "hangs on"), ({"waist": "waist + 1 cm"}, "hangs on itself"),
        ({"bust": "0"}, "not greater"),
        ({"bust": "bsut + 1 cm"}, "no measurement 'bsut'"), ({"bust": "ninety"}, "no measurement 'ninety'"),
        ({"waist": -3}, "not greater"),
    ],
)  # fmt: skip
def test_what_is_no_length_is_said_with_its_measurement(measures: dict, says: str) -> None:
    person = Person(measures=measures)
    with pytest.raises(FormulaError, match=says) as refused:
        person.lengths("cm")
    assert any(MEASUREMENTS[name] in refused.value.where or name in str(refused.value) for name in measures)
    _found, faults = person.worked("cm")
    assert set(faults) == set(measures)


def test_several_people_and_dates(tmp_path) -> None:
    older = Person(name="Ina Marlowe", date="2025-11-30", measures={"bust": 95})
    both = Measures(people=(INA, older, Person(name="Odo", measures={"bust": 100})))
    path = tmp_path / "people.zmeas"
    path.write_bytes(measures_file.dump(both))
    assert measures_file.read_all(path) == both
    assert both.person("Ina Marlowe").date == "2026-03-02"  # the latest
    assert measures_file.read(path, "Odo") == {"bust": "1000.000000 mm"}
    with pytest.raises(FileError, match="2 people are in the file"):
        measures_file.read(path)
    with pytest.raises(FileError, match=r"no person 'Oddo'\. Did you mean 'Odo'"):
        measures_file.read(path, "Oddo")
    with pytest.raises(ValueError, match="stands there twice"):
        Measures(people=(INA, INA))


def test_a_file_of_version_1_was_one_person(tmp_path) -> None:
    path = tmp_path / "old.zmeas"
    old = {"format": "zesty-pivot/measures", "version": 1, "name": "Ina", "units": "in", "measures": {"bust": 38}}
    path.write_text(json.dumps(old), encoding="utf-8")
    found = measures_file.read_all(path)
    assert found.people == (Person(name="Ina", measures={"bust": 38}),) and found.version == 2
    assert measures_file.read(path) == {"bust": f"{38 * IN:.6f} mm"}


def read(text: str | bytes, unit: str = "cm") -> measures_csv.Read:
    return measures_csv.read(text if isinstance(text, bytes) else text.encode(), "people.csv", unit)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    "text",
    [
        "name,date,bust,waist\nIna,2026-03-02,95.5,70\n",
        "\ufeffname;date;bust;waist\r\nIna;2026-03-02;95,5;70\r\n",  # a byte order mark, semicolons, decimal commas
        "Name\tDate\tFull bust\tWaist\nIna\t2026-03-02\t95,5 cm\t700 mm\n",
        "person,measured,bust (mm),waist [cm]\nIna,2026-03-02,955,70\n",
        '"name","date","bust girth","waist"\n"Ina","2026-03-02","95.5","70"\n\n,,,\n',
        "measurement,Ina\ndate,2026-03-02\nbust,95.5\nwaist,70\n",  # a row a measurement
        "name,date,unit,bust,waist\nIna,2026-03-02,mm,955,700\n",
    ],
)
def test_csv_in_every_dress(text: str) -> None:
    found = read(text)
    assert not found.told
    (person,) = found.people
    assert person.name == "Ina" and person.date == "2026-03-02"
    assert person.lengths("cm") == {"bust": pytest.approx(955.0), "waist": pytest.approx(700.0)}


def test_a_row_a_measurement_with_its_unit() -> None:
    found = read("measurement,value,unit\nbust,38,in\nwaist,762,mm\nshoe size,39,cm\n")
    assert found.people[0].lengths("cm") == {"bust": pytest.approx(38 * IN), "waist": pytest.approx(762.0)}
    assert found.told == ["row 4: 'shoe size' is no measurement: left out"]


def test_inches_as_fractions() -> None:
    (person,) = read('name,bust,waist\nIna,37 5/16,"29 1/2"""\n', "in").people
    assert person.lengths("in") == {"bust": pytest.approx(37.3125 * IN), "waist": pytest.approx(29.5 * IN)}
    assert person.measures["bust"] == "37 5/16 in"


def test_what_cannot_be_read_is_told_a_line_each_and_the_rest_is_read() -> None:
    text = "name,bust,shoe size,waist,hip\nIna,95,39,=B2-20,minus\nOdo,1000000,40,80,100\nIna,96,,,\n"
    found = read(text)
    assert [person.name for person in found.people] == ["Ina", "Odo", "Ina 2"]
    assert found.people[0].measures == {"bust": "95 cm"}
    assert found.told[0] == "column 'shoe size' is no measurement: left out"
    assert "spreadsheet's formula" in found.told[1] and "row 2, waist" in found.told[1]
    assert "row 2, hip" in found.told[2] and "over 100 m" in found.told[3]


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "no row below"), (b"name,bust\n", "no row below"), (b"\x00\x01\x02", "no text"),
        (b"a,b\n1,2\n", "no measurements were found"),
        (b"name,bust\nIna,\n", "no measurements were found"), (b'"' * 200_000 + b"\n", "CSV|no row"),
    ],
)  # fmt: skip
def test_files_without_measurements_are_refused_in_a_line(content: bytes, says: str) -> None:
    with pytest.raises(FileError, match=says) as refused:
        read(content)
    assert "people.csv" in str(refused.value) and "\n" not in str(refused.value)


def test_ten_megabytes_are_read_or_refused() -> None:
    row = "Somebody,90,70," + "x" * 480 + "\n"
    many = "name,bust,waist,notes\n" + row * 20_000
    assert len(many) > 9.5e6
    with pytest.raises(FileError, match="over 2000 people"):
        read(many)
    one = "name,bust,waist,notes\nIna,90,70," + "y" * 10_000_000 + "\n"
    with pytest.raises(FileError, match="CSV"):
        read(one)


def test_written_csv_is_read_back_and_holds_no_formula() -> None:
    """Cells that a spreadsheet would work out get an apostrophe; lengths are worked-out decimals."""
    tricky = Person(name="=cmd()", date="@now", notes="+1", is_child=True, measures={"bust": "38 in", "waist": "bust - 10 cm"})
    content = measures_csv.write(Measures(people=(tricky, INA)), "cm")
    rows = list(csv.reader(io.StringIO(content.decode("utf-8-sig"), newline="")))
    assert content.startswith(b"\xef\xbb\xbf")
    for row in rows:
        assert not any(cell.startswith(("=", "+", "@")) for cell in row)
    back = read(content).people
    assert back[0].name == "=cmd()" and back[0].date == "@now" and back[0].notes == "+1" and back[0].is_child
    assert back[0].lengths("cm") == {"bust": pytest.approx(965.2), "waist": pytest.approx(865.2)}
    assert back[1].lengths("cm") == pytest.approx(INA.lengths("cm"))
    inches = read(
        measures_csv.write(Measures(people=(Person(name="P", measures={k: f"{v} mm" for k, v in PERSON.items()}),)), "in")
    )
    assert inches.people[0].lengths("in") == pytest.approx(PERSON, abs=0.01)


@settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(
    st.one_of(
        st.binary(max_size=400), st.text(alphabet="name,;\tbustwaihp 0123456789.,=\"'\n-()/½", max_size=300).map(str.encode)
    )
)
def test_any_bytes_are_read_or_refused_in_a_line(content: bytes) -> None:
    for start in (b"", b"name,bust\n", b"name;bust;waist\nIna;"):
        try:
            found = read(start + content)
        except ZestyError as refused:
            assert "\n" not in str(refused)
            continue
        for person in found.people:
            assert all(mm > 0.0 for mm in person.lengths("cm").values())
        measures_csv.write(Measures(people=tuple(found.people)), "in")
