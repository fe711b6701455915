"""`zesty-pivot draft` and `methods`: the contract of ids, exit codes and bytes."""

from __future__ import annotations

import json

import pytest

from tests.bodies import METHODS, person
from tests.cli.calling import call
from tests.core.drafting.worked import worked
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.core.formats.style_file import from_block


def measures(tmp_path, method: str, unit: str = "in"):  # type: ignore[no-untyped-def]
    path = tmp_path / f"{method}.zmeas"
    value = {
        "format": "zesty-pivot/measures",
        "version": 1,
        "units": unit,
        "measures": {n: f"{mm} mm" for n, mm in person(method).items()},
    }
    path.write_text(json.dumps(value), encoding="utf-8")
    return path


@pytest.mark.parametrize("method", METHODS)
def test_the_file_is_the_same_as_the_desks_byte_for_byte(tmp_path, method: str) -> None:
    out = tmp_path / "b.zblock"
    done = call("draft", method, "--measures", measures(tmp_path, method), "--out", out)
    assert done.code == 0 and not done.err
    assert out.read_bytes() == block_file.dump(worked(method).block)


def test_settings_are_in_the_unit_of_the_measures(tmp_path) -> None:
    out = tmp_path / "b.zblock"
    for unit, text in (("in", "1/2"), ("cm", "1.27"), ("mm", "12.7")):
        done = call(
            "draft",
            "quarter_waist",
            "--measures",
            measures(tmp_path, "quarter_waist", unit),
            "--set",
            f"contour={text}",
            "--out",
            out,
        )
        assert done.code == 0
        back = next(piece for piece in block_file.read(out).pieces if piece.name == "back")
        assert back.landmarks["centre_waist"][0] == pytest.approx(12.7)


@pytest.mark.parametrize(
    ("args", "code", "says"),
    [
        (["quarter_wast"], 1, "Did you mean 'quarter_waist'"),
        (["quarter_waist", "--set", "contuor=1"], 1, "Did you mean 'contour'"),
        (["quarter_waist", "--set", "contour=5"], 1, "outside its range"),
        (["quarter_waist", "--set", "contour"], 2, "NAME=VALUE"),
        (["quarter_waist", "--set", "side_dart=perhaps"], 1, "no, raised, yes"), (["child"], 1, "chest over 36 in"),
        (["easy"], 1, "quarter draft to the waist"), (["quarter_waist", "--person", "Odo"], 1, "no person 'Odo'"),
        ([], 2, "METHOD"),
        (["none.zmethod"], 1, "cannot be read"),
    ],
)  # fmt: skip
def test_what_cannot_be_drafted_is_one_line_and_leaves_no_file(tmp_path, args: list[str], code: int, says: str) -> None:
    out = tmp_path / "b.zblock"
    done = call("draft", *args, "--measures", measures(tmp_path, "quarter_waist"), "--out", out)
    assert done.code == code and says in done.err and done.err.count("\n") == 1 and "Traceback" not in done.err
    assert not out.exists()


def test_people_from_csv_and_one_of_several(tmp_path) -> None:
    path, out = tmp_path / "people.csv", tmp_path / "b.zblock"
    path.write_text("name;bust (in);fwl (in);shoulder (in);shoe\nIna;24;10;10;30\nOdo;25;10,5;10;31\n", encoding="utf-8-sig")
    done = call("draft", "child", "--measures", path, "--person", "Odo", "--out", out)
    assert done.code == 0 and "column 'shoe' is no measurement" in done.err
    assert block_file.read(out).measurements["bust"] == pytest.approx(635.0)
    assert call("draft", "child", "--measures", path, "--out", out).code == 1  # whose?


def test_a_style_over_a_drafted_block_is_derived_for_another_person(tmp_path) -> None:
    path, wider = tmp_path / "s.zpiv", {n: f"{mm} mm" for n, mm in {**person("quarter_waist"), "bust": 1016.0}.items()}
    style_file.save(from_block(worked("quarter_waist").block), path)
    people = tmp_path / "p.zmeas"
    people.write_text(
        json.dumps({"format": "zesty-pivot/measures", "version": 2, "people": [{"name": "Odo", "measures": wider}]})
    )
    done = call("derive", path, "--measures", people, "--out", tmp_path / "out", "--format", "json")
    report = json.loads((tmp_path / "out" / "report.json").read_text())
    assert done.code == 0 and report["girths"]["bust"] == pytest.approx(1016.0 + 25.4, abs=0.01)


def test_methods_are_listed_in_words_and_as_json() -> None:
    told = call("methods")
    assert told.code == 0 and "quarter_waist: Quarter draft to the waist" in told.out and "contour_top" in told.out
    found = json.loads(call("methods", "--json").out)["methods"]
    assert [method["id"] for method in found] == list(METHODS)
    assert {"id", "title", "kind", "default", "low", "high", "choices", "schools", "why"} <= set(found[0]["parameters"][0])
    schema = json.loads(call("schema", "method").out)
    assert "operations" in schema["properties"]
