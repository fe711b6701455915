"""fullness.circle: a flounce, a tier or a frill that is part of a circle, sewn to an edge."""

from collections.abc import Iterable
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.circles import Flared, by_sides, evenly
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.trim import Part, TrimStep

MOST = 4.0  # circles


class CircularFlare(TrimStep):
    """Its inner edge is the seam, whatever part of a circle it is; its hem is level."""

    title: ClassVar[str] = "Circular flare"
    summary: ClassVar[str] = "A flounce, a tier or a sleeve frill cut as part of a circle to fit the edge that it is sewn to."
    called: ClassVar[str] = "flounce"

    do: Literal["fullness.circle"] = "fullness.circle"
    edge: str = Field(
        default="lower", description="the edge: waist, hem, lower, armhole, neckline, top, or one by its id", min_length=1
    )
    part: float = Field(default=0.5, gt=0.0, description="which part of a circle: 1 is a full one, 0.5 a half, 2 two circles")
    depth: Length = Field(default="12 cm", description="how deep it is once finished")
    seams: Literal["even", "sides"] = Field(default="even", description="pieces of one size, or front and back with side seams")
    pieces: int = Field(default=0, ge=0, le=24, description="of how many pieces; 0: as few as the cloth allows")
    cloth: Length = Field(default="140 cm", description="the width of the cloth")
    level: Length = Field(default="0 cm", description="taken off the hem where it hangs on the bias, as the cloth drops there")

    def words(self) -> str:
        """`half-circle flounce at the waist`."""
        known = {0.25: "quarter-circle", 0.5: "half-circle", 1.0: "full-circle", 2.0: "double-circle"}
        return f"{known.get(self.part, f'{self.part:g}-circle')} flounce at the {self.edge_words}"

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The pieces of the circle."""
        if self.part > MOST:
            raise StepError(f"a flounce of {self.part:g} circles", where=self.on, advice=f"Enter up to {MOST:g}.")
        depth = self.mm("depth", "a flounce with a depth", context, 5.0, 1500.0)
        level = self.mm("level", "a hem levelled by a length", context, 0.0, depth / 2.0)
        cloth, unit = self.mm("cloth", "a cloth with a width", context, 100.0, 5000.0), context.scope.unit
        flared = Flared(worn, self.part, depth, level=level)
        if self.seams == "sides":
            made = by_sides(flared, name, pattern)
        else:
            made = evenly(flared, name, self.pieces or None, cloth)
        told = f"inner edge {format_length(worn.mm, unit)} (radius {format_length(flared.radius, unit)}), hem "
        told += format_length(flared.hem, unit)
        for piece, cut, times in made:
            yield Part(piece, told if len(made) == 1 else f"{told} in all", times, cut)

    def hand_text(self) -> str:
        """By the radius."""
        return (
            f"Its inner radius is that length through 2 pi and through {self.part:g}. Draw the {{name}} with compass or tape "
            f"from one point: the inner edge, and the hem {self.depth} further out."
        )


STEP = CircularFlare
