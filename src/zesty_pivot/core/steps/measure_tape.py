"""measure.tape: a tape laid on the pattern at its place in the recipe, and kept."""

import itertools
import re
import unicodedata
from typing import ClassVar, Literal, Self

from pydantic import Field

from zesty_pivot.core.measure import BY_NAME
from zesty_pivot.core.piece import Pattern, dart_id
from zesty_pivot.core.piece import names as trade
from zesty_pivot.core.piece.pattern import Tape
from zesty_pivot.core.piece.tape_end import TapeEnd
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.tape_measure import LAYINGS, Darts, Laying, Reading, lay_tape
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length, with_darts
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

EDGES = ("edge", "armhole", "neckline", "side_seam")  # formulas of places know these lengths already


def formula_name(name: str) -> str:
    """A tape's name as formulas call it: `half neckline` is half_neckline, and `waist`, which the body has already, tape_waist.
    Empty where nothing of it can stand in a formula."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    made = re.sub(r"[^a-z0-9]+", "_", plain).strip("_")
    return f"tape_{made}" if made[:1].isdigit() or made in EDGES or made in BY_NAME else made


class MeasuringTape(Step):
    """Measures the pattern at its place in the recipe and follows every edit before it; changes nothing."""

    title: ClassVar[str] = "Measuring tape"
    summary: ClassVar[str] = (
        "Measure from a place to a place, straight, level or along the seam, and keep the figure: formulas after it may use it "
        "by its name, and it can be asked to hold."
    )

    do: Literal["measure.tape"] = "measure.tape"
    from_: TapeEnd = Field(alias="from", description="where it begins")
    to: TapeEnd = Field(description="where it ends")
    way: Laying = Field(default="straight", description="how it is laid; level is square to CF, grain square to the grain line")
    darts: Darts = Field(default="shut", description="measured with the darts on its way shut as they are sewn, or open")
    hold: Length | None = Field(default=None, description="what it should show; a finding tells when it does not")
    on_sheet: bool = Field(default=False, description="drawn and written on the sheets")

    def words(self) -> str:
        """`half neckline` or `tape from the neck point to the bust point, straight`."""
        if self.name:
            return f"tape: {self.name}"
        return f"tape, {LAYINGS[self.way]}, from {self.from_.words()} to {self.to.words()}"

    def with_ids(self, pattern: Pattern) -> Self:
        """The step with the darts at its ends named by their ids, each on its own piece."""
        ends = {"from_": self._end_with_ids(self.from_, pattern), "to": self._end_with_ids(self.to, pattern)}
        return self.model_copy(update=ends)

    def _end_with_ids(self, end: TapeEnd, pattern: Pattern) -> TapeEnd:
        on = end.on or self.on
        if not pattern.has(on):
            return end
        piece = pattern.piece(on)
        return with_darts(end, lambda name: dart_id(piece, name))

    def reading(self, pattern: Pattern, context: Context) -> Reading:
        """What it shows on a pattern, and where it lies. Raises as `apply` does."""
        return lay_tape(pattern, self.on, (self.from_, self.to), self.way, self.darts, context)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the tape kept. Raises StepError, PlaceError or FormulaError where it cannot be laid."""
        key = self._key(pattern, context)
        hold = None if self.hold is None else length_mm(self.hold, context.scope)
        pattern.piece(self.on)
        mm = self.reading(pattern, context).mm
        tape = Tape(self.name or self.words().removeprefix("tape, "), key, self.on, mm, hold, self.on_sheet, self)
        return Outcome(replace(pattern, tapes=(*pattern.tapes, tape)))

    def _key(self, pattern: Pattern, context: Context) -> str:
        """What formulas call it; a second one of the same name has a number."""
        plain = formula_name(self.name)
        if plain not in context.scope.measures:  # tapes kept before it are among them
            return plain
        return next(key for key in (f"{plain}_{number}" for number in itertools.count(2)) if key not in context.scope.measures)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """What the tape shows, to be written down."""
        mm = self.reading(pattern, context).mm
        how = f"{LAYINGS[self.way]}, with the darts on the way {self.darts}"
        ends = [f"{end.words()}{f' of the {trade.words(end.on)}' if end.on and end.on != self.on else ''}" for end in
                (self.from_, self.to)]  # fmt: skip
        text = "On the {on}, lay the tape {how}, from the {start} to the {end}: it shows {mm}. Write it down{name}."
        figures = {
            "on": trade.words(self.on),
            "how": how,
            "start": ends[0].removeprefix("the "),
            "end": ends[1].removeprefix("the "),
        }
        name = f" as “{self.name}”" if self.name else ""
        return (line("tape", text, **figures, mm=format_length(mm, context.scope.unit), name=name),)


STEP = MeasuringTape
