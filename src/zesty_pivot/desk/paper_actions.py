"""Actions of the paper view: its stations, the lay, the plot, the true size."""

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


def _shows(desk: Desk) -> bool:
    return _at(desk, "true_size")


def _zoom(desk: Desk) -> None:
    scale = desk.views.showing.displays.scale_of(desk.views.screen())
    if scale is None:
        desk.model.say("Measure the bars of this screen first: Paper, True size.", fault=True)
        return
    canvas = desk.canvas()
    canvas.zoom(scale / canvas.scale)


def actions() -> tuple[Action, ...]:
    """In the order of the work."""
    return (
        _station("pages", "Pages", "Ctrl+Alt+1", "How the pattern comes out of a printer"),
        _station("cloth", "Cloth", "Ctrl+Alt+2", "Where the pieces lie on the cloth, and how much to buy"),
        _station("plotter", "Plotter", "Ctrl+Alt+3", "The pattern on a plotter, or on the simulated one"),
        _station("true_size", "True size", "Ctrl+Alt+4", "The pattern at true size on a screen or by a projector"),
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
        Action(
            "show.aim", "View", "Set the marks or bars, or be done", "", lambda w: w.views.showing.aim(), _shows,
            tip="Each mark on its cross of the mat; or the bars that are measured on a screen",
        ),
        Action(
            "show.fill", "View", "Fill the screen, or end it", "", lambda w: w.views.fill_screen(),
            lambda w: _shows(w) and not w.views.showing.displays.is_simulated,
            tip="The picture at true size on the chosen screen",
        ),
        Action(
            "show.turn", "View", "Turn the picture by a quarter", "", lambda w: w.views.showing.turn(), _shows,
            tip="What is shown at true size, turned clockwise",
        ),
        Action(
            "show.middle", "View", "Picture back to the middle", "", lambda w: w.views.showing.middle(), _shows,
            tip="What is shown at true size, where it began",
        ),
        Action(
            "view.true_size", "View", "Zoom to true size", "Ctrl+Alt+0", _zoom,
            tip="As large as it is cut, on a screen whose bars were measured in Paper, True size",
        ),
    )  # fmt: skip
