"""A strip of figures under a picture: name over number, the origin on pointing."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from anlage.session.weld.figures import Figure, joint_figures
from anlage.ui.document import Document
from anlage.ui.look import font

SPACING_PX = 26


class FigureStrip(QWidget):
    """Shows the figures that a function works out."""

    def __init__(self, figures: Callable[[], Sequence[Figure]]) -> None:
        super().__init__()
        self._figures = figures
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 10, 0, 0)
        self._row.setSpacing(SPACING_PX)
        self._row.addStretch(1)
        self.labels: list[tuple[QWidget, QLabel, QLabel]] = []
        self.refresh()

    def refresh(self) -> None:
        """Work the figures out anew and show them."""
        figures = self._figures()
        while len(self.labels) < len(figures):
            self._add()
        for place, (box, name, text) in enumerate(self.labels):
            if place >= len(figures):
                text.clear()
            else:
                figure = figures[place]
                name.setText(figure.name)
                text.setText(figure.text)
                box.setToolTip(figure.origin)
                box.setAccessibleName(f"{figure.name}: {figure.text}")

        self._fit()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        """Show as many figures as there is room for, the first ones first."""
        left = self.width()
        for place, (box, _, text) in enumerate(self.labels):
            left -= box.sizeHint().width() + (SPACING_PX if place else 0)
            box.setVisible(bool(text.text()) and left >= 0)

    def minimumSizeHint(self) -> QSize:
        return QSize(100, super().minimumSizeHint().height())

    def _add(self) -> None:
        box, name, text = QWidget(), QLabel(), QLabel()
        name.setProperty("tone", "muted")
        name.setFont(font("note"))
        text.setFont(font("title", strong=True))
        column = QVBoxLayout(box)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(name)
        column.addWidget(text)
        self._row.insertWidget(len(self.labels), box)
        self.labels.append((box, name, text))


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
        figures = [figure for figure in joint_figures(self.document.wps, self.document.system) if len(figure.fits) == 2]
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
