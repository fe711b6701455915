"""What an action is: data and a plain function of the desk; and what actions ask of the desk."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Protocol

from zesty_pivot.core.record import record

if TYPE_CHECKING:
    from zesty_pivot.core.steps.base import Step
    from zesty_pivot.desk.ask import Asker
    from zesty_pivot.desk.bodies import Bodies
    from zesty_pivot.desk.documents import Documents
    from zesty_pivot.desk.drawer.drawer import Drawer
    from zesty_pivot.desk.keeping import Keeper
    from zesty_pivot.desk.lay import Lay
    from zesty_pivot.desk.model import DeskModel
    from zesty_pivot.desk.recipe_pieces import RecipePieces
    from zesty_pivot.desk.settings import ThemeName
    from zesty_pivot.desk.table.canvas import Canvas
    from zesty_pivot.desk.table.style_table import StyleTable
    from zesty_pivot.desk.views import Views
    from zesty_pivot.desk.work import Worker


class HelpAndSettings(Protocol):
    """What opens over the window."""

    def show_settings(self) -> None: ...
    def show_guide(self) -> None: ...
    def show_commands(self) -> None: ...
    def show_underlay(self) -> None: ...
    def show_tour(self) -> None: ...
    def show_variants(self) -> None: ...
    def show_history(self) -> None: ...
    def show_title_block(self) -> None: ...
    def about(self) -> None: ...


class Desk(Protocol):
    """What actions ask of the window."""

    model: DeskModel
    lay: Lay
    docs: Documents
    ask: Asker
    keeper: Keeper
    worker: Worker
    views: Views
    table: StyleTable
    drawer: Drawer
    recipe_pieces: RecipePieces

    @property
    def bodies(self) -> Bodies: ...

    @property
    def pages(self) -> HelpAndSettings: ...
    def canvas(self) -> Canvas: ...
    def edit_step(self) -> None: ...
    def rename_step(self) -> None: ...
    def fold_card(self) -> None: ...
    def marked_steps(self) -> tuple[Step, ...]: ...
    def set_theme(self, look: ThemeName) -> None: ...
    def focus_next(self) -> None: ...
    def close(self) -> bool: ...


def _always(_desk: Desk) -> bool:
    return True


@record
class Action:
    """One action: id, menu, title, shortcut, what it does, when it can be done. `icon` is a file name, `tip` says it in
    the trade's words."""

    id: str
    menu: str
    title: str
    shortcut: str
    run: Callable[[Desk], object]
    enabled: Callable[[Desk], bool] = _always
    icon: str = ""
    tip: str = ""
    is_late: bool = False  # whether it can be done is asked when its menu opens; done elsewhere, it says why it cannot be
