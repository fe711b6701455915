"""Steps on their own (.zrecipe): a named piece of a recipe for any style, and what the clipboard carries."""

import json
from pathlib import Path as FilePath
from typing import Any, Literal

from pydantic import Field

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.unit_change import steps_in
from zesty_pivot.core.formats.variants import MAX_STEPS, AnyStep
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.quantity.fields import Model
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step

KIND = "recipe"
SUFFIX = ".zrecipe"


class RecipePiece(Model):
    """Steps with a name and the unit of their bare numbers."""

    format: Literal["zesty-pivot/recipe"] = "zesty-pivot/recipe"
    version: Literal[1] = 1
    name: str = Field(min_length=1, max_length=120)
    units: Unit = "cm"
    steps: tuple[AnyStep, ...] = Field(min_length=1, max_length=MAX_STEPS)

    def for_units(self, units: Unit) -> tuple[Step, ...]:
        """Its steps for a style in a unit: what was written keeps its meaning. Raises FileError when it cannot."""
        return self.steps if units == self.units else steps_in(self.steps, self.units)


def dump(piece: RecipePiece) -> bytes:
    """The file's bytes, which are the clipboard's text as well."""
    head: dict[str, Any] = piece.model_dump(mode="json", exclude={"steps"})
    value = {**head, "steps": [registry.dump(step) for step in piece.steps]}
    return (json.dumps(value, indent=1, ensure_ascii=False) + "\n").encode()


def from_text(text: str, where: str) -> RecipePiece:
    """A piece from text. Raises FileError in one line for anything that is none."""
    if len(text.encode(errors="replace")) > files.MAX_BYTES:
        raise FileError("more text than a recipe has", where=where, advice="Copy the steps again.")
    return files.validated(RecipePiece, files.parse_json(text, KIND, where), where)


def read(path: FilePath) -> RecipePiece:
    """A piece from a file; raises FileError in one line."""
    return files.validated(RecipePiece, files.read_json(path, KIND), files.shown(path))


def in_folder(folder: FilePath) -> dict[FilePath, RecipePiece]:
    """The pieces of a folder by their files, in order of their names; files that are none are passed over."""
    found: dict[FilePath, RecipePiece] = {}
    for path in sorted(folder.glob(f"*{SUFFIX}")) if folder.is_dir() else ():
        try:
            found[path] = read(path)
        except FileError:
            continue
    return found
