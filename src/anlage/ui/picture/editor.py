"""Typing a value where it stands in a picture: a field over the value, gone when done."""

from PySide6.QtCore import QObject, QPoint, QRectF, Qt

from anlage.session.leaves.text import leaf_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import LeafField
from anlage.ui.picture.view import PictureView, inside

WIDTH_PX, HEIGHT_PX = 92, 26


class PictureEditor(QObject):
    """Opens a field over the value that a picture asks to have typed."""

    def __init__(self, view: PictureView, document: Document) -> None:
        super().__init__(view)
        self.view, self.document = view, document
        self.field: LeafField | None = None
        view.editing_asked.connect(self._on_editing_asked)

    def _on_editing_asked(self, target: str, rect: QRectF, text: str) -> None:
        self._close()
        self.field = LeafField(self.document, leaf_of(target), self.view)
        room = QRectF(self.view.rect()).adjusted(4, 4, -4, -4)
        middle = rect.center()
        wanted = QRectF(middle.x() - WIDTH_PX / 2, middle.y() - HEIGHT_PX / 2, WIDTH_PX, HEIGHT_PX)
        self.field.resize(WIDTH_PX, HEIGHT_PX)
        corner = inside(wanted, room)
        self.field.move(QPoint(round(corner.x()), round(corner.y())))
        self.field.show()
        self.field.begin(text)
        self.field.left.connect(self._on_left)

    def _on_left(self) -> None:
        had_focus = self.field is not None and self.field.hasFocus()
        self._close()
        if had_focus:
            self.view.setFocus(Qt.FocusReason.OtherFocusReason)

    def _close(self) -> None:
        field, self.field = self.field, None
        if field is not None:
            field.left.disconnect(self._on_left)
            field.hide()
            field.deleteLater()
