"""Tacks with the dressing of each end, and passes laid on a part of the way; on the clock or the strip they lie on."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.procedure import Wps, with_element, without_element, without_pass
from anlage.session.seam.part_passes import part_sentences, with_strip
from anlage.session.seam.tacks import tack_sentences, with_tacks
from anlage.ui.kit.document import Document
from anlage.ui.kit.element_rows import ElementRows
from anlage.ui.kit.look import font
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.view import PictureView
from anlage.ui.places.passes.seam_presenters import StopPresenter
from anlage.ui.places.passes.selection import Selection

TACK = (("place", 92), ("length_mm", 60), ("form", 88), ("first_end", 96), ("second_end", 96))
PART = (("role", 80), ("reach", 240))
COLUMN_PX = 600


class TacksView(QWidget):
    """The picture of the seam, and beside it rows of tacks and rows of passes on a part of the way."""

    def __init__(self, document: Document, selection: Selection) -> None:
        super().__init__()
        self.document = document
        self.picture = PictureView(StopPresenter(document, selection), document.reader, "Tacks and strip beads")
        self.tacks = ElementRows(document, "tacks", TACK, (("Remove", self._remove_tack),))
        self.parts = ElementRows(document, "passes", PART, (("Remove", self._remove_pass),))
        self.every, self.entered = QPushButton("Set out, every end feathered"), QPushButton("Only ends welded into")
        self.every.clicked.connect(lambda: self._edit(with_tacks(document.value), "Set out the tacks"))
        self.entered.clicked.connect(
            lambda: self._edit(with_tacks(document.value, entered_only=True), "Set out the tacks")
        )
        self.entered.setToolTip("The other ends stay whole: a restart has metal under it")
        self.more = QPushButton("Add a tack")
        self.more.clicked.connect(lambda: self._edit(with_element(document.value, "tacks")[0], "Add a tack"))
        self.strip = QPushButton("Add a strip bead")
        self.strip.setToolTip("A short bead before the cap, where the fill runs low")
        self.strip.clicked.connect(lambda: self._edit(with_strip(document.value), "Add a strip bead"))
        self.tacks_said, self.parts_said = QLabel(), QLabel()
        room = QWidget()
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        for title, rows, buttons, said in (
            ("Tacks", self.tacks, (self.every, self.entered, self.more), self.tacks_said),
            ("Passes on a part of the way", self.parts, (self.strip,), self.parts_said),
        ):
            head = QLabel(title)
            head.setFont(font("title", strong=True))
            said.setWordWrap(True)
            column.addWidget(head)
            for widgets in ((rows,), buttons):
                row = QHBoxLayout()
                for widget in widgets:
                    row.addWidget(widget)
                row.addStretch(1)
                column.addLayout(row)
            column.addWidget(said)
            column.addSpacing(8)
        column.addStretch(1)
        lay_beside(self, self.picture, room, COLUMN_PX)
        self.refresh()

    @property
    def fields(self) -> dict[str, QWidget]:
        """Every field that is shown, by its leaf."""
        return {**self.tacks.fields, **self.parts.fields}

    def refresh(self) -> None:
        """Show the tacks and the short passes there are, and what is to be minded at them."""
        wps, system = self.document.value, self.document.system
        self.tacks.show_elements([each.id for each in wps.tacks])
        self.parts.show_elements([each.id for each in wps.passes if each.reach is not None or each.role == "strip"])
        for button in (self.every, self.entered):
            button.setVisible(not wps.tacks)
        self.more.setVisible(bool(wps.tacks))
        for button in (self.every, self.entered, self.more, self.strip):
            button.setEnabled(self.document.can_write)
        for rows in (self.tacks, self.parts):
            for (away,) in rows.buttons.values():
                away.setEnabled(self.document.can_write)
        self.tacks_said.setText("\n".join(tack_sentences(wps, system)) or "No tack is set out.")
        self.parts_said.setText("\n".join(part_sentences(wps, system)) or "Every pass goes all the way.")
        self.picture.refresh()

    def _edit(self, wps: Wps, text: str) -> None:
        self.document.edit(wps, text)

    def _remove_tack(self, tack: str) -> None:
        self._edit(without_element(self.document.value, "tacks", tack), "Remove a tack")

    def _remove_pass(self, pass_id: str) -> None:
        self._edit(without_pass(self.document.value, pass_id), "Remove a pass")
