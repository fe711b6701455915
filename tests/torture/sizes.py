"""Sizes: demo styles on any body, drafted or graded; tables of people with anything in their cells."""

from __future__ import annotations

import random
import tempfile
from collections.abc import Callable
from functools import lru_cache
from pathlib import Path

import numpy as np

from tests.plausible import plausible_body
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.sizes.bodies import of_file, of_sizes
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.methods import shipped
from zesty_pivot.data.sizes import shipped_chart

CELLS = (
    "92", "92,5", "36 1/2 in", "920 mm", "bust/2", "=A1+1", "+7", "-3", "@x", "'92", "1e9", "nan", "", " ", "١٢", "92 cm cm",
    "\t",
    "9" * 400, '"', ";", "\u202e92", "92\n93", "waist - waist", "(((((", "92**9", "⅓ in", "inf",
)  # fmt: skip
CODES = ("utf-8", "utf-8-sig", "utf-16", "cp1252")
TITLES = (
    "name", "bust", "waist", "Full bust (cm)", "hip [in]", "unit", "child", "shoe", "measurement", "", "bust", "date", "=bust",
)  # fmt: skip


@lru_cache(maxsize=1)
def _styles() -> tuple[Style, ...]:
    return tuple(demo_styles())


def any_body(seed: int) -> str | None:
    """A demo style for a size of the chart or for somebody: sound, or broken by a step that says why."""
    chance = random.Random(seed)
    style = chance.choice(_styles())
    is_child = style.block.method == "child"
    if is_child or chance.random() < 0.4:
        chart = shipped_chart()
        row = next(of_sizes(chart, [chance.choice([size for size in chart.sizes if size.is_child is is_child])]))
        title, lengths = row.name, dict(row.lengths)
    else:
        title, lengths = f"body {seed}", plausible_body(np.random.default_rng(seed))
    method = shipped(style.block.method) if style.block.method is not None else None
    way = chance.choice([None, "grade", "grade"])
    try:
        under = Under(way, method, chance.choice(["grow", "keep"]))  # type: ignore[arg-type]
        derived = derive(under.styled(style, title, lengths, is_child=is_child))
    except ZestyError as fault:
        return None if fault.advice and "\n" not in str(fault) else f"{style.name}, {title}: refused badly: {fault!r}"
    except Exception as fault:  # noqa: BLE001 - what this family looks for
        return f"{style.name}, {title}: {type(fault).__name__}: {fault}"
    for number, fault in derived.derivation.broken:
        if not fault.advice or "the makers" in fault.advice:
            return f"{style.name}, {title}, step {number}: {fault!r}"
    errors = [one for one in derived.findings if one.severity is Severity.ERROR and one.check != "broken_step"]
    return f"{style.name}, {title}: {errors[0].message}" if errors and not derived.derivation.broken else None


def any_table(seed: int) -> str | None:
    """A table with anything in it: read row by row, or refused in a line."""
    chance = random.Random(seed)
    between = chance.choice([",", ";", "\t"])
    rows = [between.join(chance.choice(TITLES) for _column in range(chance.randint(0, 6)))]
    for _row in range(chance.randint(0, 6)):
        rows.append(between.join(chance.choice(CELLS) for _column in range(chance.randint(0, 7))))
    content = chance.choice(["\n", "\r\n", "\r"]).join(rows).encode(chance.choice(CODES), "ignore")
    if chance.random() < 0.3:
        content = content[: chance.randint(0, len(content))] + chance.randbytes(chance.randint(0, 6))
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / chance.choice(["people.csv", "people.csv", "people.jsonl", "people.zmeas"])
        path.write_bytes(content)
        try:
            for row in of_file(path):
                if "\n" in row.fault or any(not 0.0 < mm < 1e6 for mm in row.lengths.values()):
                    return f"table {seed}: row {row.number}: {row.fault or row.lengths}"
        except ZestyError as fault:
            return f"table {seed}: {fault}" if "\n" in str(fault) else None
        except Exception as fault:  # noqa: BLE001 - what this family looks for
            return f"table {seed}: {type(fault).__name__}: {fault}"
    return None


FAMILIES: dict[str, Callable[[int], str | None]] = {"styles for any body": any_body, "tables of people": any_table}
