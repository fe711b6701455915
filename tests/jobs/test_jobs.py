"""The shorter jobs are done in the window, each within the time that it is given."""

import pytest

from tests.jobs.run import done
from tests.jobs.scripts import JOBS, NOT_YET

MOST = (
    dict.fromkeys(("J14", "J15", "J22", "J23", "J24", "J25"), 2.0)
    | dict.fromkeys(("J01", "J04", "J06", "J15", "J20", "J21"), 4.0)
    | {"J26": 3.0}
)


# The shorter half; `make jobs` does all of them, each on three blocks.
SHORT = ("J04", "J05", "J06", "J07", "J09", "J11", "J13", "J16", "J17", "J18", "J19", "J20", "J21", "J24", "J25")


@pytest.mark.parametrize("id", SHORT)
def test_a_job_is_done(id: str, qtbot) -> None:  # type: ignore[no-untyped-def]
    made = done(id, "two darts 93")
    assert not made.failed, made.failed
    assert made.minutes < MOST.get(id, JOBS[id].by_hand / 5.0)


def test_no_job_is_left_out() -> None:
    assert set(SHORT) <= set(JOBS) and 2 * len(SHORT) >= len(JOBS)
    assert sorted({*JOBS, *NOT_YET}) == [f"J{number:02}" for number in range(1, 28)] and not set(JOBS) & set(NOT_YET)
