"""`zesty-pivot derive` for several bodies: sizes of a chart, or everybody in a file of measurements."""

from __future__ import annotations

import itertools
import signal
import sys
from collections.abc import Iterable, Iterator, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

import click

from zesty_pivot.cli.opened import own_methods
from zesty_pivot.cli.saying import echo

if TYPE_CHECKING:
    from zesty_pivot.core.formats.printing import Printing
    from zesty_pivot.core.formats.style_file import Style
    from zesty_pivot.core.sizes.bodies import BodyRow
    from zesty_pivot.core.sizes.under import Under


def of_chart(chart: Path | None, sizes: Sequence[str], *, is_all: bool, is_child: bool) -> Iterator[BodyRow]:
    """The sizes that were named, or all that such a style can be made in. Raises FileError."""
    from zesty_pivot.core.sizes import chart as charts
    from zesty_pivot.core.sizes.bodies import of_sizes
    from zesty_pivot.data.sizes import shipped_chart

    found = charts.read(chart) if chart is not None else shipped_chart()
    chosen = [size for size in found.sizes if size.is_child is is_child] if is_all else [found.size(name) for name in sizes]
    return of_sizes(found, chosen)


def several(measures: Path, units: str) -> Iterator[BodyRow] | None:
    """Everybody in a file, where there is more than one in it. Raises FileError."""
    from zesty_pivot.core.sizes.bodies import LINES, of_file

    rows = of_file(measures, units)  # type: ignore[arg-type]
    first: list[BodyRow] = []
    for row in rows:  # the same person at several dates is one
        first.append(row)
        if row.fault or measures.suffix.lower() in LINES or (len(first) > 1 and (not row.name or row.name != first[0].name)):
            return itertools.chain(first, rows)
    return None


def write(
    style: Style, rows: Iterable[BodyRow], out: Path, formats: tuple[str, ...], printing: Printing, *, under: Under,
    jobs: int, is_zip: bool, is_nested: bool,
) -> None:  # fmt: skip
    """Writes all of them and says how it went; ends with 1 where one could not be made, or is not sound."""
    from zesty_pivot.core.sizes.batch import LEDGER, Order, write_bodies

    if is_nested:
        rows = _few(rows)
    order, asked = Order(style, under, formats, printing, out, is_zip), list[int]()
    # What is in work is finished and told, and nothing new begun.
    before = {one: signal.signal(one, lambda number, _frame: asked.append(number)) for one in (signal.SIGINT, signal.SIGTERM)}
    count = written = sound = 0
    try:
        for made in write_bodies(order, rows, jobs=jobs, stop=lambda: bool(asked)):
            count, written, sound = count + 1, written + made.is_written, sound + made.is_valid
            if made.fault:
                echo(f"zesty-pivot: {made.name or made.number}: {made.fault}", err=True)
            for said in (*made.broken, *made.errors):
                echo(f"zesty-pivot: {made.name}: {said}", err=True)
    finally:
        for number, handler in before.items():
            signal.signal(number, handler)
    if asked:
        echo(f"zesty-pivot: stopped after {count}; the same command goes on from there.", err=True)
        sys.exit(128 + asked[0])
    if not count:
        raise click.UsageError("there is nobody to derive it for.")
    if is_nested:
        _write_nested(style, rows, under, out, printing)
    echo(f"{written} of {count} written to {out}, {sound} of them sound; the report of all is {out / LEDGER}")
    sys.exit(0 if sound == count else 1)


def under_of(style: Style, way: str | None) -> Under:
    """Where the blocks of bodies come from: drafted, graded, or out of a folder. Raises FileError."""
    from zesty_pivot.core.sizes.under import Under, blocks_in
    from zesty_pivot.data.methods import method_of

    method = method_of(style.block.method, own_methods()) if style.block.method is not None else None
    if way in (None, "draft", "grade"):
        return Under(way, method)  # type: ignore[arg-type]
    return Under("own", method, blocks=blocks_in(Path(way)))


def _few(rows: Iterable[BodyRow]) -> list[BodyRow]:
    """As many as can be told apart on a sheet."""
    from zesty_pivot.core.sizes.nested_sheet import MOST

    found = list(itertools.islice(rows, MOST + 1))
    if len(found) > MOST:
        raise click.UsageError(f"--nested takes {MOST} sizes or people at most.")
    return found


def _write_nested(style: Style, rows: Iterable[BodyRow], under: Under, out: Path, printing: Printing) -> None:
    from zesty_pivot.core.formats.folder import write_together
    from zesty_pivot.core.sizes.nested_files import nested_files
    from zesty_pivot.core.sizes.sized import Sizer, wearer_of

    sizer = Sizer()
    sizes = [sizer.sized(style, under, wearer_of(row)) for row in rows]
    for path in write_together(out / "nested", nested_files(style.title, sizes, "neck_point", 0, style.units, printing)):
        echo(str(path))
