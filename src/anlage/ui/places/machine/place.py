"""The Machine place: where is it set for a current, and who read that? Its dials as curves beside its readings."""

from collections.abc import Sequence

from msgspec.structs import replace
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.errors import AnlageError
from anlage.core.machine import Tap, with_reading, without_reading
from anlage.core.ranges import Interval
from anlage.session.leaves.table import field_of
from anlage.session.seam.dial_picture import tap_sentences
from anlage.session.seam.dials import read_current, wanted_sentences
from anlage.session.works.machines import as_known
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.element_rows import ElementRows
from anlage.ui.kit.fields import ChoiceField, LeafField, field_for
from anlage.ui.kit.heading import VerdictLine, heading
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.kit.text_line import TextLine
from anlage.ui.picture.editor import PictureEditor
from anlage.ui.picture.view import PictureView
from anlage.ui.places.machine.leaves import HEAD, METERS, READING
from anlage.ui.places.machine.presenter import DialPresenter

COLUMN_PX = 620
COPIED = ("tap", "lead_m", "meter", "day")  # of a tap are read one after another


class MachinePlace(Place):
    """The dials as curves on the left; what the machine is, what it gives and its readings on the right."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.wanted = TextLine()
        self.picture = PictureView(
            DialPresenter(document, self.taps, self.wanted_a), document.reader, "Current by the dial"
        )
        self.editor = PictureEditor(self.picture, document)
        self._head: dict[str, LeafField | ChoiceField] = {}
        self.readings = ElementRows(document, "readings", READING, (("Remove", self.remove_reading),))
        self.add = QPushButton("Add a reading")
        self.add.setToolTip("Tap, leads, meter and day go along from the one before (Ctrl+Return)")
        self.add.setEnabled(document.can_write)
        self.add.clicked.connect(self.add_reading)
        self.given = QLabel()
        self.given.setWordWrap(True)
        self.given.setFont(font("body", strong=True))
        self.said: list[VerdictLine] = []
        self._lay_out()
        self.wanted.textChanged.connect(self.refresh)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        document.reader.look_changed.connect(self.refresh)
        self.refresh()

    def _lay_out(self) -> None:
        room = QWidget()
        lay_beside(self, self.picture, room, COLUMN_PX)
        margins = self.layout()
        assert margins is not None, "it was laid out"
        margins.setContentsMargins(16, 12, 16, 12)
        column = QVBoxLayout(room)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        column.addLayout(self._lay_out_row(HEAD, (2, 4, 4)))
        column.addLayout(self._lay_out_row(METERS, (1, 1, 1)))
        Complaint(self.document, (*HEAD, *METERS), room)
        ask = QHBoxLayout()
        self.wanted.setAccessibleName("Current that is wanted")
        self.wanted.setPlaceholderText("90..110")
        self.wanted.setFixedWidth(96)
        for widget in (QLabel("Set it for"), self.wanted, QLabel("A")):
            ask.addWidget(widget)
        ask.addWidget(self.given, 1)
        column.addLayout(ask)
        column.addWidget(heading("Taps"))
        self._taps = QVBoxLayout()
        self._taps.setSpacing(4)
        column.addLayout(self._taps)
        column.addSpacing(6)
        column.addWidget(heading("What a meter read"))
        for widget in (self.readings, self.add):
            row = QHBoxLayout()
            row.addWidget(widget)
            row.addStretch(1)
            column.addLayout(row)
        column.addStretch(1)

    def _lay_out_row(self, paths: Sequence[str], shares: Sequence[int]) -> QGridLayout:
        """Return fields beside each other, each under its label."""
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(2)
        for column, (path, share) in enumerate(zip(paths, shares, strict=True)):
            label, field = QLabel(field_of(path).label), field_for(self.document, path)
            label.setProperty("tone", "muted")
            label.setFont(font("note"))
            label.setToolTip(field_of(path).tip)
            self._head[path] = field
            grid.addWidget(label, 0, column)
            grid.addWidget(field, 1, column)
            grid.setColumnStretch(column, share)
        return grid

    @property
    def fields(self) -> dict[str, LeafField | ChoiceField]:
        """Every field that is shown, by its leaf."""
        return {**self._head, **self.readings.fields}

    def taps(self) -> tuple[Tap, ...]:
        """Return the taps of the machine as they are known today."""
        return replace(self.desk.machines(), machines=(as_known((self.document.working, ())),)).taps()

    def wanted_a(self) -> Interval | None:
        """Return the current that is wanted, `None` while none is written."""
        try:
            return read_current(self.wanted.text())
        except AnlageError:
            return None

    def refresh(self) -> None:
        """Show what the machine gives now."""
        self.readings.show_elements([each.id for each in self.document.value.readings])
        for button in (each for row in self.readings.buttons.values() for each in row):
            button.setEnabled(self.document.can_write)
        self._show_taps(tap_sentences(self.taps(), self.document.system))
        self._show_given()
        self.picture.refresh()

    def _show_given(self) -> None:
        text = self.wanted.text().strip()
        try:
            current = read_current(text)
        except AnlageError as fault:
            self.given.setText(f"{fault.what}; {fault.mend}.")
            return
        self.given.setText("\n".join(wanted_sentences(self.taps(), current, self.document.system)) if current else "")

    def _show_taps(self, sentences: Sequence[tuple[str, str]]) -> None:
        while len(self.said) > len(sentences):
            gone = self.said.pop()
            gone.hide()
            gone.deleteLater()
        while len(self.said) < len(sentences):
            self.said.append(VerdictLine(self.document.reader))
            self._taps.addWidget(self.said[-1])
        for line, said in zip(self.said, sentences, strict=True):
            line.say(*said)

    def add_reading(self) -> None:
        """Add a reading of the tap that was read last, and put the keyboard at its dial, of the first at its tap."""
        before = self.document.value.readings[-1:]
        stated = {leaf: getattr(before[0], leaf) for leaf in COPIED} if before else {}
        machine, own = with_reading(self.document.value, **stated)
        self.document.edit(machine, "Add a reading")
        self.go_to(f"readings/{own}/{'dial' if before else 'tap'}")

    def remove_reading(self, reading: str) -> None:
        """Take a reading out."""
        self.document.edit(without_reading(self.document.value, reading), "Remove a reading")

    def begin(self) -> None:
        """Put the keyboard on what is asked for most: a current that is wanted, or the number of a new machine."""
        first = self.wanted if self.document.value.readings else self._head[HEAD[1]]
        first.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is here."""
        found = self.fields.get(path)
        if found is not None:
            found.setFocus(Qt.FocusReason.ShortcutFocusReason)
        return found is not None
