"""Fields bound to one leaf of the open document: what is typed is taken over at once, or kept and marked."""

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QSize, Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QComboBox, QLabel, QStyle, QStyleOptionComboBox, QStylePainter, QWidget

from anlage.session.leaves.steps import stepped
from anlage.session.leaves.suggestions import suggestions
from anlage.session.leaves.table import Field, field_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.offering_line import OfferingLine
from anlage.ui.kit.reader import Reader

PAGE_STEPS = 5  # of an arrow key, by PgUp and PgDn
_STEPS = {
    Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1, Qt.Key.Key_PageUp: PAGE_STEPS, Qt.Key.Key_PageDown: -PAGE_STEPS,
}  # fmt: skip
NOT_STATED = "–"
MOST_ITEMS = 18  # of a list that are seen at once


@guarded
class LeafField(OfferingLine):
    """A line for one leaf; arrow keys step its number, Escape takes back what was typed in this visit.

    Signals
    -------
    left() : the person is done with the field, by Enter, Escape or by going elsewhere
    """

    left = Signal()

    def __init__(self, document: Document, path: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.document, self.path = document, path
        self.field: Field = field_of(path)
        self._visit: object = object()
        self._before, self._entered = "", document.working
        self._said: str | None = None  # what the document makes of what is typed in this visit
        self._typing = False
        self.setAccessibleName(self.field.label)
        self.setReadOnly(not document.can_write)
        if self.field.kind:
            self.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.textEdited.connect(self._on_edited)
        document.part(path).connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show what the document says, unless that is what was just typed here, in the person's own words."""
        text = self.document.text(self.path)
        if not self._typing and self.text() != text and text != self._said:
            self.setText(text)
            self._begin_visit()  # undone, dragged or read in other units: what stands here now is what is typed over
            if not self.field.kind and not self.hasFocus():
                self.setCursorPosition(0)  # a long text shows its beginning
        self._mark()

    def begin(self, text: str = "") -> None:
        """Start typing: over what stands there, or with a first character."""
        self.setFocus(Qt.FocusReason.OtherFocusReason)
        if text:
            self.setText(text)
            self._on_edited(text)
        else:
            self.selectAll()

    @property
    def visit(self) -> object:
        """What is typed in one visit is one undo step."""
        return self._visit

    def _on_edited(self, text: str) -> None:
        self._typing = True
        self.document.type_text(self.path, text, self._visit, self._entered)
        self._typing, self._said = False, self.document.text(self.path)
        self._mark()

    def _mark(self) -> None:
        fault = self.document.complaints().get(self.path)
        proposed = self.document.proposed(self.path)
        mark = "proposed" if proposed else ""
        if fault is not None:
            mark = "pending" if self.path in self.document.working.pending else "clash"
        unit = self.field.unit(self.document.system)
        tip = proposed or self.field.tip if fault is None else f"{fault.what}: {fault.mend}"
        self.setToolTip(f"{self.field.label}{f' [{unit}]' if unit else ''}. {tip}" if fault is None else tip)
        _show_mark(self, mark)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        if self._goes_into_offer(event):
            return
        if key in _STEPS and not event.modifiers() & Qt.KeyboardModifier.AltModifier:
            self._step(_STEPS[key])
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._finish()
        elif key == Qt.Key.Key_Escape:
            self._take_back(event)
        else:
            super().keyPressEvent(event)

    def _take_back(self, event: QKeyEvent) -> None:
        """Take back what was typed in this visit; nothing typed, the key is for what the field lies in."""
        if self.text() == self._before:
            event.ignore()
        else:
            self._on_edited(self._before)
        self._finish()

    def _step(self, steps: int) -> None:
        cursor = self.cursorPosition()
        text = stepped(self.text(), cursor, self.path, self.document.system, steps)
        if text is None or self.isReadOnly():
            return
        low_end = cursor <= self.text().find("..")
        self.setText(text)
        self.setCursorPosition(0 if low_end else len(text))
        self._on_edited(text)

    def _finish(self) -> None:
        self._settle()
        self.selectAll()
        self.left.emit()

    def _settle(self) -> None:
        """Write the value as it is understood, and let the next typing be a step of its own."""
        self._begin_visit()
        self._said = None
        self.refresh()

    def _begin_visit(self) -> None:
        self._visit, self._before = object(), self.document.text(self.path)
        self._entered = self.document.working

    def words(self) -> Sequence[str]:
        """Return the names of the catalogue or the words that the leaf may be."""
        return suggestions(self.field)

    def focusInEvent(self, event: QFocusEvent) -> None:
        self._begin_visit()
        super().focusInEvent(event)
        if event.reason() != Qt.FocusReason.MouseFocusReason:
            self.selectAll()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self._settle()
        if event.reason() != Qt.FocusReason.PopupFocusReason:
            self.left.emit()


@guarded
class ListBox(QComboBox):
    """A list to choose from, with its arrow in the ink of the theme."""

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        # As wide as its room: a long choice must not push a form apart.
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(7)
        self.setMaxVisibleItems(MOST_ITEMS)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it with a choice that is too long cut by dots, and the arrow in the ink of the theme."""
        option = QStyleOptionComboBox()
        self.initStyleOption(option)
        frame = QStyle.SubControl.SC_ComboBoxEditField
        room = self.style().subControlRect(QStyle.ComplexControl.CC_ComboBox, option, frame, self).width() - 6
        option.currentText = self.fontMetrics().elidedText(  # type: ignore[attr-defined]
            self.currentText(), Qt.TextElideMode.ElideRight, room
        )
        painter = QStylePainter(self)
        painter.drawComplexControl(QStyle.ComplexControl.CC_ComboBox, option)
        painter.drawControl(QStyle.ControlElement.CE_ComboBoxLabel, option)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self.reader.look.colour["muted"], 1.4))
        x, y = self.width() - 12.0, self.height() / 2 - 1.5
        painter.drawPolyline([QPointF(x - 4, y), QPointF(x, y + 4), QPointF(x + 4, y)])

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()  # scrolling past a list must not change what is stated


class ChoiceField(ListBox):
    """A list for one leaf that is one of a few words; the first entry is *not stated*."""

    left = Signal()

    def __init__(
        self,
        document: Document,
        path: str,
        parent: QWidget | None = None,
        choices: Sequence[tuple[str, str]] | None = None,
    ) -> None:
        super().__init__(document.reader, parent)
        self.document, self.path = document, path
        self.field: Field = field_of(path)
        self.visit: object = object()  # what is chosen in one go is one undo step
        self.setAccessibleName(self.field.label)
        self.setToolTip(f"{self.field.label}. {self.field.tip}")
        self.setEnabled(document.can_write)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        if not self.field.required:
            self.addItem(NOT_STATED, "")
        own = [(self.field.say(choice), choice) for choice in self.field.choices]
        for said, choice in own if choices is None else choices:
            self.addItem(said, choice)
        self.activated.connect(self._on_activated)
        document.part(path).connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show what the document says, also what the list does not offer: a code that is not installed here."""
        stated = self.document.text(self.path)
        if stated and self.findData(stated) < 0:
            self.addItem(self.field.say(stated), stated)
        self.setCurrentIndex(max(self.findData(stated), 0))
        said = f": {self.currentText()}" if stated else ""
        proposed = self.document.proposed(self.path)
        self.setToolTip(f"{self.field.label}{said}. {proposed or self.field.tip}")
        _show_mark(self, "proposed" if proposed else "")

    def _on_activated(self, index: int) -> None:
        self.visit = object()
        self.document.type_text(self.path, self.itemData(index), self.visit)
        self.left.emit()


@guarded
class Unit(QLabel):
    """The unit beside a field, in the reader's system."""

    def __init__(self, document: Document, path: str) -> None:
        super().__init__()
        self.document, self.field = document, field_of(path)
        self.setProperty("tone", "muted")
        document.reader.units_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show the unit of the reader's system."""
        self.setText(self.field.unit(self.document.system))

    def sizeHint(self) -> QSize:
        return QSize(max(super().sizeHint().width(), 46 if self.field.kind == "speed" else 24), 20)


def field_for(document: Document, path: str, parent: QWidget | None = None) -> LeafField | ChoiceField:
    """Return the kind of field that a leaf needs."""
    kind = ChoiceField if field_of(path).shape == "choice" else LeafField
    return kind(document, path, parent)


def _show_mark(field: QWidget, mark: str) -> None:
    """Let a field look as it stands: waiting, in a clash, only proposed."""
    if mark != (field.property("mark") or ""):
        field.setProperty("mark", mark)
        field.style().unpolish(field)
        field.style().polish(field)
