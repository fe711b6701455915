"""The start page: work that was not saved, demo styles, recent files, ways to begin, what is new."""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

from PyQt6.QtCore import QSize, Qt, QTimer
from PyQt6.QtGui import QMouseEvent, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractButton,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QSizePolicy,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from zesty_pivot import __version__
from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.leftovers import Leftover
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.making.flat_sketch import SketchView
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.texts import news
from zesty_pivot.desk.beside import Beside
from zesty_pivot.desk.column import Column, abreast
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.documents import Documents
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.labels import empty, label, repolish
from zesty_pivot.desk.sketches import searched, sketch_picture
from zesty_pivot.desk.thumbs import thumbnail

PICTURE = QSize(232, 128)
RIGHT = 300

# Buttons at the right: action, what it says here, icon.
BEGINNINGS = (
    ("file.new", "New style from a block…", "file-plus"),
    ("people.new", "A block from measurements", "pen-line"),
    ("import.open", "A block from a drawing or photo…", "image"),
    ("ruler.show", "A block by ruler", "tape"),
    ("digitiser.show", "A block by digitiser", "spline"),
    ("library.show", "Block library", "layers"),
    ("file.new_demo", "New style over the demo's block", "scissors"),
    ("file.open", "Open a style…", "folder-open"),
    ("help.tour", "Show me the ring", "graduation-cap"),
    ("help.guide", "Read the guide", "book-open"),
)


class StyleCard(QAbstractButton):
    """A style as a button: picture, name, and a line about it."""

    def __init__(self, title: str, about: str) -> None:
        super().__init__()
        self.setObjectName("stylecard")
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(f"{title}, {about}")
        frame = QFrame(self)
        frame.setObjectName("card")
        self.frame = frame
        self.picture = QLabel()
        self.picture.setFixedSize(PICTURE)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.title, self.about = label(title, "figure"), label(about, "quiet")
        inner = QVBoxLayout(frame)
        inner.setContentsMargins(10, 10, 10, 10)
        inner.setSpacing(2)
        inner.addWidget(self.picture, 0, Qt.AlignmentFlag.AlignHCenter)
        inner.addWidget(self.title)
        inner.addWidget(self.about)
        inner.addStretch(1)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(frame)
        frame.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setFixedWidth(PICTURE.width() + 24)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Preferred)
        self.setToolTip(about)

    def sizeHint(self) -> QSize:
        return self.layout().sizeHint() if self.layout() else super().sizeHint()  # type: ignore[union-attr]

    def paintEvent(self, event: object) -> None:
        """The frame inside draws itself; its border tells the focus."""
        wanted = self.hasFocus() or self.underMouse()
        if self.frame.property("chosen") != wanted:
            self.frame.setProperty("chosen", wanted)
            repolish(self.frame)


class LeftoverCard(QFrame):
    """Work that was not saved: its picture, when it was written down, and what to do with it."""

    def __init__(self, left: Leftover) -> None:
        super().__init__()
        self.setObjectName("card")
        self.left = left
        self.picture = QLabel()
        self.picture.setFixedSize(PICTURE)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        where = files.shown(left.document, whole=True) if left.document is not None else "never saved"
        count = len(left.style.steps)
        steps = f"{count} step{'' if count == 1 else 's'}"
        self.back, self.aside = QPushButton("Bring it back"), QPushButton("Let it go")
        self.back.setObjectName("primary")
        words = QVBoxLayout()
        words.addWidget(label(left.style.name, "figure"))
        words.addWidget(label(f"Written down {ago(left.written)}, {steps}, {where}.", "quiet"))
        if left.is_older:
            words.addWidget(
                label("The file has been saved since: this is older. It comes back as a style of its own.", "warning")
            )
        row = QHBoxLayout()
        row.addWidget(self.back)
        row.addWidget(self.aside)
        row.addStretch(1)
        words.addLayout(row)
        words.addStretch(1)
        layout = QHBoxLayout(self)
        layout.addWidget(self.picture)
        layout.addLayout(words, 1)


Card = StyleCard | LeftoverCard


class StartPage(QWidget):
    """Everything a day begins with. A card has a picture of the pattern at once, and the flat sketch when it is worked out."""

    def __init__(self, docs: Documents, keeper: Keeper, run: Callable[[str], None]) -> None:
        super().__init__()
        self._docs, self._keeper = docs, keeper
        self._queue: list[tuple[Card, Callable[[], Style]]] = []
        self._to_sketch: list[tuple[Card, Derived]] = []
        self._sketches: dict[Card, tuple[SketchView, ...]] = {}
        self._sketching = Beside("drawing flat sketches")
        self._sketching.improved.connect(self._sketch)
        self._sketching.ended.connect(lambda _asked, _fault: self._sketch_on())
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._draw_next)
        left, right = Column(), Column()
        left.rows.setContentsMargins(34, 26, 28, 26)
        left.rows.setSpacing(10)
        right.rows.setSpacing(8)
        self._fill_left(left)
        self._fill_right(right, run)
        side = right.scrolled()
        side.setFixedWidth(RIGHT)
        abreast(self, left.scrolled(), side, widest=0)
        self.show_leftovers(())
        keeper.settings_changed.connect(self._show_recent)

    def _fill_left(self, left: Column) -> None:
        """What was left unsaved, the demos, and what was open lately."""
        self.leftovers: list[LeftoverCard] = []
        self._unsaved_title = label("Work that was not saved", "title")
        self._unsaved = QVBoxLayout()
        left.rows.addWidget(self._unsaved_title)
        left.rows.addLayout(self._unsaved)
        self.demos: list[StyleCard] = []
        self.recents: list[StyleCard] = []
        left.rows.addWidget(label("Begin with a demo", "title"))
        self._demo_grid = QGridLayout()
        self._demo_grid.setSpacing(12)
        left.rows.addLayout(self._demo_grid)
        self._make_demos()
        self._recent_title = label("Recent styles", "title")
        left.rows.addWidget(self._recent_title)
        self._recent = QGridLayout()
        self._recent.setSpacing(12)
        left.rows.addLayout(self._recent)
        self._none = label("Styles you save or open stand here.", "quiet")
        left.rows.addWidget(self._none)
        left.rows.addStretch(1)

    def _fill_right(self, right: Column, run: Callable[[str], None]) -> None:
        """Other beginnings, and what is new."""
        right.rows.addWidget(label("Begin", "heading"))
        self.buttons: dict[str, QPushButton] = {}
        for id, title, picture in BEGINNINGS:
            button = QPushButton(title)
            button.setObjectName("step")
            button.setIcon(icon(picture))
            button.setProperty("icon_name", picture)
            button.clicked.connect(lambda _checked=False, id=id: run(id))
            self.buttons[id] = button
            right.rows.addWidget(button)
        right.rows.addWidget(label("Or drop a style or a block anywhere on this window.", "quiet"))
        right.rows.addSpacing(10)
        right.rows.addWidget(label(f"What is new in {__version__}", "heading"))
        self.news = QTextBrowser()
        self.news.setAccessibleName("What is new")
        self.news.setMarkdown(news())
        self.news.setMinimumHeight(180)
        right.rows.addWidget(self.news, 1)

    @contained("the start page")
    def restyle(self) -> None:
        """Draws what holds colours of its own anew."""
        for button in self.buttons.values():
            button.setIcon(icon(button.property("icon_name")))
        for card in self.demos:
            self._show_sketch(card)
        self._show_recent()

    @property
    def is_drawn(self) -> bool:
        """Whether no card waits for its picture."""
        return not self._queue and not self._to_sketch and not self._sketching.is_at_work

    def _draw(self, card: Card, style: Style) -> None:
        """The pattern of a style as a small picture; its flat sketch comes after all of them."""
        derived, ratio = derive(style), card.picture.devicePixelRatioF()
        card.picture.setPixmap(thumbnail(derived.pattern, derived.derivation.block, PICTURE, ratio, style.table.left))
        self._to_sketch.append((card, derived))

    def _sketch_on(self) -> None:
        """Works out the sketches that are wanted, when none is being worked out."""
        if self._to_sketch and not self._queue and not self._sketching.is_at_work and self.isVisible():
            wanted, self._to_sketch = self._to_sketch, []
            self._sketching.begin(wanted, searched(wanted))

    def _sketch(self, _asked: object, found: tuple[Card, tuple[SketchView, ...]]) -> None:
        card, views = found
        self._sketches[card] = views
        self._show_sketch(card)

    def _show_sketch(self, card: Card) -> None:
        if (views := self._sketches.get(card)) and card in self._cards:
            card.picture.setPixmap(sketch_picture(views, PICTURE, card.picture.devicePixelRatioF()))

    @property
    def _cards(self) -> tuple[Card, ...]:
        return (*self.demos, *self.recents, *self.leftovers)

    def let_go(self) -> None:
        """Ends what goes on beside."""
        self._sketching.close()

    def _make_demos(self) -> None:
        for style in demo_styles():
            card = StyleCard(style.name, style.notes.partition(". ")[0].rstrip(".") + ".")
            card.clicked.connect(lambda _checked=False, style=style: self._open_demo(style))
            self.demos.append(card)
            self._queue.append((card, lambda style=style: style))  # type: ignore[misc]

    def _columns(self) -> int:
        return max(1, (self.width() - RIGHT - 70) // (PICTURE.width() + 36))

    def _lay_cards(self) -> None:
        """The cards in as many columns as the page has room for."""
        columns = self._columns()
        for grid, cards in ((self._demo_grid, self.demos), (self._recent, self.recents)):
            for number, card in enumerate(cards):
                grid.addWidget(card, number // columns, number % columns)
            for column in range(8):
                grid.setColumnStretch(column, 1 if column == columns else 0)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._lay_cards()

    def _open_demo(self, style: Style) -> None:
        self._docs.open_demo(style)

    def refresh(self) -> None:
        """Shows the recent files; called when the page is looked at."""
        self._sketches = {card: views for card, views in self._sketches.items() if card in self._cards}
        self._show_recent()
        self._timer.start(0)

    def show_leftovers(self, found: tuple[Leftover, ...]) -> None:
        """Offers unsaved work."""
        empty(self._unsaved)
        self.leftovers = []
        for left in found:
            card = LeftoverCard(left)
            card.back.clicked.connect(lambda _checked=False, card=card: self._bring_back(card))
            card.aside.clicked.connect(lambda _checked=False, card=card: self._let_go(card))
            self.leftovers.append(card)
            self._unsaved.addWidget(card)
            self._queue.insert(len(self.leftovers) - 1, (card, lambda left=left: left.style))  # type: ignore[misc]
        self._unsaved_title.setVisible(bool(self.leftovers))
        self._timer.start(0)

    def _bring_back(self, card: LeftoverCard) -> None:
        """The work is open again, unless something that is open now is not to be left."""
        if self._docs.bring_back(card.left):
            self._settle(card)

    def _let_go(self, card: LeftoverCard) -> None:
        self._keeper.put_aside(card.left)
        self._settle(card)

    def _settle(self, card: LeftoverCard) -> None:
        self.leftovers.remove(card)
        self._unsaved.removeWidget(card)
        card.hide()
        card.deleteLater()
        self._unsaved_title.setVisible(bool(self.leftovers))

    def _show_recent(self) -> None:
        empty(self._recent)
        self.recents = []
        for name in self._keeper.settings.recent:
            path = Path(name)
            card = StyleCard(path.stem, str(path.parent))
            card.clicked.connect(lambda _checked=False, path=path: self._open_recent(path))
            card.setToolTip(name)
            self.recents.append(card)
            self._queue.append((card, lambda path=path: style_file.read(path)))  # type: ignore[misc]
        self._lay_cards()
        self._none.setVisible(not self.recents)
        if self.isVisible():
            self._timer.start(0)

    def _open_recent(self, path: Path) -> None:
        self._docs.open_path(path)

    def _draw_next(self) -> None:
        """One picture at a time, so that the page answers meanwhile."""
        while self._queue:
            card, style = self._queue.pop(0)
            if card not in self._cards:
                continue
            try:
                self._draw(card, style())
            except ZestyError as fault:
                card.picture.setText("cannot be read")
                card.setToolTip(str(fault))
            except Exception as fault:  # noqa: BLE001 - the boundary of a card: the page goes on without its picture
                faults.caught(fault, "the picture of a style")
                card.picture.setText("no picture")
            break
        if self._queue:
            self._timer.start(0)
        else:
            self._sketch_on()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.setFocus()


def ago(when: datetime) -> str:
    """How long ago a time (UTC) was, in words."""
    minutes = max(0, round((datetime.now(UTC) - when).total_seconds() / 60.0))
    if minutes < 1:
        return "just now"
    if minutes < 60:
        return f"{minutes} minute{'' if minutes == 1 else 's'} ago"
    if minutes < 24 * 60:
        hours = round(minutes / 60.0)
        return f"{hours} hour{'' if hours == 1 else 's'} ago"
    return f"on {when.astimezone():%d %B %Y}"
