"""The newcomer's path: the examples of CONTRIBUTING planted in a copy of the program, and seen where a user would see them."""

from __future__ import annotations

import json
import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from tests.samples import scaled_value, written
from zesty_pivot.core.formats import block_file

ROOT = Path(__file__).parent.parent
EXAMPLE = re.compile(r"```python\n# (\S+)\n(.*?)```", re.DOTALL)

# What users of the desk see: the list of commands, a step added from it with its form, the menu of exports.
SEEN = """
import json, sys
from pathlib import Path
from PyQt6.QtWidgets import QApplication
app = QApplication([])
from zesty_pivot.core.formats import style_file
from zesty_pivot.desk.window import Window
window = Window(style_file.read(Path(sys.argv[1])))
window.run("add.grain.set")
form = window.side.reading.form("grain.set")
form.fields["lie"].picked.emit("cross")
print(json.dumps({
    "commands": list(window.qt_actions.known),
    "rows": {name: title.text() for name, title in form.titles.items()},
    "steps": [step.model_dump(mode="json") for step in window.model.style.steps],
    "findings": [finding.check for finding in window.model.findings],
}))
"""


# Whether the random recipes of the torture come to the new step.
TRIED = """
from tests.torture import recipes
print(any(step.do == "grain.set" for seed in range(400) for step in recipes.random_style(seed)[1].steps))
"""


def run(folder: Path, *command: str) -> subprocess.CompletedProcess[str]:
    env = {**os.environ, "PYTHONPATH": f"{folder / 'src'}{os.pathsep}{folder}", "QT_QPA_PLATFORM": "offscreen",
           "XDG_CONFIG_HOME": str(folder / "config"), "XDG_DATA_HOME": str(folder / "data")}  # fmt: skip
    return subprocess.run([sys.executable, *command], cwd=folder, env=env, capture_output=True, text=True, check=False)


@pytest.fixture(scope="module")
def planted(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A copy of the program with the examples in it, and nothing else changed."""
    folder = tmp_path_factory.mktemp("newcomer")
    leave = shutil.ignore_patterns("__pycache__")
    shutil.copytree(ROOT / "src", folder / "src", ignore=leave)
    shutil.copytree(ROOT / "tests", folder / "tests", ignore=leave)
    shutil.copytree(ROOT / "docs", folder / "docs", ignore=shutil.ignore_patterns("*.png"))
    for name in ("pyproject.toml", "CONTRIBUTING.md", "README.md", "CHANGELOG.md"):
        shutil.copy(ROOT / name, folder)
    examples = EXAMPLE.findall((ROOT / "CONTRIBUTING.md").read_text())
    assert len(examples) == 6
    for name, text in examples:
        assert not (folder / name).exists()
        (folder / name).write_text(text)
    return folder


def test_the_examples_pass_their_own_tests_and_those_of_their_families(planted: Path) -> None:
    names = [name for name, _text in EXAMPLE.findall((ROOT / "CONTRIBUTING.md").read_text()) if name.startswith("tests/")]
    others = ["tests/core/exports/test_registry.py", "tests/desk/test_forms.py::test_every_step_can_be_added"]
    if os.environ.get("WHOLE"):
        others += ["tests/core/exports", "tests/core/checks/test_checks.py", "tests/test_words.py"]
    found = run(planted, "-m", "pytest", "-q", "-p", "no:cacheprovider", *names, *others)
    assert found.returncode == 0, found.stdout[-2000:]
    # That the torture tries the new step is seen without trying all others again.
    found = run(planted, "-c", TRIED)
    assert found.stdout.strip() == "True", found.stderr[-2000:]


def test_the_examples_are_typed_and_tidy(planted: Path) -> None:
    names = [name for name, _text in EXAMPLE.findall((ROOT / "CONTRIBUTING.md").read_text())]
    for tool in (("-m", "ruff", "check"), ("-m", "ruff", "format", "--check")):
        found = run(planted, *tool, *names)
        assert found.returncode == 0, found.stdout


def test_a_user_of_the_desk_sees_them(planted: Path, tmp_path: Path) -> None:
    style = written([], tmp_path)
    found = run(planted, "-c", SEEN, str(style))
    assert found.returncode == 0, found.stderr[-2000:]
    seen = json.loads(found.stdout)
    assert {"add.grain.set", "export.csv"} <= set(seen["commands"])
    assert seen["rows"] == {"on": "Piece", "lie": "Lie"}
    assert [(step["do"], step["lie"]) for step in seen["steps"]] == [("grain.set", "cross")]


def test_a_user_of_the_command_line_sees_them(planted: Path, tmp_path: Path) -> None:
    block = block_file.from_value(scaled_value(6.0, 1.0), "wide")
    style = written([], tmp_path, block=block)
    value = json.loads(style.read_text())
    style.write_text(json.dumps({**value, "steps": [{"do": "grain.set", "on": "front"}]}))
    assert "grain.set" in run(planted, "-m", "zesty_pivot", "steps").stdout
    assert "the front is" in run(planted, "-m", "zesty_pivot", "check", str(style)).stdout
    made = run(planted, "-m", "zesty_pivot", "derive", str(style), "--out", str(tmp_path / "out"), "--format", "csv")
    assert "cut-list.csv" in made.stdout, made.stderr
    assert {path.name for path in (tmp_path / "out").iterdir()} == {"cut-list.csv", "report.json"}
    report = json.loads((tmp_path / "out" / "report.json").read_text())
    assert "wider_than_cloth" in {finding["check"] for finding in report["findings"]}
