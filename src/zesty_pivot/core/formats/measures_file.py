"""The measurement file (.zmeas): body measurements by name."""

from __future__ import annotations

from pathlib import Path as FilePath
from typing import Literal

from pydantic import Field

from zesty_pivot.core.formats import files
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.quantity import Scope, Unit, length_mm
from zesty_pivot.core.quantity.fields import Length, Model

KIND = "measures"


class Measures(Model):
    """A set of body measurements."""

    format: Literal["zesty-pivot/measures"] = "zesty-pivot/measures"
    version: Literal[1] = 1
    name: str = Field(default="", max_length=200)
    units: Unit = "cm"
    measures: dict[str, Length] = Field(description="by name: " + ", ".join(MEASUREMENTS))


def read(path: FilePath) -> dict[str, str]:
    """The measurements of a file as lengths with their unit (`"928 mm"`), ready for a style.

    Raises FileError when the file is not sound, FormulaError for a measurement that is no length.
    """
    found = files.validated(Measures, files.read_json(path, KIND), files.shown(path))
    return {name: f"{length_mm(text, Scope(found.units)):.6f} mm" for name, text in found.measures.items()}
