"""The finish view: the pieces as they will be cut, and the schools and choices that make them so."""

from __future__ import annotations

from typing import Literal

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QCheckBox, QLineEdit, QVBoxLayout, QWidget

from zesty_pivot.core.conventions.schools import ALLOWANCES, CAP_UP_TO, FOLDS, SETBACKS, reasons_of
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.pen import draw
from zesty_pivot.core.finish.piece import allowance_of
from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.piece import DartRef, EdgeRef, Use, dart_called, dart_key, dart_words
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column, abreast, side
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.dart_choices import end_choices, point_choices
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.finished import ScreenPen
from zesty_pivot.desk.theme import NOW, text_font

WIDTH = 306


class FinishCanvas(Canvas):
    """The finished pieces side by side."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.setAccessibleName("Finished pieces")
        self.sheet: Sheet | None = None
        self.fault = ""

    def refresh(self) -> None:
        """Lays the pieces out anew."""
        try:
            self.sheet, self.fault = self._model.derived.sheet, ""
        except ZestyError as fault:
            self.fault = str(fault)
        if self._fitted:
            self.fit()
        self.update()

    def content_box(self) -> QRectF:
        return QRectF(0, 0, self.sheet.width, self.sheet.height) if self.sheet else QRectF(0, 0, 100, 100)

    def paint_content(self, painter: QPainter) -> None:
        painter.save()
        draw(self.sheet.laid if self.sheet else (), ScreenPen(painter, 1.0 / self.scale))
        painter.restore()

    def paint_over(self, painter: QPainter) -> None:
        if self.fault:
            painter.setFont(text_font(10, bold=True))
            painter.setPen(NOW.color("error"))
            painter.drawText(self.rect().adjusted(60, 40, -40, -40), Qt.TextFlag.TextWordWrap, self.fault)


GIRTHS: tuple[Literal["bust", "waist", "hip"], ...] = ("bust", "waist", "hip")


class FinishView(QWidget):
    """Canvas and choices."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.canvas = FinishCanvas(model)
        beside = side("right")
        beside.setFixedWidth(WIDTH)
        inside = Column()
        self._column = inside.rows
        self._column.setSpacing(3)
        self.setback, self.fold = Choice("Set-back convention"), Choice("Fold convention")
        self.block_waist = QCheckBox("Keep the block's waist line")
        self.block_waist.clicked.connect(
            lambda on: model.recipe.set_finish({"block_waist": bool(on)}, "the block's waist line")
        )
        self.weight = Choice("Thickness of the cloth")
        self.end, self.allowance = Choice("Mouth"), Choice("Allowance convention")
        self.large_dart = CalcField(self._length_words, "A dart is a large one from", may_be_empty=True)
        self.extension = CalcField(self._length_words, "Folded mouths drawn out to a point", may_be_empty=True)
        self.extension.edit.setPlaceholderText("by folding; or so far outside the seam")
        self.cut_away = CalcField(self._length_words, "Allowance on cut-away legs")
        self.dart_notes = label("", "quiet")
        self.ease = {name: CalcField(self._ease_words, f"Wanted ease, {name}", may_be_empty=True) for name in GIRTHS}
        self.stretch = CalcField(self._stretch_words, "How far the neckline's edge can be pulled")
        self.size_edit, self.date_edit = QLineEdit(), QLineEdit()
        self._build()
        self._own = QWidget()
        self._own_rows = QVBoxLayout(self._own)
        self._own_rows.setContentsMargins(0, 0, 0, 0)
        self._own_rows.setSpacing(3)
        self._column.addWidget(self._own)
        self._column.addStretch(1)
        box = QVBoxLayout(beside)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(inside.scrolled())
        abreast(self, self.canvas, beside, widest=0)
        self._keys: tuple[object, ...] = ()
        self.own_fields: dict[str, CalcField | Choice] = {}
        self._own_edges: dict[str, EdgeRef] = {}
        model.pace.followed.connect(self.refresh)
        model.view_changed.connect(self.refresh)
        self.refresh()

    def _length_words(self, text: str) -> str:
        unit = self._model.style.units
        mm = length_mm(text, self._model.style.scope())
        if mm < 0.0:
            raise ZestyError("an allowance less than 0", advice="Write 0 or more.")
        return f"= {format_length(mm, unit, fine=unit != 'in')}"

    def _stretch_words(self, text: str) -> str:
        return f"= {100.0 * share_of(text):.4g} % longer"

    def _row(self, title: str, widget: QWidget, column: QVBoxLayout) -> None:
        titled(column, title, widget)
        column.addSpacing(4)

    def _build(self) -> None:
        column, model = self._column, self._model
        column.addWidget(label("Darts", "heading"))
        self._row("Sewn point set back from the pivot", self.setback, column)
        self._row("A dart is a large one from", self.large_dart, column)
        self._row("Pressed", self.fold, column)
        self._row("End at the mouth", self.end, column)
        self._row("Thickness of the cloth", self.weight, column)
        self._row("Allowance on cut-away legs", self.cut_away, column)
        self._row("Folded mouths drawn out to a point", self.extension, column)
        column.addWidget(self.dart_notes)
        column.addWidget(label("Seam allowance", "heading"))
        self._row("Convention", self.allowance, column)
        column.addWidget(label("Wanted over the body", "heading"))
        for name, field in self.ease.items():
            self._row(f"Ease at the {name}", field, column)
            field.committed.connect(
                lambda text, name=name: model.recipe.set_finish({"wearing_ease": {name: text or None}}, f"ease at the {name}")
            )
        self._row("The neckline's edge can be pulled by", self.stretch, column)
        self.stretch.committed.connect(lambda text: model.recipe.set_finish({"stretch": text}, "stretch of the neckline"))
        column.addWidget(self.block_waist)
        column.addWidget(label("Label", "heading"))
        self._row("Size", self.size_edit, column)
        self._row("Date", self.date_edit, column)
        self.setback.picked.connect(lambda name: model.recipe.set_finish({"setback": name}, "another set-back"))
        self.large_dart.committed.connect(
            lambda text: model.recipe.set_finish({"large_dart": text or None}, "the limit of large darts")
        )
        self.fold.picked.connect(lambda name: model.recipe.set_finish({"fold": name}, "another fold"))
        self.end.picked.connect(lambda name: model.recipe.set_finish({"end": name}, "another end at the mouth"))
        self.weight.picked.connect(lambda name: model.recipe.set_finish({"weight": name}, "another thickness"))
        self.allowance.picked.connect(lambda name: model.recipe.set_finish({"allowance": name}, "another allowance"))
        self.extension.committed.connect(
            lambda text: model.recipe.set_finish({"extension": text or None}, "the point of folded mouths")
        )
        self.cut_away.committed.connect(lambda text: model.recipe.set_finish({"cut_away": text}, "cut-away allowance"))
        self.size_edit.setAccessibleName("Size")
        self.date_edit.setAccessibleName("Date")
        self.size_edit.editingFinished.connect(lambda: self._label("size", self.size_edit.text()))
        self.date_edit.editingFinished.connect(lambda: self._label("date", self.date_edit.text()))

    def _label(self, key: str, text: str) -> None:
        if text != getattr(self._model.style.finish, key):
            self._model.recipe.set_finish({key: text}, f"label {key}")

    @contained("the finish view")
    def refresh(self) -> None:
        """Shows the model, when this view is the one that is seen."""
        if self._model.view != "finish":
            return
        finish = self._model.style.finish
        self.setback.show_choices([(name, s.title) for name, s in SETBACKS.items()], finish.setback, reasons_of(SETBACKS))
        self.large_dart.set_text(str(finish.large_dart or ""), self._model.opened)
        limit = format_length(SETBACKS[finish.setback].large_from_mm, self._model.style.units)
        self.large_dart.edit.setPlaceholderText(f"{limit} by the convention")
        self.fold.show_choices([(name, s.title) for name, s in FOLDS.items()], finish.fold, reasons_of(FOLDS))
        self.weight.show_choices([(name, s.title) for name, s in CAP_UP_TO.items()], finish.weight, reasons_of(CAP_UP_TO))
        ends = [("auto", "by the intake"), ("cap", "folded, with a cap"), ("cut_away", "cut away inside")]
        self.end.show_choices(ends, finish.end)
        self.allowance.show_choices([(name, s.title) for name, s in ALLOWANCES.items()], finish.allowance)
        self.extension.set_text(str(finish.extension or ""), self._model.opened)
        self.block_waist.setChecked(finish.block_waist)
        self.cut_away.set_text(str(finish.cut_away), self._model.opened)
        self._show_ease()
        for edit, text in ((self.size_edit, finish.size), (self.date_edit, finish.date)):
            if edit.text() != text and not edit.hasFocus():
                edit.setText(text)
        self.canvas.refresh()
        self._show_own()
        notes = [
            f"{words(piece.name).capitalize()} {words(dart.called)} dart: {dart.note}."
            for piece in self._model.derived.pieces
            for dart in piece.darts
            if dart.note
        ]
        self.dart_notes.setText("\n".join(notes))
        self.dart_notes.setVisible(bool(notes))

    def _ease_words(self, text: str) -> str:
        unit = self._model.style.units
        return f"= {format_length(length_mm(text, self._model.style.scope()), unit, fine=unit != 'in')}"

    @contained("the wanted ease")
    def _show_ease(self) -> None:
        """The wanted ease, and in empty fields what there is now."""
        self.stretch.set_text(str(self._model.style.finish.stretch or "0%"), self._model.opened)
        found, style = self._model.derived.girths, self._model.style
        body, unit = style.scope().measures, style.units
        for (name, field), girth in zip(self.ease.items(), (found.bust, found.waist, found.hip), strict=True):
            field.set_text(str(style.finish.wearing_ease.get(name, "")), self._model.opened)
            known = girth is not None and name in body
            text = f"now {format_length((girth or 0.0) - body[name], unit, fine=unit != 'in')}" if known else "not measured"
            field.edit.setPlaceholderText(text)
            field.setEnabled(known or name in style.finish.wearing_ease)

    @contained("the rows of the finish")
    def _show_own(self) -> None:
        """A row for each dart's end, each piece's cut order and each edge's allowance."""
        pattern = self._model.derived.pattern
        keys = tuple(
            (p.name, tuple(dart_key(p, d.id) for d in p.darts if d.use is Use.DART), p.roles) for p in pattern.with_extras
        )
        if keys != self._keys:
            self._keys = keys
            while (item := self._own_rows.takeAt(0)) is not None:
                if (old := item.widget()) is not None:
                    old.hide()
                    old.deleteLater()
            self.own_fields.clear()
            for piece in pattern.with_extras:
                self._own_rows.addWidget(label(words(piece.name).capitalize(), "heading"))
                self._add_choice(f"cut:{piece.name}", "Cut")
                for dart in (dart for dart in piece.darts if dart.use is Use.DART):
                    ref, named = dart_key(piece, dart.id), capital(dart_words(piece, dart.id))
                    self._add_choice(f"end:{ref}", f"{named} dart")
                    self._add_choice(f"school:{ref}", f"{named} dart, sewn point")
                for edge, _role in piece.roles:
                    self._add_length(EdgeRef(piece.name, edge), f"Allowance, {words(edge)}")
        self._fill_own()

    def _add_choice(self, key: str, title: str) -> None:
        choice = Choice(title)
        kind, _colon, name = key.partition(":")
        if kind == "cut":
            choice.picked.connect(lambda value: self._model.recipe.set_finish({"cut": {name: value}}, "cut order"))
        elif kind == "school":
            choice.picked.connect(
                lambda value: self._model.recipe.set_finish(
                    {"darts": {name: {"school": value or None, "setback": None}}}, "another sewn point"
                )
            )
        else:
            choice.picked.connect(
                lambda value: self._model.recipe.set_finish(
                    {"darts": {name: {"end": None if value == "school" else value}}}, "end at the mouth"
                )
            )
        self.own_fields[key] = choice
        self._row(title, choice, self._own_rows)

    def _add_length(self, at: EdgeRef, title: str) -> None:
        key, edge = str(at), f"{words(at.piece)} {words(at.edge)}"
        self._own_edges[key] = at
        field = CalcField(self._length_words, title, may_be_empty=True)
        field.committed.connect(
            lambda text: self._model.recipe.set_finish({"allowances": {key: text or None}}, f"allowance of the {edge}")
        )
        self.own_fields[key] = field
        self._row(title, field, self._own_rows)

    def _fill_own(self) -> None:
        finish, pattern = self._model.style.finish, self._model.derived.pattern
        scope, by_school = self._model.style.scope(), finish.model_copy(update={"allowances": {}})
        known = {piece.name: piece for piece in pattern.with_extras}
        for key, field in self.own_fields.items():
            if isinstance(field, CalcField):
                at = self._own_edges[key]
                field.set_text(str(finish.allowances.get(key, "")), self._model.opened)
                school = allowance_of(known[at.piece], at.edge, by_school, scope)
                field.edit.setPlaceholderText(f"{format_length(school, scope.unit)} by the convention")
                continue
            kind, _colon, name = key.partition(":")
            if kind == "cut":
                orders = [
                    ("auto", "by the centre"),
                    ("fold", "1 on the fold"),
                    ("pair", "1 pair"),
                    ("one", "1"),
                    ("up", "1, right side up"),
                ]
                field.show_choices(orders, finish.cut.get(name, "auto"))
            elif kind == "school":
                ref = DartRef.read(name)
                piece = known[ref.piece]
                id = dart_called(piece, ref.dart) or ref.dart
                field.show_choices(*point_choices(self._model, piece, id, name), reasons_of(SETBACKS))
            else:
                field.show_choices(*end_choices(self._model, name))
