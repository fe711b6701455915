"""Mangled files: styles, blocks and measurements changed at random, in their bytes and in what they say. Each is read or
refused in one line; what is read is worked out, written and opened again."""

from __future__ import annotations

import copy
import json
import random
import re
from collections.abc import Callable
from contextlib import suppress
from functools import lru_cache
from pathlib import Path
from typing import Any

from tests.bodies import person
from tests.torture.blocks import DRAFTED, block
from tests.torture.recipes import Caught
from zesty_pivot.core.drafting.draft import draft
from zesty_pivot.core.drafting.method import Method
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.faults import LOGGER
from zesty_pivot.core.formats import block_file, measures_csv, measures_file, method_file, report, style_file, svg
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.drafted_block import block_of
from zesty_pivot.core.formats.measures_file import Measures
from zesty_pivot.core.quantity import Scope
from zesty_pivot.data.demo import demo_people, demo_styles
from zesty_pivot.data.methods import all_methods

MOST_WORDS = 1200  # characters of a refusal

ODD: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 2, 1e308, -1e308, 1e-308, 10**400, -(10**30), 0.1, "", " ", "x", "0", "-1", "1/0", "1e5",
    "nan", "inf", "½½", "waist/4 1/2", "3 / 4 in", "1,000", "50%", "-50%", "101%", "bust/0", "bust*bust", "(" * 60,
    "a" * 5000, "\x00", "a\nb", "\x1b[31m", "\ud800", "\u202eabc", "前", "/etc/passwd", "../../x", "a\x00b", "front", "back",
    "waist", "centre", [], {}, [[]], [1, 2], [1, 2, 3], {"edge": "waist", "at": "50%"}, {"station": "french"}, {"path": "x"},
    {"path": "a\x00b"},
)  # fmt: skip

RAW: tuple[bytes, ...] = (
    b"\xff", b"\x00", b"\xed\xa0\x80", b"{", b"}", b"[", b"]", b'"', b",", b":", b"NaN", b"Infinity", b"-Infinity", b"1e999",
    b"9" * 5000, b"\\u0000", b"\\ud800", b"[" * 3000, b'{"a":' * 3000, b"null", b"\xef\xbb\xbf", b"//", b"'",
)  # fmt: skip


@lru_cache(maxsize=1)
def _corpus() -> tuple[tuple[str, bytes], ...]:
    styles = [("style", style_file.dump(style)) for style in demo_styles()]
    blocks = [("block", block_file.dump(block(number))) for number in range(4)]
    measures = {"format": "zesty-pivot/measures", "version": 1, "units": "in", "measures": {"bust": 36, "waist": "28 1/2 in"}}
    drafted = [("block", block_file.dump(block(DRAFTED + number))) for number in range(3)]
    methods = [("method", method_file.dump(method)) for method in all_methods()]
    people = [("measures", json.dumps(measures).encode()), ("measures", measures_file.dump(demo_people()))]
    return (*styles, *blocks, *drafted, *methods, *people)


def _places(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """The ways to everything inside a JSON value."""
    found = [path] if path else []
    inside = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, part in inside:
        found += _places(part, (*path, key))
    return found


def _changed(chance: random.Random, value: Any) -> Any:
    """A JSON value with a few of its parts replaced, taken out, doubled or exchanged."""
    value = copy.deepcopy(value)
    for _ in range(chance.choice([1, 1, 1, 2, 4])):
        places = _places(value)
        if not places:
            return value
        *way, last = chance.choice(places)
        holder = value
        for key in way:
            holder = holder[key]
        what = chance.random()
        if what < 0.55:
            holder[last] = copy.deepcopy(chance.choice(ODD))
        elif what < 0.7:
            del holder[last]
        elif what < 0.8 and isinstance(holder, dict):
            holder[str(chance.choice(ODD))[:40]] = holder.pop(last)
        elif what < 0.9 and isinstance(holder, list):
            holder.insert(chance.randrange(len(holder) + 1), copy.deepcopy(holder[last]))
        elif isinstance(holder[last], float | int) and not isinstance(holder[last], bool):
            with suppress(OverflowError):  # one of its own odd numbers is larger than any that has a fraction
                holder[last] = holder[last] * chance.choice([-1, 0.001, 0.5, 1.001, 2, 25.4, 1000])
        else:
            other = chance.choice(places)
            part = value
            for key in other:
                part = part[key] if isinstance(part, dict | list) else part
            holder[last] = copy.deepcopy(part)
    return value


def _gentle(chance: random.Random, value: Any) -> Any:
    """A JSON value with some of its numbers (also those inside texts) a little different, and steps left out, doubled or in
    another order: most of it can still be read."""
    value = copy.deepcopy(value)
    if isinstance(value.get("steps"), list) and chance.random() < 0.5:
        steps = value["steps"]
        chance.shuffle(steps) if chance.random() < 0.3 else steps.extend(copy.deepcopy(steps[: chance.randint(0, 2)]))
        del steps[chance.randint(0, len(steps)) :]
    numbers = [way for way in _places(value) if _holds_number(_at(value, way)) and way[-1] != "version"]
    for *way, last in chance.sample(numbers, min(len(numbers), chance.choice([1, 1, 2, 5]))):
        holder = _at(value, tuple(way))
        factor = chance.choice([0.0, 0.9, 0.999, 1.0 + 1e-7, 1.001, 1.1, 2.0, -1.0])
        if isinstance(holder[last], str):
            found = list(re.finditer(r"\d+(?:\.\d+)?", holder[last]))
            one = chance.choice(found)
            holder[last] = holder[last][: one.start()] + f"{float(one[0]) * factor:g}" + holder[last][one.end() :]
        else:
            holder[last] = holder[last] * factor
    return value


def _at(value: Any, way: tuple[Any, ...]) -> Any:
    for key in way:
        value = value[key]
    return value


def _holds_number(part: Any) -> bool:
    return (isinstance(part, str) and any(c.isdigit() for c in part)) or (
        isinstance(part, float | int) and not isinstance(part, bool)
    )


def mangled_bytes(chance: random.Random, text: bytes) -> bytes:
    """A file's bytes cut, flipped, doubled or with something odd in between."""
    data = bytearray(text)
    for _ in range(chance.choice([1, 1, 2, 5])):
        at = chance.randrange(max(1, len(data)))
        what = chance.randrange(5)
        if what == 0:
            del data[at:]
        elif what == 1 and data:
            data[at % len(data)] ^= 1 << chance.randrange(8)
        elif what == 2:
            data[at:at] = chance.choice(RAW)
        elif what == 3:
            del data[at : at + chance.randint(1, 200)]
        else:
            data[at:at] = data[at : at + chance.randint(1, 300)]
    return bytes(data)


def mangled(seed: int) -> tuple[str, bytes]:
    """A kind of file and its mangled content; the same for the same seed."""
    chance = random.Random(seed)
    kind, text = chance.choice(_corpus())
    way = chance.random()
    if way < 0.25:
        return kind, mangled_bytes(chance, text)
    if way < 0.6:
        return kind, json.dumps(_gentle(chance, json.loads(text))).encode()
    return kind, mangled_value(chance, text)


def mangled_value(chance: random.Random, text: bytes) -> bytes:
    """A JSON file with a few of its parts replaced, taken out, doubled or exchanged."""
    value = _changed(chance, json.loads(text))
    return json.dumps(value, ensure_ascii=chance.random() < 0.5).encode("utf-8", "surrogatepass")


READERS: dict[str, Callable[[Path], Any]] = {
    "style": style_file.read,
    "block": block_file.read,
    "measures": lambda path: measures_csv.read_people(path)[0],
    "method": method_file.read,
}


def tried(seed: int, folder: Path) -> str | None:
    """What is wrong with how one mangled file is met; None when nothing is."""
    kind, content = mangled(seed)
    path = folder / f"{seed}.{kind}"
    path.write_bytes(content)
    caught = Caught()
    LOGGER.addHandler(caught)
    try:
        said = _met(kind, path)
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        said = f"raised {type(fault).__name__}: {fault}"
    finally:
        LOGGER.removeHandler(caught)
        path.unlink()
    return f"{kind} {seed}: {caught.said[0]}" if caught.said else f"{kind} {seed}: {said}" if said else None


def _met(kind: str, path: Path) -> str | None:
    try:
        found = READERS[kind](path)
    except ZestyError as fault:
        text = str(fault)
        if "\n" in text or len(text) > MOST_WORDS or not text.isprintable() or "object at 0x" in text:
            return f"refused with {text[:300]!r}"
        return None
    if kind == "measures":
        return _measured(found)
    if kind == "method":
        return _drafted(found)
    style = found if kind == "style" else style_file.from_block(found)
    return _worked(style)


def _measured(people: Measures) -> str | None:
    """What can be read of people is written as CSV and read again."""
    for one in people.people:
        one.worked(people.units)
    with suppress(ZestyError):
        measures_csv.read(measures_csv.write(people, "cm"), "back")
    return None


def _drafted(method: Method) -> str | None:
    """A method that is sound draws a block, or says in a line why it cannot."""
    with suppress(ZestyError):
        block_of(draft(method, person("quarter_waist") | {"armhole": 410.0}, {}))
    with suppress(ZestyError):
        method_file.from_value(json.loads(method_file.dump(method)), "again")
    return None


def _worked(style: style_file.Style) -> str | None:
    derived = derive(style)
    report.dump(report.report(derived))
    for piece in derived.pieces:
        svg.piece_svg(piece)
    for finding in derived.findings:
        if "\n" in finding.message or "object at 0x" in finding.message:
            return f"a finding says {finding.message!r}"
    for _number, fault in derived.derivation.broken:
        if "\n" in str(fault) or len(str(fault)) > MOST_WORDS:
            return f"a broken step says {str(fault)[:300]!r}"
    style.scope() if style.measures else Scope()
    again = style_file.from_value(json.loads(style_file.dump(style)), "again")
    return None if again == style else "it is another style when it is opened again"
