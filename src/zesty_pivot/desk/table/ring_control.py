"""The hands on the ring: a bead is picked up by mouse or keyboard, carried, a share left behind, dropped or let go."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from pydantic import ValidationError

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.piece.spot import resolve
from zesty_pivot.core.quantity import share_of
from zesty_pivot.core.recipe import State
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.dart_move import MoveDart
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.ring_model import Ring, Target, target_at

SHARE_STEP = 0.05
LEFT_BEHIND = 0.5  # the share that goes when the key to leave some behind is first held


@dataclass
class Carry:
    """What is in the hand: the dart, the ring it was picked from, where it would go, and how much of it."""

    ring: Ring
    dart: str
    at: int  # how many steps lie before
    target: Target | None = None
    share: float = 1.0
    fault: str = ""
    is_here: bool = False  # held over its own place: nothing to do
    leaves: bool = False  # the key to leave a share behind is held

    @property
    def is_faulty(self) -> bool:
        """Whether it cannot be put down where it is held."""
        return bool(self.fault) and not self.is_here


class RingControl:
    """Turns gestures into previews and steps of the model. Knows no widget."""

    def __init__(self, model: DeskModel, ring: Callable[[], Ring | None]) -> None:
        self._model = model
        self._ring = ring
        self.carry: Carry | None = None
        self.snaps = True  # stations and darts draw the bead to them, unless a key is held

    def pick_up(self, dart: str) -> None:
        """Takes a bead in hand."""
        ring = self._ring()
        if ring is not None and ring.bead(dart) is not None:
            self.carry = Carry(ring, dart, self._model.state_index)
            self._model.choose_pivot((ring.piece.name, ring.pivot), dart)

    def point(self, angle: float) -> None:
        """The bead is held in a direction (radians) from the pivot."""
        if self.carry is not None:
            self._aim(target_at(self.carry.ring, angle, self.carry.dart, snaps=self.snaps))

    def step_target(self, by: int) -> None:
        """The next (1) or previous (-1) station or dart, clockwise."""
        carry = self.carry
        if carry is None:
            return
        targets = [t for t in carry.ring.targets if t.spot.dart != carry.dart]
        if not targets:
            return
        if carry.target in targets:
            index = (targets.index(carry.target) + by) % len(targets)
        else:
            bead = carry.ring.bead(carry.dart)
            here = bead.middle if bead else 0.0
            ahead = [k for k, t in enumerate(targets) if t.angle > here + 1e-6]
            index = (ahead[0] if ahead else 0) if by > 0 else ((ahead[0] - 1) if ahead else len(targets) - 1)
        self._aim(targets[index])

    def set_share(self, share: float) -> None:
        """How much of the dart goes; the rest stays behind."""
        if self.carry is not None:
            self.carry.share = min(1.0, max(SHARE_STEP, round(share / SHARE_STEP) * SHARE_STEP))
            self._aim(self.carry.target)

    def leave_behind(self, held: bool) -> None:
        """The key to leave a share behind goes down (half stays) or up (all goes again)."""
        if self.carry is not None and held != self.carry.leaves:
            self.carry.leaves = held
            self.set_share(min(self.carry.share, LEFT_BEHIND) if held else 1.0)

    def change_share(self, by: int) -> None:
        """A step more (1) or less (-1)."""
        if self.carry is not None:
            self.set_share(self.carry.share + by * SHARE_STEP)

    def _aim(self, target: Target | None) -> None:
        carry = self.carry
        if carry is None:
            return
        carry.target, carry.fault, carry.is_here = target, "", False
        if target is None or target.spot.dart == carry.dart:
            carry.is_here = True
            self._model.preview(None)
            return
        at, steps = self._steps(carry, target)
        self._model.preview(self._model.style.with_steps(steps))
        state = self._state(at)
        if state is not None and state.error is not None:
            carry.fault = str(state.error.what)
        elif state is not None:
            carry.is_here = state.pattern is self._model.derived.derivation.states[at].pattern

    def _state(self, at: int) -> State | None:
        states = self._model.derived.derivation.states
        return states[at + 1] if at + 1 < len(states) else None

    def _steps(self, carry: Carry, target: Target) -> tuple[int, tuple[Step, ...]]:
        """The recipe with the move in it, and its number. A whole dart moved twice in a row is one move."""
        steps = self._model.style.steps
        before, after = steps[: carry.at], steps[carry.at :]
        if carry.share >= 1.0 and before and _is_same_move(before[-1], carry) and target.spot.dart is None:
            before = before[:-1]
        values = {"on": carry.ring.piece.name, "dart": carry.dart, "to": target.spot}
        if carry.share < 1.0:
            values["share"] = f"{round(100 * carry.share)}%"
        return len(before), (*before, MoveDart.model_validate(values), *after)

    def words(self) -> str:
        """What is in the hand: how much of which dart goes where, and its new mouth; or why it cannot be."""
        carry = self.carry
        if carry is None:
            return ""
        if carry.is_faulty:
            return carry.fault
        goes = "" if carry.share >= 1.0 else f"{round(100 * carry.share)}% of "
        place = carry.target.title if carry.target and not carry.is_here else "where it was"
        text = f"{goes}{dart_words(carry.ring.piece, carry.dart)} dart to {place}"
        piece = self._model.pattern.piece(carry.ring.piece.name)
        new = [d.id for d in piece.darts if d.id not in {b.dart for b in carry.ring.beads}]
        shown = new[0] if new else carry.dart
        if not carry.is_here and piece.has_dart(shown):
            text += f"   mouth {self._model.length(piece.intake(shown))}"
        return text + self._from_both_ends(carry)

    def _from_both_ends(self, carry: Carry) -> str:
        """How far from both ends of its edge the place lies that it is held over."""
        piece, target = carry.ring.piece, carry.target
        if target is None or carry.is_here:
            return ""
        try:
            place = resolve(target.spot, piece, carry.ring.block, self._model.style.scope(), carry.ring.pivot)
        except ZestyError:
            return ""
        run = piece.runs[place.run]
        ends = piece.ends.get(piece.role(run.edge))
        if ends is None:
            return ""
        along = places.sewn_distance(piece, place)
        away = [self._model.length(mm) for mm in (along, piece.edge(run.edge).sewn_length - along)]
        return "   " + ", ".join(f"{mm} from the {words(end)}" for mm, end in zip(away, ends, strict=True))

    def drop(self) -> None:
        """Puts the bead down where it is aimed: one step, one entry of the history."""
        carry = self.carry
        self.carry = None
        if carry is None:
            return
        if carry.target is None or carry.is_here or carry.fault:
            self._model.preview(None)
            if carry.fault:
                self._model.say(f"Not moved: {carry.fault}.", fault=True)
            return
        try:
            at, steps = self._steps(carry, carry.target)
        except ValidationError:
            self._model.preview(None)
            return
        self._model.step = at
        self._model.looking = None if at + 1 == len(steps) else at + 1
        before = self._model.derived.derivation.states[at].pattern
        said, end = steps[at].said(before), self._model.settled.derivation.pattern
        self._model.edit(self._model.style.with_steps(steps), said)
        self._keep_dart(carry, at)
        self._model.say(f"{capital(said)}.{self._what_follows(at, end)}")

    def _what_follows(self, at: int, end: Pattern) -> str:
        """What became of the steps after one that was put before them."""
        derivation = self._model.derived.derivation
        count = len(derivation.states) - 2 - at
        if count <= 0:
            return ""
        broken = [number for number, _fault in derivation.broken if number > at + 1]
        if broken:
            several = "s" if len(broken) > 1 else ""
            return f" Step{several} {', '.join(map(str, broken))} after it can no longer be done."
        same = "; the pattern at the end is as it was" if derivation.pattern == end else ""
        return f" The {count} step{'s' if count > 1 else ''} after it follow{'' if count > 1 else 's'}{same}."

    def _keep_dart(self, carry: Carry, at: int) -> None:
        """The bead stays chosen, or the one that took it in."""
        pattern = self._model.derived.derivation.states[at + 1].pattern
        piece = pattern.piece(carry.ring.piece.name)
        taken = carry.target.spot.dart if carry.target else None
        dart = carry.dart if piece.has_dart(carry.dart) else taken
        self._model.choose_pivot((piece.name, carry.ring.pivot), dart)

    def let_go(self) -> None:
        """Everything back as it was."""
        if self.carry is not None:
            self.carry = None
            self._model.preview(None)
            self._model.say("Left as it was.")


def _is_same_move(step: Step, carry: Carry) -> bool:
    return (
        isinstance(step, MoveDart)
        and not step.off
        and (step.on, step.dart) == (carry.ring.piece.name, carry.dart)
        and step.mouth is None
        and share_of(step.share) == 1.0
    )
