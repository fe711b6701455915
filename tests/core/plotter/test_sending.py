"""A plot on its way to the simulated plotter: nothing lost with a small buffer, and every trouble told."""

from __future__ import annotations

import time
from functools import lru_cache

import numpy as np
import pytest
import shapely

from tests.core.plotter.test_hpgl import lines_of
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.plotter.drawn import drawn_svg
from zesty_pivot.core.plotter.frames import Roll, frames
from zesty_pivot.core.plotter.hpgl import plot
from zesty_pivot.core.plotter.port import SerialPlotterLine
from zesty_pivot.core.plotter.sending import Handshake, Sending, Stage
from zesty_pivot.core.plotter.serving import DirectLine, PtyPlotter, SocketPlotter
from zesty_pivot.core.plotter.simulator import SimulatedPlotter, Trouble
from zesty_pivot.data.demo import _read


@lru_cache(maxsize=1)
def content() -> bytes:
    derived = derive(_read("descant.zpiv"))
    return plot(frames(derived.sheet.laid, (derived.sheet.width, derived.sheet.height), Roll(900.0)))


def sent(sending: Sending, plotter: SimulatedPlotter, served=None, *, until: float = 2000.0, real: float = 0.0) -> float:  # type: ignore[no-untyped-def]
    """Lets time pass until the plot is over and drawn; how long it took, in seconds of the plotter."""
    now = 0.0
    while now < until and not (sending.is_over and plotter.is_idle):
        sending.step(now)
        served.pump(0.02) if served else plotter.run(0.02)
        now += 0.02
        if real:
            time.sleep(real)
    return now


def drawing(plotter: SimulatedPlotter) -> shapely.Geometry:
    return shapely.union_all([shapely.LineString(line) for _pen, line in plotter.lines if len(line) > 1])


def same(plotter: SimulatedPlotter, wanted: bytes) -> bool:
    """Whether it drew what the file says, line by line."""
    told = [(pen, line) for pen, line in lines_of(wanted)]
    length = sum(float(np.hypot(*np.diff(line, axis=0).T).sum()) for _pen, line in told)
    pens = {pen: sum(shapely.LineString(line).length for p, line in told if p == pen) for pen, _l in told}
    drawn = {
        pen: sum(shapely.LineString(line).length for p, line in plotter.lines if p == pen and len(line) > 1) for pen in pens
    }
    return abs(plotter.drawn - length) < 0.01 and all(abs(drawn[pen] - pens[pen]) < 0.01 for pen in pens)


@pytest.mark.parametrize("handshake", [Handshake.ASK, Handshake.XON])
@pytest.mark.parametrize("where", ["direct", "terminal"])
def test_nothing_is_lost_with_a_small_buffer(handshake: Handshake, where: str) -> None:
    plotter = SimulatedPlotter(buffer=1024, speed=2000.0)
    served = PtyPlotter(plotter) if where == "terminal" else None
    line = SerialPlotterLine(served.name) if served else DirectLine(plotter)
    sending = Sending(content(), line, handshake)
    sent(sending, plotter, served)
    assert sending.stage is Stage.DONE and plotter.lost == plotter.errors == 0
    assert same(plotter, content())
    if served:
        served.close()


def test_a_place_in_the_network() -> None:
    plotter = SimulatedPlotter(speed=8000.0)
    served = SocketPlotter(plotter)
    sending = Sending(content(), SerialPlotterLine(served.name), Handshake.XON)
    sent(sending, plotter, served, until=200.0, real=0.0005)
    served.close()
    assert sending.stage is Stage.DONE and plotter.lost == 0 and same(plotter, content())


def test_without_a_handshake_a_slow_plotter_loses_what_it_is_sent() -> None:
    """What the handshakes are for."""
    plotter = SimulatedPlotter(speed=100.0)
    sending = Sending(content(), DirectLine(plotter), Handshake.NONE, speed=9600)
    sent(sending, plotter)
    assert plotter.lost > len(content()) / 2 and not same(plotter, content())


@pytest.mark.parametrize("handshake", [Handshake.ASK, Handshake.XON])
def test_a_jam_is_told_and_the_plot_goes_on_after_it(handshake: Handshake) -> None:
    plotter = SimulatedPlotter(speed=2000.0, jams_after=900.0)
    sending = Sending(content(), DirectLine(plotter), handshake)
    now = sent(sending, plotter, until=30.0)
    assert plotter.trouble is Trouble.JAM and plotter.drawn == pytest.approx(900.0)
    assert "jammed" in sending.trouble and not sending.is_over
    plotter.free()
    while now < 3000.0 and not (sending.is_over and plotter.is_idle):
        sending.step(now)
        plotter.run(0.02)
        now += 0.02
    assert sending.stage is Stage.DONE and sending.trouble == "" and same(plotter, content())


@pytest.mark.parametrize(("what", "word"), [("end_paper", "no paper"), ("pause", "paused at its own keys")])
def test_no_paper_and_a_hand_at_its_keys_are_told(what: str, word: str) -> None:
    plotter = SimulatedPlotter(speed=2000.0)
    sending = Sending(content(), DirectLine(plotter), Handshake.ASK)
    now = sent(sending, plotter, until=2.0)
    getattr(plotter, what)()
    for _ in range(1500):
        sending.step(now)
        plotter.run(0.02)
        now += 0.02
    assert word in sending.trouble and not sending.is_over
    plotter.free()
    while now < 3000.0 and not (sending.is_over and plotter.is_idle):
        sending.step(now)
        plotter.run(0.02)
        now += 0.02
    assert same(plotter, content())


def test_it_is_paused_and_goes_on() -> None:
    plotter = SimulatedPlotter(speed=2000.0)
    sending = Sending(content(), DirectLine(plotter), Handshake.ASK)
    now = sent(sending, plotter, until=2.0)
    sending.pause()
    before = sending.sent
    for _ in range(2000):
        sending.step(now)
        plotter.run(0.02)
        now += 0.02
    drawn = plotter.drawn
    plotter.run(60.0)
    assert sending.sent == before and plotter.drawn == drawn and not sending.trouble  # nobody takes a pause for a jam
    sending.go_on()
    while now < 3000.0 and not (sending.is_over and plotter.is_idle):
        sending.step(now)
        plotter.run(0.02)
        now += 0.02
    assert same(plotter, content())


def test_it_is_cancelled() -> None:
    plotter = SimulatedPlotter(speed=500.0)
    sending = Sending(content(), DirectLine(plotter), Handshake.ASK)
    sent(sending, plotter, until=3.0)
    drawn = plotter.drawn
    sending.cancel()
    assert sending.stage is Stage.CANCELLED
    plotter.run(60.0)
    assert plotter.is_idle and plotter.drawn == pytest.approx(drawn) and plotter.errors == 0
    sending.step(99.0)
    assert sending.stage is Stage.CANCELLED
    # The next plot comes out whole.
    again = Sending(content(), DirectLine(plotter), Handshake.ASK)
    before = plotter.drawn
    sent(again, plotter)
    assert again.stage is Stage.DONE and plotter.drawn > before + 1000.0


def test_power_lost_in_the_middle() -> None:
    plotter = SimulatedPlotter(speed=500.0)
    served = PtyPlotter(plotter)
    sending = Sending(content(), SerialPlotterLine(served.name), Handshake.ASK)
    now = sent(sending, plotter, served, until=2.0)
    plotter.power_off()
    for _ in range(1000):
        sending.step(now)
        served.pump(0.02)
        now += 0.02
    assert "switched off" in sending.trouble and not sending.is_over
    sending.cancel()
    served.close()
    # A line that is pulled out is gone at once.
    plotter = SimulatedPlotter()
    direct = Sending(content(), DirectLine(plotter), Handshake.XON)
    direct.step(0.0)
    plotter.power_off()
    direct.step(0.1)
    assert direct.stage is Stage.LOST and "gone" in direct.trouble


def test_a_port_that_is_not_there() -> None:
    for name in ("/dev/none-such", "socket://127.0.0.1:1", "frob://x", ""):
        with pytest.raises(FileError) as fault:
            SerialPlotterLine(name)
        assert "no plotter answers" in str(fault.value) and fault.value.advice
    with pytest.raises(FileError):
        SocketPlotter(SimulatedPlotter(), 99_999)


def test_what_is_no_hpgl_harms_nobody() -> None:
    plotter = SimulatedPlotter(speed=1e6)
    chance = np.random.default_rng(4)
    for _ in range(60):
        plotter.take(bytes(chance.integers(0, 256, 200, dtype=np.uint8)))
        plotter.take(b"PD1,2,;PU,;SP;SPx;PD99999999999999;PA5;PG;;")
        plotter.run(0.5)
    assert plotter.trouble is Trouble.NONE


def test_what_was_drawn_as_svg() -> None:
    plotter = SimulatedPlotter(speed=1e6)
    plotter.take(b"IN;SP1;PU400,400;PD4400,400,4400,2400;PU;SP2;PU0,0;PD400,0;PU;SP0;PG;")
    plotter.run(10.0)
    text = drawn_svg(plotter.lines).decode()
    assert 'width="130.000mm"' in text and 'height="80.000mm"' in text and text.count("<polyline") == 2
    assert 'id="pen1"' in text and 'id="pen2"' in text and "20.000,60.000 120.000,60.000 120.000,10.000" in text
