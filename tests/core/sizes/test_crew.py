"""Sizes worked out in processes come out as without them, and go on without when those are gone."""

from __future__ import annotations

import os
import signal
import threading
from collections.abc import Iterable, Iterator

import numpy as np
import pytest

from tests.core.sizes.nesting import wearers
from tests.samples import move, style
from zesty_pivot.core.sizes.crew import Crew, SizeFound
from zesty_pivot.core.sizes.sized import Sizer, Wearer
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.core.sizes.verdict import Verdict
from zesty_pivot.data.sizes import shipped_chart

FRENCH = style([move("shoulder", "waist"), move("waist", "french")])
BROKEN = style([move("shoulder", "waist"), move("nowhere", "french")])
UNDER = Under()
BODIES = wearers(shipped_chart(), "regular")[2:6]
NEVER = threading.Event()


@pytest.fixture
def crew() -> Iterator[Crew]:
    made = Crew(2)
    yield made
    made.close()


def last(found: Iterable[SizeFound]) -> dict[Wearer, SizeFound]:
    """What was found of each, its verdict last."""
    return {one.sized.wearer: one for one in found}


@pytest.mark.parametrize("asked", [FRENCH, BROKEN], ids=["sound", "broken"])
def test_as_without_processes(crew: Crew, asked) -> None:  # type: ignore[no-untyped-def]
    faulty = Wearer("nobody", (), fault="nobody's bust is known")
    found, sizer = last(crew.work(asked, UNDER, [*BODIES, faulty], NEVER, is_checked=True)), Sizer()
    assert set(found) == {*BODIES, faulty}
    for wearer, one in found.items():
        own = sizer.sized(asked, UNDER, wearer)
        assert one.sized.fault == own.fault and one.verdict == own.verdict and one.sized.pattern == own.pattern
        if own.derived is None or one.sized.derived is None:
            assert wearer is faulty
            continue
        broken = [(number, str(why), why.advice) for number, why in one.sized.derived.derivation.broken]
        assert broken == [(number, str(why), why.advice) for number, why in own.derived.derivation.broken]
        assert one.sized.derived.girths == own.derived.girths
        # What comes from elsewhere is as little to be changed as what is made here.
        with pytest.raises(ValueError, match="read-only"):
            one.sized.derived.pattern.pieces[0].runs[0].path.cubics[0, 0, 0] = 0.0
    assert any(one.verdict is not None and one.verdict.broken for one in found.values()) is (asked is BROKEN)


def test_the_patterns_come_first_and_each_stays_where_its_states_are(crew: Crew) -> None:
    order = [one.verdict is not None for one in crew.work(FRENCH, UNDER, BODIES, NEVER, is_checked=True)]
    assert len(order) == 2 * len(BODIES) and order[0] is False and order[-1] is True
    places = dict(crew._places)
    assert sorted(places.values()) == [0, 0, 1, 1]
    # One goes and another comes: the rest keep their places.
    others = [*BODIES[1:], *wearers(shipped_chart(), "tall")[:1]]
    patterns = list(crew.work(FRENCH, UNDER, others, NEVER, is_checked=False))
    assert len(patterns) == 4 and all(one.verdict is None for one in patterns)
    assert all(crew._places[one] == places[one] for one in BODIES[1:]) and sorted(crew._places.values()) == [0, 0, 1, 1]


def test_another_style_another_way_and_back(crew: Crew) -> None:
    for asked, under in ((FRENCH, UNDER), (style([]), UNDER), (FRENCH, Under(darts="keep")), (FRENCH, UNDER)):
        found, sizer = last(crew.work(asked, under, BODIES, NEVER, is_checked=False)), Sizer()
        assert all(one.sized.pattern == sizer.sized(asked, under, wearer).pattern for wearer, one in found.items())


def test_stopped_in_the_middle(crew: Crew) -> None:
    stop = threading.Event()
    found = crew.work(FRENCH, UNDER, BODIES, stop, is_checked=True)
    next(found)
    stop.set()
    assert len(list(found)) < 2 * len(BODIES) - 1
    assert len(last(crew.work(FRENCH, UNDER, BODIES, NEVER, is_checked=True))) == len(BODIES)


def test_killed_processes_and_a_machine_without_any(crew: Crew, monkeypatch: pytest.MonkeyPatch) -> None:
    found = crew.work(FRENCH, UNDER, BODIES, NEVER, is_checked=True)
    next(found)
    for one in crew._pools:
        for pid in one._processes:
            os.kill(pid, signal.SIGKILL)
    after = last(found)
    assert {one.sized.wearer for one in after.values()} == set(BODIES)
    assert all(isinstance(one.verdict, Verdict) and one.verdict.is_sound for one in after.values())
    # The next time there are new ones.
    assert len(last(crew.work(FRENCH, UNDER, BODIES, NEVER, is_checked=False))) == 4 and len(crew._pools) == 2
    crew.close()

    def refuse(*_args: object, **_named: object) -> None:
        raise OSError("no semaphores here")

    monkeypatch.setattr("zesty_pivot.core.sizes.crew.pool", refuse)
    alone = last(crew.work(FRENCH, UNDER, BODIES, NEVER, is_checked=True))
    ease = [np.round(one.sized.derived.girths.bust or 0.0, 9) for one in alone.values() if one.sized.derived is not None]
    wanted = [np.round(one.sized.derived.girths.bust or 0.0, 9) for one in after.values() if one.sized.derived is not None]
    assert sorted(ease) == sorted(wanted) and len(ease) == 4


def test_who_is_given_up_and_who_begins_do_not_get_in_each_others_way(crew: Crew) -> None:
    """Regression: two that were asked at once found each other's bodies in no process."""
    tall = wearers(shipped_chart(), "tall")[:3]
    faults: list[BaseException] = []
    counts: list[int] = []

    def ask(bodies: list[Wearer]) -> None:
        try:
            counts.append(len(last(crew.work(FRENCH, UNDER, bodies, NEVER, is_checked=False))))
        except BaseException as fault:  # noqa: BLE001 - whatever comes is told
            faults.append(fault)

    threads = [threading.Thread(target=ask, args=(bodies,)) for bodies in (BODIES, tall, BODIES[1:], [*tall, *BODIES]) * 4]
    for thread in threads:
        thread.start()
    crew.close()  # whoever works goes on without
    for thread in threads:
        thread.join()
    assert not faults and sorted(counts) == sorted([4, 3, 3, 7] * 4)
