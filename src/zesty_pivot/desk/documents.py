"""The work with files: open, save, leave, what changed on disk, pictures and sheets."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Protocol

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.base import FULL, Export
from zesty_pivot.core.formats import block_file, files, style_file
from zesty_pivot.core.formats.leftovers import Leftover
from zesty_pivot.core.formats.style_file import SUFFIX, Style
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.record import replace
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk import opening
from zesty_pivot.desk.opening import OpenDocument

if TYPE_CHECKING:
    from zesty_pivot.desk.ask import Asker
    from zesty_pivot.desk.fault_teller import FaultTeller
    from zesty_pivot.desk.keeping import Keeper
    from zesty_pivot.desk.lay import Lay
    from zesty_pivot.desk.model import DeskModel
    from zesty_pivot.desk.notice import Notice
    from zesty_pivot.desk.paper.paging import Paging
    from zesty_pivot.desk.table.canvas import Canvas
    from zesty_pivot.desk.work import Worker

STYLES = "Styles (*.zpiv)"
STYLES_AND_BLOCKS = "Styles and blocks (*.zpiv *.zblock)"
BLOCKS = "Blocks (*.zblock)"


class Host(Protocol):
    """What the work with files asks of the window."""

    model: DeskModel
    lay: Lay
    keeper: Keeper
    worker: Worker
    ask: Asker
    notice: Notice
    faults: FaultTeller

    def canvas(self) -> Canvas: ...
    @property
    def paging(self) -> Paging: ...
    def show_file(self, path: Path) -> None: ...


class Documents:
    """What the window does with files. Faults are said, and nothing is lost."""

    def __init__(self, window: Host) -> None:
        self._window = window
        self._model = window.model

    @property
    def _ask(self):  # type: ignore[no-untyped-def]
        return self._window.ask

    # Opening.

    def may_leave(self) -> bool:
        """Whether the document may be left: asks when something would be lost."""
        if not self._model.file.is_dirty:
            return True
        answer = self._ask.keep_changes(self._model.style.name)
        return self.save() if answer == "save" else answer == "discard"

    def open_path(self, path: Path) -> None:
        """Opens a style, or a new style over a block, worked out beside the interface."""
        if not self.may_leave():
            return
        keeper, path, left = self._window.keeper, path.absolute(), self._model.style

        def show(opened: OpenDocument) -> None:
            if self._model.style is not left and not self.may_leave():
                return  # something was changed while the file was being worked out
            self._model.file.adopt(opened)
            self._model.say(f"Opened {path.name}.")
            if path.suffix != block_file.SUFFIX:
                keeper.change(lambda settings: settings.with_recent(path))

        def tell(fault: ZestyError) -> None:
            self._model.say(str(fault), fault=True)
            if not path.exists():
                keeper.change(lambda settings: settings.without_recent(path))

        units = keeper.settings.units
        self._window.worker.run(f"Opening {path.name}", lambda told: _read(path, units, told), show, tell)

    def open_dialog(self) -> None:
        """Asks for a style or block and opens it."""
        path = self._ask.open_file("Open a style or a block", STYLES_AND_BLOCKS)
        if path is not None:
            self.open_path(path)

    def new_from_block(self) -> None:
        """Asks for a block and begins a style over it."""
        path = self._ask.open_file("New style from a block", BLOCKS)
        if path is not None:
            self.open_path(path)

    def open_demo(self, style: Style | None = None) -> None:
        """Opens a demo style, the first when none is given."""
        if self.may_leave():
            opened = style or demo_style()
            self._model.file.replace(opened, None)
            self._model.say(f"This is a demo: {opened.name}.")

    def bring_back(self, left: Leftover) -> bool:
        """Opens unsaved work of an earlier run; false when what is open now is kept instead, or it cannot be worked out."""
        return self.may_leave() and self._model.tried(
            lambda: self._window.keeper.bring_back(left), "Here it is. Save it to keep it."
        )

    # Saving.

    def save(self) -> bool:
        """Saves, asking for a name when there is none; false when it was not saved."""
        path = self._model.file.path
        if path is None:
            return self.save_as()
        if self._model.file.is_changed_on_disk and path.exists():
            answer = self._ask.changed_on_disk(path.name)
            if answer == "other":
                return self.save_as()
            if answer != "over":
                return False
        return self._save_to(path)

    def save_as(self) -> bool:
        """Saves under another name."""
        start = f"{self._model.style.name}{SUFFIX}" if self._model.file.path is None else str(self._model.file.path)
        path = self._ask.save_file("Save the style", start, STYLES)
        if path is None:
            return False
        return self._save_to(path if path.suffix else path.with_suffix(SUFFIX))

    def _save_to(self, path: Path) -> bool:
        path = path.absolute()
        if not self._model.tried(lambda: self._model.file.save(path), f"Saved {path.name}."):
            return False
        self._window.keeper.change(lambda settings: settings.with_recent(path))
        self._window.notice.drop("disk")
        return True

    def look_at_disk(self) -> None:
        """Says when something else has changed the file, and offers to take its version."""
        path = self._model.file.path
        if path is None or not self._model.file.is_changed_on_disk:
            return
        if not path.exists():
            self._window.notice.put("disk", f"{path.name} is no longer there. Save to write it again.", [("Save", self.save)])
            return
        self._window.notice.put(
            "disk", f"Something else has changed {path.name} since it was opened.",
            [("Take its version", self._take_theirs), ("Keep mine", self._model.file.keep_mine)],
        )  # fmt: skip

    def _take_theirs(self) -> None:
        path = self._model.file.path
        if path is not None and self.may_leave():
            self._model.tried(lambda: self._model.file.open(path), f"Opened {path.name} as it is now.")

    def rename(self) -> None:
        """Asks for the style's name."""
        name = self._ask.text("Name the style", "Name", self._model.style.name)
        if name and name.strip() and name.strip() != self._model.style.name:
            self._model.edit(self._model.style.model_copy(update={"name": name.strip()[:200]}), "name the style")

    # Tracing another style.

    def trace_other(self) -> None:
        """Asks for another style and lays it on the table."""
        path = self._ask.open_file("Lay another style on the table", STYLES)
        if path is not None and self._model.tried(lambda: self._window.lay.trace_style(path)):
            self._window.lay.show_panel("trace")

    # Getting it out.

    def export(self, one: Export) -> None:
        """Saves the style in a format: the PDF as the paper view shows it, tiled or on one page."""
        paging = self._window.paging
        path = self._ask.save_file(f"Save the {one.title}", f"{self._model.style.name}{one.ending}", one.kind)
        if path is None:
            return
        target = path if path.suffix else path.with_suffix(one.ending)
        derived, printing = paging.settled(), paging.printing
        whole = one.whole(paging.chosen)
        self._work(
            f"Writing {target.name}",
            lambda _progress: files.write_atomic(target, one.files(derived, printing)[whole]()),
            f"Saved {target.name}.",
            target if one.is_printed else None,
            kept=(one.id, "one page" if paging.chosen == FULL else paging.chosen) if one.is_printed else None,
        )

    def export_hand(self) -> None:
        """Saves the hand sheet as a PDF."""
        path = self._ask.save_file("Save the hand sheet", f"{self._model.style.name}, by hand.pdf", "PDF (*.pdf)")
        if path is None:
            return
        from zesty_pivot.core.exports.pdf import hand_pdf

        derived, way, paper = self._model.derived, self._window.lay.way, self._paper()
        target = path if path.suffix else path.with_suffix(".pdf")
        self._work(
            "Writing the hand sheet", lambda _progress: files.write_atomic(target, hand_pdf(derived, way, paper)),
            f"Saved {target.name}.", target,
        )  # fmt: skip

    def _paper(self) -> str:
        chosen = self._window.paging.for_sheets
        return "A4" if chosen == FULL else chosen

    def export_all(self) -> None:
        """Saves every format to a folder."""
        folder = self._ask.folder("Save everything to a folder")
        if folder is None:
            return
        from zesty_pivot.core.exports.registry import outputs, wanted_by
        from zesty_pivot.core.formats.folder import write_together

        derived, printing = self._window.paging.settled(), self._window.paging.printing
        wanted = wanted_by(derived)

        def job(progress: Callable[[int, int], None]) -> None:
            write_together(folder, outputs(derived, wanted, printing, progress))

        self._work(
            "Writing sheets, pages and report", job, f"Saved everything to {folder}.", kept=("pdf", self._window.paging.chosen)
        )

    def export_variants(self) -> None:
        """Saves every format of every variant, each to a folder of its own within a folder."""
        folder = self._ask.folder("Save every variant to a folder")
        if folder is None:
            return
        from zesty_pivot.core.exports.registry import wanted_by, write_variants

        wanted = wanted_by(self._model.derived)
        style, printing = self._model.style, replace(self._window.paging.printing, only="")
        self._work(
            "Writing every variant",
            lambda progress: write_variants(style, folder, wanted, printing, progress),
            f"Saved every variant to {folder}.",
        )

    def ask_text(self, title: str, name: str, start: str) -> str | None:
        """A line of text from the user, or None."""
        answer: str | None = self._ask.text(title, name, start)
        return answer

    def _work(
        self, title: str, job: Callable[[Callable[[int, int], None]], object], said: str, printed: Path | None = None,
        *, kept: tuple[str, str] | None = None,
    ) -> None:  # fmt: skip
        """Long work; a PDF that was written is offered to be opened, which is how it gets to the printer. `kept` says how
        and on what it was printed, which is kept with the style."""

        def done(_result: object) -> None:
            if kept is not None:
                self._window.paging.keep(*kept)
            self._model.say(said)
            if printed is not None:
                text = f"{printed.name} is saved. Open it and print it at 100 %."
                self._window.notice.put("printed", text, [("Open it", lambda: self._window.show_file(printed))])

        self._window.worker.run(title, job, done, lambda fault: self._model.say(str(fault), fault=True))

    def save_fault_report(self) -> None:
        """Saves what is known of the faults of this run; no names and no measurements are in it."""
        path = self._ask.save_file("Save the fault report", "zesty-pivot-fault.txt", "Text (*.txt)")
        if path is not None:
            target = path if path.suffix else path.with_suffix(".txt")
            self._model.tried(lambda: files.write_atomic(target, self._window.faults.report.encode()), f"Saved {target.name}.")

    def copy_picture(self) -> None:
        """Copies what the table shows as PNG and SVG."""
        from zesty_pivot.desk import snapshots

        snapshots.copy(self._window.canvas())
        self._model.say("Copied the picture as PNG and SVG.")

    def save_picture(self) -> None:
        """Saves what the table shows as SVG or PNG, by the name's ending."""
        path = self._ask.save_file("Save a picture", f"{self._model.style.name}.png", "Pictures (*.png *.svg)")
        if path is None:
            return
        target = path if path.suffix else path.with_suffix(".png")
        canvas = self._window.canvas()
        if target.suffix.lower() not in (".png", ".svg"):
            self._model.say(f"{target.name} is not a picture's name. Let it end in .png or .svg.", fault=True)
            return
        from zesty_pivot.desk import snapshots

        content = snapshots.svg(canvas) if target.suffix.lower() == ".svg" else snapshots.png(canvas)
        self._model.tried(lambda: files.write_atomic(target, content), f"Saved {target.name}.")

    # Starting.

    def new_over_demo_block(self) -> None:
        """A new style over the block of the demo."""
        if self.may_leave():
            units = self._window.keeper.settings.units
            fresh = style_file.from_block(demo_style().block).model_copy(update={"units": units})
            self._model.file.replace(fresh, None)
            self._model.say("A new style over the demo's block.")


def _read(path: Path, units: Unit, told: Callable[[int, int], None]) -> OpenDocument:
    """A document from a file; a new style over a block has the unit that the user prefers."""
    if path.suffix != block_file.SUFFIX:
        return opening.read(path, told)
    style = style_file.from_block(block_file.read(path), path.stem.replace("-", " "))
    return opening.ready(style.model_copy(update={"units": units}), None, told)
