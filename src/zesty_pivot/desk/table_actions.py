"""What can be done with the table: the tape, where pieces lie, what is in view."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.table.style_table import StyleTable


def _on_table(work: Callable[[StyleTable], object]) -> Callable[[Desk], None]:
    def run(desk: Desk) -> None:
        desk.model.set_view("style")
        work(desk.table)

    return run


def _turn(table: StyleTable) -> None:
    name = table.chosen_piece()
    if name:
        table.laying.turn(name)


def _has_put(desk: Desk) -> bool:
    return bool(desk.model.style.table.pieces)


def _tape(desk: Desk) -> None:
    desk.model.set_view("style")
    desk.lay.set_fold(0.0)
    desk.lay.show_panel("reading" if desk.lay.panel == "walk" else desk.lay.panel)
    desk.table.take_tape()


def _find(desk: Desk) -> None:
    desk.model.set_view("style")
    desk.drawer.begin_search()


def actions() -> tuple[Action, ...]:
    """The actions, in the order of the menu."""
    return (
        Action(
            "step.find", "Step", "Find a step…", "Ctrl+F", _find, icon="search",
            tip="Type what you want: dart transfer, boat neck, slash",
        ),
        Action(
            "table.tape", "Table", "Measure with the tape", "Ctrl+R", _tape, icon="tape",
            tip="From a place to a place, straight or along the seam; keep what it shows",
        ),
        Action(
            "table.turn", "Table", "Turn the piece by 90°", "Ctrl+Shift+R", _on_table(_turn),
            lambda w: bool(w.table.chosen_piece()), tip="The piece that is pointed at, else the one with the ring",
        ),
        Action(
            "table.line_up", "Table", "Line up the pieces", "", _on_table(lambda table: table.laying.line_up()), _has_put,
            tip="Upright, their construction lines level",
        ),
        Action(
            "table.lay_back", "Table", "Lay the pieces back", "", _on_table(lambda table: table.laying.lay_back()), _has_put,
            tip="Every piece where it lies by itself",
        ),
        Action(
            "table.sides", "Table", "Change the places of front and back", "",
            _on_table(lambda table: table.laying.swap_sides()), tip="Back on the left, or front, on table and sheets",
        ),
        Action(
            "view.piece", "View", "Show the chosen piece", "Ctrl+9", _on_table(lambda table: table.show_piece()),
            tip="The piece that is pointed at, else the one with the ring",
        ),
    )  # fmt: skip
