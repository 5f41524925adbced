"""Fields of leaves under each other: label, field, unit."""

from collections.abc import Sequence

from PySide6.QtWidgets import QGridLayout, QLabel

from anlage.session.leaves.table import field_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, Unit, field_for


def lay_fields(document: Document, paths: Sequence[str], into: dict[str, LeafField | ChoiceField]) -> QGridLayout:
    """Return the fields of some leaves as a grid, and note each by its leaf."""
    grid = QGridLayout()
    grid.setHorizontalSpacing(8)
    grid.setVerticalSpacing(5)
    grid.setColumnStretch(1, 1)
    for row, path in enumerate(paths):
        label, field = QLabel(field_of(path).label), field_for(document, path)
        label.setProperty("tone", "muted")
        label.setToolTip(field_of(path).tip)
        grid.addWidget(label, row, 0)
        grid.addWidget(field, row, 1)
        if field_of(path).kind:
            grid.addWidget(Unit(document, path), row, 2)
        into[path] = field
    return grid
