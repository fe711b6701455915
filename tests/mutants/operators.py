"""What is changed: signs, limits, ends, sides, branches and notes, each at one place of one function."""

from __future__ import annotations

import ast
import copy
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

ENDS = {
    "start": "end", "end": "start", "start_direction": "end_direction", "end_direction": "start_direction",
    "u0": "u1", "u1": "u0", "before_mm": "after_mm", "after_mm": "before_mm", "LEFT": "RIGHT", "RIGHT": "LEFT",
    "FRONT": "BACK", "BACK": "FRONT", "open_mm": "sewn_mm", "sewn_mm": "open_mm", "a_mm": "b_mm", "b_mm": "a_mm",
}  # fmt: skip
NAMES = {"min": "max", "max": "min", "any": "all", "all": "any"}
FLIPPED = {ast.Lt: ast.Gt, ast.Gt: ast.Lt, ast.LtE: ast.Gt, ast.GtE: ast.Lt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq}
SIGNS = {ast.Add: ast.Sub, ast.Sub: ast.Add}
MOVED = 1.5  # a limit is moved by this factor

Change = Callable[[ast.AST], None]


@dataclass(frozen=True)
class Mutation:
    """One change: the module's file, the outermost function (its name with its class, and its line), what is done, the line
    and the how-manieth place of the function it is done at."""

    file: str
    function: str
    first_line: int
    kind: str
    line: int
    number: int

    @property
    def id(self) -> str:
        """How it is called on the command line and in docs/mutants.md."""
        return f"{self.file}:{self.function}:{self.kind}:{self.number}"

    @property
    def folder(self) -> str:
        """The folder of the core that it is in."""
        return self.file.partition("/")[0]


def _sites(node: ast.AST) -> Iterator[tuple[str, Change]]:
    """The changes that can be made to a node itself."""
    match node:
        case ast.BinOp(op=op) if type(op) in SIGNS and not isinstance(node.left, ast.JoinedStr | ast.Constant):
            yield "sign", lambda n: setattr(n, "op", SIGNS[type(n.op)]())
        case ast.UnaryOp(op=ast.USub(), operand=operand) if not isinstance(operand, ast.Constant) or operand.value != 1:
            yield "sign", lambda n: setattr(n, "op", ast.UAdd())
        case ast.Compare(ops=[op]) if type(op) in FLIPPED:
            yield "limit", lambda n: setattr(n, "ops", [FLIPPED[type(n.ops[0])]()])
        case ast.Attribute(attr=attr) if attr in ENDS:
            yield "ends", lambda n: setattr(n, "attr", ENDS[n.attr])
        case ast.Call(func=ast.Name(id=name)) if name in NAMES and len(node.args) + len(node.keywords) > 0:
            yield "ends", lambda n: setattr(n.func, "id", NAMES[n.func.id])
        case ast.Subscript(slice=ast.Constant(value=0), ctx=ast.Load()):
            yield "ends", lambda n: setattr(n, "slice", ast.UnaryOp(ast.USub(), ast.Constant(1)))
        case ast.IfExp():
            yield "branch", lambda n: setattr(n, "test", ast.UnaryOp(ast.Not(), n.test))
        case ast.If(test=test) if not _refuses(node):
            yield "branch", lambda n, test=test: setattr(n, "test", ast.UnaryOp(ast.Not(), test))
        case ast.Call(func=ast.Name(id="Outcome"), args=[_, _]):
            yield "note", lambda n: n.args.pop()
        case ast.Expr(value=ast.Call(func=ast.Attribute(attr="append", value=ast.Name(id="notes")))):
            yield "note", lambda n: setattr(n, "value", ast.Constant(None))


def _refuses(node: ast.If) -> bool:
    """Whether a branch only raises: turned round, everything would be refused, and anything notices that."""
    return all(isinstance(part, ast.Raise | ast.Assign) for part in node.body) and isinstance(node.body[-1], ast.Raise)


def _skipped(node: ast.AST) -> bool:
    """What is not behaviour: words of a refusal, annotations, docstrings."""
    return isinstance(node, ast.Raise | ast.arguments | ast.JoinedStr)


def _walk(node: ast.AST) -> Iterator[ast.AST]:
    for child in ast.iter_child_nodes(node):
        if not _skipped(child):
            yield child
            yield from _walk(child)


def _functions(tree: ast.Module) -> Iterator[tuple[str, ast.FunctionDef]]:
    """The outermost functions, with the names that code objects have."""
    for node in tree.body:
        if isinstance(node, ast.FunctionDef):
            yield node.name, node
        elif isinstance(node, ast.ClassDef):
            for part in node.body:
                if isinstance(part, ast.FunctionDef):
                    yield f"{node.name}.{part.name}", part


def mutations(core: Path) -> list[Mutation]:
    """Every mutation of the core, in a fixed order."""
    found: list[Mutation] = []
    for path in sorted(core.rglob("*.py")):
        file = path.relative_to(core).as_posix()
        for name, function in _functions(ast.parse(path.read_text())):
            number = 0
            for node in _walk(function):
                for kind, _change in _sites(node):
                    found.append(Mutation(file, name, function.lineno, kind, getattr(node, "lineno", 0), number))
                    number += 1
    return found


def mutated(core: Path, mutation: Mutation) -> ast.Module:
    """The module with the change made."""
    tree = ast.parse((core / mutation.file).read_text())
    function = next(node for name, node in _functions(tree) if name == mutation.function and node.lineno == mutation.first_line)
    number = 0
    for node in list(_walk(function)):
        for _kind, change in list(_sites(node)):
            if number == mutation.number:
                before = copy.deepcopy(node)
                change(node)
                assert ast.dump(before) != ast.dump(node)
                return ast.fix_missing_locations(tree)
            number += 1
    raise LookupError(mutation.id)
