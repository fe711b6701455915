"""What is laid on the table beside the pattern: how far its darts are folded, tracing paper, a walk along a seam."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.piece import Pattern, Seam
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.hand import Way
from zesty_pivot.core.record import record
from zesty_pivot.desk.model import DeskModel

if TYPE_CHECKING:
    from zesty_pivot.core.finish.walk import Walk
    from zesty_pivot.core.ledger.differences import Differences

PANELS = ("reading", "trace", "walk", "hand", "practise", "neck", "stand")


@record
class Traced:
    """What lies under or over the pattern: a state of this recipe (0 is the block), or another style."""

    state: int | None = 0
    other: Derived | None = None
    title: str = "the block"
    variant: str = ""  # the name of the variant that it is


SPREAD = 0.4  # how far panels of one piece lie apart to begin with, as a share of the widest


class Lay(QObject):
    """The state of the table that is no part of the document."""

    changed = pyqtSignal()
    panel_changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model, self._opened = model, model.opened
        self.panel = "reading"
        self.fold = 0.0  # share of each dart that is shut
        self.comb = False  # the curvature of style lines is shown
        self.spread = SPREAD  # how far panels of one piece lie apart
        self.traced: Traced | None = None
        self.is_over = False  # tracing paper lies on top
        self.seam = 0  # the walked seam, counted from 0
        self.is_from_end = False
        self.at = 0.0  # how far has been walked, as a share
        self.way: Way = "pivot"  # of the hand sheet
        self._figures: tuple[object, object, Differences] | None = None
        self._walked: tuple[tuple[object, ...], Walk | None] | None = None
        model.changed.connect(self._follow)

    def _follow(self) -> None:
        """A state that is gone cannot be traced; another document begins flat, without tracing paper."""
        if self._opened != self._model.opened:
            self._opened = self._model.opened
            self.fold, self.traced, self.seam, self.at = 0.0, None, 0, 0.0
            self.changed.emit()
        traced = self.traced
        if traced is not None and traced.state is not None and not self._model.is_previewing:
            last = len(self._model.derived.derivation.states) - 1
            if traced.state > last:
                self.trace_state(last)

    # Which panel.

    def show_panel(self, panel: str) -> None:
        """Reading, tracing paper, walk or hand sheet."""
        if panel in PANELS and panel != self.panel:
            self.panel = panel
            self.panel_changed.emit()
            self.changed.emit()

    @property
    def is_walking(self) -> bool:
        """Whether the table shows a walk."""
        return self.panel == "walk" and self.walked is not None

    def read_way(self, way: Way) -> None:
        """The hand sheet in the pivot or the slash way."""
        self.way = way
        self.changed.emit()

    # Folding.

    def set_fold(self, share: float) -> None:
        """Shuts the darts by a share from 0 to 1."""
        share = min(1.0, max(0.0, share))
        if share != self.fold:
            self.fold = share
            self.changed.emit()

    def show_comb(self, shown: bool) -> None:
        """Shows the curvature of style lines, or hides it."""
        self.comb = shown
        self.changed.emit()

    def set_spread(self, share: float) -> None:
        """Moves the panels of one piece together (0) or apart (1)."""
        share = min(1.0, max(0.0, share))
        if share != self.spread:
            self.spread = share
            self.changed.emit()

    # Tracing paper.

    def trace_state(self, state: int | None) -> None:
        """Lays a state of this recipe on the table; None takes the tracing paper away."""
        if state is None:
            self.traced = None
        else:
            step = self._model.derived.derivation.states[state].step
            self.traced = Traced(state, None, "the block" if step is None else f"after step {state}")
        self.changed.emit()

    def trace_style(self, path: Path) -> None:
        """Lays another style on the table. Raises a ZestyError when it cannot be read."""
        other = derive(style_file.read(path))
        self.traced = Traced(None, other, other.style.name)
        self.changed.emit()

    def trace_variant(self, name: str) -> None:
        """Lays another variant of the style on the table."""
        self.traced = Traced(None, derive(self._model.style.with_variant(name)), name, variant=name)
        self.changed.emit()

    def trace_derived(self, other: Derived, title: str) -> None:
        """Lays the style in another size, or for somebody else, on the table."""
        self.traced = Traced(None, other, title)
        self.changed.emit()

    def put_over(self, over: bool) -> None:
        """Tracing paper over the pattern, or under it."""
        self.is_over = over
        self.changed.emit()

    @property
    def traced_pattern(self) -> tuple[Pattern, Pattern] | None:
        """The traced pattern and its block, or None."""
        traced = self.traced
        if traced is None:
            return None
        if traced.other is not None:
            return traced.other.pattern, traced.other.derivation.block
        derivation = self._model.derived.derivation
        state = min(traced.state or 0, len(derivation.states) - 1)
        return derivation.states[state].pattern, derivation.block

    @property
    def figures(self) -> Differences | None:
        """What differs between the pattern on the table and the traced one."""
        found = self.traced_pattern
        if found is None:
            return None
        from zesty_pivot.core.ledger.differences import differences

        other, block = found
        now = self._model.pattern
        if self._figures is None or self._figures[0] is not now or self._figures[1] is not other:
            self._figures = (now, other, differences(now, self._model.derived.derivation.block, other, block))
        return self._figures[2]

    # Walking.

    @property
    def seams(self) -> tuple[Seam, ...]:
        """The seams that can be walked: from one piece to one other."""
        return tuple(seam for seam in self._model.pattern.seams if seam.pair is not None)

    def choose_seam(self, seam: int) -> None:
        """Another seam to walk, from its beginning."""
        if 0 <= seam < len(self.seams):
            self.seam, self.at = seam, 0.0
            self.changed.emit()

    def walk_from_end(self, from_end: bool) -> None:
        """Which end the seam is walked from."""
        self.is_from_end, self.at = from_end, 0.0
        self.changed.emit()

    def walk_to(self, share: float) -> None:
        """How far has been walked, as a share of the longer side."""
        self.at = min(1.0, max(0.0, share))
        self.changed.emit()

    def _ease(self, seam: Seam) -> float:
        """The intended ease of a seam, mm."""
        return next((row.ease_mm for row in self._model.look.seams if (row.a, row.b) == (seam.a, seam.b)), seam.ease_mm)

    @property
    def walked(self) -> Walk | None:
        """The walk along the chosen seam of the pattern on the table, or None when there is none."""
        from zesty_pivot.core.finish.walk import walk

        pattern = self._model.pattern
        if not self.seams:
            return None
        seam = self.seams[min(self.seam, len(self.seams) - 1)]
        key = (id(pattern), seam, self.is_from_end)
        if self._walked is None or self._walked[0] != key:
            a, b = seam.a.parts[0], seam.b.parts[0]
            piece = pattern.piece(a.piece)
            ends = piece.ends.get(piece.role(a.edge), ("start", "end"))
            named = (words(ends[0]), words(ends[1]))
            try:
                found = walk(pattern, a, b, named, self._ease(seam), self._model.style.sewing())
                self._walked = (key, found.turned() if self.is_from_end else found)
            except ZestyError:
                self._walked = (key, None)
            self._walked_pattern = pattern  # keeps the id from being given away
        return self._walked[1]
