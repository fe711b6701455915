"""Properties of every method on plausible bodies; implausible ones are refused by name.

Every body of 200 is drawn, every tenth is measured whole; `make torture` measures thousands.
"""

from __future__ import annotations

import json

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.bodies import METHODS, bodies_for, person
from tests.core.drafting.holding import hold
from zesty_pivot.core.drafting.draft import DraftError, draft
from zesty_pivot.core.drafting.settings import kept
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.drafted_block import block_of
from zesty_pivot.data.methods import shipped

ANY = settings(max_examples=200, deadline=None, suppress_health_check=[HealthCheck.too_slow])
EACH = 10  # of so many bodies one is measured whole


@pytest.mark.parametrize("method", METHODS)
def test_on_200_plausible_bodies(method: str) -> None:
    drawn_count = 0

    @ANY
    @given(bodies_for(method))
    def each(body: dict[str, float]) -> None:
        nonlocal drawn_count
        try:
            drawn = draft(shipped(method), body, {})
        except DraftError as refused:  # a body at the edge of the ranges, said by name
            assert refused.advice and refused.advice.startswith(("Measure again", "Take the")), refused
            return
        if drawn_count % EACH == 0:
            hold(drawn)
        drawn_count += 1

    each()
    assert drawn_count > 180


@pytest.mark.parametrize("method", METHODS)
def test_any_numbers_are_drawn_or_refused_in_a_sentence(method: str) -> None:
    """Lengths from a hair to a house, all settings at their ends: nothing but a sentence."""
    chosen = shipped(method)
    names = [*chosen.needs, *chosen.uses]

    @settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.data())
    def each(data: st.DataObject) -> None:
        body = dict(person(method))
        for name in data.draw(st.lists(st.sampled_from(names), max_size=4, unique=True)):
            body[name] = data.draw(st.floats(0.1, 5000.0))
        given_: dict[str, str | float] = {}
        for parameter in data.draw(st.lists(st.sampled_from(chosen.parameters), max_size=4, unique_by=lambda p: p.id)):
            texts = (
                [choice.word for choice in parameter.choices]
                or [text for text in (parameter.low, parameter.high) if text]
                or ["0.5"]
            )
            given_[parameter.id] = data.draw(st.sampled_from(texts))
        try:
            block_of(draft(chosen, body, kept(chosen, given_, "in")))
        except ZestyError as refused:
            assert refused.what and "Traceback" not in str(refused)

    each()


@pytest.mark.parametrize("method", METHODS)
def test_the_same_body_gives_the_same_bytes(method: str) -> None:
    one, two = (block_file.dump(block_of(draft(shipped(method), person(method), {}))) for _ in range(2))
    assert one == two
    block = block_file.from_value(json.loads(one), "read back")
    assert block_file.dump(block) == one
    assert block.method == method and block.measurements["bust"] == pytest.approx(person(method)["bust"])
