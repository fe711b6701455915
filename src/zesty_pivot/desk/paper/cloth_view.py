"""Cloth: how wide it is and how it lies, the lay on it, how much to buy."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QCheckBox, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.lay_models import CLOTHS, LayFile
from zesty_pivot.core.formats.lay_sheet import lay_rows
from zesty_pivot.core.formats.matching import notch_words
from zesty_pivot.core.quantity import Scope, Unit, length_mm, share_of
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast, asking
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.finish_view import WIDTH
from zesty_pivot.desk.labels import Figures, empty, label, titled
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.cloth_table import ClothTable
from zesty_pivot.desk.paper.cloths import Cloths

FOLDS = [("open", "open, one layer"), ("folded", "folded lengthwise")]
NAPS = [("none", "no nap: pieces lie either way up"), ("one_way", "one way: all tops to one end")]
LEANS = [("0", "grain exactly along"), ("1", "may lean by 1°"), ("2", "may lean by 2°"), ("3", "may lean by 3°")]
LENGTHS = {
    "width": "Width", "gap": "Between pieces", "selvedge": "Selvedge, each side",
    "repeat_along": "Stripes or checks repeat along", "repeat_across": "and across",
}  # fmt: skip
SHARES = {"shrinks_along": "Shrinks along, before it is cut", "shrinks_across": "and across"}
MATCHED = ("side_seam.balance",)  # where stripes are matched until other notches are named


class ClothView(QWidget):
    """Canvas and choices. Everything that is chosen goes to the cloths."""

    def __init__(self, model: DeskModel, cloths: Cloths, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._cloths = model, cloths
        self.canvas = ClothTable(model, cloths)
        self.which, self.add = Choice("Lay"), Choice("Another cloth")
        self.fold, self.nap, self.lean = Choice("How it lies"), Choice("Nap"), Choice("Lean of the grain")
        self.lengths = {key: CalcField(self._length_words, title) for key, title in LENGTHS.items()}
        self.shares = {key: CalcField(_share_words, title) for key, title in SHARES.items()}
        self.price = CalcField(_number_words, "Price of a metre")
        self.sets = CalcField(_count_words, "Garments at once")
        self.matches: dict[str, QCheckBox] = {}  # by the notch
        self._matches, self._match_title = QVBoxLayout(), label("Stripes meet at", "quiet")
        self.figures, self.compared = Figures(2), Figures(3)
        self.told, self.fault = label("", "warning"), label("", "fault")
        self._changed = ""  # what has changed since it was laid, in a sentence
        self.seek = QPushButton()
        self.remove = QPushButton("Take this cloth away")
        abreast(self, self.canvas, self._beside(run), widest=0)
        self._connect()

    def _beside(self, run: Callable[[str], None]) -> QWidget:
        self.side = SideColumn("right", 4)
        self.side.setFixedWidth(WIDTH)
        rows = self.side.rows
        rows.addWidget(label("Cloth", "heading"))
        rows.addWidget(self.which)
        rows.addWidget(self.fault)
        rows.addWidget(self.told)
        rows.addWidget(self.figures)
        titled(rows, "Width", self.lengths["width"])
        rows.addWidget(self.fold)
        rows.addWidget(self.nap)
        rows.addWidget(self.lean)
        for key, title in LENGTHS.items():
            if key != "width":
                titled(rows, title, self.lengths[key])
        rows.addWidget(self._match_title)
        self._matches.setSpacing(2)
        rows.addLayout(self._matches)
        for key, title in SHARES.items():
            titled(rows, title, self.shares[key])
        titled(rows, "Price of a metre", self.price)
        titled(rows, "Garments cut at once", self.sets)
        compare = QPushButton("Compare usual widths")
        compare.clicked.connect(lambda: self._cloths.compare())
        rows.addWidget(compare)
        rows.addWidget(self.compared)
        titled(rows, "Another cloth", self.add)
        rows.addWidget(self.remove)
        rows.addWidget(
            label(
                "Drag a piece, or choose it with N and P and move it with the arrow keys. A locked piece stays where it is.",
                "quiet",
            )
        )
        self.seek.setObjectName("primary")
        self.seek.clicked.connect(lambda: run("lay.find"))
        self.side.foot.addWidget(self.seek)
        for id, text in (
            ("lay.turn", "Turn the piece"),
            ("lay.lock", "Lock the piece, or let it go"),
            ("export.lay", "Save the lay"),
        ):
            self.side.foot.addWidget(asking(id, text, run))
        return self.side

    def _connect(self) -> None:
        cloths = self._cloths
        self.which.picked.connect(lambda number: cloths.choose(int(number)))
        self.add.picked.connect(lambda cloth: cloths.add(cloth) if cloth else None)
        self.remove.clicked.connect(lambda: cloths.remove())
        self.fold.picked.connect(lambda way: cloths.change("how the cloth lies", folded=way == "folded"))
        self.nap.picked.connect(lambda nap: cloths.change("the nap", nap=nap))
        self.lean.picked.connect(lambda lean: cloths.change("the lean of the grain", lean=float(lean)))
        for key, field in self.lengths.items():
            field.committed.connect(lambda text, key=key: self._length(key, text))
        for key, field in self.shares.items():
            field.committed.connect(lambda text, key=key: cloths.change(SHARES[key].lower(), **{key: text}))
        self.price.committed.connect(lambda text: cloths.change("the price", price=float(text.replace(",", "."))))
        self.sets.committed.connect(lambda text: cloths.change("garments at once", sets=int(text)))
        cloths.changed.connect(self.show_lay)
        cloths.dragged.connect(self._show_figures)

    def _length(self, key: str, text: str) -> None:
        told: dict[str, object] = {key: text}
        if key.startswith("repeat") and not self._cloths.lay.match:
            told["match"] = MATCHED
        self._cloths.change(LENGTHS[key].lower(), **told)

    def _length_words(self, text: str) -> str:
        mm = length_mm(text, Scope(self._model.style.units))
        if mm < 0.0:
            raise ZestyError(f"{text.strip()!r} is less than 0", where="cloth", advice="Write 0 or more.")
        return "" if _is_plain(text, self._model.style.units) else self._model.length(mm)

    # Showing.

    @contained("the cloth view")
    def show_lay(self) -> None:
        """Shows the lay that is seen."""
        if self._model.view != "paper":
            return
        cloths, lay = self._cloths, self._cloths.lay
        titles = [
            (str(n), f"{one.cloth}, {one.width}, {'folded' if one.folded else 'open'}") for n, one in enumerate(cloths.lays)
        ]
        self.which.show_choices(titles, str(cloths.number))
        self.add.show_choices([("", "choose one"), *((name, name) for name in CLOTHS)], "")
        self.remove.setEnabled(len(cloths.lays) > 1)
        self.fold.show_choices(FOLDS, "folded" if lay.folded else "open")
        self.nap.show_choices(NAPS, lay.nap)
        leans = LEANS if f"{lay.lean:g}" in dict(LEANS) else [*LEANS, (f"{lay.lean:g}", f"may lean by {lay.lean:g}°")]
        self.lean.show_choices(leans, f"{lay.lean:g}")
        owner = (self._model.opened, cloths.number)
        for key, field in self.lengths.items():
            field.set_text(str(getattr(lay, key)), owner)
        for key, field in self.shares.items():
            field.set_text(str(getattr(lay, key)), owner)
        self.price.set_text(f"{lay.price:g}", owner)
        self.sets.set_text(str(lay.sets), owner)
        self._show_matches(lay)
        self.seek.setText("Stop: this lay is good" if cloths.search.is_at_work else "Find a shorter lay")
        changed = cloths.changed_since
        self._changed = f"Changed since it was laid: {changed}." if changed else ""
        self._show_figures()
        self.fault.setText(cloths.fault)
        self.fault.setVisible(bool(cloths.fault))
        widths = [
            (width, self._model.length(mm) if mm else "not wide enough", f"{cost:.2f}" if cost else "")
            for width, mm, cost in cloths.compared
        ]
        self.compared.show_rows(widths)
        self.compared.setVisible(bool(widths))

    def _show_matches(self, lay: LayFile) -> None:
        """The notches that stripes can meet at, when there are any stripes."""
        known = self._cloths.matchable
        self._match_title.setVisible(bool(known))
        if tuple(self.matches) != known:
            empty(self._matches)
            self.matches = {id: QCheckBox(notch_words(id)) for id in known}
            for box in self.matches.values():
                box.clicked.connect(lambda _on: self._cloths.change("where it matches", match=self._matched()))
                self._matches.addWidget(box)
        for id, box in self.matches.items():
            box.setChecked(id in lay.match)

    def _matched(self) -> tuple[str, ...]:
        return tuple(id for id, box in self.matches.items() if box.isChecked())

    @contained("the figures of the lay")
    def _show_figures(self) -> None:
        """What follows a piece while it is dragged."""
        plan, told = self._cloths.plan, [self._changed] if self._changed else []
        rows = [] if plan is None else list(lay_rows(plan, self._model.style.units)[1:6])
        if plan is not None and plan.cloth.price:
            rows.append(("Cost", f"{plan.cost:.2f}"))
        self.figures.show_rows(rows)
        if plan is not None and plan.clashes:
            told.append(f"{len(plan.clashes)} pieces lie on each other or off the cloth.")
        self.told.setText(" ".join(told))
        self.told.setVisible(bool(told))


def _is_plain(text: str, unit: Unit) -> bool:
    """Whether a length is written as a number in the style's own unit: nothing need be said of what it is worth."""
    try:
        return bool(float(text.strip().removesuffix(unit)) >= 0.0)
    except ValueError:
        return False


def _share_words(text: str) -> str:
    share = share_of(text)
    if share > 0.3:
        raise ZestyError("more than 30 %", where="cloth", advice="Cloth that shrinks so much is washed first.")
    return f"{100.0 * share:g} %" if not text.strip().endswith("%") else ""


def _number_words(text: str) -> str:
    try:
        price = float(text.replace(",", "."))
    except ValueError:
        raise ZestyError(f"{text!r} is no price", where="cloth", advice="Write a number such as 18.50.") from None
    if not 0.0 <= price <= 1e6:
        raise ZestyError(f"{text!r} is no price", where="cloth", advice="Write a number such as 18.50.")
    return ""


def _count_words(text: str) -> str:
    if not text.strip().isdigit() or not 1 <= int(text) <= 20:
        raise ZestyError(f"{text!r} is no count", where="cloth", advice="Write a whole number from 1 to 20.")
    return ""
