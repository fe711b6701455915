"""The practise panel as a user meets it: a question, a guess, the answer on the table, the score, nothing changed."""

from PyQt6.QtTest import QTest

from tests.desk.driving import type_into
from tests.samples import move, style
from zesty_pivot.desk.panels.practise import step_of
from zesty_pivot.desk.settings import load


def asked(window, kind: str, seed: int = 3):  # type: ignore[no-untyped-def]
    window.run("panel.practise")
    panel = window.side.practise
    panel.begin_with(seed, kind)
    return panel


def test_a_mouth_is_guessed_and_shown(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    panel = asked(window, "whole")
    before = window.model.pattern
    assert panel.guess.isVisible() and not panel.places[0].isVisible() and not panel.keep.isVisible()
    panel.show_it.click()  # without a guess nothing is shown
    assert not panel.is_shown and "guess first" in window.message.text()
    type_into(panel.guess.edit, f"{panel.asked.mouth_mm / 10:.1f} cm")
    assert panel.is_shown and panel.verdict.text().startswith("Right") and window.model.pattern is not before
    assert window.model.style.steps == () and not window.model.file.is_dirty  # only a preview
    assert window.keeper.settings.practise == {"whole": (1, 1)}
    panel.next_one.click()
    assert window.model.pattern == before and not panel.is_shown
    type_into(panel.guess.edit, "90 cm")
    assert panel.verdict.text().startswith("It is") and window.keeper.settings.practise == {"whole": (2, 1)}
    window.run("panel.reading")
    assert window.model.pattern == before and panel.asked is None


def test_a_place_is_chosen_by_keys_and_kept_as_a_step(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([move("waist", "mid_armhole", "30%")]))
    panel = asked(window, "where")
    shown = [place for place in panel.places if place.isVisible()]
    assert len(shown) == len(panel.asked.choices) and not panel.guess.isVisible()
    right = panel.places[panel.asked.choices.index(panel.asked.answer)]
    right.setFocus()
    right.click()
    panel.show_it.click()
    assert panel.verdict.text().startswith("Right") and not right.isEnabled()
    step = step_of(panel.asked.move)
    panel.keep.click()
    assert window.model.style.steps[-1] == step and window.model.history.undo_title
    assert panel.asked is not None and not panel.is_shown  # the next question is about the new pattern


def test_the_score_is_kept_and_can_be_begun_anew(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    panel = asked(window, "share")
    type_into(panel.guess.edit, "1 mm")
    assert window.keeper.settings.practise["share"] == (1, 0) and panel.clear.isEnabled()
    assert window.keeper.writer.flush()
    assert load().practise == {"share": (1, 0)}
    panel.clear.click()
    assert window.keeper.settings.practise == {} and not panel.clear.isEnabled()


def test_another_document_brings_another_question(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    panel = asked(window, "whole")
    type_into(panel.guess.edit, "4 cm")
    window.model.file.replace(style([move("waist", "french")]), None)
    assert not panel.is_shown and panel.asked is not None
    window.model.set_view("paper")
    assert panel.asked is None
    window.model.set_view("style")
    window.run("panel.reading")
    QTest.qWait(10)
    assert window.model.pattern is window.model.derived.derivation.pattern
