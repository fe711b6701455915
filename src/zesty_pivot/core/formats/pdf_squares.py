"""The calibration squares of a print: ten centimetres and four inches."""

from __future__ import annotations

from zesty_pivot.core.formats.pdf_paper import Paper

SQUARE_CM = 100.0  # mm, the 10 cm calibration square
SQUARE_IN = 101.6  # mm, the 4 in calibration square


def squares_wide() -> float:
    """How wide both are side by side, mm."""
    return SQUARE_CM + SQUARE_IN + 15.0


def squares(paper: Paper, x: float, y: float) -> None:
    """Both side by side."""
    paper.look(0.2)
    paper.rect(x, y, SQUARE_CM, SQUARE_CM)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2, "10 cm", 5.0)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2 + 7.0, "measure before you cut", 3.5)
    right = x + SQUARE_CM + 15.0
    paper.rect(right, y, SQUARE_IN, SQUARE_IN)
    paper.text(right + SQUARE_IN / 2, y + SQUARE_IN / 2, "4 in", 5.0)


def nested(paper: Paper, x: float, y: float) -> None:
    """Both from one corner, where there is no room side by side."""
    paper.look(0.2)
    paper.rect(x, y, SQUARE_CM, SQUARE_CM)
    paper.rect(x, y, SQUARE_IN, SQUARE_IN)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2, "inner square 10 cm", 4.5)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2 + 7.0, "outer square 4 in", 4.5)
    paper.text(x + SQUARE_CM / 2, y + SQUARE_CM / 2 + 14.0, "measure before you cut", 3.5)
