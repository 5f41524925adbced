"""The Joint place: what shape, how much metal? The section to scale, its dimensions typed or dragged."""

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from anlage.core.drawing import fitted, profile
from anlage.session.fields import PARTS, applies, field_of
from anlage.session.figures import joint_figures
from anlage.session.pictures import chooser_sketches
from anlage.ui.document import Document
from anlage.ui.fields import ChoiceField, Complaint, LeafField, Unit
from anlage.ui.figures import FigureStrip, FitTable
from anlage.ui.joint_presenter import JointPresenter
from anlage.ui.look import PX_PER_MM, font
from anlage.ui.painter import Placed, paint
from anlage.ui.picture import PictureView
from anlage.ui.picture_editor import PictureEditor
from anlage.ui.pipe_size import PipeSizeField

COLUMN_PX = 376
TOLERANCED = ("root_opening_mm", "root_face_mm", "groove_angle_deg", "reinforcement_mm")


class JointPlace(QWidget):
    """Section, preparation chooser, dimensions and what the joint holds."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.presenter = JointPresenter(document)
        self.section = PictureView(self.presenter, document.reader, "Section of the joint")
        self.editor = PictureEditor(self.section, document)
        self.column = _Column(document)
        self.figures = FigureStrip(lambda: joint_figures(document.wps, document.system))

        left = QVBoxLayout()
        left.setSpacing(0)
        left.addWidget(self.section, 1)
        left.addWidget(self.figures)
        scroll = QScrollArea()
        scroll.setWidget(self.column)
        scroll.setWidgetResizable(True)
        scroll.setFixedWidth(COLUMN_PX)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 14, 0, 14)
        layout.setSpacing(0)
        layout.addLayout(left, 1)
        layout.addWidget(scroll)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.figures.refresh)

    def refresh(self) -> None:
        """Show what the document says now."""
        self.section.refresh()
        self.figures.refresh()

    def begin(self) -> None:
        """Put the keyboard where the work starts: at the chooser, or at the drawing."""
        if self.document.wps.joint.kind is None:
            self.column.chooser.buttons[0].setFocus(Qt.FocusReason.OtherFocusReason)
        else:
            self.section.setFocus(Qt.FocusReason.TabFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is on this place."""
        field = self.column.fields.get(path)
        if field is None:
            return False
        field.setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True


class _Column(QWidget):
    """The right column: chooser, product, and every dimension as numbers."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.chooser = Chooser(document)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 0, 16, 0)
        layout.setSpacing(8)
        layout.addWidget(_title("Preparation"))
        layout.addWidget(self.chooser)
        layout.addSpacing(6)
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(6)
        self.grid.setVerticalSpacing(5)
        self.grid.setColumnStretch(0, 1)
        self._rows()
        layout.addLayout(self.grid)
        layout.addSpacing(10)
        self.fit = FitTable(document, self)
        layout.addWidget(self.fit)
        layout.addStretch(1)
        document.changed.connect(self.refresh)
        self.refresh()

    def _rows(self) -> None:
        document, grid = self.document, self.grid
        for column, head in ((1, "nominal"), (3, "minus"), (4, "plus")):
            label = _label(head)
            label.setAlignment(Qt.AlignmentFlag.AlignRight)
            label.setFont(font("note"))
            grid.addWidget(label, 5, column)
        product = self.fields["joint/product"] = ChoiceField(document, "joint/product")
        grid.addWidget(_label("Product"), 0, 0)
        grid.addWidget(product, 0, 1, 1, 2)
        self._single("joint/thickness_mm", 1)
        self.pipe_rows = self._single("joint/od_mm", 3)
        size = PipeSizeField(document)
        grid.addWidget(size, 3, 3, 1, 2)
        self.pipe_rows.append(size)
        self.rows: dict[str, list[QWidget]] = {}
        for place, name in enumerate(TOLERANCED):
            self.rows[name] = self._toleranced(f"joint/{name}", 6 + 2 * place)

    def _single(self, path: str, row: int) -> list[QWidget]:
        return self._add(path, row, (path,))

    def _toleranced(self, path: str, row: int) -> list[QWidget]:
        return self._add(path, row, (path, *(f"{path}/{part}" for part in PARTS)))

    def _add(self, path: str, row: int, paths: tuple[str, ...]) -> list[QWidget]:
        """Put label, fields and unit of a leaf into a row, and under it what is wrong with them."""
        document, grid = self.document, self.grid
        label = _label(field_of(path).label)
        shown: list[QWidget] = [label]
        grid.addWidget(label, row, 0)
        for column, leaf in zip((1, 3, 4), paths, strict=False):
            field = self.fields[leaf] = LeafField(document, leaf)
            field.setFixedWidth(76 if column == 1 else 58)
            part = leaf.removeprefix(path).strip("/")
            field.setAccessibleName(f"{field.field.label} {part}".strip())
            grid.addWidget(field, row, column)
            shown.append(field)
        unit, complaint = Unit(document, path), Complaint(document, paths, self)
        grid.addWidget(unit, row, 2)
        grid.addWidget(complaint, row + 1, 0, 1, 5)
        return [*shown, unit]

    def refresh(self) -> None:
        """Show the dimensions that the preparation has."""
        wps = self.document.wps
        for name, widgets in {**self.rows, "od_mm": self.pipe_rows}.items():
            for widget in widgets:
                widget.setVisible(applies(wps, f"joint/{name}"))


def _title(text: str) -> QLabel:
    label = QLabel(text)
    label.setFont(font("title", strong=True))
    return label


def _label(text: str) -> QLabel:
    label = QLabel(text)
    label.setProperty("tone", "muted")
    return label


class Chooser(QWidget):
    """The preparations as small drawings of themselves, at the proportion of this joint."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(6)
        self.group = QButtonGroup(self)
        self._visit = object()
        self.buttons: list[PreparationButton] = []
        for kind in field_of("joint/kind").choices:
            button = PreparationButton(document, kind)
            button.clicked.connect(self._on_clicked)
            button.left.connect(self.new_visit)
            self.group.addButton(button)
            self.buttons.append(button)
            layout.addWidget(button)
        document.changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show which one is chosen."""
        kind = self.document.wps.joint.kind
        self.group.setExclusive(False)
        for button in self.buttons:
            button.setChecked(button.kind == kind)
        self.group.setExclusive(True)
        for button in self.buttons:
            button.update()

    def _on_clicked(self) -> None:
        button = self.sender()
        assert isinstance(button, PreparationButton)
        self.document.type_text("joint/kind", button.kind, self._visit)

    def new_visit(self) -> None:
        """Let the next choice be an undo step of its own."""
        self._visit = object()


class PreparationButton(QAbstractButton):
    """One preparation, drawn.

    Signals
    -------
    left() : the keyboard left the drawings
    """

    left = Signal()

    def __init__(self, document: Document, kind: str) -> None:
        super().__init__()
        self.document, self.kind = document, kind
        self.setCheckable(True)
        self.setEnabled(document.can_write)
        name = field_of("joint/kind").say(kind)
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def sizeHint(self) -> QSize:
        return QSize(74, 58)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if not isinstance(QApplication.focusWidget(), PreparationButton):
            self.left.emit()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        look = self.document.reader.look
        painter.fillRect(self.rect(), look.colour["sheet"])
        sketch = chooser_sketches(self.document.wps.joint)[self.kind]
        room = QRectF(self.rect()).adjusted(6, 8, -6, -8)
        width, height = room.width() / PX_PER_MM, room.height() / PX_PER_MM
        joint = sketch.preparation
        painter.setClipRect(self.rect().adjusted(3, 3, -3, -3))
        paint(Placed.centred(fitted(lambda s: profile(joint, s), width, height), room, PX_PER_MM), painter, look)
        painter.setClipping(False)
        strong = self.isChecked() or self.hasFocus()
        painter.setPen(look.colour["accent" if self.hasFocus() else "ink" if self.isChecked() else "edge"])
        for inset in range(2 if strong else 1):
            painter.drawRect(self.rect().adjusted(inset, inset, -1 - inset, -1 - inset))
        if self.isChecked():
            painter.fillRect(2, self.height() - 5, self.width() - 4, 3, look.colour["ink"])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
            return
        super().keyPressEvent(event)
        neighbour = QApplication.focusWidget()
        if isinstance(neighbour, PreparationButton) and neighbour is not self:
            neighbour.click()  # an arrow key walked there: walking chooses, as among all alternatives
