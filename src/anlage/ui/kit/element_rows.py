"""Rows of fields for the elements of a list: tacks, stations, sectors, readings; each with what can be done to it."""

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QGridLayout, QLabel, QPushButton, QWidget

from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, Unit, field_for
from anlage.ui.kit.look import font

Deed = tuple[str, Callable[[str], None]]  # word on the button, what it does to an element


class ElementRows(QWidget):
    """One row an element, its leaves side by side; heads with units over them."""

    def __init__(self, document: Document, of: str, leaves: Sequence[tuple[str, int]], deeds: Sequence[Deed]) -> None:
        super().__init__()
        self.document, self.of, self.leaves, self.deeds = document, of, leaves, deeds
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.rows: dict[str, list[QWidget]] = {}
        self.buttons: dict[str, list[QPushButton]] = {}
        self._heads: list[QWidget] = []
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(5)
        self._grid.setVerticalSpacing(4)

    def show_elements(self, ids: Sequence[str]) -> None:
        """Show a row for each element, in order; rows of others go."""
        if list(self.rows) != list(ids):
            for widgets in self.rows.values():
                for widget in widgets:
                    self._grid.removeWidget(widget)
                    widget.hide()
                    widget.deleteLater()
            self.rows, self.buttons, self.fields = {}, {}, {}
            for place, element in enumerate(ids, 1):
                self.rows[element] = self._row(element, place)
        if ids and not self._heads:
            self._add_heads(ids[0])
        for head in self._heads:
            head.setVisible(bool(ids))

    def _add_heads(self, element: str) -> None:
        for column, (name, _) in enumerate(self.leaves):
            path = f"{self.of}/{element}/{name}"
            head = QLabel(self.fields[path].field.label)
            head.setProperty("tone", "muted")
            head.setFont(font("note"))
            self._grid.addWidget(head, 0, 2 * column)
            self._heads.append(head)
            if self.fields[path].field.unit(self.document.system):
                unit = Unit(self.document, path)
                unit.setFont(font("note"))
                self._grid.addWidget(unit, 0, 2 * column + 1)
                self._heads.append(unit)

    def _row(self, element: str, row: int) -> list[QWidget]:
        made: list[QWidget] = []
        for column, (name, width) in enumerate(self.leaves):
            path = f"{self.of}/{element}/{name}"
            field = self.fields[path] = field_for(self.document, path)
            field.setFixedWidth(width)
            self._grid.addWidget(field, row, 2 * column, 1, 2)
            made.append(field)
        self.buttons[element] = []
        for place, (word, do) in enumerate(self.deeds):
            button = QPushButton(word)
            button.setProperty("tab", True)  # noqa: FBT003 - a property of the stylesheet
            button.clicked.connect(lambda _checked=False, do=do: do(element))
            self._grid.addWidget(button, row, 2 * len(self.leaves) + place)
            self.buttons[element].append(button)
            made.append(button)
        return made
