"""Fit-up round the joint: stations to measure, and the beads as they lie at the chosen one."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.procedure import with_element, without_element
from anlage.session.seam.stations import station_sentences, with_four
from anlage.ui.kit.document import Document
from anlage.ui.kit.element_rows import ElementRows
from anlage.ui.picture.view import PictureView
from anlage.ui.places.passes.seam_presenters import StationPresenter
from anlage.ui.places.passes.selection import Selection

LEAVES = (("place", 130), ("gap_mm", 66), ("land_mm", 66), ("mismatch_mm", 66))


class StationsView(QWidget):
    """The beads at one station, and the stations as rows of fields."""

    def __init__(self, document: Document, selection: Selection) -> None:
        super().__init__()
        self.document = document
        self.chosen = document.value.stations[0].id if document.value.stations else ""
        presenter = StationPresenter(document, selection, lambda: self.chosen)
        self.picture = PictureView(presenter, document.reader, "Beads at the station", presenter.matters)
        deeds = (("Show", self.show_station), ("Remove", self.remove_station))
        self.rows = ElementRows(document, "stations", LEAVES, deeds)
        self.fields = self.rows.fields
        self.add = QPushButton()
        self.add.setEnabled(document.can_write)
        self.add.clicked.connect(self.add_stations)
        self.sentences = QLabel()
        self.sentences.setWordWrap(True)
        column = QVBoxLayout()
        column.setSpacing(8)
        column.addWidget(self.rows)
        buttons = QHBoxLayout()
        buttons.addWidget(self.add)
        buttons.addStretch(1)
        column.addLayout(buttons)
        column.addWidget(self.sentences)
        column.addStretch(1)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(16)
        layout.addWidget(self.picture, 1)
        layout.addLayout(column)
        self.refresh()

    def refresh(self) -> None:
        """Show the stations there are, and the chosen one."""
        ids = [each.id for each in self.document.value.stations]
        if self.chosen not in ids:
            self.chosen = ids[0] if ids else ""
        self.rows.show_elements(ids)
        self.fields = self.rows.fields
        for station, (show, away) in self.rows.buttons.items():
            show.setCheckable(True)
            show.setChecked(station == self.chosen)
            away.setEnabled(self.document.can_write)
        self.add.setText("Add a station" if ids else "Measure at four stations")
        said = station_sentences(self.document.value, self.chosen, self.document.system)
        self.sentences.setText("\n".join(said))
        self.picture.refresh()

    def show_station(self, station: str) -> None:
        """Show the beads as they lie at a station."""
        self.chosen = station
        self.refresh()

    def add_stations(self) -> None:
        """Add one station, or the usual four where there is none."""
        wps = self.document.value
        after = with_element(wps, "stations")[0] if wps.stations else with_four(wps)
        self.document.edit(after, "Add stations")

    def remove_station(self, station: str) -> None:
        """Take a station out."""
        self.document.edit(without_element(self.document.value, "stations", station), "Remove a station")
