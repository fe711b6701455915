"""What can be done with the variants of a style, each one entry of the history."""

from __future__ import annotations

from zesty_pivot.core.formats import variants
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.formats.variants import MAX_VARIANTS, Variant
from zesty_pivot.desk.document import Document


class VariantEdits:
    """Begins, shows, names and takes away variants."""

    def __init__(self, document: Document) -> None:
        self._document = document

    @property
    def all(self) -> tuple[Variant, ...]:
        """The variants of the document; none in a style without any."""
        return self._document.style.variants

    @property
    def shown(self) -> str:
        """The name of the one on the table; nothing in a style without variants."""
        one = variants.shown(self.all)
        return one.name if one is not None else ""

    def begin(self, at: int) -> bool:
        """Another variant that parts from the one on the table at a step, which is its own from then on and chosen; at -1 it is
        begun afresh from the block. False, and said, where a style has no room for one more."""
        style = self._document.style
        if len(self.all) >= MAX_VARIANTS:
            self._document.say(f"A style has room for {MAX_VARIANTS} variants. Take one away first.", fault=True)
            return False
        made, steps = variants.begun(style.variants, style.steps, at)
        name = variants.shown(made)
        step = at if 0 <= at < len(steps) else None
        looking = None if step is None or step + 1 == len(steps) else step + 1
        self._put(style.model_copy(update={"variants": made, "steps": steps}), "another variant", step, looking)
        self._document.say(f"Another variant: {name.name if name is not None else ''}. What comes before is common to both.")
        return True

    def show(self, name: str) -> None:
        """Puts a variant on the table."""
        if name != self.shown:
            self._put(self._document.style.with_variant(name), f"show {name}", None, None)

    def step_on(self, by: int) -> None:
        """Puts the next (1) or the one before (-1) on the table."""
        names = [one.name for one in self.all]
        if names:
            self.show(names[(names.index(self.shown) + by) % len(names)])

    def rename(self, name: str, new: str) -> None:
        """Calls a variant otherwise."""
        new = "".join(c for c in new if c.isprintable()).strip()
        if new and new != name:
            made = variants.renamed(self.all, name, new)
            self._document.edit(self._document.style.model_copy(update={"variants": made}), f"call the variant {new}")

    def remove(self, name: str) -> None:
        """Takes a variant away; where it is on the table, another comes there first."""
        style = self._document.style
        if name == self.shown:
            names = [one.name for one in self.all]
            at = names.index(name)
            style = style.with_variant(names[at - 1] if at else names[1])
        made = variants.without(style.variants, name)
        self._put(style.model_copy(update={"variants": made}), f"take away {name}", None, None)

    def _put(self, style: Style, title: str, step: int | None, looking: int | None) -> None:
        self._document.step, self._document.looking = step, looking
        self._document.edit(style, title[:200])
        self._document.chosen_changed.emit()
