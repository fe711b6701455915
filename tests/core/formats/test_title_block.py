"""The title block on what is printed, read back by pypdf and as XML."""

from __future__ import annotations

import io
import xml.etree.ElementTree as ET

import pypdf
import pytest

from tests.samples import style
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.printing import Printing

SAID = {
    "season": "winter concert",
    "client": "Isaura",
    "size": "12",
    "cloth": "wool crêpe",
    "date": "2026-11-29",
    "stretch": "15%",
}


@pytest.mark.parametrize("paper", ["A4", "A3", "Letter"])
def test_it_is_on_the_sheet_the_full_page_and_the_first_page(paper: str) -> None:
    told = style([], notes="For the soprano.\nTwo lines.").with_finish(SAID)
    made = outputs(derive(told), ("svg", "pdf"), Printing(paper, packing="kept"))
    words = ("winter concert", "Isaura", "wool crêpe", "2026-11-29", "15 %", "For the soprano. Two lines.")
    (line,) = [one for one in ET.fromstring(made["sheet.svg"]).iter() if one.get("id") == "title_block"]
    assert all(word in line.text for word in words) and line.text.startswith("Test;")
    for name in ("full.pdf", f"tiles-{paper}.pdf"):
        text = " ".join(pypdf.PdfReader(io.BytesIO(made[name])).pages[0].extract_text().split())
        assert all(word in text for word in words), (name, text)
