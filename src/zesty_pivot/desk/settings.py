"""What the user prefers and where the window was: one small file in the XDG folder for settings."""

import json
import os
from pathlib import Path
from typing import Literal, Self

from platformdirs import user_config_path, user_data_path, user_documents_path, user_state_path
from pydantic import Field

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import aside, files
from zesty_pivot.core.formats.printing import DxfVersion
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.quantity.fields import Model
from zesty_pivot.core.true_size.display import Display

KIND = "settings"
APP = "zesty-pivot"
SCALES = (100, 125, 150, 175, 200)
KEPT_RECENT = 12

ThemeName = Literal["system", "light", "dark"]


class Settings(Model):
    """All settings with their defaults. One immutable value."""

    format: Literal["zesty-pivot/settings"] = "zesty-pivot/settings"
    version: Literal[1] = 1
    theme: ThemeName = "system"
    scale: int = Field(default=100, ge=100, le=200, description="size of text and controls in percent")
    units: Unit = Field(default="cm", description="unit of new styles")
    paper: str = Field(default="A4", min_length=1, max_length=40, description="a name, a size as 330x480 (mm), or full")
    edge: float = Field(default=10.0, ge=0.0, le=60.0, description="mm of every page that the printer leaves white")
    overlap: float = Field(default=10.0, ge=0.0, le=40.0, description="mm that neighbouring pages share; 0: edge to edge")
    apart: bool = Field(default=False, description="pages of its own for every piece")
    dxf: DxfVersion = "R2000"
    dxf_each: bool = Field(default=False, description="a DXF of every piece as well")
    plotter: str = Field(
        default="simulated", min_length=1, max_length=200, description="a port, socket://host:port, or simulated"
    )
    handshake: Literal["ask", "xon", "none"] = Field(default="ask", description="how the plotter says when to wait")
    baud: int = Field(default=9600, ge=110, le=4_000_000, description="bits a second of its line")
    pens: int = Field(default=3, ge=1, le=3)
    roll: float = Field(default=900.0, ge=150.0, le=3000.0, description="mm of the plotter's roll")
    roll_length: float = Field(default=0.0, ge=0.0, le=100_000.0, description="mm that it draws at once; 0: without an end")
    print_colour: bool = Field(default=False, description="lines in colours")
    on_stand: bool = Field(default=False, description="the pattern on its form on the cut sheet and in the report")
    screen: str = Field(default="simulated", max_length=200, description="the screen or projector that shows the true size")
    screens: dict[str, Display] = Field(
        default_factory=dict, description="by screen and its resolution: how the true size was told on it"
    )
    hand_way: Literal["pivot", "slash"] = "pivot"
    has_started: bool = Field(default=False, description="whether the program has been used before")
    has_toured: bool = Field(default=False, description="whether the walk through the ring was seen or left")
    window: str = Field(default="", max_length=4000, description="place and size of the window, as Qt writes them")
    folder: str = Field(default="", max_length=4000, description="where file dialogs begin: the folder used last")
    practise: dict[Literal["whole", "share", "where"], tuple[int, int]] = Field(
        default_factory=dict, description="by kind of question: how many were asked and how many guesses were right"
    )
    last_steps: tuple[str, ...] = Field(default=(), max_length=8, description="kinds of steps, the one added last first")
    recent: tuple[str, ...] = Field(default=(), max_length=KEPT_RECENT, description="paths of styles, the latest first")

    def begin_folder(self) -> Path:
        """Where a file dialog begins: the folder used last, else the user's documents, else home."""
        places = (self.folder, str(user_documents_path()), "~")
        return next((Path(known) for place in places if os.path.isdir(known := os.path.expanduser(place))), Path("/"))  # noqa: PTH111, PTH112 - these never raise

    def with_recent(self, path: Path) -> Self:
        """The settings with a file at the head of the recent ones."""
        name = str(path)
        if not name.isprintable():
            return self  # a name that no character set knows cannot be written down
        kept = (name, *(other for other in self.recent if other != name))[:KEPT_RECENT]
        return self.model_copy(update={"recent": kept})

    def without_recent(self, path: Path) -> Self:
        """The settings without a file among the recent ones."""
        return self.model_copy(update={"recent": tuple(other for other in self.recent if other != str(path))})


def settings_file() -> Path:
    """Where the settings are kept."""
    return user_config_path(APP) / "settings.json"


def journal_folder() -> Path:
    """Where unsaved work is written down."""
    return user_state_path(APP) / "unsaved"


def intake_folder() -> Path:
    """Where what is being traced or measured is kept."""
    return user_state_path(APP) / "intake"


def crash_folder() -> Path:
    """Where running programs have the file that a crash is written to."""
    return user_state_path(APP) / "crashes"


def fault_log() -> Path:
    """Where unexpected faults are written down."""
    return user_state_path(APP) / "faults.log"


def methods_folder() -> Path:
    """Where the user's own drafting methods are."""
    return user_data_path(APP) / "methods"


def library_folder() -> Path:
    """Where the user's blocks hang."""
    return user_data_path(APP) / "library"


def recipes_folder() -> Path:
    """Where the user's own pieces of recipes are."""
    return user_data_path(APP) / "recipes"


def people_file() -> Path:
    """Where the people of the measure view are kept."""
    return user_data_path(APP) / "people.zmeas"


def chart_file() -> Path:
    """Where the user's size chart is kept."""
    return user_data_path(APP) / "sizes.zsizes"


def load() -> Settings:
    """The settings; the defaults when there are none, or none that can be read."""
    return _read()[0]


def load_or_set_aside() -> tuple[Settings, str]:
    """The settings; when what stands there cannot be read it is set aside, which is told in a sentence."""
    settings, is_sound = _read()
    path = settings_file()
    if is_sound or not (path.exists() or path.is_symlink()):
        return settings, ""
    kept = aside.set_aside(path)
    where = f"the file is kept as {kept}" if kept is not None else "the file is left where it is"
    return settings, f"The settings could not be read, so the usual ones are in use; {where}."


def _read() -> tuple[Settings, bool]:
    """The settings, and whether they could be read. No start depends on what stands in a file."""
    path = settings_file()
    try:
        return files.validated(Settings, files.read_json(path, KIND), path.name), True
    except ZestyError:
        return Settings(), False
    except Exception as fault:  # noqa: BLE001 - the boundary of a reader
        faults.caught(fault, "reading the settings")
        return Settings(), False


def save(settings: Settings) -> None:
    """Writes the settings. Raises FileError when they cannot be written."""
    files.write_atomic(settings_file(), (json.dumps(settings.model_dump(mode="json"), indent=1) + "\n").encode())
