"""Measures the bars of the design and writes them to docs/bench.md."""

from __future__ import annotations

import functools
import json
import math
import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Sequence
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import shapely

from bench.bodies import ALIKE, FEW, MANY, SOME, bodies
from bench.hands import clicks, dragging, hovering
from bench.stands import ALONE, MOST_MB, stood
from bench.timing import ROUNDS, medians, opened, repainting
from bench.twenty_sizes import ONE_SECOND, twenty_sizes
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.derived import derive, look_at
from zesty_pivot.core.formats.redraft import with_measures
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece.region import outline
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.data.demo import demo_style, demo_styles
from zesty_pivot.data.methods import shipped
from zesty_pivot.desk.start import application
from zesty_pivot.desk.table.shapes import shapes_of

ROOT = Path(__file__).parent.parent

TWELVE = (
    {"do": "dart.park", "on": "front", "darts": ["shoulder"], "to": {"station": "side_waist"}},
    {"do": "piece.true", "on": "front", "edge": "shoulder", "straight": True},
    {"do": "dart.return", "on": "front"},
    {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "mid_neck"}, "share": "60%"},
    {"do": "dart.use", "on": "front", "dart": "mid_neck", "as": "pleats", "count": 2, "spacing": "2.5 cm"},
    {"do": "dart.split", "on": "front", "dart": "shoulder", "parts": [
        {"to": {"station": "mid_armhole"}, "share": "30%"}, {"to": {"station": "side_bust"}}]},
    {"do": "dart.use", "on": "front", "dart": "mid_armhole", "as": "ease", "over": "14 cm", "cloth": "soft"},
    {"do": "dart.fan", "on": "front", "dart": "shoulder", "count": 2, "spacing": "1.5 cm", "parallel": True},
    {"do": "dart.shape", "on": "front", "dart": "waist", "bow": "3 mm"},
    {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_neck"}},
    {"do": "dart.use", "on": "back", "dart": "shoulder", "as": "gathers", "over": "6 cm"},
    {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "french"}},
)  # fmt: skip


def twelve() -> Style:
    """The demo block with a recipe of twelve steps, none of them broken."""
    value = json.loads(style_file.dump(demo_style()))
    value["steps"] = list(TWELVE)
    style = style_file.from_value(value, "bench")
    broken = derive(style).derivation.broken
    if broken:
        raise SystemExit(f"bench: a step is broken: {broken[0][1]}")
    return style


def drag_frame(style: Style) -> tuple[float, float, float]:
    """Seconds of a drag frame's work, of the whole desk's frame, and of one repaint of the table."""
    window = opened(style)
    control, table = window.table.control, window.table
    control.pick_up("shoulder")
    evaluator = Evaluator()
    carry = control.carry
    assert carry is not None
    styles = []
    for number in range(ROUNDS + 2):
        angle = math.radians(20.0 + 1.5 * number)
        control.point(angle)
        styles.append(window.model.derived.style)
    derive(style, evaluator)

    def frame(number: int) -> None:
        shown = styles[number]
        derived = derive(shown, evaluator)
        look = look_at(shown, derived.derivation.block, derived.pattern)
        findings(look, at_rest=False)
        if not look.accounts:
            raise SystemExit("bench: no accounts")
        for piece in derived.pattern.pieces:
            shapes_of(piece)

    repaint = repainting(table)

    def desk(number: int) -> None:
        control.point(math.radians(80.0 + 1.3 * number))

    frame_s, repaint_s = medians(frame, repaint)
    (desk_s,) = medians(desk)
    found = frame_s, desk_s, repaint_s
    control.let_go()
    window.model.file.replace(style, None)
    window.close()
    return found


def panel_frame() -> tuple[float, float]:
    """As `step_frame`, while the beginning of the front's princess line is dragged."""
    style = next(one for one in demo_styles() if one.name.startswith("Canticle"))
    at = [Spot(edge="shoulder", at=f"{40.0 + 0.5 * number}%") for number in range(ROUNDS + 2)]
    return step_frame(style, [style.steps[0].model_copy(update={"from_": spot}) for spot in at])


def pleats_frame() -> tuple[float, float]:
    """As `step_frame`, while the first of eight pleats in the back is dragged."""
    at = [{"edge": "waist", "at": f"{96.0 - 0.1 * number}%"} for number in range(ROUNDS + 2)]
    pleats = {"do": "fullness.pleat", "on": "back", "count": 8, "depth": "3 mm", "spacing": "6 mm", "towards": "side"}
    steps = [registry.read({**pleats, "start": spot}) for spot in at]
    return step_frame(demo_style().with_steps((steps[0],)), steps)


def measured_edit() -> tuple[float, float]:
    """Seconds to draft a block again for another bust and work its style out over it, and of one repaint of that table."""
    style = next(one for one in demo_styles() if one.name.startswith("Galliard"))
    body, method = dict(style.block.measurements), shipped(str(style.block.method))
    window = opened(style)
    evaluator = Evaluator()

    def edit(number: int) -> None:
        made = derive(with_measures(style, {**body, "bust": body["bust"] + 0.5 * number}, method), evaluator)
        if made.derivation.broken:
            raise SystemExit(f"bench: a step is broken: {made.derivation.broken[0][1]}")

    found = medians(edit, repainting(window.table))
    window.close()
    return found[0], found[1]


def step_frame(style: Style, steps: Sequence[Step]) -> tuple[float, float]:
    """Seconds of the work for a frame while a style's first step is dragged through others (steps after it wait until it is put
    down), and of one repaint of that table."""
    window = opened(style)
    window.strip.choose(1)
    application().processEvents()
    table, evaluator = window.table, Evaluator()
    styles = [style.with_steps((step,)) for step in steps]
    derive(style, evaluator)

    def frame(number: int) -> None:
        derived = derive(styles[number], evaluator)
        if derived.derivation.broken:
            raise SystemExit(f"bench: a step is broken: {derived.derivation.broken[0][1]}")
        findings(look_at(styles[number], derived.derivation.block, derived.pattern), at_rest=False)
        for piece in derived.pattern.pieces:
            shapes_of(piece)

    repaint = repainting(table)

    found = medians(frame, repaint)
    window.close()
    return found[0], found[1]


LONGEST_MS = 100.0  # no longer than this may the interface not answer; the issue's own figure


def longest_pause(style: Style) -> tuple[float, str]:
    """The longest time (ms) that the event loop waits while a style of sixty steps is edited, looked at and compared, and at
    what: the median of three rounds for each action, its own call or the longest turn of the loop after it."""
    window = opened(style.with_steps(style.steps * 5))
    app, model = application(), window.model
    steps = model.style.steps
    acts: dict[str, Callable[[], object]] = {
        "change the last step": lambda: model.recipe.replace_step(59, steps[58], "bench"),
        "undo": model.undo,
        "change the first step": lambda: model.recipe.replace_step(0, steps[0].model_copy(update={"off": True}), "bench"),
        "undo that": model.undo,
        "look back": lambda: model.choose_step(20),
        "look at the end": lambda: model.choose_step(None),
        "show inches": lambda: model.recipe.set_units("in"),
        "undo the unit": model.undo,
        **{panel: functools.partial(window.run, f"panel.{panel}") for panel in ("trace", "walk", "hand", "reading")},
        "block under": lambda: window.run("trace.block"),
        "fold": lambda: window.run("table.fold"),
        "unfold": lambda: window.run("table.fold"),
        "finish": lambda: model.set_view("finish"),
        "paper": lambda: model.set_view("paper"),
        "style": lambda: model.set_view("style"),
    }
    took: dict[str, list[float]] = {name: [] for name in acts}
    for _round in range(4):
        for name, act in acts.items():
            spans = []
            turn, turns = act, 0
            while turns < 7 or not model.pace.is_checked:  # its own call, what it paints, and the look for findings
                start = time.perf_counter()
                turn()
                spans.append(1e3 * (time.perf_counter() - start))
                turn, turns = app.processEvents, turns + 1
            took[name].append(max(spans))
        window.run("trace.block")
    model.file.replace(style, None)
    window.close()
    # The first round makes views and panels that are made once.
    worst = max(took, key=lambda name: statistics.median(took[name][1:]))
    return statistics.median(took[worst][1:]), worst


def evaluation(style: Style) -> tuple[float, float]:
    """Seconds of working out the whole style, and of one mitred buffer of all its outlines."""
    pattern = derive(style).pattern
    polygons = [shapely.Polygon(outline(piece)) for piece in pattern.pieces]
    whole, buffers = medians(
        lambda _n: derive(style, Evaluator()),
        lambda _n: [polygon.buffer(10.0, join_style="mitre") for polygon in polygons],
        rounds=3 * ROUNDS,
    )
    return whole, buffers


# The high-water mark of its own memory, in kB: the figure that wait4 gives would include the parent's at the fork.
# Then the process ends at once: the start is measured, not how an interpreter takes apart a window that nobody closed.
PEAK = (
    "\nimport os\nprint([l.split()[1] for l in open('/proc/self/status') if l.startswith('VmHWM')][0], flush=True)\nos._exit(0)"
)


def processes(*codes: str, rounds: int = 7) -> list[tuple[float, float]]:
    """Median seconds and peak MB of fresh interpreters running some code, taking turns."""
    found: list[list[tuple[float, float]]] = [[] for _code in codes]
    # As on a user's machine: bytecode is kept. The first round, which does not count, writes it.
    env = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    for _round in range(rounds + 1):
        for code, figures in zip(codes, found, strict=True):
            start = time.perf_counter()
            child = subprocess.run([sys.executable, "-c", code + PEAK], capture_output=True, text=True, check=False, env=env)
            seconds = time.perf_counter() - start
            if child.returncode:
                raise SystemExit(f"bench: a process failed: {child.stderr}")
            figures.append((seconds, float(child.stdout.split()[-1]) / 1024.0))
    return [
        (statistics.median(s for s, _mb in figures[1:]), statistics.median(mb for _s, mb in figures[1:])) for figures in found
    ]


LIBRARIES = "import numpy, scipy, shapely"
BARE = (
    f"{LIBRARIES}\nfrom PyQt6.QtWidgets import QApplication, QWidget\napp = QApplication([])\n"
    "w = QWidget(); w.resize(1280, 800); w.show(); app.processEvents(); w.grab()"
)
DESK = (
    "from zesty_pivot.cli.cold import prepare\nprepare()\n"
    "from zesty_pivot.desk.start import application, open_window\napp = application()\nw = open_window(None)\n"
    "w.resize(1280, 800); w.show(); app.processEvents(); w.grab()"
)


def derive_code(style: Path, out: str) -> str:
    """Code of a cold `derive` of one style."""
    return (
        "import sys\nfrom zesty_pivot.cli.main import run\n"
        f"try:\n    run(['derive', {str(style)!r}, '--out', {out!r}, '--format', 'svg', '--format', 'json'])\n"
        "except SystemExit as end:\n    assert not end.code, end.code"
    )


def main() -> None:
    """Measures, prints and writes the table."""
    keep = application()
    style = twelve()
    frame, desk, repaint = drag_frame(style)
    pause, slowest = longest_pause(style)
    panels, panels_repaint = panel_frame()
    pleats, pleats_repaint = pleats_frame()
    edited, edited_repaint = measured_edit()
    hover, taping, hover_repaint = hovering()
    two_steps, plain_two = dragging(demo_style().with_steps(style.steps[:2]), "waist")
    twelve_steps, plain_twelve = dragging(style, "shoulder")
    click, click_repaint, clicked = clicks()
    whole, buffers = evaluation(style)
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "twelve.zpiv"
        path.write_bytes(style_file.dump(demo_style()))
        (cold, _), (imports, _) = processes(derive_code(path, folder), LIBRARIES)
    (window, window_peak), (bare, bare_peak) = processes(DESK, BARE)
    first, at_rest, factored = stood()
    many = bodies()
    twenty = twenty_sizes()
    ((_alone, stand_peak),) = processes(ALONE, rounds=1)
    rows = [
        ("drag frame (evaluate, accounts, checks, scene) / repaint of the table", frame / repaint, 2.0),
        ("the same while a princess line is dragged, four panels / repaint", panels / panels_repaint, 2.0),
        ("the same while the first of eight pleats is dragged / repaint", pleats / pleats_repaint, 2.0),
        ("a measurement edited: drafted again and worked out / repaint", edited / edited_repaint, 4.0),
        ("a whole frame of a drag, two steps / plain fill and stroke of its outlines", two_steps / plain_two, 2.5),
        ("the same with twelve steps / plain fill and stroke", twelve_steps / plain_twelve, 2.5),
        ("frame while hovering / repaint", hover / hover_repaint, 2.0),
        ("frame while a tape is drawn out / repaint", taping / hover_repaint, 2.0),
        (f"the slowest click or key ({clicked}) / repaint", click / click_repaint, 4.0),
        ("working out twelve steps / mitred buffer of its outlines", whole / buffers, 20.0),
        (f"longest pause of the interface, sixty steps ({slowest}) / {LONGEST_MS:g} ms", pause / LONGEST_MS, 1.0),
        ("cold derive of the demo / importing NumPy, SciPy, Shapely", cold / imports, 2.0),
        ("window with the demo / bare window and those imports", window / bare, 2.2),
        ("its peak memory / that of the bare window", window_peak / bare_peak, 2.5),
        ("the stand's first shape at rest / one sparse factorisation of its fine cloth", first / factored, 25.0),
        ("the fine cloth at rest / one sparse factorisation", at_rest / factored, 100.0),
        (f"memory of it / {MOST_MB:g} MB", stand_peak / MOST_MB, 1.0),
        (f"a style for {ALIKE} bodies, two processes / one", many["two"], 1.0 / 1.7),
        (f"one of {MANY} bodies / one of {SOME}", many["each"], 1.1),
        (f"peak memory for {MANY} bodies / for {FEW}", many["memory"], 2.0),
        (
            "a neckline edited with twenty sizes shown, until the chosen one has followed / at the table",
            twenty["chosen"] / twenty["plain"],
            2.5,
        ),
        ("the others / one second", twenty["others"] / ONE_SECOND, 1.0),
        (f"longest pause of the interface meanwhile / {LONGEST_MS:g} ms", 1e3 * twenty["pause"] / LONGEST_MS, 1.0),
    ]
    lines = ["| what | ratio | bar |", "|---|---|---|"]
    lines += [f"| {title} | {ratio:.2f} | {bar:g} |" for title, ratio, bar in rows]
    seconds = (
        f"Drag frame {1e3 * frame:.1f} ms, with the panels {1e3 * desk:.1f} ms, repaint {1e3 * repaint:.1f} ms, "
        f"princess frame {1e3 * panels:.1f} ms, its repaint {1e3 * panels_repaint:.1f} ms, "
        f"pleats frame {1e3 * pleats:.1f} ms, its repaint {1e3 * pleats_repaint:.1f} ms, "
        f"drag with paint {1e3 * two_steps:.1f} and {1e3 * twelve_steps:.1f} ms, plain {1e3 * plain_two:.1f} and "
        f"{1e3 * plain_twelve:.1f} ms, hover {1e3 * hover:.1f} ms, tape {1e3 * taping:.1f} ms, {clicked} {1e3 * click:.0f} ms, "
        f"measurement edited {1e3 * edited:.1f} ms, its repaint {1e3 * edited_repaint:.1f} ms, "
        f"twelve steps {1e3 * whole:.1f} ms, mitred buffers {1e3 * buffers:.2f} ms, cold derive {cold:.2f} s, "
        f"imports {imports:.2f} s, window {window:.2f} s and {window_peak:.0f} MB, bare {bare:.2f} s and {bare_peak:.0f} MB, "
        f"stand {first:.1f} and {at_rest:.1f} s, factorisation {1e3 * factored:.0f} ms, {stand_peak:.0f} MB, "
        f"a body {1e3 * many['seconds']:.0f} ms."
    )
    text = "# Bench\n\nRatios of medians in one run of `make bench`; seconds differ between machines, ratios less.\n\n"
    text += "\n".join(lines) + f"\n\n{seconds}\n"
    (ROOT / "docs" / "bench.md").write_text(text, encoding="utf-8")
    print("\n".join(lines))
    print(seconds)
    del keep
    over = [title for title, ratio, bar in rows if ratio > bar]
    if over:
        print("over the bar: " + "; ".join(over))
        sys.exit(1)


if __name__ == "__main__":
    main()
