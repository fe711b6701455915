"""A short lay on open cloth: searched for in a child process, told as it gets better, stopped at once."""

from __future__ import annotations

import json
import subprocess
import sys
from collections.abc import Iterator, Sequence
from threading import Event, Thread

import shapely

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.nest.cloth import Cloth
from zesty_pivot.core.nest.cut_pieces import CutPiece
from zesty_pivot.core.nest.lay import LayPlan, OnCloth, plan_of_places

SEED = 1
HAIR = 0.02  # mm that shapes are widened beyond half the gap: what the search takes for touching lies a little over
ENDED_S = 5.0  # how long a child that was told to end may take


def searched_strip(
    cloth: Cloth, pieces: Sequence[CutPiece], seconds: int, stop: Event | None = None
) -> Iterator[LayPlan]:  # fmt: skip
    """Shorter and shorter lays, for so many seconds or until `stop` is set. Raises ZestyError where the search breaks off
    before it has found any."""
    half = cloth.gap / 2.0 + HAIR
    items = [{"key": piece.key, "turns": list(cloth.turns), "shape": _widened(piece.shape, half)} for piece in pieces]
    question = {"height": cloth.usable + 2.0 * half, "items": items, "seconds": max(1, int(seconds)), "seed": SEED}
    child = subprocess.Popen(
        [sys.executable, "-m", "zesty_pivot.core.nest.strip_child"], stdin=subprocess.PIPE, stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL, text=True, encoding="utf-8",
    )  # fmt: skip
    assert child.stdin is not None and child.stdout is not None
    watcher = Thread(target=_watch, args=(child, stop), name="zesty-lay-stop", daemon=True)
    count = 0
    try:
        if stop is not None:
            watcher.start()
        child.stdin.write(json.dumps(question))
        child.stdin.close()
        for line in child.stdout:
            plan = _plan(cloth, pieces, json.loads(line)["places"], half)
            if not plan.clashes:
                count += 1
                yield plan
        code = child.wait()
        if not count and not (stop is not None and stop.is_set()):
            raise ZestyError(f"the search for a lay broke off (code {code})", where="lay", advice="Lay the pieces one by one.")
    except BrokenPipeError:
        raise ZestyError("the search for a lay broke off", where="lay", advice="Lay the pieces one by one.") from None
    finally:
        if child.poll() is None:
            child.kill()
        child.wait(ENDED_S)
        child.stdout.close()
        if stop is not None:
            watcher.join(1.0)


def _watch(child: subprocess.Popen[str], stop: Event | None) -> None:
    """Ends the child when it is to stop; ends itself when the child has."""
    while child.poll() is None:
        if stop is not None and stop.wait(0.05):
            child.kill()
            return


def _widened(shape: shapely.Polygon, by: float) -> list[tuple[float, float]]:
    wide = shape.buffer(by, join_style="mitre", mitre_limit=2.0)
    return [(float(x), float(y)) for x, y in shapely.get_coordinates(wide.exterior)]


def _plan(cloth: Cloth, pieces: Sequence[CutPiece], told: Sequence[Sequence[float | str]], half: float) -> LayPlan:
    """The answer as places on the cloth; it begins at 0 whatever was widened."""
    found = [OnCloth(str(key), float(turn), float(x) - half, float(y) - half) for key, turn, x, y in told]
    return plan_of_places(cloth, pieces, found)
