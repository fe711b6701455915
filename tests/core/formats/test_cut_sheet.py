"""The cut sheet: counts and sizes by own arithmetic, read back as CSV, JSON and PDF."""

from __future__ import annotations

import csv
import io
import json

import pypdf
import pytest

from tests.samples import style
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats.cut_sheet import cut_sheet
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.lay_models import LayFile
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.data.demo import _read

NARROW = (LayFile(width="140 cm"),)  # one lay, so that nothing else is laid


def of(name: str):  # type: ignore[no-untyped-def]
    return derive(_read(f"{name}.zpiv").model_copy(update={"lays": NARROW}))


def test_every_piece_with_its_count_cloth_and_allowances() -> None:
    derived = of("rondel")
    made = outputs(derived, ("cut-sheet",), Printing())
    rows = list(csv.DictReader(io.StringIO(made["cut-sheet.csv"].decode())))
    by_name = {row["piece"]: row for row in rows}
    assert len(rows) == len(derived.sheet_pieces)
    back = by_name["Back"]
    assert (back["cut"], back["pieces of cloth"], back["mirrored"]) == ("cut 1 pair", "2", "yes")
    assert by_name["Front"]["cut"] == "cut 1 on the fold" and by_name["Front"]["pieces of cloth"] == "1"
    assert by_name["Waist tie"]["pieces of cloth"] == "4"
    # The school's widths (TRADE.md, industry metric): 1 cm seams, 0.6 cm neck and armhole, 1.5 cm at the CB zip.
    assert back["allowances"] == "1.0 cm; neckline and armhole 0.6 cm; centre 1.5 cm"
    piece = next(one for one in derived.sheet_pieces if one.name == "back")
    low, high = piece.ring.min(axis=0), piece.ring.max(axis=0)
    assert float(back["width mm"]) == pytest.approx(high[0] - low[0], abs=0.2)
    assert float(back["height mm"]) == pytest.approx(high[1] - low[1], abs=0.2)


def test_all_of_it_for_other_programs() -> None:
    derived = of("antiphon")
    value = json.loads(outputs(derived, ("cut-sheet",), Printing())["cut-sheet.json"])
    assert value["format"] == "zesty-pivot/cut-sheet" and value["version"] == 1
    assert {one["name"]: one["cloths"] for one in value["pieces"]}["front_facing"] == ["self", "interfacing"]
    assert {"what": "Interfacing", "how_much": "for the facings"} in value["notions"]
    assert len(value["cloth"]) == 1 and value["cloth"][0]["what"].startswith("Self, 140 cm wide")
    done: set[str] = set()
    for one in value["order"]:
        assert done.issuperset(one["after"])
        done.add(one["id"])
    assert any("1.5 cm" in text or text for text in value["watch"]) == bool(derived.findings)


def test_a_zip_is_as_long_as_the_opening() -> None:
    sheet = cut_sheet(of("rondel"))
    opening = next(one for one in derive(_read("rondel.zpiv")).pattern.openings if one.kind == "zip")
    assert dict(sheet.notions)["Zip"] == f"{opening.length_mm / 10.0:.1f} cm"


def test_the_pages_say_it_all() -> None:
    derived = of("canticle")
    pages = pypdf.PdfReader(io.BytesIO(outputs(derived, ("cut-sheet",), Printing())["cut-sheet.pdf"])).pages
    text = " ".join(" ".join(page.extract_text().split()) for page in pages)
    sheet = cut_sheet(derived)
    for row in sheet.rows:
        assert f"{row.number} {row.name}" in text and row.order in text
    for one in sheet.order:
        assert one.says in text
    for heading in ("Cloth to buy", "Also needed", "Sewing order"):
        assert heading in text
    assert "4 pieces of pattern, 7 pieces of cloth" in text


def test_cloth_for_usual_widths_where_nothing_is_laid_yet() -> None:
    rows = dict(cut_sheet(derive(style([]))).lays)
    assert [name for name in rows if name.startswith("Self")] == [
        f"Self, {width} wide" for width in ("90 cm", "114 cm", "140 cm", "150 cm")
    ]
    assert not any(name.startswith("Lining") for name in rows)
