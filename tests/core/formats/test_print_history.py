"""When a style was printed, and in what it differs since."""

from __future__ import annotations

from datetime import datetime, timedelta
from pathlib import Path

import pytest

from tests.samples import move, style
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.print_history import changes_since, last_print, print_words, when, with_print

NOW = datetime.fromisoformat("2026-11-27T14:05:00+01:00")  # a Friday


def printed(made):  # type: ignore[no-untyped-def]
    return with_print(made, derive(made), "pdf", "A4", NOW)


def test_what_has_changed_since_is_told_with_its_amount() -> None:
    made = printed(style([{"do": "neck.shape", "on": "front", "shape": "round", "width": "9 cm", "depth": "10 cm"}]))
    one = last_print(made)
    assert one is not None and changes_since(derive(made), one) == ()
    deeper = {"do": "neck.shape", "on": "front", "shape": "round", "width": "9 cm", "depth": "12 cm"}
    other = style([deeper]).model_copy(update={"printed": made.printed})
    told = changes_since(derive(other), one)
    before, after = (derive(each).pattern.piece("front").edge("neckline").sewn_length for each in (made, other))
    by = (after - before) / 10.0
    assert f"neckline of the front + {by:.2f} cm" in told
    # The centre is as much shorter as the neckline lies deeper.
    assert "centre of the front − 2.00 cm" in told
    assert not any("armhole" in text for text in told)


def test_a_dart_elsewhere_is_another_outline() -> None:
    """Regression: a moved dart changes no sewn length, and nothing was told."""
    made = printed(style([]))
    moved = style([move("shoulder", "french")]).model_copy(update={"printed": made.printed})
    told = changes_since(derive(moved), last_print(made))
    assert "the front is drawn otherwise" in told and not any("back" in text for text in told)


def test_pieces_that_are_new_or_gone_come_first() -> None:
    made = printed(style([]))
    panels = style([{"do": "line.princess", "on": "front"}]).model_copy(update={"printed": made.printed})
    told = changes_since(derive(panels), last_print(made))
    assert told[:3] == ("the front centre is new", "the front side is new", "the front is gone")


@pytest.mark.parametrize(
    ("ago", "said"),
    [
        ({}, "today at 14:05"),
        ({"days": 1}, "yesterday at 14:05"),
        ({"days": 3}, "on Tuesday at 14:05"),
        ({"days": 9}, "on 2026-11-18"),
    ],
)
def test_when_it_was(ago: dict[str, int], said: str) -> None:
    assert when((NOW - timedelta(**ago)).isoformat(timespec="minutes"), NOW) == said


def test_a_day_that_is_none_is_told_as_it_stands() -> None:
    assert when("some day in May", NOW) == "some day in May"
    assert when("2026-11-27T09:30", NOW) == "today at 9:30"  # without a zone


def test_it_is_kept_with_the_style_by_variant_and_the_oldest_forgotten(tmp_path: Path) -> None:
    made = printed(style([move("shoulder", "french")]))
    style_file.save(made, tmp_path / "s.zpiv")
    again = style_file.read(tmp_path / "s.zpiv")
    assert again.printed == made.printed
    assert print_words(again.printed[0], NOW) == "saved as PDF today at 14:05, A4"
    for number in range(70):
        again = with_print(again, derive(again), "printer", f"A{number}", NOW)
    assert len(again.printed) == 60 and again.printed[-1].on == "A69"
    assert last_print(style([])) is None
