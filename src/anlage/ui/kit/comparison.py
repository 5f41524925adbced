"""Two states of a procedure beside each other: what differs in a table."""

from collections.abc import Sequence

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QAbstractItemView, QHeaderView, QTableWidget, QTableWidgetItem, QVBoxLayout, QWidget

from anlage.session.leaves.difference import Difference
from anlage.ui.kit.guard import guarded

MOST_PX = 240
ROW_PX, LEAST_PX = 26, 112


@guarded
class Comparison(QWidget):
    """What differs between two states, a row a leaf."""

    def __init__(self, most_px: int = MOST_PX) -> None:
        super().__init__()
        self._most_px, self._wanted_px = most_px, LEAST_PX
        self.table = QTableWidget(0, 3)
        self.table.setAccessibleName("What differs")
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.verticalHeader().hide()
        self.table.verticalHeader().setDefaultSectionSize(ROW_PX)
        self.table.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        self.table.horizontalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        self.table.setShowGrid(False)
        self.table.setTabKeyNavigation(False)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.table)

    def show_differences(self, found: Sequence[Difference], left: str, right: str) -> None:
        """Show what differs between two states, called so."""
        self.show_rows(found or [Difference("Nothing differs.", "", "")], ("What differs", left, right))

    def show_rows(self, rows: Sequence[Difference], heads: Sequence[str]) -> None:
        """Show rows of three texts under their heads."""
        self.table.setHorizontalHeaderLabels(list(heads))
        self.table.setRowCount(len(rows))
        for row, each in enumerate(rows):
            for column, text in enumerate((each.label, each.left, each.right)):
                item = QTableWidgetItem(text)
                item.setToolTip(text)
                self.table.setItem(row, column, item)
        self._wanted_px = min(ROW_PX * (len(rows) + 1) + 8, self._most_px)
        self.setMaximumHeight(self._wanted_px)
        self.updateGeometry()

    def sizeHint(self) -> QSize:
        return QSize(super().sizeHint().width(), self._wanted_px)

    def minimumSizeHint(self) -> QSize:
        """As low as a few rows: a low screen shows less of it, and scrolls."""
        return QSize(super().minimumSizeHint().width(), min(self._wanted_px, LEAST_PX))
