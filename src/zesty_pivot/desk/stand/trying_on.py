"""What is tried on, on whose form and beside what; the cloth is let go in a thread."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from functools import lru_cache

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Body, Pattern
from zesty_pivot.core.record import record
from zesty_pivot.core.stand.cloth_kinds import USUAL, kind_of
from zesty_pivot.core.stand.fitting import COARSE, FINE, Fitting, tried_on
from zesty_pivot.core.stand.form import Form, form_of
from zesty_pivot.core.stand.paper import Held, in_the_hand
from zesty_pivot.core.stand.told import StandFinding, told
from zesty_pivot.desk.beside import Beside
from zesty_pivot.desk.contained import contained, tried
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.people import STYLE, People

PAPER = "paper"  # no body: the paper in the hand
NOTHING, BLOCK, BEFORE, OTHER_BODY, VARIANT = "", "block", "before", "body:", "variant:"
KEPT = 8  # fittings that are kept
REST_MS = 250  # after an edit, until it is tried on


@record(eq=False)
class ToTryOn:
    """A garment on the form of a body, told by its measurements (mm); without them the paper of front or back in the hand."""

    key: tuple[object, ...]
    title: str
    pattern: Pattern
    block: Pattern
    sewing: Sewing
    lengths: tuple[tuple[str, float], ...] | None
    is_child: bool = False
    body: Body = Body.NONE


@record(eq=False)
class TriedOn:
    """What came of something that is wanted by now."""

    key: tuple[object, ...]
    shown: Fitting | Held


class TryingOn(QObject):
    """What is asked stands here; what is found of it is kept as long as the pattern, the form and the cloth are the same."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel, people: People) -> None:
        super().__init__()
        self._model, self._people = model, people
        self.work = Beside("trying the pattern on")
        self.kind, self.on, self.beside = USUAL, str(STYLE), NOTHING
        self.wanted: tuple[ToTryOn, ...] = ()
        self.fault = ""
        self._found: dict[tuple[object, ...], Fitting | Held] = {}
        self._patterns: dict[int, Pattern] = {}  # what is kept by its id must not go
        self._told: tuple[Fitting, str, tuple[StandFinding, ...]] | None = None  # the last that was told, and of what
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(REST_MS)
        self._rest.timeout.connect(self.look)
        self.work.improved.connect(self._improve)
        self.work.ended.connect(self._end)

    # What is so.

    def shown(self) -> list[tuple[ToTryOn, Fitting | Held | None]]:
        """What is to be seen, from left to right, and what there is of it."""
        return [(one, self._found.get(one.key)) for one in self.wanted]

    @property
    def done(self) -> float:
        """The share of the work that is done."""
        found = [self._found.get(one.key) for one in self.wanted]
        return sum(0.0 if one is None else one.done for one in found) / len(found) if found else 1.0

    @property
    def told(self) -> tuple[StandFinding, ...]:
        """What there is to say of the pattern as it is."""
        found = self._found.get(self.wanted[0].key) if self.wanted else None
        if not isinstance(found, Fitting) or (found.done < 1.0 and self.work.is_at_work):
            return ()  # while it moves there is nothing to say yet
        unit = self._model.style.units
        if self._told is None or self._told[0] is not found or self._told[1] != unit:
            none: tuple[StandFinding, ...] = ()
            self._told = found, unit, tried(lambda: told(found, unit), none, "what the stand tells")
        return self._told[2]

    @property
    def bodies(self) -> list[tuple[str, str]]:
        """Whose form it may be: ids and titles."""
        found = [(str(STYLE), "the body of this style")]
        found += [(str(n), self._people.body(n).title) for n in range(len(self._people.all))]
        return [*found, (PAPER, "nobody: paper in the hand")]

    @property
    def companions(self) -> list[tuple[str, str]]:
        """What may stand beside it: ids and titles."""
        if self.on == PAPER:
            return [(NOTHING, "nothing"), (BEFORE, f"before {self._step_words()}")]
        found = [(NOTHING, "nothing"), (BLOCK, "the block"), (BEFORE, f"before {self._step_words()}")]
        found += [
            (f"{VARIANT}{name}", name) for name in self._model.style.every_variant if name != self._model.variants.shown
        ] if len(self._model.style.variants) > 1 else []  # fmt: skip
        return [
            *found,
            *((f"{OTHER_BODY}{id}", f"the same on {title}") for id, title in self.bodies if id not in (self.on, PAPER)),
        ]

    def _step(self) -> int:
        """The step that before and after are told by: the chosen one, else the last; 0 is none."""
        return max(0, self._model.state_index)

    def _step_words(self) -> str:
        step = self._step()
        return "any step" if step == 0 else f"step {step}, {self._model.derived.derivation.said(step)}"

    # Asking.

    def choose(self, **asked: str) -> None:
        """Another `kind` of cloth, form (`on`), or what stands `beside`."""
        for name, value in asked.items():
            setattr(self, name, value)
        if self.beside not in dict(self.companions):
            self.beside = NOTHING
        self.look()

    def follow(self) -> None:
        """The pattern is another one: it is tried on when the hand rests."""
        self._rest.start()

    @contained("the stand")
    def look(self) -> None:
        """Tries on what is not known yet."""
        self._rest.stop()
        self.fault = ""
        try:
            self.wanted = tuple(self._asked())
        except ZestyError as fault:
            self.wanted, self.fault = (), str(fault)
        missing = [one for one in self.wanted if (found := self._found.get(one.key)) is None or found.done < 1.0]
        if not missing:
            self.work.stop()
        elif self.work.asked != (keys := tuple(one.key for one in missing)):
            kind, fine = self.kind, COARSE if self._model.is_previewing else FINE
            self.work.begin(keys, lambda stop: _worked(missing, kind, stop, fine))
        self.changed.emit()

    def stop(self) -> None:
        """Stops; what was found stays as it is."""
        self.work.stop()
        self.changed.emit()

    def close(self) -> None:
        """Stops, and waits for the thread."""
        self._rest.stop()
        self.work.close()

    def _asked(self) -> Iterator[ToTryOn]:
        look = self._model.look
        after = self._want("now", look.pattern, look.sewing, self.on)
        yield from after
        if self.beside == NOTHING:
            return
        if self.beside == BLOCK:
            yield from self._want("the block", look.block, look.sewing, self.on)
        elif self.beside == BEFORE and self._step() > 0:
            derivation = self._model.derived.derivation
            yield from self._want(
                f"before {self._step_words()}", derivation.states[self._step() - 1].pattern, look.sewing, self.on
            )
        elif self.beside.startswith(VARIANT):
            name = self.beside.removeprefix(VARIANT)
            other = self._model.worked_out(self._model.style.with_variant(name))
            yield from self._want(name, other.pattern, other.look.sewing, self.on)
        elif self.beside.startswith(OTHER_BODY):
            id = self.beside.removeprefix(OTHER_BODY)
            yield from self._want(f"on {self._people.body(int(id)).title}", look.pattern, look.sewing, id)

    def _want(self, title: str, pattern: Pattern, sewing: Sewing, on: str) -> Iterator[ToTryOn]:
        block = self._model.look.block
        self._patterns[id(pattern)] = pattern
        if on == PAPER:
            for body in (Body.FRONT, Body.BACK):
                if any(piece.body is body for piece in pattern.pieces):
                    yield ToTryOn(
                        (id(pattern), sewing, PAPER, body), f"{body.value}, {title}", pattern, block, sewing, None, body=body
                    )
            return
        whose = self._people.body(int(on))
        if "bust" not in whose.lengths:
            raise ZestyError("nobody's bust is known", where="stand", advice="Measure a person, or choose another form.")
        lengths, is_child = tuple(sorted(whose.lengths.items())), whose.is_child or "bust_point" not in _landmarks(block)
        yield ToTryOn((id(pattern), sewing, lengths, is_child, self.kind), title, pattern, block, sewing, lengths, is_child)

    # Hearing.

    def _improve(self, _asked: object, found: object) -> None:
        if not isinstance(found, TriedOn):
            return
        self._found[found.key] = found.shown
        wanted = {one.key for one in self.wanted}
        for old in [known for known in self._found if known not in wanted][:-KEPT]:
            del self._found[old]
        kept = {key[0] for key in (*self._found, *wanted)}
        self._patterns = {known: pattern for known, pattern in self._patterns.items() if known in kept}
        self.changed.emit()

    def _end(self, _asked: object, fault: str) -> None:
        self.fault = fault
        self.changed.emit()


def _landmarks(pattern: Pattern) -> set[str]:
    return {name for piece in pattern.pieces for name in piece.landmarks}


@lru_cache(maxsize=12)
def _form(lengths: tuple[tuple[str, float], ...], is_child: bool) -> Form:
    return form_of(dict(lengths), is_child=is_child)


def _worked(missing: list[ToTryOn], kind: str, stop: threading.Event, fine: float) -> Iterator[TriedOn]:
    for one in missing:
        if one.lengths is None:
            turns: Iterator[Fitting | Held] = in_the_hand(one.pattern, one.body, one.sewing, stop)
        else:
            turns = tried_on(
                one.pattern, one.block, one.sewing, _form(one.lengths, one.is_child), kind_of(kind), stop, fine=fine
            )
        for turn in turns:
            yield TriedOn(one.key, turn)
