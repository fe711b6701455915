"""The start page, the first start, the walk through the ring, the guide."""

from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt, QUrl
from PyQt6.QtTest import QTest

from tests.desk.driving import drag
from tests.samples import REAL_BLOCK, style, written
from zesty_pivot import __version__
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.texts import GUIDE_PAGES, guide, guide_title, news
from zesty_pivot.desk.guide_window import PAGES, PANEL_PAGES, page_for
from zesty_pivot.desk.lay import PANELS
from zesty_pivot.desk.settings import load
from zesty_pivot.desk.start_page import ago


def drawn(page) -> bool:  # type: ignore[no-untyped-def]
    return all(not card.picture.pixmap().isNull() for card in [*page.demos, *page.recents])


def test_demo_styles_are_sound() -> None:
    names = {one.name for one in demo_styles()}
    assert len(names) == len(demo_styles()) == 17
    for one in demo_styles():
        derived = derive(one)
        assert not derived.derivation.broken and not derived.has_errors


def test_a_demo_is_opened_from_its_picture(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([]))
    window.run("file.start")
    assert window.model.view == "start" and not window.strip.isVisible()
    qtbot.waitUntil(lambda: drawn(window.views.start_page), timeout=5000)
    card = window.views.start_page.demos[1]
    QTest.mouseClick(card, Qt.MouseButton.LeftButton)
    assert window.model.style == demo_styles()[1] and window.model.view == "style" and window.strip.isVisible()


def test_cards_become_flat_sketches(open_desk, qtbot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    """Pictures of the pattern are there at once, sketches come after; another theme draws them anew; the window closes in the
    middle of it."""
    few = demo_styles()[:3]
    monkeypatch.setattr("zesty_pivot.desk.start_page.demo_styles", lambda: few)
    window = open_desk(style([]))
    window.run("file.start")
    page = window.views.start_page
    qtbot.waitUntil(lambda: drawn(page), timeout=10_000)
    first = page.demos[0].picture.pixmap().toImage()
    qtbot.waitUntil(lambda: page.is_drawn, timeout=60_000)
    assert set(page._sketches) == set(page.demos) and all(len(views) == 2 for views in page._sketches.values())
    light = page.demos[0].picture.pixmap().toImage()
    assert light != first
    window.set_theme("dark")
    assert page.demos[0].picture.pixmap().toImage() != light
    window.run("file.start")
    page._to_sketch = [(card, derive(demo)) for card, demo in zip(page.demos, few, strict=True)]
    page._sketch_on()
    assert page._sketching.is_at_work  # and is closed so


def test_recent_styles_stand_there_with_pictures(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = open_desk()
    path = written([], tmp_path)
    window.docs.open_path(path)
    window.keeper.writer.flush()
    assert load().recent == (str(path),)
    window.run("file.start")
    (card,) = window.views.start_page.recents
    qtbot.waitUntil(lambda: drawn(window.views.start_page), timeout=5000)
    window.run("file.demo")
    card.setFocus()
    QTest.keyClick(card, Qt.Key.Key_Space)  # by keyboard as well
    assert window.model.file.path == path
    path.unlink()
    window.run("file.start")
    window.views.start_page.recents[0].click()
    assert "cannot be read" in window.message.text()
    window.keeper.writer.flush()
    assert load().recent == () and window.views.start_page.recents == []


def test_a_recent_file_that_is_broken_is_said(open_desk, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    path = written([], tmp_path)
    window = open_desk()
    window.docs.open_path(path)
    path.write_text("{")
    window.run("file.start")
    (card,) = window.views.start_page.recents
    qtbot.waitUntil(lambda: card.picture.text() == "cannot be read", timeout=5000)
    assert "broken JSON" in card.toolTip()
    first = window.model.style
    card.click()
    assert "broken JSON" in window.message.text() and window.model.style is first


def test_new_styles_have_the_preferred_unit(open_desk) -> None:
    window = open_desk()
    window.keeper.change(lambda settings: settings.model_copy(update={"units": "in"}))
    window.ask.path = REAL_BLOCK
    window.run("file.new")
    assert window.model.style.units == "in" and window.model.style.steps == ()
    window.run("file.new_demo")
    assert window.model.style.units == "in" and window.model.style.block == demo_styles()[0].block


def test_news_are_of_this_version(open_desk) -> None:
    window = open_desk()
    window.run("file.start")
    assert news().count("\n- ") >= 3
    changes = (Path(__file__).parents[2] / "CHANGELOG.md").read_text()
    assert changes.partition("## ")[2].startswith(__version__)


def test_the_first_start_walks_through_the_ring_once(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_desk()
    window.begin(with_start_page=False)
    qtbot.waitUntil(lambda: window.pages.tour.isVisible(), timeout=2000)
    assert window.pages.tour.title.text() == "The pivot ring"
    QTest.mouseClick(window.pages.tour.next, Qt.MouseButton.LeftButton)
    assert window.pages.tour.title.text() == "Move a dart"
    drag(window, "waist", "mid_armhole")  # the walk goes on by itself once it is done
    assert window.pages.tour.title.text() == "Leave some behind"
    for _ in range(3):
        QTest.mouseClick(window.pages.tour.next, Qt.MouseButton.LeftButton)
    assert not window.pages.tour.isVisible() and window.table.hasFocus()
    window.keeper.writer.flush()
    assert load().has_toured and load().has_started


def test_the_walk_can_be_left(open_desk) -> None:
    window = open_desk()
    window.run("help.tour")
    QTest.keyClick(window.pages.tour, Qt.Key.Key_Escape)
    assert not window.pages.tour.isVisible() and window.keeper.settings.has_toured
    window.run("help.tour")
    assert window.pages.tour.isVisible() and window.pages.tour.count.text() == "1 of 5"


def test_every_page_of_the_guide_ships_and_links_hold() -> None:
    for page in GUIDE_PAGES:
        text = guide(page)
        assert guide_title(page) and len(text) > 200
        for target in [part.partition(")")[0] for part in text.split("](")[1:]]:
            assert target in GUIDE_PAGES or target.startswith("#"), (page, target)
    assert set(PAGES.values()) | set(PANEL_PAGES.values()) <= set(GUIDE_PAGES) and set(PANEL_PAGES) == set(PANELS)
    with pytest.raises(FileNotFoundError):
        guide("../README.md")
    folder = Path(__file__).parents[2] / "docs" / "guide"
    assert {path.name for path in folder.glob("*.md")} == set(GUIDE_PAGES)


def test_f1_opens_the_page_about_what_is_seen(open_desk) -> None:
    window = open_desk()
    for view, panel in (
        ("style", "reading"),
        ("style", "walk"),
        ("finish", "reading"),
        ("paper", "reading"),
        ("start", "hand"),
    ):
        window.lay.show_panel(panel)
        window.model.set_view(view)
        window.run("help.guide")
        assert window.pages.guide.page == page_for(view, panel) and window.pages.guide.isVisible()
        assert guide_title(window.pages.guide.page) in window.pages.guide.text.toPlainText()
    window.pages.guide._follow(QUrl("true.md"))
    assert window.pages.guide.page == "true.md"
    window.pages.guide._follow(QUrl("https://example.org/true.html"))  # nothing is fetched
    assert window.pages.guide.page == "true.md"
    window.pages.guide.close()


@pytest.mark.parametrize(
    ("seconds", "words"),
    [(5, "just now"), (70, "1 minute ago"), (600, "10 minutes ago"), (3700, "1 hour ago"), (7300, "2 hours ago")],
)
def test_how_long_ago(seconds: int, words: str) -> None:
    assert ago(datetime.now(UTC) - timedelta(seconds=seconds)) == words
    assert ago(datetime(2026, 3, 9, 12, tzinfo=UTC)).startswith("on 09 March 2026")
