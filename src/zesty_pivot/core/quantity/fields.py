"""Field types for files and steps: a length or a share keeps what was written, a formula stays a formula."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, FiniteFloat

from zesty_pivot.core.quantity.formula import readable, share_of


def _not_bool(value: object) -> object:
    if isinstance(value, bool):
        raise ValueError("true and false are no numbers")
    return value


Length = Annotated[
    FiniteFloat | str,
    BeforeValidator(_not_bool),
    AfterValidator(readable),
    Field(description="A length: a number in the file's unit, or a formula such as '5 1/4 in' or 'bust/12'."),
]


def _shared(value: str | float) -> str | float:
    share_of(value)
    return value


Share = Annotated[
    FiniteFloat | str,
    BeforeValidator(_not_bool),
    AfterValidator(_shared),
    Field(description="A share or fraction: '55%' or 0.55."),
]


class Model(BaseModel):
    """Root of everything read from a file: frozen, no unknown fields, numbers finite."""

    # Building a model when it is first used keeps a cold start short.
    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, populate_by_name=True, defer_build=True)
