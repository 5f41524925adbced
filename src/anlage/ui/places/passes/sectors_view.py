"""Settings by sector of the chosen pass, and the dials of the machines that give them."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.procedure import with_element, without_element
from anlage.session.seam.dials import dial_sentences, superseded_sentences
from anlage.session.seam.sectors import sector_sentences
from anlage.session.works.machines import brought
from anlage.ui.kit.document import Document
from anlage.ui.kit.element_rows import ElementRows
from anlage.ui.kit.heading import heading
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.view import PictureView
from anlage.ui.places.passes.seam_presenters import SectorPresenter
from anlage.ui.places.passes.selection import Selection

SECTOR = (("reach", 150), ("current_a", 74), ("voltage_v", 62), ("travel_speed_mm_min", 84), ("technique", 134))
READING = (
    ("machine", 100), ("tap", 72), ("dial", 54), ("current_a", 62), ("voltage_v", 56), ("meter", 86), ("day", 92),
)  # fmt: skip
COLUMN_PX = 664


class SectorsView(QWidget):
    """The chosen pass by its sectors, and beside it their rows and where the machines of the works are set for it."""

    def __init__(self, document: Document, selection: Selection, desk: Desk) -> None:
        super().__init__()
        self.document, self.selection, self.desk = document, selection, desk
        self.picture = PictureView(SectorPresenter(document, selection), document.reader, "Sectors of the pass")
        room = QWidget()
        lay_beside(self, self.picture, room, COLUMN_PX)
        self.sectors = ElementRows(document, "sectors", SECTOR, (("Remove", lambda e: self._remove("sectors", e)),))
        self.readings = ElementRows(document, "readings", READING, (("Remove", lambda e: self._remove("readings", e)),))
        self.machine = ElementRows(document, "deposits", (("machine", 120),), ())
        self.title = QLabel()
        self.said, self.dials = QLabel(), QLabel()
        self.add_sector, self.to_machines = QPushButton("Add a sector"), QPushButton("Machines of the works")
        self.add_sector.clicked.connect(self.on_add_sector)
        self.to_machines.setToolTip("What a meter read of each machine, for every procedure (Alt+M)")
        self.to_machines.clicked.connect(lambda: desk.run("machine"))
        self.old = QLabel("Typed in this procedure, for it alone:")
        self.old.setProperty("tone", "muted")
        self.bring = QPushButton("Keep these with the machines of the works")
        self.bring.clicked.connect(self.on_bring)
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        for title, rows, said in (
            (self.title, (self.sectors, self.add_sector), self.said),
            (heading("Dials that give its current"), (self.machine,), self.dials),
        ):
            title.setFont(font("title", strong=True))
            said.setWordWrap(True)
            column.addWidget(title)
            _lay_left(column, *rows)
            column.addWidget(said)
            column.addSpacing(10)
        _lay_left(column, self.to_machines, self.old, self.readings, self.bring)
        column.addStretch(1)
        self.refresh()

    @property
    def fields(self) -> dict[str, QWidget]:
        """Every field that is shown, by its leaf."""
        return {**self.sectors.fields, **self.machine.fields, **self.readings.fields}

    def refresh(self) -> None:
        """Show what the document says now, of the chosen pass."""
        wps, chosen = self.document.value, self.selection.pass_id
        self.title.setText(f"Sectors of pass {self.selection.row + 1}" if self.selection.chosen else "Sectors")
        self.sectors.show_elements([each.id for each in wps.sectors if each.of == chosen])
        self.machine.show_elements([self.selection.chosen.deposit] if self.selection.chosen else [])
        self.readings.show_elements([each.id for each in wps.readings])
        self.add_sector.setEnabled(self.document.can_write and self.selection.chosen is not None)
        self.said.setText("\n".join(sector_sentences(wps, chosen, self.document.system)))
        self.picture.refresh()
        works = self.desk.machines()
        said = (*dial_sentences(wps, chosen, works, self.document.system), *superseded_sentences(wps, works))
        self.dials.setText("\n".join(said))
        for widget in (self.old, self.bring):
            widget.setVisible(bool(wps.readings))
        self.bring.setEnabled(self.document.can_write and bool(brought(wps, works)[1]))

    def on_add_sector(self) -> None:
        """Add a sector to the chosen pass."""
        if self.selection.chosen is not None:
            self._edit(with_element(self.document.value, "sectors", of=self.selection.pass_id)[0], "Add a sector")

    def on_bring(self) -> None:
        """Make machines of the works of what was read for this procedure alone."""
        wps, machines = brought(self.document.value, self.desk.machines())
        for each in machines:
            self.desk.add(each)
        self._edit(wps, "Keep readings with the machines")

    def _remove(self, of: str, element: str) -> None:
        self._edit(without_element(self.document.value, of, element), f"Remove a {of[:-1]}")

    def _edit(self, wps: object, text: str) -> None:
        self.document.edit(wps, text)  # type: ignore[arg-type]


def _lay_left(column: QVBoxLayout, *widgets: QWidget) -> None:
    """Lay widgets under each other, each as wide as it needs."""
    for widget in widgets:
        row = QHBoxLayout()
        row.addWidget(widget)
        row.addStretch(1)
        column.addLayout(row)
