"""dart.move: invariants, merging, splitting, mouths, refusals."""

import math

import pytest
from hypothesis import given, settings
from pydantic import ValidationError

from tests.samples import FRONT_STATIONS, chains, move, real_block, real_pattern, scaled, stretches, walked, worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def fault_of(step: dict[str, object], block: Pattern | None = None) -> str:
    """What a step is refused with."""
    steps = [registry.read(step)]
    found = Evaluator().evaluate(block or real_pattern(), steps, Scope("cm", real_block().measurements))
    assert len(found.broken) == 1, "the step was done"
    assert found.pattern == (block or real_pattern())
    return str(found.broken[0][1])


def test_split_and_merge_restores_the_block() -> None:
    found = worked([move("waist", "mid_armhole", "50%"), move("mid_armhole", "waist")])
    front = real_pattern().piece("front")
    assert walked(found.pattern.piece("front")) == pytest.approx(walked(front), abs=1e-9)
    assert [dart.id for dart in found.pattern.piece("front").darts] == ["shoulder", "waist"]


@pytest.mark.parametrize("station", [name for name in FRONT_STATIONS if name != "waist"])
def test_out_to_a_station_and_back(station: str) -> None:
    found = worked([move("waist", station), move("waist", "waist")])
    assert walked(found.pattern.piece("front")) == pytest.approx(walked(real_pattern().piece("front")), abs=1e-9)


@pytest.mark.parametrize("station", ["mid_armhole", "side_bust", "shoulder_tip", "mid_neck"])
def test_the_backs_two_pivots(station: str) -> None:
    found = worked([move("shoulder", station, on="back")])
    back, block = found.pattern.piece("back"), real_pattern().piece("back")
    assert back.angle("shoulder") == pytest.approx(block.angle("shoulder"), abs=1e-12)
    assert back.area == pytest.approx(block.area, abs=1e-6)


def test_darts_of_two_pivots_do_not_merge() -> None:
    said = fault_of({"do": "dart.move", "on": "back", "dart": "waist", "to": {"dart": "shoulder"}})
    assert "different pivots" in said and "step 1" in said


@pytest.mark.parametrize("change", [{}, {"share": "30%"}, {"mouth": "1 cm"}])
def test_a_dart_that_is_there_already_is_left_and_said(change: dict[str, str]) -> None:
    step = {"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": "waist"}, **change}
    found = worked([step])
    assert found.pattern is real_pattern() and "there already" in found.states[1].notes[0].text


def test_merging_adds_the_angles() -> None:
    piece = worked([move("shoulder", "waist")]).pattern.piece("front")
    assert [dart.id for dart in piece.darts] == ["waist"]
    block = real_pattern().piece("front")
    assert piece.angle("waist") == pytest.approx(block.angle("waist") + block.angle("shoulder"), abs=1e-12)


def test_a_place_within_a_millimetre_of_a_mouth_is_that_mouth() -> None:
    block = real_pattern().piece("front")
    first = block.runs[block.mouth_run("shoulder")].path.length
    step = {"do": "dart.move", "on": "front", "dart": "waist", "to": {"edge": "shoulder", "at": f"{first + 0.6} mm"}}
    assert [dart.id for dart in worked([step]).pattern.piece("front").darts] == ["shoulder"]


def test_a_share_by_the_mouth_it_opens() -> None:
    step = {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "mid_armhole"}, "mouth": "2 cm"}
    piece = worked([step]).pattern.piece("front")
    assert piece.intake("mid_armhole") == pytest.approx(20.0, abs=1e-9)
    assert {dart.id for dart in piece.darts} == {"shoulder", "waist", "mid_armhole"}


def test_a_share_has_the_id_it_is_given() -> None:
    step = {**move("shoulder", "french", "30%"), "as": "low"}
    assert worked([step]).pattern.piece("front").has_dart("low")
    again = worked(
        [move("shoulder", "french", "30%"), move("waist", "side_bust", "30%"), move("shoulder", "side_waist", "50%")]
    )
    assert {d.id for d in again.pattern.piece("front").darts} == {"shoulder", "waist", "french", "side_bust", "side_waist"}


def test_a_dart_that_stops_short_is_led_to_the_pivot() -> None:
    value = real_block().model_dump(mode="json", by_alias=True, exclude_none=True)
    value["pieces"][0]["darts"][1]["point"] = [94.0, 293.4]  # 1 in below the bust point
    pattern = block_file.pattern(block_file.from_value(value, "short"))
    piece = pattern.piece("front")
    assert piece.dart("waist").extended_mm == pytest.approx(25.4)
    assert piece.intake("waist") == pytest.approx(40.894734, abs=1e-5)  # the mouth is kept
    outcome = registry.read(move("waist", "french"))
    found = Evaluator().evaluate(pattern, [outcome], Scope())
    assert "was extended to it" in found.states[1].notes[0].text


@pytest.mark.parametrize(
    ("step", "at"),
    [
        ({"do": "neck.shape", "on": "front", "shape": "scoop"}, (107.0, 223.0)),
        ({"do": "trim.strapless", "on": "front"}, (107.0, 223.0)),
    ],
)
def test_a_short_dart_is_told_of_by_the_steps_that_move_it_by_themselves(step: dict, at: tuple[float, float]) -> None:
    """They moved it, led it to the pivot, and said nothing: its sewn point lay elsewhere without a word."""
    value = real_block().model_dump(mode="json", by_alias=True, exclude_none=True)
    value["pieces"][0]["darts"][0]["point"] = list(at)  # the shoulder dart, above the bust point
    pattern = block_file.pattern(block_file.from_value(value, "short"))
    short = pattern.piece("front").dart("shoulder").extended_mm
    assert short > 10.0
    notes = Evaluator().evaluate(pattern, [registry.read(step)], Scope()).states[1].notes
    told = [note for note in notes if "was extended to it" in note.text]
    assert [note.amount_mm for note in told] == [short] and "shoulder dart" in told[0].text


def test_a_centre_opened_by_a_dart_is_said() -> None:
    found = worked([move("shoulder", "centre_bust")])
    assert "opens on the centre" in found.states[1].notes[0].text
    assert "17.0 cm" not in found.states[1].notes[0].text  # the longer part stays on the grain: 19.1 cm above
    assert "19.1 cm" in found.states[1].notes[0].text


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"dart": "side"}, "no dart 'side'"),
        ({"on": "sleeve"}, "no piece 'sleeve'"),
        ({"to": {"edge": "shoulder", "at": "40 cm"}}, "off the edge"),
        ({"share": "0%"}, "moves nothing"),
        ({"mouth": "30 cm"}, "It can be up to"),
        ({"mouth": "nape/2"}, "no measurement 'nape'"),
        ({"mouth": "0 cm"}, "cannot open a mouth"),
        ({"share": "20%", "as": "shoulder"}, "there is a dart 'shoulder' already"),
    ],
)
def test_what_cannot_be_done_is_one_sentence(change: dict[str, object], said: str) -> None:
    step = {"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": "mid_armhole"}, **change}
    fault = fault_of(step)
    assert said in fault and "\n" not in fault and "step 1" in fault


@pytest.mark.parametrize(
    "change",
    [{"share": "130%"}, {"share": "x"}, {"to": {}}, {"to": {"station": "elbow"}}, {"extra": 1}, {"share": "20%", "mouth": 3}],
)
def test_what_is_no_step_is_refused_when_read(change: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        registry.read({"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": "french"}, **change})


@settings(max_examples=30, deadline=None)
@given(stretches, chains)
def test_a_chain_of_twelve_moves_keeps_the_invariants(stretch: tuple[float, float], chain: list[tuple[dict, int, int]]) -> None:
    block = scaled(*stretch)
    front = block.piece("front")
    evaluator, steps, done = Evaluator(), [], 0
    for spot, share, which in chain:
        piece = evaluator.evaluate(block, steps, Scope()).pattern.piece("front")
        dart = piece.darts[which % len(piece.darts)].id
        step = registry.read({"do": "dart.move", "on": "front", "dart": dart, "to": spot, "share": f"{share}%"})
        found = evaluator.evaluate(block, [*steps, step], Scope())
        if not found.broken:  # some places are hidden behind a dart; those are refused, and leave everything as it was
            steps.append(step)
            done += 1
        now = found.pattern.piece("front")
        assert now.area == pytest.approx(front.area, rel=1e-9)
        for edge in front.edges:
            fresh = sum(Path(run.path.cubics).length for run in now.edge(edge.id).runs)
            assert fresh == pytest.approx(edge.sewn_length, abs=1e-6)
        for account in accounts(found.pattern, block):
            assert abs(account.missing_deg) <= 1e-9
    assert done > 0


def test_common_practice_a_shoulder_dart_becomes_several_times_narrower_at_the_centre() -> None:
    """A big shoulder dart becomes a small one at CF because its leg is short. Common practice, no source."""
    block = real_pattern().piece("front")
    piece = worked([move("shoulder", "centre_bust")]).pattern.piece("front")
    assert block.intake("shoulder") / piece.intake("shoulder") > 2.5
    assert math.degrees(piece.angle("shoulder")) == pytest.approx(17.176, abs=0.001)


def test_every_step_lives_in_the_module_of_its_name() -> None:
    """So that a file's step loads that module alone; any other name is no step."""
    for do, step in registry.all_steps().items():
        assert step.__module__.rsplit(".", 1)[1] == do.replace(".", "_")
    for wrong in ("base", "registry", "dart_chain", "os.system", "dart.move.x", "", "dart_move"):
        with pytest.raises(ValueError, match="no step"):
            registry.read({"do": wrong, "on": "front"})


@pytest.mark.parametrize("stays", [0.25 * 25.4, 3.0, 12.0])
def test_so_much_of_the_mouth_stays(stays: float) -> None:
    """Measured from mouth to mouth, and by 2 r sin(a / 2) (plane geometry)."""
    step = {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_armhole"}, "stays": f"{stays} mm"}
    back, block = worked([step]).pattern.piece("back"), real_pattern().piece("back")
    assert math.dist(*back.mouth("shoulder")) == pytest.approx(stays, abs=1e-6)
    legs = back.legs("shoulder")
    assert legs == pytest.approx(block.legs("shoulder"), abs=1e-9)
    if math.isclose(*legs, abs_tol=1e-9):
        assert 2.0 * legs[0] * math.sin(back.angle("shoulder") / 2.0) == pytest.approx(stays, abs=1e-6)
    (new,) = [dart for dart in back.darts if back.dart_edge(dart.id) == "armhole"]
    assert back.angle("shoulder") + back.angle(new.id) == pytest.approx(block.angle("shoulder"), abs=1e-12)


def test_no_more_stays_than_there_is() -> None:
    step = {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_armhole"}}
    for wrong in ("5 cm", "0", "-1 cm"):
        said = fault_of({**step, "stays": wrong})
        assert "cannot stay" in said and "Enter more than 0 and less than" in said
    with pytest.raises(ValidationError, match="not two of them"):
        registry.read({**step, "stays": "3 mm", "share": "50%"})
    assert registry.read({**step, "stays": "1/4 in"}).words() == "shoulder dart to mid armhole but for 1/4 in"
