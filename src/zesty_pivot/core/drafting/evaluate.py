"""What an expression is worth where it stands: in a piece, with the names made so far."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping

from zesty_pivot.core.drafting.expression import COMPARISONS, Call, Literal, Name, Node, Pair, Sign, WordNode
from zesty_pivot.core.drafting.operations import FIXED, OPERATIONS, SPECIAL
from zesty_pivot.core.drafting.values import Number, Point, Value, kind_of
from zesty_pivot.core.errors import FormulaError, one_of
from zesty_pivot.core.quantity.formula import MAX_LENGTH_MM
from zesty_pivot.core.record import record


@record
class Surroundings:
    """The names that an expression may ask for, and the piece whose names need no piece before them."""

    names: Mapping[str, Value]
    piece: str = ""

    def key(self, name: str) -> str | None:
        """The full name of a name said here, or None where there is none."""
        own = f"{self.piece}.{name}"
        return own if own in self.names else name if name in self.names else None

    def value(self, name: str) -> Value:
        """What a name stands for; `tip.x` is a coordinate. Raises FormulaError with the near name."""
        key = self.key(name)
        if key is not None:
            return self.names[key]
        base, dot, coordinate = name.rpartition(".")
        if dot and coordinate in ("x", "y") and (key := self.key(base)) is not None:
            point = self.names[key]
            if isinstance(point, Point):
                return Number(point.x if coordinate == "x" else point.y, 1)
        if name in FIXED:
            return FIXED[name]
        what, advice = one_of("name", name, (known.removeprefix(f"{self.piece}.") for known in self.names))
        raise FormulaError(what, advice=advice)


def worth(node: Node, around: Surroundings) -> Value:
    """The value of an expression. Raises FormulaError for what does not fit, GeometryError for what cannot be drawn."""
    if isinstance(node, Literal):
        return Number(node.amount, node.power)
    if isinstance(node, WordNode):
        return node.word
    if isinstance(node, Name):
        return around.value(node.name)
    if isinstance(node, Sign):
        return _signed(node, around)
    if isinstance(node, Pair):
        return _paired(node, around)
    return _called(node, around)


def number(node: Node, around: Surroundings, power: int = 1) -> float:
    """A length in mm (or a plain number, with power 0). Raises FormulaError for anything else, or one that is not finite."""
    found = worth(node, around)
    if not isinstance(found, Number) or found.power != power:
        raise FormulaError(f"a {kind_of(found)} where a {'length' if power else 'plain number'} should stand")
    if not math.isfinite(found.amount) or abs(found.amount) > MAX_LENGTH_MM:
        raise FormulaError("this comes to no length of any garment", advice="Check the units and the divisions.")
    return found.amount


def holds(node: Node, around: Surroundings) -> bool:
    """Whether a condition holds. Raises FormulaError where it is none."""
    found = worth(node, around)
    if not isinstance(found, bool):
        raise FormulaError(f"a {kind_of(found)} where a condition should stand")
    return found


def branch(node: Node, around: Surroundings) -> Node:
    """The branch of an `if` that is taken; any other expression itself."""
    while isinstance(node, Call) and node.name == "if" and len(node.arguments) == 3:
        node = node.arguments[1 if holds(node.arguments[0], around) else 2]
    return node


def _signed(node: Sign, around: Surroundings) -> Value:
    if node.sign == "not":
        return not holds(node.inner, around)
    found = worth(node.inner, around)
    if not isinstance(found, Number):
        raise FormulaError(f"a minus before a {kind_of(found)}")
    return Number(-found.amount, found.power)


def _paired(node: Pair, around: Surroundings) -> Value:
    if node.sign == "and":
        return holds(node.left, around) and holds(node.right, around)
    if node.sign == "or":
        return holds(node.left, around) or holds(node.right, around)
    left, right = worth(node.left, around), worth(node.right, around)
    if node.sign in ("==", "!=") and isinstance(left, str) and isinstance(right, str):
        return (left == right) == (node.sign == "==")
    if not isinstance(left, Number) or not isinstance(right, Number):
        raise FormulaError(f"{kind_of(left)} {node.sign} {kind_of(right)} cannot be worked out")
    if node.sign in COMPARISONS:
        _same_power(node.sign, left, right)
        return _COMPARED[node.sign](left.amount, right.amount)
    if node.sign in "+-":
        _same_power(node.sign, left, right)
        power = right.power if left.amount == 0.0 else left.power
        return Number(left.amount + right.amount if node.sign == "+" else left.amount - right.amount, power)
    if node.sign == "*":
        return Number(left.amount * right.amount, left.power + right.power)
    if right.amount == 0.0:
        raise FormulaError("a division by zero", advice="Check the formula's divisor.")
    return Number(left.amount / right.amount, left.power - right.power)


_COMPARED: Mapping[str, Callable[[float, float], bool]] = {
    "<": lambda a, b: a < b, "<=": lambda a, b: a <= b, ">": lambda a, b: a > b, ">=": lambda a, b: a >= b,
    "==": lambda a, b: a == b, "!=": lambda a, b: a != b,
}  # fmt: skip


def _same_power(sign: str, left: Number, right: Number) -> None:
    """A bare nought is a length or a number, as is wanted; anything else must be of one dimension."""
    if left.power != right.power and 0.0 not in (left.amount, right.amount):
        what = f"{kind_of(left)} {sign} {kind_of(right)}"
        raise FormulaError(what, advice="Give every number its unit, such as 2 cm.")


def _called(node: Call, around: Surroundings) -> Value:
    if node.name == "if":
        _count(node, 3, 3)
        return worth(branch(node, around), around)
    if node.name == "has":
        _count(node, 1, 1)
        asked = node.arguments[0]
        return isinstance(asked, Name) and around.key(asked.name) is not None
    operation = OPERATIONS.get(node.name)
    if operation is None:
        what, advice = one_of("operation", node.name, (*OPERATIONS, *SPECIAL))
        raise FormulaError(what, advice=advice)
    many = operation.takes[-1].endswith("*")
    _count(node, len(operation.takes) - many, None if many else len(operation.takes))
    values = [worth(argument, around) for argument in node.arguments]
    for index, value in enumerate(values):
        values[index] = _fitting(value, operation.takes[min(index, len(operation.takes) - 1)].rstrip("*"), node.name)
    return operation.does(*values)


def _count(node: Call, least: int, most: int | None) -> None:
    count = len(node.arguments)
    if count < least or (most is not None and count > most):
        wanted = str(least) if most == least else f"at least {least}"
        raise FormulaError(f"{node.name} takes {wanted} arguments, not {count}", advice="Look at the list of operations.")


def _fitting(value: Value, wanted: str, name: str) -> Value:
    """An argument of the kind that is wanted; a bare nought serves as a length."""
    is_number = isinstance(value, Number)
    if wanted == "quantity" and is_number:
        return value
    if is_number and isinstance(value, Number) and wanted in ("length", "number"):
        if value.power == (wanted == "length") or value.amount == 0.0:
            if not math.isfinite(value.amount):
                raise FormulaError(f"{name} is given no finite number", advice="Check the divisions.")
            return Number(value.amount, int(wanted == "length"))
    elif kind_of(value) in wanted.split(" or "):
        return value
    raise FormulaError(
        f"{name} is given a {kind_of(value)} where a {wanted} should stand", advice="Look at the list of operations."
    )
