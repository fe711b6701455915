"""Pictures of what a canvas shows, for the clipboard and for files. They leave the program in the light theme."""

from __future__ import annotations

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QMimeData, QRect
from PyQt6.QtGui import QGuiApplication, QImage, QPainter
from PyQt6.QtSvg import QSvgGenerator

from zesty_pivot.core.errors import FileError
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.theme import printed

SHARPER = 2  # pixels of the picture for one of the screen


def image(canvas: Canvas) -> QImage:
    """The canvas as an image, twice as sharp as the screen."""
    found = QImage(canvas.size() * SHARPER, QImage.Format.Format_ARGB32)
    found.setDevicePixelRatio(SHARPER)
    painter = QPainter(found)
    with printed():
        canvas.render_to(painter)
    painter.end()
    return found


def png(canvas: Canvas) -> bytes:
    """The canvas as PNG. Raises FileError when it cannot be encoded."""
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    if not image(canvas).save(buffer, "PNG"):
        raise FileError("the picture cannot be encoded", advice="Save it as SVG.")
    return bytes(buffer.data().data())


def svg(canvas: Canvas) -> bytes:
    """The canvas as SVG: lines stay lines."""
    content = QByteArray()
    buffer = QBuffer(content)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    generator = QSvgGenerator()
    generator.setOutputDevice(buffer)
    generator.setSize(canvas.size())
    generator.setViewBox(QRect(0, 0, canvas.width(), canvas.height()))
    generator.setTitle("Zesty Pivot")
    painter = QPainter(generator)
    with printed():
        canvas.render_to(painter)
    painter.end()
    buffer.close()
    return bytes(content.data())


def copy(canvas: Canvas) -> None:
    """Both pictures to the clipboard."""
    data = QMimeData()
    data.setImageData(image(canvas))  # offered as PNG too; encoded when somebody asks for it
    data.setData("image/svg+xml", QByteArray(svg(canvas)))
    board = QGuiApplication.clipboard()
    if board is not None:
        board.setMimeData(data)
