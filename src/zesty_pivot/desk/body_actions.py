"""Actions of the measure view and the block view, and whose history undo goes back in."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Protocol

from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.history import History
from zesty_pivot.desk.model import DIGITISER, IMPORT, RULER, SIZING


def _measuring(desk: Desk) -> bool:
    """Whether the people are seen, and one of them is chosen."""
    return desk.model.view == "measure" and desk.views.people.person is not None


def _drafting(desk: Desk) -> bool:
    return desk.model.view == "block"


def _has_block(desk: Desk) -> bool:
    return _drafting(desk) and desk.views.drafting.block is not None


class Undoable(Protocol):
    """Work with a history of its own."""

    @property
    def history(self) -> History[Any]: ...
    def undo(self, by: int) -> None: ...


def _own(desk: Desk) -> Undoable | None:
    """The work of the view that is seen, where it has a history of its own."""
    works: dict[str, Callable[[], Undoable | None]] = {
        IMPORT: lambda: desk.views.intake.incoming,
        DIGITISER: lambda: desk.views.intake.digitising,
        RULER: lambda: desk.views.intake.ruling,
        SIZING: lambda: desk.views.intake.sizing,
        "measure": lambda: desk.views.people if _measuring(desk) else None,
        "block": lambda: desk.views.drafting,
        "sizes": lambda: desk.views.in_sizes.charts if desk.views.in_sizes.sizes.station == "chart" else None,
    }
    return works[desk.model.view]() if desk.model.view in works else None


def _is_style_kept(desk: Desk) -> bool:
    """Whether undo never goes on to the style, which this view does not show."""
    return desk.model.view in (IMPORT, DIGITISER, RULER, SIZING) or _measuring(desk)


def undo(desk: Desk) -> None:
    """Takes back the last change of what is seen: of the people, a draft, a block that comes in, or the style."""
    own = _own(desk)
    if own is not None and (own.history.undo_title or _is_style_kept(desk)):
        own.undo(-1)
    else:
        desk.model.undo()


def redo(desk: Desk) -> None:
    """Does it again."""
    own = _own(desk)
    if own is not None and (own.history.redo_title or _is_style_kept(desk)):
        own.undo(1)
    else:
        desk.model.redo()


def undone(desk: Desk) -> str:
    """What undo would take back, or nothing."""
    own = _own(desk)
    title = own.history.undo_title if own is not None else ""
    return title if title or _is_style_kept(desk) else desk.model.history.undo_title


def redone(desk: Desk) -> str:
    """What redo would do again, or nothing."""
    own = _own(desk)
    title = own.history.redo_title if own is not None else ""
    return title if title or _is_style_kept(desk) else desk.model.history.redo_title


def _go(by: int) -> Callable[[Desk], None]:
    return lambda desk: desk.views.drafting.go(desk.views.drafting.reached + by)


def _can_go(by: int) -> Callable[[Desk], bool]:
    def can(desk: Desk) -> bool:
        return _drafting(desk) and 0 <= desk.views.drafting.reached + by <= desk.views.drafting.count

    return can


def actions() -> tuple[Action, ...]:
    """Measuring and drafting, in the order of the work."""
    return (
        Action("people.new", "Body", "New person", "Ctrl+Shift+N", lambda w: w.bodies.new_person(), icon="plus"),
        Action(
            "people.again", "Body", "Measured again today", "", lambda w: w.bodies.again_today(), _measuring,
            tip="The same person with today's date, to compare later",
        ),
        Action("people.remove", "Body", "Take the person out", "", lambda w: w.views.people.remove(), _measuring, "trash-2"),
        Action("people.import", "Body", "Bring in measurements…", "", lambda w: w.bodies.bring_in(), tip=".zmeas or CSV"),
        Action("people.export", "Body", "Save all measurements…", "", lambda w: w.bodies.save_people(), tip=".zmeas or CSV"),
        Action(
            "people.fractions", "Body", "Save the fraction table…", "", lambda w: w.bodies.save_fractions(),
            tip="Halves, quarters, sixths, eighths, twelfths as PDF or CSV",
        ),
        Action(
            "draft.first", "Body", "Draft from the beginning", "", _go(-10_000), lambda w: _can_go(-1)(w), "chevrons-left",
        ),
        Action("draft.back", "Body", "One line of the draft back", "", _go(-1), _can_go(-1), "chevron-left"),
        Action("draft.on", "Body", "One line of the draft on", "", _go(1), _can_go(1), "chevron-right"),
        Action("draft.last", "Body", "The whole draft", "", _go(10_000), lambda w: _can_go(1)(w), "chevrons-right"),
        Action(
            "draft.new_style", "Body", "New style over this block", "Ctrl+Shift+Return", lambda w: w.bodies.new_style(),
            _has_block, "file-plus",
        ),
        Action(
            "draft.put_under", "Body", "Put the block under this style", "", lambda w: w.bodies.put_under(), _has_block,
            "layers", "The same recipe for another body; undone in one step",
        ),
        Action(
            "body.swap_block", "Body", "Put a block from a file under this style…", "", lambda w: w.bodies.swap_block(),
            tip="The same recipe over another block; undone in one step",
        ),
        Action("draft.save", "Body", "Save the block…", "", lambda w: w.bodies.save_block(), _has_block, "save"),
        Action("draft.print", "Body", "Print the draft…", "", lambda w: w.bodies.print_draft(), _has_block, "printer"),
        Action(
            "draft.instruction", "Body", "Print the instruction…", "", lambda w: w.bodies.print_instruction(), _has_block,
            tip="Numbered lines with this body's arithmetic, and the fraction table",
        ),
        Action("method.edit", "Body", "Edit a copy of the method…", "", lambda w: w.bodies.edit_method(), _drafting, "pencil"),
        Action("method.import", "Body", "Bring in a method…", "", lambda w: w.bodies.bring_in_method(), tip="A .zmethod file"),
        Action("method.export", "Body", "Save the method…", "", lambda w: w.bodies.save_method(), _drafting, tip="To share it"),
    )  # fmt: skip
