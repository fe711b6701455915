"""The recipe strip: look back, edit, name, duplicate, drag, menu; pictures; no lag."""

from collections import OrderedDict

from PyQt6.QtCore import QMimeData, QPoint, QPointF, QRect, Qt
from PyQt6.QtGui import QContextMenuEvent, QDragEnterEvent, QDragMoveEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMenu

from tests.samples import move, style
from zesty_pivot.desk import thumbs
from zesty_pivot.desk.card import MIME, PICTURE

STEPS = [move("shoulder", "french"), move("waist", "side_bust", "50%"), {"do": "piece.true", "on": "front", "edge": "waist"}]


def test_a_card_is_named_in_place(open_desk) -> None:
    window = open_desk(style(STEPS))
    window.strip.choose(2)
    window.run("step.rename")
    edit = window.strip.cards[2].name_edit
    QTest.keyClicks(edit, "For the clasp")
    QTest.keyClick(edit, Qt.Key.Key_Return)
    assert window.model.style.steps[1].name == "For the clasp" and window.strip.cards[2].name_edit is None
    assert "For the clasp" in window.strip.cards[2].title.text()
    window.run("step.rename")
    QTest.keyClicks(window.strip.cards[2].name_edit, "no")
    QTest.keyClick(window.strip.cards[2].name_edit, Qt.Key.Key_Escape)
    assert window.model.style.steps[1].name == "For the clasp"
    window.run("edit.undo")
    assert window.model.style.steps[1].name == ""


def test_a_double_click_goes_to_the_fields(open_desk) -> None:
    window = open_desk(style(STEPS))
    window.lay.show_panel("hand")
    QTest.mouseDClick(window.strip.cards[1], Qt.MouseButton.LeftButton)
    assert window.lay.panel == "reading" and window.model.step == 0
    assert window.focusWidget() is window.side.reading.form("dart.move").share.edit
    window.strip.choose(3)
    window.run("step.edit")
    assert window.focusWidget() is window.side.reading.form("piece.true").over.edit


def test_duplicate_and_remove(open_desk) -> None:
    window = open_desk(style(STEPS))
    window.strip.choose(3)
    window.run("step.duplicate")
    assert window.model.style.steps[3] == window.model.style.steps[2] and window.model.step == 3
    assert "runs smooth already" in window.message.text()
    window.run("step.remove")
    assert len(window.model.style.steps) == 3


def dragged(window, step: int, x: float) -> None:  # type: ignore[no-untyped-def]
    """A card dragged to a place of the row and dropped; the events a drag sends."""
    data = QMimeData()
    data.setData(MIME, str(step).encode())
    row = window.strip._inside
    left, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    at = QPointF(x, 40)
    for event in (
        QDragEnterEvent(at.toPoint(), Qt.DropAction.MoveAction, data, left, none),
        QDragMoveEvent(at.toPoint(), Qt.DropAction.MoveAction, data, left, none),
    ):
        QApplication.sendEvent(row, event)
    assert row.goal is not None and not row.grab().isNull()
    QApplication.sendEvent(row, QDropEvent(at, Qt.DropAction.MoveAction, data, left, none))
    assert row.goal is None


def test_cards_are_dragged_to_another_place(open_desk) -> None:
    window = open_desk(style(STEPS))
    first = window.model.style.steps
    cards = window.strip.cards
    dragged(window, 0, cards[3].geometry().right() + 5)
    assert window.model.style.steps == (first[1], first[2], first[0]) and window.model.step == 2
    dragged(window, 2, cards[0].geometry().right())
    assert window.model.style.steps == first and window.model.history.undo_title.startswith("move")
    count = len(window.model.history.values)
    dragged(window, 1, cards[2].geometry().center().x() + 3)
    assert window.model.style.steps == first and len(window.model.history.values) == count


def test_the_menu_of_a_card(open_desk) -> None:
    window = open_desk(style(STEPS))
    card = window.strip.cards[2]
    event = QContextMenuEvent(QContextMenuEvent.Reason.Mouse, QPoint(5, 5), card.mapToGlobal(QPoint(5, 5)))
    QApplication.sendEvent(card, event)
    assert window.model.step == 1
    (menu,) = [m for m in window.findChildren(QMenu) if m.isVisible()]
    titles = [action.text() for action in menu.actions()]
    assert "Duplicate the step" in titles and "Name the step" in titles and "Another variant from here" in titles
    menu.close()


def test_looking_back_and_on(open_desk) -> None:
    window = open_desk(style(STEPS))
    for expected in (2, 1, 0):
        window.run("look.back")
        assert window.model.state_index == expected
    assert not window.qt_action("look.back").isEnabled()
    window.run("look.on")
    assert window.model.state_index == 1 and window.model.step == 0


def test_pictures_come_one_after_the_other(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    """Forty steps: the first cards have pictures at once, the rest follow while the window answers."""
    window = open_desk(style([move("shoulder", "french"), move("shoulder", "mid_shoulder")] * 20))
    assert len(window.strip.cards) == 41
    qtbot.waitUntil(lambda: all(not card.picture.pixmap().isNull() for card in window.strip.cards), timeout=5000)
    before = [card.picture.pixmap().cacheKey() for card in window.strip.cards]
    window.model.edit(window.model.style.model_copy(update={"notes": "x"}), "note")
    assert [card.picture.pixmap().cacheKey() for card in window.strip.cards] == before


def test_what_is_shown_keeps_its_picture(open_desk, monkeypatch) -> None:
    """Once went wrong: of a full store the oldest picture was dropped, though the block's is shown all the time."""
    window = open_desk(style(STEPS))
    patterns, block = [state.pattern for state in window.model.derived.derivation.states], window.model.derived.derivation.block
    monkeypatch.setattr(thumbs, "_kept", OrderedDict())
    monkeypatch.setattr(thumbs, "LIMIT", 3)
    first = thumbs.thumbnail(patterns[0], block, PICTURE, 1.0).cacheKey()
    for pattern in patterns[1:]:
        thumbs.thumbnail(pattern, block, PICTURE, 1.0)
        assert thumbs.thumbnail(patterns[0], block, PICTURE, 1.0).cacheKey() == first
    assert not thumbs.is_drawn(patterns[1], PICTURE, 1.0) and thumbs.is_drawn(patterns[-1], PICTURE, 1.0)


def test_a_low_window_has_a_low_strip(open_desk) -> None:
    window = open_desk(style(STEPS))
    tall = window.strip.height()
    window.resize(853, 505)
    assert window.strip.height() < tall and not window.strip.cards[1].picture.isVisible()
    window.resize(1280, 800)
    assert window.strip.height() == tall and window.strip.cards[1].picture.isVisible()


def test_the_strip_scrolls_while_a_card_is_dragged(open_desk) -> None:
    window = open_desk(style([move("shoulder", "french"), move("shoulder", "mid_shoulder")] * 8))
    bar = window.strip._area.horizontalScrollBar()
    window.strip.choose(1)
    QTest.qWait(30)
    begun = bar.value()
    window.strip.reveal(bar.pageStep() + begun)
    assert bar.value() > begun
    last = window.strip.cards[-1]
    dragged(window, 0, last.geometry().right() + 5)
    assert window.model.step == 15


def test_words_of_a_step_take_two_lines_at_most(open_desk) -> None:  # type: ignore[no-untyped-def]
    """Words break where they like: three lines made the cards higher than the strip."""
    long = [
        {"do": "piece.let_out", "on": "front"},
        {"do": "neck.shape", "on": "front", "shape": "queen_anne"},
        {"do": "trim.armhole", "on": "front", "shoulder_in": "1 cm", "back": "razor"},
    ]
    window = open_desk(style([move("shoulder", "waist"), *long]))
    for card in window.strip.cards[1:]:
        lines = card.figures.fontMetrics()
        room = QRect(0, 0, card.figures.width(), 1000)
        taken = lines.boundingRect(room, Qt.TextFlag.TextWordWrap, card.figures.text()).height()
        assert taken <= 2 * lines.lineSpacing(), card.figures.text()
        assert card.sizeHint().height() < window.strip.height()
