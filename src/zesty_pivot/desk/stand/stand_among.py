"""What the stand tells, among the findings: as long as it is of the pattern on the table."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from zesty_pivot.core.checks.base import Mend
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.stand.stand_card import StandCards
from zesty_pivot.desk.stand.trying_on import TryingOn


class StandAmong(QWidget):
    """A heading and cards; hidden while there is nothing to say. A click on a card shows the stand."""

    def __init__(
        self, model: DeskModel, trying: TryingOn, run: Callable[[str], None], after_mending: Callable[[], None]
    ) -> None:
        super().__init__()
        self._model, self._trying, self._after = model, trying, after_mending
        self.told = StandCards()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(label("On the stand", "heading"))
        column.addWidget(self.told)
        self.told.looked.connect(lambda _told: run("view.stand"))
        self.told.mended.connect(self._mend)
        trying.changed.connect(self.refresh)
        model.pace.followed.connect(self.refresh)
        self.refresh()

    @contained("what the stand tells")
    def refresh(self) -> None:
        """Shows what is so."""
        told = self._trying.tells_of_now()
        self.told.show_told(told)
        self.setVisible(bool(told))

    def _mend(self, mend: Mend) -> None:
        self._model.recipe.mend(mend)
        self._after()
