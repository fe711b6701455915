"""Sentences that a user can see are said the way docs/words.md asks for."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
SRC = ROOT / "src" / "zesty_pivot"

FORBIDDEN = re.compile(
    r"\b(over|below|less than|more than|by|of) nothing\b|\bnot\b.*\bany more\b|\ball that asks\b|\bgoes round no\b"
    r"|\bis no (half|share|mouth|line|number)\b|\bso (low|wide|narrow) a\b",
    re.IGNORECASE,
)


def sentences(path: Path) -> Iterator[tuple[int, str]]:
    """The texts of a module that are no docstrings, with their lines."""
    tree = ast.parse(path.read_text())
    docs = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef) and node.body and isinstance(node.body[0], ast.Expr)
    }
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in docs:
            yield node.lineno, node.value


@pytest.mark.parametrize("path", sorted(SRC.rglob("*.py")), ids=lambda path: path.relative_to(SRC).as_posix())
def test_no_sentence_is_a_riddle(path: Path) -> None:
    assert [(line, text) for line, text in sentences(path) if FORBIDDEN.search(text)] == []


def test_the_guide_speaks_alike() -> None:
    for path in [*sorted((ROOT / "docs" / "guide").glob("*.md")), ROOT / "README.md"]:
        assert not FORBIDDEN.search(path.read_text()), path.name


def test_the_rule_can_fail() -> None:
    for text in ("a blend over nothing", "Less than nothing", "A sleeve does not fit it any more"):
        assert FORBIDDEN.search(text)
    assert not FORBIDDEN.search("the blend must be longer than 0")
