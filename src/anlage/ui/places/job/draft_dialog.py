"""A first draft is shown before it is taken: which processes lay the weld, and what would be stated."""

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QComboBox, QFormLayout, QHeaderView, QLabel, QPushButton, QWidget

from anlage.core.errors import AnlageError
from anlage.data.drafts_table import drafts
from anlage.session.draft.whole import whole_draft
from anlage.session.judging.editions import Codes
from anlage.session.leaves.difference import Difference
from anlage.session.leaves.table import field_of
from anlage.session.proposal.draft import Drafted, proposals, size_texts, with_size
from anlage.ui.kit.comparison import Comparison
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.document import Document
from anlage.ui.kit.text_line import TextLine

SIZE_PX = (760, 560)
COLUMNS_PX = (210, 150)  # what, and what is drafted; the rest is the reason
USUAL = "the usual for this metal and product"


class DraftDialog(Question):
    """What would be stated, with its reasons; nothing is changed until it is taken.

    Parameters
    ----------
    document : the open procedure, stated as far as it is
    codes : as the works has them
    take : takes a draft over
    """

    def __init__(self, document: Document, codes: Codes, take: Callable[[Drafted], None], parent: QWidget) -> None:
        super().__init__("Draft it", parent)
        self.document, self._codes, self._take = document, codes, take
        self.found: Drafted | None = None
        self.resize(*SIZE_PX)
        self.column.setSpacing(8)
        self.ways = QComboBox()
        self.ways.setAccessibleName("Welded by")
        self.ways.addItem(USUAL, ())
        for way in drafts().ways:
            self.ways.addItem(", then ".join(way), way)
        self.size_line, self.diameter_line = (TextLine(text) for text in size_texts(document.value, document.system))
        unit = field_of("joint/thickness_mm").unit(document.system)
        self.size_line.setPlaceholderText(f"12 {unit}, or a pipe: 5 sch 40")
        self.diameter_line.setPlaceholderText("of a pipe not named by its size")
        form = QFormLayout()
        form.setHorizontalSpacing(12)
        for label, field in (("Welded by", self.ways), (f"Thickness or pipe size, {unit}", self.size_line),
                             (f"Outside diameter, {unit}", self.diameter_line)):  # fmt: skip
            field.setAccessibleName(label.partition(",")[0])
            form.addRow(label, field)
        self.diameter_line.setVisible(document.value.joint.product != "plate")
        label = form.labelForField(self.diameter_line)
        label.setVisible(document.value.joint.product != "plate")
        self.column.addLayout(form)
        self.comparison = Comparison(most_px=300)
        head = self.comparison.table.horizontalHeader()
        for column, width in enumerate(COLUMNS_PX):
            head.setSectionResizeMode(column, QHeaderView.ResizeMode.Interactive)
            head.resizeSection(column, width)
        self.column.addWidget(self.comparison)
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.said.setProperty("tone", "muted")
        self.column.addWidget(self.said)
        self.column.addStretch(1)
        self.take_button, self.leave_button = QPushButton("Take it"), QPushButton("Leave all")
        self.add_foot(self.leave_button, self.take_button)
        self.leave_button.clicked.connect(self.reject)
        self.take_button.clicked.connect(self.take)
        self.take_button.setAutoDefault(True)
        self.take_button.setDefault(True)
        self.ways.currentIndexChanged.connect(self.refresh)
        for line in (self.size_line, self.diameter_line):
            line.textChanged.connect(self.refresh)
        self.refresh()
        (self.ways if self.size_line.text() else self.size_line).setFocus()

    def refresh(self) -> None:
        """Show what a draft by the chosen processes would state."""
        way: Sequence[str] = self.ways.currentData()
        try:
            texts = self.size_line.text().strip(), self.diameter_line.text().strip()
            wps = with_size(self.document.value, *texts, self.document.system)
            self.found = whole_draft(wps, way, self._codes)
        except AnlageError as fault:
            self.found = None
            self.said.setText(f"{fault.what[0].upper()}{fault.what[1:]}: {fault.mend}.")
            self._show(())
        else:
            rows = [Difference(*each) for each in proposals(self.found.wps, self.document.system)]
            self._show(rows)
            self.said.setText("\n".join(self.found.said))
        self.take_button.setEnabled(self.found is not None)

    def _show(self, rows: Sequence[Difference]) -> None:
        none = [Difference("Nothing is left to propose.", "", "")]
        self.comparison.show_rows(rows or none, ("What", "Drafted", "Because"))

    def take(self) -> None:
        """Take the draft over."""
        if self.found is not None:
            self._take(self.found)
            self.accept()
