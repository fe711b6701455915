"""The method file (.zmethod): a way of drafting a block, as data.

Parameters, numbered operations over named points, and the block that comes out of them. Every name is looked up when the file
is read, so that a slip of the pen is told with its operation, not met in the middle of a draft.
"""

from collections.abc import Callable, Iterable, Sequence
from typing import ClassVar, Literal, Self, TypeVar

from pydantic import Field, field_validator, model_validator

from zesty_pivot.core.drafting.expression import Node, calls_in, names_in, parsed, statement
from zesty_pivot.core.drafting.operations import FIXED, OPERATIONS, SPECIAL
from zesty_pivot.core.errors import FormulaError, ZestyError, one_of
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.piece.sides import Body
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.quantity.fields import Model

KIND = "method"
SUFFIX = ".zmethod"
MAX_OPERATIONS = 300
ALWAYS = "always"

Made = TypeVar("Made")

Identifier = Field(min_length=1, max_length=40, pattern=r"^[A-Za-z_][A-Za-z_0-9]*$")
Words = Field(default="", max_length=600)


class Wording(Model):
    """One of the words that a parameter may have, and what it means."""

    word: str = Field(min_length=1, max_length=40, pattern=r"^[A-Za-z_0-9/]+$")
    title: str = Field(min_length=1, max_length=120)


class Parameter(Model):
    """A convention of a method that its user may set: a length or share with its range, or one of some words."""

    id: str = Identifier
    title: str = Field(min_length=1, max_length=120)
    kind: Literal["length", "share", "word"] = "length"
    default: str = Field(default="", max_length=200, description="a formula or word; none where it may be left out")
    low: str = Field(default="", max_length=200, description="the least that makes sense; a formula")
    high: str = Field(default="", max_length=200, description="the most that makes sense; a formula")
    choices: tuple[Wording, ...] = ()
    schools: tuple[str, ...] = Field(default=(), description="what other schools set")
    why: str = Words

    @model_validator(mode="after")
    def _whole(self) -> Self:
        if (self.kind == "word") != bool(self.choices):
            raise ValueError(f"{self.id}: a parameter of words has choices, any other has none")
        if self.choices and self.default not in {choice.word for choice in self.choices}:
            raise ValueError(f"{self.id}: the default {self.default!r} is none of its choices")
        for text in (self.low, self.high, *(() if self.kind == "word" else (self.default,))):
            if text:
                _reading(parsed, text, self.id)
        return self

    @property
    def is_optional(self) -> bool:
        """Whether it may be left out."""
        return not self.default


class Operation(Model):
    """One numbered operation: `do` is `name = expression`, over the points of the piece it is `on` and everything before it."""

    on: Literal["front", "back", "both", ""] = Field(default="", description="the piece; none for a value of the whole draft")
    do: str = Field(min_length=3, max_length=400)
    number: str = Field(
        default="", max_length=8, description="what the point is called on the paper, if not the running number"
    )
    title: str = Field(default="", max_length=120)
    when: str = Field(default="", max_length=300, description="it is done only under this condition")
    otherwise: str = Field(default="", max_length=400, description="the expression that stands in its place else")
    trues: str = Field(default="", max_length=40, description="the mark that this truing moves")
    kind: Literal["", "guide", "angle"] = Field(default="", description="a line that is no seam; a number told in degrees")
    why: str = Words

    @property
    def name(self) -> str:
        """The name that it makes."""
        return statement(self.do)[0]

    @property
    def expression(self) -> Node:
        """Its expression."""
        return statement(self.do)[1]


class Refusal(Model):
    """What must hold before anything is drawn, and what is said where it does not."""

    unless: str = Field(min_length=1, max_length=300)
    says: str = Field(min_length=1, max_length=300)
    measure: tuple[str, ...] = Field(default=(), description="measurements to take again")
    advice: str = Words


class MethodEdge(Model):
    """An edge of the resulting block: its strokes in loop order; those that were not drawn are left out."""

    id: str = Identifier
    role: Literal["neckline", "shoulder", "armhole", "side_seam", "waist", "hem", "centre"]
    strokes: tuple[str, ...] = Field(min_length=1)


class MethodDart(Model):
    """A dart of the resulting block: the ends of its mouth in loop order, its pivot, and the point it is sewn to."""

    id: str = Identifier
    edge: str = Identifier
    mouth: tuple[str, str]
    pivot: str = Identifier
    point: str = Identifier
    when: str = Field(default="", max_length=300)
    even: str = Field(default="", max_length=300, description="how far up from the mouth its legs are sewn side by side")


class MethodFishEye(Model):
    """A fish-eye of the resulting block; `point` is where it is sewn to above, if not to its top."""

    id: str = Identifier
    top: str = Identifier
    waist: tuple[str, str]
    bottom: str = Identifier
    point: str = ""


class MethodPiece(Model):
    """A piece of the resulting block."""

    name: Literal["front", "back"]
    fold: str = Field(
        default="", max_length=300, description="'always', or the condition under which the centre lies on the fold"
    )
    edges: tuple[MethodEdge, ...]
    darts: tuple[MethodDart, ...] = ()
    fisheyes: tuple[MethodFishEye, ...] = ()
    landmarks: dict[str, str] = Field(description="by landmark: the point")
    levels: dict[str, str] = Field(
        default_factory=dict, description="by level: a formula; left out where a name in it is missing"
    )
    allowances: dict[str, str] = Field(default_factory=dict, description="by edge: what is laid outside it; a formula")

    @property
    def body(self) -> Body:
        """The half of the body that it covers."""
        return Body(self.name)


class Method(Model):
    """A drafting method: from measurements to a block, operation by operation."""

    lines: ClassVar[frozenset[str]] = frozenset({"summary"})

    format: Literal["zesty-pivot/method"] = "zesty-pivot/method"
    version: Literal[1] = 1
    id: str = Identifier
    title: str = Field(min_length=1, max_length=120)
    summary: str = Field(default="", max_length=2000)
    units: Unit = "in"
    needs: tuple[str, ...] = Field(description="measurements without which nothing can be drawn")
    uses: tuple[str, ...] = Field(default=(), description="measurements that are used where they are known")
    parameters: tuple[Parameter, ...] = ()
    refusals: tuple[Refusal, ...] = ()
    remarks: tuple[Refusal, ...] = Field(default=(), description="what should hold of the body and the settings, but need not")
    operations: tuple[Operation, ...] = Field(min_length=1, max_length=MAX_OPERATIONS)
    pieces: tuple[MethodPiece, ...] = Field(min_length=1, max_length=2)

    @field_validator("needs", "uses")
    @classmethod
    def _known(cls, value: tuple[str, ...]) -> tuple[str, ...]:
        for name in value:
            if name not in MEASUREMENTS:
                raise ValueError(". ".join(one_of("measurement", name, MEASUREMENTS)))
        return value

    @model_validator(mode="after")
    def _names(self) -> Self:
        _Names(self).check()
        return self

    def parameter(self, id: str) -> Parameter:
        """A parameter by its id. Raises FormulaError with the near name."""
        for parameter in self.parameters:
            if parameter.id == id:
                return parameter
        what, advice = one_of("parameter", id, (parameter.id for parameter in self.parameters))
        raise FormulaError(what, where=self.id, advice=advice)


def _reading(read: Callable[[str], Made], text: str, where: str) -> Made:
    try:
        return read(text)
    except ZestyError as fault:
        raise ValueError(f"{where}: {fault}") from None


class _Names:
    """Looks whether every name is known where it is asked for."""

    def __init__(self, method: Method) -> None:
        self._method = method
        self._known = {*method.needs, *method.uses, *FIXED}

    def check(self) -> None:
        seen: set[str] = set()
        for parameter in self._method.parameters:
            if parameter.id in seen or parameter.id in MEASUREMENTS:
                raise ValueError(f"two things are called {parameter.id}")
            seen.add(parameter.id)
            if parameter.kind != "word":
                self._look([parameter.default, parameter.low, parameter.high], f"parameter {parameter.id}", "")
            self._known.add(parameter.id)
        for number, operation in enumerate(self._method.operations, 1):
            self._operation(operation, f"operation {number}")
        for refusal in (*self._method.refusals, *self._method.remarks):
            self._look([refusal.unless], f"the refusal {refusal.says!r}", "")
        for piece in self._method.pieces:
            self._piece(piece)

    def _operation(self, operation: Operation, where: str) -> None:
        name, node = _reading(statement, operation.do, where)
        bodies: tuple[str, ...] = ("front", "back") if operation.on == "both" else (operation.on,)
        for body in bodies:
            self._nodes([node], f"{where} ({name})", body)
            self._look([operation.when, operation.otherwise], f"{where} ({name})", body)
            full = f"{body}.{name}" if body else name
            if full in self._known:
                raise ValueError(f"{where}: there is a {full} already; give it another name")
            if operation.trues:
                self._ask(operation.trues, f"{where} ({name})", body)
        for body in bodies:
            self._known.add(f"{body}.{name}" if body else name)

    def _piece(self, piece: MethodPiece) -> None:
        where = f"the {piece.name}"
        points = [name for edge in piece.edges for name in edge.strokes]
        points += [name for dart in piece.darts for name in (*dart.mouth, dart.point)]
        points += [
            name for eye in piece.fisheyes for name in (eye.top, *eye.waist, eye.bottom, *([eye.point] if eye.point else []))
        ]
        for name in (*points, *piece.landmarks.values()):
            self._ask(name, where, piece.name)
        for dart in piece.darts:
            if dart.pivot not in piece.landmarks:
                raise ValueError(f"{where}: the {dart.id} dart's pivot {dart.pivot!r} is no landmark")
            self._look([dart.when, dart.even], where, piece.name)
        self._look(
            ["" if piece.fold == ALWAYS else piece.fold, *piece.levels.values(), *piece.allowances.values()], where, piece.name
        )

    def _look(self, texts: Iterable[str], where: str, body: str) -> None:
        self._nodes([_reading(parsed, text, where) for text in texts if text], where, body)

    def _nodes(self, nodes: Sequence[Node], where: str, body: str) -> None:
        for node in nodes:
            for call in calls_in(node):
                if call.name not in OPERATIONS and call.name not in SPECIAL:
                    raise ValueError(f"{where}: {'. '.join(one_of('operation', call.name, (*OPERATIONS, *SPECIAL)))}")
            for name in names_in(node):
                self._ask(name, where, body)

    def _ask(self, name: str, where: str, body: str) -> None:
        if name not in self._known and f"{body}.{name}" not in self._known:
            known = (found.removeprefix(f"{body}.") for found in self._known)
            raise ValueError(f"{where}: {'. '.join(one_of('name', name, known))}")
