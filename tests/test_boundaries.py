"""The architecture: the core without Qt, contracts that can fail, no module too long, no family list kept by hand."""

import ast
import os
import re
import shutil
import subprocess
import sys
from collections import Counter
from functools import lru_cache
from pathlib import Path

import pytest

from zesty_pivot.core.steps.registry import all_steps

ROOT = Path(__file__).parent.parent
SRC = ROOT / "src" / "zesty_pivot"


def test_every_core_module_imports_without_qt() -> None:
    code = (
        "import sys, pkgutil, importlib\nsys.modules['PyQt6'] = None\nimport zesty_pivot.core as core\n"
        "names = [m.name for m in pkgutil.walk_packages(core.__path__, 'zesty_pivot.core.')]\n"
        "[importlib.import_module(n) for n in names]\nprint(len(names))"
    )
    found = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert int(found.stdout) > 50


@pytest.mark.parametrize("plant", ["import PyQt6\n", "def late() -> None:\n    import PyQt6.QtGui\n"])
def test_the_contract_goes_red_when_the_core_imports_qt(plant: str, tmp_path: Path) -> None:
    shutil.copytree(SRC, tmp_path / "zesty_pivot", ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copy(ROOT / "pyproject.toml", tmp_path)
    lint = Path(sys.executable).parent / "lint-imports"
    env = {**os.environ, "PYTHONPATH": str(tmp_path)}
    green = subprocess.run([lint, "--no-cache"], cwd=tmp_path, env=env, capture_output=True, text=True, check=False)
    assert green.returncode == 0, green.stdout
    with (tmp_path / "zesty_pivot" / "core" / "measure.py").open("a") as file:
        file.write(plant)
    red = subprocess.run([lint, "--no-cache"], cwd=tmp_path, env=env, capture_output=True, text=True, check=False)
    assert red.returncode == 1 and "the core knows no interface BROKEN" in red.stdout


def test_no_module_is_over_four_hundred_lines() -> None:
    long = {path.name: n for path in SRC.rglob("*.py") if (n := len(path.read_text().splitlines())) > 400}
    assert not long


@lru_cache(maxsize=1)
def _trees() -> list[tuple[Path, ast.Module]]:
    return [(path, ast.parse(path.read_text())) for path in SRC.rglob("*.py")]


def test_no_room_is_too_large() -> None:
    """No class has over 20 public methods, no function over 60 lines; branches and statements are ruff's."""
    wide = {
        node.name: len(public)
        for _path, tree in _trees()
        for node in ast.walk(tree)
        if isinstance(node, ast.ClassDef)
        and len(public := {part.name for part in node.body if isinstance(part, ast.FunctionDef) and part.name[0] != "_"}) > 20
    }
    long = {
        (path.name, node.name): lines
        for path, tree in _trees()
        for node in ast.walk(tree)
        if isinstance(node, ast.FunctionDef) and (lines := (node.end_lineno or 0) - node.lineno + 1) > 60
    }
    assert not wide and not long


def test_one_name_means_one_thing() -> None:
    """No two classes are called alike."""
    names = [node.name for _path, tree in _trees() for node in ast.walk(tree) if isinstance(node, ast.ClassDef)]
    assert sorted(name for name, count in Counter(names).items() if count > 1) == []


def test_the_contract_goes_red_at_a_circle(tmp_path: Path) -> None:
    shutil.copytree(SRC, tmp_path / "zesty_pivot", ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copy(ROOT / "pyproject.toml", tmp_path)
    with (tmp_path / "zesty_pivot" / "desk" / "lay.py").open("a") as file:
        file.write("\n\nif TYPE_CHECKING:\n    from zesty_pivot.desk.table.shapes import WITHIN\n")
    lint = [Path(sys.executable).parent / "lint-imports", "--no-cache"]
    found = subprocess.run(lint, cwd=tmp_path, env={**os.environ, "PYTHONPATH": str(tmp_path)}, capture_output=True, text=True)
    assert found.returncode == 1 and "no circle in the program BROKEN" in found.stdout


def test_a_step_is_one_file(tmp_path: Path) -> None:
    """A module with STEP in the folder of steps is found; nothing else needs to be told."""
    target = tmp_path / "zesty_pivot"
    shutil.copytree(SRC, target, ignore=shutil.ignore_patterns("__pycache__"))
    text = (
        (target / "core" / "steps" / "piece_true.py")
        .read_text()
        .replace("piece.true", "piece.again")
        .replace("TruePiece", "Again")
    )
    (target / "core" / "steps" / "piece_again.py").write_text(text)
    found = subprocess.run(
        [sys.executable, "-m", "zesty_pivot", "steps"], env={**os.environ, "PYTHONPATH": str(tmp_path)}, cwd=tmp_path,
        capture_output=True, text=True, check=True,
    )  # fmt: skip
    assert "piece.again" in found.stdout and "piece.true" in found.stdout


def _calls(tree: ast.AST) -> set[str]:
    """The names that are called, and those whose `model_validate` is."""
    found = {node.func for node in ast.walk(tree) if isinstance(node, ast.Call)}
    held = {f.value for f in found if isinstance(f, ast.Attribute) and f.attr in ("model_validate", "model_construct")}
    return {name.id for name in found | held if isinstance(name, ast.Name)}


def test_nothing_in_the_core_builds_a_step_to_call_it() -> None:
    steps = {step.__name__ for step in all_steps().values()}
    assert _calls(ast.parse("MoveDart(on='front')\nUnfold.model_validate({})")) & steps == {"MoveDart", "Unfold"}
    built = {path.name: made for path in (SRC / "core").rglob("*.py") if (made := _calls(ast.parse(path.read_text())) & steps)}
    assert not built


def test_steps_take_nothing_from_each_other() -> None:
    """What two of them need is a procedure; only the roots of steps are shared."""
    shared = {"base", "dart_chain", "let_in", "trim"}
    for path in (SRC / "core" / "steps").glob("*_*.py"):
        others = set(re.findall(r"zesty_pivot\.core\.steps\.(\w+)", path.read_text()))
        assert others <= shared, (path.name, others)


def test_widgets_have_no_literal_colours() -> None:
    for path in (SRC / "desk").rglob("*.py"):
        if path.name != "theme.py":
            assert not re.search(r"#[0-9a-fA-F]{6}\b", path.read_text()), path.name


def test_unexpected_warnings_fail() -> None:
    import warnings

    with pytest.raises(UserWarning, match="net"):
        warnings.warn("the net holds", UserWarning, stacklevel=1)


def test_shipped_files_have_their_licences() -> None:
    fonts = {path.name for path in (SRC / "data" / "fonts").iterdir()}
    families = {name.partition("-")[0] for name in fonts if name.endswith(".ttf")}
    licensed = {name.partition("-")[0] for name in fonts if name.endswith("-LICENSE.txt")}
    assert all(any(family.startswith(known) for known in licensed) for family in families), families
    assert (SRC / "data" / "icons" / "LICENSE.txt").exists() and (ROOT / "LICENSE").stat().st_size > 30_000
