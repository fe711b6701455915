"""The views of the window: the style view at once, the others when they are first looked at."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QStackedWidget, QWidget

from zesty_pivot.core.kept import cached_property
from zesty_pivot.desk.documents import Documents
from zesty_pivot.desk.intake_views import IntakeViews
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.model import DIGITISER, IMPORT, RULER, SIZING, START, DeskModel
from zesty_pivot.desk.sizes.size_views import SizeViews
from zesty_pivot.desk.style_view import StyleView
from zesty_pivot.desk.table.canvas import Canvas

if TYPE_CHECKING:
    from zesty_pivot.core.nest.lay import LayPlan
    from zesty_pivot.desk.block_view import BlockView
    from zesty_pivot.desk.drafting import Drafting
    from zesty_pivot.desk.finish_view import FinishView
    from zesty_pivot.desk.measure_view import MeasureView
    from zesty_pivot.desk.paper.cloths import Cloths
    from zesty_pivot.desk.paper.paging import Paging
    from zesty_pivot.desk.paper.plotting import Plotting
    from zesty_pivot.desk.paper.show_table import ShowWindow
    from zesty_pivot.desk.paper.showing import Showing
    from zesty_pivot.desk.paper_view import PaperView
    from zesty_pivot.desk.people import People
    from zesty_pivot.desk.stand.stand_view import StandView
    from zesty_pivot.desk.stand.trying_on import TryingOn
    from zesty_pivot.desk.start_page import StartPage


class Views(QStackedWidget):
    """One of them is seen: the one that the model says."""

    touched = pyqtSignal()  # people or a draft: what can be done may be otherwise

    def __init__(
        self, model: DeskModel, keeper: Keeper, docs: Documents, style: StyleView, run: Callable[[str], None],
        action: Callable[[str], QAction],
    ) -> None:  # fmt: skip
        super().__init__()
        self._model, self._keeper, self._docs, self._run, self._action = model, keeper, docs, run, action
        self.style_view = style
        self.station = "pages"  # of the paper view
        self.in_sizes = SizeViews(
            model, lambda: self.people, lambda: self.paging.printing, run, self.addWidget, self.touched
        )  # fmt: skip
        self.full: ShowWindow | None = None  # the picture that fills a screen
        self.addWidget(style)

    @cached_property
    def people(self) -> People:
        """The people that are measured, read when they are first asked for."""
        from zesty_pivot.desk.people import People

        found = People(self._model)
        found.changed.connect(self.touched)
        return found

    @cached_property
    def drafting(self) -> Drafting:
        """The draft of the block view."""
        from zesty_pivot.desk.drafting import Drafting

        found = Drafting(self._model, self.people)
        found.changed.connect(self.touched)
        found.stepped.connect(self.touched)
        return found

    @cached_property
    def measure(self) -> MeasureView:
        """The measure view."""
        from zesty_pivot.desk.measure_view import MeasureView

        view = MeasureView(self._model, self.people, self._run)
        self.addWidget(view)
        return view

    @cached_property
    def block(self) -> BlockView:
        """The block view."""
        from zesty_pivot.desk.block_view import BlockView

        view = BlockView(self._model, self.people, self.drafting, self._run, self._action)
        self.addWidget(view)
        return view

    @cached_property
    def intake(self) -> IntakeViews:
        """The views of blocks that come in and of those that are kept."""
        return IntakeViews(self._model, self._keeper, self._run, self._action, self.addWidget, self.touched)

    @cached_property
    def trying(self) -> TryingOn:
        """What is tried on."""
        from zesty_pivot.desk.stand.trying_on import TryingOn

        found = TryingOn(self._model, self.people, lambda: self.in_sizes.sizes)
        found.changed.connect(self.touched)
        self.style_view.side.watch(found)
        return found

    @cached_property
    def stand(self) -> StandView:
        """The stand view."""
        from zesty_pivot.desk.stand.stand_view import StandView

        view = StandView(self._model, self.trying, self._run)
        self.addWidget(view)
        return view

    @cached_property
    def finish(self) -> FinishView:
        """The finish view."""
        from zesty_pivot.desk.finish_view import FinishView

        view = FinishView(self._model)
        self.addWidget(view)
        return view

    @cached_property
    def paging(self) -> Paging:
        """The pages of the style."""
        from zesty_pivot.desk.paper.paging import Paging

        found = Paging(self._model, self._keeper)
        found.changed.connect(self.touched)
        return found

    @cached_property
    def cloths(self) -> Cloths:
        """The cloths of the style, and the lays on them."""
        from zesty_pivot.desk.paper.cloths import Cloths

        found = Cloths(self._model)
        found.changed.connect(self.touched)
        return found

    def _seen_lay(self) -> LayPlan | None:
        """The lay on the cloth, where it was looked at and is of the pattern as it is."""
        cloths = vars(self).get("cloths")
        return None if cloths is None else cloths.lay_of_now

    @cached_property
    def plotting(self) -> Plotting:
        """The plot on its way to a plotter."""
        from zesty_pivot.desk.paper.plotting import Plotting

        found = Plotting(self._model, self._keeper, self.paging, self._seen_lay)
        found.changed.connect(self.touched)
        return found

    @cached_property
    def showing(self) -> Showing:
        """The pattern at true size on a screen or by a projector."""
        from zesty_pivot.desk.paper.showing import Showing

        found = Showing(self._model, self._keeper, self._seen_lay)
        found.changed.connect(self.touched)
        return found

    def fill_screen(self) -> None:
        """Fills the chosen screen with the pattern at true size; ends it where it does already."""
        from zesty_pivot.desk.paper.show_table import ShowWindow

        if self.full is not None:
            self.full.close()
            return
        self.full = ShowWindow(self._model, self.showing)
        self.full.destroyed.connect(self._emptied)
        self.full.fill()

    def _emptied(self) -> None:
        self.full = None

    def let_go(self) -> None:
        """Lets go of what is open outside, and of what goes on beside."""
        if self.full is not None:
            self.full.close()
        self.intake.let_go()
        self.in_sizes.close()
        self.style_view.side.let_go()
        if "stand" in vars(self):
            self.stand.canvas.close_work()
        for name in ("trying", "plotting", "cloths", "paging"):
            if name in vars(self):
                vars(self)[name].close()
        if "start_page" in vars(self):
            self.start_page.let_go()

    @cached_property
    def paper(self) -> PaperView:
        """The paper view."""
        from zesty_pivot.desk.paper_view import PaperView

        view = PaperView(self._model, self.paging, self.cloths, self.plotting, self.showing, self._run)
        view.turn(self.station)
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
            "measure": lambda: self.measure,
            "block": lambda: self.block,
            "stand": lambda: self.stand,
            "sizes": lambda: self.in_sizes.view,
            "finish": lambda: self.finish,
            "paper": lambda: self.paper,
            START: lambda: self.start_page,
            **self.intake.makers(),
        }
        return makers[self._model.view]() if self._model.view in makers else self.style_view

    def canvas(self) -> Canvas:
        """The canvas of the view that is seen; the style's where it has none."""
        if self._model.view == "block":
            return self.block.canvas
        if self._model.view == "stand":
            return self.stand.canvas
        if self._model.view == "sizes":
            return self.in_sizes.view.canvas
        if self._model.view == "finish":
            return self.finish.canvas
        if self._model.view in (IMPORT, DIGITISER, RULER, SIZING):
            return self.intake.canvas(self._model.view)
        if self._model.view == "paper":
            return self.paper.canvas
        return self.style_view.canvas()

    def restyle(self) -> None:
        """What is drawn once, in the colours of another theme."""
        if "start_page" in vars(self):
            self.start_page.restyle()
        if "stand" in vars(self):
            self.stand.canvas.refresh()
        self.in_sizes.restyle()
        self.canvas().update()

    def show_view(self) -> None:
        """Shows the view that the model says, with the keyboard in it."""
        view = self.shown()
        if self.currentWidget() is view:
            return
        self.setCurrentWidget(view)
        if view is vars(self).get("stand"):
            self.stand.begin()
        if view is vars(self.in_sizes).get("view"):
            self.in_sizes.view.begin()
        if view is vars(self).get("measure"):
            self.measure.rows["bust"].edit.setFocus()
        elif view is vars(self.intake).get("library"):
            self.intake.library.search.setFocus()
        elif view is not vars(self).get("start_page"):
            self.canvas().setFocus()
        else:
            self.start_page.refresh()
            self.start_page.setFocus()
