"""What there is of sizes, made when it is first asked for: the chart, who, what came of it, what is written, the view."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import pyqtBoundSignal
from PyQt6.QtWidgets import QWidget

from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.kept import cached_property
from zesty_pivot.desk.model import DeskModel

if TYPE_CHECKING:
    from zesty_pivot.desk.people import People
    from zesty_pivot.desk.sizes.charts import Charts
    from zesty_pivot.desk.sizes.sizes import Sizes
    from zesty_pivot.desk.sizes.sizes_view import SizesView
    from zesty_pivot.desk.sizes.writing_all import WritingAll


class SizeViews:
    """One of each."""

    def __init__(
        self, model: DeskModel, people: Callable[[], People], printing: Callable[[], Printing], run: Callable[[str], None],
        add: Callable[[QWidget], object], touched: pyqtBoundSignal,
    ) -> None:  # fmt: skip
        self._model, self._people, self._printing, self._run, self._add = model, people, printing, run, add
        self._touched = touched

    @cached_property
    def charts(self) -> Charts:
        """The size chart."""
        from zesty_pivot.desk.sizes.charts import Charts

        found = Charts(self._model)
        found.changed.connect(self._touched)
        return found

    @cached_property
    def sizes(self) -> Sizes:
        """The style in its sizes."""
        from zesty_pivot.desk.sizes.sizes import Sizes
        from zesty_pivot.desk.sizes.who import Who

        found = Sizes(self._model, Who(self._model, self._people(), self.charts), self.charts)
        found.rested.connect(self._touched)
        return found

    @cached_property
    def writing(self) -> WritingAll:
        """The style written for all its sizes."""
        from zesty_pivot.desk.sizes.writing_all import WritingAll

        found = WritingAll(self._model, self.sizes, self._printing)
        found.begun.connect(self._touched)
        return found

    @cached_property
    def view(self) -> SizesView:
        """The sizes view."""
        from zesty_pivot.desk.sizes.sizes_view import SizesView

        view = SizesView(self._model, self.sizes, self.writing, self._run)
        self._add(view)
        return view

    def restyle(self) -> None:
        """What is drawn once, in the colours of another theme."""
        if "view" in vars(self):
            self.view.refresh()

    def close(self) -> None:
        """Lets go of what goes on beside."""
        for name in ("sizes", "writing"):
            if name in vars(self):
                vars(self)[name].close()
