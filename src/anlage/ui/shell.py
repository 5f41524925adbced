"""The window before anything is open: top band, place bar and the room between; it must paint at once.

Nothing here may load documents, tables or the works file: the workbench brings them after the first paint.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from PySide6.QtCore import QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QAction, QCloseEvent, QKeySequence, QPainter, QPaintEvent, QShowEvent
from PySide6.QtWidgets import (
    QApplication,
    QButtonGroup,
    QFrame,
    QHBoxLayout,
    QLabel,
    QMainWindow,
    QSizePolicy,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from anlage.ui.icons import icon
from anlage.ui.look import font
from anlage.ui.marks import MARK_PX, draw_mark
from anlage.ui.reader import Reader

BAND_PX, PLACES_PX = 44, 76
LEAST = QSize(900, 600)


@dataclass(frozen=True)
class PlaceSign:
    """What stands on the place bar: id, word, shortcut."""

    id: str
    word: str
    shortcut: str
    question: str


PLACES = (
    PlaceSign("register", "Register", "Alt+G", "What do we have, in which state, what is not covered?"),
    PlaceSign("joint", "Joint", "Alt+J", "What shape, how much metal?"),
    PlaceSign("passes", "Passes", "Alt+P", "What is laid, in what order, with what energy?"),
    PlaceSign("ranges", "Ranges", "Alt+R", "Is it allowed, by which record and clause?"),
    PlaceSign("proof", "Proof", "Alt+O", "What was welded on the coupon, and what does it buy?"),
    PlaceSign("sheet", "Sheet", "Alt+S", "What goes on the floor?"),
)


class Shell(QMainWindow):
    """The window: band, place bar, notice line and the places.

    Signals
    -------
    painted() : the window was painted for the first time
    closing() : the person closes the window
    place_asked(id) : a place is to be shown
    """

    painted = Signal()
    closing = Signal()
    place_asked = Signal(str)

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader = reader
        self.commands: list[QAction] = []
        self.setWindowTitle("Anlage")
        self.setMinimumSize(LEAST)
        self.band = Band(reader)
        self.places = PlaceBar(reader)
        self.notice = NoticeLine(reader)
        self.stack = QStackedWidget()
        ground = QWidget(objectName="ground")
        outer = QVBoxLayout(ground)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        outer.addWidget(self.band)
        outer.addWidget(self.notice)
        inner = QHBoxLayout()
        inner.setSpacing(0)
        inner.addWidget(self.places)
        inner.addWidget(self.stack, 1)
        outer.addLayout(inner, 1)
        self.setCentralWidget(ground)
        self.places.asked.connect(self.place_asked)
        reader.look_changed.connect(self._on_look_changed)
        self._was_painted = False
        self._on_look_changed()

    def command(self, text: str, shortcut: str, do: Callable[[], None], tip: str = "") -> QAction:
        """Return a command: known to the palette, the list of shortcuts and the keyboard."""
        action = QAction(text, self)
        if shortcut:
            action.setShortcut(QKeySequence(shortcut))
        action.setShortcutContext(Qt.ShortcutContext.WindowShortcut)
        action.setToolTip(f"{tip or text}{f' ({shortcut})' if shortcut else ''}")
        action.triggered.connect(do)
        self.addAction(action)
        self.commands.append(action)
        return action

    def _on_look_changed(self) -> None:
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.setPalette(self.reader.look.palette())
        self.setStyleSheet(self.reader.look.stylesheet())

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.setFocus()

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if not self._was_painted:
            self._was_painted = True
            QTimer.singleShot(0, self.painted.emit)

    def closeEvent(self, event: QCloseEvent) -> None:
        self.closing.emit()
        super().closeEvent(event)


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


class PlaceBar(QFrame):
    """The places at the left, icon over word, in the order of the work.

    Signals
    -------
    asked(id) : a place was clicked
    """

    asked = Signal(str)

    def __init__(self, reader: Reader) -> None:
        super().__init__(objectName="places")
        self.reader = reader
        self.setFixedWidth(PLACES_PX)
        self.buttons: dict[str, PlaceButton] = {}
        group = QButtonGroup(self)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 8)
        column.setSpacing(2)
        for place in PLACES:
            button = PlaceButton(reader)
            button.setText(place.word)
            button.setToolTip(f"{place.word}: {place.question} ({place.shortcut})")
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
            button.setIconSize(QSize(26, 26))
            button.setCheckable(True)
            button.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
            button.setFixedHeight(58)
            button.setObjectName(place.id)
            button.clicked.connect(self._on_clicked)
            group.addButton(button)
            column.addWidget(button)
            self.buttons[place.id] = button
        column.addStretch(1)
        reader.look_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Draw the icons in the ink of the theme."""
        for name, button in self.buttons.items():
            button.setIcon(icon(name, self.reader.look.colour["ink"]))

    def mark(self, place: str) -> None:
        """Show which place is open."""
        self.buttons[place].setChecked(True)

    def show_verdicts(self, verdicts: Mapping[str, str]) -> None:
        """Show beside each place the worst verdict on what is stated there; none where all is inside."""
        for name, button in self.buttons.items():
            button.show_verdict(verdicts.get(name, ""))

    def _on_clicked(self) -> None:
        sender = self.sender()
        assert sender is not None
        self.asked.emit(sender.objectName())


class PlaceButton(QToolButton):
    """A place's sign, with the mark of a verdict in its corner when something on it is outside or unproven."""

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader, self.verdict = reader, ""

    def show_verdict(self, verdict: str) -> None:
        """Show a verdict, or none."""
        if verdict != self.verdict:
            self.verdict = verdict
            self.setAccessibleDescription(f"something here is {verdict}" if verdict else "")
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if self.verdict:
            corner = QRectF(self.width() - MARK_PX - 10, 8, MARK_PX, MARK_PX)
            draw_mark(QPainter(self), corner, self.verdict, self.reader.look.colour[self.verdict])


class NoticeLine(QFrame):
    """One sentence under the band that must not be missed, until it is put away."""

    def __init__(self, reader: Reader) -> None:
        super().__init__(objectName="notice")
        self.reader = reader
        self.text, self.away = QLabel(), QToolButton()
        self.text.setWordWrap(True)
        self.away.setProperty("flat", True)  # noqa: FBT003 - a property of the stylesheet
        self.away.setAccessibleName("Put the notice away")
        self.away.clicked.connect(self.hide)
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 4, 8, 4)
        row.addWidget(self.text, 1)
        row.addWidget(self.away)
        reader.look_changed.connect(self.refresh)
        self.refresh()
        self.hide()

    def refresh(self) -> None:
        """Draw the icon in the ink of the theme."""
        self.away.setIcon(icon("close", self.reader.look.colour["ink"]))

    def say(self, text: str) -> None:
        """Show a sentence."""
        self.text.setText(text)
        self.setVisible(bool(text))
