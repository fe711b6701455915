"""What follows a hand from frame to frame, what follows at a pace, and what waits until the hand rests."""

import math

import pytest
from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QImage, QPainter
from PyQt6.QtWidgets import QApplication, QWidget

from tests.samples import move, style
from zesty_pivot.desk.pace import FOLLOW_MS
from zesty_pivot.desk.table.stamps import Stamps, fine
from zesty_pivot.desk.window import SHOWN_MS

CARRIED = [math.radians(20.0 + 3.0 * number) for number in range(12)]


def picked_up(window, dart: str = "shoulder"):  # type: ignore[no-untyped-def]
    """The window with a bead in the hand."""
    window.table.control.pick_up(dart)
    assert window.table.control.carry is not None
    return window.table.control


def colours(image: QImage) -> set[str]:
    return {image.pixelColor(x, y).name() for x in range(0, image.width(), 3) for y in range(0, image.height(), 3)}


def test_the_panels_follow_a_drag_at_a_pace_and_a_drop_at_once(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    control, figures = picked_up(window), window.side.reading
    heard: list[str] = []
    window.model.changed.connect(lambda: heard.append("changed"))
    window.model.pace.followed.connect(lambda: heard.append("followed"))
    for angle in CARRIED:
        control.point(angle)
    assert heard.count("changed") == len(CARRIED) and "followed" not in heard  # the table alone
    before = figures.step_title.text()
    qtbot.waitUntil(lambda: "followed" in heard, timeout=5_000)
    assert heard.count("followed") == 1
    heard.clear()
    control.point(math.radians(140.0))
    control.drop()
    assert heard.count("followed") == 1 and figures.step_title.text() != before  # without a wait
    QApplication.processEvents()
    qtbot.wait(2 * FOLLOW_MS)
    assert heard.count("followed") == 1  # nothing limps behind


def test_findings_are_looked_for_once_the_edit_is_painted(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    model, cards = window.model, window.side.reading.findings
    shown = [card.finding for card in cards.cards]
    model.edit(style([move("shoulder", "french")]), "move")
    assert not model.pace.is_checked and [card.finding for card in cards.cards] == shown  # those of a moment ago
    qtbot.waitUntil(lambda: model.pace.is_checked, timeout=5_000)
    now = [card.finding for card in cards.cards]
    assert now != shown and sorted(now, key=str) == sorted(model.findings, key=str)
    model.undo()
    model.pace.check()  # asked for at once
    assert [card.finding for card in cards.cards] == shown and model.pace.is_checked
    model.choose_pivot(model.pivot, "waist")
    assert model.pace.is_checked  # nothing new to look at


def test_pieces_are_finished_one_in_a_turn_before_the_findings(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    model = window.model
    qtbot.wait(2 * SHOWN_MS)  # the look after the first paint is through
    model.edit(style([move("shoulder", "french")]), "move")
    turns: list[bool] = []
    model.pace._turn.timeout.connect(lambda: turns.append(model.pace.is_checked))
    qtbot.waitUntil(lambda: model.pace.is_checked, timeout=5_000)
    assert len(turns) == len(model.pattern.with_extras) + 1 and turns.count(True) == 1
    assert len(model.look.finished) == len(model.pattern.with_extras)


def test_a_drag_right_after_an_edit_is_no_worse_for_it(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.model.edit(style([move("shoulder", "french")]), "move")
    control = picked_up(window, "waist")
    for angle in CARRIED:
        control.point(angle)
        QApplication.processEvents()
    control.drop()
    qtbot.waitUntil(lambda: window.model.pace.is_checked, timeout=5_000)
    shown = [card.finding for card in window.side.reading.findings.cards]
    assert sorted(shown, key=str) == sorted(window.model.findings, key=str)


@pytest.mark.parametrize("angle", [25.0, 140.0, 300.0])
def test_a_kept_picture_shows_what_is_drawn(open_desk, angle: float) -> None:  # type: ignore[no-untyped-def]
    """The table as it is seen, words and ring from small pictures, against the same drawn whole."""
    window = open_desk(style([]))
    control, table = picked_up(window), window.table
    for by in (0.0, 0.02, 0.0):
        control.point(math.radians(angle) + by)
        table.repaint()
    drawn = QImage(table.size(), QImage.Format.Format_ARGB32_Premultiplied)
    painter = QPainter(drawn)
    table.render_to(painter)
    painter.end()
    seen = table.grab().toImage().convertToFormat(drawn.format())
    ring = table.ring_size()
    pin = table.pin()
    assert pin is not None
    box = QRectF(pin.x() - ring.inner + 8, pin.y() - ring.inner + 8, 2 * ring.inner - 16, 2 * ring.inner - 16).toRect()
    one, other = seen.copy(box), drawn.copy(box)
    apart = [
        abs(one.pixelColor(x, y).lightness() - other.pixelColor(x, y).lightness())
        for x in range(one.width()) for y in range(one.height())
    ]  # fmt: skip
    assert max(apart) <= 40 and sum(apart) / len(apart) < 0.5, (max(apart), sum(apart) / len(apart))
    assert window.table.words.written


class Stamped(QWidget):
    """A widget that draws a square by a stamp, and counts how often the square itself was drawn."""

    def __init__(self) -> None:
        super().__init__()
        self.stamps, self.key, self.drawn = Stamps(), "a", 0

    def paintEvent(self, _event) -> None:  # type: ignore[no-untyped-def]
        self.stamps.begin()
        painter = QPainter(self)
        self.stamps.paint(painter, self.key, QRectF(20.5, 30.25, 11.0, 9.0), self._square)
        painter.end()

    def _square(self, painter: QPainter) -> None:
        self.drawn += 1
        painter.fillRect(QRectF(20.0, 30.0, 12.0, 10.0), self.palette().highlight())


def test_a_stamp_is_drawn_once_at_its_place_and_let_go(qtbot) -> None:  # type: ignore[no-untyped-def]
    widget = Stamped()
    qtbot.addWidget(widget)
    widget.resize(60, 60)
    with qtbot.waitExposed(widget):
        widget.show()
    image = widget.grab().toImage()
    once = widget.drawn
    for _frame in range(3):
        widget.repaint()
    assert widget.drawn == once
    inside = widget.palette().highlight().color().name()
    hits = [(x, y) for x in range(60) for y in range(60) if image.pixelColor(x, y).name() == inside]
    assert (min(hits), max(hits)) == ((20, 30), (31, 39))
    widget.key = "b"
    widget.repaint()
    widget.repaint()
    widget.key = "a"
    widget.repaint()
    assert widget.drawn == once + 2  # two frames without it, and it was let go
    picture = QImage(60, 60, QImage.Format.Format_ARGB32_Premultiplied)
    painter = QPainter(picture)
    widget.stamps.paint(painter, "a", QRectF(20.0, 30.0, 12.0, 10.0), widget._square)
    painter.end()
    assert widget.drawn == once + 3  # what leaves the program is drawn


def test_noise_makes_no_other_place() -> None:
    assert fine(0.1 + 0.2) == fine(0.3) and fine(12.5) == 12.5 and abs(fine(7.77) - 7.77) <= 1 / 32
