"""The paper view: pages, cloth, plotter, true size, each a station with a canvas of its own."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from PyQt6.QtWidgets import QStackedWidget, QVBoxLayout, QWidget

from zesty_pivot.core.kept import cached_property
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.cloth_view import ClothView
from zesty_pivot.desk.paper.cloths import Cloths
from zesty_pivot.desk.paper.pages_view import PagesView
from zesty_pivot.desk.paper.paging import Paging
from zesty_pivot.desk.paper.plot_view import PlotView
from zesty_pivot.desk.paper.plotting import Plotting
from zesty_pivot.desk.paper.show_view import ShowView
from zesty_pivot.desk.paper.showing import Showing
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.tabs import station_row

Station = TypeVar("Station", bound=QWidget)

STATIONS = {"pages": "Pages", "cloth": "Cloth", "plotter": "Plotter", "true_size": "True size"}


class PaperView(QWidget):
    """One station is seen; those that nobody looked at are not made."""

    def __init__(
        self, model: DeskModel, paging: Paging, cloths: Cloths, plotting: Plotting, showing: Showing, run: Callable[[str], None]
    ) -> None:  # fmt: skip
        super().__init__()
        self._model, self._paging, self._cloths, self._plotting, self._run = model, paging, cloths, plotting, run
        self._showing = showing
        self.station = "pages"
        self._stack = QStackedWidget()
        row, self.buttons = station_row(STATIONS, lambda id: run(f"paper.{id}"))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(row)
        column.addWidget(self._stack, 1)
        model.pace.followed.connect(self.refresh)
        model.view_changed.connect(self.refresh)

    @cached_property
    def pages(self) -> PagesView:
        """The pages."""
        return self._put(PagesView(self._model, self._paging, self._run))

    @cached_property
    def cloth(self) -> ClothView:
        """The cloth."""
        return self._put(ClothView(self._model, self._cloths, self._run))

    @cached_property
    def plotter(self) -> PlotView:
        """The plotter."""
        return self._put(PlotView(self._model, self._plotting, self._paging, self._run))

    @cached_property
    def true_size(self) -> ShowView:
        """True size on a screen or by a projector."""
        return self._put(ShowView(self._model, self._showing, self._run))

    def _put(self, station: Station) -> Station:
        self._stack.addWidget(station)
        return station

    @property
    def shown(self) -> PagesView | ClothView | PlotView | ShowView:
        """The station that is seen."""
        if self.station == "cloth":
            return self.cloth
        if self.station == "true_size":
            return self.true_size
        return self.plotter if self.station == "plotter" else self.pages

    @property
    def canvas(self) -> Canvas:
        """Its canvas."""
        return self.shown.canvas

    def turn(self, station: str) -> None:
        """Shows another station."""
        self.station = station
        self._stack.setCurrentWidget(self.shown)
        for id, button in self.buttons.items():
            button.setChecked(id == station)
        self.refresh()

    @contained("the paper view")
    def refresh(self) -> None:
        """Follows the model, when this view is the one that is seen."""
        if self._model.view != "paper":
            return
        if self.station == "pages":
            self._paging.look()
        elif self.station == "cloth":
            self._cloths.look()
        else:
            (self._plotting if self.station == "plotter" else self._showing).changed.emit()
