"""Desktop manners: menu entry, icon and file types in the user's own XDG folders. No Qt here."""

from __future__ import annotations

import shlex
import shutil
import subprocess
import sys
from contextlib import suppress
from importlib.resources import files as resources
from pathlib import Path

from platformdirs import user_data_path

from zesty_pivot.core.formats import files

# Where each file goes, below the folder for the user's data. Sources: Desktop Entry Specification, Shared MIME-info
# Database, Icon Theme Specification (freedesktop.org; from memory).
PLACES = {
    "zesty-pivot.desktop": "applications/zesty-pivot.desktop",
    "zesty-pivot.xml": "mime/packages/zesty-pivot.xml",
    "zesty-pivot.svg": "icons/hicolor/scalable/apps/zesty-pivot.svg",
    "zesty-pivot.1": "man/man1/zesty-pivot.1",
}


def content(name: str) -> bytes:
    """A shipped file; in the menu entry the command is the one that runs now."""
    text = (resources("zesty_pivot.data") / "desktop" / name).read_text(encoding="utf-8")
    if name.endswith(".desktop"):
        text = text.replace("Exec=zesty-pivot", f"Exec={command()}")
    return text.encode()


def command() -> str:
    """How this program is started: by its name where that is on the path, else by its full place."""
    script = Path(sys.executable).parent / "zesty-pivot"
    found = shutil.which("zesty-pivot")
    return "zesty-pivot" if found or not script.exists() else shlex.quote(str(script))


def install(folder: Path | None = None) -> list[Path]:
    """Writes the files below a folder (the user's own data folder by default) and tells the desktop about them.

    Returns what was written. Raises FileError when the folder cannot be written.
    """
    root = folder or user_data_path()
    written: list[Path] = []
    for name, place in PLACES.items():
        files.write_atomic(root / place, content(name))
        written.append(root / place)
    for tool, argument in (("update-desktop-database", "applications"), ("update-mime-database", "mime")):
        found = shutil.which(tool)
        if found is not None:
            with suppress(OSError, subprocess.SubprocessError):
                subprocess.run([found, str(root / argument)], check=False, capture_output=True, timeout=20)
    return written
