"""What would bring a procedure inside, record by record: the changes and what they leave, taken in one step."""

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QCheckBox, QLabel, QListWidget, QPushButton, QWidget

from anlage.session.judging.mending import Mending
from anlage.ui.kit.comparison import Comparison
from anlage.ui.kit.dialog import Question

WIDTH_PX, ROW_PX, MOST_ROWS = 760, 26, 5


class MendDialog(Question):
    """The nearest record first; nothing is changed until it is taken.

    Parameters
    ----------
    find : returns what would bring it inside, or nearer; whether the ranges of the job may change is its parameter
    take : takes one over
    """

    def __init__(
        self, find: Callable[[bool], Sequence[Mending]], take: Callable[[Mending], None], parent: QWidget
    ) -> None:  # fmt: skip
        super().__init__("What would bring it inside", parent)
        self._find, self._take = find, take
        self.found: tuple[Mending, ...] = ()
        self.setMinimumWidth(min(WIDTH_PX, parent.screen().availableSize().width()))
        self.column.setSpacing(8)
        self.list = QListWidget()
        self.list.setAccessibleName("By which record")
        self.comparison = Comparison()
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.ranges = QCheckBox("Change the ranges that the job asks for too; its metals stay")
        self.ranges.toggled.connect(self._search)
        for widget in (self.list, self.comparison, self.said, self.ranges):
            self.column.addWidget(widget)
        self.leave_button, self.take_button = QPushButton("Leave all"), QPushButton("Make these changes")
        self.add_foot(self.leave_button, self.take_button)
        self.leave_button.clicked.connect(self.reject)
        self.take_button.clicked.connect(self.take)
        self.take_button.setAutoDefault(True)  # there is no field here that Enter could be meant for
        self.take_button.setDefault(True)
        self.list.currentRowChanged.connect(self._show)
        self._search()
        self.list.setFocus()

    def _search(self) -> None:
        """Find what would bring it inside, and show the nearest."""
        self.found = tuple(self._find(self.ranges.isChecked()))
        self.list.clear()
        self.list.addItems([_head(each) for each in self.found])
        self.list.setFixedHeight(ROW_PX * max(min(len(self.found), MOST_ROWS), 1) + 8)
        self.take_button.setEnabled(bool(self.found))
        self.list.setCurrentRow(0)
        if not self.found:
            self.comparison.show_differences((), "Now", "Then")
            self.said.setText("No change of what is not given by the job brings it nearer: weld a test that covers it.")

    def _show(self, row: int) -> None:
        if not 0 <= row < len(self.found):
            return
        chosen = self.found[row]
        self.comparison.show_differences(chosen.changes, "Now", "Then")
        left = "\n".join(f"Still open. {sentence}" for sentence in chosen.left)
        self.said.setText(left or "With these changes every variable is inside.")

    def take(self) -> None:
        """Take the changes of the chosen record over."""
        self._take(self.found[self.list.currentRow()])
        self.accept()


def _head(mending: Mending) -> str:
    changes, left = len(mending.changes), len(mending.left)
    said = f"{changes} change{'s' if changes > 1 else ''}"
    rest = f", {left} left open" if left else ", then inside"
    return f"By {', '.join(mending.records)}: {said}{rest}"
