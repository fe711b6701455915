"""The plotter in the paper view: a plot to the simulated one, paused, jammed, given up; a port that is not there."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.core.plotter.test_sending import same
from tests.desk.test_pages import type_into
from tests.samples import style
from zesty_pivot.core.exports.plot import plotted
from zesty_pivot.core.formats.lay_sheet import lay_at_full_size
from zesty_pivot.core.plotter.sending import Stage
from zesty_pivot.core.plotter.serving import SocketPlotter
from zesty_pivot.core.plotter.simulator import SimulatedPlotter, Trouble
from zesty_pivot.desk.settings import load


@pytest.fixture
def window(open_desk):  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.run("paper.plotter")
    window.views.plotting.pace = 400.0
    return window


def test_a_plot_is_sent_and_drawn(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    plotting, view = window.views.plotting, window.views.paper.plotter
    QTest.mouseClick(view.start, Qt.MouseButton.LeftButton)
    assert plotting.is_running and view.start.text() == "Give this plot up"
    qtbot.waitUntil(lambda: not plotting.is_running and not plotting.is_drawing, timeout=60_000)
    assert plotting.sending.stage is Stage.DONE and plotting.plotter.lost == 0
    assert same(plotting.plotter, plotted(window.model.derived.sheet, window.paging.printing))
    assert "All of it is sent and drawn" in view.told.text() and view.progress.value() == 1000
    assert not plotting._timer.isActive()
    assert view.canvas._count == len(plotting.plotter.lines) - 1


def test_jam_pause_and_giving_up(window, qtbot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr("zesty_pivot.core.plotter.sending.JAM_S", 1.0)  # nobody waits for eight seconds here
    plotting, view = window.views.plotting, window.views.paper.plotter
    window.run("plot.run")
    qtbot.waitUntil(lambda: plotting.plotter.drawn > 50.0, timeout=20_000)
    QTest.mouseClick(view.jam, Qt.MouseButton.LeftButton)
    assert plotting.plotter.trouble is Trouble.JAM and view.jam.text() == "Free the jam" and not view.paper.isEnabled()
    drawn = plotting.plotter.drawn
    qtbot.waitUntil(lambda: "jammed" in view.told.text(), timeout=20_000)
    assert plotting.plotter.drawn == drawn
    QTest.mouseClick(view.jam, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: plotting.plotter.drawn > drawn, timeout=20_000)
    plotting.pace = 1.0
    window.run("plot.pause")
    assert plotting.sending.stage is Stage.PAUSED and view.pause.text() == "Go on"
    window.run("plot.pause")
    assert plotting.sending.stage is Stage.SENDING
    before = window.model.style
    window.run("plot.run")
    assert plotting.sending.stage is Stage.CANCELLED and "Given up" in view.told.text()
    assert window.model.style == before  # nothing else is harmed


def test_power_lost_in_the_middle_is_told(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    plotting, view = window.views.plotting, window.views.paper.plotter
    window.run("plot.run")
    qtbot.waitUntil(lambda: plotting.plotter.drawn > 50.0, timeout=20_000)
    QTest.mouseClick(view.power, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not plotting.is_running, timeout=20_000)
    assert plotting.sending.stage is Stage.LOST and "gone" in view.told.text() and view.start.isEnabled()


def test_a_plotter_in_the_network_and_one_that_is_not_there(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    plotting, view = window.views.plotting, window.views.paper.plotter
    view.goal.picked.emit("socket://")
    type_into(view.place, "127.0.0.1:1")
    assert plotting.goal == "socket://127.0.0.1:1"
    told: list[str] = []
    window.model.said.connect(lambda text, _fault: told.append(text))
    window.run("plot.run")
    assert not plotting.is_running and "no plotter answers" in told[-1]
    type_into(view.place, "nowhere")
    assert view.place.fault() and plotting.goal == "socket://127.0.0.1:1"
    QTest.keyClick(view.place.edit, Qt.Key.Key_Escape)
    plotter = SimulatedPlotter(speed=1e6)
    served = SocketPlotter(plotter)
    type_into(view.place, served.name)
    view.handshake.picked.emit("xon")
    window.run("plot.run")
    for _ in range(20_000):
        served.pump(0.01)
        qtbot.wait(1)
        if not plotting.is_running:
            break
    served.close()
    assert plotting.sending.stage is Stage.DONE
    assert same(plotter, plotted(window.model.derived.sheet, window.paging.printing))
    window.keeper.writer.flush()
    assert (load().plotter, load().handshake) == (served.name, "xon")


def test_rolls_and_pens(window) -> None:  # type: ignore[no-untyped-def]
    view = window.views.paper.plotter
    type_into(view.roll, "30 cm")
    assert "panels with pass marks" in view.panels.text() and window.paging.printing.roll == 300.0
    type_into(view.roll, "1 cm")
    assert view.roll.fault() and window.paging.printing.roll == 300.0
    QTest.keyClick(view.roll.edit, Qt.Key.Key_Escape)
    type_into(view.length, "50 cm")
    assert window.paging.printing.roll_length == 500.0
    view.pens.picked.emit("1")
    assert window.paging.printing.pens == 1


def test_the_lay_is_plotted(window, qtbot) -> None:  # type: ignore[no-untyped-def]
    plotting, view = window.views.plotting, window.views.paper.plotter
    assert [view.what.itemData(n) for n in range(view.what.count())] == ["sheet"]
    window.run("paper.cloth")
    cloths = window.views.cloths
    qtbot.waitUntil(lambda: cloths.plan is not None and not cloths.search.is_at_work, timeout=30_000)
    window.run("paper.plotter")
    view.what.setCurrentIndex(1)
    view.what.activated.emit(1)
    assert plotting.is_lay
    lay = lay_at_full_size(cloths.plan)
    assert f"{window.model.length(lay.width)} by {window.model.length(lay.height)}" in view.panels.text()
    window.run("plot.run")
    qtbot.waitUntil(lambda: not plotting.is_running and not plotting.is_drawing, timeout=60_000)
    assert same(plotting.plotter, plotted(lay, window.paging.printing))
    # The pattern changes: what was laid is not drawn any longer until the cloth was looked at again.
    window.model.edit(window.model.style.with_finish({"allowances": {"front.side_seam": "3 cm"}}), "allowance")
    assert not plotting.has_lay and plotting.sheet == window.model.derived.sheet
