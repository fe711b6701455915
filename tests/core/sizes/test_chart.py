"""BodySize charts: read, written, their steps; what is wrong is said by size and measurement."""

from __future__ import annotations

import csv
import io
import json
from pathlib import Path

import pytest

from zesty_pivot.core.errors import FileError, FormulaError
from zesty_pivot.core.formats import files
from zesty_pivot.core.measure.plausible import oddities
from zesty_pivot.core.sizes import chart as charts
from zesty_pivot.core.sizes.chart import BodySize, SizeChart
from zesty_pivot.core.sizes.jumps import jumps
from zesty_pivot.data.sizes import shipped_chart

# Girths of women's sizes in cm (bust, waist, hip) as published size tables have them, from memory, to 2 cm.
TABLES = {"36": (84, 68, 94), "40": (92, 76, 101), "44": (100, 84, 108), "48": (110, 94, 117)}


def test_the_shipped_chart() -> None:
    chart = shipped_chart()
    women = [chart.of_group(group) for group in ("regular", "tall")]
    assert [len(sizes) for sizes in women] == [10, 10] and len(chart.of_group("children")) == 4
    assert chart.base == "regular · 40" and chart.size("regular · 40") is women[0][3]
    for size in chart.sizes:
        assert not [odd.says for odd in oddities(chart.lengths(size), "cm", is_child=size.is_child)], size.title
    for name, girths in TABLES.items():
        lengths = chart.lengths(chart.size(f"regular · {name}"))
        for measure, cm in zip(("bust", "waist", "hip"), girths, strict=True):
            assert lengths[measure] == pytest.approx(10.0 * cm, abs=20.0)
    # A formula in the chart is worked out for each size.
    assert chart.lengths(chart.size("tall · 40"))["bwl"] == pytest.approx(342.0 + 0.1 * 920.0)
    assert not [jump for jump in jumps(chart) if jump.is_odd]


def test_a_step_that_goes_off_is_marked() -> None:
    chart = shipped_chart()
    sizes = list(chart.sizes)
    slip = sizes[4].model_copy(update={"measures": {**sizes[4].measures, "waist": "86 cm"}})  # 80 cm
    changed = chart.model_copy(update={"sizes": (*sizes[:4], slip, *sizes[5:])})
    odd = {(jump.measure, jump.before, jump.after, round(jump.mm)) for jump in jumps(changed) if jump.is_odd}
    assert odd == {("waist", "40", "42", 100), ("waist", "42", "44", -20)}


def test_files_there_and_back(tmp_path: Path) -> None:
    chart = shipped_chart()
    path = tmp_path / "own.zsizes"
    path.write_bytes(charts.dump(chart))
    assert charts.read(path) == chart
    table = charts.write_csv(chart, "in")
    rows = list(csv.DictReader(io.StringIO(table.decode("utf-8-sig"))))  # a library's reader
    assert len(rows) == 24 and float(rows[0]["bust (in)"]) * 25.4 == pytest.approx(800.0, abs=0.01)
    (tmp_path / "own.csv").write_bytes(table)
    again = charts.read(tmp_path / "own.csv")
    assert again.titles == chart.titles and again.groups == chart.groups
    for one, two in zip(chart.sizes, again.sizes, strict=True):
        assert one.is_child is two.is_child
        for name, mm in chart.lengths(one).items():
            assert again.lengths(two)[name] == pytest.approx(mm, abs=0.01), (one.title, name)


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"sizes": []}, "sizes"),
        ({"base": "44"}, "the base '44' is none of the sizes"),
        ({"sizes": [{"name": "S"}, {"name": "S"}]}, "the size 'S' stands there twice"),
        ({"sizes": [{"name": "S", "measures": {"bust_girht": "88 cm"}}]}, "bust_girht"),
        ({"version": 9}, "newer"),
    ],
)
def test_what_is_wrong_with_a_file_is_one_line(tmp_path: Path, change: dict, said: str) -> None:  # type: ignore[type-arg]
    value = {"format": "zesty-pivot/sizes", "version": 1, "sizes": [{"name": "S", "measures": {"bust": "88 cm"}}], **change}
    path = tmp_path / "own.zsizes"
    path.write_text(json.dumps(value))
    with pytest.raises(FileError) as fault:
        charts.read(path)
    assert said in str(fault.value) and "\n" not in str(fault.value) and "own.zsizes" in str(fault.value)


def test_sizes_are_named_and_their_faults_placed() -> None:
    chart = SizeChart(sizes=(
        BodySize(name="S", group="a", measures={"bust": "80 cm"}), BodySize(name="S", group="b", measures={"bust": "2*waist"}),
        BodySize(name="M", group="a"),
    ))  # fmt: skip
    assert chart.size("M").title == "a · M"
    with pytest.raises(FileError, match="2 sizes are called 'S'"):
        chart.size("S")
    with pytest.raises(FileError, match="no size 'XS'"):
        chart.size("XS")
    with pytest.raises(FormulaError, match="size b · S, full bust"):
        chart.lengths(chart.size("b · S"))
    assert files.version_of("sizes") == 1
