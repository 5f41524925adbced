"""The right column of the Joint: chooser, product, and every dimension of the preparation as numbers."""

from collections.abc import Callable
from itertools import pairwise
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QGridLayout,
    QLabel,
    QVBoxLayout,
    QWidget,
)

from anlage.session.leaves.presence import applies
from anlage.session.leaves.table import PARTS, field_of
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, Unit
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import font
from anlage.ui.places.joint.advice import JointAdvice
from anlage.ui.places.joint.chooser import Chooser
from anlage.ui.places.joint.fit_table import FitTable
from anlage.ui.places.joint.pipe_size import PipeSizeField

if TYPE_CHECKING:
    from anlage.session.judging.editions import Codes

_finish_limits = loaded("anlage.session.judging.finish:finish_limits")
MOST_LIMITS = 4
SINGLE = ("product", "thickness_mm", "other_thickness_mm", "flush", "taper", "counterbore_mm",
          "od_mm", "run_od_mm", "backing_form", "backing_mm", "seam_length_mm")  # fmt: skip
TOLERANCED = (
    "root_opening_mm", "root_face_mm", "groove_angle_deg", "second_depth_mm", "second_angle_deg", "radius_mm",
    "break_height_mm", "upper_angle_deg", "leg_mm", "second_leg_mm", "member_angle_deg", "hole_mm", "slot_length_mm",
    "fill_depth_mm", "width_mm", "layer_mm", "reinforcement_mm", "cap_overlap_mm", "root_reinforcement_mm",
    "buttering_mm",
)  # fmt: skip


LEAVES = (
    *(f"joint/{name}" for name in (*SINGLE, *TOLERANCED, "root_style", "detail")),
    "members/*",
    "seam/member_order",
)


class JointColumn(QWidget):
    """The right column: chooser, product, and every dimension that the preparation has as numbers."""

    def __init__(self, document: Document, codes: "Callable[[], Codes]") -> None:
        super().__init__()
        self.document, self._codes = document, codes
        self.finish = [QLabel() for _ in range(MOST_LIMITS)]
        for label in self.finish:
            label.setWordWrap(True)
            label.setFont(font("note"))
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
        for label in self.finish:
            layout.addWidget(label)
        layout.addSpacing(6)
        self.fit = FitTable(document, self)
        layout.addWidget(self.fit)
        layout.addStretch(1)
        for part in ("joint", "header"):
            document.part(part).connect(self.refresh)
        document.reader.units_changed.connect(self._show_finish)
        self.refresh()

    def _show_finish(self) -> None:
        """Show how the finished weld may look by the construction code of the job."""
        wps, told = self.document.value, []
        if wps.header.construction_code and wps.joint.kind:
            found = _finish_limits(wps, self._codes(), self.document.system)
            told = [(f"{each.words[0].upper()}{each.words[1:]}.", each.verdict, each.note) for each in found]
        elif wps.joint.reinforcement_mm is not None:
            told = [
                (
                    "Cap, root, undercut and offset: contract: not stated.",
                    None,
                    "Name the code of construction at Heat.",
                )
            ]
        for place, label in enumerate(self.finish):
            label.setVisible(place < len(told))
            if place < len(told):
                text, verdict, note = told[place]
                label.setText(text)
                label.setToolTip(note)
                label.setProperty("tone", verdict if verdict in ("outside", "unproven") else "muted")
                label.style().polish(label)

    def refresh(self) -> None:
        """Show the dimensions that the preparation has."""
        wps, names, made = self.document.value, (*SINGLE, *TOLERANCED), False
        self._show_finish()
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
        Complaint(document, paths, self)
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
