"""Actions of the stand."""

from __future__ import annotations

from zesty_pivot.desk.action import Action, Desk


def _stands(desk: Desk) -> bool:
    return desk.model.view == "stand"


def _facing(id: str, title: str, shortcut: str, side: str) -> Action:
    def face(desk: Desk) -> None:
        desk.views.stand.canvas.face_side(side)

    return Action(f"stand.{id}", "View", title, shortcut, face, _stands, tip="The figure on the stand is turned")


def actions() -> tuple[Action, ...]:
    """In the order of the menu."""
    return (
        _facing("front", "Stand from the front", "Ctrl+Alt+F", "front"),
        _facing("left", "Stand from its left", "Ctrl+Alt+S", "left"),
        _facing("back", "Stand from behind", "Ctrl+Alt+B", "back"),
        Action(
            "stand.stop", "View", "Stop settling the cloth", "", lambda desk: desk.views.trying.stop(),
            lambda desk: _stands(desk) and desk.views.trying.work.is_at_work, tip="What lies there by now stays",
        ),
    )  # fmt: skip
