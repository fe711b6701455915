"""Nothing is clipped: at 1280x800, at 150 % on that screen (853x505 logical pixels), in both themes, in every view."""

import itertools
import os
import subprocess
import sys

import numpy as np
import pytest
from PyQt6.QtCore import QEvent, QSize, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QComboBox,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QWidget,
)

from tests.desk.driving import drag
from tests.samples import move, style
from zesty_pivot.core.formats import ruled
from zesty_pivot.core.formats.photographed import BarePhoto
from zesty_pivot.data.demo import demo_ruler
from zesty_pivot.desk.command_list import CommandList
from zesty_pivot.desk.settings_page import SettingsPage
from zesty_pivot.desk.theme import DARK, LIGHT, Theme
from zesty_pivot.desk.underlay_page import UnderlayPage

SIZES = {"1280x800": (1280, 800), "150 % of it": (853, 505)}
VIEWS = [
    "style",
    "trace",
    "walk",
    "hand",
    "practise",
    "neck",
    "measure",
    "block",
    "stand",
    "sizes",
    "sizes chart",
    "sizes growth",
    "sizes grading",
    "sizes write",
    "finish",
    "paper",
    "start",
]


def clipped(root: QWidget) -> list[str]:
    """The texts of labels, buttons and fields that are smaller than they ask to be, or stick out of what holds them."""
    found = []
    for widget in [*root.findChildren(QAbstractButton), *root.findChildren(QLabel), *root.findChildren(QComboBox)]:
        if not widget.isVisible() or widget.objectName() == "message" or widget.window() is not root.window():
            continue
        if isinstance(widget, QLabel) and not widget.text():
            continue
        if isinstance(widget.parentWidget(), QLineEdit):  # a button in a field has no frame of its own, only its picture
            if not widget.parentWidget().rect().contains(widget.geometry()) or widget.width() < widget.iconSize().width():
                found.append(f"the button in {widget.parentWidget().accessibleName()!r}")
            continue
        if isinstance(widget, QLabel) and widget.wordWrap():
            fits = widget.height() + 1 >= widget.heightForWidth(widget.width())
        else:
            # Qt asks for room for four letters where a button has none; an icon needs its own size.
            if isinstance(widget, QPushButton) and not widget.text():
                wanted = widget.iconSize() + QSize(12, 6)
            else:
                wanted = widget.minimumSizeHint() if isinstance(widget, QComboBox) else widget.sizeHint()
            fits = widget.width() + 1 >= wanted.width() and widget.height() + 1 >= min(wanted.height(), 26)
        holder = widget.parentWidget()
        inside = holder is None or holder.rect().adjusted(-1, -1, 1, 1).contains(widget.geometry())
        if not fits or not inside:
            text = widget.currentText() if isinstance(widget, QComboBox) else widget.text()
            found.append(f"{type(widget).__name__} {text!r} {widget.geometry().getRect()} in {type(holder).__name__}")
    for area in root.findChildren(QScrollArea):
        inside, port = area.widget(), area.viewport()
        is_fixed = area.horizontalScrollBarPolicy() == Qt.ScrollBarPolicy.ScrollBarAlwaysOff
        if area.isVisible() and is_fixed and inside is not None and port is not None and inside.width() > port.width() + 1:
            found.append(f"{inside.objectName()!r} is {inside.width()} wide, its scroll area {port.width()}")
    for edit in root.findChildren(QLineEdit):
        if edit.isVisible() and edit.fontMetrics().horizontalAdvance(edit.placeholderText()) > edit.width() - 16:
            found.append(f"placeholder {edit.placeholderText()!r}")
    return found


def settled(root: QWidget) -> list[str]:
    """What is clipped once layouts have settled: wrapped labels need a second pass, a new theme a new polish."""
    found: list[str] = []
    for _ in range(40):
        QTest.qWait(25)
        clipped(root)  # asking for hints polishes, which may move things once more
        QTest.qWait(5)
        found = clipped(root)
        if not found:
            break
    return found


def show(window, view: str) -> None:  # type: ignore[no-untyped-def]
    if view in ("trace", "walk", "hand", "practise", "neck"):
        window.lay.show_panel(view)
        window.lay.trace_state(0 if view == "trace" else None)
    else:
        view, _apart, station = view.partition(" ")
        window.model.set_view(view)
        if station:
            window.views.in_sizes.sizes.turn(station)


@pytest.mark.parametrize(("size", "view"), [*itertools.product(SIZES, VIEWS)])
def test_nothing_is_clipped(open_desk, size: str, view: str) -> None:
    window = open_desk()
    drag(window, "waist", "mid_armhole")
    window.resize(*SIZES[size])
    assert (window.width(), window.height()) == SIZES[size], "the window does not get that small"
    for theme in ("light", "dark"):
        window.set_theme(theme)
        show(window, view)
        assert settled(window) == []
        for child in window.findChildren(QWidget):
            assert not child.isVisible() or child.width() > 0


@pytest.mark.parametrize("size", SIZES)
@pytest.mark.parametrize("view", ["digitiser", "ruler", "import", "sizing"])
def test_the_ways_in_fit(open_desk, size: str, view: str) -> None:
    """A trace in the middle, a sheet in inches with a measure that does not close, the block of it, a photograph."""
    window = open_desk()
    window.resize(*SIZES[size])
    intake = window.views.intake
    if view == "digitiser":
        intake.digitising.play_demo()
        intake.digitising.to_end()
        window.model.set_view(view)
    elif view == "sizing":
        intake.sizing.begin(BarePhoto("a photograph with a rather long name.jpg", np.full((600, 800, 3), 128, np.uint8)))
    else:
        intake.ruling.take(ruled.from_bytes("demo", demo_ruler()))
        intake.ruling.set_unit("in")
        intake.ruling.set_distance("underarm", "centre_waist", "12 3/8 in")
        if view == "import":
            window.run("ruler.finish")
    assert window.model.view == view
    assert settled(window) == []


@pytest.mark.parametrize("size", [pytest.param("1280x800", marks=pytest.mark.whole), "150 % of it"])
def test_long_words_and_broken_steps_fit(open_desk, size: str) -> None:
    """The real block in inches, long names, a broken step, many findings."""
    steps = [
        move("shoulder", "centre_bust", share="37.5%"),
        {**move("waist", "french"), "name": "A long name for a step that the workroom uses every day"},
        move("nothing", "french"),
        {"do": "piece.true", "on": "front", "edge": "waist", "over": "bust/12 - 1 3/16 in"},
    ]
    name = "Concert gown for the second soprano, third fitting, revised"
    window = open_desk(style(steps, units="in").model_copy(update={"name": name}))
    window.resize(*SIZES[size])
    for view in VIEWS:
        show(window, view)
        for step in (None, 0, 1, 2, 3) if view in ("style", "hand") else (None,):
            window.model.choose_step(step)
            assert settled(window) == [], (view, step)


FORMS = [
    {"do": "dart.use", "on": "front", "dart": "shoulder", "as": "tucks", "count": 2, "spacing": "3 cm"},
    {"do": "dart.use", "on": "front", "dart": "shoulder", "as": "gathers", "over": "6 cm"},
    {"do": "dart.use", "on": "back", "dart": "shoulder", "as": "ease"},
    {"do": "dart.shape", "on": "front", "dart": "waist", "bow": "3 mm"},
    {"do": "dart.fan", "on": "front", "dart": "waist", "count": 3, "spacing": "1.5 cm", "parallel": True},
    {"do": "dart.park", "on": "back", "darts": ["shoulder"]},
    {"do": "dart.return", "on": "back"},
    {"do": "fullness.slash", "on": "back", "at": {"edge": "waist", "from": "side_waist", "at": "10%"},
     "hinge": {"edge": "armhole", "at": "85%"}, "by": "2 cm"},
    {"do": "fullness.flare", "on": "back", "hinge": "armhole", "start": "5%", "stop": "20%", "count": 2, "by": "1 cm"},
    {"do": "piece.side_seam", "by": "2 cm"},
    {"do": "piece.true_seam", "on": "front", "seam": "side_seam", "edge": "armhole"},
    {"do": "piece.square", "on": "front", "edge": "neckline"},
    {"do": "neck.shape", "shape": "keyhole", "hole_start": "4 cm"},
    {"do": "neck.gape", "amount": "5 mm"},
    {"do": "neck.opening", "on": "back", "kind": "slit", "length": "15 cm"},
    {"do": "trim.armhole", "shoulder_in": "1 cm", "back": "razor"},
    {"do": "piece.facing", "kind": "neck"},
    {"do": "line.contour"},
    {"do": "line.cut", "on": "front", "from": {"edge": "centre", "at": "80%"}, "to": {"edge": "centre", "at": "60%"},
     "shape": "heart", "width": "3 cm"},
    {"do": "piece.join", "on": "front", "other": "front_panel"},
    {"do": "line.princess", "on": "front", "school": "close", "past": "3 mm"},
    {"do": "line.band", "on": "front_side", "edge": "waist"},
    {"do": "trim.strapless", "on": "back"},
    {"do": "trim.hem", "on": "back"},
    {"do": "piece.side_panel"},
    {"do": "piece.unfold", "on": "front"},
]  # fmt: skip


@pytest.mark.parametrize(("units", "size"), [pytest.param("cm", "1280x800", marks=pytest.mark.whole), ("in", "150 % of it")])
def test_the_forms_of_all_steps_fit(open_desk, size: str, units: str) -> None:
    """Every step chosen in turn, with its fields, its notes and what the checks say of it; broken ones too."""
    window = open_desk(style(FORMS, units=units))
    window.resize(*SIZES[size])
    for step in range(len(FORMS)):
        window.strip.choose(step + 1)
        assert settled(window) == [], FORMS[step]
    window.model.set_view("finish")
    assert settled(window) == []


def test_a_label_that_is_too_small_is_seen(open_desk) -> None:
    """The check itself must be able to fail."""
    window = open_desk()
    window.style_view.foot.trace.setFixedWidth(20)
    QApplication.sendPostedEvents(None, QEvent.Type.LayoutRequest)
    assert any("Block under" in text for text in clipped(window))


@pytest.mark.parametrize(
    "text", ["Saved.", "Tape: to the bust point", "Waist dart to mid armhole. The 1 step after it follows."]
)
@pytest.mark.parametrize("size", SIZES)
def test_a_message_is_read_whole_beside_the_menus(open_desk, size: str, text: str) -> None:
    window = open_desk()
    window.resize(*SIZES[size])
    window.model.say(text)
    message = window.message
    assert message.is_whole and message.heightForWidth(message.width()) <= message.height()


def test_dialogs_fit(open_desk) -> None:
    window = open_desk()
    for id, kind in (("file.settings", SettingsPage), ("help.commands", CommandList), ("step.underlay", UnderlayPage)):
        window.run(id)
        (dialog,) = window.findChildren(kind)
        assert settled(dialog) == []
        assert dialog.height() <= 505 and dialog.width() <= 853
        dialog.close()


def test_the_tour_fits(open_desk) -> None:
    for size in SIZES.values():
        window = open_desk()
        window.resize(*size)
        QApplication.processEvents()
        window.run("help.tour")
        for _ in range(5):
            assert window.table.rect().contains(window.pages.tour.geometry())
            assert settled(window.pages.tour) == []
            window.pages.tour.go_on()


def test_the_stations_names_stay_on_the_table(open_desk) -> None:
    """On a small table the ring is smaller, and names that would be cut off are left out."""
    window = open_desk()
    large = window.table.ring_size()
    window.resize(853, 505)
    small = window.table.ring_size()
    assert large.outer == 82.0 and 50.0 < small.outer < 70.0
    assert small.inner < small.outer and small.hub < small.inner


@pytest.mark.parametrize("scale", ["1.5", pytest.param("2", marks=pytest.mark.whole)])
def test_scaled_by_the_system(scale: str, tmp_path) -> None:
    """The whole program at a scale factor of the system, in a process of its own: nothing clipped in any view."""
    code = (
        "from tests.desk.test_fits import settled, show, VIEWS\n"
        "from zesty_pivot.desk.start import application, open_window\n"
        "app = application(); w = open_window(None); w.resize(853, 505); w.show(); bad = []\n"
        "assert w.devicePixelRatioF() == float(__import__('os').environ['QT_SCALE_FACTOR'])\n"
        "for view in VIEWS:\n"
        "    show(w, view); bad += [f'{view}: {text}' for text in settled(w)]\n"
        "w.close(); print(bad)"
    )
    folders = {f"XDG_{name}_HOME": str(tmp_path / name) for name in ("CONFIG", "STATE", "DATA")}
    env = {**os.environ, **folders, "QT_SCALE_FACTOR": scale, "QT_QPA_PLATFORM": "offscreen"}
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, env=env, timeout=120, check=False)
    assert done.stdout.strip() == "[]", done.stdout + done.stderr


def _luminance(color: str) -> float:
    parts = [int(color[k : k + 2], 16) / 255 for k in (1, 3, 5)]
    linear = [p / 12.92 if p <= 0.03928 else ((p + 0.055) / 1.055) ** 2.4 for p in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


GROUNDS = ("paper", "panel")
PAIRS = [
    *itertools.product(("ink", "quiet", "cool", "error", "good", "citrus_ink"), GROUNDS),
    ("ink", "citrus_pale"), ("ink", "cool_pale"), ("error", "error_pale"), ("paper", "cool"), ("paper", "ink"),
    ("quiet", "table"), ("quiet", "cool_pale"),
]  # fmt: skip


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
@pytest.mark.parametrize(("ink", "ground"), PAIRS)
def test_text_has_contrast(theme: Theme, ink: str, ground: str) -> None:
    """At least 4.5 : 1 between text and ground, 3 : 1 for lines. Formula: WCAG 2.1, contrast ratio (from memory)."""
    one, two = sorted((_luminance(getattr(theme, ink)), _luminance(getattr(theme, ground))))
    assert (two + 0.05) / (one + 0.05) >= 4.5
    for line in ("citrus", "cool", "error"):
        one, two = sorted((_luminance(getattr(theme, line)), _luminance(theme.paper)))
        assert (two + 0.05) / (one + 0.05) >= 3.0
