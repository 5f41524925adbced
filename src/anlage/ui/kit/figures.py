"""A strip of figures under a picture: name over number, the origin on pointing."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QSize
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from anlage.session.weld.figures import Figure
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font

SPACING_PX = 26


@guarded
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
