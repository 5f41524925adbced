"""The empty window: what to do first."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.ui.kit.look import font


class Welcome(QWidget):
    """Offers what a person can begin with: words and what they do."""

    def __init__(self, offered: Sequence[tuple[str, Callable[[], object]]]) -> None:
        super().__init__()
        title = QLabel("Start with a works file: one file holds all procedures and records of a works.")
        title.setFont(font("title"))
        title.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(60, 60, 60, 60)
        column.addStretch(1)
        column.addWidget(title, 0, Qt.AlignmentFlag.AlignLeft)
        column.addSpacing(12)
        for text, do in offered:
            button = QPushButton(text)
            button.setFixedWidth(220)
            button.clicked.connect(do)
            column.addWidget(button)
        column.addStretch(2)
