"""What no step may leave behind: each fault planted in a sound pattern, and told in the words of the trade."""

import dataclasses
from collections.abc import Callable

import numpy as np
import pytest

from tests.samples import move, real_pattern, style
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.soundness import MOST_STEP, OPEN, piece_fault
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.steps.dart_move import MoveDart

FRONT = real_pattern().piece("front")


def with_runs(change: Callable[[list], object]) -> Piece:  # type: ignore[type-arg]
    runs = list(FRONT.runs)
    change(runs)
    return dataclasses.replace(FRONT, runs=tuple(runs))


def nowhere(runs: list) -> None:  # type: ignore[type-arg]
    path = object.__new__(Path)
    cubics = runs[0].path.cubics.copy()
    cubics[0, 1] = np.nan
    object.__setattr__(path, "cubics", cubics)
    runs[0] = dataclasses.replace(runs[0], path=path)


def no_length(runs: list) -> None:  # type: ignore[type-arg]
    runs[0] = dataclasses.replace(runs[0], path=Path(np.repeat(runs[0].path.cubics[:1, :1], 4, axis=1)))


FAULTS: list[tuple[Piece, str]] = [
    (dataclasses.replace(FRONT, runs=FRONT.runs[:1]), "nothing of the front"),
    (dataclasses.replace(FRONT, darts=(*FRONT.darts, FRONT.darts[0])), "two darts of one name in the front"),
    (dataclasses.replace(FRONT, darts=FRONT.darts[:1]), "dart of the front without a mouth"),
    (
        dataclasses.replace(FRONT, darts=tuple(dataclasses.replace(dart, pivot="elbow") for dart in FRONT.darts)),
        "without its pivot",
    ),
    (dataclasses.replace(FRONT, roles=(*FRONT.roles, ("hem", "hem"))), "an edge of the front without a line"),
    (with_runs(nowhere), "the neckline of the front without a place"),
    (with_runs(no_length), "a stretch of no length in the neckline of the front"),
]  # fmt: skip


@pytest.mark.parametrize(("piece", "said"), FAULTS, ids=[said for _piece, said in FAULTS])
def test_each_fault_is_told(piece: Piece, said: str) -> None:
    assert said in (piece_fault(piece) or "")
    pattern = real_pattern()
    made = dataclasses.replace(pattern, pieces=(piece, *pattern.pieces[1:]))
    assert said in (made.check(pattern) or "")


def test_two_pieces_of_one_name_and_a_seam_with_nothing() -> None:
    pattern = real_pattern()
    assert pattern.check(pattern) is None and pattern.check() is None and piece_fault(FRONT) is None
    twice = dataclasses.replace(pattern, pieces=(*pattern.pieces, FRONT))
    assert twice.check(pattern) == "two pieces called front"
    alone = dataclasses.replace(pattern, pieces=pattern.pieces[:1])
    assert "of the back, which is not there" in (alone.check(pattern) or "")


def shifted(first: str, by: float) -> Piece:
    """The front with all from the first run of an edge on moved down."""
    at = next(index for index, run in enumerate(FRONT.runs) if run.edge == first)
    runs = list(FRONT.runs)
    runs[at:] = [dataclasses.replace(run, path=Path(run.path.cubics + np.array([0.0, by]))) for run in runs[at:]]
    return dataclasses.replace(FRONT, runs=tuple(runs))


def test_an_open_outline_is_told_and_a_step_to_true_is_not() -> None:
    assert piece_fault(shifted("armhole", 0.9 * OPEN)) is None
    assert piece_fault(shifted("armhole", 1.1 * OPEN)) == "the outline of the front open after the shoulder"
    cut = FRONT.runs[3].path.split_at(40.0)  # the armhole in two stretches
    parts = FRONT.runs[3].source.parted(40.0 / FRONT.runs[3].path.length)
    for step, said in ((0.9 * MOST_STEP, None), (1.1 * MOST_STEP, "the outline of the front open in the armhole")):
        moved = Path(cut[1].cubics + np.array([-step, 0.0]))
        beyond = Path.straight(moved.end, FRONT.runs[4].path.start)
        runs = [dataclasses.replace(FRONT.runs[3], path=path, source=source)
                for path, source in ((cut[0], parts[0]), (moved, parts[1]), (beyond, parts[1]))]  # fmt: skip
        piece = dataclasses.replace(FRONT, runs=(*FRONT.runs[:3], *runs, *FRONT.runs[4:]))
        assert piece_fault(piece) == said


def test_a_sliver_is_refused_and_a_small_piece_is_not() -> None:
    def shrunk(by: float) -> Piece:
        runs = tuple(dataclasses.replace(run, path=Path(run.path.cubics * by)) for run in FRONT.runs)
        return dataclasses.replace(
            FRONT, runs=runs, landmarks={name: (x * by, y * by) for name, (x, y) in FRONT.landmarks.items()}
        )

    whole = FRONT.area
    assert piece_fault(shrunk(np.sqrt(90.0 / whole))) == "the front smaller than 1 cm²"
    assert piece_fault(shrunk(np.sqrt(110.0 / whole))) is None


def test_a_step_that_would_leave_a_fault_is_refused_and_names_it(monkeypatch: pytest.MonkeyPatch) -> None:
    """The pattern before it stands, and nothing of it is a fault of the program in the words of a user."""

    def leaves_two(_step: MoveDart, pattern: Pattern, _context: Context) -> Outcome:
        return Outcome(dataclasses.replace(pattern, pieces=(*pattern.pieces, FRONT)))

    monkeypatch.setattr(MoveDart, "apply", leaves_two)
    made = derive(style([move("waist", "french")])).derivation
    ((number, fault),) = made.broken
    assert number == 1 and fault.what == "this would leave two pieces called front"
    assert made.states[1].pattern is made.states[0].pattern
