"""Actions of the paper view: its stations, the lay, the plot."""

from __future__ import annotations

from zesty_pivot.desk.action import Action, Desk


def _station(id: str, title: str, shortcut: str, tip: str) -> Action:
    def turn(desk: Desk) -> None:
        desk.views.station = id
        desk.model.set_view("paper")
        desk.views.paper.turn(id)

    return Action(f"paper.{id}", "View", title, shortcut, turn, tip=tip)


def _at(desk: Desk, station: str) -> bool:
    return desk.model.view == "paper" and desk.views.station == station


def _has_piece(desk: Desk) -> bool:
    return _at(desk, "cloth") and desk.views.cloths.place(desk.views.cloths.chosen) is not None


def actions() -> tuple[Action, ...]:
    """In the order of the work."""
    return (
        _station("pages", "Pages", "Ctrl+Alt+1", "How the pattern comes out of a printer"),
        _station("cloth", "Cloth", "Ctrl+Alt+2", "Where the pieces lie on the cloth, and how much to buy"),
        _station("plotter", "Plotter", "Ctrl+Alt+3", "The pattern on a plotter, or on the simulated one"),
        Action(
            "lay.find", "View", "Find a shorter lay, or stop", "Ctrl+Alt+L", lambda w: w.views.cloths.find(),
            lambda w: _at(w, "cloth"), tip="Looks until it is stopped or time is up; the lay is kept with the style",
        ),
        Action(
            "lay.turn", "View", "Turn the piece on the cloth", "", lambda w: w.views.cloths.turn(), _has_piece,
            tip="By the half round, where the cloth has no nap",
        ),
        Action(
            "lay.lock", "View", "Lock the piece on the cloth, or let it go", "", lambda w: w.views.cloths.lock(), _has_piece,
            tip="A locked piece stays where it lies",
        ),
        Action(
            "plot.run", "View", "Start the plot, or give it up", "", lambda w: w.views.plotting.run(),
            lambda w: _at(w, "plotter"), tip="Sends the pattern to the chosen plotter",
        ),
        Action(
            "plot.pause", "View", "Pause the plot, or go on", "", lambda w: w.views.plotting.pause(),
            lambda w: _at(w, "plotter") and w.views.plotting.is_running, tip="The plotter draws what it has, and waits",
        ),
    )  # fmt: skip
