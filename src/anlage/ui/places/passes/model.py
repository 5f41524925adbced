"""The passes as a table: one row a pass, one column a leaf; what is typed goes to the document as text."""

from collections.abc import Sequence
from functools import cache
from typing import Any

from msgspec import Struct
from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, Qt

from anlage.core.procedure import Deposit, Pass, deposit_of_pass
from anlage.core.quantities import show
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.leaves.draft import Working
from anlage.session.leaves.table import field_of
from anlage.session.weld.bead_areas import bead_area
from anlage.session.weld.figures import pass_figures
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded

Index = QModelIndex | QPersistentModelIndex


class PassColumn(Struct, frozen=True):
    """One column: the leaf it shows, or "" for what is worked out, its head and its width [px]."""

    leaf: str
    head: str
    width: int


COLUMNS = (
    PassColumn("role", "Pass", 70),
    PassColumn("deposit", "Deposit", 126),
    PassColumn("current_a", "Current", 90),
    PassColumn("voltage_v", "Voltage", 84),
    PassColumn("travel_speed_mm_min", "Speed", 108),
    PassColumn("", "Arc energy", 126),
    PassColumn("thickness_mm", "Thickness", 104),
    PassColumn("bead_area_mm2", "Bead", 88),
    PassColumn("layer", "Layer", 102),
    PassColumn("wire_speed_mm_min", "Wire", 100),
    PassColumn("side", "Side", 58),
    PassColumn("note", "Note", 74),
)
ENERGY = 5
WORKED_OUT = ("", "bead_area_mm2")  # the leaves of columns that show what others lead to
MARK = int(Qt.ItemDataRole.UserRole)  # "", "pending", "proposed"
BAR = MARK + 1  # where a range lies within those of all passes: (low, high), 0..1
HEAT = MARK + 2  # the hottest arc energy [kJ/mm]


# Worked out once: joining flags anew for every cell is what painting the table took longest for.
_SEEN = Qt.ItemFlag.ItemIsSelectable | Qt.ItemFlag.ItemIsEnabled
_EDITED = _SEEN | Qt.ItemFlag.ItemIsEditable


@cache
def _side(column: int) -> int:
    """Return how a column is aligned: numbers at the right."""
    leaf = COLUMNS[column].leaf
    right = column == ENERGY or bool(leaf and field_of(f"passes/*/{leaf}").kind)
    side = Qt.AlignmentFlag.AlignRight if right else Qt.AlignmentFlag.AlignLeft
    return int(side | Qt.AlignmentFlag.AlignVCenter)


def _span(passes: Sequence[Pass], leaf: str) -> tuple[float, float]:
    """Return the least and most that any pass states of a leaf."""
    stated = [span for each in passes if (span := getattr(each, leaf)) is not None]
    return min((span.low for span in stated), default=0.0), max((span.high for span in stated), default=0.0)


@guarded
class PassModel(QAbstractTableModel):
    """The passes of the open procedure."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self._passes = document.value.passes  # what the views were told of so far
        self._texts: dict[tuple[int, int], str] = {}  # of cells, until their row changes
        self._spans: dict[str, tuple[float, float]] = {}  # least and most of columns, until any pass changes
        document.changed.connect(self._on_changed)
        document.reader.units_changed.connect(self._on_units_changed)

    def rowCount(self, parent: Index = QModelIndex()) -> int:
        return 0 if parent.isValid() else len(self._passes)

    def columnCount(self, parent: Index = QModelIndex()) -> int:
        return 0 if parent.isValid() else len(COLUMNS)

    def path(self, index: Index) -> str:
        """Return the leaf of a cell, "" for one that is worked out."""
        column = COLUMNS[index.column()]
        return f"passes/{self.at(index).id}/{column.leaf}" if column.leaf else ""

    def at(self, index: Index) -> Pass:
        """Return the pass of a row."""
        return self._passes[index.row()]

    def flags(self, index: Index) -> Qt.ItemFlag:
        if not index.isValid():
            return Qt.ItemFlag.NoItemFlags
        return _EDITED if COLUMNS[index.column()].leaf and self.document.can_write else _SEEN

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if orientation == Qt.Orientation.Vertical:
            return str(section + 1) if role == Qt.ItemDataRole.DisplayRole else None
        column = COLUMNS[section]
        leaf = field_of(f"passes/*/{column.leaf}") if column.leaf else None
        if role == Qt.ItemDataRole.DisplayRole:
            unit = leaf.unit(self.document.system) if leaf else ""
            return f"{column.head}, {unit}" if unit else column.head
        if role == Qt.ItemDataRole.ToolTipRole:
            return leaf.tip if leaf else _TIPS.get(section)
        if role == Qt.ItemDataRole.TextAlignmentRole and (section == ENERGY or (leaf and leaf.kind)):
            return _side(section)
        return None

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if not index.isValid():
            return None
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole, Qt.ItemDataRole.AccessibleTextRole):
            return self._text(index)
        if role == Qt.ItemDataRole.TextAlignmentRole:
            return _side(index.column())
        own = {MARK: self._mark, BAR: self._bar, Qt.ItemDataRole.ToolTipRole: self._tip}.get(role)
        return own(index) if own else None

    def setData(self, index: Index, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        path = self.path(index) if index.isValid() else ""
        if not path or role != Qt.ItemDataRole.EditRole or not self.document.can_write:
            return False
        self.document.type_text(path, str(value))
        return True

    def _text(self, index: Index) -> str:
        cell = (index.row(), index.column())
        if cell not in self._texts:
            self._texts[cell] = self._worked_out(index)
        return self._texts[cell]

    def _worked_out(self, index: Index) -> str:
        if index.column() == ENERGY:
            return pass_figures(self.document.value, self.at(index), self.document.system).energy
        text = self.document.text(self.path(index))
        leaf = COLUMNS[index.column()].leaf
        if leaf == "bead_area_mm2" and not text:  # in brackets what the settings lay
            found = bead_area(deposit_of_pass(self.document.value, self.at(index)), self.at(index))
            unit = field_of("passes/*/bead_area_mm2").unit(self.document.system)
            said = show(found.middle, "area", self.document.system, unit_table()) if found else ""
            return f"({said.removesuffix(unit).rstrip()})" if said else ""
        if leaf in ("layer", "side"):
            return field_of(self.path(index)).say(text) if text else ""
        if leaf == "deposit":
            return deposit_words(deposit_of_pass(self.document.value, self.at(index)))
        return text

    def _mark(self, index: Index) -> str:
        path = self.path(index)
        if path in self.document.working.pending:
            return "pending"
        return "proposed" if path in self.document.value.proposed else ""

    def _tip(self, index: Index) -> str:
        if index.column() == ENERGY:
            figures = pass_figures(self.document.value, self.at(index), self.document.system)
            return "\n".join(filter(None, (figures.hottest, figures.coldest, figures.heat_input)))
        fault = self.document.complaints().get(self.path(index))
        if fault is None and COLUMNS[index.column()].leaf == "bead_area_mm2":
            found = bead_area(deposit_of_pass(self.document.value, self.at(index)), self.at(index))
            return found.origin if found else "Not known: state it, or the wire speed, or electrode and travel speed."
        if fault is not None:
            return f"{fault.what}; {fault.mend}"
        return "\n".join(filter(None, (self._text(index), self.document.proposed(self.path(index)))))

    def _bar(self, index: Index) -> tuple[float, float] | None:
        """Return where a range lies between the least and the most of its column."""
        leaf = COLUMNS[index.column()].leaf
        own = getattr(self.at(index), leaf, None) if leaf else None
        if not isinstance(own, Interval):
            return None
        if leaf not in self._spans:
            self._spans[leaf] = _span(self._passes, leaf)
        least, most = self._spans[leaf]
        width = most - least
        return ((own.low - least) / width, (own.high - least) / width) if width > 0 else None

    def _on_changed(self, before: Working, after: Working) -> None:
        old, new = self._passes, after.value.passes
        spans = {leaf: _span(new, leaf) for leaf in self._spans} if old is not new else self._spans
        moved, self._spans = spans != self._spans, spans  # the bars of a column share its least and most
        if [each.id for each in old] != [each.id for each in new]:
            self._rows_changed(old, new)
            return
        self._passes = new
        others = before.value.proposed is not after.value.proposed  # cells of rows that are the same stand otherwise
        shared = moved or others or before.value.deposits is not after.value.deposits or before.pending != after.pending
        for row, (was, now) in enumerate(zip(old, new, strict=True)):
            if shared:
                self._tell(row, row)
            elif was is not now:
                self._tell_cells(row, was, now)

    def _rows_changed(self, old: tuple[Pass, ...], new: tuple[Pass, ...]) -> None:
        """Tell of one row come or gone as what it is, of anything else as a new order."""
        self._texts.clear()
        places = {each.id: row for row, each in enumerate(new)}
        gained = places.keys() - {each.id for each in old}
        lost = [row for row, each in enumerate(old) if each.id not in places]
        if len(gained) == 1 and not lost:
            row = places[gained.pop()]
            self.beginInsertRows(QModelIndex(), row, row)
            self._passes = new
            self.endInsertRows()
        elif len(lost) == 1 and not gained:
            self.beginRemoveRows(QModelIndex(), lost[0], lost[0])
            self._passes = new
            self.endRemoveRows()
        else:
            self.layoutAboutToBeChanged.emit()
            held = self.persistentIndexList()
            ids = [old[index.row()].id for index in held]
            self._passes = new
            rows = [places.get(each, -1) for each in ids]
            self.changePersistentIndexList(
                held, [self.index(row, index.column()) for row, index in zip(rows, held, strict=True)]
            )
            self.layoutChanged.emit()
        if new:
            self._tell(0, len(new) - 1)

    def _tell(self, first: int, last: int) -> None:
        self._texts = {cell: text for cell, text in self._texts.items() if not first <= cell[0] <= last}
        self.dataChanged.emit(self.index(first, 0), self.index(last, len(COLUMNS) - 1))

    def _tell_cells(self, row: int, was: Pass, now: Pass) -> None:
        """Tell of the cells of a row that state something else, and of those worked out from several."""
        for column, each in enumerate(COLUMNS):
            if each.leaf in WORKED_OUT or getattr(was, each.leaf) != getattr(now, each.leaf):
                self._texts.pop((row, column), None)
                cell = self.index(row, column)
                self.dataChanged.emit(cell, cell)

    def _on_units_changed(self) -> None:
        if self._passes:
            self._tell(0, len(self._passes) - 1)
        self.headerDataChanged.emit(Qt.Orientation.Horizontal, 0, len(COLUMNS) - 1)


_TIPS = {
    ENERGY: "U·I over speed, for the whole stated range: from the fast, cold corner to the slow, hot one. "
    "No efficiency is in it (ASME IX QW-409.1).",
}


def deposit_words(deposit: Deposit) -> str:
    """Return how a deposit is called in a list."""
    return " ".join(filter(None, (deposit.process, deposit.filler))) or "new deposit"
