"""Choosing a preparation: a family, a form drawn as itself, and from how many sides or on what it is welded."""

from PySide6.QtCore import QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from anlage.core.drawing import DisplayList, fitted
from anlage.core.drawing.section import profile
from anlage.core.joint import MAKES, Family, Kind
from anlage.core.procedure import Joint
from anlage.session.leaves.table import field_of
from anlage.session.weld.preparations import FAMILIES, FAMILY_WORDS, chooser_sketch, offer_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import PX_PER_MM
from anlage.ui.picture.painter import Placed, paint

COLUMNS = 4
LATER_MS = 150
FORMS_AT_MOST = 6
WAYS_AT_MOST = 3


class Chooser(QWidget):
    """The preparations as small drawings of themselves, at the proportion of this joint."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.family: Family = "butt"
        self._visit = object()
        self.families = [self._tab(FAMILY_WORDS[family]) for family in FAMILIES]
        self.buttons = [PreparationButton(document, "square") for _ in range(FORMS_AT_MOST)]
        self.ways = [self._tab("") for _ in range(WAYS_AT_MOST)]
        self._way_kinds: tuple[Kind, ...] = ()
        self.group, *others = (QButtonGroup(self) for _ in range(3))
        for row, tabs in zip((self.families, self.ways), others, strict=True):
            for tab in row:
                tabs.addButton(tab)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(6)
        layout.addLayout(_row(self.families))
        grid = QGridLayout()
        grid.setSpacing(6)
        for place, button in enumerate(self.buttons):
            button.clicked.connect(self._on_clicked)
            button.left.connect(self.new_visit)
            self.group.addButton(button)
            grid.addWidget(button, place // COLUMNS, place % COLUMNS)
        grid.setColumnStretch(COLUMNS, 1)
        layout.addLayout(grid)
        layout.addLayout(_row(self.ways))
        for family, tab in zip(FAMILIES, self.families, strict=True):
            tab.clicked.connect(lambda _checked=False, family=family: self.show_family(family))
        for place, tab in enumerate(self.ways):
            tab.clicked.connect(lambda _checked=False, place=place: self._choose(self._way_kinds[place]))
        self._later = QTimer(self, singleShot=True, interval=LATER_MS)
        self._later.timeout.connect(self._draw_anew)
        document.part("joint").connect(self._on_changed)
        self._on_changed()

    @staticmethod
    def _tab(text: str) -> QToolButton:
        tab = QToolButton()
        tab.setText(text)
        tab.setCheckable(True)
        tab.setProperty("tab", True)  # noqa: FBT003 - a property of the stylesheet
        return tab

    def show_family(self, family: Family) -> None:
        """Show the drawings of a family; nothing is chosen by that."""
        self.family = family
        self.refresh()

    def _on_changed(self) -> None:
        kind = self.document.value.joint.kind
        if kind is not None:
            self.family = MAKES[kind].family
        self.refresh()
        self._later.start()

    def _draw_anew(self) -> None:
        """Draw the preparations at the proportion of the joint as it is now, once it has stopped changing."""
        for button in self.buttons:
            button.update()

    def refresh(self) -> None:
        """Show what can be chosen and which one is."""
        kind = self.document.value.joint.kind
        choices = offer_of(self.family, kind)
        for family, tab in zip(FAMILIES, self.families, strict=True):
            tab.setChecked(family == self.family)
        self.group.setExclusive(False)
        for place, button in enumerate(self.buttons):
            button.setVisible(place < len(choices.kinds))
            if place < len(choices.kinds):
                button.show_kind(choices.kinds[place], chosen=choices.kinds[place] == kind)
        self.group.setExclusive(True)
        self._way_kinds = tuple(each for _, each in choices.ways)
        for place, tab in enumerate(self.ways):
            tab.setVisible(place < len(choices.ways))
            if place < len(choices.ways):
                word, own = choices.ways[place]
                tab.setText(word)
                tab.setChecked(own == kind)
                tab.setEnabled(self.document.can_write)

    def button(self, kind: Kind) -> "PreparationButton":
        """Return the drawing of a kind that is shown."""
        return next(each for each in self.buttons if each.kind == kind and not each.isHidden())

    def way(self, kind: Kind) -> QToolButton:
        """Return the button that turns the chosen form into a kind."""
        return self.ways[self._way_kinds.index(kind)]

    def _on_clicked(self) -> None:
        button = self.sender()
        assert isinstance(button, PreparationButton)
        self._choose(button.kind)

    def _choose(self, kind: Kind) -> None:
        self.document.type_text("joint/kind", kind, self._visit)
        self.refresh()

    def new_visit(self) -> None:
        """Let the next choice be an undo step of its own."""
        self._visit = object()


def _row(widgets: list[QToolButton]) -> QHBoxLayout:
    row = QHBoxLayout()
    row.setSpacing(3)
    for widget in widgets:
        row.addWidget(widget)
    row.addStretch(1)
    return row


@guarded
class PreparationButton(QAbstractButton):
    """One preparation, drawn.

    Signals
    -------
    left() : the keyboard left the drawings
    """

    left = Signal()

    def __init__(self, document: Document, kind: Kind) -> None:
        super().__init__()
        self.document, self.kind = document, kind
        self._drawn: tuple[Joint, Kind, QSize, DisplayList] | None = None
        self.setCheckable(True)
        self.setEnabled(document.can_write)
        self.setFixedSize(self.sizeHint())
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def show_kind(self, kind: Kind, *, chosen: bool) -> None:
        """Show a kind, as chosen or not."""
        if kind != self.kind or not self.toolTip():
            self.kind = kind
            name = field_of("joint/kind").say(kind)
            self.setAccessibleName(name)
            self.setToolTip(name)
            self.update()
        self.setChecked(chosen)

    def sizeHint(self) -> QSize:
        return QSize(76, 54)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if not isinstance(QApplication.focusWidget(), PreparationButton):
            self.left.emit()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        look = self.document.reader.look
        painter.fillRect(self.rect(), look.colour["sheet"])
        room = QRectF(self.rect()).adjusted(6, 8, -6, -8)
        painter.setClipRect(self.rect().adjusted(3, 3, -3, -3))
        paint(Placed.centred(self._picture(room), room, PX_PER_MM), painter, look)
        painter.setClipping(False)
        strong = self.isChecked() or self.hasFocus()
        painter.setPen(look.colour["accent" if self.hasFocus() else "ink" if self.isChecked() else "edge"])
        for inset in range(2 if strong else 1):
            painter.drawRect(self.rect().adjusted(inset, inset, -1 - inset, -1 - inset))
        if self.isChecked():
            painter.fillRect(2, self.height() - 5, self.width() - 4, 3, look.colour["ink"])

    def _picture(self, room: QRectF) -> DisplayList:
        joint = self.document.value.joint
        drawn = self._drawn
        if drawn is None or drawn[0] is not joint or drawn[1:3] != (self.kind, self.size()):
            shape = chooser_sketch(joint, self.kind).preparation
            width, height = room.width() / PX_PER_MM, room.height() / PX_PER_MM
            picture = fitted(lambda scale: profile(shape, scale), width, height)
            drawn = self._drawn = (joint, self.kind, self.size(), picture)
        return drawn[3]

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
            return
        super().keyPressEvent(event)
        neighbour = QApplication.focusWidget()
        if isinstance(neighbour, PreparationButton) and neighbour is not self:
            neighbour.click()  # an arrow key walked there: walking chooses, as among all alternatives
