"""The Metals place: do these go together? Strength, hardening, ferrite and dilution beside what they rest on."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog, QGridLayout, QInputDialog, QLabel, QPushButton, QVBoxLayout, QWidget

from anlage.core.errors import AnlageError
from anlage.session.leaves.table import field_of
from anlage.session.metals.certificates import Heat, heats_in, with_heat
from anlage.session.metals.own_lines import own_figures, require_lines
from anlage.session.metals.together import Caution, Compared, Figure, deposit_names, together
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, ListBox, field_for
from anlage.ui.kit.heading import VerdictLine, heading
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.tabs import lay_beside
from anlage.ui.picture.editor import PictureEditor
from anlage.ui.picture.view import PictureView
from anlage.ui.places.metals.leaves import LEAVES
from anlage.ui.places.metals.presenter import MetalsPresenter

COLUMN_PX = 440
PATTERN = "Certificates (*.csv);;All files (*)"
LINES_PATTERN = "Tables of lines (*.csv);;All files (*)"
HEADS = ("Filler", "FN, estimate", "solidifies", "martensite")


class MetalsPlace(Place):
    """The picture on the left; certificates, cautions, figures and other fillers on the right."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.deposit = ListBox(document.reader)
        self.picture = PictureView(
            MetalsPresenter(document, self.deposit_id), document.reader, "How the metals go together"
        )
        self.editor = PictureEditor(self.picture, document)
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.said: list[VerdictLine] = []
        self.basis: dict[str, QLabel] = {}
        self._cells: dict[str, list[QLabel]] = {"figures": [], "compared": []}
        self.figures, self.others, self.cautions = QGridLayout(), QGridLayout(), QVBoxLayout()
        self.read = QPushButton("Read a certificate…")
        self.read.setToolTip("A CSV of heats: heat, elements, ReH, Rm in its first line (Ctrl+Shift+A)")
        self.read.clicked.connect(self.ask_for_certificate)
        self.own_lines = QPushButton("Own ferrite lines…")
        self.own_lines.setToolTip("A CSV of lines off your licensed diagram: fn, cr_eq, ni_eq; Cancel leaves them out")
        self.own_lines.clicked.connect(self.ask_for_lines)
        self.own = QPushButton("Metals and fillers of this works…")
        self.own.setToolTip("What your works adds to those that ship, from a CSV with its source")
        self.own.clicked.connect(self.ask_for_own)
        self.compare_head = heading("Other fillers for this pair")
        self.dialog: QWidget | None = None
        self._lay_out()
        self.deposit.currentIndexChanged.connect(self.refresh)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
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
        self.deposit.setAccessibleName("Filler of")
        column.addWidget(self.deposit)
        self.cautions.setSpacing(4)
        column.addLayout(self.cautions)
        column.addLayout(self._lay_out_fields(room))
        column.addWidget(self.read)
        column.addWidget(self.own_lines)
        column.addWidget(self.own)
        for grid, stretch in ((self.figures, 0), (self.others, 0)):
            grid.setHorizontalSpacing(12)
            grid.setVerticalSpacing(3)
            grid.setColumnStretch(stretch, 1)
        column.addLayout(self.figures)
        column.addWidget(self.compare_head)
        column.addLayout(self.others)
        column.addStretch(1)

    def _lay_out_fields(self, owner: QWidget) -> QGridLayout:
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(3)
        grid.setColumnStretch(1, 1)
        for row, path in enumerate(LEAVES):
            label = QLabel(field_of(path).label)
            label.setProperty("tone", "muted")
            label.setToolTip(field_of(path).tip)
            self.fields[path] = field_for(self.document, path)
            self.basis[path] = QLabel()
            self.basis[path].setProperty("tone", "muted")
            self.basis[path].setFont(font("note"))
            self.basis[path].setWordWrap(True)
            grid.addWidget(label, 2 * row, 0)
            grid.addWidget(self.fields[path], 2 * row, 1)
            grid.addWidget(self.basis[path], 2 * row + 1, 1)
        Complaint(self.document, LEAVES, owner)
        return grid

    def deposit_id(self) -> str:
        """Return the deposit whose filler is looked at."""
        return self.deposit.currentData() or ""

    def refresh(self) -> None:
        """Show how the metals go together now."""
        self._offer_deposits()
        found = together(self.document.value, self.deposit_id())
        self._show_cautions(found.cautions)
        for path in LEAVES:
            own = next((side for side in found.sides if f"{side.path}/certificate" == path), None)
            text = f"{own.name}: {own.basis}" if own and own.name else own.basis if own else ""
            if path == "metals/dilution":
                low, high = found.usual_dilution
                text = f"usual {100 * low:.0f} to {100 * high:.0f} % for the process" if found.is_stainless else ""
            elif path == "metals/other/certificate" and own is None:
                text = "both sides are one metal"
            self.basis[path].setText(text)
            self.basis[path].setVisible(bool(text))
        self.own_lines.setVisible(found.mixture is not None)
        self._show_figures((*found.figures, *own_figures(found, self.desk.settings.ferrite_lines)))
        self._show_compared(found.compared)
        self.read.setEnabled(self.document.can_write)
        self.picture.refresh()

    def _offer_deposits(self) -> None:
        names = deposit_names(self.document.value)
        if [self.deposit.itemData(n) for n in range(self.deposit.count())] != [own for own, _ in names] or [
            self.deposit.itemText(n) for n in range(self.deposit.count())
        ] != [name for _, name in names]:
            self.deposit.blockSignals(True)  # noqa: FBT003 - what is shown follows below
            kept = self.deposit.currentData()
            self.deposit.clear()
            for own, name in names:
                self.deposit.addItem(name, own)
            self.deposit.setCurrentIndex(max(self.deposit.findData(kept), 0))
            self.deposit.blockSignals(False)  # noqa: FBT003
        self.deposit.setVisible(bool(names))

    def _show_cautions(self, cautions: Sequence[Caution]) -> None:
        while len(self.said) < len(cautions):
            self.said.append(VerdictLine(self.document.reader))
            self.cautions.addWidget(self.said[-1])
        for n, line in enumerate(self.said):
            line.setVisible(n < len(cautions))
            if n < len(cautions):
                line.mark.setVisible(bool(cautions[n].verdict))
                line.say(cautions[n].verdict or "unproven", cautions[n].text)

    def _show_figures(self, figures: Sequence[Figure]) -> None:
        texts = [part for each in figures for part in (each.name, each.text, each.note)]
        cells = self._cells["figures"]
        while len(cells) < len(texts):
            row, part = divmod(len(cells), 3)
            label = QLabel()
            if part != 1:
                label.setProperty("tone", "muted")
            if part == 1:
                label.setAlignment(Qt.AlignmentFlag.AlignRight)
            if part == 2:
                label.setFont(font("note"))
                label.setWordWrap(True)
            self.figures.addWidget(label, 2 * row + (part == 2), 0 if part != 1 else 1, 1, 2 if part == 2 else 1)
            cells.append(label)
        for n, label in enumerate(cells):
            label.setText(texts[n] if n < len(texts) else "")
            label.setVisible(bool(label.text()))
            label.setToolTip(figures[n // 3].source if n < len(texts) else "")

    def _show_compared(self, compared: Sequence[Compared]) -> None:
        rows = (
            [HEADS, *((each.filler, each.ferrite, each.mode, each.martensite) for each in compared)] if compared else []
        )
        texts = [part for row in rows for part in row]
        cells = self._cells["compared"]
        while len(cells) < len(texts):
            label = QLabel()
            if len(cells) < len(HEADS):
                label.setProperty("tone", "muted")
            self.others.addWidget(label, len(cells) // len(HEADS), len(cells) % len(HEADS))
            cells.append(label)
        for n, label in enumerate(cells):
            label.setText(texts[n] if n < len(texts) else "")
            label.setVisible(n < len(texts))
        self.compare_head.setVisible(bool(compared))

    def begin(self) -> None:
        """Put the keyboard on the certificate of the first side."""
        self.fields[LEAVES[0]].setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is here."""
        if path not in self.fields:
            return False
        self.fields[path].setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True

    def ask_for_lines(self) -> None:
        """Ask for a table of ferrite lines, which holds for every procedure; none where none is chosen."""
        name, _ = QFileDialog.getOpenFileName(self.window(), "Own ferrite lines", "", LINES_PATTERN)
        try:
            if name:
                require_lines(name)
        except AnlageError as fault:
            self.desk.say(str(fault))
            return
        self.desk.keep(ferrite_lines=name)
        self.refresh()

    def ask_for_own(self) -> None:
        """Show the metals and fillers that the works adds, to bring some in or take some out."""
        self.dialog = loaded("anlage.ui.places.metals.own_dialog:OwnMaterialsDialog")(self.desk, self.window())
        self.dialog.open()

    def ask_for_certificate(self) -> None:
        """Ask for a CSV of heats, and for one of them where it has several; type it as the first side's certificate."""
        if not self.document.can_write:
            self.desk.mention("The works file is open for reading only.")
            return
        name, _ = QFileDialog.getOpenFileName(self.window(), "Read a mill certificate", "", PATTERN)
        if name:
            self.read_certificate(Path(name))

    def read_certificate(self, path: Path) -> None:
        """Type what a CSV of heats says as the certificate of the side whose field has the keyboard, else the first."""
        try:
            found = heats_in(path)
        except AnlageError as fault:
            self.desk.say(str(fault))
            return
        if found.faults:
            self.desk.say("; ".join(found.faults))
        chosen = self._chosen(found.heats)
        if chosen is None:
            return
        leaf = LEAVES[1] if self.fields[LEAVES[1]].hasFocus() else LEAVES[0]
        self.document.edit(with_heat(self.document.value, leaf, chosen, self.document.system), "Read a certificate")

    def _chosen(self, found: Sequence[Heat]) -> Heat | None:
        if len(found) < 2:
            return found[0] if found else None
        names = [each.name for each in found]
        word, taken = QInputDialog.getItem(self.window(), "Which heat?", "Heat", names, 0, False)  # noqa: FBT003
        return found[names.index(word)] if taken else None
