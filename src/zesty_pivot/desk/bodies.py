"""What is done with people and drafts: bring in, save, print, begin a style. Faults are said, and nothing is lost."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Protocol

from zesty_pivot.core.drafting.method import SUFFIX
from zesty_pivot.core.formats import block_file, files, measures_csv, method_file
from zesty_pivot.core.formats.measures_file import Person
from zesty_pivot.core.formats.pdf_draft import draft_pdf, fractions_pdf, instruction_pdf
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.measure.fractions import PARTS, fraction_table, told
from zesty_pivot.desk.arriving import Arriving
from zesty_pivot.desk.by_ruler import ByRuler
from zesty_pivot.desk.measure_view import today
from zesty_pivot.desk.method_page import MethodPage
from zesty_pivot.desk.settings import methods_folder
from zesty_pivot.desk.tracing import Tracing

if TYPE_CHECKING:
    from zesty_pivot.core.formats.block_file import BlockFile
    from zesty_pivot.desk.ask import Asker
    from zesty_pivot.desk.documents import Documents
    from zesty_pivot.desk.keeping import Keeper
    from zesty_pivot.desk.model import DeskModel
    from zesty_pivot.desk.notice import Notice
    from zesty_pivot.desk.paper.paging import Paging
    from zesty_pivot.desk.views import Views
    from zesty_pivot.desk.work import Worker

PEOPLE = "Measurements (*.zmeas *.csv)"
METHODS = "Drafting methods (*.zmethod)"
PRINTED = "PDF (*.pdf)"


class BodyHost(Protocol):
    """What this work asks of the window."""

    model: DeskModel
    ask: Asker
    notice: Notice
    views: Views
    docs: Documents
    keeper: Keeper
    worker: Worker

    @property
    def paging(self) -> Paging: ...
    def show_file(self, path: Path) -> None: ...


class Bodies:
    """The work with people, drafts and methods."""

    def __init__(self, window: BodyHost) -> None:
        self._window, self._model = window, window.model
        self.page: MethodPage | None = None  # the one that was opened last
        self.arriving = Arriving(window, self.put_block_under)
        self.tracing = Tracing(window)
        self.by_ruler = ByRuler(window)

    # People.

    def new_person(self) -> None:
        """Another person without measurements, with the hand in the name."""
        self._model.set_view("measure")
        self._window.views.people.add(Person(name="New person", date=today()))
        self._window.views.measure.begin()

    def again_today(self) -> None:
        """The chosen person at today's date, with what was measured before to be written over."""
        person = self._window.views.people.person
        if person is not None:
            self._window.views.people.add(person.model_copy(update={"date": today()}))

    def bring_in(self) -> None:
        """People of a file beside those that are there."""
        path = self._window.ask.open_file("Bring in measurements", PEOPLE)
        if path is not None:
            self.bring_in_from(path)

    def bring_in_from(self, path: Path) -> None:
        """The same from a file that is known; what was left out is listed."""
        self._model.set_view("measure")
        told_: list[str] = []
        before = len(self._window.views.people.all)
        if self._model.tried(lambda: told_.extend(self._window.views.people.take_in(path))):
            count = len(self._window.views.people.all) - before
            self._model.say(f"Brought in {count} {'person' if count == 1 else 'people'} from {path.name}.")
            self._window.notice.drop("left out")
            if told_:
                self._window.notice.put("left out", "; ".join(told_[:6]) + ("…" if len(told_) > 6 else "."), ())

    def save_people(self) -> None:
        """Everybody as .zmeas or CSV, by the name's ending."""
        path = self._window.ask.save_file("Save all measurements", "people.zmeas", PEOPLE)
        if path is not None:
            target = path if path.suffix else path.with_suffix(".zmeas")
            self._model.tried(lambda: self._window.views.people.write_to(target), f"Saved {target.name}.")

    def save_fractions(self) -> None:
        """The fraction table as PDF to print, or as CSV."""
        people = self._window.views.people
        body, unit = people.body(), self._model.style.units
        path = self._window.ask.save_file("Save the fraction table", f"{body.title}, fractions.pdf", f"{PRINTED};;CSV (*.csv)")
        if path is None:
            return
        target = path if path.suffix else path.with_suffix(".pdf")
        rows = [[MEASUREMENTS[row.name], *told(row, unit)] for row in fraction_table(body.lengths)]
        head = ["", "whole", *(f"1/{part}" for part in PARTS)]
        if target.suffix.lower() == ".csv":
            self._model.tried(
                lambda: files.write_atomic(target, measures_csv.write_table([head, *rows])), f"Saved {target.name}."
            )
        else:
            content = fractions_pdf(body.title, [head, *rows], self._window.paging.for_sheets)
            self._printed(target, content)

    # Drafts.

    def new_style(self) -> None:
        """A style over the drafted block, shown at once."""
        style = self._window.views.drafting.new_style()
        if style is not None and self._window.docs.may_leave():
            self._model.file.replace(style, None)
            self._model.set_view("style")
            self._model.say(f"A new style over {style.block.name}. Save it to keep it.")

    def put_under(self) -> None:
        """The drafted block under the style that is open."""
        block = self._window.views.drafting.block
        if block is not None:
            self.put_block_under(block)

    def swap_block(self) -> None:
        """A block from a file under the style that is open."""
        path = self._window.ask.open_file("Put a block under this style", "Blocks (*.zblock)")
        if path is not None:
            self._model.tried(lambda: self.put_block_under(block_file.read(path)))

    def put_block_under(self, block: BlockFile) -> None:
        """A block under the style that is open; what it changes is listed."""
        self._model.set_view("block")
        self._window.views.drafting.put_under(block)
        self._window.views.block.tabs.turn("swapped")

    def save_block(self) -> None:
        """The drafted block as a file, the same as the command line writes."""
        block = self._window.views.drafting.block
        if block is None:
            return
        path = self._window.ask.save_file("Save the block", f"{block.name}{block_file.SUFFIX}", "Blocks (*.zblock)")
        if path is not None:
            target = path if path.suffix else path.with_suffix(block_file.SUFFIX)
            self._model.tried(lambda: files.write_atomic(target, block_file.dump(block)), f"Saved {target.name}.")

    def print_draft(self) -> None:
        """The draft as PDF at the chosen scale."""
        drafting = self._window.views.drafting
        if drafting.drawn is None or drafting.block is None:
            return
        scale, name = drafting.scale, drafting.block.name
        path = self._window.ask.save_file("Print the draft", f"{name}, {scale.replace(':', ' to ')}.pdf", PRINTED)
        if path is not None:
            self._printed(path, draft_pdf(drafting.drawn, name, scale, self._window.paging.for_sheets))

    def print_instruction(self) -> None:
        """The numbered instruction as PDF."""
        drafting = self._window.views.drafting
        if drafting.drawn is None or drafting.block is None:
            return
        name = drafting.block.name
        path = self._window.ask.save_file("Print the instruction", f"{name}, by hand.pdf", PRINTED)
        if path is not None:
            self._printed(path, instruction_pdf(drafting.drawn, name, self._model.style.units, self._window.paging.for_sheets))

    def _printed(self, path: Path, content: bytes) -> None:
        target = path if path.suffix else path.with_suffix(".pdf")
        if self._model.tried(lambda: files.write_atomic(target, content), f"Saved {target.name}."):
            text = f"{target.name} is saved. Open it and print it at 100 %."
            self._window.notice.put("printed", text, [("Open it", lambda: self._window.show_file(target))])

    # Methods.

    def edit_method(self) -> None:
        """The method's text to change, as a copy of one's own."""
        self.page = MethodPage(self._window.views.drafting, self._model.say, self._window.views)
        self.page.show()

    def take(self, path: Path) -> None:
        """A file of people or of a method, from wherever it came."""
        if path.suffix.lower() == SUFFIX:
            self.take_method(path)
        else:
            self.bring_in_from(path)

    def bring_in_method(self) -> None:
        """Somebody's method beside the program's."""
        path = self._window.ask.open_file("Bring in a drafting method", METHODS)
        if path is not None:
            self.take_method(path)

    def take_method(self, path: Path) -> None:
        """The same from a file that is known."""

        def take() -> None:
            method = method_file.read(path)
            files.write_atomic(methods_folder() / f"{method.id}{SUFFIX}", method_file.dump(method))
            self._window.views.drafting.look_for_methods()
            self._model.say(f"{method.title} is among the drafting methods.")

        self._model.tried(take)

    def save_method(self) -> None:
        """The chosen method as a file to share."""
        method = self._window.views.drafting.method
        path = self._window.ask.save_file("Save the method", f"{method.id}{SUFFIX}", METHODS)
        if path is not None:
            target = path if path.suffix else path.with_suffix(SUFFIX)
            self._model.tried(lambda: files.write_atomic(target, method_file.dump(method)), f"Saved {target.name}.")
