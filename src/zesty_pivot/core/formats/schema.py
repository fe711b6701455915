"""JSON Schemas of our files, as `zesty-pivot schema` prints them."""

from __future__ import annotations

from typing import Any

from pydantic import TypeAdapter

from zesty_pivot.core.drafting.method import Method
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.measures_file import Measures
from zesty_pivot.core.formats.report import Report
from zesty_pivot.core.formats.ruled import RulerFile
from zesty_pivot.core.formats.style_file import BlockRef, Style
from zesty_pivot.core.formats.tag_file import TagFile
from zesty_pivot.core.intake.digitiser.device import Device
from zesty_pivot.core.steps.registry import all_steps

KINDS = ("style", "block", "report", "measures", "method", "tags", "ruler", "digitiser")


def schema(kind: str) -> dict[str, Any]:
    """The JSON Schema of one kind of file. Raises KeyError for a kind that is not in KINDS."""
    models: dict[str, type[Any]] = {
        "style": Style,
        "block": BlockFile,
        "report": Report,
        "measures": Measures,
        "method": Method,
        "tags": TagFile,
        "ruler": RulerFile,
        "digitiser": Device,
    }
    found: dict[str, Any] = TypeAdapter(models[kind]).json_schema(by_alias=True)
    if kind in ("style", "block"):
        _with_method(found)
    if kind == "style":
        _with_steps(found)
    return found


def _with_method(found: dict[str, Any]) -> None:
    """A block's own method, which the model reads in code."""
    definitions = found["$defs"]
    own = Method.model_json_schema(by_alias=True, ref_template="#/$defs/{model}")
    definitions.update(own.pop("$defs"))
    definitions["Method"] = own
    del definitions["Model"]
    block = definitions.get("BlockFile", found)
    block["properties"]["own_method"]["anyOf"][0] = {"$ref": "#/$defs/Method"}


def _with_steps(found: dict[str, Any]) -> None:
    """The steps' own parameters, and the block by its path, which the models read in code."""
    definitions = found.setdefault("$defs", {})
    names = []
    for do, step in all_steps().items():
        own = step.model_json_schema(by_alias=True, ref_template="#/$defs/{model}")
        definitions.update(own.pop("$defs", {}))
        definitions[do] = own
        names.append({"$ref": f"#/$defs/{do}"})
    found["properties"]["steps"]["items"] = {"oneOf": names}
    own_steps = definitions["Variant"]["properties"]["steps"]
    for way in own_steps.get("anyOf", [own_steps]):
        if "items" in way:
            way["items"] = {"oneOf": names}
    definitions["BlockRef"] = BlockRef.model_json_schema()
    found["properties"]["block"] = {"oneOf": [{"$ref": "#/$defs/BlockFile"}, {"$ref": "#/$defs/BlockRef"}]}
    for name in ("format", "version"):
        found.setdefault("required", []).insert(0, name)
