"""A style for many bodies: the same files however it is done and wherever it was stopped; what is wrong hinders no other."""

from __future__ import annotations

import io
import itertools
import json
import zipfile
from pathlib import Path

import pytest

from tests.samples import move, style
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats.drafted_block import drafted
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.sizes.batch import LEDGER, Made, Order, made_of, write_bodies
from zesty_pivot.core.sizes.bodies import BodyRow, of_sizes
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.methods import shipped
from zesty_pivot.data.sizes import shipped_chart

CHART = shipped_chart()
FRENCH = [move("shoulder", "waist"), move("waist", "french")]


def order(folder: Path, made: Style | None = None, **more) -> Order:  # type: ignore[no-untyped-def]
    return Order(made or style(FRENCH), Under(), ("svg",), Printing(packing="kept"), folder, **more)


def rows(count: int = 5) -> list[BodyRow]:
    return list(of_sizes(CHART, CHART.of_group("regular")[:count]))


def contents(folder: Path) -> dict[str, bytes]:
    return {str(path.relative_to(folder)): path.read_bytes() for path in folder.rglob("*") if path.is_file()}


def test_alone_or_in_processes_and_stopped_or_not_the_same_files(tmp_path: Path) -> None:
    whole = list(write_bodies(order(tmp_path / "one"), rows(), jobs=1))
    assert [made.is_valid for made in whole] == [True] * 5
    wanted = contents(tmp_path / "one")
    assert len(wanted) == 5 * 4 + 1 and "0001-regular-34/report.json" in wanted
    told = [json.loads(line) for line in wanted[LEDGER].splitlines()]
    assert [one["name"] for one in told] == [size.title for size in CHART.of_group("regular")[:5]]
    list(write_bodies(order(tmp_path / "two"), rows(), jobs=2))
    assert contents(tmp_path / "two") == wanted
    # Stopped after two, its last line torn as by a kill, and gone on with: nothing is done twice, and all is the same.
    began = list(itertools.islice(write_bodies(order(tmp_path / "three"), rows(), jobs=1), 2))
    assert len(began) == 2
    with (tmp_path / "three" / LEDGER).open("ab") as ledger:
        ledger.write(b'{"number": 3, "na')
    kept = (tmp_path / "three" / "0001-regular-34" / "sheet.svg").stat().st_mtime_ns
    list(write_bodies(order(tmp_path / "three"), rows(), jobs=1))
    assert contents(tmp_path / "three") == wanted
    assert (tmp_path / "three" / "0001-regular-34" / "sheet.svg").stat().st_mtime_ns == kept
    # A second time nothing is done at all.
    assert [made.line() for made in write_bodies(order(tmp_path / "three"), rows(), jobs=1)] == [m.line() for m in whole]


def test_stopped_when_asked(tmp_path: Path) -> None:
    found: list[Made] = []
    for made in write_bodies(order(tmp_path), rows(), jobs=1, stop=lambda: len(found) >= 3):
        found.append(made)
    assert len(found) == 3 and len((tmp_path / LEDGER).read_text().splitlines()) == 3


def test_what_is_wrong_hinders_no_other(tmp_path: Path) -> None:
    bodies = rows(3)
    bodies[1] = BodyRow(2, "Bea", False, {}, "p.csv: row 3, full bust: 'x' is no length")
    bodies.insert(2, BodyRow(9, "Nobody", False, {"waist": 700.0}))
    found = list(write_bodies(order(tmp_path), bodies, jobs=1))
    assert [made.is_written for made in found] == [True, False, False, True]
    assert found[1].fault.startswith("p.csv: row 3") and "grading" in found[2].fault
    for line in (tmp_path / LEDGER).read_text().splitlines():
        assert made_of(line).line() == line + "\n"


def test_broken_steps_and_errors_are_named(tmp_path: Path) -> None:
    low = style([FRENCH[0], {**FRENCH[1], "to": {"edge": "side_seam", "at": "18 cm"}}])
    found = list(write_bodies(order(tmp_path, low), rows(10), jobs=1))
    assert {made.is_valid for made in found} == {True, False}  # large armholes leave a shorter side
    bad = next(made for made in found if not made.is_valid)
    assert bad.is_written and (bad.broken or bad.errors)


def test_another_order_in_the_same_folder_is_refused(tmp_path: Path) -> None:
    list(write_bodies(order(tmp_path), rows(2), jobs=1))
    with pytest.raises(FileError, match="another order"):
        list(write_bodies(order(tmp_path, style(FRENCH[:1])), rows(2), jobs=1))
    with pytest.raises(FileError, match="another order"):
        list(write_bodies(order(tmp_path), rows(2)[1:], jobs=1))


@pytest.mark.parametrize("jobs", [1, 2])
def test_a_disk_that_refuses_ends_it_and_is_tried_again(tmp_path: Path, jobs: int) -> None:
    (tmp_path / "0002-regular-36").write_text("in the way")
    with pytest.raises(FileError, match="cannot be written"):
        list(write_bodies(order(tmp_path), rows(3), jobs=jobs))
    assert len((tmp_path / LEDGER).read_text().splitlines()) == 1
    (tmp_path / "0002-regular-36").unlink()
    assert all(made.is_valid for made in write_bodies(order(tmp_path), rows(3), jobs=jobs))


def test_archives(tmp_path: Path) -> None:
    list(write_bodies(order(tmp_path / "folders"), rows(1), jobs=1))
    (made,) = write_bodies(order(tmp_path / "zips", is_zip=True), rows(1), jobs=1)
    archive = (tmp_path / "zips" / made.where).read_bytes()
    (again,) = write_bodies(order(tmp_path / "again", is_zip=True), rows(1), jobs=1)
    assert made.where == "0001-regular-34.zip" and archive == (tmp_path / "again" / again.where).read_bytes()
    with zipfile.ZipFile(io.BytesIO(archive)) as opened:
        inside = {name: opened.read(name) for name in opened.namelist()}
    plain = contents(tmp_path / "folders" / "0001-regular-34")
    assert inside == plain


def test_blocks_are_drafted_graded_or_their_own() -> None:
    chart = {size.title: CHART.lengths(size) for size in CHART.of_group("regular")}
    base = drafted(shipped("two_dart"), chart["regular · 40"], {}, "Own, somebody")
    made = style(FRENCH, base)
    one, two = chart["regular · 40"], chart["regular · 44"]
    drawn = Under(method=shipped("two_dart"))
    assert drawn.way_for(made) == "draft" and Under().way_for(style([])) == "grade"
    by_draft = drawn.styled(made, "regular · 44", two).block
    by_rules = Under("grade").styled(made, "regular · 44", two).block
    assert by_draft.name == by_rules.name == "Own, regular · 44"
    assert by_draft.method == "two_dart" and by_rules.method is None
    own = Under("own", blocks={"regular · 44": base}).styled(made, "regular · 44", two)
    assert own.block is base
    for way, title in (("own", "regular · 42"), ("draft", "regular · 42")):
        with pytest.raises(Exception, match=r"block|drafted"):
            Under(way).styled(style([]), title, one)  # type: ignore[arg-type]


@pytest.mark.parametrize("made", demo_styles(), ids=lambda one: one.name.split()[0])
def test_demo_styles_at_both_ends_of_the_chart(made: Style, tmp_path: Path) -> None:
    """All sizes and more people in `make torture`."""
    method = shipped(made.block.method) if made.block.method is not None else None
    is_child = made.block.method == "child"
    sizes = [size for size in CHART.sizes if size.is_child is is_child]
    order = Order(made, Under(method=method), ("json",), Printing(packing="kept"), tmp_path)
    for found in write_bodies(order, of_sizes(CHART, [sizes[0], sizes[-1]]), jobs=1):
        assert found.is_valid, (found.name, found.fault, found.broken, found.errors)
