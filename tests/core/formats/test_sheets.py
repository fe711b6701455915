"""SVG, PDF, tiles, report, schema: read back by libraries that did not write them."""

import io
import json
import math
import re
import xml.etree.ElementTree as ET
from pathlib import Path

import pypdf
import pytest
import svgelements
from pydantic import TypeAdapter

from tests.samples import move, real_pattern, style
from zesty_pivot.core.exports import registry as export
from zesty_pivot.core.formats import report, schema
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.kept_pages import page_plan
from zesty_pivot.core.formats.pdf_paper import MM
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.report import Report
from zesty_pivot.core.nest.paged import EDGE, PAPERS

STEPS = [move("shoulder", "french"), {"do": "piece.true", "on": "front", "edge": "waist"}]
KEPT = Printing(packing="kept")  # no search
NS = "{http://www.w3.org/2000/svg}"


def test_the_sheet_has_its_groups_and_size() -> None:
    derived = derive(style(STEPS))
    root = ET.fromstring(export.outputs(derived, ("svg",), KEPT)["sheet.svg"])
    assert [group.get("id") for group in root.findall(f"{NS}g")] == ["seam", "cut", "marks", "text"]
    assert root.get("width") == f"{derived.sheet.width:.4f}".rstrip("0").rstrip(".") + "mm"
    view = [float(part) for part in str(root.get("viewBox")).split()]
    assert view[2:] == pytest.approx([derived.sheet.width, derived.sheet.height], abs=1e-3)
    ids = [element.get("id") for element in root.iter() if element.get("id")]
    assert len(ids) == len(set(ids))


def test_seams_measured_by_svgelements() -> None:
    derived = derive(style(STEPS))
    found = export.outputs(derived, ("svg",), KEPT)
    for piece in derived.pattern.pieces:
        svg = svgelements.SVG.parse(_stream(found[f"{piece.name}.svg"]), ppi=25.4)
        shapes = {shape.id: shape for shape in svg.elements() if isinstance(shape, svgelements.Path)}
        for edge in piece.edges:
            length = sum(svgelements.Path(part).length(error=1e-7) for part in shapes[edge.id].as_subpaths())
            assert length == pytest.approx(edge.sewn_length, abs=0.05)


def _stream(content: bytes):  # type: ignore[no-untyped-def]
    return io.StringIO(content.decode())


def test_names_that_are_markup_do_no_harm() -> None:
    evil = style([]).model_copy(update={"name": "<b>&\"'"})
    root = ET.fromstring(export.outputs(derive(evil), ("svg",), KEPT)["sheet.svg"])
    assert root.findtext(f"{NS}title") == "<b>&\"'"


@pytest.mark.parametrize("paper", list(PAPERS))
def test_the_tiled_pdf_has_its_pages_at_size(paper: str, tmp_path: Path) -> None:
    derived = derive(style(STEPS))
    path = tmp_path / "t.pdf"
    printing = Printing(paper, packing="kept")
    path.write_bytes(export.outputs(derived, ("pdf",), printing)[f"tiles-{paper}.pdf"])
    pages, tiles = pypdf.PdfReader(path).pages, page_plan(derived, printing).pages
    assert len(pages) == len(tiles) + 1
    # A4 and A3: ISO 216. Letter 8 1/2 x 11 in, Legal 8 1/2 x 14 in: ANSI/ASME Y14.1, from memory.
    sizes = {"A4": (210, 297), "A3": (297, 420), "Letter": (215.9, 279.4), "Legal": (215.9, 355.6)}
    for page in pages:
        width, height = float(page.mediabox.width) * 25.4 / 72, float(page.mediabox.height) * 25.4 / 72
        assert sorted((width, height)) == pytest.approx(sorted(sizes[paper]), abs=0.01)
    text = pages[0].extract_text()
    assert "10 cm" in text and "4 in" in text and tiles[-1].name in text


def test_the_calibration_squares_measure(tmp_path: Path) -> None:
    derived = derive(style(STEPS))
    for name in ("tiles-A4.pdf", "tiles-A3.pdf", "full.pdf"):
        paper = "A3" if "A3" in name else "A4"
        path = tmp_path / name
        path.write_bytes(export.outputs(derived, ("pdf",), Printing(paper, packing="kept"))[name])
        content = pypdf.PdfReader(path).pages[0].get_contents().get_data().decode("latin-1")
        sides = [
            (float(w) * 25.4 / 72, float(h) * 25.4 / 72)
            for w, h in re.findall(r"[-\d.]+ [-\d.]+ ([-\d.]+) ([-\d.]+) re", content)
        ]
        for wanted in (100.0, 4 * 25.4):  # 1 in = 25.4 mm: international inch, 1959
            assert any(w == pytest.approx(wanted, rel=0.001) and h == pytest.approx(wanted, rel=0.001) for w, h in sides)


def test_two_exports_are_byte_equal() -> None:
    one, two = (export.outputs(derive(style(STEPS)), ("svg", "pdf", "json"), KEPT) for _ in range(2))
    assert one == two and len(one) == 6


def test_the_report_matches_its_schema_and_the_pattern() -> None:
    derived = derive(style([*STEPS, move("side", "french")]))
    value = json.loads(report.dump(report.report(derived)))
    TypeAdapter(Report).validate_python(value)
    assert list(value)[:2] == ["format", "version"]
    required = set(schema.schema("report")["properties"])
    assert set(value) == required
    front = value["pieces"][0]
    assert front["area_mm2"] == pytest.approx(derived.pattern.piece("front").area)
    assert {dart["station"] for dart in front["darts"]} == {"french", "waist"}
    assert value["girths"]["waist"] == pytest.approx(derived.girths.waist)
    (fault,) = [finding for finding in value["findings"] if finding["check"] == "broken_step"]
    assert fault["severity"] == "error" and "no dart 'side'" in fault["message"]


def test_schemas_describe_steps_and_blocks() -> None:
    found = schema.schema("style")
    assert {"dart.move", "piece.true", "BlockFile", "BlockRef"} <= set(found["$defs"])
    assert json.dumps(found)
    for kind in schema.KINDS:
        assert schema.schema(kind)["properties"]


def test_the_pdf_scales_by_points_per_inch() -> None:
    assert pytest.approx(72 / 25.4) == MM
    assert math.isclose(real_pattern().piece("front").edge("centre").sewn_length * MM, 360.666667 * 72 / 25.4, rel_tol=1e-7)


def texts_of(page: pypdf.PageObject) -> list[tuple[str, float, float]]:
    """Every text of a page with where it begins, mm from the page's upper left corner."""
    height = float(page.mediabox.height)
    found: list[tuple[str, float, float]] = []

    def seen(text: str, cm: list[float], tm: list[float], _font: object, _size: float) -> None:
        x, y = tm[4] * cm[0] + tm[5] * cm[2] + cm[4], tm[4] * cm[1] + tm[5] * cm[3] + cm[5]
        if text.strip():
            found.append((text.strip(), x / MM, (height - y) / MM))

    page.extract_text(visitor_text=seen)
    return found


def test_what_is_on_a_tile_lies_where_the_sheet_has_it() -> None:
    """The label of each piece, read back from every page that shows it: its place on the sheet less the tile's corner."""
    derived = derive(style(STEPS))
    large = Printing("A3", packing="kept")
    plan = page_plan(derived, large)
    pages = pypdf.PdfReader(io.BytesIO(export.outputs(derived, ("pdf",), large)["tiles-A3.pdf"])).pages[1:]
    checked, field = 0, plan.setup.field
    for laid in plan.laid:
        (label,) = [text for text in laid.piece.texts if text.text == laid.piece.name]
        x, y = label.at[0] + laid.dx, label.at[1] + laid.dy
        for one, page in zip(plan.pages, pages, strict=False):
            there = x - one.x + EDGE, y - one.y + EDGE
            if EDGE + 25.0 < there[0] < EDGE + field[0] - 25.0 and EDGE < there[1] < EDGE + field[1]:
                places = [(left, down) for text, left, down in texts_of(page) if text == laid.piece.name]
                assert any(abs(down - there[1]) < 0.1 and 0.0 < there[0] - left < 25.0 for left, down in places)
                checked += 1
    assert checked >= 2


def test_captions_stand_inside_their_squares_and_the_page_is_named() -> None:
    derived = derive(style(STEPS))
    files = export.outputs(derived, ("pdf",), KEPT)
    full = pypdf.PdfReader(io.BytesIO(files["full.pdf"])).pages[0]
    sheet = derived.sheet
    assert float(full.mediabox.height) / MM == pytest.approx(sheet.height + 101.6 + 25.0, abs=0.01)
    captions = {text: (x, y) for text, x, y in texts_of(full) if text in ("10 cm", "4 in", "measure before you cut")}
    for name, left, wide in (("10 cm", 15.0, 100.0), ("measure before you cut", 15.0, 100.0), ("4 in", 130.0, 101.6)):
        x, y = captions[name]
        assert left < x < left + wide / 2.0 and sheet.height + 5.0 < y < sheet.height + 5.0 + wide, name
    assert captions["measure before you cut"][1] > captions["10 cm"][1]
    plan = page_plan(derived, KEPT)
    for one, page in zip(plan.pages, pypdf.PdfReader(io.BytesIO(files["tiles-A4.pdf"])).pages[1:], strict=False):
        (foot,) = [(x, y) for text, x, y in texts_of(page) if f"page {one.name} of" in text]
        assert foot[0] == pytest.approx(EDGE, abs=0.1) and plan.setup.height - EDGE < foot[1] < plan.setup.height
