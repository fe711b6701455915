"""What is let in, before, between and after other steps: the same finished edges in any order. Common practice, no source."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from functools import partial

import pytest

from tests.core.steps.test_let_in import Value, made, pleat, sheet
from tests.drafted import ROOM, drafted_value, room_block
from tests.folding import edge_points, length, polyline
from tests.samples import hip_block, real_block
from tests.sheets import lines
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile


def _drafted(bust: float) -> BlockFile:
    return block_file.from_value(drafted_value(bust), f"drafted {bust:g}")


STEPS: tuple[Value, ...] = (
    pleat("front", far="0%", count=2, depth="5 mm", spacing="1 cm", start={"edge": "waist", "at": "94%"}, towards="side"),
    {"do": "neck.shape", "on": "front", "shape": "scoop"},
    {"do": "piece.side_seam", "on": "front", "other": "back", "by": "1 cm"},
)


@pytest.mark.parametrize("name", [name for name in ROOM if "hip" not in name])
def test_in_any_order_edges_are_finished_alike(name: str) -> None:
    """Pleats from the waist, a neckline, a dart moved, the side seam shifted: the same finished edges whichever comes first."""
    block = room_block(name)
    known: dict[str, float] | None = None
    steps = STEPS[:2] if "140" in name else STEPS  # that one's side seam has a step
    for order in itertools.permutations(steps):
        found = made(block, *order)
        lengths = {
            f"{piece.name}.{role}": sum(piece.edge(edge).sewn_length for edge, its in piece.roles if its == role)
            for piece in found.pattern.pieces for _id, role in piece.roles
        }  # fmt: skip
        assert len(found.pattern.piece("front").fullness[0].lines) == 2
        known = known or lengths
        assert lengths == pytest.approx(known, abs=0.05)


BUSTS = (760.0, 820.0, 880.0, 960.0, 1040.0, 1120.0, 1240.0, 1400.0)
BLOCKS: dict[str, Callable[[], BlockFile]] = {
    **{f"bust {bust / 10:g}": partial(_drafted, bust) for bust in BUSTS}, "two darts": real_block, "hip length": hip_block,
}  # fmt: skip


@pytest.mark.parametrize("name", BLOCKS)
def test_ten_blocks_in_any_order(name: str) -> None:
    """The back's gathers, a princess line or a yoke, a neckline and the waist dart led to the side, either first: the same
    finished edges."""
    block = BLOCKS[name]()
    lower = "hem" if name == "hip length" else "waist"
    steps: list[Value] = [
        {"do": "fullness.gather", "on": "back", "edge": lower, "far": "0%", "stop": {"edge": lower, "at": "45%"}},
        {"do": "neck.shape", "on": "front", "shape": "canoe"},
        {"do": "yoke.cut", "on": "back"},
    ]
    known: dict[str, float] | None = None
    # All six orders on three blocks; on the others as given, and as far from it as can be.
    orders = list(itertools.permutations(steps))
    for order in orders if name in ("bust 88", "two darts", "hip length") else (orders[0], orders[-1]):
        found = made(block, *order)
        lengths = {f"{p.name}.{edge.role}": edge.sewn_length for p in found.pattern.pieces for edge in p.edges}
        known = known or lengths
        assert lengths == pytest.approx(known, abs=0.05)
        drawn = sum(length(polyline(path)) for path in lines(sheet(found, "back"))[lower])
        # What the gathers take up, at 2 to 1, is as much as their stretch: less a tenth to the one side, up to 45% from the
        # other.
        assert drawn - lengths[f"back.{lower}"] == pytest.approx(0.35 * lengths[f"back.{lower}"], abs=0.05)


@pytest.mark.parametrize("name", list(BLOCKS))
def test_ten_blocks_with_a_dart_the_side_seam_and_a_princess_line(name: str) -> None:
    """Pleats at CF before, between and after them: the same finished edges of front and back, panels taken together."""
    block = BLOCKS[name]()
    lower = "hem" if name == "hip length" else "waist"
    above = "shoulder" if "shoulder" in {dart.id for dart in block.pieces[0].darts} else "side"
    start = {"edge": lower, "at": "92%"}
    laid = pleat("front", edge=lower, count=2, depth="5 mm", far="0%", start=start, spacing="1 cm")
    dart = {"do": "dart.move", "on": "front", "dart": above, "to": {"station": "mid_armhole"}}
    side: list[Value] = [] if lower == "hem" else [{"do": "piece.side_seam", "on": "front", "other": "back", "by": "1 cm"}]
    line: Value = {"do": "line.princess", "on": "back"}
    known: dict[tuple[str, str], float] | None = None
    for order in ([laid, dart, *side, line], [*side, line, laid, dart], [*side, dart, line, laid]):
        lengths: dict[tuple[str, str], float] = {}
        for piece in made(block, *order, noise_deg=1e-7).pattern.pieces:  # the side seam moves what it is measured from
            for edge in piece.edges:
                key = piece.of or piece.name, edge.role
                lengths[key] = lengths.get(key, 0.0) + edge.sewn_length
        known = known or lengths
        assert lengths == pytest.approx(known, abs=0.05)


def test_a_dart_that_comes_in_the_way_of_gathers_leaves_them_as_wide() -> None:
    """The waist dart led to the side after the waist was gathered: the slashes that it bars leave their share to the others."""
    gather = {"do": "fullness.gather", "on": "back", "edge": "yoke", "raised": "0 cm"}
    french = {"do": "dart.move", "on": "back", "dart": "waist", "to": {"station": "french"}}
    first, last = (
        made(real_block(), {"do": "yoke.cut", "on": "back"}, gather),
        made(real_block(), {"do": "yoke.cut", "on": "back"}, gather, french),
    )
    one, two = (length(edge_points(sheet(found, "back"), "yoke")) for found in (first, last))
    assert two == pytest.approx(one, abs=2.0)


@pytest.mark.parametrize("step", [
    {"do": "line.princess", "on": "back"}, {"do": "yoke.cut", "on": "back", "kind": "midriff"},
    {"do": "line.cut", "on": "back", "from": {"edge": "centre", "at": "50%"}, "to": {"edge": "side_seam", "at": "50%"}},
])  # fmt: skip
def test_what_is_let_in_goes_on_in_both_parts_of_a_cut(step: Value) -> None:
    """Every slash that a line crosses is in both parts, opened there as far as it was at the line."""
    found = made(real_block(), {"do": "fullness.tuck", "on": "back", "kind": "pin", "far": "50%"}, step)
    tucks = {piece.name: piece.fullness[0].lines for piece in found.pattern.pieces if piece.fullness}
    assert tucks
    if len(tucks) == 2 and step["do"] != "line.princess":
        upper, lower = sorted(tucks.values(), key=lambda lines_: lines_[0].by[0])
        assert [line.by[0] for line in upper] == pytest.approx([line.by[1] for line in lower], abs=1e-6)
