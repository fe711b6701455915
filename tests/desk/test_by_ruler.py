"""A block measured with a ruler in the real window: typed field by field, what does not close, darts, undo, its file."""

from __future__ import annotations

import math
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.core.intake.comparing import apart
from tests.ruled_blocks import ruler_file
from tests.samples import real_block
from zesty_pivot.core.formats import ruled
from zesty_pivot.core.piece import Body
from zesty_pivot.desk.model import IMPORT, RULER
from zesty_pivot.desk.settings import intake_folder


@pytest.fixture
def window(open_desk):  # type: ignore[no-untyped-def]
    found = open_desk()
    found.run("ruler.show")
    assert found.model.view == RULER
    return found


def typed(field, text: str) -> None:  # type: ignore[no-untyped-def]
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)


def test_a_whole_block_typed_by_keys(window) -> None:  # type: ignore[no-untyped-def]
    """Darts added to the edges, every distance in centimetres to a tenth of a millimetre, both pieces; then made a block."""
    view, ruling = window.views.intake.ruler_view, window.views.intake.ruling
    wanted = ruler_file(real_block(), curve_points=0)
    for body in ("front", "back"):
        ruling.set_body(Body(body))
        measures = wanted.front if body == "front" else wanted.back
        for edge, items in measures.items.items():
            for item in items:
                view.edge.setCurrentIndex(view.edge.findData(edge))
                view.buttons[f"add.{item}"].click()
        for id, row in measures.distances.items():
            for source, mm in row.items():
                typed(view.fields[id, source], f"{float(mm) / 10:.2f}")
        for edge, mm in measures.along.items():
            typed(view.lengths[edge], f"{float(mm) / 10:.2f}")
    assert ruling.source.notes() == []
    view.buttons["ruler.finish"].click()
    assert window.model.view == IMPORT
    off = apart(real_block(), window.views.intake.incoming.block)
    assert off.seam < 0.3 and off.dart < 0.1
    assert not any(guess.what == "corners" for _number, guess in window.views.intake.incoming.unsure)


def test_enter_goes_on_and_what_is_no_length_stays_and_is_told(window) -> None:  # type: ignore[no-untyped-def]
    view, ruling = window.views.intake.ruler_view, window.views.intake.ruling
    first, second = view.fields["centre_waist", "centre_neck"], view.fields["centre_waist", "side_waist"]
    typed(first, "36")
    assert second.hasFocus() and ruling.text("centre_waist", "centre_neck") == "36.0"
    typed(second, "eleven and")
    assert second.text() == "eleven and" and "eleven" in second.toolTip() and second.property("fault")
    assert ruling.text("centre_waist", "side_waist") == ""
    QTest.keyClick(second, Qt.Key.Key_Escape)
    assert second.text() == "" and not second.fault
    typed(view.fields["neck_point", "centre_neck"], "4 1/4 in")
    typed(view.fields["neck_point", "centre_waist"], "44.5")
    points = window.views.intake.ruler_view.canvas.points
    at = points["neck_point"]
    assert math.hypot(at.x(), at.y()) == pytest.approx(4.25 * 25.4, abs=1e-3)
    assert math.hypot(at.x(), at.y() - 360.0) == pytest.approx(445.0, abs=1e-3)


def test_a_wrong_measure_is_named(window, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "w.zruler"
    path.write_bytes(ruled.dump(ruler_file(real_block(), curve_points=0)))
    ruling, view = window.views.intake.ruling, window.views.intake.ruler_view
    ruling.open_file(path)
    assert ruling.suspects == () and not ruling.open
    QTest.qWait(20)  # the new fields are shown
    view.go_to("underarm")
    mm = float(ruling.text("underarm", "centre_waist"))
    typed(view.fields["underarm", "centre_waist"], f"{mm + 8:.1f}")
    assert ("underarm", "centre_waist") in ruling.suspects
    says = " ".join(label.text() for label in (view.says.itemAt(k).widget() for k in range(view.says.count())))
    assert "Measure again" in says and "underarm from centre waist" in says
    assert ruling.lit in ("underarm", "side_waist")  # Enter went on
    window.run("edit.undo")
    assert not ruling.open and view.fields["underarm", "centre_waist"].text() == ruling.text("underarm", "centre_waist")


def test_another_unit_keeps_the_lengths(window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "w.zruler"
    file = ruler_file(real_block(), curve_points=0)
    path.write_bytes(ruled.dump(file))
    ruling = window.views.intake.ruling
    ruling.open_file(path)
    before = dict(ruling.source.nets[Body.FRONT].points)
    ruling.set_unit("in")
    assert ruling.text("underarm", "centre_neck").endswith(" mm")
    for id, at in ruling.source.nets[Body.FRONT].points.items():
        assert at == pytest.approx(before[id], abs=1e-9)
    monkeypatch.setattr(window.ask, "save_file", lambda *_asked: tmp_path / "again")
    window.run("ruler.save")
    monkeypatch.setattr(window.ask, "open_file", lambda *_asked: tmp_path / "again.zruler")
    window.run("ruler.begin_again")
    assert not window.qt_action("ruler.finish").isEnabled()
    window.run("ruler.open")
    assert ruling.file.units == "in" and ruling.source.pieces
    (tmp_path / "again.zruler").write_text("{")
    window.run("ruler.open")
    assert "again.zruler" in window.message.text() and ruling.source.pieces


def test_a_dart_is_taken_out_with_its_distances(window, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "w.zruler"
    path.write_bytes(ruled.dump(ruler_file(real_block(), curve_points=0)))
    ruling, view = window.views.intake.ruling, window.views.intake.ruler_view
    ruling.open_file(path)
    view.outs["shoulder", 0].click()
    assert not any(id.startswith("shoulder:") for id in ruling.measures.distances)
    assert ruling.source.pieces[Body.FRONT]
    window.run("edit.undo")
    assert any(id.startswith("shoulder:") for id in ruling.measures.distances)


def test_the_sheet_is_there_again(window, open_desk, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """As it was left, in another window; a kept sheet that is broken is an empty one."""
    typed(window.views.intake.ruler_view.fields["centre_waist", "centre_neck"], "36.5")
    window.keeper.writer.flush()
    again = open_desk()
    assert again.views.intake.ruling.text("centre_waist", "centre_neck") == "36.5"
    (intake_folder() / "sheet").write_bytes(b"{")
    assert open_desk().views.intake.ruling.measures.distances == {}


def test_a_dropped_sheet_is_opened(window, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "w.zruler"
    path.write_bytes(ruled.dump(ruler_file(real_block(), curve_points=0)))
    window.model.set_view("style")
    window.take(path)
    assert window.model.view == RULER and window.views.intake.ruling.source.pieces
