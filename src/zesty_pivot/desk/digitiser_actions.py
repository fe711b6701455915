"""Actions of the digitiser's view."""

from __future__ import annotations

from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.model import DIGITISER


def _here(desk: Desk) -> bool:
    return desk.model.view == DIGITISER


def _traced(desk: Desk) -> bool:
    return _here(desk) and bool(desk.views.intake.digitising.presses)


def _playing(desk: Desk) -> bool:
    return _here(desk) and desk.views.intake.digitising.replay is not None


def actions() -> tuple[Action, ...]:
    """In the order of the work."""
    return (
        Action(
            "digitiser.show", "Blocks", "Trace with a digitiser…", "", lambda w: w.model.set_view(DIGITISER),
            lambda w: w.model.view != DIGITISER, tip="On a digitising table, or with the simulated one",
        ),
        Action(
            "digitiser.run", "Blocks", "Start or stop the digitiser", "F8", lambda w: w.bodies.tracing.run(), _here,
            tip="Opens the chosen line, or lets go of it",
        ),
        Action(
            "digitiser.to_end", "Blocks", "The rest of the replay at once", "",
            lambda w: w.views.intake.digitising.to_end(), _playing,
        ),
        Action(
            "digitiser.replay", "Blocks", "Replay a trace…", "", lambda w: w.bodies.tracing.replay(), _here,
            tip="What a digitiser sent, kept in a file",
        ),
        Action(
            "digitiser.device", "Blocks", "Another digitiser's file…", "", lambda w: w.bodies.tracing.add_device(), _here,
            tip="How a digitiser talks: a .zdigit file",
        ),
        Action("digitiser.back", "Blocks", "Take the last place back", "", lambda w: w.views.intake.digitising.back(), _traced),
        Action(
            "digitiser.begin_again", "Blocks", "Begin the trace again", "",
            lambda w: w.views.intake.digitising.begin_again(), _traced,
            tip="An empty table; undo brings it back",
        ),
        Action("digitiser.save", "Blocks", "Save this trace…", "", lambda w: w.bodies.tracing.save(), _traced,
               tip="To be replayed, or brought in again"),
        Action(
            "digitiser.finish", "Blocks", "Make a block of the trace", "", lambda w: w.bodies.tracing.finish(), _traced,
            "scissors", "Reads what was traced as a block",
        ),
    )  # fmt: skip
