"""The stand in the window: tried on beside, turned by mouse and keys, compared, mended; in the hand as paper."""

from __future__ import annotations

import time

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QGuiApplication, QImage
from PyQt6.QtTest import QTest

from tests.samples import move, style
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.stand import fitting
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.paper import Held
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.desk.stand import trying_on
from zesty_pivot.desk.stand.stand_among import StandAmong
from zesty_pivot.desk.stand.stand_canvas import SIDES

ENOUGH = 60  # rounds, for what is told of cloth at rest
FINER = 20.0  # and what is finer then
STYLE = [move("shoulder", "waist"), move("waist", "side_bust")]


@pytest.fixture
def at_rest(rough_stand, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    """Let go until it rests, not only for some rounds."""
    monkeypatch.setattr(fitting, "MOST_COARSE", ENOUGH)


@pytest.fixture
def stood(open_desk, qtbot, rough_stand):  # type: ignore[no-untyped-def]
    """Opens the stand on a style and waits until its cloth, which is very coarse, lies still."""

    def opened(shown: Style | None = None):  # type: ignore[no-untyped-def]
        window = open_desk(shown or style(STYLE))
        window.run("view.stand")
        settled(window, qtbot)
        return window, window.views.trying, window.views.stand

    return opened


def settled(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    trying = window.views.trying
    qtbot.waitUntil(lambda: not trying._rest.isActive() and not trying.work.is_at_work, timeout=60_000)


def pixels(view) -> np.ndarray:  # type: ignore[no-untyped-def]
    image = view.canvas.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)
    bits = image.constBits()
    bits.setsize(image.sizeInBytes())
    return np.frombuffer(bits, np.uint8).reshape(image.height(), image.width(), 4)[..., :3].astype(int)


def test_it_is_tried_on_and_told(at_rest: None, stood, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, trying, view = stood()
    ((wanted, shown),) = trying.shown()
    assert isinstance(shown, Fitting) and shown.done == 1.0 and shown.rests
    assert wanted.title == "now" and trying.fault == ""
    assert view.told.cards or "as far as a form can tell" in view.told._nothing.text()
    assert "Estimated for the form" in view.state.text() and "over-bust" in view.state.text()
    assert not view.bar.isVisible() and not view.stop.isEnabled()
    # The picture has the cloth's bands in it, light and dark.
    before = pixels(view)
    assert len(np.unique(before.reshape(-1, 3) // 32, axis=0)) > 20
    for look in ("pull", "cloth", "grain", "paper"):
        view.look.setCurrentIndex(view.look.findData(look))
        view.look.activated.emit(view.look.currentIndex())
        assert view.canvas.look == look
        now = pixels(view)
        assert (now != before).any(), look
        before = now
    # Nothing is worked out again when it is looked at again.
    window.run("view.finish")
    window.run("view.stand")
    assert not trying.work.is_at_work
    assert trying.shown()[0][1] is shown


def test_it_is_turned(stood, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _trying, view = stood()
    canvas = view.canvas
    window.run("stand.front")
    assert canvas.turn == SIDES["front"]
    front = pixels(view)
    window.run("stand.back")
    assert abs(canvas.turn) == pytest.approx(np.pi)
    assert (pixels(view) != front).any()
    window.run("stand.front")
    # Dragged to the left what is seen moves with the hand: the wearer's left, which lies at the right, comes to the front.
    middle = QPoint(canvas.width() // 2, canvas.height() // 2)
    QTest.mousePress(canvas, Qt.MouseButton.LeftButton, pos=middle)
    QTest.mouseMove(canvas, middle + QPoint(-60, 0))
    QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, pos=middle + QPoint(-60, 0))
    assert canvas.turn == pytest.approx(60 * 0.009)
    canvas.setFocus()
    QTest.keyClick(canvas, Qt.Key.Key_Home)
    assert canvas.turn == 0.0
    QTest.keyClick(canvas, Qt.Key.Key_Right)
    QTest.keyClick(canvas, Qt.Key.Key_Down)
    assert canvas.turn == pytest.approx(-np.radians(15.0))
    assert canvas.tilt < 0.0
    scale = canvas.scale
    window.run("view.nearer")
    assert canvas.scale > scale
    window.run("view.fit")
    assert canvas.scale == pytest.approx(scale)
    # What lies under the pointer is said.
    window.run("stand.front")
    canvas._point(canvas.to_px(0.0, -150.0))
    assert "centre front" in canvas.pointed and "off the form" in canvas.pointed
    canvas._point(QPointF(3.0, 3.0))
    assert canvas.pointed == ""
    # Its picture is copied, in the light theme.
    QGuiApplication.clipboard().clear()
    window.set_theme("dark")
    window.run("edit.copy_picture")
    copied = QGuiApplication.clipboard().mimeData().imageData()
    assert copied.width() == 2 * canvas.width()
    assert copied.pixelColor(4, 4).lightness() > 150


def test_it_becomes_sharp_at_rest_and_never_waits(stood, qtbot) -> None:  # type: ignore[no-untyped-def]
    _window, _trying, view = stood()
    canvas = view.canvas
    qtbot.waitUntil(lambda: canvas._shot is not None and not canvas._work.is_at_work, timeout=20_000)
    canvas.face(1.0)
    canvas.grab()
    assert canvas._work.is_at_work  # a coarse picture at once, the sharp one in a thread
    qtbot.waitUntil(lambda: not canvas._work.is_at_work, timeout=20_000)
    assert canvas._shot.pictures[0][0].turn == 1.0
    assert canvas._shot.pictures[0][1].near.shape == (canvas.height(), canvas.width())


def test_beside_it(stood, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, trying, view = stood()
    wide = view.canvas.content_box().width()
    for beside, title in (("before", "before step 2"), ("body:2", "on Maren")):
        assert beside in dict(trying.companions)
        trying.choose(beside=beside)
        settled(window, qtbot)
        (_now, one), (other, two) = trying.shown()
        assert isinstance(one, Fitting) and isinstance(two, Fitting)
        assert other.title.startswith(title)
        assert not np.array_equal(one.gap, two.gap)
    assert two.form is not one.form
    assert view.canvas.content_box().width() > 1.7 * wide
    trying.choose(beside="")
    assert len(trying.shown()) == 1


def test_variants_stand_side_by_side(stood, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, trying, _view = stood()
    window.model.set_view("style")
    window.model.choose_step(1)
    window.run("variant.new")
    window.model.choose_step(1)
    window.run("step.remove")
    window.run("view.stand")
    settled(window, qtbot)
    names = [title for id, title in trying.companions if id.startswith("variant:")]
    assert len(names) == 1
    trying.choose(beside=f"variant:{names[0]}")
    settled(window, qtbot)
    assert [wanted.title for wanted, shown in trying.shown() if shown is not None] == ["now", names[0]]


def test_paper_in_the_hand(stood, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, trying, view = stood()
    trying.choose(on="paper")
    settled(window, qtbot)
    found = trying.shown()
    assert [wanted.title for wanted, _shown in found] == ["front, now", "back, now"]
    assert all(isinstance(shown, Held) and shown.done == 1.0 for _wanted, shown in found)
    assert np.ptp(found[0][1].places[:, 1]) > 20.0  # a cone, not flat
    assert not view.told.cards and "cone" in view.told._nothing.text()
    assert not view.kind.isEnabled() and not view.look.isEnabled()
    assert pixels(view).std() > 5.0


def test_it_follows_the_pattern_and_is_mended(at_rest: None, stood, qtbot) -> None:  # type: ignore[no-untyped-def]
    vesper = next(one for one in demo_styles() if one.name.startswith("Vesper"))
    window, trying, view = stood(vesper)
    first = trying.shown()[0][1]
    card = next(card for card in view.told.cards if card.mend is not None)
    steps = len(window.model.style.steps)
    QTest.mouseClick(card.mend, Qt.MouseButton.LeftButton)
    assert len(window.model.style.steps) == steps + 1
    assert window.model.style.steps[-1].do == "neck.gape"
    settled(window, qtbot)
    assert trying.shown()[0][1] is not first
    window.run("edit.undo")
    assert window.model.style.steps == vesper.steps
    settled(window, qtbot)
    other = next(card for card in view.told.cards if abs(card.told.place[1]) > 20.0)
    QTest.mouseClick(other, Qt.MouseButton.LeftButton)
    assert np.cos(view.canvas.turn) * other.told.place[1] > -80.0  # turned so that it is seen


def test_it_is_stopped_and_the_interface_goes_on(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style(STYLE))
    window.run("view.stand")
    trying = window.views.trying
    assert trying.work.is_at_work
    qtbot.waitUntil(lambda: trying.shown()[0][1] is not None, timeout=30_000)
    assert window.views.stand.stop.isEnabled()
    window.run("stand.stop")
    began = time.monotonic()
    trying.work.close()
    assert time.monotonic() - began < 2.0
    assert "Stopped" in window.views.stand.state.text()
    assert 0.0 < trying.done < 1.0


def test_what_cannot_be_tried_on_says_why(open_desk, qtbot, rough_stand) -> None:  # type: ignore[no-untyped-def]
    bare = style([])
    bare = bare.model_copy(update={"block": bare.block.model_copy(update={"measurements": {}})})
    window = open_desk(bare)
    window.run("view.stand")
    assert "nobody's bust is known" in window.views.stand.state.text()
    window.views.trying.choose(on="2")
    settled(window, qtbot)
    assert isinstance(window.views.trying.shown()[0][1], Fitting)


def test_a_demo_child(stood) -> None:  # type: ignore[no-untyped-def]
    carol = next(one for one in demo_styles() if one.name.startswith("Carol"))
    _window, trying, view = stood(carol)
    shown = trying.shown()[0][1]
    assert shown.form.is_child
    assert all("bust point" not in card.words.text() for card in view.told.cards)
    assert derive(carol).pattern.has("front_yoke")


# Beside the table.


@pytest.fixture
def beside(open_desk, qtbot, monkeypatch, rough_stand):  # type: ignore[no-untyped-def]
    """Opens a style on the table, coarse cloth on the stand beside it, and waits until that lies still."""
    monkeypatch.setattr(trying_on, "FINE", FINER)

    def opened(shown: Style):  # type: ignore[no-untyped-def]
        window = open_desk(shown)
        window.run("panel.stand")
        settled(window, qtbot)
        return window, window.views.trying, window.side.stand

    return opened


def test_it_stands_beside_the_table_and_follows_the_hand(beside, qtbot, rough_stand) -> None:  # type: ignore[no-untyped-def]
    window, trying, panel = beside(style(STYLE))
    assert window.model.view == "style" and window.side.stack.currentWidget() is panel
    ((_wanted, first),) = trying.shown()
    assert first.step == rough_stand and first.done == 1.0
    assert panel.state.text() in ("", "It moved a little still when it was left.")
    window.canvas().setFocus()
    # A dart is dragged: nothing is tried on until the hand rests, then what it holds is.
    model = window.model
    held = [*STYLE, move("waist", "mid_armhole", share="50%")]
    model.preview(style(held))
    qtbot.wait(130)
    assert trying._rest.isActive() and not trying.work.is_at_work
    settled(window, qtbot)
    dragged = trying.shown()[0][1]
    assert dragged is not first and dragged.step == rough_stand
    assert dragged.gap.shape != first.gap.shape or not np.array_equal(dragged.gap, first.gap)
    model.preview(None)
    settled(window, qtbot)
    assert trying.shown()[0][1] is first  # known already
    # Larger: the same in a view of its own, finer, begun from what is there.
    trying.choose(beside="block")
    settled(window, qtbot)
    assert len(trying.shown()) == 1  # beside the table there is room for one
    trying.choose(beside="")
    window.run("view.stand")
    assert trying.work.is_at_work and trying.shown()[0][1] is first  # what lies still is seen until then
    qtbot.waitUntil(lambda: not trying.work.is_at_work, timeout=60_000)
    finer = trying.shown()[0][1]
    assert finer.step == FINER and finer.done == 1.0
    window.run("view.style")
    assert not trying.work.is_at_work and trying.shown()[0][1] is finer


def test_what_it_tells_stands_among_the_findings(at_rest: None, beside, qtbot) -> None:  # type: ignore[no-untyped-def]
    vesper = next(one for one in demo_styles() if one.name.startswith("Vesper"))
    window, trying, panel = beside(vesper)
    among = window.side.reading.findChild(StandAmong)
    window.run("panel.reading")
    told = [card.words.text() for card in panel.told.cards]
    assert told and [card.words.text() for card in among.told.cards] == told and among.isVisible()
    window.model.choose_step(0)  # another pattern is on the table: what was told is not of it
    assert not among.isVisible()
    window.model.choose_step(None)
    settled(window, qtbot)
    assert among.isVisible()
    mend = next(card.mend for card in among.told.cards if card.mend is not None)
    QTest.mouseClick(mend, Qt.MouseButton.LeftButton)
    assert window.model.style.steps[-1].do == "neck.gape" and not among.isVisible()
    window.run("edit.undo")
    # A click, or the keys, show the stand.
    assert among.isVisible()
    card = among.told.cards[0]
    QTest.keyClick(card, Qt.Key.Key_Return)
    assert window.model.view == "stand"
    assert trying.fault == ""


def test_it_is_put_on_the_sheets(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style(STYLE))
    window.run("view.paper")
    box = window.views.paper.pages.stood
    assert not box.isChecked() and not window.paging.printing.on_stand
    QTest.mouseClick(box, Qt.MouseButton.LeftButton, pos=QPoint(8, box.height() // 2))
    assert window.paging.printing.on_stand and window.keeper.settings.on_stand
