"""Settings by sector of the chosen pass, and the dials of the machines that give them."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.procedure import with_element, without_element
from anlage.session.seam.dials import dial_sentences
from anlage.session.seam.sectors import sector_sentences
from anlage.ui.kit.document import Document
from anlage.ui.kit.element_rows import ElementRows
from anlage.ui.kit.look import font
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
    """The chosen pass by its sectors, and beside it rows of sectors and of readings of the machines."""

    def __init__(self, document: Document, selection: Selection) -> None:
        super().__init__()
        self.document, self.selection = document, selection
        self.picture = PictureView(SectorPresenter(document, selection), document.reader, "Sectors of the pass")
        room = QWidget()
        lay_beside(self, self.picture, room, COLUMN_PX)
        self.sectors = ElementRows(document, "sectors", SECTOR, (("Remove", lambda e: self._remove("sectors", e)),))
        self.readings = ElementRows(document, "readings", READING, (("Remove", lambda e: self._remove("readings", e)),))
        self.title = QLabel()
        self.said, self.dials = QLabel(), QLabel()
        self.add_sector, self.add_reading = QPushButton("Add a sector"), QPushButton("Add a reading")
        self.add_sector.clicked.connect(self.on_add_sector)
        self.add_reading.clicked.connect(
            lambda: self._edit(with_element(document.value, "readings")[0], "Add a reading")
        )
        machines = QLabel("Machines: what a meter read at tap and dial")
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        for title, rows, add, said in (
            (self.title, self.sectors, self.add_sector, self.said),
            (machines, self.readings, self.add_reading, self.dials),
        ):
            title.setFont(font("title", strong=True))
            said.setWordWrap(True)
            add.setEnabled(document.can_write)
            column.addWidget(title)
            for widget in (rows, add):
                row = QHBoxLayout()
                row.addWidget(widget)
                row.addStretch(1)
                column.addLayout(row)
            column.addWidget(said)
            column.addSpacing(10)
        column.addStretch(1)
        self.refresh()

    @property
    def fields(self) -> dict[str, QWidget]:
        """Every field that is shown, by its leaf."""
        return {**self.sectors.fields, **self.readings.fields}

    def refresh(self) -> None:
        """Show what the document says now, of the chosen pass."""
        wps, chosen = self.document.value, self.selection.pass_id
        self.title.setText(f"Sectors of pass {self.selection.row + 1}" if self.selection.chosen else "Sectors")
        self.sectors.show_elements([each.id for each in wps.sectors if each.of == chosen])
        self.readings.show_elements([each.id for each in wps.readings])
        self.add_sector.setEnabled(self.document.can_write and self.selection.chosen is not None)
        self.said.setText("\n".join(sector_sentences(wps, chosen, self.document.system)))
        self.picture.refresh()
        self.dials.setText("\n".join(dial_sentences(wps, chosen, self.document.system)))

    def on_add_sector(self) -> None:
        """Add a sector to the chosen pass."""
        if self.selection.chosen is not None:
            self._edit(with_element(self.document.value, "sectors", of=self.selection.pass_id)[0], "Add a sector")

    def _remove(self, of: str, element: str) -> None:
        self._edit(without_element(self.document.value, of, element), f"Remove a {of[:-1]}")

    def _edit(self, wps: object, text: str) -> None:
        self.document.edit(wps, text)  # type: ignore[arg-type]
