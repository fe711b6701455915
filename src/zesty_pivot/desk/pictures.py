"""Pictures of the main views, made from the demo without a display."""

from __future__ import annotations

import os
from pathlib import Path

from PyQt6.QtCore import QSize

SIZE = QSize(1280, 800)


def write_pictures(folder: Path) -> list[Path]:
    """Writes a PNG of each main view to a folder."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from zesty_pivot.desk.start import application, open_window

    app = application()
    window = open_window(None)
    window.resize(SIZE)
    window.show()
    folder.mkdir(parents=True, exist_ok=True)
    written: list[Path] = []

    def shot(name: str) -> None:
        for _ in range(3):
            app.processEvents()
        path = folder / f"{name}.png"
        if not window.grab().save(str(path)):
            raise RuntimeError(f"the picture {path} cannot be written")
        written.append(path)

    shot("style")
    ring = window.table.ring()
    goal = next((target.angle for target in ring.targets if target.spot.station == "mid_armhole"), 0.0) if ring else 0.0
    window.table.control.pick_up("waist")
    window.table.control.point(goal)
    window.table.control.set_share(0.6)
    window.table.update()
    shot("ring")
    window.table.control.let_go()
    window.model.say("")  # the message of letting go does not belong in the next pictures
    window.model.set_view("finish")
    shot("finish")
    window.model.set_view("paper")
    shot("paper")
    window.close()
    return written
