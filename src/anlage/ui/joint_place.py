"""The Joint place: what shape, how much metal? The section to scale, its dimensions typed or dragged."""

from collections.abc import Mapping
from itertools import pairwise
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from anlage.session.leaves.presence import applies
from anlage.session.leaves.table import PARTS, field_of
from anlage.session.weld.figures import joint_figures
from anlage.ui.document import Document
from anlage.ui.fields import ChoiceField, Complaint, LeafField, Unit
from anlage.ui.figures import FigureStrip, FitTable
from anlage.ui.joint_advice import JointAdvice
from anlage.ui.joint_presenter import JointPresenter, StillPresenter
from anlage.ui.look import font
from anlage.ui.picture import PictureView
from anlage.ui.picture_editor import PictureEditor
from anlage.ui.pipe_size import PipeSizeField
from anlage.ui.preparation_chooser import Chooser
from anlage.ui.view_tabs import ViewTabs, bring_to_front

if TYPE_CHECKING:
    from anlage.ui.designs_view import DesignsView
    from anlage.ui.node_view import NodeView
    from anlage.ui.takes_view import TakesView

COLUMN_PX = 376
LESS = ("Cap area", "Face width")  # the first to go where the strip is short of room
VIEWS = ("Section", "What it takes", "Other designs", "Symbol", "Node")
NODE = 4  # offered for a node of tubes alone
SINGLE = ("product", "thickness_mm", "other_thickness_mm", "flush", "taper", "counterbore_mm",
          "od_mm", "run_od_mm", "backing_form", "backing_mm", "seam_length_mm")  # fmt: skip
TOLERANCED = (
    "root_opening_mm", "root_face_mm", "groove_angle_deg", "second_depth_mm", "second_angle_deg", "radius_mm",
    "break_height_mm", "upper_angle_deg", "leg_mm", "second_leg_mm", "member_angle_deg", "hole_mm", "slot_length_mm",
    "fill_depth_mm", "width_mm", "layer_mm", "reinforcement_mm", "cap_overlap_mm", "root_reinforcement_mm",
    "buttering_mm",
)  # fmt: skip


class JointPlace(QWidget):
    """Section, preparation chooser, dimensions, what the joint holds and takes, and other designs beside it.

    Signals
    -------
    rates_changed(rates) : the user's rates are others now
    """

    rates_changed = Signal(dict)

    def __init__(self, document: Document, rates: Mapping[str, float]) -> None:
        super().__init__()
        self.document, self._rates = document, rates
        self.presenter = JointPresenter(document)
        self.section = PictureView(self.presenter, document.reader, "Section of the joint")
        self.editor = PictureEditor(self.section, document)
        self.column = _Column(document)
        self.figures = FigureStrip(
            lambda: sorted(joint_figures(document.wps, document.system), key=lambda each: each.name in LESS)
        )

        self.views = QStackedWidget()
        self.views.addWidget(self.section)
        self.takes: TakesView | None = None
        self.compare: DesignsView | None = None
        self.symbol: PictureView | None = None
        self.node: NodeView | None = None
        self._kind = document.wps.joint.kind
        self.tabs = ViewTabs(VIEWS)
        self.tabs.asked.connect(self.show_view)
        self.tabs.offer(NODE, offered=document.wps.joint.kind == "tube-node")

        left = QVBoxLayout()
        left.setSpacing(6)
        left.addWidget(self.tabs)
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

    def refresh(self) -> None:
        """Show what the document says now; another preparation is looked at as a whole."""
        if self._kind != self.document.wps.joint.kind:
            self._kind = self.document.wps.joint.kind
            self.section.lens.as_at_first()
        self.section.refresh()
        self.figures.refresh()
        is_node = self.document.wps.joint.kind == "tube-node"
        self.tabs.offer(NODE, offered=is_node)
        if not is_node and self.node is not None and self.views.currentWidget() is self.node:
            self.show_view(0)
        for view in (self.takes, self.compare, self.symbol, self.node):
            if view is not None and self.views.currentWidget() is view:
                view.refresh()

    def show_view(self, place: int) -> None:
        """Show one of `VIEWS`; each is made when it is first asked for."""
        if place == 1 and self.takes is None:
            from anlage.ui.takes_view import TakesView

            self.takes = TakesView(self.document, self._rates)
            self.takes.rates_changed.connect(self.rates_changed)
            self.views.addWidget(self.takes)
        if place == 2 and self.compare is None:
            from anlage.ui.designs_view import DesignsView

            self.compare = DesignsView(self.document, lambda: self.takes.rates if self.takes else self._rates)
            self.views.addWidget(self.compare)
        if place == 3 and self.symbol is None:
            from anlage.session.weld.weld_symbol import symbol_on_sheet

            presenter = StillPresenter(self.document, symbol_on_sheet)
            self.symbol = PictureView(presenter, self.document.reader, "Weld symbol")
            self.views.addWidget(self.symbol)
        if place == NODE and self.node is None:
            from anlage.ui.node_view import NodeView

            self.node = NodeView(self.document)
            self.views.addWidget(self.node)
        view = (self.section, self.takes, self.compare, self.symbol, self.node)[place]
        assert view is not None, "it was made when it was asked for"
        bring_to_front(self.views, view)
        self.tabs.choose(place)
        self.refresh()

    def begin(self) -> None:
        """Put the keyboard where the work starts: at the chooser, or at the drawing."""
        if self.document.wps.joint.kind is None:
            self.column.chooser.buttons[0].setFocus(Qt.FocusReason.OtherFocusReason)
        else:
            self.section.setFocus(Qt.FocusReason.TabFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is on this place."""
        if path.startswith("members/") or path == "seam/member_order":
            self.show_view(NODE)
        field = self.column.fields.get(path) or (self.node.fields.get(path) if self.node else None)
        if field is None:
            return False
        field.setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True


class _Column(QWidget):
    """The right column: chooser, product, and every dimension that the preparation has as numbers."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.rows: dict[str, list[QWidget]] = {}  # widgets of a dimension, made when a preparation first has it
        self.chooser = Chooser(document)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 0, 16, 0)
        layout.setSpacing(8)
        layout.addWidget(_title("Preparation"))
        layout.addWidget(self.chooser)
        layout.addSpacing(6)
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(6)
        self.grid.setVerticalSpacing(5)
        self.grid.setColumnStretch(0, 1)
        for column, head in ((1, "nominal"), (3, "minus"), (4, "plus")):
            label = _label(head)
            label.setAlignment(Qt.AlignmentFlag.AlignRight)
            label.setFont(font("note"))
            self.grid.addWidget(label, 2 * len(SINGLE), column)
        layout.addLayout(self.grid)
        layout.addSpacing(6)
        self.advice = JointAdvice(document, self)
        self.fields["joint/root_style"] = self.advice.style_choice
        self.fields["joint/detail"] = self.advice.detail
        layout.addWidget(self.advice)
        layout.addSpacing(6)
        self.fit = FitTable(document, self)
        layout.addWidget(self.fit)
        layout.addStretch(1)
        document.changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show the dimensions that the preparation has."""
        wps, names, made = self.document.wps, (*SINGLE, *TOLERANCED), False
        for place, name in enumerate(names):
            has = applies(wps, f"joint/{name}")
            if has and name not in self.rows:
                self.rows[name] = self._row(name, 2 * place + (1 if name in TOLERANCED else 0))
                made = True
            for widget in self.rows.get(name, ()):
                widget.setVisible(has)
        if made:  # Tab walks the rows as they stand, in whatever order they were made
            stops = [field for name in names for field in self.rows.get(name, ()) if _takes_keys(field)]
            last = (self.advice.style_choice, self.advice.detail, self.advice.take)
            for one, other in pairwise((self.chooser.ways[-1], *stops, *last)):
                self.setTabOrder(one, other)

    def _row(self, name: str, row: int) -> list[QWidget]:
        """Put label, fields and unit of a leaf into a row, and under it what is wrong with them."""
        path = f"joint/{name}"
        document, grid = self.document, self.grid
        label = _label(field_of(path).label)
        grid.addWidget(label, row, 0)
        if field_of(path).shape == "choice":
            choice = self.fields[path] = ChoiceField(document, path)
            grid.addWidget(choice, row, 1, 1, 4)
            return [label, choice]
        shown: list[QWidget] = [label]
        paths = (path, *(f"{path}/{part}" for part in PARTS[:2])) if name in TOLERANCED else (path,)
        for column, leaf in zip((1, 3, 4), paths, strict=False):
            field = self.fields[leaf] = LeafField(document, leaf)
            field.setFixedWidth(76 if column == 1 else 58)
            part = leaf.removeprefix(path).strip("/")
            field.setAccessibleName(f"{field.field.label} {part}".strip())
            grid.addWidget(field, row, column)
            shown.append(field)
        unit = Unit(document, path)
        grid.addWidget(unit, row, 2)
        shown.append(unit)
        if name == "od_mm":
            size = PipeSizeField(document)
            grid.addWidget(size, row, 3, 1, 2)
            shown.append(size)
        grid.addWidget(Complaint(document, paths, self), row + 1, 0, 1, 5)
        return shown


def _takes_keys(widget: QWidget) -> bool:
    return bool(widget.focusPolicy() & Qt.FocusPolicy.TabFocus)


def _title(text: str) -> QLabel:
    label = QLabel(text)
    label.setFont(font("title", strong=True))
    return label


def _label(text: str) -> QLabel:
    label = QLabel(text)
    label.setProperty("tone", "muted")
    return label
