"""The pages of the style on the table: how it is to be put on paper, and where its pieces lie on it."""

from __future__ import annotations

from datetime import datetime

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.base import FULL
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.kept_pages import kept_of, kept_plan, with_pages
from zesty_pivot.core.formats.print_history import changes_since, last_print, print_words, with_print
from zesty_pivot.core.formats.printing import Printing, chosen_pages, listed
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.nest.paged import PAPERS, Page
from zesty_pivot.core.nest.pages import side_by_side
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.desk.beside import Beside
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.packer import Search


class Paging(QObject):
    """Follows the model when it is asked to; a search goes on beside it."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel, keeper: Keeper) -> None:
        super().__init__()
        self._model, self._keeper = model, keeper
        self.packer = Beside("packing the pages")
        self.plan: PagePlan | None = None
        self.fault = ""
        self.only = ""  # which pages are printed; of this sitting
        self._for: tuple[tuple[FinishedPiece, ...], Printing] | None = None
        self._is_found = False  # whether the plan was searched for, now or when it was kept
        self.packer.improved.connect(self._improve)
        self.packer.ended.connect(self._end)

    # How.

    @property
    def chosen(self) -> str:
        """The paper, or FULL for one page at full size."""
        return self._keeper.settings.paper

    @property
    def for_sheets(self) -> str:
        """The paper that what is no pattern is printed on, or FULL."""
        return self.chosen if self.chosen in PAPERS or self.chosen == FULL else "A4"

    @property
    def printing(self) -> Printing:
        """How sheets are put on paper; where one page is chosen, how they would be on A4."""
        kept = self._keeper.settings
        paper = "A4" if kept.paper == FULL else kept.paper
        return Printing(
            paper, kept.edge, kept.overlap, kept.apart, self.only, kept.print_colour, dxf=kept.dxf, dxf_each=kept.dxf_each,
            roll=kept.roll, roll_length=kept.roll_length, pens=kept.pens, on_stand=kept.on_stand,
        )  # fmt: skip

    def change(self, **told: object) -> None:
        """Another paper or another way; what is no way to print is said, and the way before stays."""
        before = self._keeper.settings
        settings = before.model_copy(update=told)
        if settings.paper != FULL:
            try:
                _ = Printing(settings.paper, settings.edge, settings.overlap).setup
            except ZestyError as fault:
                self._model.say(str(fault), fault=True)
                self.changed.emit()
                return
        self.only = ""
        self._keeper.change(lambda kept: kept.model_copy(update=told))
        self.look()

    def print_only(self, only: str) -> None:
        """Which pages are printed, as `2, 5-7`; all when empty. Raises ZestyError for pages that there are not."""
        chosen_pages(only, self.pages)
        self.only = only
        self.changed.emit()

    def toggle(self, page: Page) -> None:
        """Leaves a page out, or prints it after all."""
        numbers = {one.number for one in self.printed}
        numbers ^= {page.number}
        if numbers:
            self.print_only("" if len(numbers) == len(self.pages) else listed(numbers))
        else:
            self._model.say("One page at least is printed.", fault=True)

    @property
    def pages(self) -> tuple[Page, ...]:
        """All pages."""
        return () if self.plan is None else self.plan.pages

    @property
    def printed(self) -> tuple[Page, ...]:
        """The pages that are printed; all of them where those that were chosen are no longer there."""
        try:
            return chosen_pages(self.only, self.pages)
        except ZestyError:
            return self.pages

    # Where the pieces lie.

    def look(self) -> None:
        """Follows the style: its kept pages, else side by side while fewer pages are looked for."""
        derived, printing = self._model.derived, self.printing
        asked = (derived.sheet_pieces, Printing(printing.paper, printing.edge, printing.overlap, printing.apart))
        if self._for is not None and self._for[1] == asked[1] and _same(self._for[0], asked[0]):
            self.changed.emit()
            return
        self.packer.stop()
        self._for, self.only, self.fault, self.plan = asked, "", "", None
        if self.chosen != FULL:
            try:
                self.plan = kept_plan(derived, printing)
                self._is_found = self.plan is not None
                if self.plan is None:
                    self.plan = side_by_side(derived.sheet_pieces, printing.setup)
                    self._search(goes_on=False)
                _ = self.plan.pages
            except ZestyError as fault:
                self.plan, self.fault = None, str(fault)
                self.packer.stop()
        self.changed.emit()

    def pack(self) -> None:
        """Looks for fewer pages until it is stopped."""
        if self.plan is not None:
            self._search(goes_on=True)
            self.changed.emit()

    def stop(self) -> None:
        """Stops looking; what was found is kept with the style."""
        was_asked = isinstance(self.packer.asked, Search) and self.packer.asked.goes_on
        self.packer.stop()
        if was_asked:
            self.keep()
        self.changed.emit()

    def _search(self, *, goes_on: bool) -> None:
        printing = self.printing
        search = Search(self._model.derived.sheet_pieces, printing.setup, printing.apart, goes_on)
        self.packer.begin(search, search.plans)

    def _improve(self, _search: Search, plan: PagePlan) -> None:
        if self._is_better(plan):
            self.plan, self._is_found = plan, True
            self.changed.emit()

    def _is_better(self, plan: PagePlan) -> bool:
        """A search begins from nothing: what was found before is given up for something better only."""
        shown = self.plan
        return shown is None or not self._is_found or (len(plan.pages), plan.joins) < (len(shown.pages), shown.joins)

    def _end(self, search: Search, fault: str) -> None:
        if fault:
            self._model.say(fault, fault=True)
        if search.goes_on and _same(self._model.derived.sheet_pieces, search.pieces):
            self.keep()
        self.changed.emit()

    # With the style.

    def settled(self) -> Derived:
        """The style as it is printed: with the pages that are shown, where they are."""
        self.look()
        self.packer.stop()
        derived = self._model.derived
        if self.plan is None:
            return derived
        return Derived(self._with(derived.style), derived.derivation, derived.at_rest)

    def keep(self, how: str = "", on: str = "") -> None:
        """Keeps the pages that are shown with the style, so that the same come out again; and, where it was printed, how and on
        what."""
        kept = self._with(self._model.style)
        if how:
            kept = with_print(kept, self._model.derived, how, on, datetime.now().astimezone())
        if kept != self._model.style:
            self._model.edit(kept, "a print" if how else "pages packed")

    @property
    def last(self) -> tuple[str, tuple[str, ...]]:
        """When and how it was printed last, and in what the pattern differs since; nothing where it never was."""
        one = last_print(self._model.style)
        if one is None:
            return "", ()
        return print_words(one, datetime.now().astimezone()), changes_since(self._model.derived, one)

    def _with(self, style: Style) -> Style:
        if self.plan is None:
            return style
        return style.model_copy(update={"pages": with_pages(style.pages, kept_of(self.plan, style.variant, self.printing))})

    def close(self) -> None:
        """Ends what goes on beside."""
        self.packer.close()


def _same(some: tuple[FinishedPiece, ...], others: tuple[FinishedPiece, ...]) -> bool:
    """Whether they are the very same pieces."""
    return len(some) == len(others) and all(one is other for one, other in zip(some, others, strict=True))
