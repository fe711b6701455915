"""The tag file (.ztags): what a person says of the pieces of an import, so that a script gets the same block every time."""

from __future__ import annotations

from pathlib import Path as FilePath
from typing import Literal

from pydantic import Field, field_validator

from zesty_pivot.core.errors import one_of
from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.block_file import Coordinate
from zesty_pivot.core.intake.hints import Hints, PieceHints
from zesty_pivot.core.intake.roles import LANDMARKS
from zesty_pivot.core.piece import Body
from zesty_pivot.core.quantity.fields import Model

KIND = "tags"
SUFFIX = ".ztags"
BODIES = {"front": Body.FRONT, "back": Body.BACK}


class TaggedPivot(Model):
    """A dart by its drawn point, and the place that it turns about, mm on the paper."""

    dart: Coordinate
    pivot: Coordinate


class TaggedPull(Model):
    """A place of the outline that was dragged elsewhere, mm on the paper."""

    at: Coordinate
    to: Coordinate


class TagPiece(Model):
    """What is said of one piece. Places are mm on the paper, x to the right and y down from where the file has them; what is
    left out is left to the program."""

    piece: int = Field(ge=1, le=100, description="its number from the left, from 1")
    leave_out: bool = Field(default=False, description="it is no part of the block")
    body: Literal["front", "back"] | None = None
    corners: dict[str, Coordinate] = Field(default_factory=dict, description="corners by landmark, such as neck_point")
    to_hip: bool | None = Field(default=None, description="whether its lower edge is a hem below the waist")
    bust_point: Coordinate | None = None
    waist: Coordinate | None = Field(default=None, description="a place at the waist of a hip-length piece")
    pivots: tuple[TaggedPivot, ...] = Field(default=(), max_length=20)
    no_darts: tuple[Coordinate, ...] = Field(default=(), max_length=20, description="points of what looks like a dart")
    on_fold: bool | None = None
    pulls: tuple[TaggedPull, ...] = Field(default=(), max_length=200, description="places of the outline that were corrected")
    grain: tuple[Coordinate, Coordinate] | None = None

    @field_validator("corners")
    @classmethod
    def _known(cls, value: dict[str, Coordinate]) -> dict[str, Coordinate]:
        for name in value:
            if name not in LANDMARKS:
                what, advice = one_of("corner", name, LANDMARKS)
                raise ValueError(f"{what}. {advice}")
        return value

    def hints(self) -> PieceHints:
        """The same as the tagging takes it."""
        return PieceHints(
            is_left_out=self.leave_out, body=BODIES[self.body] if self.body else None, corners=dict(self.corners),
            is_hip=self.to_hip, bust_point=self.bust_point, waist=self.waist,
            pulls=tuple((one.at, one.to) for one in self.pulls),
            pivots=tuple((one.dart, one.pivot) for one in self.pivots), no_darts=self.no_darts, is_on_fold=self.on_fold,
            grain=self.grain,
        )  # fmt: skip


class TagFile(Model):
    """What is said of the pieces of one import."""

    format: Literal["zesty-pivot/tags"] = "zesty-pivot/tags"
    version: Literal[1] = 1
    pieces: tuple[TagPiece, ...] = Field(max_length=100)

    def hints(self) -> Hints:
        """The same as the tagging takes it."""
        return Hints({one.piece - 1: one.hints() for one in self.pieces})


def of(hints: Hints) -> TagFile:
    """A tag file of what was said."""
    return TagFile(pieces=tuple(_piece(number, one) for number, one in sorted(hints.pieces.items())))


def _piece(number: int, hints: PieceHints) -> TagPiece:
    body = next((name for name, body in BODIES.items() if body is hints.body), None)
    return TagPiece(
        piece=number + 1, leave_out=hints.is_left_out, body=body, corners=dict(hints.corners),
        to_hip=hints.is_hip, bust_point=hints.bust_point, waist=hints.waist,
        pivots=tuple(TaggedPivot(dart=dart, pivot=pivot) for dart, pivot in hints.pivots), no_darts=hints.no_darts,
        on_fold=hints.is_on_fold, grain=hints.grain, pulls=tuple(TaggedPull(at=at, to=to) for at, to in hints.pulls),
    )  # fmt: skip


def read(path: FilePath) -> TagFile:
    """A tag file; raises FileError in one line for anything that is none."""
    return files.validated(TagFile, files.read_json(path, KIND), files.shown(path))


def from_bytes(name: str, content: bytes) -> TagFile:
    """The same from its content; raises FileError."""
    return files.validated(TagFile, files.parse_json(content.decode("utf-8", "replace"), KIND, name), name)


def dump(tags: TagFile) -> bytes:
    """The file's bytes."""
    return (tags.model_dump_json(indent=1, exclude_defaults=False, exclude_none=True) + "\n").encode()
