"""The node of tubes: seen from its side with its welds in order, the pattern of the chosen member, its members."""

from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from anlage.core.drawing import DisplayList
from anlage.core.procedure import Wps, without_element
from anlage.session.leaves.table import field_of
from anlage.session.weld.node import (
    cope_picture,
    member_faults,
    node_of,
    node_picture,
    node_sentences,
    ways_out,
    with_member,
)
from anlage.session.weld.picture_sheet import Sheet
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.element_rows import ElementRows
from anlage.ui.kit.fields import field_for
from anlage.ui.kit.look import font
from anlage.ui.picture.still import StillPresenter
from anlage.ui.picture.view import PictureView

MEMBER = (("name", 112), ("od_mm", 66), ("wall_mm", 58), ("angle_deg", 58), ("turn_deg", 58), ("along_mm", 66))
ORDER = "seam/member_order"
FIRST = "joint/od_mm"
LEAVES = tuple(name for name, _ in MEMBER)
ROWS_PX = 250
IMPOSSIBLE = "These members cannot stand so; what is to be changed is said below."
OFFERED = 2  # ways out shown for a member that lies in another


class PatternPresenter(StillPresenter):
    """The pattern of the chosen member; where the node cannot be, what is to be changed instead of what is missing."""

    def __init__(self, document: Document, view: "NodeView") -> None:
        super().__init__(document, self._drawn)
        self.view = view

    def empty_text(self) -> str:
        return IMPOSSIBLE if member_faults(self.document.value) else super().empty_text()

    def _drawn(self, wps: Wps, sheet: Sheet) -> DisplayList | None:
        return cope_picture(wps, sheet, self.view.chosen)


class NodePresenter(PatternPresenter):
    """The node from its side; a click chooses the member whose pattern is shown."""

    def _drawn(self, wps: Wps, sheet: Sheet) -> DisplayList | None:
        return node_picture(wps, self.view.chosen, sheet)

    def choose(self, target: str) -> None:
        self.view.choose(target)


class NodeView(QWidget):
    """Both pictures over the rows of members and what is to be said of them."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document, self.chosen = document, FIRST
        self.picture = PictureView(NodePresenter(document, self), document.reader, "Node of tubes")
        self.pattern = PictureView(PatternPresenter(document, self), document.reader, "Pattern of the cut")
        self.rows = ElementRows(document, "members", MEMBER, (("Pattern", self._show), ("Remove", self._remove)))
        self.first = QPushButton("Pattern of the first member")
        self.first.clicked.connect(lambda: self.choose(FIRST))
        self.add = QPushButton("Add a member")
        self.add.clicked.connect(self.add_member)
        self.order = field_for(document, ORDER)
        self.order.setFixedWidth(150)
        word = QLabel(field_of(ORDER).label)
        word.setProperty("tone", "muted")
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.said.setFont(font("note"))
        Complaint(document, [ORDER], self)
        room = QWidget()
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(6)
        for widgets in ((self.rows,), (self.add, self.first, word, self.order)):
            row = QHBoxLayout()
            for widget in widgets:
                row.addWidget(widget)
            row.addStretch(1)
            column.addLayout(row)
        column.addWidget(self.said)
        self.ways = [QPushButton(self) for _ in range(OFFERED)]
        offered = QHBoxLayout()
        for place, button in enumerate(self.ways):
            button.clicked.connect(partial(self._set, place))
            offered.addWidget(button)
        offered.addStretch(1)
        column.addLayout(offered)
        column.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidget(room)
        scroll.setWidgetResizable(True)
        scroll.setFixedHeight(ROWS_PX)
        pictures = QHBoxLayout()
        pictures.setSpacing(8)
        pictures.addWidget(self.picture, 3)
        pictures.addWidget(self.pattern, 2)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(8)
        layout.addLayout(pictures, 1)
        layout.addWidget(scroll)
        self.refresh()

    @property
    def fields(self) -> dict[str, QWidget]:
        """Every field that is shown, by its leaf."""
        return {**self.rows.fields, ORDER: self.order}

    def refresh(self) -> None:
        """Show the members there are; the first one is the joint itself."""
        wps = self.document.value
        self.rows.show_elements([each.id for each in wps.members])
        for element, (show, away) in self.rows.buttons.items():
            show.setCheckable(True)
            show.setChecked(self.chosen == f"members/{element}")
            away.setEnabled(self.document.can_write)
        node = node_of(wps)
        if node is not None and self.chosen not in {each.target for each in node.members}:
            self.chosen = FIRST
        self.add.setEnabled(self.document.can_write)
        self.first.setVisible(self.chosen != FIRST)
        ways = ways_out(wps)
        for place, button in enumerate(self.ways):
            button.setVisible(place < len(ways))
            button.setEnabled(self.document.can_write)
            button.setText(ways[place].words if place < len(ways) else "")
        self.said.setText("\n".join(node_sentences(wps, self.document.system)))
        self.picture.refresh()
        self.pattern.refresh()

    def choose(self, target: str) -> None:
        """Show the pattern of a member."""
        if target == FIRST or target.startswith("members/"):
            self.chosen = target
            self.refresh()

    def add_member(self) -> None:
        """Add a member that leans, as the first one is in size, where it stands in no other."""
        self.document.edit(with_member(self.document.value), "Add a member")

    def _set(self, place: int) -> None:
        ways = ways_out(self.document.value)
        if place < len(ways):
            self.document.edit(ways[place].changed, ways[place].words)

    def _show(self, element: str) -> None:
        self.choose(f"members/{element}")

    def _remove(self, element: str) -> None:
        self.document.edit(without_element(self.document.value, "members", element), "Remove a member")
