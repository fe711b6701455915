"""Variants, the list of what was done, the title block and accepted findings in the window, with real events."""

from __future__ import annotations

import json

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.desk.driving import drag, type_into
from tests.samples import move, style
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.steps import registry
from zesty_pivot.desk.title_page import TitlePage
from zesty_pivot.desk.undo_list import UndoList
from zesty_pivot.desk.variant_sheet import VariantSheet

LEFT = Qt.MouseButton.LeftButton
ROUND = {"do": "neck.shape", "on": "front", "shape": "round"}
PARK = {"do": "dart.park", "on": "front", "darts": ["shoulder"], "to": {"station": "centre_bust"}}


def necks(open_desk):  # type: ignore[no-untyped-def]
    """Three necklines over one parked dart: each begun from the card of the neckline, and taken from the gallery."""
    window = open_desk(style([PARK, ROUND]))
    for shape in ("square", "v"):
        window.strip.choose(2)
        window.run("variant.new")
        gallery = window.drawer.gallery("neck.shape")
        gallery.finish()
        QTest.mouseClick(gallery.grid.choices[shape], LEFT)
    return window


def test_three_necklines_in_one_style(open_desk, tmp_path) -> None:
    window = necks(open_desk)
    bar = window.strip.variants
    assert list(bar.tabs) == ["Round", "Square", "V"] and bar.tabs["V"].isChecked() and bar.isVisibleTo(window)
    QTest.mouseClick(bar.tabs["Round"], LEFT)
    assert window.model.style.steps[1].shape == "round"
    # The parked dart is common: put elsewhere once, it is so in all of them.
    window.model.recipe.replace_step(0, registry.read({**PARK, "to": {"station": "side_bust"}}))
    for name in ("Square", "V"):
        window.model.variants.show(name)
        assert window.model.style.steps[0].to.station == "side_bust"
    window.run("variant.next")
    assert window.model.variants.shown == "Round"
    style_file.save(window.model.style, tmp_path / "t.zpiv")
    again = open_desk(style_file.read(tmp_path / "t.zpiv"))
    assert list(again.strip.variants.tabs) == ["Round", "Square", "V"] and again.model.variants.shown == "Round"


def test_they_lie_side_by_side_and_under_each_other(open_desk) -> None:
    window = necks(open_desk)
    window.run("variant.sheet")
    (sheet,) = window.findChildren(VariantSheet)
    sheet.finish()
    assert set(sheet.derived) == set(sheet.cards) == {"Round", "Square", "V"}
    openings = {name: one.girths.neck_opening for name, one in sheet.derived.items()}
    assert len({round(mm, 3) for mm in openings.values() if mm is not None}) == 3
    sheet._show("Square")
    assert window.model.variants.shown == "Square" and not sheet.isVisible()
    window.run("variant.trace")
    assert window.lay.traced.variant == "V" and window.lay.panel == "trace"
    assert any("neckline" in row[0].lower() for row in window.side.trace.seams.rows)


def test_they_are_named_exported_and_taken_away(open_desk, tmp_path, qtbot) -> None:
    window = necks(open_desk)
    window.ask.typed = "For Ina"
    window.run("variant.rename")
    assert window.model.variants.shown == "For Ina"
    window.ask.path = tmp_path / "out"
    window.run("variant.export")
    qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=60_000)
    assert sorted(one.name for one in (tmp_path / "out").iterdir()) == ["For-Ina", "Round", "Square"]
    told = json.loads((tmp_path / "out" / "For-Ina" / "report.json").read_text())
    assert told["variant"] == "For Ina"
    window.run("variant.remove")
    assert [one.name for one in window.model.variants.all] == ["Round", "Square"]
    window.run("variant.remove")
    assert window.model.variants.all == () and not window.strip.variants.isVisibleTo(window)
    for _undo in range(3):
        window.run("edit.undo")
    assert [one.name for one in window.model.variants.all] == ["Round", "Square", "V"]


def test_afresh_from_the_block(open_desk) -> None:
    window = necks(open_desk)
    window.strip.choose(0)
    window.run("variant.new")
    assert window.model.style.steps == () and len(window.model.variants.all) == 4


def test_what_was_done_in_words_and_pictures(open_desk) -> None:
    window = open_desk(style([]))
    before = window.model.style
    for step in (move("shoulder", "french"), move("waist", "mid_shoulder"), ROUND):
        window.model.recipe.add_step(registry.read(step))
    last = window.model.style
    window.run("edit.undo")
    window.run("edit.history")
    (listed,) = window.findChildren(UndoList)
    listed.finish()
    rows = [listed.list.item(k) for k in range(listed.list.count())]
    assert len(rows) == 4 and "taken back" in rows[0].text() and "now" in rows[1].text() and "opened" in rows[3].text()
    assert len({row.icon().pixmap(104, 54).toImage().bits().asstring(104 * 54 * 4) for row in rows}) == 4
    listed.list.setCurrentRow(3)
    QTest.keyClick(listed.list, Qt.Key.Key_Return)
    assert window.model.style == before and not listed.isVisible()
    window.model.travel_to(3)
    assert window.model.style == last and window.model.history.redo_title == ""


def test_the_title_block_is_on_labels_and_kept(open_desk) -> None:
    window = open_desk(style([]))
    window.run("file.title")
    (page,) = window.findChildren(TitlePage)
    for key, text in (("season", "winter concert"), ("client", "Isaura"), ("cloth", "wool crêpe"), ("date", "2026-11-29")):
        page.fields[key].setText(text)
    page.stretch.edit.setText("nothing")
    page.take()
    assert page.isVisible() and page.told.text() and window.model.style.finish.season == ""
    page.stretch.edit.setText("15%")
    page.take()
    assert not page.isVisible() and window.model.style.finish.stretch == "15%"
    written = " ".join(text.text for text in window.model.derived.pieces[0].texts)
    assert all(word in written for word in ("Test, winter concert", "Isaura", "cloth: wool crêpe", "2026-11-29"))
    window.run("edit.undo")
    assert window.model.style.finish.season == ""


def test_a_finding_is_accepted_with_a_reason_and_taken_back(open_desk) -> None:
    window = open_desk(style([ROUND]))
    panel = window.side.reading.findings
    (card,) = [card for card in panel.cards if card.finding.check == "neck_opening"]
    heads = [card.finding.severity.rank for card in panel.cards]
    assert heads == sorted(heads)
    card.accept.click()
    type_into(card.reason, "a zip at CB")
    window.model.pace.check()  # as a moment later
    (card,) = [card for card in panel.cards if card.finding.check == "neck_opening"]
    assert card.finding.accepted == "a zip at CB" and card.property("accepted") and card.mend is None
    assert panel.title.text().endswith(str(len(panel.cards) - 1)) or panel.title.text() == "Findings"
    tighter = registry.read({**ROUND, "depth": "8 cm", "width": "8 cm"})
    window.model.recipe.replace_step(0, tighter)
    window.model.pace.check()
    (card,) = [card for card in panel.cards if card.finding.check == "neck_opening"]
    assert not card.finding.accepted  # it is worse than what was accepted
    window.run("edit.undo")
    window.model.pace.check()
    (card,) = [card for card in panel.cards if card.finding.check == "neck_opening"]
    card.accept.click()
    assert window.model.style.accepted == ()


@pytest.mark.parametrize("keys", [False, True])
def test_a_finding_shows_its_place_on_the_table(open_desk, keys: bool) -> None:
    window = open_desk(style([move("shoulder", "french")]))
    card = next(card for card in window.side.reading.findings.cards if "side seam" in card.finding.message)
    if keys:
        card.setFocus()
        QTest.keyClick(card, Qt.Key.Key_Return)
    else:
        QTest.mouseClick(card, LEFT)
    shown = window.table.pointing.shown
    assert (shown.piece, shown.id) == ("front", "side_seam") and not window.table.grab().isNull()


def test_a_dart_moved_before_others_says_what_became_of_them(open_desk) -> None:
    """Words on the cards say whose step it is; a dart dragged at an earlier card changes what follows, or says it does not."""
    window = open_desk(style([move("shoulder", "french"), move("waist", "mid_shoulder")]))
    assert window.strip.cards[1].figures.text().startswith("Front: ")
    window.strip.choose(1)
    drag(window, "waist", "mid_armhole")
    assert len(window.model.style.steps) == 3 and window.model.state_index == 2
    assert "The 1 step after it follows." in window.message.text()


def test_a_dart_moved_into_the_way_of_a_later_step_says_which_can_no_longer_be_done(open_desk) -> None:
    merged = {"do": "dart.equalise", "on": "front", "darts": ["shoulder", "waist"]}
    window = open_desk(style([move("shoulder", "shoulder_tip"), merged]))
    window.strip.choose(1)
    drag(window, "waist", "shoulder_tip")
    assert "Step 3 after it can no longer be done." in window.message.text(), window.message.text()
