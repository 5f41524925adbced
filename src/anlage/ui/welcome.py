"""The empty window: what to do first."""

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.ui.file_dialogs import ask_for_file, ask_for_new_file
from anlage.ui.look import font

if TYPE_CHECKING:
    from anlage.ui.workbench import Workbench


class Welcome(QWidget):
    """Offers a new works file, an existing one, and the demo."""

    def __init__(self, bench: "Workbench") -> None:
        super().__init__()
        title = QLabel("Start with a works file: one file holds all procedures and records of a works.")
        title.setFont(font("title"))
        title.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(60, 60, 60, 60)
        column.addStretch(1)
        column.addWidget(title, 0, Qt.AlignmentFlag.AlignLeft)
        column.addSpacing(12)
        for text, do in (
            ("New works file…", partial(ask_for_new_file, bench)),
            ("Open works file…", partial(ask_for_file, bench)),
            ("Look round the demo", bench.open_demo),
        ):
            button = QPushButton(text)
            button.setFixedWidth(220)
            button.clicked.connect(do)
            column.addWidget(button)
        column.addStretch(2)
