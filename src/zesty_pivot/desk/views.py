"""The views of the window: the style view at once, the others when they are first looked at."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QStackedWidget, QWidget

from zesty_pivot.desk.documents import Documents
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.model import START, DeskModel
from zesty_pivot.desk.style_view import StyleView
from zesty_pivot.desk.table.canvas import Canvas

if TYPE_CHECKING:
    from zesty_pivot.desk.finish_view import FinishView
    from zesty_pivot.desk.paper_view import PaperView
    from zesty_pivot.desk.start_page import StartPage


class Views(QStackedWidget):
    """One of them is seen: the one that the model says."""

    def __init__(self, model: DeskModel, keeper: Keeper, docs: Documents, style: StyleView, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._keeper, self._docs, self._run = model, keeper, docs, run
        self.style_view = style
        self.addWidget(style)

    @cached_property
    def finish(self) -> FinishView:
        """The finish view."""
        from zesty_pivot.desk.finish_view import FinishView

        view = FinishView(self._model)
        self.addWidget(view)
        return view

    @cached_property
    def paper(self) -> PaperView:
        """The paper view."""
        from zesty_pivot.desk.paper_view import PaperView

        view = PaperView(self._model, self._keeper, self._run)
        self.addWidget(view)
        return view

    @cached_property
    def start_page(self) -> StartPage:
        """The start page."""
        from zesty_pivot.desk.start_page import StartPage

        page = StartPage(self._docs, self._keeper, self._run)
        self.addWidget(page)
        return page

    def shown(self) -> QWidget:
        """The widget of the view that is to be seen."""
        makers: dict[str, Callable[[], QWidget]] = {
            "finish": lambda: self.finish,
            "paper": lambda: self.paper,
            START: lambda: self.start_page,
        }
        return makers[self._model.view]() if self._model.view in makers else self.style_view

    def canvas(self) -> Canvas:
        """The canvas of the view that is seen."""
        if self._model.view == "finish":
            return self.finish.canvas
        if self._model.view == "paper":
            return self.paper.canvas
        return self.style_view.canvas()

    def restyle(self) -> None:
        """What is drawn once, in the colours of another theme."""
        if "start_page" in vars(self):
            self.start_page.restyle()
        self.canvas().update()

    def show_view(self) -> None:
        """Shows the view that the model says, with the keyboard in it."""
        view = self.shown()
        if self.currentWidget() is view:
            return
        self.setCurrentWidget(view)
        if view is not vars(self).get("start_page"):
            self.canvas().setFocus()
        else:
            self.start_page.refresh()
            self.start_page.setFocus()
