"""Colours, sizes and type in one place; no widget has a literal colour."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from importlib.resources import as_file, files
from pathlib import Path
from string import Template

from PyQt6.QtGui import QColor, QFont, QFontDatabase, QPalette

from zesty_pivot.core.lettering import FACES
from zesty_pivot.core.record import record

TEXT = "Hanken Grotesk"
DISPLAY = "Fraunces"


@record
class Theme:
    """The light theme: warm paper, dark ink, citrus for what is moved, a cool blue for what is chosen.

    `citrus_ink` is the citrus that text may have; `chevron` the icon of drop-downs in this theme's ink. The colours of a
    `beam` and the `mat` that it falls on are no theme's.
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
    beam_dark: str = "#000000"
    beam_light: str = "#ffffff"
    beam_grid: str = "#7d7d7d"
    beam_mark: str = "#e8a200"
    mat: str = "#2f5148"
    mat_line: str = "#5f8377"

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


@cache
def load_fonts() -> None:
    """Makes the shipped type known to Qt, once, which takes letters that the first font lacks from the others. One that is
    missing is passed over: the system's stand in."""
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
    """The application's style sheet: `data/desk.qss` with the theme's colours at their names."""
    check = (Path(str(files("zesty_pivot.data"))) / "icons" / f"{theme.check}.svg").as_posix()
    arrow = (Path(str(files("zesty_pivot.data"))) / "icons" / f"{theme.chevron}.svg").as_posix()
    text = (files("zesty_pivot.data") / "desk.qss").read_text(encoding="utf-8")
    icons = {"check_icon": check, "arrow_icon": arrow}
    return Template(text).substitute(vars(theme), text_type=TEXT, display_type=DISPLAY, **icons)
