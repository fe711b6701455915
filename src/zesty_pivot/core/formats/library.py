"""The block library: the blocks that hang on the rail, each a file of its own with its versions; and the whole of it in one
file.

A block is kept once: the same block again is another note, not another entry. What is taken out goes to a folder `set-aside`.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Iterable, Sequence
from pathlib import Path as FilePath
from typing import Literal

from pydantic import Field

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import aside, block_file, files
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.ledger import girths
from zesty_pivot.core.ledger.girths import Girths
from zesty_pivot.core.quantity.fields import Model

KIND, WHOLE_KIND = "kept_block", "library"
SUFFIX, WHOLE_SUFFIX = ".zkept", ".zrail"
MOST_VERSIONS = 50
MOST_BLOCKS = 2000


class KeptVersion(Model):
    """A block as it was kept once: the day, and what was done."""

    date: str = Field(default="", max_length=20)
    note: str = Field(default="", max_length=500)
    block: BlockFile


class KeptBlock(Model):
    """A block on the rail with its versions, the newest last."""

    format: Literal["zesty-pivot/kept_block"] = "zesty-pivot/kept_block"
    version: Literal[1] = 1
    id: str = Field(pattern=r"^[0-9a-f]{12}$")
    name: str = Field(min_length=1, max_length=200)
    notes: str = Field(default="", max_length=5000)
    origin: str = Field(default="", max_length=500, description="where it came from")
    versions: tuple[KeptVersion, ...] = Field(min_length=1, max_length=MOST_VERSIONS)

    @property
    def block(self) -> BlockFile:
        """The newest version."""
        return self.versions[-1].block

    @property
    def digests(self) -> frozenset[str]:
        """What tells the shapes of its versions."""
        return frozenset(digest(one.block) for one in self.versions)


class WholeLibrary(Model):
    """All blocks of a library in one file."""

    format: Literal["zesty-pivot/library"] = "zesty-pivot/library"
    version: Literal[1] = 1
    blocks: tuple[KeptBlock, ...] = Field(max_length=MOST_BLOCKS)


def digest(block: BlockFile) -> str:
    """What tells a block's shape, whatever it is called: its pieces' digest."""
    text = "".join(piece.model_dump_json() for piece in block.pieces)
    return hashlib.sha256(text.encode()).hexdigest()[:12]


def girths_of(block: BlockFile) -> Girths | None:
    """The block's girths, mm; None for one that cannot be measured."""
    try:
        pattern = block_file.pattern(block)
        return girths(pattern, pattern)
    except ZestyError:
        return None


def uses(kept: KeptBlock, blocks: Iterable[tuple[str, BlockFile]]) -> list[str]:
    """The names of the styles that have one of a kept block's versions under them; `blocks` are styles' names and blocks."""
    return [name for name, block in blocks if digest(block) in kept.digests]


class Library:
    """The library in a folder. A file that cannot be read costs itself: it is told, and stays."""

    def __init__(self, folder: FilePath) -> None:
        self.folder = folder

    def blocks(self) -> tuple[list[KeptBlock], list[str]]:
        """Everything that is kept, by name; and a sentence about each file that cannot be read."""
        found, told = [], []
        for path in sorted(self.folder.glob(f"*{SUFFIX}")) if self.folder.is_dir() else ():
            try:
                found.append(_read(path))
            except ZestyError as fault:
                told.append(str(fault))
        return sorted(found, key=lambda one: (one.name.casefold(), one.id)), told

    def keep(self, block: BlockFile, date: str, origin: str = "", note: str = "") -> KeptBlock:
        """Hangs a block on the rail. The same shape again gives the entry that is there. Raises FileError where it cannot be
        written."""
        mine = digest(block)
        for one in self.blocks()[0]:
            if mine in one.digests:
                return one
        kept = KeptBlock(
            id=mine, name=block.name, origin=origin[:500], versions=(KeptVersion(date=date, note=note[:500], block=block),)
        )
        self.write(kept)
        return kept

    def add_version(self, kept: KeptBlock, block: BlockFile, date: str, note: str = "") -> KeptBlock:
        """Another version of a block; the oldest goes when there are too many. Raises FileError."""
        versions = (*kept.versions, KeptVersion(date=date, note=note[:500], block=block))[-MOST_VERSIONS:]
        changed = kept.model_copy(update={"versions": versions})
        self.write(changed)
        return changed

    def change(self, kept: KeptBlock, **facts: str) -> KeptBlock:
        """Its name or notes written anew. Raises FileError."""
        changed = files.validated(KeptBlock, {**kept.model_dump(mode="json"), **facts}, kept.name)
        self.write(changed)
        return changed

    def write(self, kept: KeptBlock) -> None:
        """Writes an entry; a file of another name that held it goes. Raises FileError."""
        target = self.folder / _file_name(kept)
        files.write_atomic(target, _dump(kept))
        for path in self.folder.glob(f"*-{kept.id}{SUFFIX}"):
            if path != target:
                path.unlink(missing_ok=True)

    def take_out(self, kept: KeptBlock) -> FilePath | None:
        """Takes a block off the rail: its file is set aside. The new path, or None where there was nothing."""
        paths = list(self.folder.glob(f"*-{kept.id}{SUFFIX}"))
        aside.prune(self.folder)
        return next((moved for path in paths if (moved := aside.set_aside(path)) is not None), None)

    def whole(self) -> bytes:
        """The whole library as one file's bytes."""
        return _dump(WholeLibrary(blocks=tuple(self.blocks()[0])))

    def take_in(self, path: FilePath) -> tuple[int, int]:
        """Blocks of a whole library's file beside those that are here: how many came, and how many were here already.

        Raises FileError; nothing is written then.
        """
        where = files.shown(path)
        value = files.parse_json(_text(path, where), WHOLE_KIND, where)
        whole = files.validated(WholeLibrary, value, where)
        for kept in whole.blocks:
            for one in kept.versions:
                _sound(one.block, f"{where}, {kept.name}")
        known = {mark for one in self.blocks()[0] for mark in one.digests}
        fresh = [kept for kept in whole.blocks if not kept.digests & known]
        for kept in fresh:
            self.write(kept)
        return len(fresh), len(whole.blocks) - len(fresh)


def found(blocks: Sequence[KeptBlock], asked: str, unit_mm: float = 10.0) -> list[KeptBlock]:
    """The blocks that words ask for: all of the words in name, notes or origin; a number is a bust, waist or hip girth
    within 2 cm, of the body or of the block, and `bust 92` only that. `unit_mm` is what a number counts in."""
    words = asked.casefold().split()
    return [kept for kept in blocks if _fits(kept, words, unit_mm)]


WITHIN = 20.0  # mm that a girth may be off the asked one. Our own choice


def _fits(kept: KeptBlock, words: Sequence[str], unit_mm: float) -> bool:
    text = f"{kept.name} {kept.notes} {kept.origin}".casefold()
    known = _girths(kept)
    which = ""
    for word in words:
        if word in known:
            which = word
            continue
        if re.fullmatch(r"\d+([.,]\d+)?", word):
            mm = float(word.replace(",", ".")) * unit_mm
            names = [which] if which else list(known)
            if any(abs(value - mm) <= WITHIN for name in names for value in known[name]) or (not which and word in text):
                which = ""
                continue
            return False
        if word not in text:
            return False
    return True


def _girths(kept: KeptBlock) -> dict[str, list[float]]:
    on_block, body = girths_of(kept.block), kept.block.measurements
    return {
        name: [value for value in (body.get(name), getattr(on_block, name, None)) if value is not None]
        for name in ("bust", "waist", "hip")
    }


def _text(path: FilePath, where: str) -> str:
    try:
        return files.read_bytes(path, 8 * files.MAX_BYTES).decode("utf-8-sig")
    except UnicodeDecodeError:
        raise FileError("the file is not UTF-8 text", where=where, advice=f"Choose a {WHOLE_SUFFIX} file.") from None


def _read(path: FilePath) -> KeptBlock:
    where = files.shown(path)
    kept = files.validated(KeptBlock, files.read_json(path, KIND), where)
    _sound(kept.block, where)
    return kept


def _sound(block: BlockFile, where: str) -> None:
    try:
        block_file.pattern(block)
    except FileError as fault:
        raise FileError(fault.what, where=where, advice=fault.advice) from None


def _dump(value: KeptBlock | WholeLibrary) -> bytes:
    return (value.model_dump_json(indent=1, exclude_none=True) + "\n").encode()


def _file_name(kept: KeptBlock) -> str:
    plain = re.sub(r"[^\w]+", "-", kept.name, flags=re.ASCII).strip("-").lower()[:40] or "block"
    return f"{plain}-{kept.id}{SUFFIX}"
