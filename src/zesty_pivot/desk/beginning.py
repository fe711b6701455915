"""What happens once the window is there: its place, what was left unsaved, what was set aside, the first-run walk. Whatever
stands in settings and journals, the window opens."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QByteArray, QTimer

from zesty_pivot.desk.contained import tried
from zesty_pivot.desk.crashes import crashes
from zesty_pivot.desk.model import START
from zesty_pivot.desk.settings import crash_folder

if TYPE_CHECKING:
    from zesty_pivot.desk.window import Window


def begin(window: Window, *, with_start_page: bool) -> None:
    """Puts the window in its place and shows what a day begins with."""
    settings = window.keeper.settings
    if settings.window:
        window.restoreGeometry(QByteArray.fromHex(settings.window.encode()))
    else:
        screen = window.screen()
        if screen is not None:  # no larger than the screen, which at 150 % may well be smaller than 1280x800
            window.resize(window.size().boundedTo(screen.availableGeometry().size()))
    found = window.keeper.leftovers()
    if found.offered or with_start_page:
        window.model.set_view(START)
        window.start_page.show_leftovers(found.offered)
    elif not settings.has_toured:
        QTimer.singleShot(0, window.show_tour)
    told = " ".join(text for text in (found.told, window.keeper.settings_told) if text)
    if told:
        window.notice.put("set aside", told, ())
    crash = tried(lambda: crashes(crash_folder()), "", "the look for crashes")
    if crash:
        window.faults.add_crash(crash, found.offered[0].style if found.offered else None)
        text = "Zesty Pivot stopped in the middle of its work the last time. What was unsaved is offered below."
        window.notice.put("crash", text, [("Save a report…", window.docs.save_fault_report)])
    window.keeper.change(lambda known: known.model_copy(update={"has_started": True}))
