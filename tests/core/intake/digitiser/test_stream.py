"""A simulated digitiser: blocks traced by a hand that strays, and lines that come broken."""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from pathlib import Path

import pytest

from tests.core.intake.comparing import apart
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, digitiser_file, imported
from zesty_pivot.core.formats.digitised import DigitisedSource
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.intake.digitiser import simulator, stream, traces
from zesty_pivot.core.intake.digitiser.device import DEEDS, Device
from zesty_pivot.core.intake.digitiser.port import Replay, SerialLine, ports
from zesty_pivot.core.intake.digitiser.stream import Press, Stream
from zesty_pivot.core.intake.tagging import tagged
from zesty_pivot.data.demo import demo_style, demo_styles
from zesty_pivot.data.digitisers import shipped


def pressed(strays: float, seed: int = 1, block=None) -> list[Press]:  # type: ignore[no-untyped-def]
    found = []
    for number, piece in enumerate(block_file.pattern(block or demo_style().block).pieces):
        hand = simulator.Hand(strays, seed * 10 + number, simulator.TIMES if strays else 1)
        found += simulator.presses(piece, (number * 600.0 + 100.0, 50.0), hand)
    return found


def sent(device: Device, strays: float = 0.05, seed: int = 1) -> bytes:
    return simulator.sent(pressed(strays, seed), device)


@pytest.mark.parametrize("device", shipped(), ids=lambda device: device.id)
def test_a_block_comes_in_from_each_device(device: Device) -> None:
    """Without straying, the counts of a device alone: seams within a few hundredths of a millimetre."""
    taken, line = Stream(device), Replay(sent(device, 0.0), device.speed)
    while not line.is_over:
        taken.take(line.read(0.02))
    taken.end()
    assert not taken.told
    off = apart(demo_style().block, block_of(tagged(traces.traced(taken.presses))))
    assert off.seam < 0.1
    assert off.dart < 0.1


@pytest.mark.parametrize("strays", [0.15, 0.3])
def test_a_hand_that_strays(strays: float) -> None:
    """By 0.15 mm as a standard deviation, 0.3 mm in nineteen of twenty presses: every seam within 0.5 mm (0.38 the worst of
    forty). By twice that, half of the blocks (0.38 the median of forty, 0.71 the worst)."""
    offs = [apart(demo_style().block, block_of(tagged(traces.traced(pressed(strays, seed))))) for seed in range(5)]
    seams = sorted(off.seam for off in offs)
    assert seams[2] < 0.5 and seams[-1] < (0.5 if strays < 0.2 else 0.8)
    assert max(off.dart for off in offs) < 0.5


def test_how_far_the_hand_strays_is_told() -> None:
    """The band round the outline is two standard deviations of the presses: a tenth of them shows it within a quarter."""
    for strays in (0.1, 0.3, 0.6):
        for piece in traces.traced(pressed(strays)).pieces:
            assert piece.error == pytest.approx(2.0 * strays, rel=0.3)


@pytest.mark.whole
def test_a_corner_pressed_three_times_is_known_better() -> None:
    """By the root of three, where nothing else tells it: a triangle of corners alone."""
    chance = random.Random(5)

    def off(times: int) -> float:
        found = []
        for _round in range(200):
            corners = [(0.0, 0.0), (200.0, 0.0), (0.0, 300.0)]
            presses = [
                Press(x + chance.gauss(0, 0.3), y + chance.gauss(0, 0.3), "corner") for x, y in corners for _ in range(times)
            ]
            path = traces.traced(presses).pieces[0].outline
            found += [min(math.dist(at, one) for one in path.cubics[:, 0]) ** 2 for at in corners]
        return math.sqrt(sum(found) / len(found))

    assert off(1) / off(3) == pytest.approx(math.sqrt(3.0), rel=0.1)


def test_a_hip_length_block_with_its_fish_eyes() -> None:
    block = next(style.block for style in demo_styles() if any(piece.fisheyes for piece in style.block.pieces))
    tagging = tagged(traces.traced(pressed(0.0, 1, block)))
    assert all(piece.is_hip and len(piece.eyes) == 1 for piece in tagging.pieces.values())


def _cut(data: bytes, chance: random.Random) -> bytes:
    lines = data.split(b"\r\n")
    at = chance.randrange(1, len(lines) - 2)
    return b"\r\n".join([*lines[:at], lines[at][: len(lines[at]) // 2], *lines[at + 1 :]])


def _between(junk: bytes) -> Callable[[bytes, random.Random], bytes]:
    def broken(data: bytes, chance: random.Random) -> bytes:
        lines = data.split(b"\r\n")
        at = chance.randrange(1, len(lines) - 2)
        return b"\r\n".join([*lines[:at], junk, *lines[at:]])

    return broken


def _twice(data: bytes, chance: random.Random) -> bytes:
    lines = data.split(b"\r\n")
    at = next(k for k in range(chance.randrange(1, 40), len(lines)) if lines[k].endswith(b",2"))
    return b"\r\n".join([*lines[: at + 1], *lines[at:]])


FAULTS: dict[str, Callable[[bytes, random.Random], bytes]] = {
    "half a line": _cut,
    "a line twice": _twice,
    "noise on the line": _between(b"\xff\xfe\x00\x80\x9b~~~"),
    "an unknown button": _between(b"100,100,#"),
    "a place off the table": _between(b"9999999,9999999,1"),
    "a number that is none": _between(b"12.3.4,,1"),
    "a line that runs on": _between(b"1" * 3000),
    "an empty line": _between(b"   "),
    "the device's own greeting": _between(b"READY V2.1"),
    "ends in the middle": lambda data, _chance: data[:-7],
    "other ends of lines": lambda data, _chance: data.replace(b"\r\n", b"\n\r"),
    "flow control in between": _between(b"\x11\x13"),
}


@pytest.mark.parametrize("fault", FAULTS)
def test_a_fault_on_the_line_costs_a_line(fault: str) -> None:
    """Ten kinds and more: told with its line, the rest is read."""
    device = shipped()[0]
    broken = FAULTS[fault](sent(device), random.Random(fault))
    whole = len(stream.read(sent(device), device).presses)
    taken = stream.read(broken, device)
    assert abs(len(taken.presses) - whole) <= 1
    is_quiet = fault in ("an empty line", "other ends of lines", "flow control in between")
    assert bool(taken.told) != is_quiet
    assert all(len(note) < 160 and note.startswith(("Line ", "And ")) for note in stream.notes(taken.told, taken.skipped))
    tagging = tagged(traces.traced(taken.presses))
    assert {piece.body.value for piece in tagging.pieces.values()} == {"front", "back"}


def test_portions_of_any_size_give_the_same() -> None:
    device = shipped()[2]
    data = sent(device)
    wanted = stream.read(data, device).presses
    chance = random.Random(3)
    for _round in range(5):
        taken, at = Stream(device), 0
        while at < len(data):
            size = chance.randint(1, 60)
            taken.take(data[at : at + size])
            at += size
        taken.end()
        assert taken.presses == wanted


def test_back_takes_the_last_place_away() -> None:
    presses = pressed(0.0)
    at = next(k for k, press in enumerate(presses) if press.deed == "corner" and k > 3)
    wrong = [*presses[:at], Press(999.0, 999.0, "corner"), Press(0.0, 0.0, "back"), *presses[at:]]
    one, two = (traces.traced(these) for these in (presses, wrong))
    assert one.pieces[0].outline == two.pieces[0].outline


def test_nothing_pressed_is_told() -> None:
    with pytest.raises(FileError, match="no outline was pressed"):
        traces.traced([Press(0.0, 0.0, "notch"), Press(1.0, 1.0, "next")])


def test_the_device_is_told_from_the_stream() -> None:
    for device in shipped():
        assert digitiser_file.likeliest(sent(device), shipped()) == device
        assert set(device.buttons.values()) <= set(DEEDS)
    with pytest.raises(FileError, match="no stream of a digitiser"):
        digitiser_file.likeliest(b"hello\nworld\nthis is a letter\n", shipped())


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"line": "{x},{y}"}, "{button} stands in it 0 times"),
        ({"line": "{x},{x},{y},{button}"}, "{x} stands in it 2 times"),
        ({"mm": 0.0}, "mm"),
        ({"buttons": {"1": "jump"}}, "buttons"),
    ],
)
def test_a_broken_device_file_is_refused(change: dict, says: str, tmp_path) -> None:  # type: ignore[type-arg, no-untyped-def]
    import json

    value = {**json.loads(shipped()[0].model_dump_json()), **change}
    (tmp_path / "d.zdigit").write_text(json.dumps(value), encoding="utf-8")
    with pytest.raises(FileError, match=says):
        digitiser_file.read(tmp_path / "d.zdigit")


def test_a_line_is_made_up_as_the_file_says() -> None:
    """Blanks round commas, signs, fixed widths; and what is not so made up is none."""
    device = shipped()[0]
    assert device.pattern.fullmatch("1234 , -56.5,1") and not device.pattern.fullmatch("1234;5678;1")
    close = device.model_copy(update={"line": "{button:1}{x:6}{y:6}"})
    found = Device.model_validate(close.model_dump()).pattern.fullmatch("1+01234-00567")
    assert found is not None and (float(found["x"]), float(found["y"]), found["button"]) == (1234.0, -567.0, "1")
    for one in shipped():
        assert one.pattern.fullmatch(one.written(1234.0, -567.0, next(iter(one.buttons)))), one.id


def test_a_replay_comes_as_fast_as_its_line() -> None:
    """9600 bits a second are 960 bytes with start and stop bits."""
    line = Replay(bytes(2000), 9600.0)
    assert len(line.read(1.0)) == 960 and len(line.read(0.5)) == 480 and not line.is_over
    assert len(line.rest()) == 560 and line.is_over and line.share == 1.0


def test_a_serial_line() -> None:
    """On a port that loops back (pyserial's own): what was written comes, and reading waits for nothing."""
    device = shipped()[0]
    line = SerialLine("loop://", device)
    assert line.read(0.0) == b"" and not line.is_over
    line._port.write(b"100,200,1\r\n")
    assert Stream(device).take(line.read(0.0)) == [Press(10.0, -20.0, "corner")]
    line.close()
    with pytest.raises(FileError, match="loop"):
        line.read(0.0)
    assert isinstance(ports(), list)
    with pytest.raises(FileError, match="nothing-there"):
        SerialLine("/dev/nothing-there", device)


def test_a_kept_stream_is_brought_in_like_a_file(tmp_path: Path) -> None:
    path = tmp_path / "rail.ztrace"
    path.write_bytes(b"READY V2.1\r\n" + sent(shipped()[1]))
    source = imported.read(path, shipped())
    assert isinstance(source, DigitisedSource) and source.units == [] and source.under is None
    assert source.traced().notes[0].startswith("Line 1 was skipped")
    assert apart(demo_style().block, block_of(imported.tagged_file(source))).seam < 0.5
    assert len(source.lines()) == 2 and all(math.dist(line.start, line.end) < 1e-9 for line in source.lines())


def test_a_device_that_sends_by_itself(monkeypatch: pytest.MonkeyPatch) -> None:
    """Thousands of places along an edge, ten to a millimetre: as good as pressed ones, and worked out at once."""
    monkeypatch.setattr(simulator, "EVERY", 0.1)
    monkeypatch.setattr(simulator, "ALONG", 0.1)
    presses = pressed(0.15)
    assert len(presses) > 15_000
    assert apart(demo_style().block, block_of(tagged(traces.traced(presses)))).seam < 0.5


def test_an_outline_there_and_back_again_is_none() -> None:
    """Three corners of which two are one and the same place: it raised a ValueError."""
    places = [(0.0, 0.0), (200.0, 0.0), (0.0, 0.0), (200.0, 0.0)]
    with pytest.raises(FileError, match="no outline was pressed"):
        traces.traced([Press(x, y, "corner") for x, y in places])
