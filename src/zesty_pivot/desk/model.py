"""The desk's model: the document with its file and its recipe, and what is chosen."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtCore import pyqtSignal

from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.ledger import Account
from zesty_pivot.desk import opening
from zesty_pivot.desk.document import Document
from zesty_pivot.desk.document_file import DocumentFile
from zesty_pivot.desk.opening import OpenDocument
from zesty_pivot.desk.recipe_edits import RecipeEdits
from zesty_pivot.desk.variant_edits import VariantEdits

VIEWS = ("measure", "block", "style", "stand", "sizes", "finish", "paper")  # in the order of the work
VIEW_KEYS = ("measure", "block", "style", "finish", "paper", "stand", "sizes")  # Ctrl and its number, in the order they came
START = "start"  # the start page, which is no view of the style
IMPORT = "import"  # a block that comes in from outside
LIBRARY = "library"  # the blocks on the rail
DIGITISER = "digitiser"  # a block that is traced
RULER = "ruler"  # a block that is measured
SIZING = "sizing"  # a photograph whose size is asked
BESIDE = (START, IMPORT, LIBRARY, DIGITISER, RULER, SIZING)  # what is seen beside the views of the style


class DeskModel(Document):
    """Everything the widgets show. They call its methods and follow its signals; nothing else holds state."""

    view_changed = pyqtSignal()

    def __init__(self, style: Style, path: Path | None = None) -> None:
        opened = opening.ready(style, path, checked=False)
        super().__init__(opened)
        self.file = DocumentFile(self, opened, self._show_another)
        self.recipe = RecipeEdits(self)
        self.variants = VariantEdits(self)

    def begin(self, opened: OpenDocument) -> None:
        """Another document, seen from its beginning."""
        super().begin(opened)
        self.view = "style"
        block = opened.derived.derivation.block
        front = block.piece("front") if block.has("front") else block.pieces[0]
        pivots = [dart.pivot for dart in front.darts] or list(front.landmarks)
        self.pivot: tuple[str, str] | None = (front.name, pivots[0]) if pivots else None
        self.dart: str | None = None

    def _show_another(self, opened: OpenDocument) -> None:
        self.begin(opened)
        for signal in (self.document_changed, self.changed, self.chosen_changed, self.view_changed):
            signal.emit()

    @property
    def account(self) -> Account | None:
        """The account of the chosen pivot, for the pattern on the table."""
        return self._chosen(self.look.accounts)

    @property
    def tally(self) -> Account | None:
        """The same without where darts sit, for what shows figures from moment to moment."""
        return self._chosen(self.look.tallies)

    def _chosen(self, known: Sequence[Account]) -> Account | None:
        if self.pivot is None:
            return None
        name, pivot = self.pivot
        if self.pattern.has(name):
            name = self.pattern.piece(name).of or name
        accounts = [account for account in known if account.pivot == pivot]
        # A piece may hold darts of another that was taped to it.
        return next((account for account in accounts if account.piece == name), accounts[0] if accounts else None)

    def choose_pivot(self, pivot: tuple[str, str] | None, dart: str | None = None) -> None:
        """The pivot with the ring, and the bead that is chosen on it."""
        self.pivot, self.dart = pivot, dart
        self.chosen_changed.emit()

    def choose_step(self, at: int | None) -> None:
        """The chosen step; the table looks at the state after it. None is the whole recipe, -1 the block."""
        last = len(self._derived.derivation.states) - 1
        self.step = at if at is not None and 0 <= at < len(self.style.steps) else None  # a preview may have more
        self.looking = None if at is None or at + 1 == last else at + 1
        self.changed.emit()
        self.chosen_changed.emit()

    def set_view(self, view: str) -> None:
        """One of the views; or the start page."""
        if view != self.view and view in (*VIEWS, *BESIDE):
            self.view = view
            self.view_changed.emit()
