"""Pictures of the main views, made from the demo without a display and without the user's own settings."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QEvent, QEventLoop, QPointF, QSize, Qt, QTimer
from PyQt6.QtGui import QImage, QMouseEvent, QPainter
from PyQt6.QtWidgets import QApplication, QWidget

SIZE = QSize(1280, 800)


def write_pictures(folder: Path, *, all_views: bool = True) -> list[Path]:
    """Writes a PNG of each main view to a folder; of those that everybody looks at first only, where not of all."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    folder.mkdir(parents=True, exist_ok=True)
    own = {name: os.environ.get(name) for name in ("XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME")}
    with tempfile.TemporaryDirectory() as home:
        os.environ.update(dict.fromkeys(own, home))
        try:
            shots = _Shots(folder)
            return shots.take() if all_views else shots.take_first()
        finally:
            for name, value in own.items():
                os.environ.pop(name) if value is None else os.environ.update({name: value})


def _wait(ms: int) -> None:
    """Lets the window settle."""
    loop = QEventLoop()
    QTimer.singleShot(ms, loop.quit)
    loop.exec()


def _wait_until(is_so: Callable[[], bool]) -> None:
    while not is_so():
        _wait(100)


class _Shots:
    """One window, walked through its views."""

    def __init__(self, folder: Path) -> None:
        from zesty_pivot.desk.start import application, open_window

        self.folder = folder
        self.app = application()
        self._leave_work_behind()
        self.window = open_window(None)
        self.window.resize(SIZE)
        self.window.show()
        self.written: list[Path] = []

    def _leave_work_behind(self) -> None:
        """A journal of a program that has ended, so that there is something to recover."""
        from zesty_pivot.core.formats.journal import Journal
        from zesty_pivot.data.demo import demo_styles
        from zesty_pivot.desk.settings import journal_folder

        journal = Journal(journal_folder())
        journal.write(demo_styles()[1].model_copy(update={"name": "Vesper bodice, second fitting"}), None)
        journal.close()

    def shot(self, name: str, widget: QWidget | None = None) -> None:
        _wait(400)  # labels that wrap find their height in a second turn of the layout
        path = self.folder / f"{name}.png"
        if not (widget or self.window).grab().save(str(path)):
            raise RuntimeError(f"the picture {path} cannot be written")
        self.written.append(path)

    def take_first(self) -> list[Path]:
        """Style, ring, finish and paper."""
        self.shot("style")
        self._ring()
        self.window.model.set_view("finish")
        self.shot("finish")
        self._titled()
        self.window.close()
        return self.written

    def take(self) -> list[Path]:
        """All pictures."""
        window = self.window
        self.shot("style")
        self._ring()
        self._desk()
        self._bodies()
        self._intake()
        window.model.set_view("finish")
        self.shot("finish")
        self._stand()
        self._sizes()
        self._titled()
        self._cut()
        self._compared()
        window.close()
        return self.written

    def _ring(self) -> None:
        """A bead in mid drag."""
        window = self.window
        ring = window.table.ring()
        goal = next((target.angle for target in ring.targets if target.spot.station == "mid_armhole"), 0.0) if ring else 0.0
        control = window.table.control
        control.pick_up("waist")
        control.point(goal)
        control.set_share(0.6)
        window.table.update()
        self.shot("ring")
        control.let_go()
        window.model.say("")  # the message of letting go does not belong in the next pictures

    def _desk(self) -> None:
        """A family of steps, what a shoulder offers."""
        from zesty_pivot.desk.table.things import in_order

        window = self.window
        model, pointing = window.model, window.table.pointing
        window.drawer.open_door("darts")
        window.drawer.tiles["darts"].grid.finish()
        self.shot("drawer")
        window.drawer.go_back()
        shoulder = next(one for one in in_order(model.pattern) if one.key == ("edge", "front", "shoulder"))
        pointing.open(shoulder, pointing.place_of(shoulder))
        self.shot("point")
        pointing.close()

    def _stand(self) -> None:
        """The stand: before and after a step; a tight one, a cowl, paper, and two people in the dark theme in one picture."""
        window = self.window
        trying, view = window.views.trying, window.views.stand

        def seen(look: str, **asked: str) -> QImage:
            window.model.set_view("stand")
            view.canvas.show_look(look)
            trying.choose(**asked)
            _wait_until(lambda: not trying.work.is_at_work)
            _wait(1500)
            return view.canvas.grab().toImage()

        view.canvas.face(0.3)
        seen("gap", beside="before")
        self.shot("stand")
        larger = next(id for id, title in trying.bodies if title.startswith("Maren"))
        parts = [seen("pull", on=larger, beside="")]
        self._open("Aria")
        view.canvas.face(0.5, 0.2)
        parts.append(seen("cloth", on="-1", beside=""))
        self._open("Descant")
        view.canvas.face(0.35)
        parts.append(seen("paper", on="paper"))
        window.set_theme("dark")
        parts.append(seen("grain", on="-1", beside=f"body:{larger}"))
        window.set_theme("light")
        trying.choose(on="-1", beside="")
        self._together("stand_looks", parts)
        window.model.set_view("style")

    def _together(self, name: str, parts: list[QImage]) -> None:
        """Four pictures as one."""
        wide, tall = parts[0].width(), parts[0].height()
        sheet = QImage(2 * wide + 8, 2 * tall + 8, QImage.Format.Format_RGB32)
        sheet.fill(Qt.GlobalColor.white)
        painter = QPainter(sheet)
        for n, part in enumerate(parts):
            painter.drawImage(n % 2 * (wide + 8), n // 2 * (tall + 8), part)
        painter.end()
        path = self.folder / f"{name}.png"
        if not sheet.scaledToWidth(1800, Qt.TransformationMode.SmoothTransformation).save(str(path)):
            raise RuntimeError(f"the picture {path} cannot be written")
        self.written.append(path)

    def _sizes(self) -> None:
        """A gown in ten sizes over each other; chart, growth after a slip in it, grading arrows, and eight sizes that are being
        written, of which two break."""
        from zesty_pivot.core.steps import registry

        window = self.window
        found = window.views.in_sizes
        self._open("Canticle")
        window.run("view.sizes")
        found.sizes.make_in([f"regular · {name}" for name in range(34, 54, 2)])
        _wait_until(lambda: not found.sizes.is_at_work)
        found.sizes.choose("regular · 44")
        self.shot("sizes")
        parts = []

        def seen(station: str) -> None:
            window.run(f"sizes.{station}")
            _wait_until(lambda: not found.sizes.is_at_work)
            _wait(400)
            parts.append(found.view.grab().toImage())

        found.charts.set_cell("regular · 46", "waist", "91 cm")
        seen("chart")
        seen("growth")
        window.run("edit.undo")
        found.charts.undo(-1)
        self._open("Carol")
        found.sizes.choose("children · 140")
        seen("grading")
        pleats = {"do": "fullness.pleat", "on": "front", "edge": "shoulder", "count": 1, "depth": "2 mm"}
        self._open("Descant")
        sizes = tuple(f"regular · {name}" for name in range(38, 54, 2))
        style = window.model.style.model_copy(update={"steps": (registry.read(pleats),), "sizes": sizes})
        window.model.edit(style, "pleats")
        window.run("view.sizes")
        _wait_until(lambda: not found.sizes.is_at_work)
        with tempfile.TemporaryDirectory() as folder:
            window.run("sizes.write")
            found.writing.write_sizes(Path(folder))
            _wait_until(lambda: found.writing.count > 5)
            parts.append(found.view.grab().toImage())
            found.writing.stop()
            found.writing.close()
        self._together("sizes_more", parts)
        self._open("Descant")
        window.model.set_view("style")
        window.model.say("")

    def _titled(self) -> None:
        """The pages, with the title block on the first."""
        model = self.window.model
        told = {
            "season": "Winter concert",
            "client": "Isaura Thornwick",
            "size": "14",
            "cloth": "wool crepe",
            "date": "12 October",
        }
        model.edit(model.style.with_finish(told), "title block")
        model.set_view("paper")
        _wait_until(lambda: not self.window.paging.packer.is_at_work)
        self.shot("paper")
        model.undo()
        model.say("")

    def _cut(self) -> None:
        """A lay on narrow cloth, searched for; the simulated plotter at work."""
        window = self.window
        cloths, plotting = window.views.cloths, window.views.plotting
        self._open("Canticle")
        window.run("paper.cloth")
        cloths.change("the width", width="90 cm")
        _wait_until(lambda: not cloths.search.is_at_work)
        window.run("lay.find")
        _wait_until(lambda: not cloths.search.is_at_work)
        cloths.chosen = cloths.plan.pieces[0].key if cloths.plan is not None else ""
        cloths.changed.emit()
        self.shot("cloth")
        window.run("paper.plotter")
        window.run("plot.run")
        _wait_until(lambda: plotting.plotter.drawn > 9000.0)
        self.shot("plotter")
        plotting.cancel()
        self._projected()
        self._cut_sheet()
        window.views.station = "pages"
        window.views.paper.turn("pages")
        self._open("Descant")
        window.model.set_view("style")
        window.model.say("")

    def _projected(self) -> None:
        """A panel thrown on the mat by the simulated projector, aimed with a hand that shakes by a few dots."""
        from zesty_pivot.core.true_size.display import mark_places

        showing = self.window.views.showing
        self.window.run("paper.true_size")
        marks = showing.displays.projector.px_at(mark_places(showing.device))
        shaky = [(float(x) + n % 3 - 1.0, float(y) + n % 2) for n, (x, y) in enumerate(marks)]
        showing.keep(marks=tuple(shaky), line=1.5)
        showing.show("front_centre")
        self.shot("true_size")

    def _cut_sheet(self) -> None:
        """The first page of the cut sheet as it is saved."""
        from PyQt6.QtPdf import QPdfDocument

        from zesty_pivot.core.formats.cut_sheet import cut_sheet
        from zesty_pivot.core.formats.pdf_cut_sheet import cut_sheet_pdf

        derived, path = self.window.model.derived, self.folder / "cut_sheet.png"
        with tempfile.NamedTemporaryFile(suffix=".pdf") as kept:
            kept.write(cut_sheet_pdf(cut_sheet(derived), derived.style.title))
            kept.flush()
            document = QPdfDocument(None)
            document.load(kept.name)
            image = document.render(0, QSize(820, 1160))
            document.close()
        page = QImage(image.size(), QImage.Format.Format_RGB32)
        page.fill(Qt.GlobalColor.white)
        painter = QPainter(page)
        painter.drawImage(0, 0, image)
        painter.end()
        if not page.save(str(path)):
            raise RuntimeError(f"the picture {path} cannot be written")
        self.written.append(path)

    def _intake(self) -> None:
        """A block that comes in by a photograph, and the blocks on the rail."""
        from zesty_pivot.core.errors import FileError
        from zesty_pivot.core.formats import photographed
        from zesty_pivot.core.intake.photo import picture
        from zesty_pivot.data.demo import PHOTOGRAPH, demo_photograph

        window = self.window
        try:
            window.views.intake.incoming.begin(photographed.of((PHOTOGRAPH,), (picture.read(demo_photograph()),)))
        except FileError:  # photographs need OpenCV, which is an extra
            return
        self._dragged()
        self._measured()
        window.model.set_view("style")
        window.model.say("")

    def _dragged(self) -> None:
        """A corner that is dragged, under the loupe: the band of the photograph is seen in it."""
        canvas = self.window.views.intake.import_view.canvas
        _wait(200)
        corner = next(thing for thing in canvas.things if thing.what == "corner underarm")
        at = canvas.to_px(*corner.at)
        for kind, place in ((QEvent.Type.MouseButtonPress, at), (QEvent.Type.MouseMove, at + QPointF(2.0, -4.0))):
            button = Qt.MouseButton.LeftButton
            QApplication.sendEvent(canvas, QMouseEvent(kind, place, place, button, button, Qt.KeyboardModifier.NoModifier))
        self.shot("import")
        release = QEvent.Type.MouseButtonRelease
        none = Qt.MouseButton.NoButton
        QApplication.sendEvent(
            canvas, QMouseEvent(release, at, at, Qt.MouseButton.LeftButton, none, Qt.KeyboardModifier.NoModifier)
        )

    def _measured(self) -> None:
        """The simulated digitiser in the middle of a replay."""
        digitising = self.window.views.intake.digitising
        digitising.play_demo()
        _wait_until(lambda: len(digitising.presses) > 420)
        self.shot("digitiser")
        digitising.stop()

    def _bodies(self) -> None:
        """The measurement chart, a draft half drawn."""
        window = self.window
        window.model.set_view("measure")
        window.views.people.choose(3)
        window.views.measure.rows["sh_bp"].edit.setFocus()
        self.shot("measure")
        window.views.people.choose(1)
        window.model.set_view("block")
        drafting = window.views.drafting
        drafting.go(48)
        self.shot("draft")
        window.model.set_view("style")

    def _compared(self) -> None:
        """Tracing paper."""
        from zesty_pivot.data.demo import demo_styles

        window = self.window
        window.model.file.replace(demo_styles()[1], None)
        window.lay.trace_state(0)
        window.lay.show_panel("trace")
        self.shot("trace")
        window.lay.trace_state(None)
        window.model.file.replace(demo_styles()[0], None)

    def _open(self, name: str) -> None:
        """A demo style by the beginning of its name, without its ring."""
        from zesty_pivot.data.demo import demo_styles

        self.window.model.file.replace(next(style for style in demo_styles() if style.name.startswith(name)), None)
        self.window.model.choose_pivot(None)
