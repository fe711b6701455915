"""A draft: a method's operations done one after the other with the measurements of one person."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping
from typing import Literal

from zesty_pivot.core.drafting.evaluate import Surroundings, holds, worth
from zesty_pivot.core.drafting.expression import Name, Node, names_in, parsed
from zesty_pivot.core.drafting.method import Method, Operation, Refusal
from zesty_pivot.core.drafting.settings import Settings, resolved
from zesty_pivot.core.drafting.values import Inked, Number, Point, Value
from zesty_pivot.core.drafting.words import Teller
from zesty_pivot.core.errors import FormulaError, GeometryError, ZestyError
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.measure import BY_NAME
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import record

CENTRES = {"front": "CF", "back": "CB", "": "the centre"}
NOTHING = 0.005  # mm: a truing that moves less than a hundredth has nothing to tell; files keep six decimals


class DraftError(ZestyError, ValueError):
    """A draft that cannot be drawn: the operation, its formula and values; or a body that no block fits, and why."""


@record
class Truing:
    """What a truing moved: the mark, by how much (mm), and whether it was refused."""

    mark: str
    amount: float
    is_refused: bool


@record(eq=False)
class Done:
    """One operation, done: its number in the method, the piece, the name it made and what that is worth.

    `node` is the expression that was worked out.
    """

    number: int
    piece: str
    operation: Operation
    node: Node
    value: Value
    truing: Truing | None = None

    @property
    def name(self) -> str:
        """The full name: `back.tip`, or `chest` for a value of the whole draft."""
        return f"{self.piece}.{self.operation.name}" if self.piece else self.operation.name

    @property
    def title(self) -> str:
        """What it is called: its title, else its name."""
        return self.operation.title or self.operation.name.replace("_", " ")

    @property
    def is_drawn(self) -> bool:
        """Whether a person has anything to do for it: not for a condition, a word, a direction, or a nought."""
        if isinstance(self.value, Number):
            return self.value.amount != 0.0
        return isinstance(self.value, Point | Inked)

    @property
    def kind(self) -> Literal["value", "point", "line"]:
        """What it puts on the paper."""
        return "point" if isinstance(self.value, Point) else "line" if isinstance(self.value, Inked) else "value"


@record(eq=False)
class Draft:
    """All operations of a draft in order, and every name with its value."""

    method: Method
    settings: Settings
    measures: Mapping[str, float]
    done: tuple[Done, ...]
    names: Mapping[str, Value]

    def value(self, piece: str, name: str) -> Value | None:
        """What a name of a piece stands for, or None where its operation was left out."""
        around = Surroundings(self.names, piece)
        key = around.key(name)
        return None if key is None else self.names[key]

    @property
    def truings(self) -> Iterator[Done]:
        """The truings, each with its amount."""
        return (done for done in self.done if done.truing is not None)

    @cached_property
    def shown(self) -> tuple[Done, ...]:
        """The operations that a person does: without conditions, directions, and what left things as they are."""
        return tuple(done for done in self.done if done.is_drawn and done.name not in self._same_as)

    @cached_property
    def _by_name(self) -> dict[str, Done]:
        return {done.name: done for done in self.done}

    @cached_property
    def _same_as(self) -> dict[str, Done]:
        """By the name of a point that is another point: the first of them."""
        found: dict[str, Done] = {}
        by_name = self._by_name
        for done in self.done:
            source = done.operation.trues or (done.node.name if isinstance(done.node, Name) else "")
            key = Surroundings(self.names, done.piece).key(source) if source and done.kind == "point" else None
            if key in by_name and (done.truing is None or done.truing.amount <= NOTHING):
                found[done.name] = found.get(by_name[key].name, by_name[key])
        return found

    @cached_property
    def _titles(self) -> dict[str, tuple[str, str]]:
        """By full name: the title and the label on the paper. A mark that nothing moves is called what it ends as."""
        titles = {done.name: done.title for done in self.done}
        for name, first in self._same_as.items():
            titles[first.name] = titles[name]
        numbers = {done.name: str(number) for number, done in enumerate(self.shown, 1)}
        own = {done.name: done.operation.number or numbers.get(done.name, "") for done in self.done}
        labels = {done.name: own[self._same_as.get(done.name, done).name] for done in self.done}
        return {done.name: (titles[self._same_as.get(done.name, done).name], labels[done.name]) for done in self.done}

    def title(self, done: Done) -> str:
        """What an operation's point, line or value is called."""
        return self._titles[done.name][0]

    def label(self, done: Done) -> str:
        """The number that it has on the paper: the running one, or the method's own."""
        return self._titles[done.name][1]

    def teller(self, piece: str, unit: Unit) -> Teller:
        """What tells the expressions of a piece."""

        def called(name: str) -> str:
            done = self._by_name.get(name)
            if done is None:
                return name
            title, label = self._titles[name]
            other = f" of the {done.piece}" if done.piece and done.piece != piece else ""
            return f"{title} ({label}){other}" if done.kind == "point" else f"{title}{other}"

        return Teller(Surroundings(self.names, piece), unit, called, CENTRES[piece])

    def instruction(self, done: Done, unit: Unit) -> str:
        """One operation as it is written for people, with the arithmetic: `Chest line: 2.5 + 98/6 + 3.8 = 22.6 cm`."""
        teller, title = self.teller(done.piece, unit), capital(self.title(done))
        if isinstance(done.value, Number):
            if done.operation.kind == "angle":
                return f"{title}: {math.degrees(done.value.amount):.1f}°"
            return f"{title}: {teller.sum(done.node)}"
        if done.truing is not None and done.truing.is_refused:
            return f"{title}: left where it was marked"
        text = f"{title}: {teller.deed(done.node)}"
        if isinstance(done.value, Inked) and done.operation.kind != "guide":
            text += f", {format_length(done.value.path.length, unit)} long"
        if done.truing is not None and done.truing.amount > NOTHING:
            text += f"; moved by {format_length(done.truing.amount, unit, fine=True)}"
        return text


def draft(method: Method, measures: Mapping[str, float], settings: Settings) -> Draft:
    """Draws a method with measurements in mm and what was set of its parameters.

    Raises DraftError for a missing measurement, a body that the method refuses, and an operation that cannot be done (with its
    number, formula and values); FormulaError for a parameter that cannot be worked out.
    """
    missing = [name for name in method.needs if name not in measures]
    if missing:
        listed = ", ".join(BY_NAME[name].short for name in missing)
        advice = "Measure it." if len(missing) == 1 else "Measure them."
        raise DraftError(f"{listed} {'is' if len(missing) == 1 else 'are'} missing", where=method.title, advice=advice)
    names = resolved(method, settings, measures)
    found: list[Done] = []
    waiting = refuse(method.title, method.refusals, names)
    for number, operation in enumerate(method.operations, 1):
        if waiting:
            waiting = refuse(method.title, waiting, names)
        for piece in ("back", "front") if operation.on == "both" else (operation.on,):
            done = _do(method, operation, number, piece, names)
            if done is not None:
                found.append(done)
                names[done.name] = done.value
    return Draft(method, dict(settings), dict(measures), tuple(found), names)


def refuse(title: str, refusals: Iterable[Refusal], names: Mapping[str, Value]) -> tuple[Refusal, ...]:
    """Raises DraftError for the first thing that must hold of a body and does not; those that hang on names which are not known
    yet are given back. One on a measurement that was not taken never holds anybody up."""
    around, waiting = Surroundings(names), []
    for refusal in refusals:
        node = parsed(refusal.unless)
        if any(around.key(name) is None for name in names_in(node)):
            waiting.append(refusal)
            continue
        try:
            is_so = holds(node, around)
        except (FormulaError, GeometryError) as fault:
            raise DraftError(fault.what, where=f"{title}, {refusal.unless}", advice=fault.advice) from None
        if not is_so:
            asked = ", ".join(BY_NAME[name].short for name in refusal.measure)
            advice = refusal.advice or (f"Measure again: {asked}." if asked else "")
            raise DraftError(f"{refusal.says} ({_values(node, around, in_words=True)})", where=title, advice=advice)
    return tuple(waiting)


def _do(method: Method, operation: Operation, number: int, piece: str, names: Mapping[str, Value]) -> Done | None:
    around = Surroundings(names, piece)
    node = operation.expression
    try:
        is_refused = False
        if operation.when and not holds(parsed(operation.when), around):
            if not operation.otherwise:
                return None
            node, is_refused = parsed(operation.otherwise), bool(operation.trues)
        value = worth(node, around)
        _finite(value)
    except ZestyError as fault:
        where = f"{method.title}, operation {number}, {piece + ' ' if piece else ''}{operation.do}"
        with_ = _values(node, around)
        advice = fault.advice or "Measure again, or set another convention."
        raise DraftError(f"{fault.what}{f', with {with_}' if with_ else ''}", where=where, advice=advice) from None
    truing = None
    if operation.trues and isinstance(value, Point):
        mark = around.value(operation.trues)
        if isinstance(mark, Point):
            truing = Truing(operation.trues, math.dist(mark.at, value.at), is_refused)
    return Done(number, piece, operation, node, value, truing)


def _finite(value: Value) -> None:
    amounts = (value.x, value.y) if isinstance(value, Point) else (value.amount,) if isinstance(value, Number) else ()
    if not all(math.isfinite(amount) and abs(amount) < 1e6 for amount in amounts):
        raise FormulaError("this comes to no place on any paper", advice="Check the units and the divisions.")


def _values(node: Node, around: Surroundings, *, in_words: bool = False) -> str:
    """The names of an expression with their values, for a message: `bust = 98.0 cm, tip = (18.9, 2.5) cm`; in words `full bust
    98.0 cm`, as a formula is not shown beside them."""
    told: list[str] = []
    for name in dict.fromkeys(names_in(node)):
        key = around.key(name)
        value = around.names[key] if key is not None else None
        if isinstance(value, Number) and value.power == 1:
            title = BY_NAME[name].short if name in BY_NAME else name.replace("_", " ")
            called = title if in_words else f"{name} ="
            told.append(f"{called} {format_length(value.amount, 'cm')}")
        elif isinstance(value, Number):
            told.append(f"{name} = {value.amount:.4g}")
        elif isinstance(value, Point):
            told.append(f"{name} = ({value.x / 10.0:.1f}, {value.y / 10.0:.1f}) cm")
    return ", ".join(told)
