"""The title block of a style: what stands on its sheets beside the pattern."""

from __future__ import annotations

from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.quantity import share_of

NOTES = 160  # characters of the notes


def title_rows(style: Style) -> tuple[tuple[str, str], ...]:
    """What there is to say, each with its name: style, season, client, size, cloth, stretch, date, notes."""
    finish = style.finish
    stretch = share_of(finish.stretch)
    notes = " ".join(style.notes.split())
    rows = (
        ("Style", style.title), ("Season", finish.season), ("Client or size", finish.client), ("Size", finish.size),
        ("Cloth", finish.cloth), ("Stretch", f"{100.0 * stretch:.4g} %" if stretch else ""), ("Date", finish.date),
        ("Notes", notes if len(notes) <= NOTES else f"{notes[: NOTES - 1]}…"),
    )  # fmt: skip
    return tuple(row for row in rows if row[1])
