"""Names that no piece and no edge has."""

import dataclasses

from tests.samples import real_pattern
from zesty_pivot.core.procedures.into_panels import free_line, free_name


def test_names_are_counted_on() -> None:
    pattern = real_pattern()
    assert [free_name(pattern, "front_panel"), free_name(pattern, "front")] == ["front_panel", "front_2"]
    more = [dataclasses.replace(pattern.pieces[0], name=f"front{end}") for end in ("_2", "_3")]
    assert free_name(dataclasses.replace(pattern, pieces=(*pattern.pieces, *more)), "front") == "front_4"
    front = pattern.piece("front")
    assert free_line(front, "line") == "line" and free_line(front, "waist") == "waist_2"
    named = dataclasses.replace(front, roles=(*front.roles, ("waist_2", "waist"), ("waist_3", "waist")))
    assert free_line(named, "waist") == "waist_4"
