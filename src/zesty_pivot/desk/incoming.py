"""What the import view shows: what came in, what a person said of it, the block that comes out, and how it was looked at."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any, Protocol

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core import faults
from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.compared_block import Farthest, farthest
from zesty_pivot.core.formats.imported import tagged_paper
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.formats.walked_block import Walked, walk_block
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.guesses import Guess, Sure
from zesty_pivot.core.intake.hints import Hints, PieceHints
from zesty_pivot.core.intake.photo.picture import Flat
from zesty_pivot.core.intake.pulled import pulled_paper
from zesty_pivot.core.intake.tagging import Tagging
from zesty_pivot.core.intake.traced import Point, TracedPaper
from zesty_pivot.core.intake.units import UnitChoice
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record, replace
from zesty_pivot.desk.history import History
from zesty_pivot.desk.model import IMPORT, DeskModel

SAME_CORNER = 6.0  # mm: what lies nearer to a corner that was pointed at is that corner


class CameIn(Protocol):
    """What came in: a file, a photograph, a trace."""

    @property
    def name(self) -> str: ...
    @property
    def units(self) -> list[UnitChoice]: ...
    @property
    def under(self) -> Flat | None: ...
    @property
    def hints(self) -> Hints: ...
    def traced(self, unit: str | None = None, size: str = "") -> TracedPaper: ...
    def lines(self, unit: str | None = None) -> tuple[Path, ...]: ...


@record(eq=False)
class Told:
    """What a person said: the unit, the size, and of the pieces; and the block where a mend was taken."""

    unit: str = ""
    size: str = ""
    hints: Hints = Hints()
    mended: BlockFile | None = None


@record(eq=False)
class ImportOutcome:
    """What comes of it: the paper, the tagging, the block with its check, and what stands in the way."""

    paper: TracedPaper | None = None
    tagging: Tagging | None = None
    block: BlockFile | None = None
    walked: tuple[Walked, ...] = ()
    fault: str = ""


class Incoming(QObject):
    """The import on the table. Everything is worked out again from what came in and what was said."""

    changed = pyqtSignal()
    chosen_changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.came: CameIn | None = None
        self.name = ""
        self.history: History[Told] = History([Told()])
        self.outcome = ImportOutcome()
        self.chosen: tuple[int, str] | None = None  # piece, and what of it: as guesses name it

    # What came in.

    def begin(self, came: CameIn) -> None:
        """Shows what came in, with nothing said of it yet but the likeliest unit where it does not know its own."""
        self.came, self.name = came, came.name.rpartition(".")[0] or came.name
        unit = came.units[0].name if came.units else ""
        self.history = History([Told(unit=unit, hints=came.hints)])
        self.chosen = None
        self._work_out()
        self._choose_first()
        self._model.set_view(IMPORT)
        self.changed.emit()

    @property
    def told(self) -> Told:
        """What was said."""
        return self.history.value

    @property
    def is_open(self) -> bool:
        """Whether something came in."""
        return self.came is not None

    @property
    def block(self) -> BlockFile | None:
        """The block that comes out, by its name; None while it makes none."""
        found = self.outcome.block
        return None if found is None else found.model_copy(update={"name": self.name.strip()[:200] or "Imported block"})

    @property
    def unsure(self) -> list[tuple[int, Guess]]:
        """What is asked for: proposals that are not sure."""
        tagging = self.outcome.tagging
        return [] if tagging is None else [one for one in tagging.guesses if one[1].sure is Sure.UNSURE]

    # What is said.

    def set_unit(self, unit: str) -> None:
        """What a unit of the file is."""
        self._push(replace(self.told, unit=unit, hints=self._given, mended=None), "the unit")

    def set_size(self, size: str) -> None:
        """Which size."""
        self._push(replace(self.told, size=size, hints=self._given, mended=None), "the size")

    def set_name(self, name: str) -> None:
        """What the block is called."""
        if name != self.name:
            self.name = name
            self.changed.emit()

    def say(self, number: int, title: str, **said: Any) -> None:
        """Something of one piece, as PieceHints has it."""
        hints = self.told.hints
        mine = replace(hints.of(number), **said)
        self._push(replace(self.told, hints=Hints({**hints.pieces, number: mine}), mended=None), title)

    def say_corner(self, number: int, name: str, at: tuple[float, float]) -> None:
        """Where a corner is, mm on the paper. The others stay where they are, unless there is then no way to read the piece."""
        title = f"the {name.replace('_', ' ')}"
        said = {**self._hints(number).corners, name: at}
        for corners in (self._with_others(number, said, at), said):
            self.say(number, title, corners=corners)
            if self.outcome.tagging is not None and number in self.outcome.tagging.pieces:
                return
            self.history.back_to((self.history.values[:-1], self.history.titles[:-1], self.history.at - 1))
        self.say(number, title, corners=said)

    def _with_others(self, number: int, said: Mapping[str, Point], at: Point) -> dict[str, Point]:
        """The corners as they are read now, but for what lies where the said one does."""
        tagging = self.outcome.tagging
        piece = tagging.pieces.get(number) if tagging is not None else None
        now = {name: piece.motion.undone(place) for name, place in piece.seen.corners.items()} if piece is not None else {}
        others = {name: (float(x), float(y)) for name, (x, y) in now.items() if math.dist((x, y), at) > SAME_CORNER}
        return {**others, **said}

    def pull(self, number: int, at: Point, to: Point) -> None:
        """A place of an outline, mm on the paper, dragged elsewhere; a corner that was named there goes along."""
        mine = self._hints(number)
        corners = {name: to if math.dist(place, at) <= SAME_CORNER else place for name, place in mine.corners.items()}
        self.say(number, "what was dragged", pulls=(*mine.pulls, (at, to)), corners=corners)

    def forget(self, number: int) -> None:
        """Nothing is said of a piece any longer."""
        pieces = {known: one for known, one in self.told.hints.pieces.items() if known != number}
        self._push(replace(self.told, hints=Hints(pieces), mended=None), "what was said of the piece")

    def mend(self, line: Walked) -> None:
        """A mend of the check."""
        if line.mend is not None:
            self._push(replace(self.told, mended=line.mend.block), line.mend.title)

    def undo(self, by: int) -> None:
        """Back or forth in what was said."""
        if self.history.step(by):
            self._work_out()
            self.changed.emit()

    @property
    def _given(self) -> Hints:
        """What came in says of its own pieces."""
        return self.came.hints if self.came is not None else Hints()

    def _hints(self, number: int) -> PieceHints:
        return self.told.hints.of(number)

    def _push(self, told: Told, title: str) -> None:
        self.history.push(told, title)
        self._work_out()
        self.changed.emit()

    # What is looked at.

    def choose(self, thing: tuple[int, str] | None) -> None:
        """What is lit on the table and in the list."""
        if thing != self.chosen:
            self.chosen = thing
            self.chosen_changed.emit()

    def _choose_first(self) -> None:
        """What is asked for first, so that it is seen at once."""
        unsure = self.unsure
        self.chosen = (unsure[0][0], unsure[0][1].what) if unsure else None

    # Working out.

    def _work_out(self) -> None:
        vars(self).pop("far", None)
        if self.came is None:
            self.outcome = ImportOutcome()
            return
        told = self.told
        paper = tagging = block = None
        fault = ""
        try:
            paper = pulled_paper(self.came.traced(told.unit or None, told.size), told.hints)
            tagging = tagged_paper(self.came.name, paper, told.hints)
            block = told.mended or block_of(tagging)
        except ZestyError as refused:
            fault = str(refused)
        except Exception as fallen:  # noqa: BLE001 - the boundary of an import: what came in stays
            fault = f"{faults.sentence('this import', faults.caught(fallen, 'an import'))}."
        walked = tuple(self._walked(block)) if block is not None else ()
        self.outcome = ImportOutcome(paper, tagging, block, walked, fault)

    def _walked(self, block: BlockFile) -> list[Walked]:
        try:
            return walk_block(block, self._model.style.units)
        except ZestyError as refused:
            return [Walked("Check", str(refused), is_right=False)]

    @cached_property
    def far(self) -> Mapping[int, Farthest]:
        """By piece: how far the block's outline lies from the paper, and where most."""
        tagging, block = self.outcome.tagging, self.outcome.block
        if tagging is None or block is None or self.came is None:
            return {}
        try:
            lines = self.came.lines(self.told.unit or None)
            pattern = block_file.pattern(block)
            return {
                number: farthest(pattern.piece(piece.name), lines, piece.motion) for number, piece in tagging.pieces.items()
            }
        except FileError:
            return {}
