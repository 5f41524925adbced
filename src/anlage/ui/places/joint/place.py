"""The Joint place: what shape, how much metal? The section to scale, its dimensions typed or dragged."""

from functools import partial
from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from anlage.session.weld.figures import joint_figures
from anlage.ui.kit.cap_limit import cap_limit
from anlage.ui.kit.document import Document
from anlage.ui.kit.figures import FigureStrip
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.tabs import View, Views
from anlage.ui.picture.editor import PictureEditor
from anlage.ui.picture.still import StillPresenter
from anlage.ui.picture.view import PictureView
from anlage.ui.places.joint.column import JointColumn
from anlage.ui.places.joint.presenter import JointPresenter

COLUMN_PX = 376
LESS = ("Cap area", "Face width")  # the first to go where the strip is short of room
NODE = "node"  # offered for a node of tubes alone
PICTURES = {"section": "section", "takes": "section", "designs": "designs", "symbol": "symbol", "node": "node"}


class JointPlace(Place):
    """Section, preparation chooser, dimensions, what the joint holds and takes, and other designs beside it."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.views = Views(document, (
            View("section", "Section", self._section),
            View("takes", "What it takes", self._takes),
            View("designs", "Other designs", self._designs),
            View("symbol", "Symbol", self._symbol),
            View(NODE, "Node", loaded("anlage.ui.places.joint.node_view:NodeView")),
        ))  # fmt: skip
        self.column = JointColumn(document, desk.rules.codes)
        self.figures = FigureStrip(
            lambda: sorted(joint_figures(document.value, document.system), key=lambda each: each.name in LESS)
        )
        self._kind = document.value.joint.kind
        self.views.offer(NODE, offered=self._kind == "tube-node")
        left = QVBoxLayout()
        left.setSpacing(6)
        left.addWidget(self.views, 1)
        left.addWidget(self.figures)
        scroll = QScrollArea()
        scroll.setWidget(self.column)
        scroll.setWidgetResizable(True)
        scroll.setFixedWidth(COLUMN_PX)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 14, 0, 14)
        layout.setSpacing(0)
        layout.addLayout(left, 1)
        layout.addWidget(scroll)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)

    @property
    def section(self) -> PictureView:
        """The section of the joint."""
        return cast("PictureView", self.views.view("section"))

    def _section(self, document: Document) -> QWidget:
        presenter = JointPresenter(document, partial(cap_limit, document, self.desk.rules.codes))
        view = PictureView(presenter, document.reader, "Section of the joint")
        self.editor = PictureEditor(view, document)
        return view

    def _takes(self, document: Document) -> QWidget:
        return loaded("anlage.ui.places.joint.takes_view:TakesView")(document, self.desk)

    def _designs(self, document: Document) -> QWidget:
        return loaded("anlage.ui.places.joint.designs_view:DesignsView")(document, lambda: self.desk.settings.rates)

    @staticmethod
    def _symbol(document: Document) -> QWidget:
        make = loaded("anlage.session.weld.weld_symbol:symbol_on_sheet")
        return PictureView(StillPresenter(document, make), document.reader, "Weld symbol")

    def refresh(self) -> None:
        """Show what the document says now; another preparation is looked at as a whole."""
        kind = self.document.value.joint.kind
        if self._kind != kind:
            self._kind = kind
            self.section.lens.as_at_first()
        self.views.offer(NODE, offered=kind == "tube-node")
        self.figures.refresh()
        self.views.refresh()

    def begin(self) -> None:
        """Put the keyboard where the work starts: at the chooser, or at the drawing."""
        if self.document.value.joint.kind is None:
            self.column.chooser.buttons[0].setFocus(Qt.FocusReason.OtherFocusReason)
        else:
            self.section.setFocus(Qt.FocusReason.TabFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is on this place."""
        fields: dict[str, QWidget] = dict(self.column.fields)
        if path.startswith("members/") or path == "seam/member_order":
            self.views.show_view(NODE)
            fields |= self.views.view(NODE).fields  # type: ignore[attr-defined]
        if path not in fields:
            return False
        fields[path].setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True

    def picture(self) -> str:
        """Return the name of the picture in front."""
        return PICTURES[self.views.in_front]
