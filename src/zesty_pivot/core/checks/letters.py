"""24: a letter on a label that none of the program's fonts has: it would be printed as a sign for something unknown."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.lettering import missing
from zesty_pivot.core.piece import dart_words
from zesty_pivot.core.piece.names import words


def _run(look: Look) -> Iterable[Finding]:
    finish = look.finish
    texts = [("the style's name", "", look.style), ("the size", "", finish.size), ("the cloth", "", finish.cloth)]
    texts.append(("the date", "", finish.date))
    for piece in look.pattern.with_extras:
        names = " ".join(
            [
                words(piece.name),
                *(dart_words(piece, dart.id) for dart in piece.darts),
                *(words(edge) for edge, _r in piece.roles),
            ]
        )
        texts.append((f"a name of the {words(piece.name)}", piece.name, names))
    for what, piece_name, text in texts:
        unknown = missing(text)
        if unknown:
            yield Finding(
                "letters", Severity.WARNING, piece_name, what, f"{what} holds {unknown[:12]}, which no font of the program has",
                float(len(unknown)), 0.0, "letters", "It would print as an empty box: write it another way.",
            )  # fmt: skip


CHECK = Check("letters", "What is written can be printed", _run)
