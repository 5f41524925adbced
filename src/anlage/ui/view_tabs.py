"""A row of small buttons, one for each view of a place."""

from collections.abc import Sequence

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QScrollArea, QSizePolicy, QStackedWidget, QToolButton, QWidget


def bring_to_front(views: QStackedWidget, view: QWidget) -> None:
    """Show a view of a stack; those behind it ask for no room of their own."""
    for place in range(views.count()):
        behind = views.widget(place) is not view
        policy = QSizePolicy.Policy.Ignored if behind else QSizePolicy.Policy.Expanding
        views.widget(place).setSizePolicy(policy, policy)
    views.setCurrentWidget(view)


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


class ViewTabs(QWidget):
    """Offers the views of a place; one of them is always chosen.

    Signals
    -------
    asked(place) : the view at this place is to be shown
    """

    asked = Signal(int)

    def __init__(self, words: Sequence[str]) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(3)
        self._group = QButtonGroup(self)
        for place, word in enumerate(words):
            tab = QToolButton()
            tab.setText(word)
            tab.setCheckable(True)
            tab.setProperty("tab", True)  # noqa: FBT003 - a property of the stylesheet
            self._group.addButton(tab, place)
            row.addWidget(tab)
        row.addStretch(1)
        self._group.idClicked.connect(self.asked)
        self.choose(0)

    def offer(self, place: int, *, offered: bool) -> None:
        """Offer a view, or not."""
        self._group.button(place).setVisible(offered)

    def choose(self, place: int) -> None:
        """Show which view is in front."""
        self._group.button(place).setChecked(True)
