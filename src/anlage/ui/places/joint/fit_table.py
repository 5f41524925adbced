"""What the joint holds in its tightest and its widest fit-up."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QLabel, QWidget

from anlage.session.weld.figures import joint_figures
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import font


class FitTable(QWidget):
    """What the joint holds in its tightest and its widest fit-up, beside the nominal; hidden without tolerances."""

    def __init__(self, document: Document, parent: QWidget) -> None:
        super().__init__(parent)
        self.document = document
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(10)
        self._grid.setColumnStretch(0, 1)
        self.cells: list[list[QLabel]] = []
        for column, text in enumerate(("Fit-up", "tightest", "widest")):
            head = QLabel(text)
            head.setFont(font("title", strong=True) if column == 0 else font("note"))
            head.setProperty("tone", "muted" if column else "")
            self._grid.addWidget(head, 0, column, Qt.AlignmentFlag.AlignRight if column else Qt.AlignmentFlag.AlignLeft)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Work the figures out anew and show them."""
        figures = [
            figure for figure in joint_figures(self.document.value, self.document.system) if len(figure.fits) == 2
        ]
        while len(self.cells) < len(figures):
            self._add()
        for place, row in enumerate(self.cells):
            texts = (figures[place].name, *figures[place].fits) if place < len(figures) else ()
            for cell, text in zip(row, texts or ("",) * len(row), strict=True):
                cell.setText(text)
                cell.setVisible(bool(texts))
        self.setVisible(bool(figures))

    def _add(self) -> None:
        row = [QLabel(), QLabel(), QLabel()]
        row[0].setProperty("tone", "muted")
        for column, cell in enumerate(row):
            side = Qt.AlignmentFlag.AlignRight if column else Qt.AlignmentFlag.AlignLeft
            self._grid.addWidget(cell, len(self.cells) + 1, column, side)
        self.cells.append(row)
