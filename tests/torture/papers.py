"""What leaves the program: random styles on random paper, cloth and rolls, whose files are read back; plots that are mangled,
sent to the simulated plotter."""

from __future__ import annotations

import json
import random
import re
import xml.etree.ElementTree as ET
from functools import lru_cache
from io import BytesIO, StringIO

import ezdxf
import pypdf

from tests.lays import holds
from tests.torture.mangled import MOST_WORDS, RAW
from tests.torture.recipes import Caught, random_style
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.registry import all_exports
from zesty_pivot.core.faults import LOGGER
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.kept_lay import keep, laid, laid_from
from zesty_pivot.core.formats.lay_models import LayFile
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.plotter.simulator import SimulatedPlotter, Trouble
from zesty_pivot.data.demo import demo_style

UNITS = 40.0  # units of HP-GL to a mm
LONGEST = 300.0  # seconds that a simulated plotter may draw at a mangled plot
PARTS = (
    b"PA", b"PD", b"PU", b"SP", b"PG", b"IN", b";", b",", b"-", b"1e9", b"99999999999", b"\x1b.B", b"\x1b.K", b"\x1b", b"LB",
)  # fmt: skip


def written(seed: int) -> str | None:
    """A random style written in every format, and laid on cloth; read back by other libraries."""
    chance = random.Random(seed)
    caught = Caught()
    LOGGER.addHandler(caught)
    said = ""
    try:
        _block, made = random_style(seed, most=6)
        derived = derive(made)
        for work in (_on_cloth, _on_paper):
            said = said or _met(lambda work=work: work(derived, chance)) or ""  # type: ignore[misc]
    except Exception as fault:  # noqa: BLE001 - what this family looks for
        said = f"{type(fault).__name__}: {fault}"
    finally:
        LOGGER.removeHandler(caught)
    said = said or "; ".join(caught.said[:2])
    return f"paper {seed}: {said}" if said else None


def _met(work) -> str | None:  # type: ignore[no-untyped-def]
    try:
        work()
    except ZestyError as fault:
        text = str(fault)
        if "\n" in text or len(text) > MOST_WORDS or not text.isprintable() or not fault.advice:
            return f"refused with {text[:300]!r}"
    return None


def cloth_of(chance: random.Random) -> LayFile:
    """Any cloth, some of them too narrow or odd."""
    return LayFile(
        cloth=chance.choice(["self", "self", "lining", "interfacing"]), width=f"{chance.uniform(20, 180):.1f} cm",
        folded=chance.random() < 0.3, nap=chance.choice(["none", "one_way"]), lean=chance.choice([0.0, 0.0, 2.0, 15.0]),
        gap=f"{chance.choice([0.0, 0.5, 5.0, 40.0]):g} mm", selvedge=f"{chance.choice([0.0, 1.0, 8.0]):g} cm",
        repeat_along=chance.choice([0.0, 0.0, "7 cm", "100 cm"]), repeat_across=chance.choice([0.0, 0.0, "5 cm", "80 cm"]),
        match=("side_seam.balance",), shrinks_along=chance.choice([0.0, 0.03, 0.5]), sets=chance.choice([1, 1, 2, 5]),
    )  # fmt: skip


def _on_cloth(derived: Derived, chance: random.Random) -> None:
    kept = cloth_of(chance)
    plans = list(laid(derived, kept, seconds=0))
    for plan in plans:
        holds(plan)
    again = laid_from(derived, keep(kept, plans[-1])) if plans[-1].pieces else plans[-1]
    assert again is not None and again.clashes == frozenset(), "a lay that was kept is another"


def _on_paper(derived: Derived, chance: random.Random) -> None:
    paper = chance.choice(["A4", "A3", "Letter", "Legal", "330x480", "60x60", "150x4000", f"{chance.randint(80, 900)}x400"])
    printing = Printing(
        paper, edge=chance.choice([0.0, 5.0, 10.0, 40.0]), overlap=chance.choice([0.0, 10.0, 25.0]),
        apart=chance.random() < 0.3,
        in_colour=chance.random() < 0.3, packing="none", dxf=chance.choice(["R12", "R2000", "R2010"]),
        dxf_each=chance.random() < 0.2, roll=chance.choice([150.0, 300.0, 900.0, 3000.0]),
        roll_length=chance.choice([0.0, 0.0, 150.0, 800.0]), pens=chance.choice([1, 2, 3]),
        cloth=f"{chance.randint(60, 160)} cm",
    )  # fmt: skip
    formats = {id: one for id, one in all_exports().items() if id != "stand"}  # stands.py has it
    for id in chance.sample(sorted(formats), 4):
        said = _met(lambda id=id: _read_back(formats[id].files(derived, printing), printing))  # type: ignore[misc]
        assert said is None, said


def _read_back(files, printing: Printing) -> None:  # type: ignore[no-untyped-def]
    for name, make in files.items():
        content = make()
        if name.endswith(".pdf"):
            assert len(pypdf.PdfReader(BytesIO(content)).pages) > 0, name
        elif name.endswith(".svg"):
            ET.fromstring(content)
        elif name.endswith(".json"):
            json.loads(content)
        elif name.endswith(".dxf"):
            text = content.decode("utf-8", "replace")
            assert not ezdxf.read(StringIO(text)).audit().errors, name
        elif name.endswith(".plt"):
            across = [int(y) for x, y in re.findall(rb"(-?\d+),(-?\d+)", content)]
            assert across and min(across) >= 0 and max(across) <= printing.roll * UNITS + 1.0, name


@lru_cache(maxsize=1)
def _plot() -> bytes:
    return all_exports()["plot"].files(derive(demo_style()), Printing(roll=300.0))["pattern.plt"]()


def mangled_plot(seed: int) -> str | None:
    """A plot with bytes changed, taken out and put in: the simulated plotter draws what it can and goes on."""
    chance = random.Random(seed)
    content = bytearray(_plot()[: chance.choice([200, 2000, 20_000])])
    for _ in range(chance.randint(1, 12)):
        at = chance.randrange(len(content) + 1)
        part = chance.choice([*PARTS, *RAW, bytes([chance.randrange(256)])])
        content[at : at + chance.choice([0, 0, 1, 5])] = part[:200]
    plotter = SimulatedPlotter(buffer=chance.choice([64, 1024]), jams_after=chance.choice([0.0, 0.0, 500.0]))
    try:
        spent, sent = 0.0, 0
        while (sent < len(content) or not plotter.is_idle) and spent < LONGEST:
            size = chance.choice([1, 50, max(plotter.room, 1)])
            plotter.take(bytes(content[sent : sent + size]))
            sent += size
            plotter.answers()
            plotter.run(0.5)
            spent += 0.5
            if plotter.trouble is not Trouble.NONE:
                plotter.free()
            if chance.random() < 0.001:
                plotter.jam()
        for _pen, line in plotter.lines:
            assert all(abs(x) < 1e12 and abs(y) < 1e12 for x, y in line), "a place that is none"
    except Exception as fault:  # noqa: BLE001 - what this family looks for
        return f"plot {seed}: {type(fault).__name__}: {fault}"
    return None


FAMILIES = {"styles on any paper, cloth and roll": written, "mangled plots": mangled_plot}
