"""The views of a place: a row of small buttons, and the one in front of a stack."""

from collections.abc import Callable, Sequence
from typing import Protocol, cast

from msgspec import Struct
from PySide6.QtCore import Signal
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QScrollArea,
    QSizePolicy,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from anlage.ui.kit.document import Document, DocumentView


class Shown(Protocol):
    """A view: it shows anew what is true."""

    def refresh(self) -> None:
        """Show what the document says now."""


class View(Struct, frozen=True):
    """One view that a place offers: its id, its word on the tab, and what makes it of the document as it sees it."""

    id: str
    word: str
    make: Callable[[Document], QWidget]


class Views(QWidget):
    """Tabs over a stack: each view is made when it is first shown, and told of changes only while it is in front.

    Signals
    -------
    turned(id) : another view is in front
    """

    turned = Signal(str)

    def __init__(self, document: Document, offered: Sequence[View]) -> None:
        super().__init__()
        self._document = document
        self._offered = {view.id: view for view in offered}
        self._made: dict[str, tuple[QWidget, DocumentView]] = {}
        self.in_front = ""
        self.tabs = Tabs([(view.id, view.word) for view in offered])
        self.tabs.asked.connect(self.show_view)
        self.stack = QStackedWidget()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self.tabs)
        column.addWidget(self.stack, 1)
        self.show_view(offered[0].id)

    def show_view(self, view_id: str) -> None:
        """Bring a view to the front; those behind it ask for no room of their own, and listen to nothing."""
        if view_id == self.in_front:
            return
        if view_id not in self._made:
            seen = self._document.view()
            self._made[view_id] = (self._offered[view_id].make(seen), seen)
            self.stack.addWidget(self._made[view_id][0])
        for name, (widget, seen) in self._made.items():
            policy = QSizePolicy.Policy.Expanding if name == view_id else QSizePolicy.Policy.Ignored
            widget.setSizePolicy(policy, policy)
            seen.set_shown(shown=name == view_id)
        self.in_front = view_id
        self.stack.setCurrentWidget(self._made[view_id][0])
        self.tabs.choose(view_id)
        self.turned.emit(view_id)
        self.refresh()

    def refresh(self) -> None:
        """Show in the view in front what is true now."""
        cast("Shown", self._made[self.in_front][0]).refresh()

    def view(self, view_id: str) -> QWidget:
        """Return a view that was shown."""
        return self._made[view_id][0]

    def made(self, view_id: str) -> bool:
        """Return whether a view was shown."""
        return view_id in self._made

    def front(self) -> QWidget:
        """Return the view in front."""
        return self._made[self.in_front][0]

    def offer(self, view_id: str, *, offered: bool) -> None:
        """Offer a view, or not; the first one comes to the front where one goes."""
        self.tabs.offer(view_id, offered=offered)
        if not offered and self.in_front == view_id:
            self.show_view(next(iter(self._offered)))


class Tabs(QWidget):
    """Small buttons, one of which is always down.

    Signals
    -------
    asked(id) : a view is to be shown
    """

    asked = Signal(str)

    def __init__(self, words: Sequence[tuple[str, str]]) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(3)
        self._group = QButtonGroup(self)
        self._tabs: dict[str, QToolButton] = {}
        for view_id, word in words:
            tab = self._tabs[view_id] = QToolButton()
            tab.setText(word)
            tab.setCheckable(True)
            tab.setProperty("tab", True)  # noqa: FBT003 - a property of the stylesheet
            tab.clicked.connect(lambda _checked=False, view_id=view_id: self.asked.emit(view_id))
            self._group.addButton(tab)
            row.addWidget(tab)
        row.addStretch(1)

    def tab(self, view_id: str) -> QToolButton:
        """Return the button of a view."""
        return self._tabs[view_id]

    def offer(self, view_id: str, *, offered: bool) -> None:
        """Offer a view, or not."""
        self._tabs[view_id].setVisible(offered)

    def choose(self, view_id: str) -> None:
        """Show which view is in front."""
        self._tabs[view_id].setChecked(True)


def lay_beside(view: QWidget, picture: QWidget, rows: QWidget, rows_px: int) -> None:
    """Lay out a view: its picture, and beside it rows that are scrolled where they are many."""
    scroll = QScrollArea()
    scroll.setWidget(rows)
    scroll.setWidgetResizable(True)
    scroll.setFixedWidth(rows_px)
    layout = QHBoxLayout(view)
    layout.setContentsMargins(0, 0, 0, 0)
    layout.setSpacing(16)
    layout.addWidget(picture, 1)
    layout.addWidget(scroll)
