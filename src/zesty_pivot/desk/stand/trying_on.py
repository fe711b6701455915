"""What is tried on, on whose form and beside what; the cloth is let go in a thread."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Body
from zesty_pivot.core.stand.cloth_kinds import USUAL
from zesty_pivot.core.stand.fitting import COARSE, FINE, Fitting
from zesty_pivot.core.stand.form import has_bust_point
from zesty_pivot.core.stand.paper import Held
from zesty_pivot.core.stand.told import StandFinding, told
from zesty_pivot.desk.beside import Beside, rest_timer
from zesty_pivot.desk.contained import contained, tried
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.people import STYLE, People
from zesty_pivot.desk.sizes.sizes import Sizes
from zesty_pivot.desk.stand.to_try import Key, ToTryOn, TriedOn, Wearable, in_size, is_enough, of_pattern, of_variant, worked

PAPER = "paper"  # no body: the paper in the hand
NOTHING, BLOCK, BEFORE, OTHER_BODY, VARIANT, SIZE = "", "block", "before", "body:", "variant:", "size:"
KEPT = 8  # fittings that are kept
REST_MS = 250  # after an edit, until it is tried on


class TryingOn(QObject):
    """What is asked stands here; what is found of it is kept as long as the pattern, the form and the cloth are the same."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel, people: People, sizes: Callable[[], Sizes]) -> None:
        super().__init__()
        self._model, self._people, self._sizes = model, people, sizes
        self.work = Beside("trying the pattern on")
        self.kind, self.on, self.beside = USUAL, str(STYLE), NOTHING
        self.wanted: tuple[ToTryOn, ...] = ()
        self.fault = ""
        self._found: dict[Key, Fitting | Held] = {}
        self._shares: dict[Key, float] = {}  # of the work on each that is done
        self._kept: dict[Key, object] = {}  # what is told by its id must not go
        self._told: tuple[Fitting, str, tuple[StandFinding, ...]] | None = None  # the last that was told, and of what
        self._rest = rest_timer(self, REST_MS, self.look)
        self.work.improved.connect(self._improve)
        self.work.ended.connect(self._end)

    # What is so.

    def shown(self) -> list[tuple[ToTryOn, Fitting | Held | None]]:
        """What is to be seen, from left to right, and what there is of it."""
        return [(one, self._found.get(one.key)) for one in self.wanted]

    @property
    def done(self) -> float:
        """The share of the work that is done."""
        fine = self._fine
        shares = [1.0 if is_enough(self._found.get(one.key), fine) else self._shares.get(one.key, 0.0) for one in self.wanted]
        return sum(shares) / len(shares) if shares else 1.0

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

    def tells_of_now(self) -> tuple[StandFinding, ...]:
        """What there is to say of the pattern on the table, where it has been tried on."""
        is_of_now = bool(self.wanted) and self.wanted[0].key[0] == id(self._model.look.pattern)
        return self.told if is_of_now and not self._rest.isActive() else ()

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
            *((f"{SIZE}{one.title}", f"size {one.title}") for one in self._sizes().who.shown if not one.fault),
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
        fine = self._fine
        missing = [one for one in self.wanted if not is_enough(self._found.get(one.key), fine)]
        asked = fine, *(one.key for one in missing)
        if not missing:
            self.work.stop()
        elif self.work.asked != asked:
            kind, found = self.kind, dict(self._found)
            self.work.begin(asked, lambda stop: worked(missing, kind, stop, fine, found))
        self.changed.emit()

    @property
    def _fine(self) -> float:
        """How fine the cloth is in the end: beside the table and while something is dragged only what is seen soon."""
        return FINE if self._model.view == "stand" and not self._model.is_previewing else COARSE

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
        now = of_pattern(look.pattern, look.sewing, look.block)
        yield from self._want("now", now, self.on)
        if self.beside == NOTHING or self._model.view != "stand":  # beside the table there is room for one
            return
        if self.beside == BLOCK:
            yield from self._want("the block", of_pattern(look.block, look.sewing, look.block), self.on)
        elif self.beside == BEFORE and self._step() > 0:
            before = self._model.derived.derivation.states[self._step() - 1].pattern
            yield from self._want(f"before {self._step_words()}", of_pattern(before, look.sewing, look.block), self.on)
        elif self.beside.startswith(VARIANT):
            name = self.beside.removeprefix(VARIANT)
            yield from self._want(name, of_variant(self._model.style, name), self.on)
        elif self.beside.startswith(SIZE):
            title, sizes = self.beside.removeprefix(SIZE), self._sizes()
            wearer = sizes.who.one(title)
            if wearer is None:
                return
            source = in_size(self._model.derived.style, sizes.under(), wearer)
            yield self._on(source, f"size {title}", wearer.lengths, is_child=wearer.is_child)
        elif self.beside.startswith(OTHER_BODY):
            id = self.beside.removeprefix(OTHER_BODY)
            yield from self._want(f"on {self._people.body(int(id)).title}", now, id)

    def _want(self, title: str, source: Wearable, on: str) -> Iterator[ToTryOn]:
        if on == PAPER:
            pieces = self._model.look.pattern.pieces
            for body in (Body.FRONT, Body.BACK):
                if any(piece.body is body for piece in pieces):
                    yield ToTryOn((*source.name, PAPER, body), f"{body.value}, {title}", source, None, body=body)
            return
        whose = self._people.body(int(on))
        if "bust" not in whose.lengths:
            raise ZestyError("nobody's bust is known", where="stand", advice="Measure a person, or choose another form.")
        is_child = whose.is_child or not has_bust_point(self._model.look.block)
        yield self._on(source, title, tuple(sorted(whose.lengths.items())), is_child=is_child)

    def _on(self, source: Wearable, title: str, lengths: tuple[tuple[str, float], ...], *, is_child: bool) -> ToTryOn:
        return ToTryOn((*source.name, lengths, is_child, self.kind), title, source, lengths, is_child)

    # Hearing.

    def _improve(self, _asked: object, found: object) -> None:
        if not isinstance(found, TriedOn):
            return
        self._shares[found.key] = found.shown.done
        known = self._found.get(found.key)
        if found.shown.done < 1.0 and known is not None and known.done >= 1.0:
            return  # what lies still is seen until there is something finer that does
        self._found[found.key] = found.shown
        wanted = {one.key: one.source.keeps for one in self.wanted}
        self._kept |= wanted
        for old in [known for known in self._found if known not in wanted][:-KEPT]:
            del self._found[old]
        for old in [known for known in self._kept if known not in wanted and known not in self._found]:
            del self._kept[old]
            self._shares.pop(old, None)
        self.changed.emit()

    def _end(self, _asked: object, fault: str) -> None:
        self.fault = fault
        self.changed.emit()
