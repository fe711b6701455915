"""Pages as they will come out of the printer, and the ways to get the pattern out."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QCheckBox, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.base import FULL
from zesty_pivot.core.exports.registry import all_exports
from zesty_pivot.core.formats.printing import chosen_pages
from zesty_pivot.core.nest.paged import OVERLAP, PAPERS, page_setup
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.recipe.hand import WAYS
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column, abreast, asking, side
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.finish_view import WIDTH
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.pages_canvas import PagesCanvas
from zesty_pivot.desk.paper.paging import Paging

OWN = "own"
SHOWN = 6  # changes since the last print that are told; the others are counted
DXF_VERSIONS = [
    ("R12", "R12: every system reads it"),
    ("R2000", "R2000, with exact curves"),
    ("R2010", "R2010, with exact curves"),
]
FIRST_OWN = "330x480"  # mm: a sheet of the larger office printers


class PagesView(QWidget):
    """Preview, paper choice and export buttons. The buttons run actions of the window's table."""

    def __init__(self, model: DeskModel, paging: Paging, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._paging = model, paging
        self.canvas = PagesCanvas(model)
        self.paper, self.hand, self.joins = Choice("Paper"), Choice("Hand sheet"), Choice("How pages join")
        self.dxf = Choice("Version of the DXF")
        self.own = CalcField(self._own_words, "Width and height of the paper")
        self.edge = CalcField(self._edge_words, "White edge of the printer")
        self.only = CalcField(self._only_words, "Pages to print", may_be_empty=True)
        self.apart = QCheckBox("Pages of its own for every piece")
        self.colour = QCheckBox("Lines in colours")
        self.stood = QCheckBox("Stand on cut sheet and report")
        self.stood.setToolTip("A page with the pattern on the form of its body, and what that tells; it takes some ten seconds")
        self.pack = QPushButton()
        self.summary = label("", "quiet")
        self.fault, self.open_findings = label("", "fault"), label("", "warning")
        self.last = label("", "quiet")
        abreast(self, self.canvas, self._beside(run), widest=0)
        self._connect()

    def _beside(self, run: Callable[[str], None]) -> QWidget:
        beside = side("right")
        beside.setFixedWidth(WIDTH)
        inside = Column()
        column = inside.rows
        column.setSpacing(6)
        around = QVBoxLayout(beside)
        around.setContentsMargins(0, 0, 0, 0)
        column.addWidget(label("Paper", "heading"))
        column.addWidget(self.paper)
        column.addWidget(self.own)
        column.addWidget(self.joins)
        for title, field in (("White edge of the printer", self.edge), ("Pages to print, as 2, 5-7", self.only)):
            titled(column, title, field)
        self.only.edit.setPlaceholderText("all")
        column.addWidget(self.apart)
        column.addWidget(self.colour)
        column.addWidget(self.summary)
        column.addWidget(self.pack)
        column.addWidget(self.fault)
        column.addWidget(self.open_findings)
        column.addWidget(self.last)
        column.addSpacing(8)
        column.addWidget(label("Get it out", "heading"))
        titled(column, "Hand sheet after the pages", self.hand)
        titled(column, "Version of the DXF", self.dxf)
        column.addWidget(self.stood)
        column.addWidget(asking("print.pages", "Print", run))
        said = {f"export.{one.id}": f"Save the {one.button or one.title}" for one in all_exports().values()}
        said |= {"export.hand": "Save the hand sheet alone", "export.all": "Save everything to a folder"}
        for action, text in said.items():
            button = asking(action, text, run)
            if action == "export.pdf":
                button.setObjectName("primary")
            column.addWidget(button)
        column.addSpacing(8)
        hint = (
            "Print at 100 %, without fitting to the page. Measure the square on the first page, or the frame of any, "
            "before you cut. Click a page to leave it out."
        )
        column.addWidget(label(hint, "quiet"))
        column.addStretch(1)
        around.addWidget(inside.scrolled())
        return beside

    def _connect(self) -> None:
        paging, model = self._paging, self._model
        self.paper.picked.connect(lambda paper: paging.change(paper=FIRST_OWN if paper == OWN else paper))
        self.own.committed.connect(lambda text: paging.change(paper=_size(text)))
        self.joins.picked.connect(lambda mm: paging.change(overlap=float(mm)))
        self.edge.committed.connect(lambda text: paging.change(edge=self._mm(text)))
        self.only.committed.connect(paging.print_only)
        self.apart.clicked.connect(lambda on: paging.change(apart=on))
        self.colour.clicked.connect(lambda on: paging.change(print_colour=on))
        self.pack.clicked.connect(lambda: paging.stop() if paging.packer.is_at_work else paging.pack())
        self.canvas.clicked.connect(paging.toggle)
        self.stood.clicked.connect(lambda on: paging.change(on_stand=on))
        self.dxf.picked.connect(lambda version: paging.change(dxf=version))
        self.hand.picked.connect(lambda way: model.recipe.set_finish({"hand_sheet": way}, "hand sheet"))
        paging.changed.connect(self._show)

    # What is typed.

    def _mm(self, text: str) -> float:
        return length_mm(text, Scope(self._model.style.units))

    def _edge_words(self, text: str) -> str:
        printing = self._paging.printing
        setup = page_setup(printing.paper, self._mm(text), printing.overlap)
        unit = self._model.length
        return f"{unit(setup.field[0])} by {unit(setup.field[1])} are printed"

    def _own_words(self, text: str) -> str:
        printing = self._paging.printing
        setup = page_setup(_size(text), printing.edge, printing.overlap)
        return f"{self._model.length(setup.width)} wide, {self._model.length(setup.height)} high"

    def _only_words(self, text: str) -> str:
        count = len(chosen_pages(text, self._paging.pages))
        return "1 page" if count == 1 else f"{count} pages"

    # What is so.

    @contained("the view of the pages")
    def _show(self) -> None:
        if self._model.view != "paper":
            return
        paging, unit = self._paging, self._model.length
        is_own = paging.chosen not in PAPERS and paging.chosen != FULL
        papers = [(name, f"{name}, in pages") for name in PAPERS]
        papers += [(OWN, "paper of another size"), (FULL, "one page at full size")]
        self.paper.show_choices(papers, OWN if is_own else paging.chosen)
        self.own.setVisible(is_own)
        self.own.set_text(paging.chosen, "paper")
        shared = paging.printing.overlap
        ways = [
            (f"{OVERLAP:g}", f"glued over {unit(OVERLAP)}"),
            ("15", f"glued over {unit(15.0)}"),
            ("0", "cut, laid edge to edge"),
        ]
        if f"{shared:g}" not in [mm for mm, _title in ways]:
            ways.append((f"{shared:g}", f"glued over {unit(shared)}"))
        self.joins.show_choices(ways, f"{shared:g}")
        self.edge.set_text(unit(paging.printing.edge), "edge")
        self.only.set_text(paging.only, "pages")
        self.apart.setChecked(paging.printing.apart)
        self.colour.setChecked(paging.printing.in_colour)
        self.stood.setChecked(paging.printing.on_stand)
        self.hand.show_choices([("none", "none"), *WAYS.items()], self._model.style.finish.hand_sheet)
        self.dxf.show_choices(DXF_VERSIONS, paging.printing.dxf)
        for part in (self.joins, self.edge, self.only, self.apart, self.pack):
            part.setEnabled(paging.chosen != FULL)
        try:
            self._show_pages()
            self.fault.setText(paging.fault)
        except ZestyError as fault:
            self.canvas.show_plan(None)
            self.fault.setText(str(fault))
        self.fault.setVisible(bool(self.fault.text()))
        when, changed = paging.last
        since = (
            f" Since then: {'; '.join(changed[:SHOWN])}{f'; and {len(changed) - SHOWN} more' if len(changed) > SHOWN else ''}."
        )
        self.last.setText((f"{capital(when)}.{since if changed else ' Nothing has changed since.'}") if when else "")
        self.last.setVisible(bool(when))
        count = sum(finding.severity.value != "remark" for finding in self._model.derived.findings)
        stand = "1 finding stands" if count == 1 else f"{count} findings stand"
        self.open_findings.setText(f"{stand} open: look at Style before you cut." if count else "")
        self.open_findings.setVisible(bool(count))

    def _show_pages(self) -> None:
        paging, unit = self._paging, self._model.length
        at_work = paging.packer.is_at_work
        self.pack.setText("Stop: these pages are good" if at_work else "Look for fewer pages")
        if paging.chosen == FULL:
            sheet = self._model.derived.sheet
            self.canvas.show_sheet(sheet)
            self.summary.setText(f"One page of {unit(sheet.width)} by {unit(sheet.height)}.")
            return
        self.canvas.show_plan(paging.plan, paging.printed)
        if paging.plan is None:
            self.summary.setText("")
            return
        plan, printed = paging.plan, paging.printed
        pages = "1 page" if len(plan.pages) == 1 else f"{len(plan.pages)} pages"
        only = "" if len(printed) == len(plan.pages) else f", {len(printed)} of them printed"
        self.summary.setText(
            f"{pages}{only}, {plan.columns} across by {plan.rows} down, and a first page with the map."
            + (" Looking for fewer…" if at_work else "")
        )


def _size(text: str) -> str:
    """What was typed for a paper's size, without spaces: `330 x 480` is meant as `330x480`."""
    return text.replace(" ", "")
