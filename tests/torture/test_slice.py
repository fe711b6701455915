"""A small part of `make torture`, with numbers of its own: what must hold of everything, whatever is done."""

from pathlib import Path

import pytest

from tests.torture import desks, imports, kills, litter, mangled, papers, recipes, sizes
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.steps import registry

STYLES = range(35, 75)


@pytest.mark.parametrize("seed", range(4))
def test_mangled_files_are_read_or_refused_in_a_line(seed: int, tmp_path: Path) -> None:
    for number in range(seed * 50, seed * 50 + 50):
        assert mangled.tried(number, tmp_path) is None


@pytest.mark.parametrize("seed", range(2))
def test_what_comes_in_mangled_is_read_or_refused_in_a_line(seed: int) -> None:
    for number in range(seed * 40, seed * 40 + 40):
        assert imports.fuzzed(number) is None


@pytest.mark.parametrize("seed", [0, pytest.param(1, marks=pytest.mark.whole)])
def test_what_leaves_is_sound_or_refused_in_a_line(seed: int) -> None:
    assert papers.written(seed) is None
    for number in range(seed * 20, seed * 20 + 20):
        assert papers.mangled_plot(number) is None


def test_styles_for_any_body_and_tables_of_people() -> None:
    for number in range(8):
        assert sizes.any_body(number) is None
    for number in range(60):
        assert sizes.any_table(number) is None


@pytest.mark.parametrize("seed", STYLES)
def test_any_recipe_on_any_block_holds_what_must_hold(seed: int) -> None:
    assert recipes.tried(seed) is None


def test_every_step_is_among_those_tried_and_most_are_done() -> None:
    tried, done = set(), set()
    for seed in range(150):
        if seed not in STYLES and tried == set(registry.all_steps()):
            break
        _block, style = recipes.random_style(seed)
        tried |= {step.do for step in style.steps}
        if seed in STYLES:
            states = derive(style).derivation.states
            done |= {state.step.do for state in states if state.step is not None and state.error is None}
    assert tried == set(registry.all_steps())
    assert len(done) > 0.8 * len(tried), tried - done


@pytest.mark.parametrize("seed", range(30))
def test_a_start_in_littered_folders(seed: int, tmp_path: Path) -> None:
    assert litter.tried(seed, tmp_path, window=seed % 10 == 0) is None


@pytest.mark.parametrize("seed", range(1))
def test_a_session_at_the_window_is_undone_and_redone(seed: int, tmp_path: Path) -> None:
    assert desks.tried(seed, tmp_path, edits=8) is None


def test_kills_lose_nothing_older_than_a_second(tmp_path: Path) -> None:
    with kills.sessions() as begin:
        assert kills.tried(0, tmp_path, begin, kills=2) is None


@pytest.mark.parametrize("seed", [412, 762, 1225, 2042, 22086, 49839, 59276, 71200])
def test_what_came_in_and_was_not_met(seed: int) -> None:
    """What this family found: 2 GB for a flat picture, an outline there and back, an SVG whose first element draws nothing, a
    piece without height."""
    assert imports.fuzzed(seed) is None
