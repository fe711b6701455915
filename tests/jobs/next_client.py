"""The job that comes again with every client: a style in eight sizes and for three people, named, nested, printed."""

from __future__ import annotations

import csv
import json
import tempfile
import xml.etree.ElementTree as ElementTree
from pathlib import Path
from typing import Any

import pypdf
from PyQt6.QtCore import QPoint
from PyQt6.QtWidgets import QApplication

from tests.jobs.figures import Sheets, is_
from tests.jobs.hand import Hand
from zesty_pivot.core.piece import Pattern

LEFT_OUT = ("regular · 34", "regular · 52")
SVG = "{http://www.w3.org/2000/svg}"


def wait(is_so: Any) -> None:
    """The hand waits; the program works."""
    while not is_so():
        QApplication.processEvents()


def tick(hand: Hand, title: str) -> None:
    """Ticks a size or person, or takes the tick away; turns the wheel where it is not seen."""
    known = hand.window.views.in_sizes.view.list
    row = known._rows[title]
    port = known.viewport()
    if not port.rect().contains(known.visualItemRect(row)):
        hand.counted["P"] += 1
        known.scrollToItem(row, known.ScrollHint.PositionAtTop)
        QApplication.processEvents()
    box = known.visualItemRect(row)
    hand.click(port, QPoint(box.left() + 10, box.center().y()))


def j26(hand: Hand) -> None:
    for dart in [bead.dart for bead in hand.window.table.ring().beads]:
        hand.bead(dart, "french")  # the style of J18: its making is a job of its own
    hand.settle()
    hand.counted.clear()
    window, folder = hand.window, Path(tempfile.mkdtemp())
    window.ask.folder = lambda _title: folder
    hand.think()
    hand.press("Sizes")
    sizes = window.views.in_sizes.sizes
    people = [one.title for one in sizes.who.everybody if not one.is_child and not one.fault][-3:]
    hand.think()
    for title in (*LEFT_OUT, *people):
        tick(hand, title)
    wait(lambda: not sizes.is_at_work)
    hand.think()
    hand.press("Write all")
    QApplication.processEvents()
    hand.press("Write these sizes…")
    wait(lambda: not window.views.in_sizes.writing.work.is_at_work)
    hand.seen |= {"folder": folder, "people": people, "shown": sizes.who.shown, "said": window.views.in_sizes.writing.said()}


def j26_check(_sheets: Sheets, _pattern: Pattern, seen: dict[str, Any]) -> str:
    folder, shown = seen["folder"], seen["shown"]
    made = [json.loads(line) for line in (folder / "bodies.jsonl").read_text().splitlines()]
    # Every size and person named, sound, with pages to print at true size.
    assert [line["name"] for line in made] == [one.title for one in shown] and len(made) == 11
    assert [line["name"] for line in made][-3:] == seen["people"]
    assert all(line["valid"] for line in made), [line for line in made if not line["valid"]]
    eases = []
    for line, one in zip(made, shown, strict=True):
        report = json.loads((folder / line["where"] / "report.json").read_text())
        eases.append(report["girths"]["bust"] - dict(one.lengths)["bust"])
        pages = pypdf.PdfReader(folder / line["where"] / "tiles-A4.pdf").pages
        assert len(pages) > 4
    is_("ease at the bust, from size to size", max(eases[:8]) - min(eases[:8]), 0.0, 5.0)
    # Nested: a layer a size, each the sheet of that size.
    layers = [
        group.get_object()["/Name"]
        for group in pypdf.PdfReader(folder / "nested" / "nested.pdf").trailer["/Root"]["/OCProperties"]["/OCGs"]
    ]
    assert layers == [one.title for one in shown]
    groups = {one.get("id"): one for one in ElementTree.parse(folder / "nested" / "nested.svg").getroot()}
    assert all(f"size-{n}" in groups for n in range(1, 12))
    rows = list(csv.DictReader((folder / "nested" / "growth.csv").read_text(encoding="utf-8-sig").splitlines()))
    waist = next(row for row in rows if (row["piece"], row["edge"]) == ("back", "waist"))
    lengths = [float(cell) for title, cell in waist.items() if title.startswith("regular")]
    assert lengths == sorted(lengths) and len(lengths) == 8
    assert not any(row["look at"] for row in rows), [row for row in rows if row["look at"]]
    return (
        f"{len(made)} written, named and sound; {len(layers)} layers; ease at the bust {min(eases):.0f} to {max(eases):.0f} mm"
    )
