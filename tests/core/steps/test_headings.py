"""What steps are called is known without loading them."""

import subprocess
import sys

from zesty_pivot.core.steps.registry import all_steps, headings


def test_they_say_what_the_steps_say() -> None:
    assert {do: (one.title, one.summary) for do, one in headings().items()} == {
        do: (step.title, step.summary) for do, step in all_steps().items()
    }


def test_no_step_is_loaded_for_them() -> None:
    """In a fresh process, as at the start of the window."""
    code = (
        "import sys; from zesty_pivot.core.steps.registry import headings; assert len(headings()) > 50;"
        "own = [name for name in sys.modules if name.startswith('zesty_pivot.core.steps.')];"
        "sys.exit(str(own) if len(own) > 3 else 0)"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
