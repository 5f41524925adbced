"""Other designs: their metal over thickness as curves, and what each takes in metal, time and money in a row."""

from collections.abc import Callable, Mapping
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.document import with_
from anlage.core.drawing import DisplayList
from anlage.core.procedure import Joint, Wps
from anlage.session.takes.design_picture import design_picture
from anlage.session.takes.designs import HEADS, Compared, Design, compared
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.document import Document
from anlage.ui.kit.later import Later
from anlage.ui.kit.look import font
from anlage.ui.picture.still import StillPresenter
from anlage.ui.picture.view import PictureView

ROW_PX = 26
FEW_PASSES = 40  # whose designs are worked out while the window waits


class DesignsView(QWidget):
    """The curves over the rows; a design can be kept to come back to, and another one taken."""

    def __init__(self, document: Document, rates: Callable[[], Mapping[str, float]]) -> None:
        super().__init__()
        self.document, self._rates = document, rates
        self.kept: list[Joint] = []
        self._later = Later(self)
        self._later.ready.connect(self._show)
        presenter = StillPresenter(document, self._curves, lambda: self._later.is_due)
        self.picture = PictureView(presenter, document.reader, "Other designs")
        self.rows: tuple[Compared, ...] = ()
        self.buttons: dict[str, QPushButton] = {}
        self._cells: list[QWidget] = []
        self._panel = panel = QFrame(objectName="panel")
        column = QVBoxLayout(panel)
        column.setContentsMargins(12, 8, 12, 8)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(2)
        self._grid.setColumnStretch(0, 1)
        column.addLayout(self._grid)
        self.keep = QPushButton("Keep this design to compare")
        self.keep.setToolTip("Change the joint afterwards: the kept one stays in the rows until the window is closed")
        self.keep.clicked.connect(self.keep_design)
        self.said = QLabel(
            "All but the first row are filled anew by the same deposits; turning over and back gouging not counted.\n"
            "Money by your own rates, typed at What it takes."
        )
        self.said.setProperty("tone", "muted")
        self.said.setFont(font("note"))
        foot = QHBoxLayout()
        foot.addWidget(self.keep)
        foot.addWidget(self.said)
        foot.addStretch(1)
        column.addLayout(foot)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(8)
        layout.addWidget(self.picture, 1)
        layout.addWidget(panel)
        self.refresh()

    def _curves(self, wps: Wps, sheet: Sheet) -> DisplayList | None:
        return design_picture(wps, sheet, self.kept)

    def refresh(self) -> None:
        """Work out the rows anew; with many passes on a thread."""
        wps, rates, system = self.document.value, dict(self._rates()), self.document.system
        if len(wps.passes) > FEW_PASSES:
            self._later.ask(partial(compared, wps, rates, system, tuple(self.kept)))
            self._panel.setEnabled(False)  # what stands there is of the joint as it was
            self.picture.refresh()
            return
        self._later.forget()
        self._show(compared(wps, rates, system, self.kept))

    def _show(self, rows: tuple[Compared, ...]) -> None:
        self._panel.setEnabled(True)
        self.picture.refresh()
        for cell in self._cells:
            self._grid.removeWidget(cell)
            cell.hide()
            cell.deleteLater()
        self._cells, self.buttons = [], {}
        self.rows = rows
        if self.rows:
            for column, head in enumerate(HEADS, 1):
                label = self._put(0, column, head)
                label.setProperty("tone", "muted")
                label.setFont(font("note"))
        for row, each in enumerate(self.rows, 1):
            self._put(row, 0, each.name)
            self._grid.setRowMinimumHeight(row, ROW_PX)
            for column, (text, least) in enumerate(zip(each.texts, each.least, strict=True), 1):
                self._put(row, column, text).setFont(font("body", strong=least))
            if each.design is not None and row > 2:
                self._deed(row, each.design)
        self.keep.setEnabled(bool(self.rows))

    def _put(self, row: int, column: int, text: str) -> QLabel:
        label = QLabel(text)
        if column:
            label.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self._grid.addWidget(label, row, column)
        self._cells.append(label)
        return label

    def _deed(self, row: int, design: Design) -> None:
        words = {"Take": lambda: self.take(design), "Drop": lambda: self.drop(design)}
        for place, word in enumerate(("Take", "Drop") if design.kept else ("Take",)):
            button = QPushButton(word)
            button.setProperty("tab", True)  # noqa: FBT003 - a property of the stylesheet
            button.setFixedHeight(ROW_PX)
            button.setAccessibleName(f"{word} {design.name}")
            button.setEnabled(word == "Drop" or self.document.can_write)
            button.clicked.connect(words[word])
            self._grid.addWidget(button, row, len(HEADS) + 1 + place)
            self._cells.append(button)
            self.buttons[f"{word} {design.name}"] = button

    def keep_design(self) -> None:
        """Keep the joint as it is now among the rows."""
        if self.document.value.joint not in self.kept:
            self.kept.append(self.document.value.joint)
        self.refresh()

    def take(self, design: Design) -> None:
        """Make a design the joint of the procedure, in one step that can be undone."""
        self.document.edit(with_(self.document.value, joint=design.joint), f"Take {design.name}")

    def drop(self, design: Design) -> None:
        """Take a kept design out of the rows."""
        self.kept.remove(design.joint)
        self.refresh()
