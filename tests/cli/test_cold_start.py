"""What a cold start leaves alone: what is loaded is told by the interpreter itself, in a process of its own."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

from tests.samples import move, written

NOT_FOR_A_DERIVE = (
    "email", "socket", "importlib.metadata", "PyQt6", "reportlab", "uharfbuzz", "zesty_pivot.core.drafting.method",
    "zesty_pivot.core.steps.yoke_cut", "zesty_pivot.core.steps.line_princess",
)  # fmt: skip
NOT_FOR_A_WINDOW = (
    "email", "importlib.metadata", "zesty_pivot.core.drafting.draft", "zesty_pivot.core.steps.dart_use",
    "zesty_pivot.core.steps.trim", "zesty_pivot.core.steps.measure_tape", "zesty_pivot.desk.forms.from_fields",
    "zesty_pivot.desk.paper_view",
)  # fmt: skip


def loaded(code: str, *args: str) -> set[str]:
    """The modules that a fresh interpreter has loaded once some code has run."""
    told = f"{code}\nimport sys\nprint('\\n' + ' '.join(sys.modules), flush=True)\nimport os\nos._exit(0)"
    made = subprocess.run([sys.executable, "-c", told, *args], capture_output=True, text=True, check=True)
    return set(made.stdout.splitlines()[-1].split())


def test_a_derive_loads_what_it_needs(tmp_path: Path) -> None:
    path = written([move("shoulder", "french")], tmp_path)
    code = (
        "import sys\nfrom zesty_pivot.cli.main import run\n"
        "try:\n    run(['derive', sys.argv[1], '--out', sys.argv[2], '--format', 'svg', '--format', 'json'])\n"
        "except SystemExit as end:\n    assert end.code == 0, end.code"
    )
    found = loaded(code, str(path), str(tmp_path / "out"))
    assert "zesty_pivot.core.steps.dart_move" in found and (tmp_path / "out" / "sheet.svg").exists()
    assert not found & set(NOT_FOR_A_DERIVE), found & set(NOT_FOR_A_DERIVE)


def test_a_window_loads_what_it_shows() -> None:
    code = (
        "import os\nos.environ['QT_QPA_PLATFORM'] = 'offscreen'\n"
        "from zesty_pivot.cli.cold import prepare\nprepare()\n"
        "from zesty_pivot.desk.start import application, open_window\n"
        "app = application()\nwindow = open_window(None)\nwindow.show()\napp.processEvents()"
    )
    found = loaded(code)
    assert "zesty_pivot.desk.window" in found
    assert not found & set(NOT_FOR_A_WINDOW), found & set(NOT_FOR_A_WINDOW)


def test_models_validate_without_the_search_for_plugins() -> None:
    """What stands in for the search is asked as the search would be."""
    code = (
        "from zesty_pivot.cli.cold import prepare\nprepare()\n"
        "from zesty_pivot.core.piece.spot import Spot\n"
        "assert Spot(edge='neckline', at='50%').words() and Spot.model_validate({'station': 'french'})\n"
        "try:\n    Spot(edge='neckline', at='x y')\nexcept ValueError:\n    pass\nelse:\n    raise SystemExit(1)"
    )
    assert "pydantic" in loaded(code)
