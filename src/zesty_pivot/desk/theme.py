"""Colours, sizes and type in one place; no widget has a literal colour."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from importlib.resources import as_file, files
from pathlib import Path

from PyQt6.QtGui import QColor, QFont, QFontDatabase, QPalette

from zesty_pivot.core.lettering import FACES

TEXT = "Hanken Grotesk"
DISPLAY = "Fraunces"


@dataclass(frozen=True)
class Theme:
    """The light theme: warm paper, dark ink, citrus for what is moved, a cool blue for what is chosen.

    `citrus_ink` is the citrus that text may have; `chevron` the icon of drop-downs in this theme's ink.
    """

    name: str = "light"
    table: str = "#e7dfd0"
    table_line: str = "#ddd3c0"
    paper: str = "#fdfaf3"
    panel: str = "#f6f1e6"
    edge: str = "#d3c8b4"
    ink: str = "#26221d"
    quiet: str = "#6a6154"
    faint: str = "#a79c8a"
    citrus: str = "#d9760b"
    citrus_fill: str = "#f7a531"
    citrus_pale: str = "#fde9c8"
    citrus_ink: str = "#8f4a00"
    cool: str = "#1f6584"
    cool_fill: str = "#8dbccf"
    cool_pale: str = "#dbeaf0"
    error: str = "#a5271f"
    error_pale: str = "#f8dcd6"
    good: str = "#3b6b35"
    shadow: str = "#3a2f1d"
    chevron: str = "chevron-down"
    check: str = "check-on-cool"

    def color(self, name: str, alpha: int = 255) -> QColor:
        """A colour by its name in the theme."""
        found = QColor(getattr(self, name))
        found.setAlpha(alpha)
        return found


LIGHT = Theme()

DARK = Theme(
    name="dark", table="#1d1a17", table_line="#2a2621", paper="#37322b", panel="#26221e", edge="#544c40", ink="#f3ebdd",
    quiet="#c2b6a2", faint="#8a7f6e", citrus="#f39a2d", citrus_fill="#c9720c", citrus_pale="#4b3516", citrus_ink="#ffbd66",
    cool="#86c8e4", cool_fill="#35718d", cool_pale="#223f4c", error="#ffa194", error_pale="#54241d", good="#a5d39a",
    shadow="#000000", chevron="chevron-down-light", check="check-on-cool-light",
)  # fmt: skip

THEMES = {theme.name: theme for theme in (LIGHT, DARK)}


class _InUse:
    """The theme in use: widgets ask it for colours whenever they draw."""

    def __init__(self) -> None:
        self._theme = LIGHT

    @property
    def theme(self) -> Theme:
        """The theme itself."""
        return self._theme

    def use(self, theme: Theme) -> None:
        """Another theme from now on."""
        self._theme = theme

    def color(self, name: str, alpha: int = 255) -> QColor:
        """A colour by its name in the theme."""
        return self._theme.color(name, alpha)

    def __getattr__(self, name: str) -> str:
        return str(getattr(self._theme, name))


NOW = _InUse()


@contextmanager
def printed() -> Iterator[None]:
    """The light theme for a while: pictures that leave the program are on paper."""
    before = NOW.theme
    NOW.use(LIGHT)
    try:
        yield
    finally:
        NOW.use(before)


def palette(theme: Theme) -> QPalette:
    """The colours of what the style sheet leaves to Qt: sliders, check boxes, placeholders."""
    found = QPalette()
    roles = QPalette.ColorRole
    for role, name in (
        (roles.Window, "panel"), (roles.WindowText, "ink"), (roles.Base, "paper"), (roles.AlternateBase, "panel"),
        (roles.Text, "ink"), (roles.Button, "paper"), (roles.ButtonText, "ink"), (roles.Highlight, "cool"),
        (roles.HighlightedText, "paper"), (roles.PlaceholderText, "quiet"), (roles.Link, "cool"), (roles.Light, "edge"),
        (roles.Mid, "edge"), (roles.Dark, "quiet"), (roles.ToolTipBase, "ink"), (roles.ToolTipText, "paper"),
    ):  # fmt: skip
        found.setColor(role, theme.color(name))
    return found


def load_fonts() -> None:
    """Makes the shipped type known to Qt, which takes letters that the first font lacks from the others. One that is missing is
    passed over: the system's stand in."""
    folder = files("zesty_pivot.data") / "fonts"
    own = ("HankenGrotesk-Regular.ttf", "HankenGrotesk-SemiBold.ttf", "HankenGrotesk-Bold.ttf", "Fraunces-SemiBold.ttf")
    others = (face.file(bold=bold) for face in FACES[1:] for bold in (False, True))
    for name in dict.fromkeys((*own, *others)):
        with as_file(folder / name) as path:
            QFontDatabase.addApplicationFont(str(path))


def text_font(points: float = 10.0, *, bold: bool = False) -> QFont:
    """The text type; its figures are of one width."""
    font = QFont(TEXT)
    font.setPointSizeF(points)
    font.setWeight(QFont.Weight.DemiBold if bold else QFont.Weight.Normal)
    return font


def display_font(points: float) -> QFont:
    """The type of headings and of names on the table."""
    font = QFont(DISPLAY)
    font.setPointSizeF(points)
    font.setWeight(QFont.Weight.DemiBold)
    return font


def stylesheet(theme: Theme) -> str:
    """The application's style sheet."""
    t = theme
    check = (Path(str(files("zesty_pivot.data"))) / "icons" / f"{t.check}.svg").as_posix()
    arrow = (Path(str(files("zesty_pivot.data"))) / "icons" / f"{t.chevron}.svg").as_posix()
    return f"""
    * {{ font-family: "{TEXT}"; font-size: 10pt; color: {t.ink}; }}
    QMainWindow, QDialog, QMessageBox, QFileDialog {{ background: {t.panel}; }}
    QWidget#panel, QWidget#header, QWidget#strip {{ background: {t.panel}; }}
    QWidget#header {{ border-bottom: 1px solid {t.edge}; }}
    QWidget#strip {{ border-top: 1px solid {t.edge}; }}
    QWidget#left {{ background: {t.panel}; border-right: 1px solid {t.edge}; }}
    QWidget#right {{ background: {t.panel}; border-left: 1px solid {t.edge}; }}
    QWidget#foot {{ background: {t.panel}; border-top: 1px solid {t.edge}; }}
    QFrame#notice {{ background: {t.citrus_pale}; border-bottom: 1px solid {t.edge}; }}
    QFrame#tour {{ background: {t.paper}; border: 2px solid {t.citrus}; border-radius: 9px; }}
    QScrollArea, QScrollArea > QWidget > QWidget {{ background: transparent; border: none; }}
    QLabel#crumb {{ color: {t.quiet}; }}
    QLabel#title, QLabel#heading {{ font-family: "{DISPLAY}"; font-weight: 600; }}
    QLabel#title {{ font-size: 14pt; }}
    QLabel#heading {{ font-size: 12pt; }}
    QLabel#quiet {{ color: {t.quiet}; }}
    QLabel#fault {{ color: {t.error}; }}
    QLabel#warning {{ color: {t.citrus_ink}; font-weight: 600; }}
    QLabel#figure {{ font-weight: 600; }}
    QLabel#message {{ color: {t.ink}; background: {t.citrus_pale}; padding: 6px 14px; border: 1px solid {t.edge};
        border-radius: 7px; }}
    QLabel#message[fault="true"] {{ background: {t.error_pale}; color: {t.error}; }}
    QPushButton, QToolButton {{
        background: {t.paper}; border: 1px solid {t.edge}; border-radius: 6px; padding: 5px 11px;
    }}
    QToolButton {{ padding: 4px; }}
    QPushButton:hover, QToolButton:hover {{ border-color: {t.cool}; }}
    QPushButton:focus, QToolButton:focus, QComboBox:focus, QLineEdit:focus, QListWidget:focus, QSpinBox:focus {{
        border: 2px solid {t.cool};
    }}
    QPushButton:disabled, QToolButton:disabled {{ color: {t.faint}; background: {t.panel}; }}
    QPushButton:checked {{ background: {t.cool_pale}; border: 2px solid {t.cool}; }}
    QPushButton#primary {{ background: {t.cool}; color: {t.paper}; border-color: {t.cool}; font-weight: 600; }}
    QPushButton#primary:disabled {{ background: {t.edge}; border-color: {t.edge}; color: {t.quiet}; }}
    QPushButton#tab, QPushButton#tab:checked {{ background: transparent; border: none; border-radius: 0;
        border-bottom: 3px solid transparent; padding: 9px 12px 7px 12px; color: {t.quiet}; }}
    QWidget#right QPushButton#tab {{ padding: 7px 4px 5px 4px; }}
    QPushButton#tab:hover {{ color: {t.ink}; }}
    QPushButton#tab:checked {{ color: {t.ink}; font-weight: 600; border-bottom: 3px solid {t.citrus}; }}
    QPushButton#tab:focus {{ color: {t.cool}; border-bottom: 3px solid {t.cool}; }}
    QToolButton#shape {{ background: {t.panel}; border: 1px solid transparent; border-radius: 6px; padding: 3px 1px;
        font-size: 8.5pt; }}
    QToolButton#shape:hover {{ border-color: {t.citrus}; }}
    QToolButton#shape:focus {{ border-color: {t.cool}; }}
    QToolButton#shape:checked {{ background: {t.cool_pale}; border-color: {t.cool}; }}
    QPushButton#step {{ text-align: left; padding: 6px 10px; }}
    QPushButton#icon {{ padding: 6px 8px; }}
    QLineEdit, QComboBox, QSpinBox {{
        background: {t.paper}; border: 1px solid {t.edge}; border-radius: 5px; padding: 4px 7px; min-height: 20px;
        selection-background-color: {t.cool}; selection-color: {t.paper};
    }}
    QLineEdit[fault="true"] {{ border: 2px solid {t.error}; }}
    QComboBox::drop-down {{ border: none; width: 20px; }}
    QComboBox::down-arrow {{ image: url("{arrow}"); width: 14px; height: 14px; margin-right: 6px; }}
    QComboBox QAbstractItemView {{ background: {t.paper}; border: 1px solid {t.edge};
        selection-background-color: {t.cool_pale}; selection-color: {t.ink}; }}
    QMenuBar {{ background: {t.panel}; }}
    QMenuBar::item {{ padding: 4px 10px; background: transparent; }}
    QMenuBar::item:selected, QMenu::item:selected {{ background: {t.cool_pale}; }}
    QMenu {{ background: {t.paper}; border: 1px solid {t.edge}; padding: 4px; }}
    QMenu::item {{ padding: 5px 28px 5px 14px; }}
    QMenu::item:disabled {{ color: {t.faint}; }}
    QMenu::separator {{ height: 1px; background: {t.edge}; margin: 4px 8px; }}
    QToolTip {{ background: {t.ink}; color: {t.paper}; border: none; padding: 5px 8px; }}
    QCheckBox {{ spacing: 7px; padding: 2px; }}
    QCheckBox::indicator {{ width: 14px; height: 14px; border: 1px solid {t.quiet}; border-radius: 3px;
        background: {t.paper}; }}
    QCheckBox::indicator:checked {{ background: {t.cool}; border-color: {t.cool}; image: url("{check}"); }}
    QCheckBox::indicator:disabled {{ border-color: {t.edge}; }}
    QCheckBox:focus, QSlider:focus {{ border: 1px dotted {t.cool}; }}
    QTextBrowser, QListWidget, QTableWidget, QPlainTextEdit {{ background: {t.paper}; border: 1px solid {t.edge};
        border-radius: 6px; selection-background-color: {t.cool_pale}; selection-color: {t.ink}; }}
    QTextBrowser:focus, QTableWidget:focus {{ border: 2px solid {t.cool}; }}
    QListWidget::item {{ padding: 6px 8px; }}
    QListWidget::item:selected {{ background: {t.cool_pale}; color: {t.ink}; }}
    QTableWidget {{ gridline-color: {t.edge}; }}
    QHeaderView::section {{ background: {t.panel}; color: {t.quiet}; border: none; border-bottom: 1px solid {t.edge};
        padding: 3px 4px; }}
    QScrollBar:vertical {{ background: transparent; width: 9px; }}
    QScrollBar:horizontal {{ background: transparent; height: 9px; }}
    QScrollBar::handle {{ background: {t.edge}; border-radius: 4px; min-height: 24px; min-width: 24px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QFrame#finding {{ background: {t.paper}; border: 1px solid {t.edge}; border-left: 4px solid {t.citrus};
        border-radius: 5px; }}
    QFrame#finding[severity="error"] {{ border-left: 4px double {t.error}; }}
    QFrame#card {{ background: {t.paper}; border: 1px solid {t.edge}; border-radius: 8px; }}
    QFrame#card[chosen="true"] {{ border: 2px solid {t.cool}; }}
    QFrame#card[broken="true"] {{ border: 2px dashed {t.error}; }}
    QFrame#card[off="true"] {{ background: {t.panel}; }}
    """
