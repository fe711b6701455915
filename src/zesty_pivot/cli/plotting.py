"""`zesty-pivot plotter`: a plotter that is simulated, and a plot sent to one."""

from __future__ import annotations

import sys
import time
from pathlib import Path
from typing import TYPE_CHECKING

import click

from zesty_pivot.cli.saying import echo
from zesty_pivot.core.errors import ZestyError

if TYPE_CHECKING:
    from zesty_pivot.core.plotter.serving import PtyPlotter, SocketPlotter
    from zesty_pivot.core.plotter.simulator import SimulatedPlotter

TURN_S = 0.01  # how often the line is looked at
QUIET_S = 1.0  # so long nothing comes after a plot until it is taken for whole


@click.command(name="plotter")
@click.option("--simulate", is_flag=True, help="Be a plotter: on a pseudo-terminal, or with --socket in the network.")
@click.option("--socket", "port", type=click.IntRange(0, 65535), help="Listen on this port; 0 takes any that is free.")
@click.option("--speed", type=click.FloatRange(1.0, 100_000.0), default=400.0, show_default=True, help="Mm a second it draws.")
@click.option("--jam-after", type=float, default=0.0, help="Mm after which it jams.")
@click.option("--paper", type=float, default=0.0, help="Mm of drawing after which its paper ends.")
@click.option("--out", type=click.Path(path_type=Path), help="An SVG of what it drew, written when a plot is whole.")
@click.option("--once", is_flag=True, help="End after one plot.")
@click.option("--send", type=click.Path(path_type=Path), help="Send this HP-GL file.")
@click.option("--to", "goal", default="", help="Where to: a port as /dev/ttyUSB0, or socket://host:9100.")
@click.option(
    "--handshake", type=click.Choice(("ask", "xon", "none")), default="ask", show_default=True,
    help="How the plotter tells when to wait.",
)  # fmt: skip
@click.option("--baud", type=click.IntRange(110, 4_000_000), default=9600, show_default=True, help="Bits a second of a port.")
def plotter(
    simulate: bool, port: int | None, speed: float, jam_after: float, paper: float, out: Path | None, once: bool,
    send: Path | None, goal: str, handshake: str, baud: int,
) -> None:  # fmt: skip
    """Simulate a plotter, or send a plot (from `derive --format plot`) to one."""
    if simulate == (send is not None):
        raise click.UsageError("Give either --simulate or --send FILE.")
    if send is not None:
        if not goal:
            raise click.UsageError("Say where to send it with --to.")
        _send(send, goal, handshake, baud)
        return
    from zesty_pivot.core.plotter.serving import PtyPlotter, SocketPlotter
    from zesty_pivot.core.plotter.simulator import SimulatedPlotter

    made = SimulatedPlotter(speed=speed, jams_after=jam_after, paper=paper)
    served = PtyPlotter(made) if port is None else SocketPlotter(made, port)
    echo(served.name)
    sys.stdout.flush()
    try:
        _serve(served, made, out, once=once)
    finally:
        served.close()


def _serve(served: PtyPlotter | SocketPlotter, made: SimulatedPlotter, out: Path | None, *, once: bool) -> None:
    from zesty_pivot.core.formats import files
    from zesty_pivot.core.plotter.drawn import drawn_svg

    last, whole, told, before = time.monotonic(), 0.0, "", 0.0
    while True:
        now = time.monotonic()
        served.pump(now - last)
        last = now
        if made.trouble.value != told:
            told = made.trouble.value
            if told:
                echo(f"zesty-pivot: the simulated plotter is {told} after {made.drawn / 1000.0:.1f} m", err=True)
        if made.drawn != before:
            before, whole = made.drawn, 0.0
        elif made.drawn and made.is_idle:
            whole = whole or now
            if now - whole > QUIET_S:
                if out is not None:
                    files.write_atomic(out, drawn_svg(made.lines))
                    echo(str(out))
                if once:
                    return
                out, whole = None, now + 1e9
        time.sleep(TURN_S)


def _send(path: Path, goal: str, handshake: str, baud: int) -> None:
    from zesty_pivot.core.formats import files
    from zesty_pivot.core.plotter.port import SerialPlotterLine
    from zesty_pivot.core.plotter.sending import Handshake, Sending, Stage

    content = files.read_bytes(path)
    sending = Sending(content, SerialPlotterLine(goal, baud), Handshake(handshake), speed=baud)
    told = ""
    try:
        while not sending.is_over:
            sending.step(time.monotonic())
            if sending.trouble and sending.trouble != told:
                echo(f"zesty-pivot: {sending.trouble}", err=True)
            told = sending.trouble
            time.sleep(TURN_S / 2.0)
    except KeyboardInterrupt:
        sending.cancel()
        raise
    if sending.stage is not Stage.DONE:
        raise ZestyError(sending.trouble or "the plot was not sent")
    echo(f"sent {len(content)} bytes to {goal}")
