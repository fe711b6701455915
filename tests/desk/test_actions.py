"""The table of actions: every id runs and does something, is reached by keyboard, and is found in the command list."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication, QKeySequence
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMessageBox, QPushButton

from tests import paper_files
from tests.paper_blocks import Lay, pieces_of
from tests.ruled_blocks import ruler_file
from tests.samples import hip_block, move, real_block, style
from zesty_pivot.core.exports.registry import all_exports
from zesty_pivot.core.formats import block_file, imported, photographed, ruled, style_file
from zesty_pivot.core.formats.lay_models import LayFile
from zesty_pivot.core.formats.table_lay import PieceLay, TableLay
from zesty_pivot.core.intake.photo.picture import read as photograph_read
from zesty_pivot.core.steps import registry
from zesty_pivot.data.demo import demo_photograph, demo_trace
from zesty_pivot.data.digitisers import shipped
from zesty_pivot.desk.actions import actions
from zesty_pivot.desk.command_list import CommandList
from zesty_pivot.desk.sizes.sizes import STATIONS

STEPS = [move("shoulder", "french"), move("waist", "side_bust", "50%"), {"do": "piece.true", "on": "front", "edge": "waist"}]
IDS = [action.id for action in actions()]


def test_ids_and_shortcuts_are_given_once() -> None:
    assert len(set(IDS)) == len(IDS)
    shortcuts = [action.shortcut for action in actions() if action.shortcut]
    assert len(set(shortcuts)) == len(shortcuts)
    for shortcut in shortcuts:
        assert QKeySequence(shortcut).toString() or shortcut == "Ctrl++", shortcut


def noted(window) -> None:  # type: ignore[no-untyped-def]
    window.model.edit(window.model.style.model_copy(update={"notes": "x"}), "note")


def bead(window, dart: str = "waist") -> None:  # type: ignore[no-untyped-def]
    window.model.choose_pivot(("front", "bust_point"), dart)


def parked(window) -> None:  # type: ignore[no-untyped-def]
    bead(window)
    window.run("bead.park")


def eased(window) -> None:  # type: ignore[no-untyped-def]
    """A dart that is small enough to be eased in."""
    window.model.recipe.add_step(registry.read(move("waist", "mid_armhole", "5%")), "a small one")
    bead(window, "mid_armhole")


# What has to be so before an action can be done.
def panelled(window) -> None:  # type: ignore[no-untyped-def]
    """Panels on the table: some of one line, and one that can be taped again."""
    steps = [{"do": "line.princess", "on": "back"}, {"do": "line.cut", "on": "front", "from": {"edge": "centre", "at": "80%"},
              "to": {"edge": "centre", "at": "60%"}, "shape": "heart", "width": "3 cm"}]  # fmt: skip
    window.model.file.replace(style(steps), None)


def drafting(window) -> None:  # type: ignore[no-untyped-def]
    """A draft half drawn, with a convention of its own."""
    window.views.people.choose(0)
    window.model.set_view("block")
    window.views.drafting.set("contour", "1 in")
    window.views.drafting.go(20)


def person(window) -> None:  # type: ignore[no-untyped-def]
    window.model.set_view("measure")
    window.views.people.choose(0)


def varied(window) -> None:  # type: ignore[no-untyped-def]
    window.run("variant.new")


def came_in(window) -> None:  # type: ignore[no-untyped-def]
    """A block from a drawing on the table of the import, with something said of it."""
    content = paper_files.svg([paper_files.lines_of(piece) for piece in pieces_of(real_block(), Lay())])
    window.views.intake.incoming.begin(imported.from_bytes("rail.svg", content))


def kept_one(window) -> None:  # type: ignore[no-untyped-def]
    window.views.intake.rail.keep(real_block(), "the block of a test")
    window.model.set_view("library")


def put_elsewhere(window) -> None:  # type: ignore[no-untyped-def]
    lay = PieceLay(x=40.0, y=30.0)
    window.model.edit(window.model.style.model_copy(update={"table": TableLay(pieces={"front": lay})}), "put elsewhere")


def traced(window) -> None:  # type: ignore[no-untyped-def]
    """The demo's block on the digitiser's table; what a dialog gives is a trace, or a digitiser's file."""
    window.run("digitiser.show")
    window.views.intake.digitising.play_demo()
    window.views.intake.digitising.to_end()
    window.ask.path = window.ask.path.with_suffix(".ztrace")
    window.ask.path.write_bytes(demo_trace())


def device_chosen(window) -> None:  # type: ignore[no-untyped-def]
    traced(window)
    window.ask.path.write_text(shipped()[0].model_copy(update={"id": "ours"}).model_dump_json())


def ruled_one(window) -> None:  # type: ignore[no-untyped-def]
    """A block measured by ruler; what a dialog gives is another sheet."""
    window.ask.path = window.ask.path.with_suffix(".zruler")
    window.ask.path.write_bytes(ruled.dump(ruler_file(real_block(), curve_points=0)))
    window.views.intake.ruling.open_file(window.ask.path)
    window.ask.path.write_bytes(ruled.dump(ruler_file(real_block(), curve_points=1)))


def photographed_bare(window) -> None:  # type: ignore[no-untyped-def]
    """The demo's photograph as if it had no marks: any four corners lay it flat."""
    photo = photographed.BarePhoto("bare.jpg", photograph_read(demo_photograph()))
    window.views.intake.sizing.begin(photo)


def on_cloth(window) -> None:  # type: ignore[no-untyped-def]
    """Pieces laid one by one, the first of them chosen."""
    window.run("paper.cloth")
    cloths = window.views.cloths
    cloths.search._thread.join()
    QApplication.processEvents()
    cloths.chosen = cloths.plan.pieces[0].key
    cloths.changed.emit()


def moved_aside(window) -> None:  # type: ignore[no-untyped-def]
    window.run("paper.true_size")
    window.views.showing.nudge(1, 0, leaps=True)


def measured_screen(window) -> None:  # type: ignore[no-untyped-def]
    """A screen of which both bars were measured."""
    window.run("paper.true_size")
    window.views.showing.choose(next(key for key in window.views.showing.displays.all() if key != "simulated"))
    window.views.showing.keep(bars=(250.0, 240.0))


STATIONS_OF_SIZES = {f"sizes.{id}" for id in STATIONS}


def sized(window, station: str = "nested") -> None:  # type: ignore[no-untyped-def]
    """The style in all its sizes."""
    window.run("view.sizes")
    window.views.in_sizes.sizes.turn(station)
    window.views.in_sizes.sizes.work._thread.join()
    QApplication.processEvents()


def chart_changed(window) -> None:  # type: ignore[no-untyped-def]
    """A chart of one's own; what a dialog gives is another one."""
    sized(window, "chart")
    charts = window.views.in_sizes.charts
    window.ask.path = window.ask.path.with_suffix(".csv")
    charts.write_to(window.ask.path)
    charts.set_cell("regular · 40", "waist", "77 cm")
    window.views.in_sizes.view.refresh()


def writing(window) -> None:  # type: ignore[no-untyped-def]
    sized(window, "write")
    window.ask.path = window.ask.path.parent / "written"
    window.run("sizes.write_all")


BEFORE: dict[str, Callable] = {
    **{id: sized for id in IDS if id.startswith("sizes.") and id not in STATIONS_OF_SIZES},
    **{id: chart_changed for id in IDS if id.startswith("chart.")},
    "sizes.stop": writing,
    "sizes.nested": lambda w: sized(w, "chart"),
    **dict.fromkeys(("lay.find", "lay.turn", "lay.lock"), on_cloth),
    "export.lay": lambda w: w.model.file.replace(style([]).model_copy(update={"lays": (LayFile(folded=True),)}), None),
    "paper.pages": lambda w: w.run("paper.cloth"),
    "plot.run": lambda w: w.run("paper.plotter"),
    "plot.pause": lambda w: (w.run("paper.plotter"), w.run("plot.run")),
    **dict.fromkeys(("show.aim", "show.turn"), lambda w: w.run("paper.true_size")),
    "show.middle": moved_aside,
    "show.fill": measured_screen,
    "view.true_size": lambda w: (measured_screen(w), w.model.set_view("style")),
    **dict.fromkeys(("stand.front", "stand.left", "stand.back", "stand.stop"), lambda w: w.model.set_view("stand")),
    "sizing.finish": photographed_bare,
    **{id: traced for id in IDS if id.startswith("digitiser.") and id != "digitiser.show"},
    "digitiser.to_end": lambda w: (w.run("digitiser.show"), w.views.intake.digitising.play_demo()),
    "digitiser.device": device_chosen,
    **{id: ruled_one for id in IDS if id.startswith("ruler.") and id != "ruler.show"},
    **dict.fromkeys(("people.again", "people.remove", "people.fractions"), person),
    **{id: drafting for id in IDS if id.startswith(("draft.", "method."))},
    **{id: came_in for id in IDS if id.startswith("import.") and id not in ("import.open", "import.show", "import.photograph")},
    "import.photograph": lambda w: w.views.intake.incoming.begin(photographed.from_bytes("paper-block.jpg", demo_photograph())),
    "import.show": lambda w: (came_in(w), w.model.set_view("style")),
    **dict.fromkeys(("library.version", "library.take_out"), kept_one),
    "edit.redo": lambda w: (noted(w), w.model.undo()),
    "edit.history": noted,
    "step.other": lambda w: (
        w.model.file.replace(style([{"do": "line.princess", "on": "front"}]), None),
        w.model.choose_step(0),
    ),
    "step.copy": lambda w: (QGuiApplication.clipboard().clear(), w.strip.choose(1)),
    "step.paste": lambda w: (w.strip.choose(1), w.run("step.copy")),
    "step.fold": lambda w: (w.model.undo(), w.run("true.all")),
    **{id: varied for id in IDS if id.startswith("variant.")},
    "edit.undo": noted,
    "file.demo": noted,
    "view.style": lambda w: w.model.set_view("paper"),
    "units.cm": lambda w: w.model.recipe.set_units("in"),
    "panel.reading": lambda w: w.lay.show_panel("hand"),
    "trace.over": lambda w: w.lay.trace_state(0),
    "walk.next": lambda w: w.lay.show_panel("walk"),
    "walk.turn": lambda w: w.lay.show_panel("walk"),
    "hand.way": lambda w: w.lay.show_panel("hand"),
    **{f"use.{use}": bead for use in ("gathers", "tucks", "pleats", "flare")},
    "add.dart.fisheye": lambda w: w.model.file.replace(style([], hip_block()), None),
    **dict.fromkeys(("table.comb", "table.spread", "add.piece.join"), panelled),
    "add.trim.hem": lambda w: w.model.file.replace(style([], hip_block()), None),
    "add.yoke.join": lambda w: w.model.file.replace(style([{"do": "yoke.cut", "on": on} for on in ("front", "back")]), None),
    "add.trim.strap": lambda w: w.model.file.replace(style([{"do": "neck.shape", "on": "front", "shape": "camisole"}]), None),
    **dict.fromkeys(("table.line_up", "table.lay_back"), put_elsewhere),
    "use.ease": eased,
    "use.dart": lambda w: (bead(w), w.run("use.gathers")),
    "bead.fan": bead,
    "bead.shape": bead,
    "bead.park": bead,
    "bead.return": parked,
    "add.dart.return": parked,
    "theme.system": lambda w: w.set_theme("light"),
}


def seen(window, told: list) -> tuple:  # type: ignore[no-untyped-def]
    """All that an action could change."""
    model, lay, canvas = window.model, window.lay, window.canvas()
    people, draft = window.views.people, window.views.drafting
    held = QGuiApplication.clipboard().mimeData()
    return (
        window.views.intake.rail.blocks, window.views.intake.digitising.taken, window.views.intake.digitising.is_running,
        window.views.intake.ruling.file, people.all, people.chosen, draft.reached, draft.conventions, len(draft.methods),
        model.style, model.view, model.file.is_dirty, model.file.path, model.step, model.looking,
        canvas.scale, canvas.origin.x(),
        lay.panel, lay.fold, lay.comb, lay.spread, lay.traced, lay.is_over, lay.seam, lay.is_from_end, lay.way,
        window.keeper.settings.theme,
        tuple(window.ask.asked), tuple(told), window.isVisible(), window.focusWidget(), held is not None and held.hasImage(),
        held.text() if held is not None else "",
        tuple(type(w).__name__ for w in QApplication.topLevelWidgets() if w.isVisible()), window.pages.tour.isVisible(),
        window.views.station, window.views.cloths.search.is_at_work,
        None if window.views.plotting.sending is None else window.views.plotting.sending.stage,
        *((window.views.stand.canvas.turn, window.views.trying.work.is_at_work) if model.view == "stand" else ()),
        window.views.showing.is_aiming, window.views.showing.quarters, window.views.showing.shift,
        window.views.in_sizes.sizes.station, window.views.in_sizes.charts.chart, window.views.in_sizes.writing.was_stopped,
        window.pages.guide.page, window.table.tape.tool.is_on, frozenset(window.strip.unfolded),
    )  # fmt: skip


ADDED = [id for id in IDS if id.startswith("add.") and id not in BEFORE]
OTHERS = [id for id in IDS if id not in ADDED]


@pytest.mark.parametrize("ids", [ADDED[first::4] for first in range(4)], ids=["1", "2", "3", "4"])
def test_every_step_is_added_by_its_action(ids: list[str], open_desk) -> None:
    window = open_desk(style(STEPS))
    for id in ids:
        window.model.choose_step(1)
        window.qt_actions.ask()
        assert window.qt_action(id).isEnabled(), id
        window.run(id)
        assert window.model.style.steps[2].do == id.removeprefix("add."), id  # after the chosen one
        window.run("edit.undo")
        assert window.model.style.steps == style(STEPS).steps


@pytest.mark.usefixtures("rough_stand")
@pytest.mark.parametrize("id", OTHERS)
def test_every_action_does_something(id: str, open_desk, few, monkeypatch: pytest.MonkeyPatch, tmp_path) -> None:
    window = open_desk(style(STEPS))
    told: list = []
    monkeypatch.setattr(QMessageBox, "about", lambda *a: told.append(a))
    window.ask.path = tmp_path / "made.zpiv"
    if id == "body.swap_block":
        window.ask.path.write_bytes(block_file.dump(hip_block()))
    else:
        style_file.save(style(STEPS[:1]), window.ask.path)
    QGuiApplication.clipboard().clear()
    window.model.choose_step(1)
    BEFORE.get(id, lambda _w: None)(window)
    window.canvas().pan(3, 3)
    assert window.qt_action(id).isEnabled()
    before = seen(window, told)
    window.run(id)
    assert seen(window, told) != before


def test_what_cannot_be_done_is_not_offered(open_desk) -> None:
    window = open_desk(style([]))
    window.qt_actions.ask()  # as when the menus open
    for id in (
        "edit.undo", "edit.redo", "step.off", "step.earlier", "step.later", "step.remove", "step.edit", "step.rename",
        "step.duplicate", "look.back", "look.on", "units.cm", "trace.over", "walk.next", "walk.turn", "hand.way",
        "panel.reading", "view.style", "theme.system", "use.gathers", "use.dart", "bead.fan", "bead.shape", "bead.park",
        "bead.return", "add.dart.return",
    ):  # fmt: skip
        assert not window.qt_action(id).isEnabled(), id
        before = seen(window, [])
        window.run(id)
        assert seen(window, []) == before


def test_menus_hold_every_action(open_desk) -> None:
    """So everything is reached by keyboard: Alt opens the menus."""
    window = open_desk()
    found = {action.text() for menu in window.menuBar().actions() for action in menu.menu().actions()}
    assert {window.qt_action(id).text() for id in tuple(window.qt_actions.known)} == found
    for action, found_action in window.qt_actions.known.values():
        assert found_action.shortcut() == QKeySequence(action.shortcut)
        assert found_action.toolTip()


def test_shortcuts_work_from_the_keyboard(open_desk) -> None:
    """A few shortcuts typed for real: fold, tracing paper, walk, hand sheet, back."""
    window = open_desk()
    window.activateWindow()
    assert QTest.qWaitForWindowActive(window)
    QTest.keyClick(window.table, Qt.Key.Key_F, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    assert window.lay.fold == 1.0
    QTest.keyClick(window.table, Qt.Key.Key_B, Qt.KeyboardModifier.ControlModifier)
    assert window.lay.traced is not None
    for key, panel in ((Qt.Key.Key_2, "trace"), (Qt.Key.Key_3, "walk"), (Qt.Key.Key_4, "hand"), (Qt.Key.Key_1, "reading")):
        QTest.keyClick(window, key, Qt.KeyboardModifier.AltModifier)
        assert window.lay.panel == panel


def test_f6_goes_through_the_window(open_desk) -> None:
    window = open_desk()
    visited = []
    for _ in range(7):
        window.run("view.next_part")
        visited.append(window.focusWidget())
    parts = [window.header, window.style_view.left, window.table, window.style_view.foot, window.side, window.strip]
    for part in parts:
        assert any(part is widget or part.isAncestorOf(widget) for widget in visited), part
    window.model.set_view("paper")
    for _ in range(3):
        window.run("view.next_part")
    assert window.focusWidget() is not None


def test_the_command_list_finds_and_runs(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk()
    window.run("help.commands")
    (commands,) = window.findChildren(CommandList)
    assert commands.ids() == IDS
    QTest.keyClicks(commands.search, "show inches")
    assert commands.ids() == ["units.in"]
    QTest.keyClick(commands.search, Qt.Key.Key_Return)
    assert window.model.style.units == "in" and not commands.isVisible()


def test_the_command_list_passes_over_what_cannot_be_done(open_desk) -> None:
    window = open_desk(style([]))
    window.run("help.commands")
    (commands,) = window.findChildren(CommandList)
    QTest.keyClicks(commands.search, "step")
    listed = commands.ids()
    assert "step.remove" in listed
    seen_rows = set()
    for _ in range(len(listed) + 2):
        seen_rows.add(commands.ids()[commands.list.currentRow()])
        QTest.keyClick(commands.search, Qt.Key.Key_Down)
    assert "step.remove" not in seen_rows and "add.dart.move" in seen_rows
    commands.search.setText("fold")  # the word itself before a folder
    assert {"table.fold", "step.fold"} == set(commands.ids()[:2]) and "export.all" in commands.ids()
    commands.search.setText("zzz")
    assert commands.ids() == [] and "another word" in commands.hint.text()
    commands.run()
    assert commands.isVisible()
    commands.close()


@pytest.mark.usefixtures("rough_stand")
def test_every_export_format_has_its_action_and_its_button(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]).model_copy(update={"lays": (LayFile(folded=True),)}))
    window.model.set_view("paper")
    said = [button.text() for button in window.views.paper.findChildren(QPushButton)]
    for id, one in all_exports().items():
        assert f"Save the {one.button or one.title}" in said
        window.ask.path = tmp_path / "out"
        window.run(f"export.{id}")
        qtbot.waitUntil(lambda: not window.worker.is_busy, timeout=10_000)
        assert (tmp_path / f"out{one.ending}").read_bytes() == one.files(window.model.derived, window.paging.printing)[
            one.whole("A4")
        ]()
