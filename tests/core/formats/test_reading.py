"""What is read and what is refused: odd numbers, names and places in a file, and files that are none; links when saving."""

import json
import stat
from pathlib import Path
from typing import Any

import pytest

from tests.samples import move, real_value, style
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, files, measures_file, style_file
from zesty_pivot.core.formats.derived import derive

STEP = move("waist", "french")
HUGE = "9" * 5000


def style_value(**change: Any) -> dict[str, Any]:
    value: dict[str, Any] = json.loads(style_file.dump(style([STEP])))
    return {**value, **change}


@pytest.mark.parametrize(("at", "mm"), [(2, 20.0), ("2", 20.0), ("2 cm", 20.0), ("1/2 in", 12.7), (0.25, 0.0), ("25%", 0.0)])
def test_a_place_along_an_edge_is_a_length_or_a_share(at: object, mm: float) -> None:
    """A number over 1 is a length in the style's unit, as everywhere; one up to 1 and a percentage are shares of the edge."""
    step = {**STEP, "to": {"edge": "side_seam", "at": at}}
    made = derive(style_file.from_value(style_value(steps=[step]), "s.zpiv"))
    assert not made.derivation.broken
    edge = made.pattern.piece("front").edge("side_seam")
    first = edge.runs[0].path.length  # mm to the mouth that was opened there
    assert first == pytest.approx(mm or 0.25 * edge.sewn_length, abs=1e-4)


@pytest.mark.parametrize("at", ["1/2", "0.5", "½"])
def test_a_place_that_may_be_a_share_or_a_length_is_refused(at: str) -> None:
    step = {**STEP, "to": {"edge": "side_seam", "at": at}}
    ((_number, fault),) = derive(style_file.from_value(style_value(steps=[step]), "s.zpiv")).derivation.broken
    assert "may be a share of the edge or a length" in str(fault) and "Write 50% or" in str(fault)


@pytest.mark.parametrize("control", ["\x00", "\x07", "\x1b", "\x7f", "\x85", "\u2028"])
def test_control_characters_in_any_name_are_refused_with_their_place(control: str) -> None:
    name = f"a{control}b"
    piece = real_value()
    piece["pieces"][0]["landmarks"][name] = [1.0, 2.0]
    cases = [
        ("name", style_value(name=name)),
        ("steps[0]: a control character", style_value(steps=[{**STEP, "name": name}])),
        ("measures", style_value(measures={name: "2 cm"})),
        ("pieces[0]: a control character", style_value(block=piece)),
    ]
    for place, value in cases:
        with pytest.raises(FileError) as fault:
            style_file.from_value(value, "s.zpiv")
        said = str(fault.value)
        assert place in said and said.isprintable(), said


def test_a_null_character_in_a_path_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "s.zpiv"
    path.write_text(json.dumps(style_value(block={"path": "a\x00b"})))
    with pytest.raises(FileError, match="block"):
        style_file.read(path)
    with pytest.raises(FileError, match="there can be no file of this name"):
        files.read_bytes(Path("a\x00b"))


@pytest.mark.parametrize("kind", ["style", "block", "measures"])
def test_numbers_of_thousands_of_digits_are_refused(kind: str, tmp_path: Path) -> None:
    readers = {"style": style_file.read, "block": block_file.read, "measures": measures_file.read}
    path = tmp_path / "file"
    for number in (HUGE, "9" * 400, "1e400", f"-{HUGE}"):
        path.write_text(f'{{"format": "zesty-pivot/{kind}", "version": 1, "name": {number}, "units": "cm"}}')
        with pytest.raises(FileError) as fault:
            readers[kind](path)
        assert "\n" not in str(fault.value) and len(str(fault.value)) < 700
    path.write_text(f'{{"format": "zesty-pivot/{kind}", "version": {"9" * 3000}}}')
    with pytest.raises(FileError, match="the version is"):
        readers[kind](path)


def test_what_is_read_is_counted_not_what_is_told() -> None:
    """Files of the kernel tell a size of nothing and have content all the same."""
    told = Path("/proc/self/maps")
    assert told.stat().st_size == 0
    assert len(files.read_bytes(told)) > 100
    with pytest.raises(FileError, match="the file is over"):
        files.read_bytes(told, most=100)


def test_saving_through_a_link_writes_what_it_leads_to_and_keeps_its_mode(tmp_path: Path) -> None:
    target, link = tmp_path / "shelf" / "target.zpiv", tmp_path / "link.zpiv"
    target.parent.mkdir()
    style_file.save(style([]), target)
    target.chmod(0o640)
    link.symlink_to(Path("shelf") / "target.zpiv")
    style_file.save(style([STEP]), link)
    assert link.is_symlink() and link.readlink() == Path("shelf") / "target.zpiv"
    assert len(style_file.read(target).steps) == 1 and stat.S_IMODE(target.stat().st_mode) == 0o640
    assert sorted(path.name for path in tmp_path.iterdir()) == ["link.zpiv", "shelf"]


def test_links_that_lead_nowhere_or_in_a_ring(tmp_path: Path) -> None:
    ring = tmp_path / "ring.zpiv"
    ring.symlink_to(ring)
    with pytest.raises(FileError):
        style_file.read(ring)
    with pytest.raises(FileError) as fault:
        style_file.save(style([]), ring)
    assert "\n" not in str(fault.value) and ring.is_symlink()
    (tmp_path / "new.zpiv").symlink_to(tmp_path / "made.zpiv")
    style_file.save(style([]), tmp_path / "new.zpiv")
    assert style_file.read(tmp_path / "made.zpiv") == style([])
