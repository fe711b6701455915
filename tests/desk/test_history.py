"""Undo as a list of values, without a window."""

from tests.samples import style
from zesty_pivot.desk.history import KEPT_ENTRIES, History


def test_back_and_forth() -> None:
    first = style([])
    history = History([first])
    second, third = first.model_copy(update={"notes": "2"}), first.model_copy(update={"notes": "3"})
    history.push(second, "two")
    history.push(third, "three")
    assert history.undo_title == "three" and history.redo_title == ""
    assert history.step(-1) and history.value is second and history.redo_title == "three"
    assert history.step(-1) and history.value is first and not history.step(-1)
    assert history.step(1) and history.step(1) and history.value is third and not history.step(1)


def test_a_new_value_forgets_what_was_undone() -> None:
    first = style([])
    history = History([first])
    history.push(first.model_copy(update={"notes": "2"}), "two")
    history.step(-1)
    other = first.model_copy(update={"notes": "other"})
    history.push(other, "other")
    assert history.value is other and history.redo_title == "" and len(history.values) == 2


def test_old_entries_go() -> None:
    first = style([])
    history = History([first])
    for number in range(KEPT_ENTRIES + 50):
        history.push(first.model_copy(update={"notes": str(number)}), str(number))
    assert len(history.values) == KEPT_ENTRIES == len(history.titles)
    assert history.value.notes == str(KEPT_ENTRIES + 49)
