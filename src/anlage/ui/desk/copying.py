"""The picture in front on the clipboard: as SVG for whoever draws, as PNG for everybody else."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QMimeData, QRectF, QSize, Qt
from PySide6.QtGui import QGuiApplication, QImage, QPainter

from anlage.core.drawing import DisplayList
from anlage.core.drawing.page import on_page
from anlage.core.errors import AnlageError
from anlage.session.output.pictures import picture_file, picture_of
from anlage.session.seam.heat import heat_span
from anlage.ui.kit.look import Look, measure
from anlage.ui.picture.painter import Placed, paint

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

DOTS_PER_MM = 300 / 25.4


def copy_picture(desk: "WindowDesk") -> None:
    """Put the picture in front on the clipboard; the section where there is none."""
    document = desk.document
    if document is None:
        return
    name = desk.current_place().picture() or "section"
    wps, system = document.value, document.system
    try:
        drawn = picture_file(wps, name, ".svg", system, measure)
        image = as_image(picture_of(wps, name, system, measure), heat_span(wps))
    except AnlageError as fault:
        desk.say(str(fault))
        return
    both = QMimeData()
    both.setData("image/svg+xml", drawn)
    both.setImageData(image)
    QGuiApplication.clipboard().setMimeData(both)
    desk.mention(f"The picture, {name.partition('/')[0]}, is on the clipboard as SVG and PNG.")


def as_image(picture: DisplayList, heat: tuple[float, float] | None) -> QImage:
    """Return a picture on white, at 300 dots an inch."""
    page = on_page(picture)
    size = QSize(*(round(side * DOTS_PER_MM) for side in page.high))
    image = QImage(size, QImage.Format.Format_RGB32)
    image.fill(Qt.GlobalColor.white)
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    paint(Placed.centred(page, QRectF(image.rect()), DOTS_PER_MM, heat), painter, Look.of("light"))
    painter.end()
    return image
