"""Actions of the view of a block by ruler."""

from __future__ import annotations

from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.model import RULER


def _here(desk: Desk) -> bool:
    return desk.model.view == RULER


def _drawn(desk: Desk) -> bool:
    return _here(desk) and bool(desk.views.intake.ruling.source.pieces)


def _begun(desk: Desk) -> bool:
    file = desk.views.intake.ruling.file if _here(desk) else None
    return file is not None and any(one is not None and (one.distances or one.items) for one in (file.front, file.back))


def actions() -> tuple[Action, ...]:
    """In the order of the work."""
    return (
        Action(
            "ruler.show", "Blocks", "Measure a block with a ruler…", "", lambda w: w.model.set_view(RULER),
            lambda w: w.model.view != RULER, "tape", "Distances on its paper make the block",
        ),
        Action("ruler.open", "Blocks", "Open a ruler's sheet…", "", lambda w: w.bodies.by_ruler.open(), _here),
        Action(
            "ruler.save", "Blocks", "Save the ruler's sheet…", "", lambda w: w.bodies.by_ruler.save(), _begun,
            tip="What was measured, to go on another time",
        ),
        Action(
            "ruler.begin_again", "Blocks", "Begin the ruler's sheet again", "",
            lambda w: w.views.intake.ruling.begin_again(), _begun,
            tip="An empty sheet; undo brings it back",
        ),
        Action(
            "ruler.finish", "Blocks", "Make a block of what was measured", "", lambda w: w.bodies.by_ruler.finish(), _drawn,
            "scissors", "Reads the outlines as a block",
        ),
    )  # fmt: skip
