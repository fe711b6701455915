"""What the user prefers and where the window was: one small file in the XDG folder for settings."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Literal

from platformdirs import user_config_path, user_documents_path, user_state_path
from pydantic import Field

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import files
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.quantity.fields import Model

KIND = "settings"
APP = "zesty-pivot"
SCALES = (100, 125, 150, 175, 200)
KEPT_RECENT = 12

Look = Literal["system", "light", "dark"]


class Settings(Model):
    """All settings with their defaults. One immutable value."""

    format: Literal["zesty-pivot/settings"] = "zesty-pivot/settings"
    version: Literal[1] = 1
    theme: Look = "system"
    scale: int = Field(default=100, ge=100, le=200, description="size of text and controls in percent")
    units: Unit = Field(default="cm", description="unit of new styles")
    paper: Literal["A4", "A3", "Letter", "full"] = "A4"
    hand_way: Literal["pivot", "slash"] = "pivot"
    has_started: bool = Field(default=False, description="whether the program has been used before")
    has_toured: bool = Field(default=False, description="whether the walk through the ring was seen or left")
    window: str = Field(default="", max_length=4000, description="place and size of the window, as Qt writes them")
    folder: str = Field(default="", max_length=4000, description="where file dialogs begin: the folder used last")
    practise: dict[Literal["whole", "share", "where"], tuple[int, int]] = Field(
        default_factory=dict, description="by kind of question: how many were asked and how many guesses were right"
    )
    recent: tuple[str, ...] = Field(default=(), max_length=KEPT_RECENT, description="paths of styles, the latest first")

    def begin_folder(self) -> Path:
        """Where a file dialog begins: the folder used last, else the user's documents, else home."""
        places = (Path(self.folder) if self.folder else None, user_documents_path(), Path.home())
        return next((place for place in places if place is not None and place.is_dir()), Path.cwd())

    def with_recent(self, path: Path) -> Settings:
        """The settings with a file at the head of the recent ones."""
        name = str(path)
        kept = (name, *(other for other in self.recent if other != name))[:KEPT_RECENT]
        return self.model_copy(update={"recent": kept})

    def without_recent(self, path: Path) -> Settings:
        """The settings without a file among the recent ones."""
        return self.model_copy(update={"recent": tuple(other for other in self.recent if other != str(path))})


def settings_file() -> Path:
    """Where the settings are kept."""
    return user_config_path(APP) / "settings.json"


def journal_folder() -> Path:
    """Where unsaved work is written down."""
    return user_state_path(APP) / "unsaved"


def fault_log() -> Path:
    """Where unexpected faults are written down."""
    return user_state_path(APP) / "faults.log"


def load() -> Settings:
    """The settings; the defaults when there are none, or none that can be read."""
    path = settings_file()
    try:
        return files.validated(Settings, files.read_json(path, KIND), path.name)
    except ZestyError:
        return Settings()


def save(settings: Settings) -> None:
    """Writes the settings. Raises FileError when they cannot be written."""
    files.write_atomic(settings_file(), (json.dumps(settings.model_dump(mode="json"), indent=1) + "\n").encode())
