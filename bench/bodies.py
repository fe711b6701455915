"""A style for many bodies: on two cores against one, for many against few, and the memory that it takes."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from pathlib import Path

FEW, SOME, MANY, ALIKE = 10, 100, 400, 200  # bodies

# What a process of its own does: so many bodies in so many processes; seconds, and the peak memory of it and of those in MB.
BATCH = """
import json, resource, sys, time
from pathlib import Path
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.sizes.batch import Order, write_bodies
from zesty_pivot.core.sizes.bodies import BodyRow
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.data.demo import demo_style
from zesty_pivot.data.sizes import shipped_chart

if __name__ == "__main__":
    count, jobs, folder = int(sys.argv[1]), int(sys.argv[2]), Path(sys.argv[3])
    chart = shipped_chart()
    base = chart.lengths(chart.size("regular · 40"))
    rows = (BodyRow(n, f"P{n}", False, {**base, "bust": base["bust"] + n % 50}) for n in range(1, count + 1))
    order = Order(demo_style(), Under(), ("json",), Printing(packing="kept"), folder)
    began = time.perf_counter()
    for made in write_bodies(order, rows, jobs=jobs):
        assert made.is_written, made
    took = time.perf_counter() - began
    peaks = [resource.getrusage(who).ru_maxrss / 1024.0 for who in (resource.RUSAGE_SELF, resource.RUSAGE_CHILDREN)]
    print(json.dumps([took, max(peaks)]))
"""


def _run(count: int, jobs: int) -> tuple[float, float]:
    """Seconds and MB."""
    with tempfile.TemporaryDirectory() as folder:
        script = Path(folder) / "batch.py"
        script.write_text(BATCH)
        ran = subprocess.run(
            [sys.executable, str(script), str(count), str(jobs), str(Path(folder) / "out")],
            capture_output=True,
            text=True,
            check=True,
        )
    took, peak = json.loads(ran.stdout.splitlines()[-1])
    return float(took), float(peak)


def bodies() -> dict[str, float]:
    """Ratios, by what they are: the time on two cores against one, that of a body among many against one among some, and the
    peak memory for many against few."""
    one, two = (_run(ALIKE, jobs)[0] for jobs in (1, 2))
    (some, _mb), (many, most) = (_run(count, 1) for count in (SOME, MANY))
    _seconds, least = _run(FEW, 1)
    return {"two": two / one, "each": (many / MANY) / (some / SOME), "memory": most / least, "seconds": one / ALIKE}
