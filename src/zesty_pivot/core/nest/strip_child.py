"""The search for a short lay, in a process of its own: it reads one question as JSON and writes a line for every better answer.

In a process of its own because the library that searches can be neither stopped nor kept from ending the program.
"""

from __future__ import annotations

import json
import sys
import threading
import time
from typing import Any

import spyrrow

TURN_S = 0.05


def _solve(question: dict[str, Any]) -> None:
    items = [spyrrow.Item(one["key"], [tuple(point) for point in one["shape"]], 1, one["turns"]) for one in question["items"]]
    instance = spyrrow.StripPackingInstance("lay", question["height"], items)
    # One worker with a seed repeats itself; several do not.
    config = spyrrow.StripPackingConfig(
        early_termination=True, total_computation_time=question["seconds"], num_workers=1, seed=question["seed"]
    )
    queue = spyrrow.ProgressQueue()
    outcome: list[Any] = []
    thread = threading.Thread(target=lambda: outcome.append(instance.solve(config, queue)), daemon=True)
    thread.start()
    while thread.is_alive():
        thread.join(TURN_S)
        _tell(queue)
        time.sleep(0.0)
    _tell(queue)
    if outcome:
        _say(outcome[0])


def _tell(queue: Any) -> None:
    """The last of the answers that can be cut; others still lie on each other."""
    fit = (spyrrow.ReportType.ExplFeas, spyrrow.ReportType.CmprFeas, spyrrow.ReportType.Final)
    found = [solution for kind, solution in queue.drain() if kind in fit]
    if found:
        _say(found[-1])


def _say(solution: Any) -> None:
    places = [(one.id, one.rotation, *one.translation) for one in solution.placed_items]
    sys.stdout.write(json.dumps({"length": solution.width, "places": places}) + "\n")
    sys.stdout.flush()


if __name__ == "__main__":
    _solve(json.loads(sys.stdin.read()))
