"""The node of tubes: seen from its side with its welds in order, the pattern of the chosen member, its members."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from anlage.core.drawing import DisplayList
from anlage.core.procedure import Wps, with_element, without_element
from anlage.session.leaves.table import field_of
from anlage.session.weld.node import cope_picture, node_of, node_picture, node_sentences
from anlage.session.weld.pictures import Sheet
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


class NodePresenter(StillPresenter):
    """The node from its side; a click chooses the member whose pattern is shown."""

    def __init__(self, document: Document, view: "NodeView") -> None:
        super().__init__(document, lambda wps, sheet: node_picture(wps, view.chosen, sheet))
        self.view = view

    def choose(self, target: str) -> None:
        self.view.choose(target)


class NodeView(QWidget):
    """Both pictures over the rows of members and what is to be said of them."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document, self.chosen = document, FIRST
        self.picture = PictureView(NodePresenter(document, self), document.reader, "Node of tubes")
        self.pattern = PictureView(StillPresenter(document, self._cope), document.reader, "Pattern of the cut")
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
        self.said.setText("\n".join(node_sentences(wps, self.document.system)))
        self.picture.refresh()
        self.pattern.refresh()

    def choose(self, target: str) -> None:
        """Show the pattern of a member."""
        if target == FIRST or target.startswith("members/"):
            self.chosen = target
            self.refresh()

    def add_member(self) -> None:
        """Add a member that leans to the far end, as the first one is in size."""
        wps, _ = with_element(self.document.value, "members", angle_deg=45.0)
        self.document.edit(wps, "Add a member")

    def _show(self, element: str) -> None:
        self.choose(f"members/{element}")

    def _remove(self, element: str) -> None:
        self.document.edit(without_element(self.document.value, "members", element), "Remove a member")

    def _cope(self, wps: Wps, sheet: Sheet) -> DisplayList | None:
        return cope_picture(wps, sheet, self.chosen)
