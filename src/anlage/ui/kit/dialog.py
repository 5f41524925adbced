"""A question in a window of its own: its title at the head, what is asked under it, its buttons at the foot."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.ui.kit.look import font


class Question(QDialog):
    """A dialog with a column to fill; it goes when it is closed."""

    def __init__(self, title: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setMaximumSize(parent.screen().availableSize())
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(24, 18, 24, 18)
        head = QLabel(title)
        head.setFont(font("title", strong=True))
        self.column.addWidget(head)

    def add_foot(self, *buttons: QPushButton) -> None:
        """Add the buttons at the right; Enter in a field presses none of them."""
        row = QHBoxLayout()
        row.addStretch(1)
        for button in buttons:
            button.setAutoDefault(False)
            row.addWidget(button)
        self.column.addLayout(row)

    def complaint_line(self, lines: int) -> QLabel:
        """Return a label for what is refused, whose lines are there before it is said."""
        label = QLabel()
        label.setProperty("tone", "outside")
        label.setWordWrap(True)
        label.setMinimumHeight(lines * label.fontMetrics().lineSpacing())
        return label
