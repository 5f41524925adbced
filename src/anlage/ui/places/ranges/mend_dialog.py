"""What would bring a procedure inside, record by record: the changes and what they leave, taken in one step."""

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLabel, QListWidget, QPushButton, QWidget

from anlage.session.judging.mending import Mending
from anlage.ui.kit.comparison import Comparison
from anlage.ui.kit.dialog import Question

WIDTH_PX, ROW_PX, MOST_ROWS = 760, 26, 5


class MendDialog(Question):
    """The nearest record first; nothing is changed until it is taken.

    Parameters
    ----------
    find : returns what would bring it inside, or nearer; its parameters say whether the ranges of the job may change,
        and which leaves stay as they are
    take : takes one over
    """

    def __init__(
        self, find: Callable[[bool, Sequence[str]], Sequence[Mending]], take: Callable[[Mending], None], parent: QWidget
    ) -> None:  # fmt: skip
        super().__init__("What would bring it inside", parent)
        self._find, self._take = find, take
        self.found: tuple[Mending, ...] = ()
        self.kept: tuple[str, ...] = ()  # paths of leaves that the person keeps as they are
        self.setMinimumWidth(min(WIDTH_PX, parent.screen().availableSize().width()))
        self.column.setSpacing(8)
        self.list = QListWidget()
        self.list.setAccessibleName("By which record")
        self.comparison = Comparison()
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.ranges = QCheckBox("Change the ranges that the job asks for too; its metals stay")
        self.ranges.toggled.connect(self._search)
        self.keep_button, self.release_button = QPushButton("Keep the chosen line as it is"), QPushButton("Keep none")
        self.keep_button.clicked.connect(self.keep)
        self.release_button.clicked.connect(self.release)
        keeping = QHBoxLayout()
        for button in (self.keep_button, self.release_button):
            button.setAutoDefault(False)
            keeping.addWidget(button)
        keeping.addStretch(1)
        self.column.addWidget(self.list)
        self.column.addWidget(self.comparison)
        self.column.addLayout(keeping)
        self.column.addWidget(self.said)
        self.column.addWidget(self.ranges)
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
        self.found = tuple(self._find(self.ranges.isChecked(), self.kept))
        self.release_button.setVisible(bool(self.kept))
        self.keep_button.setEnabled(bool(self.found))
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
        self.comparison.table.setCurrentCell(0, 0)
        left = "\n".join(f"Still open. {sentence}" for sentence in chosen.left)
        self.said.setText(left or "With these changes every variable is inside.")

    def keep(self) -> None:
        """Leave the chosen line as it is, and look for what brings it inside without it."""
        chosen, row = self.found[self.list.currentRow()], self.comparison.table.currentRow()
        if 0 <= row < len(chosen.changes):
            self.kept = (*self.kept, chosen.changes[row].path)
            self._search()

    def release(self) -> None:
        """Let every leaf be changed again."""
        self.kept = ()
        self._search()

    def take(self) -> None:
        """Take the changes of the chosen record over."""
        self._take(self.found[self.list.currentRow()])
        self.accept()


def _head(mending: Mending) -> str:
    changes, left = len(mending.changes), len(mending.left)
    said = f"{changes} change{'s' if changes > 1 else ''}"
    rest = f", {left} left open" if left else ", then inside"
    return f"By {', '.join(mending.records)}: {said}{rest}"
