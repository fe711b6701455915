"""The style file (.zpiv): a recipe over a block, with its finish and notes. It carries its block inside."""

import json
from pathlib import Path as FilePath
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, ValidationError, field_validator

from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.conventions.sewing import Sewing, sewing_of
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, files, migrations, variants
from zesty_pivot.core.formats.accepted import Accepted
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.dart_keys import named_by_place
from zesty_pivot.core.formats.lay_models import MOST_LAYS, LayFile
from zesty_pivot.core.formats.page_models import MOST, KeptPages
from zesty_pivot.core.formats.print_models import MOST_PRINTS, Printed
from zesty_pivot.core.formats.table_lay import TableLay
from zesty_pivot.core.formats.variants import MAX_STEPS, MAX_VARIANTS, AnyStep, Variant
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.quantity import Scope, Unit, length_mm
from zesty_pivot.core.quantity.fields import Length, Model
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step

KIND = "style"
SUFFIX = ".zpiv"
SizeName = Annotated[str, Field(min_length=1, max_length=180)]
NAMED_BY_PLACE = 3  # the version from which on the finish names darts by where they open


class BlockRef(Model):
    """A block kept in a file of its own, its path seen from the style's folder."""

    path: str = Field(min_length=1, max_length=1000)


class Style(Model):
    """A style: block, recipe, finish and notes. One immutable value; the document of the program."""

    lines: ClassVar[frozenset[str]] = frozenset({"notes"})

    format: Literal["zesty-pivot/style"] = "zesty-pivot/style"
    version: Literal[6] = 6
    name: str = Field(default="Untitled style", max_length=200)
    units: Unit = "cm"
    block: BlockFile
    measures: dict[str, Length] = Field(default_factory=dict, description="body measurements, over the block's own")
    steps: tuple[AnyStep, ...] = Field(default=(), max_length=MAX_STEPS)
    finish: Finish = Finish.model_construct()  # the defaults need no validating
    variants: tuple[Variant, ...] = Field(default=(), max_length=MAX_VARIANTS, description="other recipes over the same block")
    accepted: tuple[Accepted, ...] = Field(default=(), max_length=500, description="findings that may stay, and why")
    table: TableLay = Field(default=TableLay.model_construct(), description="how the pieces lie on the table")
    lays: tuple[LayFile, ...] = Field(default=(), max_length=MOST_LAYS, description="cloths, and the lays on them")
    pages: tuple[KeptPages, ...] = Field(default=(), max_length=MOST, description="pieces packed on pages, by paper")
    printed: tuple[Printed, ...] = Field(default=(), max_length=MOST_PRINTS, description="when and how it was printed")
    sizes: tuple[SizeName, ...] = Field(default=(), max_length=200, description="of a chart, that it is made in")
    notes: str = Field(default="", max_length=100_000)

    @field_validator("variants")
    @classmethod
    def _told_apart(cls, value: tuple[Variant, ...]) -> tuple[Variant, ...]:
        fault = variants.faults_of(value)
        if fault:
            raise ValueError(fault)
        return value

    @field_validator("measures")
    @classmethod
    def _plain(cls, value: dict[str, str | float]) -> dict[str, str | float]:
        for name, text in value.items():
            if length_mm(text, Scope("cm")) <= 0.0:
                raise ValueError(f"{name} is {text}; a measurement must be greater than 0")
        return value

    @property
    def title(self) -> str:
        """Its name as it stands on labels and sheets, with the variant that lies on the table."""
        one = variants.shown(self.variants)
        return self.name if one is None else f"{self.name}: {one.name}"

    @property
    def variant(self) -> str:
        """The name of the variant on the table; empty where the style has none."""
        one = variants.shown(self.variants)
        return "" if one is None else one.name

    @property
    def every_variant(self) -> dict[str, Self]:
        """The style with each of its variants on the table, by their names; itself by its own name where it has none."""
        names = [one.name for one in self.variants]
        return {name: self.with_variant(name) for name in names} if names else {self.name: self}

    def with_variant(self, name: str) -> Self:
        """The style with another variant on the table. Raises KeyError for a name of none."""
        made, steps = variants.put_on_table(self.variants, self.steps, name)
        return self.model_copy(update={"variants": made, "steps": steps})

    def scope(self) -> Scope:
        """What formulas of this style are worked out against: its unit, and the measurements in mm."""
        measures = dict(self.block.measurements)
        bare = Scope(self.units)
        measures.update({name: length_mm(text, bare) for name, text in self.measures.items()})
        return Scope(self.units, measures)

    def body(self) -> dict[str, float]:
        """The measurements of its own body, mm."""
        return {name: mm for name, mm in self.scope().measures.items() if name in MEASUREMENTS}

    def sewing(self) -> Sewing:
        """How this style sews its darts."""
        return sewing_of(self.finish, self.scope())

    def checked(self) -> Self:
        """The style itself when its file could be opened again. Raises FileError otherwise: copies with changes are not looked
        at when they are made."""
        try:
            return self.model_validate(dict(self))
        except ValidationError as fault:
            raise FileError(files.faults(fault), advice="Change that and try again.") from None

    def with_steps(self, steps: tuple[Step, ...]) -> Self:
        """The style with other steps; what variants have in common with it changes in them as well."""
        return self.model_copy(update={"steps": steps, "variants": variants.changed(self.variants, self.steps, steps)})

    def with_finish(self, change: dict[str, Any]) -> Self:
        """The style with some finish options changed; mappings are merged, a value of None takes an entry out.

        Raises FormulaError or ValidationError when a new value is not one.
        """
        merged = _merged(self.finish.model_dump(mode="json", exclude_none=True), change)
        return self.model_copy(update={"finish": Finish.model_validate(merged)})


def _merged(old: dict[str, Any], change: dict[str, Any]) -> dict[str, Any]:
    found = dict(old)
    for key, value in change.items():
        if value is None:
            found.pop(key, None)
        elif isinstance(value, dict):
            found[key] = _merged(found.get(key, {}), value)
        else:
            found[key] = value
    return found


def read(path: FilePath) -> Style:
    """A style from a file, with its block; raises FileError in one line for anything that is not a sound style."""
    return from_value(files.read_json(path, KIND), files.shown(path), path.parent)


def from_value(value: dict[str, Any], where: str, folder: FilePath | None = None) -> Style:
    """A style from plain JSON. A block given by its path is read from `folder` and carried inside from then on."""
    known = files.header(value, KIND, where)
    value = dict(migrations.style(known))
    inside = value.get("block")
    if isinstance(inside, dict) and set(inside) == {"path"}:
        ref = files.validated(BlockRef, inside, f"{where}, block")
        value["block"] = block_file.read((folder or FilePath()) / ref.path)
    elif isinstance(inside, dict):
        value["block"] = block_file.from_value(inside, where)
    else:
        raise FileError("the style carries no block", where=where, advice="Give it a block, inside or by its path.")
    style = files.validated(Style, value, where)
    return style if known["version"] >= NAMED_BY_PLACE else _named_by_place(style)


def _named_by_place(style: Style) -> Style:
    """A style of a file that named the darts of its finish by their ids."""
    finish = style.finish
    darts = named_by_place(finish.darts, block_file.pattern(style.block), style.steps, style.scope())
    return style.model_copy(update={"finish": finish.model_copy(update={"darts": darts})})


def dump(style: Style) -> bytes:
    """The file's bytes: readable JSON, defaults of steps left out."""
    apart = {"steps", "finish", "variants", "accepted", "table", "pages", "lays", "printed"}
    value: dict[str, Any] = style.model_dump(mode="json", exclude=apart, exclude_none=True)
    value["steps"] = [registry.dump(step) for step in style.steps]
    value["variants"] = [_variant(one) for one in style.variants]
    value["accepted"] = [one.model_dump(mode="json") for one in style.accepted]
    value["table"] = style.table.model_dump(mode="json", exclude_defaults=True)
    value["pages"] = [one.model_dump(mode="json", exclude_defaults=True) for one in style.pages]
    value["lays"] = [one.model_dump(mode="json", exclude_defaults=True) for one in style.lays]
    value["printed"] = [one.model_dump(mode="json", exclude_defaults=True) for one in style.printed]
    for key in ("variants", "accepted", "table", "pages", "lays", "printed"):
        if not value[key]:
            del value[key]
    value["finish"] = style.finish.model_dump(mode="json", exclude_defaults=True, exclude_none=True)
    value["notes"] = value.pop("notes")
    return (json.dumps(value, indent=1, ensure_ascii=False) + "\n").encode()


def _variant(one: Variant) -> dict[str, Any]:
    kept = one.model_dump(mode="json", exclude={"steps"}, exclude_defaults=True)
    return kept if one.steps is None else {**kept, "steps": [registry.dump(step) for step in one.steps]}


def save(style: Style, path: FilePath) -> None:
    """The style written atomically, the version before kept as `NAME~`. Raises FileError when it cannot be."""
    content = dump(style)
    files.backup(path)
    files.write_atomic(path, content)


def from_block(block: BlockFile, name: str = "Untitled style") -> Style:
    """A new style over a block, with the allowances that the block asks for. What cannot stand in a name is left out of it."""
    plain = "".join(character for character in name if character.isprintable()).strip()
    laid = {f"{piece.name}.{edge}": f"{mm:g} mm" for piece in block.pieces for edge, mm in piece.allowances.items()}
    return Style(name=plain[:200] or "Untitled style", block=block, finish=Finish(allowances=laid) if laid else Finish())


def anonymous_steps(style: Style) -> str:
    """The steps of a style as they stand in its file, a line each, without the names that the user gave: for a fault report."""
    rows = []
    for number, step in enumerate(style.steps, start=1):
        value = registry.dump(step)
        value.pop("name", None)
        rows.append(f"{number} {json.dumps(value)}")
    return "\n".join(rows)
