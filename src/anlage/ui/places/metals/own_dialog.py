"""The metals and fillers that a works adds to the catalogue: seen, brought in as tables, taken out, saved."""

from functools import partial
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QLabel, QListWidget, QPushButton, QWidget

from anlage.core.errors import AnlageError
from anlage.core.materials import Materials
from anlage.session.output.saving import save
from anlage.session.works.added import Added, added
from anlage.session.works.found_documents import text_of_file
from anlage.session.works.materials import table_text, with_table, without
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.place import Desk

WIDTH_PX, LIST_PX = 640, 220
PATTERN = "Tables (*.csv);;All files (*)"
TOLD = (
    "They count in every document of this works file as those do that ship, by the groups and strengths that their "
    "rows state, and a row says where that is from. One that ships cannot be replaced: give yours another name."
)
NOTHING = "Nothing is added yet. Save an empty table, fill it in, and bring it in."


class OwnMaterialsDialog(Question):
    """Shows what is added, and changes it at once; each change is a revision in the works file."""

    def __init__(self, desk: Desk, parent: QWidget) -> None:
        super().__init__("Metals and fillers of this works", parent)
        self.desk = desk
        self.setMinimumWidth(WIDTH_PX)
        self.column.setSpacing(10)
        told = QLabel(TOLD)
        told.setWordWrap(True)
        self.column.addWidget(told)
        self.list, self.nothing = QListWidget(), QLabel(NOTHING)
        self.list.setAccessibleName("Added metals and fillers")
        self.list.setMinimumHeight(LIST_PX)
        self.list.setWordWrap(True)
        self.nothing.setProperty("tone", "muted")
        self.nothing.setWordWrap(True)
        self.column.addWidget(self.list)
        self.column.addWidget(self.nothing)
        self.bring, self.out = QPushButton("Bring in a table…"), QPushButton("Take out")
        self.save_metals, self.save_fillers = QPushButton("Save metals as CSV…"), QPushButton("Save fillers as CSV…")
        row = QHBoxLayout()
        for button in (self.bring, self.out, self.save_metals, self.save_fillers):
            button.setAutoDefault(False)
            row.addWidget(button)
        self.column.addLayout(row)
        self.complaint = self.complaint_line(2)
        self.column.addWidget(self.complaint)
        self.done_button = QPushButton("Done")
        self.add_foot(self.done_button)
        self.bring.clicked.connect(self.ask_for_table)
        self.out.clicked.connect(self.take_out)
        self.save_metals.clicked.connect(partial(self.ask_where, "metals"))
        self.save_fillers.clicked.connect(partial(self.ask_where, "fillers"))
        self.done_button.clicked.connect(self.accept)
        self.list.currentRowChanged.connect(self._on_row)
        self._rows: tuple[Added, ...] = ()
        self.materials = Materials()
        self._read()
        self.bring.setFocus()

    def _read(self) -> None:
        """Show what is added now; where it cannot be read, why, and nothing may be put in its place."""
        can_change = self.desk.rules.can_mark()
        try:
            self.materials = self.desk.rules.materials()
            self._rows = added(self.materials)
        except AnlageError as fault:
            self._rows, can_change = (), False
            self.complaint.setText(str(fault))
        self.list.clear()
        self.list.addItems([f"{each.name}: {each.says}\n{each.source}" for each in self._rows])
        self.list.setVisible(bool(self._rows))
        self.nothing.setVisible(not self._rows)
        self.bring.setEnabled(can_change)
        self._on_row(self.list.currentRow())

    def _on_row(self, row: int) -> None:
        self.out.setEnabled(row >= 0 and self.bring.isEnabled())

    def _add(self, materials: Materials) -> None:
        self.desk.rules.add(materials, self.desk.settings.author)
        self.complaint.clear()
        self._read()

    def ask_for_table(self) -> None:
        """Ask for a table of metals or fillers, and add its rows."""
        name, _ = QFileDialog.getOpenFileName(self, "Metals or fillers", "", PATTERN)
        if name:
            self.bring_in(Path(name))

    def bring_in(self, path: Path) -> None:
        """Add the rows of a table, all or none, or say which is at fault."""
        try:
            self._add(with_table(self.materials, text_of_file(path)))
        except AnlageError as fault:
            self.complaint.setText(f"{path.name}, {fault}")

    def take_out(self) -> None:
        """Take the chosen metal or filler out: what is made of it is of an unknown one from then on."""
        row = self.list.currentRow()
        if row >= 0:
            try:
                self._add(without(self.materials, self._rows[row].name))
            except AnlageError as fault:
                self.complaint.setText(str(fault))

    def ask_where(self, table: str) -> None:
        """Ask where a table goes, `metals` or `fillers`, and write it there with every column that it may have."""
        name, _ = QFileDialog.getSaveFileName(self, f"Save {table}", f"{table}.csv", PATTERN)
        if name:
            try:  # the dialog has asked whether another may be overwritten
                save(Path(name), lambda: table_text(self.materials, table).encode(), over=True)
            except AnlageError as fault:
                self.complaint.setText(str(fault))
