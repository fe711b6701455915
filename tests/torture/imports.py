"""What comes in from outside: mangled drawings, pictures and streams, which are read or refused in one line, in time and in
bounds; random blocks without a hint; photographs by random cameras."""

from __future__ import annotations

import io
import random
import re
import resource
import time
from functools import lru_cache
from pathlib import Path

import ezdxf
import numpy as np

from tests import paper_files
from tests.paper_blocks import Lay, pieces_of
from tests.random_blocks import random_block
from tests.ruled_blocks import ruler_file
from tests.samples import hip_block, real_block
from tests.torture.mangled import MOST_WORDS, RAW
from tests.torture.recipes import Caught
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.faults import LOGGER
from zesty_pivot.core.formats import block_file, digitiser_file, imported, ruled, tag_file
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.intake.digitiser import simulator, stream, traces
from zesty_pivot.core.intake.digitiser.device import SUFFIX
from zesty_pivot.core.intake.hints import Hints, PieceHints
from zesty_pivot.core.intake.photo.sized import Known
from zesty_pivot.core.intake.tagging import tagged
from zesty_pivot.core.piece import Body
from zesty_pivot.data.digitisers import shipped

LONGEST = 10.0  # seconds for one file
MOST_MEMORY = 1_000_000  # kB
OWN_MEMORY = 250_000  # kB of a process that has loaded everything and read nothing yet

NUMBERS = (b"0", b"-1", b"1e308", b"-1e308", b"1e-320", b"nan", b"inf", b"99999999999999", b"0.0000001", b"--5", b"1.2.3", b"")
WORDS = (
    b"<g>", b"</g>", b"<svg>", b'<use href="#p0"/>', b'<g id="a"><use href="#a"/></g>', b'transform="scale(0)"',
    b'transform="matrix(1 0 0)"', b'transform="rotate(1e308)"', b"A 0 0 0 1 1 5 5", b"C 1 2", b"Z Z Z", b"M",
    b"  0\nINSERT\n  2\nPIECE0\n", b"  0\nSPLINE\n", b"\n210\n-1\n", b"IN;", b"PU;PD;", b"SC0,0,0,0;", b"AA0,0,1e9;", b"PE",
    b"LB", b"DT", b"BZ1,2,3;", b"CI1e30;", b"IP0,0,0,0;",
)  # fmt: skip


@lru_cache(maxsize=1)
def _corpus() -> tuple[tuple[str, bytes], ...]:
    chance = random.Random(5)
    found: list[tuple[str, bytes]] = []
    for block in (real_block(), hip_block(), random_block(4)):
        pieces = pieces_of(block, Lay.chance(chance))
        plain = [paper_files.lines_of(piece) for piece in pieces]
        mixed = [paper_files.lines_of(piece, chance) for piece in pieces]
        found += [("a.svg", paper_files.svg(plain)), ("a.svg", paper_files.svg(mixed, ""))]
        found += [("a.dxf", paper_files.dxf(plain)), ("a.dxf", paper_files.dxf(mixed, blocks=True))]
        found += [("a.plt", paper_files.hpgl(plain, 0.2)), ("a.plt", paper_files.hpgl(mixed, 0.2))]
    small = ezdxf.new("R2000")
    small.modelspace().add_lwpolyline([(0, 0, 0.5), (100, 0, 0), (100, 80, 0)], format="xyb", close=True)
    small.modelspace().add_spline([(0, 0), (10, 20), (30, 5), (60, 40)])
    small.modelspace().add_ellipse((5, 5), (30, 0), 0.4)
    text = io.StringIO()
    small.write(text)
    return (*found, ("a.dxf", text.getvalue().encode()))


@lru_cache(maxsize=1)
def _streams() -> tuple[bytes, ...]:
    marks = [one for piece in block_file.pattern(real_block()).pieces for one in simulator.presses(piece)]
    return tuple(simulator.sent(marks, device) for device in shipped())


@lru_cache(maxsize=1)
def _sheets() -> tuple[tuple[str, bytes], ...]:
    """Rulers' sheets, tag files and digitisers' files."""
    sheets = [
        ruled.dump(ruler_file(block, curve_points=count)) for block in (real_block(), random_block(4)) for count in (0, 2)
    ]
    tags = tag_file.dump(tag_file.of(Hints({0: PieceHints(body=Body.FRONT, pulls=(((10.0, 20.0), (12.0, 21.0)),))})))
    devices = [(f"a{SUFFIX}", device.model_dump_json(indent=1).encode()) for device in shipped()]
    return (*(("a.zruler", data) for data in sheets), ("a.ztags", tags), *devices)


@lru_cache(maxsize=1)
def _pictures() -> tuple[bytes, ...]:
    import cv2

    chance = np.random.default_rng(1)
    small = cv2.GaussianBlur(chance.integers(0, 255, (240, 320, 3), dtype=np.uint8), (0, 0), 4.0)
    return tuple(cv2.imencode(ending, small)[1].tobytes() for ending in (".png", ".jpg"))


def broken(chance: random.Random, data: bytes) -> bytes:
    """Bytes changed, taken out, doubled, exchanged; numbers and words put in their place."""
    for _round in range(chance.choice([1, 1, 2, 3, 8])):
        at = chance.randrange(len(data) + 1)
        what = chance.random()
        if what < 0.2:
            data = data[:at] + bytes([chance.randrange(256)]) + data[at + 1 :]
        elif what < 0.35:
            data = data[:at] + data[at + chance.choice([1, 5, 60, 2000]) :]
        elif what < 0.45:
            data = data[:at] + data[max(0, at - chance.choice([3, 80, 4000])) :]
        elif what < 0.55:
            data = data[:at] + chance.choice(RAW) + data[at:]
        elif what < 0.7:
            data = data[:at] + chance.choice(WORDS) + data[at:]
        elif what < 0.95:
            found = list(re.finditer(rb"-?\d+\.?\d*", data[at : at + 3000]))
            if found:
                one = chance.choice(found)
                data = data[: at + one.start()] + chance.choice(NUMBERS) + data[at + one.end() :]
        else:
            data = data[:at]
    return data


def fuzzed(seed: int) -> str | None:
    """What is wrong with how one mangled drawing, picture or stream is met; None when nothing is."""
    chance = random.Random(f"import {seed}")
    what = chance.random()
    caught = Caught()
    LOGGER.addHandler(caught)
    began = time.process_time()
    most = _allowed()
    try:
        if what < 0.8:
            name, data = chance.choice(_corpus())
            said = _met(lambda: _drawn(name, broken(chance, data)))
        elif what < 0.9:
            said = _met(lambda: _streamed(broken(chance, chance.choice(_streams()))))
        elif what < 0.96:
            name, data = chance.choice(_sheets())
            said = _met(lambda: _filled(name, broken(chance, data)))
        elif what < 0.97:
            said = _met(lambda: _sized(chance))
        else:
            name, data = "p.png", broken(chance, chance.choice(_pictures()))
            said = _met(lambda: imported.photographed.from_bytes(name, data))
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        said = f"raised {type(fault).__name__}: {fault}"
    finally:
        LOGGER.removeHandler(caught)
    took = time.process_time() - began
    if most < resource.getrusage(resource.RUSAGE_SELF).ru_maxrss:
        return f"import {seed}: over 1 GB of memory"
    said = caught.said[0] if caught.said else said or (f"took {took:.0f} s" if took > LONGEST else None)
    return f"import {seed}: {said}" if said else None


def _allowed() -> int:
    """The peak of memory (KB) that an import may bring this process to: a gigabyte with what a process has by itself, more
    where others have run in it before and left theirs, or have been higher already."""
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    held = pages * resource.getpagesize() // 1024
    return max(MOST_MEMORY + max(0, held - OWN_MEMORY), resource.getrusage(resource.RUSAGE_SELF).ru_maxrss)


def _met(work) -> str | None:  # type: ignore[no-untyped-def]
    try:
        work()
    except ZestyError as fault:
        text = str(fault)
        if "\n" in text or len(text) > MOST_WORDS or not text.isprintable() or "object at 0x" in text:
            return f"refused with {text[:300]!r}"
    return None


def _drawn(name: str, data: bytes) -> None:
    block_of(imported.tagged_file(imported.from_bytes(name, data), unit="mm"))


def _filled(name: str, data: bytes) -> None:
    if name.endswith(".zruler"):
        block_of(imported.tagged_file(ruled.source(ruled.from_bytes(name, data))))
    elif name.endswith(".ztags"):
        tag_file.from_bytes(name, data).hints()
    else:
        device = digitiser_file.from_text(data.decode("utf-8", "replace"), name)
        stream.read(_streams()[0] + b"\x00" + bytes(range(256)) * 8, device)


def _sized(chance: random.Random) -> None:
    """A photograph without marks, by any four corners."""
    photo = imported.photographed.from_bytes("p.png", _pictures()[0])
    points = tuple((chance.uniform(-50, 400), chance.uniform(-50, 300)) for _corner in range(chance.choice([2, 4, 4, 4])))
    way = "ruler" if len(points) == 2 else "sheet"
    photo.sized(Known(way, points, chance.choice([210.0, 5.0, 1e9, 2900.0]), 297.0))  # type: ignore[union-attr, arg-type]


def _streamed(data: bytes) -> None:
    device = digitiser_file.likeliest(data, shipped())
    taken = stream.read(data, device)
    block_of(tagged(traces.traced(taken.presses, stream.notes(taken.told, taken.skipped))))


def untold(seed: int) -> str | None:
    """A block of a random person without a hint: what is wrong though it is called sure."""
    from tests.core.intake.test_tagging import Tally, look

    tally = Tally()
    look(seed, random.Random(seed).choice(["curves", "short lines", "noise"]), tally)
    return tally.wrong_but_sure[0] if tally.wrong_but_sure else None


def shot(seed: int) -> str | None:
    """A photograph by a random camera: seams within 0.5 mm, notches within 1 mm."""
    from tests.core.intake.photo.scenes import scene
    from tests.core.intake.photo.test_photo import NOTCH, SEAM, compare, encoded
    from tests.photographed import photograph, random_shot, table
    from zesty_pivot.core.formats import photographed
    from zesty_pivot.core.intake.photo.mat import mat
    from zesty_pivot.data.demo import demo_style

    chance = np.random.default_rng(seed)
    on_table = scene(demo_style().block, drawn=bool(chance.random() < 0.5))
    drawn = table(mat("A4"), [one for _piece, one in on_table], chance)
    pixels = photograph(drawn, mat("A4"), random_shot(chance, chance.choice([3.0, 12.0])), chance)
    try:
        seam, notch = compare(photographed.from_bytes("photo.png", encoded(pixels)), on_table)
    except (ZestyError, AssertionError, StopIteration, ValueError) as fault:
        return f"photograph {seed}: {type(fault).__name__}: {fault}"
    return (
        f"photograph {seed}: a seam is off by {seam:.2f} mm, a notch by {notch:.2f} mm"
        if seam > SEAM or notch > NOTCH
        else None
    )


FAMILIES = {"mangled drawings, pictures and streams": fuzzed, "blocks tagged without a hint": untold, "photographs": shot}
