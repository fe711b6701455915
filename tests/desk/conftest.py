"""What several tests of the window begin with."""

from __future__ import annotations

import pytest

from tests.desk.sized import FEW, STEPS, worked_out
from tests.samples import style
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.sizes import chart as charts
from zesty_pivot.data.sizes import shipped_chart
from zesty_pivot.desk.settings import chart_file


@pytest.fixture
def few() -> None:
    """A chart of four sizes, the second one the base."""
    chart = shipped_chart()
    sizes = tuple(size for size in chart.sizes if size.title in FEW)
    path = chart_file()
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(charts.dump(chart.model_copy(update={"sizes": sizes})))


@pytest.fixture
def in_sizes(open_desk, qtbot, few):  # type: ignore[no-untyped-def]
    """Opens the sizes view on a style and waits until all are worked out."""

    def opened(shown: Style | None = None):  # type: ignore[no-untyped-def]
        window = open_desk(shown or style(STEPS))
        window.run("view.sizes")
        worked_out(window, qtbot)
        return window, window.views.in_sizes.sizes, window.views.in_sizes.view

    return opened
