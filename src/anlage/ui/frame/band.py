"""The top band: which document, how it stands, how it is read."""

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QToolButton,
    QWidget,
)

from anlage.ui.kit.icons import icon
from anlage.ui.kit.look import font
from anlage.ui.kit.reader import Reader

BAND_PX = 44


class Band(QFrame):
    """The top band: which document on the left, the proof in the middle, how it is read on the right."""

    def __init__(self, reader: Reader) -> None:
        super().__init__(objectName="band")
        self.reader = reader
        self.setFixedHeight(BAND_PX)
        self.number, self.documents, self.state = QToolButton(), QToolButton(), QLabel()
        self.proof = QWidget()
        self.undo, self.redo = QToolButton(), QToolButton()
        self.units, self.search, self.theme = QToolButton(), QToolButton(), QToolButton()
        self.number.setFont(font("title", strong=True))
        self.title = QLabel()
        self.title.setProperty("tone", "muted")
        self.state.setObjectName("state")
        self.state.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)
        for button in (self.number, self.documents, self.undo, self.redo, self.search, self.theme, self.units):
            button.setProperty("flat", True)  # noqa: FBT003 - a property of the stylesheet
        for button, tip in ((self.undo, "Undo"), (self.redo, "Redo"), (self.search, "Find"), (self.theme, "Theme")):
            button.setAccessibleName(tip)
        self.proof_row = QHBoxLayout(self.proof)
        self.proof_row.setContentsMargins(0, 0, 0, 0)
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 0, 12, 0)
        row.setSpacing(4)
        row.addWidget(self.number)
        row.addWidget(self.documents)
        row.addWidget(self.title)
        row.addSpacing(6)
        row.addWidget(self.state, 0, Qt.AlignmentFlag.AlignVCenter)
        row.addStretch(1)
        row.addWidget(self.proof)
        row.addStretch(1)
        for widget in (self.undo, self.redo, self.units, self.search, self.theme):
            row.addWidget(widget)
        self.number.setText("Anlage")
        self.state.hide()
        self.setEnabled(False)  # until something is open
        reader.look_changed.connect(self.refresh)
        reader.units_changed.connect(self.refresh)
        self.refresh()

    def show_document(self, named: tuple[str, str] | None) -> None:
        """Show number and title of the document in front, or that none is."""
        self.setEnabled(True)
        number, title = named or ("Anlage", "")
        self.number.setText(number or "No number")
        self.title.setText(title)
        self.state.setVisible(named is not None)

    def refresh(self) -> None:
        """Draw the icons in the ink of the theme, and say which units are read."""
        ink = self.reader.look.colour["ink"]
        pairs = ((self.documents, "down"), (self.undo, "undo"), (self.redo, "redo"), (self.search, "search"),
                 (self.theme, "theme"))  # fmt: skip
        for button, name in pairs:
            button.setIcon(icon(name, ink))
            button.setIconSize(QSize(18, 18))
        self.units.setText("mm, °C" if self.reader.system == "si" else "in, °F")
        self.units.setAccessibleName(f"Units: {self.units.text()}")
