"""Three things as somebody does them who has read nothing, from the start page, by what can be seen: in twelve actions at most.

An action is a click, a drag, an item taken from an opened list (two), a number written into a field with its Enter, or the
answer to a dialog.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from pathlib import Path

import pypdf
import pytest
from PyQt6.QtCore import QPoint
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QPushButton

from tests.desk.test_pointing import spot
from tests.jobs.hand import Hand
from zesty_pivot.core.formats.library import girths_of
from zesty_pivot.data.demo import PHOTOGRAPH, demo_photograph, demo_style
from zesty_pivot.desk.model import IMPORT

MOST = 12


class Newcomer:
    """Counts what is done."""

    def __init__(self, hand: Hand) -> None:
        self.hand = hand
        self.did: list[str] = []

    def press(self, title: str) -> None:
        self.hand.press(title)
        self.did.append(title)

    def drag(self, dart: str, station: str) -> None:
        self.hand.bead(dart, station)
        self.hand.look()
        self.did.append(f"the {dart} dart's bead to {station}")

    def take(self, key: str, title: str) -> None:
        self.hand.choose(key, title)
        self.did += [f"the list {key}", title]

    def write(self, key: str, text: str) -> None:
        self.hand.fill(key, text)
        self.hand.settle()
        self.did.append(f"{text} as {key}")


@pytest.fixture
def newcomer(open_desk, tmp_path: Path) -> Iterator[Newcomer]:  # type: ignore[no-untyped-def]
    window = open_desk()
    window.begin(with_start_page=True)
    who = Newcomer(Hand(window))
    who.press("New style over the demo's block")
    assert not window.model.style.steps and window.model.view == "style"
    yield who
    assert len(who.did) <= MOST, who.did


def test_a_french_dart_with_both_darts_trued_and_printed(newcomer: Newcomer, tmp_path: Path) -> None:
    window = newcomer.hand.window
    newcomer.drag("shoulder", "french")
    newcomer.drag("waist", "french")
    (dart,) = window.model.pattern.piece("front").darts
    assert window.model.pattern.piece("front").dart_edge(dart.id) == "side_seam"
    (button,) = [one for one in window.side.findChildren(QPushButton) if one.isVisible() and one.text().startswith("True all")]
    newcomer.press(button.text())
    assert not [one for one in window.model.findings if one.check == "corners"]
    window.ask.path = tmp_path / "french.pdf"
    newcomer.press("Paper")
    newcomer.press("Save the PDF to print")
    newcomer.did.append("the name of the file")
    assert len(pypdf.PdfReader(tmp_path / "french.pdf").pages) > 4


def test_a_round_neck_wider_and_deeper_with_its_facing(newcomer: Newcomer) -> None:
    window = newcomer.hand.window
    block = window.model.derived.derivation.block.piece("front")
    window.drawer.doors.buttons["necklines"].click()
    tile = window.drawer.tiles["necklines"].grid.choices["neck.shape"]
    tile.click()
    newcomer.did += ["the door of the necklines", "its first tile"]
    newcomer.take("width_from", "from the neck point")
    newcomer.write("width", "2")
    newcomer.take("depth_from", "below the block's neckline")
    newcomer.write("depth", "3")
    newcomer.hand.window.drawer.go_back()
    window.drawer.doors.buttons["seams"].click()
    window.drawer.tiles["seams"].grid.choices["piece.facing"].click()
    newcomer.did += ["back to the doors", "the door of seams and pieces", "the facing's tile"]
    front = window.model.pattern.piece("front")
    assert float(front.corner("centre_neck")[1] - block.corner("centre_neck")[1]) == pytest.approx(30.0, abs=0.01)
    assert math.dist(front.corner("neck_point"), block.corner("neck_point")) > 15.0
    assert {extra.piece.name for extra in window.model.pattern.extras} == {"front_facing", "back_facing"}


def test_a_princess_line_from_the_armhole(newcomer: Newcomer) -> None:
    window = newcomer.hand.window
    at = spot(window, "front", "armhole", 0.5)
    newcomer.hand.click(window.table, QPoint(at))
    newcomer.did.append("the front's armhole")
    (button,) = [one for one in window.table.findChildren(QPushButton) if one.text().strip() == "Princess line from here"]
    newcomer.hand.click(button)
    newcomer.did.append("Princess line from here")
    (step,) = window.model.style.steps
    assert step.from_.station == "mid_armhole" and not window.model.derived.derivation.broken


def test_a_photograph_to_a_printed_style_in_four_minutes(open_desk, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """From the start page by keys and clicks alone: the photograph, what it asks, a French dart, the pages; timed by the
    keystroke-level model, the names of files typed."""
    window = open_desk()
    window.begin(with_start_page=True)
    hand = Hand(window)
    photograph = tmp_path / PHOTOGRAPH
    photograph.write_bytes(demo_photograph())

    def answered(path: Path) -> None:
        """The dialog that comes next: the name is typed, then Enter."""
        hand.window.ask.path = path
        hand.think()
        hand.counted["K"] += len(path.name) + 1

    answered(photograph)
    hand.press("A block from a drawing or photo…")
    while window.worker.is_busy:
        QTest.qWait(20)
    QTest.qWait(50)
    assert window.model.view == IMPORT
    incoming, view = window.views.intake.incoming, window.views.intake.import_view
    ((number, guess),) = incoming.unsure  # all that is asked: whether the back is on the fold
    assert guess.what == "fold"
    hand.think()
    hand.click(view._rows[number, guess.what])
    QTest.qWait(20)
    entry = next(action for action in view.menu.actions() if "fold" in action.text().lower())
    hand.counted["P"] += 1
    hand.counted["B"] += 2
    entry.trigger()
    view.menu.close()
    assert not incoming.unsure
    hand.press("New style over this block")
    assert window.model.view == "style" and not window.model.style.steps
    hand.bead("shoulder", "french")
    hand.look()
    (button,) = [one for one in window.side.findChildren(QPushButton) if one.isVisible() and one.text().startswith("True all")]
    hand.press(button.text())
    answered(tmp_path / "french.pdf")
    hand.press("Paper")
    hand.press("Save the PDF to print")
    assert len(pypdf.PdfReader(tmp_path / "french.pdf").pages) > 4
    assert hand.minutes < 4.0
    # What is printed is the paper's own block: its bust and waist as the ruler has them on the paper, within a millimetre.
    kept = girths_of(window.model.style.block)
    wanted = girths_of(demo_style().block)
    assert kept.bust == pytest.approx(wanted.bust, abs=1.5) and kept.waist == pytest.approx(wanted.waist, abs=1.5)
