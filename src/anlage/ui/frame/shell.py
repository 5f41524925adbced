"""The window before anything is open: top band, place bar and the room between; it must paint at once.

Nothing here may load documents, tables or the works file: the desk brings them after the first paint.
"""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QMimeData, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QAction,
    QCloseEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeySequence,
    QPaintEvent,
    QResizeEvent,
    QShowEvent,
)
from PySide6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QMainWindow,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from anlage.ui.frame.band import Band
from anlage.ui.frame.notice import NoticeLine
from anlage.ui.frame.place_bar import PlaceBar
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.place import PlaceSpec
from anlage.ui.kit.reader import Reader

DROPPED = (".anlage", ".json")
LEAST = QSize(640, 420)  # a place that needs more is scrolled


@guarded
class Shell(QMainWindow):
    """The window: band, place bar, notice line and the places; `may_close` is asked before it closes.

    Signals
    -------
    painted() : the window was painted for the first time
    closing() : the person closes the window
    place_asked(id) : a place is to be shown
    dropped(paths) : files were dropped on the window
    """

    painted = Signal()
    closing = Signal()
    place_asked = Signal(str)
    dropped = Signal(list)

    def __init__(self, reader: Reader, specs: Sequence[PlaceSpec]) -> None:
        super().__init__()
        self.reader = reader
        self.commands: list[QAction] = []
        self._kinds: list[tuple[QAction, tuple[str, ...]]] = []
        self.setWindowTitle("Anlage")
        self.setMinimumSize(LEAST)
        self.setAcceptDrops(True)
        self.band = Band(reader)
        self.places = PlaceBar(reader, specs)
        self.stack = QStackedWidget()
        self.scroll = QScrollArea()
        self.scroll.setWidget(self.stack)
        self.scroll.setWidgetResizable(True)
        self.scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        ground = QWidget(objectName="ground")
        outer = QVBoxLayout(ground)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        outer.addWidget(self.band)
        inner = QHBoxLayout()
        inner.setSpacing(0)
        inner.addWidget(self.places)
        inner.addWidget(self.scroll, 1)
        outer.addLayout(inner, 1)
        self.setCentralWidget(ground)
        self.notice = NoticeLine(reader, ground)
        self.places.asked.connect(self.place_asked)
        reader.look_changed.connect(self._on_look_changed)
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.focusChanged.connect(self._on_focus_changed)
        self._was_painted = False
        self.may_close: Callable[[], bool] = lambda: True
        self._on_look_changed()

    def command(
        self, text: str, shortcut: str, do: Callable[[], object], tip: str = "", kinds: tuple[str, ...] = ()
    ) -> QAction:
        """Return a command: known to the palette, the list of shortcuts and the keyboard.

        One that serves some `kinds` of document is off while no such document is in front.
        """
        action = QAction(text, self)
        if shortcut:
            action.setShortcut(QKeySequence(shortcut))
        action.setShortcutContext(Qt.ShortcutContext.WindowShortcut)
        action.setToolTip(f"{tip or text}{f' ({shortcut})' if shortcut else ''}")
        action.triggered.connect(lambda _checked=False: do())
        self.addAction(action)
        self.commands.append(action)
        if kinds:
            self._kinds.append((action, kinds))
        return action

    def commands_by_kind(self) -> Sequence[tuple[QAction, tuple[str, ...]]]:
        """Return the commands that serve some kinds of document alone, with those kinds."""
        return self._kinds

    def _on_look_changed(self) -> None:
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.setPalette(self.reader.look.palette())
        self.setStyleSheet(self.reader.look.stylesheet())

    def _on_focus_changed(self, _before: QWidget | None, now: QWidget | None) -> None:
        """Bring into view what has the keyboard, where a place is scrolled."""
        if now is not None and self.stack.isAncestorOf(now):
            self.scroll.ensureWidgetVisible(now, 8, 8)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if _files(event.mimeData()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        event.acceptProposedAction()
        self.dropped.emit(_files(event.mimeData()))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.notice.settle()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.setFocus()

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if not self._was_painted:
            self._was_painted = True
            QTimer.singleShot(0, self.painted.emit)

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self.may_close():
            event.ignore()
            return
        self.closing.emit()
        super().closeEvent(event)


def _files(carried: QMimeData) -> list[str]:
    """Return the files of this machine that are carried over the window: works files and documents."""
    paths = [url.toLocalFile() for url in carried.urls() if url.isLocalFile()]
    return [path for path in paths if path.lower().endswith(DROPPED)]
