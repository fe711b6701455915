"""A style on several bodies at once, each worked out again only as far as something changed."""

from __future__ import annotations

from collections.abc import Collection, Mapping

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.redraft import with_body
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.bodies import BodyRow
from zesty_pivot.core.sizes.chart import APART
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.core.sizes.verdict import Verdict, verdict_of

KEPT = 64  # states of each body: a recipe, and a drag over its last steps


@record
class Wearer:
    """Whom a style is made for, a size or a person: a title, the measurements in mm, and what is wrong with them. Those of one
    `group` follow each other."""

    title: str
    lengths: tuple[tuple[str, float], ...]
    is_child: bool = False
    group: str = ""
    fault: str = ""

    @property
    def short(self) -> str:
        """A size without its group, a person by the first name."""
        return self.title.removeprefix(f"{self.group}{APART}") if self.group else self.title.split(" ")[0].rstrip(",")


def wearer_of(row: BodyRow) -> Wearer:
    """One of a file or a chart. What a size is called says its group as well."""
    title = row.name or f"body {row.number}"
    return Wearer(title, tuple(sorted(row.lengths.items())), row.is_child, row.group, row.fault)


@record(eq=False)
class Sized:
    """A style on a body: what came of it, or a sentence that says why nothing did."""

    wearer: Wearer
    derived: Derived | None
    fault: str = ""

    @property
    def pattern(self) -> Pattern | None:
        """Its pattern, where there is one."""
        return None if self.derived is None else self.derived.pattern

    @cached_property
    def verdict(self) -> Verdict:
        """What is wrong with it: looked for when it is asked, which takes a tenth of a second."""
        return Verdict(errors=(self.fault,)) if self.derived is None else verdict_of(self.derived)


# Over which block and for which other measurements, by which way, and what came of it.
Blocks = dict[Wearer, tuple[BlockFile, Mapping[str, object], Under, BlockFile | str]]


class Sizer:
    """Works out a style on bodies, and keeps their blocks and the states of their recipes."""

    def __init__(self) -> None:
        self._blocks: Blocks = {}
        self._workers: dict[Wearer, Evaluator] = {}

    def sized(self, style: Style, under: Under, wearer: Wearer) -> Sized:
        """The style on a body; whatever is wrong with it is said."""
        if wearer.fault:
            return Sized(wearer, None, wearer.fault)
        block = self._block(style, under, wearer)
        if isinstance(block, str):
            return Sized(wearer, None, block)
        try:
            worker = self._workers.setdefault(wearer, Evaluator(KEPT))
            return Sized(wearer, derive(with_body(style, block), worker))
        except ZestyError as fault:
            return Sized(wearer, None, str(fault))

    def take(self, style: Style, under: Under, wearer: Wearer, block: BlockFile) -> None:
        """Takes over the block of a body that was made elsewhere."""
        if self._known(style, under, wearer) is None:
            self._blocks[wearer] = style.block, style.measures, under, block

    def knows(self, style: Style, under: Under, wearer: Wearer) -> bool:
        """Whether the block of a body is there, so that nothing takes long."""
        return self._known(style, under, wearer) is not None

    def _known(self, style: Style, under: Under, wearer: Wearer) -> BlockFile | str | None:
        known = self._blocks.get(wearer)
        if known is None or known[0] is not style.block or known[1] != style.measures or known[2] is not under:
            return None
        return known[3]

    def keep_only(self, wearers: Collection[Wearer]) -> None:
        """Forgets all others."""
        for known in (self._blocks, self._workers):
            for gone in [one for one in known if one not in wearers]:
                known.pop(gone)

    def _block(self, style: Style, under: Under, wearer: Wearer) -> BlockFile | str:
        """The block of a body, or why there is none: the same as long as the style's own body and the way to it are."""
        made = self._known(style, under, wearer)
        if made is not None:
            return made
        try:
            made = under.styled(style, wearer.title, dict(wearer.lengths), is_child=wearer.is_child).block
        except ZestyError as fault:
            made = str(fault)
        except Exception as fault:  # noqa: BLE001 - the boundary of a body: the others are worked out
            made = faults.sentence("making its block", faults.caught(fault, f"the block of {wearer.title}"))
        self._blocks[wearer] = style.block, style.measures, under, made
        return made
