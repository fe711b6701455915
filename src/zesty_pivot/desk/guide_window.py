"""The guide that ships, in a window beside the work."""

from __future__ import annotations

from PyQt6.QtCore import QUrl
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QListWidget, QTextBrowser, QWidget

from zesty_pivot.data.texts import GUIDE_PAGES, guide, guide_title

# Which page F1 opens: by the view, and in the style view by the panel.
PAGES = {
    "start": "begin.md",
    "measure": "measure.md",
    "block": "draft.md",
    "import": "import.md",
    "library": "import.md",
    "finish": "finish.md",
    "paper": "paper.md",
    "sizes": "sizes.md",
    "stand": "stand.md",
}
PANEL_PAGES = {
    "reading": "ring.md",
    "trace": "compare.md",
    "walk": "compare.md",
    "hand": "hand.md",
    "practise": "practise.md",
    "neck": "necklines.md",
    "stand": "stand.md",
}


def page_for(view: str, panel: str) -> str:
    """The page of the guide about what is seen."""
    return PAGES.get(view) or PANEL_PAGES.get(panel, "README.md")


class GuideWindow(QDialog):
    """Pages at the left, the text at the right; links between pages work, nothing is fetched."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Guide")
        self.resize(860, 640)
        self.pages, self.text = QListWidget(), QTextBrowser()
        self.pages.setFixedWidth(240)
        self.pages.setAccessibleName("Pages of the guide")
        self.text.setAccessibleName("Guide")
        self.text.setOpenLinks(False)
        for page in GUIDE_PAGES:
            self.pages.addItem(guide_title(page))
        row = QHBoxLayout(self)
        row.addWidget(self.pages)
        row.addWidget(self.text, 1)
        self.pages.currentRowChanged.connect(self._show)
        self.text.anchorClicked.connect(self._follow)
        self.page = ""

    def show_page(self, page: str) -> None:
        """Opens a page by its file name."""
        self.pages.setCurrentRow(GUIDE_PAGES.index(page))

    def _show(self, row: int) -> None:
        if 0 <= row < len(GUIDE_PAGES):
            self.page = GUIDE_PAGES[row]
            self.text.setMarkdown(guide(self.page))

    def _follow(self, url: QUrl) -> None:
        page = url.fileName()
        if page in GUIDE_PAGES:
            self.show_page(page)
