"""What is done with blocks that come in and with those on the rail: open a file, begin a style, keep, save. Faults are said,
and nothing is lost."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Protocol

from zesty_pivot.core.formats import block_file, files, imported, style_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.digitised import SUFFIX as TRACE_SUFFIX
from zesty_pivot.core.formats.library import WHOLE_SUFFIX
from zesty_pivot.core.formats.photographed import BarePhoto, PhotoSource
from zesty_pivot.core.intake.photo.mat import PAGES
from zesty_pivot.core.intake.readers.registry import all_readers
from zesty_pivot.data.digitisers import shipped
from zesty_pivot.desk.measure_view import today
from zesty_pivot.desk.model import IMPORT, LIBRARY

if TYPE_CHECKING:
    from zesty_pivot.desk.ask import Asker
    from zesty_pivot.desk.documents import Documents
    from zesty_pivot.desk.incoming import CameIn
    from zesty_pivot.desk.keeping import Keeper
    from zesty_pivot.desk.model import DeskModel
    from zesty_pivot.desk.notice import Notice
    from zesty_pivot.desk.paper.paging import Paging
    from zesty_pivot.desk.views import Views
    from zesty_pivot.desk.work import Worker

BLOCKS = "Blocks (*.zblock)"
PICTURE_ENDINGS = "*.jpg *.jpeg *.png"
TRACES = f"Traces of digitisers (*{TRACE_SUFFIX} *.txt)"
PHOTOGRAPHS = f"Photographs ({PICTURE_ENDINGS})"
RAILS = f"Block libraries (*{WHOLE_SUFFIX})"


class ArrivingHost(Protocol):
    """What this work asks of the window."""

    model: DeskModel
    ask: Asker
    views: Views
    docs: Documents
    keeper: Keeper
    worker: Worker
    notice: Notice

    @property
    def paging(self) -> Paging: ...
    def show_file(self, path: Path) -> None: ...


class Arriving:
    """The work with blocks from outside and with the library."""

    def __init__(self, window: ArrivingHost, put_under: Callable[[BlockFile], None]) -> None:
        """`put_under` puts a block under the style that is open."""
        self._window, self._model = window, window.model
        self._put_under = put_under

    # Coming in.

    def kinds(self) -> str:
        """The files that can come in, as a file dialog names them."""
        readers = all_readers()
        everything = " ".join(f"*{ending}" for reader in readers for ending in reader.endings)
        kinds = [reader.kind for reader in readers]
        return ";;".join(
            [
                f"Blocks to bring in ({everything} {PICTURE_ENDINGS} *{TRACE_SUFFIX})",
                *kinds,
                PHOTOGRAPHS,
                TRACES,
                "All files (*)",
            ]
        )

    def open_dialog(self) -> None:
        """Asks for a file and brings it in."""
        path = self._window.ask.open_file("Bring in a block", self.kinds())
        if path is not None:
            self.take(path)

    def take(self, path: Path) -> None:
        """A file from wherever it came; read beside the interface."""

        def show(source: CameIn | BarePhoto) -> None:
            if isinstance(source, BarePhoto):
                self._window.views.intake.sizing.begin(source)
                return
            self._window.views.intake.incoming.begin(source)
            self._model.say(f"{path.name} lies on the table. Look at what is asked, then begin a style over it.")

        self._window.worker.run(
            f"Reading {path.name}",
            lambda _told: imported.read(path, shipped()),
            show,
            lambda fault: self._model.say(str(fault), fault=True),
        )

    @property
    def photographs(self) -> PhotoSource | None:
        """The photographs that came in."""
        came = self._window.views.intake.incoming.came if self._window.views.intake.has_import else None
        return came if isinstance(came, PhotoSource) else None

    def add_photograph(self) -> None:
        """Asks for another photograph of the same table, for a piece that is too large for one."""
        source = self.photographs
        path = self._window.ask.open_file("Add another photograph", PHOTOGRAPHS) if source is not None else None
        if source is None or path is None:
            return

        def show(more: PhotoSource) -> None:
            self._window.views.intake.incoming.begin(more)
            self._model.say(f"{path.name} lies with the others.")

        self._window.worker.run(
            f"Reading {path.name}",
            lambda _told: imported.with_another(source, path),
            show,
            lambda fault: self._model.say(str(fault), fault=True),
        )

    def lay_flat(self) -> None:
        """The photograph whose size was told, laid flat and read as a block."""
        sizing = self._window.views.intake.sizing
        photo = sizing.photo
        if photo is None:
            return

        def show(source: PhotoSource) -> None:
            self._window.views.intake.incoming.begin(source)
            self._model.say(f"{photo.name} is laid flat. Look at what is asked, then begin a style over it.")

        self._window.worker.run(
            f"Laying {photo.name} flat",
            lambda _told: imported.sized(photo, sizing.known()),
            show,
            lambda fault: self._model.say(str(fault), fault=True),
        )

    def print_frame(self) -> None:
        """The frame of marks that photographs are taken in, as a PDF for the chosen paper."""
        paper = self._window.paging.for_sheets
        paper = paper if paper in PAGES else "A4"
        path = self._window.ask.save_file("Print the frame of marks", f"frame of marks, {paper}.pdf", "PDF (*.pdf)")
        if path is None:
            return
        from zesty_pivot.core.formats.pdf_mat import mat_pdf

        target = path if path.suffix else path.with_suffix(".pdf")
        if self._model.tried(lambda: files.write_atomic(target, mat_pdf(paper)), f"Saved {target.name}."):
            text = f"{target.name} is saved. Open it and print it at 100 %."
            self._window.notice.put("printed", text, [("Open it", lambda: self._window.show_file(target))])

    @property
    def block(self) -> BlockFile | None:
        """The block that is meant: of the import or of the library, whichever is seen."""
        if self._model.view == IMPORT:
            return self._window.views.intake.incoming.block
        kept = self._window.views.intake.rail.chosen if self._model.view == LIBRARY else None
        return kept.block if kept is not None else None

    def new_style(self) -> None:
        """A style over the block, shown at once; a block that came in is kept on the rail as well."""
        block = self.block
        if block is None or not self._window.docs.may_leave():
            return
        if self._model.view == IMPORT:
            self.keep()
        units = self._window.keeper.settings.units
        style = style_file.from_block(block, block.name).model_copy(update={"units": units})
        self._model.file.replace(style, None)
        self._model.set_view("style")
        self._model.say(f"A new style over {block.name}. Save it to keep it.")

    def put_under(self) -> None:
        """The block under the style that is open."""
        if self.block is not None:
            self._put_under(self.block)

    def save(self) -> None:
        """The block as a file."""
        block = self.block
        if block is None:
            return
        path = self._window.ask.save_file("Save the block", f"{block.name}{block_file.SUFFIX}", BLOCKS)
        if path is not None:
            target = path if path.suffix else path.with_suffix(block_file.SUFFIX)
            self._model.tried(lambda: files.write_atomic(target, block_file.dump(block)), f"Saved {target.name}.")

    def keep(self) -> None:
        """Hangs the block that came in on the rail."""
        incoming, rail = self._window.views.intake.incoming, self._window.views.intake.rail
        block, came = incoming.block, incoming.came
        if block is not None and came is not None:
            self._model.tried(lambda: rail.keep(block, f"came in from {came.name}"), f"{block.name} hangs in the library.")

    # The rail.

    def keep_present(self) -> None:
        """Hangs the block of the style that is open on the rail."""
        block, name = self._model.style.block, self._model.style.name
        self._model.set_view(LIBRARY)
        rail = self._window.views.intake.rail
        self._model.tried(lambda: rail.keep(block, f"the block of {name}"), f"{block.name} hangs in the library.")

    def save_library(self) -> None:
        """The whole library as one file."""
        path = self._window.ask.save_file("Save the whole library", f"blocks of {today()}{WHOLE_SUFFIX}", RAILS)
        if path is not None:
            target = path if path.suffix else path.with_suffix(WHOLE_SUFFIX)
            rail = self._window.views.intake.rail
            self._model.tried(lambda: files.write_atomic(target, rail.library.whole()), f"Saved {target.name}.")

    def bring_in_library(self) -> None:
        """Asks for a whole library and hangs its blocks beside those that are here."""
        path = self._window.ask.open_file("Bring in a library", RAILS)
        if path is not None:
            self.take_library(path)

    def take_library(self, path: Path) -> None:
        """The same from a file that is known."""
        self._model.set_view(LIBRARY)
        rail = self._window.views.intake.rail

        def take() -> None:
            came, known = rail.take_in(path)
            here = f"; {known} {'was' if known == 1 else 'were'} here already" if known else ""
            self._model.say(f"{came} block{'s' if came != 1 else ''} came from {path.name}{here}.")

        self._model.tried(take)
