"""What the forms of steps share that let fullness in: the edge, where it begins, where the slashes lead."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.desk.forms.rows import ChoiceRow, PlaceRow, Row, ShareRow, edge_choices

HEADINGS = [("", "as usual"), ("centre", "to the centre"), ("side", "to the side"), ("up", "up"), ("down", "down")]
FAR_ENDS = [("", "as its edge wants it"), ("taken", "taken up there too"), ("free", "hangs free")]


def edges(_step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    """All edges of the piece; none is the lower one."""
    return [("", "the lower edge"), *([(edge, words(edge)) for edge, _role in piece.roles] if piece else [])]


def hinges(step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    """Where slashes can lead."""
    return [("", "straight across"), *((edge, f"the {title}: they radiate") for edge, title in edge_choices(step, piece))]


EDGE = ChoiceRow("edge", "Edge", lambda step: step.start is None, choices=edges)
START = PlaceRow("start", "First at", empty="where there is room")
TOWARDS = ChoiceRow("towards", "The others follow", choices=lambda _step, _piece: HEADINGS)

LEADING: tuple[Row, ...] = (
    ChoiceRow("to", "Slashes lead", choices=hinges),
    ShareRow("to_start", "First ends at, from the far end", lambda step: step.to is not None),
    ShareRow("to_stop", "Last ends at", lambda step: step.to is not None),
    ShareRow("far", "Left at the far end", empty="all; nothing where they radiate"),
    ChoiceRow("far_end", "At the far end", choices=lambda _step, _piece: FAR_ENDS),
)
