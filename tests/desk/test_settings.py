"""Settings, themes, scale, window state; the desktop's files."""

import configparser
import os
import re
import shutil
import subprocess
import sys
import xml.etree.ElementTree as ET
from pathlib import Path

import pytest
from click import Group
from PyQt6.QtGui import QColor

from tests.samples import move, style
from zesty_pivot.cli.main import cli
from zesty_pivot.desk import desktop_entry
from zesty_pivot.desk.settings import Settings, load, save, settings_file
from zesty_pivot.desk.settings_page import SettingsPage
from zesty_pivot.desk.theme import DARK, LIGHT, NOW


def test_settings_are_kept_and_a_broken_file_gives_defaults() -> None:
    assert load() == Settings()
    wanted = Settings(theme="dark", scale=150, units="in", recent=("/a.zpiv",))
    save(wanted)
    assert load() == wanted
    for text in ("{", "[]", '{"format": "zesty-pivot/settings", "version": 1, "scale": 900}'):
        settings_file().write_text(text)
        assert load() == Settings()


def test_recent_files_are_few_and_each_once() -> None:
    settings = Settings()
    for number in range(30):
        settings = settings.with_recent(Path(f"/styles/{number % 20}.zpiv"))
    assert len(settings.recent) == 12 and settings.recent[0] == "/styles/9.zpiv" and len(set(settings.recent)) == 12
    assert "/styles/9.zpiv" not in settings.without_recent(Path("/styles/9.zpiv")).recent


def test_the_page_keeps_what_is_picked(open_desk) -> None:
    window = open_desk()
    window.run("file.settings")
    (page,) = window.findChildren(SettingsPage)
    page.units.picked.emit("in")
    page.paper.picked.emit("Letter")
    page.way.picked.emit("slash")
    page.scale.picked.emit("150")
    page.theme.picked.emit("dark")
    assert page.later.isVisible()
    window.keeper.writer.flush()
    kept = load()
    assert (kept.units, kept.paper, kept.hand_way, kept.scale, kept.theme) == ("in", "Letter", "slash", 150, "dark")
    page.close()
    assert window.lay.way == "slash"  # in force at once, also for views that are made already
    window.run("view.paper")
    assert window.paging.chosen == "Letter"
    window.run("file.settings")
    window.findChildren(SettingsPage)[-1].paper.picked.emit("A4")
    assert window.paging.chosen == "A4"
    window.findChildren(SettingsPage)[-1].close()
    window.paging.change(paper="A3")
    window.keeper.writer.flush()
    assert load().paper == "A3"


def brightness(window) -> float:  # type: ignore[no-untyped-def]
    """How bright the window is, 0 to 255."""
    image = window.grab().toImage().scaled(32, 20)
    return sum(QColor(image.pixel(x, y)).lightness() for x in range(32) for y in range(20)) / 640


def test_dark_and_light_and_back(open_desk) -> None:
    window = open_desk()
    light = brightness(window)
    window.run("theme.dark")
    assert NOW.theme is DARK and brightness(window) < 80 < 180 < light
    for view in ("start", "finish", "paper"):
        window.model.set_view(view)
        assert brightness(window) < 100, view
    window.run("theme.light")
    assert NOW.theme is LIGHT and brightness(window) > 180


def test_pictures_leave_the_program_in_the_light_theme(open_desk, tmp_path: Path) -> None:
    window = open_desk()
    window.run("theme.dark")
    window.ask.path = tmp_path / "table.png"
    window.run("export.picture")
    from PyQt6.QtGui import QImage

    picture = QImage(str(tmp_path / "table.png"))
    assert picture.width() == 2 * window.table.width()
    assert QColor(picture.pixel(picture.width() - 9, picture.height() - 9)).lightness() > 180
    assert NOW.theme is DARK
    window.ask.path = tmp_path / "table.svg"
    window.run("export.picture")
    root = ET.parse(tmp_path / "table.svg").getroot()
    assert root.tag.endswith("svg") and len(root.findall(".//{*}path")) > 20
    window.ask.path = tmp_path / "table.doc"
    window.run("export.picture")
    assert ".png or .svg" in window.message.text() and not (tmp_path / "table.doc").exists()
    window.run("theme.light")


def test_the_clipboard_has_both_pictures(open_desk) -> None:
    from PyQt6.QtGui import QGuiApplication

    window = open_desk()
    window.run("edit.copy_picture")
    data = QGuiApplication.clipboard().mimeData()
    assert data.hasImage() and b"<svg" in bytes(data.data("image/svg+xml").data())


@pytest.mark.parametrize("scale", [100, 175])
def test_the_scale_of_the_settings_is_used_at_the_start(scale: int) -> None:
    save(Settings(scale=scale))
    code = "from zesty_pivot.desk.start import application, open_window\napp = application(); w = open_window(None)\n"
    code += "print(w.devicePixelRatioF()); w.close()"
    env = {key: value for key, value in os.environ.items() if key != "QT_SCALE_FACTOR"}
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, env=env, timeout=60, check=False)
    assert done.stdout.strip() == str(scale / 100), done.stderr


def test_the_menu_entry_is_installed(tmp_path: Path) -> None:
    """Keys and places by the Desktop Entry and Shared MIME-info specifications (freedesktop.org, from memory)."""
    written = desktop_entry.install(tmp_path)
    assert {str(path.relative_to(tmp_path)) for path in written} == set(desktop_entry.PLACES.values())
    entry = configparser.ConfigParser(interpolation=None)
    entry.optionxform = str  # type: ignore[assignment, method-assign]
    entry.read(tmp_path / "applications" / "zesty-pivot.desktop")
    section = entry["Desktop Entry"]
    assert section["Type"] == "Application" and section["Exec"].endswith(" %f") and section["Icon"] == "zesty-pivot"
    types = ET.parse(tmp_path / "mime" / "packages" / "zesty-pivot.xml").getroot()
    named = {found.get("type") for found in types.findall("{*}mime-type")}
    assert named == set(section["MimeType"].strip(";").split(";"))
    assert {glob.get("pattern") for glob in types.findall(".//{*}glob")} == {"*.zpiv", "*.zblock"}
    if shutil.which("desktop-file-validate"):
        done = subprocess.run(
            ["desktop-file-validate", str(tmp_path / "applications" / "zesty-pivot.desktop")], capture_output=True, check=False
        )
        assert done.returncode == 0, done.stdout


def test_the_man_page_knows_every_command_and_option() -> None:
    page = desktop_entry.content("zesty-pivot.1").decode().replace("\\-", "-")
    assert isinstance(cli, Group)
    for name, command in cli.commands.items():
        if command.hidden:
            continue
        assert name in page, name
        for parameter in command.params:
            for option in [opt for opt in parameter.opts if opt.startswith("--")]:
                assert option in page, f"{name} {option}"
    assert not re.search(r"[^\x00-\x7f]", page)


@pytest.mark.parametrize("what", ["broken", "pipe", "folder", "ring"])
def test_settings_that_cannot_be_read_are_set_aside_and_told(what: str, open_desk) -> None:
    path = settings_file()
    path.parent.mkdir(parents=True)
    if what == "broken":
        path.write_text('{"format": "zesty-pivot/settings", "version": 1, "scale": ' + "9" * 5000)
    elif what == "pipe":
        os.mkfifo(path)
    elif what == "folder":
        path.mkdir()
    else:
        path.symlink_to(path)
    kept = path.lstat().st_ino
    window = open_desk()
    window.begin(with_start_page=False)
    told = window.notice.words.text()
    assert "The settings could not be read, so the usual ones are in use" in told and "\n" not in told
    assert [other.lstat().st_ino for other in (path.parent / "set-aside").iterdir()] == [kept]
    window.keeper.change(lambda settings: settings.model_copy(update={"scale": 125}))
    window.keeper.writer.flush()
    assert load().scale == 125


def test_a_length_that_cannot_be_given_its_unit_leaves_the_units(open_desk) -> None:
    window = open_desk(style([{**move("waist", "french"), "mouth": "1" + "+1" * 99}]))
    window.model.recipe.set_units("in")
    assert window.model.style.units == "cm" and "Left as it was" in window.message.text()
