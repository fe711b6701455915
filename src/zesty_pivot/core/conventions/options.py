"""How a style is finished: schools, and what the user decided otherwise for one dart, edge, seam or piece."""

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from zesty_pivot.core.quantity.fields import Length, Model, Share

SetbackName = Literal["graded", "near", "even", "three_quarter_inch", "inch", "large_shoulder"]
FoldName = Literal["trade", "waist_to_side"]
AllowanceName = Literal["industry_metric", "inches_room", "home_room", "none"]
EndName = Literal["auto", "cap", "cut_away"]
DartEnd = Literal["auto", "cap", "cut_away", "press_away"]
WeightName = Literal["light", "medium", "heavy"]
CutOrder = Literal["auto", "fold", "pair", "one", "up"]


CUT_WORDS = {"fold": "cut 1 on the fold", "pair": "cut 1 pair", "one": "cut 1", "up": "cut 1, right side up"}


def cut_words(order: str) -> str:
    """A cutting order as it is written on the piece; an order that is a number says how often the piece is cut, and so does one
    behind `fold`."""
    if order.startswith("fold "):
        return f"cut {order.removeprefix('fold ')} on the fold"
    return CUT_WORDS.get(order) or f"cut {order}"


def is_on_fold(order: str) -> bool:
    """Whether a piece cut by this order lies on the fold."""
    return order.startswith("fold")


class DartFinish(Model):
    """What is decided for one dart otherwise than its school says."""

    setback: Length | None = None
    school: SetbackName | None = Field(default=None, description="another set-back school than the style's")
    fold: Literal["before", "after"] | None = Field(default=None, description="side of the mouth, on the clockwise way round")
    extension: Length | None = Field(default=None, description="as the style's, for this dart")
    end: DartEnd | None = Field(default=None, description="press_away: not sewn, the mouth is eased or pressed flat")


_AS_THE_STYLE = DartFinish.model_construct()


class Finish(Model):
    """The finish of a style. Keys of `darts` are `piece.dart`, of `allowances` and `ease` `piece.edge`, of `cut` pieces."""

    setback: SetbackName = "graded"
    large_dart: Length | None = Field(
        default=None,
        description="intake above which a dart is a large one for the set-back; as the school has it when none",
    )
    fold: FoldName = "trade"
    allowance: AllowanceName = "industry_metric"
    end: EndName = Field(default="auto", description="the dart's mouth: cap, cut_away, or by the intake")
    block_waist: bool = Field(default=False, description="the block's own waist line kept on the sheet as a thin line")
    weight: WeightName = Field(
        default="medium", description="thickness of the cloth: how wide a dart may be and still be folded"
    )
    extension: Length | None = Field(
        default=None, description="folded mouths are drawn out to a point so far outside the seam; by folding when not given"
    )
    cut_away: Length = Field(default="1 cm", description="allowance on each leg of a dart that is cut away inside")
    darts: dict[str, DartFinish] = Field(default_factory=dict)
    allowances: dict[str, Length] = Field(default_factory=dict)
    ease: dict[str, Length] = Field(default_factory=dict, description="intended ease by the seam's first edge")
    cut: dict[str, CutOrder] = Field(default_factory=dict)
    wearing_ease: dict[Literal["bust", "waist", "hip"], Length] = Field(
        default_factory=dict, description="how much wider than the body the finished girths are wanted"
    )
    stretch: Share = Field(default=0.0, description="how much longer the neckline's edge can be pulled")
    season: str = Field(default="", max_length=40)
    client: str = Field(default="", max_length=80, description="who it is made for, or the name of the size")
    size: str = Field(default="", max_length=40)
    cloth: str = Field(default="self", max_length=40)
    hand_sheet: Literal["none", "pivot", "slash"] = Field(default="none", description="paper procedure printed along")
    date: str = Field(default="", max_length=40, description="printed on the label; nothing when empty")

    def of_dart(self, key: str) -> DartFinish:
        """What is decided for one dart, by its `piece.dart`."""
        return self.darts.get(key, _AS_THE_STYLE)

    def lengths(self) -> Iterator[str | float]:
        """Every length and formula in it, as it was written."""
        yield self.cut_away
        yield from (text for text in (self.large_dart, self.extension) if text is not None)
        yield from (own.extension for own in self.darts.values() if own.extension is not None)
        yield from self.allowances.values()
        yield from self.ease.values()
        yield from self.wearing_ease.values()
        yield from (own.setback for own in self.darts.values() if own.setback is not None)
