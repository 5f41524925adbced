"""The job: what the procedure is for, by which code, in what metal and range; it drives every later check."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QLabel, QToolButton, QWidget

from anlage.session.leaves.table import field_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, Complaint, LeafField, Unit, field_for
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.icons import icon
from anlage.ui.kit.look import font

WIDTH_PX = 660
# Lines of the panel: one wide leaf, or two that belong together.
LINES = (
    ("header/number",), ("header/title",), ("header/application",), ("header/code", "header/units"),
    ("header/weld", "header/impact"), ("header/hardness", "header/sour_service"),
    ("metals/one/name", "metals/other/name"), ("range/thickness_mm", "range/thicker_member_mm"),
    ("range/diameter_mm", "seam/weave_limit_mm"), ("preheat/minimum_c", "preheat/interpass_maximum_c"),
    ("pwht/kind", "pwht/temperature_c"), ("pwht/time_h", "preheat/maintenance"),
    ("technique/position", "technique/progression"), ("technique/runs", "technique/bead_technique"),
    ("technique/peening", "technique/thermal_preparation"), ("technique/cleaning", "technique/back_gouging"),
    ("joint/backing", "joint/retainers"),
)  # fmt: skip


@guarded
class JobPanel(QFrame):
    """A panel under the number of the procedure.

    Signals
    -------
    put_away() : the person is done with it
    """

    put_away = Signal()

    def __init__(self, document: Document, parent: QWidget) -> None:
        super().__init__(parent, objectName="floating")
        self.document = document
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.setFixedWidth(WIDTH_PX)
        title, away = QLabel("The job"), QToolButton()
        title.setFont(font("title", strong=True))
        away.setProperty("flat", True)  # noqa: FBT003 - a property of the stylesheet
        away.setIcon(icon("close", document.reader.look.colour["ink"]))
        away.setAccessibleName("Put the job data away")
        away.clicked.connect(self.put_away)
        grid = QGridLayout(self)
        grid.setContentsMargins(16, 10, 12, 14)
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        head = QHBoxLayout()
        head.addWidget(title, 1)
        head.addWidget(away)
        grid.addLayout(head, 0, 0, 1, 6)
        for place, paths in enumerate(LINES):
            self._line(grid, 2 * place + 1, paths)

    def _line(self, grid: QGridLayout, row: int, paths: tuple[str, ...]) -> None:
        for place, path in enumerate(paths):
            label, field = QLabel(field_of(path).label), field_for(self.document, path)
            label.setProperty("tone", "muted")
            self.fields[path] = field
            grid.addWidget(label, row, 3 * place)
            wide = len(paths) == 1
            grid.addWidget(field, row, 3 * place + 1, 1, 5 if wide else 1)
            if field.field.kind:
                grid.addWidget(Unit(self.document, path), row, 3 * place + 2)
        grid.addWidget(Complaint(self.document, paths, self), row + 1, 0, 1, 6)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.put_away.emit()
        else:
            super().keyPressEvent(event)
