"""Actions of the import view and the library view."""

from __future__ import annotations

from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.model import IMPORT, LIBRARY, SIZING


def _has_block(desk: Desk) -> bool:
    return desk.model.view in (IMPORT, LIBRARY) and desk.bodies.arriving.block is not None


def _came(desk: Desk) -> bool:
    return desk.model.view == IMPORT and desk.views.intake.incoming.block is not None


def _photographed(desk: Desk) -> bool:
    return desk.model.view == IMPORT and desk.bodies.arriving.photographs is not None


def _kept(desk: Desk) -> bool:
    return desk.model.view == LIBRARY and desk.views.intake.rail.chosen is not None


def _add_version(desk: Desk) -> None:
    kept = desk.views.intake.rail.chosen
    note = desk.docs.ask_text("Another version", "What was changed", "") if kept is not None else None
    if kept is not None and note is not None:
        desk.model.tried(lambda: desk.views.intake.rail.add_version(kept, note.strip()), f"{kept.name} has another version.")


def _take_out(desk: Desk) -> None:
    kept = desk.views.intake.rail.chosen
    if kept is not None:
        desk.views.intake.rail.take_out(kept)
        desk.model.say(f"{kept.name} is off the rail; its file is set aside in the library's folder.")


def actions() -> tuple[Action, ...]:
    """Bringing in and keeping, in the order of the work."""
    return (
        Action(
            "import.open", "Blocks", "Bring in a block…", "Ctrl+Shift+I", lambda w: w.bodies.arriving.open_dialog(),
            icon="file-plus", tip="From a drawing (SVG, DXF, HP-GL) or a photograph",
        ),
        Action(
            "import.frame", "Blocks", "Print the frame of marks…", "", lambda w: w.bodies.arriving.print_frame(),
            icon="printer", tip="Twelve marks to lay round a block before it is photographed",
        ),
        Action(
            "import.photograph", "Blocks", "Add another photograph…", "", lambda w: w.bodies.arriving.add_photograph(),
            _photographed, "image", "Of the same table, for a piece that is too large for one picture",
        ),
        Action(
            "sizing.finish", "Blocks", "Lay the photograph flat", "", lambda w: w.bodies.arriving.lay_flat(),
            lambda w: w.model.view == SIZING, tip="By the sheet or ruler that was pointed at",
        ),
        Action(
            "import.show", "Blocks", "The block that came in", "", lambda w: w.model.set_view(IMPORT),
            lambda w: w.model.view != IMPORT and w.views.intake.has_import, tip="Back to what lies on the table of the import",
        ),
        Action(
            "import.new_style", "Blocks", "New style over this block", "", lambda w: w.bodies.arriving.new_style(), _has_block,
            "scissors", "The block that came in, or the chosen one of the library",
        ),
        Action(
            "import.put_under", "Blocks", "Put it under the open style", "", lambda w: w.bodies.arriving.put_under(),
            _has_block, "layers", "The same recipe over this block; undone in one step",
        ),
        Action(
            "import.keep", "Blocks", "Hang it in the library", "", lambda w: w.bodies.arriving.keep(), _came,
            tip="With where it came from",
        ),
        Action("import.save", "Blocks", "Save this block…", "", lambda w: w.bodies.arriving.save(), _has_block, "save"),
        Action(
            "library.show", "Blocks", "Block library", "Ctrl+Shift+G", lambda w: w.model.set_view(LIBRARY),
            lambda w: w.model.view != LIBRARY, "layers", "The blocks on the rail, searched by name or girth",
        ),
        Action(
            "library.keep", "Blocks", "Hang this style's block in the library", "", lambda w: w.bodies.arriving.keep_present(),
            tip="So that other styles can be made over it",
        ),
        Action(
            "library.version", "Blocks", "This style's block as a version…", "", _add_version, _kept, tip="Of the chosen block",
        ),
        Action("library.take_out", "Blocks", "Take it off the rail", "", _take_out, _kept, "trash-2", "Its file is set aside"),
        Action(
            "library.export", "Blocks", "Save the whole library…", "", lambda w: w.bodies.arriving.save_library(),
            tip="As one file",
        ),
        Action(
            "library.import", "Blocks", "Bring in a library…", "", lambda w: w.bodies.arriving.bring_in_library(),
            tip="Its blocks beside those that are here",
        ),
    )  # fmt: skip
