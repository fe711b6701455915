"""What a step tells of what it did beside what was asked, and where a request has its limit."""

from __future__ import annotations

import numpy as np
import pytest
from pydantic import ValidationError

from tests.core.steps.panels import line
from tests.core.steps.test_line_princess import gap
from tests.samples import move, real_pattern, worked
from zesty_pivot.core.checks.cowl import _off_square
from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.procedures.armhole_cowls import ON_SHOULDER, shoulder_point
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps import registry


def test_a_dart_that_a_vest_has_no_shoulder_for_is_led_elsewhere_and_told() -> None:
    found = worked([move("shoulder", "shoulder_tip"), {"do": "neck.shape", "on": "front", "shape": "vest"}])
    state = found.states[-1]
    front = state.pattern.piece("front")
    assert all(front.role(front.dart_edge(dart.id)) != "shoulder" for dart in front.darts)
    told = [note.text for note in state.notes if "the front's" in note.text and "is not sewn in a vest" in note.text]
    assert len(told) == 1 and "shoulder" in told[0]
    now = {front.role(front.dart_edge(dart.id)) for dart in front.darts}
    assert "side_seam" in now and told[0].endswith("dart now") and ("side" in told[0] or "French" in told[0])


def test_equal_mouths_have_no_amounts_not_even_one_of_them() -> None:
    parts = [{"to": {"station": "french"}}, {"to": {"station": "mid_armhole"}, "share": "40%"}]
    value = {"do": "dart.split", "on": "front", "dart": "waist", "parts": parts, "equal": True}
    with pytest.raises((ValidationError, ValueError), match="no amounts"):
        registry.read(value)
    assert registry.read({**value, "parts": [parts[0], {"to": {"station": "mid_armhole"}}]}).equal


def test_a_cowl_that_takes_no_darts_leaves_a_side_dart_alone() -> None:
    """What lies at the side may go into it; only what it swallows at the neck must."""
    steps = [move("shoulder", "side_bust"), {"do": "drape.cowl", "on": "front", "darts": "none"}]
    found = worked(steps)
    assert found.states[-1].error is None
    front = found.pattern.piece("front")
    before = worked(steps[:1]).pattern.piece("front")
    (dart,) = [dart for dart in before.darts if before.role(before.dart_edge(dart.id)) == "side_seam"]
    assert front.angle(dart.id) == pytest.approx(before.angle(dart.id), abs=1e-9)
    # Asked for, it goes in.
    fed = worked([steps[0], {"do": "drape.cowl", "on": "front"}]).pattern.piece("front")
    assert not fed.has_dart(dart.id) or fed.angle(dart.id) < 0.5 * before.angle(dart.id)


def test_an_all_in_one_facing_ends_within_the_side() -> None:
    block = real_pattern()
    side = block.piece("front").edge("side_seam").sewn_length
    context = Context(block, Scope("cm", {}))

    def step(mm: float):  # type: ignore[no-untyped-def]
        return registry.read({"do": "piece.facing", "on": "front", "kind": "all_in_one", "depth": f"{mm:.2f} mm"})

    for mm in (side - 2.0, side + 3.0):
        with pytest.raises(StepError, match="deeper than the side"):
            step(mm).apply(block, context)


def test_a_cowl_off_the_square_is_found_and_one_square_to_its_fold_is_not() -> None:
    found = worked([{"do": "drape.cowl", "on": "front"}]).pattern
    assert _off_square(found.piece("front")) == pytest.approx(0.0, abs=0.5)
    front = found.piece("front")
    index, run = next((k, run) for k, run in enumerate(front.runs) if front.role(run.edge) == "neckline")
    leaning = Path.straight(run.path.start, run.path.end + np.array([0.0, -40.0]))
    off = replace(front, runs=(*front.runs[:index], replace(run, path=leaning), *front.runs[index + 1 :]))
    assert _off_square(off) > 3.0


def test_a_cowl_at_the_armhole_begins_on_the_shoulder() -> None:
    """As far in as the shoulder has room for: some of it is left to be sewn; with a dart in it, what lies before the dart."""
    block = real_pattern()
    context = Context(block, Scope("cm", {}))
    back = block.piece("back")
    open_in_it = len(back.edge("shoulder").runs) > 1
    last = back.edge("shoulder").runs[-1].path.length
    room = last - (5.0 if open_in_it else ON_SHOULDER)
    assert shoulder_point(block, "back", room - 0.1, context)
    with pytest.raises(StepError, match="begins") as fault:
        shoulder_point(block, "back", room + 0.2, context)
    assert ("dart" in fault.value.advice) == open_in_it
    plain = worked([move("shoulder", "side_bust")]).pattern
    whole = plain.piece("front").edge("shoulder").sewn_length - ON_SHOULDER
    assert shoulder_point(plain, "front", whole - 0.1, context)
    with pytest.raises(StepError, match="begins"):
        shoulder_point(plain, "front", whole + 0.2, context)


def test_nothing_to_gather_where_a_seam_is_as_long_as_its_partner() -> None:
    """By fit: what an edge is longer than what it is sewn to, and nothing where it is not."""
    block = real_pattern()
    context = Context(block, Scope("cm", {}))
    value = {"do": "fullness.gather", "on": "front", "fit": True, "start": {"edge": "side_seam", "at": "20%"},
             "stop": {"edge": "side_seam", "at": "80%"}}  # fmt: skip
    with pytest.raises(StepError, match="nothing to gather"):
        registry.read(value).apply(block, context)
    front = block.piece("front")
    index, run = next((k, run) for k, run in enumerate(front.runs) if front.role(run.edge) == "side_seam")
    on = run.path.end + unit(run.path.end - run.path.start) * 30.0
    after = front.runs[index + 1]
    runs = list(front.runs)
    runs[index] = replace(run, path=Path.chain([run.path, Path.straight(run.path.end, on)]))
    runs[index + 1] = replace(after, path=Path.chain([Path.straight(on, after.path.start), after.path]))
    longer = block.with_piece(replace(front, runs=tuple(runs)))
    made = registry.read(value).apply(longer, context).pattern.piece("front")
    assert made.fullness[0].own_mm == pytest.approx(30.0, abs=0.5)


def test_the_table_of_intakes_says_what_is_and_what_was_asked_for() -> None:
    """What the darts give stands beside what it is once shaped: wider by what was asked beyond it, never narrower."""
    block = real_pattern()
    front = block.piece("front")
    context = Context(block, Scope("cm", {}))
    plain = worked([line()], block).pattern
    given = gap(plain, front.levels["under_bust"])
    step = registry.read(line(under_bust=f"{given + 6.0} mm", waist="40 mm"))
    table = step.intakes(block, context)
    natural, shaped_to = table["under_bust"]
    assert natural == pytest.approx(given, abs=0.6)  # rounding the corner has taken a little there
    assert shaped_to == pytest.approx(given + 6.0, abs=0.1)
    before, after = table["waist"] if "waist" in table else table["bottom"]
    assert after == pytest.approx(40.0, abs=0.1) and after != pytest.approx(before, abs=0.5)
    for name, (before, after) in registry.read(line()).intakes(block, context).items():
        assert after == pytest.approx(before, abs=0.6), name  # nothing is asked, nothing is taken
