"""Block and style files: read, written, refused in one line."""

import copy
import json
import math
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.samples import REAL_BLOCK, move, real_block, real_value, style
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import block_file, files, style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.unit_change import with_units
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.data.demo import demo_style


def test_the_real_block() -> None:
    pattern = block_file.pattern(block_file.read(REAL_BLOCK))
    front, back = pattern.pieces
    assert math.degrees(front.angle("shoulder")) == pytest.approx(17.175975, abs=1e-5)
    assert {dart.id for dart in back.darts} == {"shoulder", "waist"}
    assert [str(seam.a) for seam in pattern.seams] == ["front.shoulder", "front.side_seam"]


def test_a_block_goes_out_and_in(tmp_path: Path) -> None:
    path = tmp_path / "b.zblock"
    path.write_bytes(block_file.dump(real_block()))
    assert block_file.read(path) == real_block()


def test_a_style_goes_out_and_in(tmp_path: Path) -> None:
    before = style(
        [move("waist", "french", "40%"), {"do": "piece.true", "on": "front", "edge": "waist", "over": "bust/20"}],
        finish=Finish(allowances={"front.waist": "1/2 in"}), measures={"head": "57 cm"}, notes="Ünïcode ½",
    )  # fmt: skip
    path = tmp_path / "s.zpiv"
    style_file.save(before, path)
    after = style_file.read(path)
    assert after == before
    assert "bust/20" in path.read_text()  # a formula stays a formula
    style_file.save(after.model_copy(update={"notes": "new"}), path)
    assert style_file.read(tmp_path / "s.zpiv~") == before  # the version before is kept
    assert not [p for p in tmp_path.iterdir() if p.name.startswith(".")]  # no temporary file is left


def test_a_style_may_name_its_block(tmp_path: Path) -> None:
    (tmp_path / "b.zblock").write_bytes(block_file.dump(real_block()))
    value = json.loads(style_file.dump(style([])))
    value["block"] = {"path": "b.zblock"}
    (tmp_path / "s.zpiv").write_text(json.dumps(value))
    assert style_file.read(tmp_path / "s.zpiv").block == real_block()
    value["block"] = {"path": "missing.zblock"}
    (tmp_path / "s.zpiv").write_text(json.dumps(value))
    with pytest.raises(FileError, match="cannot be read"):
        style_file.read(tmp_path / "s.zpiv")


def test_the_demo_is_sound() -> None:
    """Side seams equal, shoulders walking, only what is left to be trued is found."""
    derived = derive(demo_style())
    assert not derived.derivation.broken
    for seam in derived.look.seams:
        assert abs(seam.difference_mm) < 0.01
    assert [finding.check for finding in derived.findings] == ["corners", "corners", "neck_opening"]
    front = derived.pattern.piece("front")
    assert {dart.id for dart in front.darts} == {"shoulder", "waist"}


def broken(change: Any) -> dict[str, Any]:
    value = real_value()
    change(value)
    return value


def _set(value: Any, *path: Any) -> None:
    *keys, last, new = path
    for key in keys:
        value = value[key]
    value[last] = new


FAULTS: list[tuple[Any, str]] = [
    (lambda v: v.pop("format"), "the format is None"),
    (lambda v: v.update(format="zesty-pivot/style"), "the format is 'zesty-pivot/style'"),
    (lambda v: v.update(version=4), "newer than 3. Update"),
    (lambda v: v.update(version="1"), "the version is '1'"),
    (lambda v: v.update(version=True), "the version is True"),
    (lambda v: v.update(units="cm"), "units"),
    (lambda v: v.update(pieces=[]), "pieces"),
    (lambda v: v.update(extra=1), "unknown field"),
    (lambda v: v["pieces"][0]["darts"][0].update(id="*tear.bust_point"), "id"),
    (lambda v: v["pieces"][0]["edges"].pop(3), "edge 'side_seam' is missing"),
    (lambda v: v["pieces"][0]["edges"].reverse(), "loop order"),
    (lambda v: v["pieces"][0]["landmarks"].pop("underarm"), "landmark 'underarm' is missing"),
    (lambda v: _set(v, "pieces", 0, "landmarks", "underarm", [1.0, 2.0]), "landmark 'underarm' is not at the end"),
    (lambda v: _set(v, "pieces", 0, "landmarks", "underarm", ["x", 2.0]), "pieces[0].landmarks.underarm"),
    (lambda v: _set(v, "pieces", 0, "landmarks", "bust_point", [math.nan, 2.0]), "finite"),
    (lambda v: _set(v, "pieces", 0, "darts", 0, "pivot", "elbow"), "no pivot 'elbow'"),
    (lambda v: _set(v, "pieces", 0, "darts", 0, "mouth", [[0, 0], [1, 1]]), "is no gap"),
    (lambda v: v["pieces"][0]["darts"].pop(), "the outline is open after edge 'waist'"),
    (lambda v: v["pieces"][0]["darts"].append(copy.deepcopy(v["pieces"][0]["darts"][0])), "two darts have one id"),
    (lambda v: _set(v, "pieces", 0, "edges", 3, "path", "M 0 0 Q 1 1 2 2"), "path command 'Q'"),
    (
        lambda v: _set(v, "pieces", 0, "edges", 3, "path", "M 248.352541 263.026308 L 999999 1 L 232.377135 455.242716"),
        "past 10 m",
    ),
    (
        lambda v: _set(v, "pieces", 0, "edges", 3, "path", "M 248.352541 263.026308 L -300 300 L 232.377135 455.242716"),
        "crosses itself",
    ),
    (lambda v: _set(v, "pieces", 0, "fold", "hem"), "the fold 'hem' is no edge"),
    (lambda v: _set(v, "pieces", 1, "name", "front"), "two pieces have one name"),
    (lambda v: v["measurements"].update(bust=-5), "must be greater than 0"),
]


@pytest.mark.parametrize(("change", "said"), FAULTS, ids=[said for _change, said in FAULTS])
def test_a_broken_block_is_one_clear_line(change: Any, said: str) -> None:
    with pytest.raises(FileError) as fault:
        block_file.from_value(broken(change), "b.zblock")
    assert said in str(fault.value)
    assert "\n" not in str(fault.value) and "b.zblock" in str(fault.value) and len(str(fault.value)) < 700


def test_several_faults_are_reported_together() -> None:
    def change(value: dict[str, Any]) -> None:
        value["units"] = "ell"
        value["pieces"][0]["darts"][0]["point"] = "here"

    with pytest.raises(FileError) as fault:
        block_file.from_value(broken(change), "b.zblock")
    assert "units" in str(fault.value) and "pieces[0].darts[0].point" in str(fault.value)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ('{"format": ', "broken JSON at line 1"),
        ("[1, 2]", "a list or number"),
        ('{"a": NaN}', "NaN"),
        ("[" * 100_000, "nested too deeply"),
    ],
)
def test_text_that_is_no_file_of_ours(text: str, said: str) -> None:
    with pytest.raises(FileError, match=said):
        files.parse_json(text, "style", "s.zpiv")


def test_files_that_cannot_be_read(tmp_path: Path) -> None:
    with pytest.raises(FileError, match="cannot be read"):
        style_file.read(tmp_path / "none.zpiv")
    with pytest.raises(FileError, match="no file but a folder"):
        style_file.read(tmp_path)
    (tmp_path / "b.zpiv").write_bytes(b"\xff\xfe\x00binary")
    with pytest.raises(FileError, match="not UTF-8"):
        style_file.read(tmp_path / "b.zpiv")


def test_a_hundred_megabytes_are_refused_without_being_read(tmp_path: Path) -> None:
    path = tmp_path / "big.zpiv"
    with path.open("wb") as file:
        file.truncate(100_000_000)
    with pytest.raises(FileError, match="over 16 MB"):
        style_file.read(path)


@pytest.mark.parametrize(
    ("step", "said"),
    [
        ({"do": "dart.fly", "on": "front"}, "no step 'dart.fly'"),
        ({"do": "dart.mvoe", "on": "front"}, "Did you mean 'dart.move'"),
        ({"on": "front"}, "no step"),
        ("dart.move", "a step is an object"),
        ({**move("waist", "french"), "share": "lots"}, "share"),
        ({**move("waist", "french"), "mouth": "__import__('os')"}, "cannot be read"),
        ({**move("waist", "french"), "to": {"station": "french", "dart": "waist"}}, "a place is one of"),
        ({**move("waist", "french"), "to": {"edge": "shoulder"}}, "needs one of 'at', 'level' and 'as_far_as'"),
    ],
)
def test_steps_that_are_none_are_refused_at_the_door(step: Any, said: str) -> None:
    value = json.loads(style_file.dump(style([])))
    value["steps"] = [move("waist", "french"), step]
    with pytest.raises(FileError) as fault:
        style_file.from_value(value, "s.zpiv")
    assert said in str(fault.value) and "steps[1]" in str(fault.value)


def test_a_write_that_fails_leaves_the_old_file(tmp_path: Path) -> None:
    path = tmp_path / "folder"
    path.mkdir()
    with pytest.raises(FileError, match="a folder of this name is there"):
        files.write_atomic(path, b"x")
    assert path.is_dir() and list(tmp_path.iterdir()) == [path]
    (tmp_path / "file").write_bytes(b"x")
    with pytest.raises(FileError, match="cannot be written"):
        files.write_atomic(tmp_path / "file" / "deep.svg", b"x")


def test_another_unit_changes_no_meaning() -> None:
    before = style(
        [{**move("waist", "french"), "mouth": "3"}, {"do": "piece.true", "on": "front", "edge": "waist", "over": 4},
         {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"edge": "armhole", "at": "5"}}],
        finish=Finish(ease={"front.shoulder": "0.3"}, cut_away="1", wearing_ease={"bust": "3*2"}), measures={"head": "50+7"},
    )  # fmt: skip
    after = with_units(before, "in")
    assert after.units == "in"
    one, two = derive(before), derive(after)
    assert not one.derivation.broken
    assert one.pattern == two.pattern
    assert two.style.scope().measures["head"] == pytest.approx(570.0)
    assert [s.ease_mm for s in one.look.seams] == [s.ease_mm for s in two.look.seams]
    assert Spot(edge="armhole", at="5 cm") == after.steps[2].to
    assert after.finish.wearing_ease == {"bust": "3 cm*2"} and after.measures == {"head": "50 cm + 7 cm"}


def test_a_length_that_cannot_be_given_its_unit_is_told() -> None:
    """A formula as long as a field takes has no room for one."""
    with pytest.raises(FileError) as fault:
        with_units(style([{**move("waist", "french"), "mouth": "1" + "+1" * 99}]), "in")
    assert "Write that length with its unit" in str(fault.value) and "\n" not in str(fault.value)


JUNK = st.one_of(
    st.none(), st.booleans(), st.integers(-(10**9), 10**9), st.floats(), st.text(max_size=8), st.just([]), st.just({}),
    st.sampled_from(["1e400", "front", "waist", "0%", "200 cm", "bust*bust"]),
)  # fmt: skip


def mangled(data: st.DataObject, value: dict[str, Any], keys: list[Any] | None = None) -> dict[str, Any]:
    """A file's value with junk somewhere in it, below one of the keys."""
    node: Any = value
    while True:
        choices = keys or (list(node) if isinstance(node, dict) else list(range(len(node))))
        key = data.draw(st.sampled_from(choices))
        if isinstance(node[key], dict | list) and len(node[key]) and data.draw(st.booleans()):
            node, keys = node[key], None
            continue
        node[key] = data.draw(JUNK)
        return value


@settings(max_examples=150, deadline=None)
@given(st.data())
def test_no_mangled_block_does_more_than_be_refused(data: st.DataObject) -> None:
    """A value somewhere in the file is replaced by junk: it opens, or is refused in one line."""
    value = mangled(data, real_value())
    try:
        block_file.from_value(value, "b.zblock")
    except FileError as fault:
        assert "\n" not in str(fault)


@settings(max_examples=150, deadline=None)
@given(st.data())
def test_no_mangled_style_does_more_than_be_refused(data: st.DataObject) -> None:
    """The same for steps, finish and measures; what opens is worked out, with broken steps where need be."""
    steps = [move("waist", "french", "40%"), {"do": "piece.true", "on": "front", "edge": "waist", "over": "bust/20"}]
    more = {
        "finish": Finish(ease={"front.shoulder": "3 mm"}, darts={"front.waist": {"setback": "2 cm"}}),
        "measures": {"head": 57},
    }
    value = json.loads(style_file.dump(style(steps, **more)))
    value = mangled(data, value, ["steps", "finish", "measures", "units", "name", "notes"])
    try:
        derived = derive(style_file.from_value(value, "s.zpiv"))
        assert derived.pieces and derived.findings is not None
    except ZestyError as fault:
        assert "\n" not in str(fault)
